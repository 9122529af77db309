import { writeBagCode } from '@glenfold/agronomy';
import {
  type BagLineAnswer,
  type Permission,
  RoundsAnswer,
  type RoundsTask,
  SiteStateAnswer,
  type StepState,
  allows,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, type UndrawnZone, siteAnswer } from '../ground/ground.service.ts';
import type { Site } from '../sites/site.entity.ts';
import type { LabReport } from '../lab/labReport.entity.ts';
import { LabReportService } from '../lab/labReport.service.ts';
import { type KnownResult, LabService, testOf } from '../lab/lab.service.ts';
import { Work } from '../platform/work.ts';
import type { Plan } from '../rates/plan.entity.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { RatesService } from '../rates/rates.service.ts';

/** All that the state of the sites depends on, read once. */
interface Holdings {
  readonly zones: readonly UndrawnZone[];
  /** Newest first. */
  readonly results: readonly KnownResult[];
  readonly imports: readonly LabReport[];
  readonly issued: readonly Plan[];
  readonly bags: readonly BagLineAnswer[];
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** How far the bags of a site are. */
function sampling(bags: readonly BagLineAnswer[], zones: number): StepState {
  const step = 'sampling';
  const alive = bags.filter(({ state }) => state !== 'lost' && state !== 'spoiled');
  if (alive.length === 0) return { step, words: zones === 0 ? 'no zones yet' : 'no bag planned', state: 'waiting' };
  const gone = alive.filter(({ state }) => !['planned', 'cored', 'drying'].includes(state)).length;
  const unread = alive.filter(({ state }) => state === 'reported').length;
  const late = alive.filter(({ overdue, state }) => overdue > 0 && state !== 'reported').length;
  const words =
    late > 0
      ? `${plural(late, 'bag')} overdue`
      : unread > 0
        ? `${plural(unread, 'report')} unread`
        : `${gone} of ${plural(alive.length, 'bag')} sent`;
  return { step, words, state: late + unread > 0 || gone < alive.length ? 'act' : 'done' };
}

const later = (step: StepState['step']): StepState => ({ step, words: 'to come', state: 'later' });
const plural = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`;

@Injectable()
export class RoundsService {
  constructor(
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly imports: LabReportService,
    private readonly rates: RatesService,
    private readonly sampling: SamplingService,
    private readonly work: Work,
  ) {}

  async rounds(): Promise<RoundsAnswer> {
    const [sites, holdings] = await Promise.all([this.ground.sites(), this.#holdings()]);
    const { role } = this.work.worker;
    const tasks = sites
      .flatMap((site) => this.#tasks(site, holdings))
      .filter(({ may }) => role === null || allows(role, may))
      .sort((a, b) => a.weight - b.weight);
    return {
      tasks: tasks.map(({ weight: _weight, may: _may, ...task }) => task),
      sites: sites.map((site) => this.#state(site, holdings)),
    };
  }

  async site(siteId: string): Promise<SiteStateAnswer> {
    const [site, holdings] = await Promise.all([this.ground.site(siteId), this.#holdings()]);
    return this.#state(site, holdings);
  }

  async #holdings(): Promise<Holdings> {
    const [zones, results, imports, issued, bags] = await Promise.all([
      this.ground.undrawnZones(),
      this.lab.newestFirst(),
      this.imports.open(),
      this.rates.handedOver(),
      this.sampling.board(),
    ]);
    return { zones, results, imports, issued, bags };
  }

  #of(site: Site, { zones, results, imports, issued, bags }: Holdings) {
    const own = zones.filter(({ siteId }) => siteId === site.id);
    const newest = new Map(
      own.flatMap(({ id }): Array<[string, KnownResult]> => {
        const result = testOf(results, id);
        return result ? [[id, result]] : [];
      }),
    );
    return {
      zones: own,
      bags: bags.filter(({ siteId }) => siteId === site.id),
      tested: own.filter(({ id }) => newest.has(id)),
      untested: own.filter(({ id }) => !newest.has(id)),
      waiting: imports.filter(({ siteId }) => siteId === site.id),
      planned: own.filter(({ id }) =>
        issued.some(({ labResultId }) => labResultId !== null && labResultId === newest.get(id)?.id),
      ),
    };
  }

  #state(site: Site, holdings: Holdings): SiteStateAnswer {
    const { zones, tested, waiting, planned, bags } = this.#of(site, holdings);
    const count = zones.length;
    const share = (part: number, done: string): Pick<StepState, 'words' | 'state'> => ({
      words: count === 0 ? 'no zones yet' : part === count ? `all ${count} ${done}` : `${part} of ${count} ${done}`,
      state: count === 0 ? 'waiting' : part === count ? 'done' : 'act',
    });
    const untested = tested.length === 0;
    const lab: StepState =
      waiting.length > 0
        ? { step: 'lab', words: `${plural(waiting.length, 'file')} to check`, state: 'act' }
        : { step: 'lab', ...share(tested.length, 'tested') };
    return {
      site: siteAnswer(site),
      zones: count,
      area: zones.reduce((sum, { area }) => sum + area, 0),
      steps: [
        { step: 'ground', words: plural(count, 'zone'), state: count > 0 ? 'done' : 'act' },
        sampling(bags, count),
        lab,
        {
          step: 'reading',
          words: untested ? 'no test yet' : `${tested.length} of ${count} readable`,
          state: untested ? 'waiting' : 'done',
        },
        {
          step: 'rates',
          ...(untested ? { words: 'no test yet', state: 'waiting' as const } : share(planned.length, 'handed over')),
        },
        later('season'),
        later('logbook'),
        later('proof'),
      ],
    };
  }

  #tasks(site: Site, holdings: Holdings): Array<RoundsTask & { readonly weight: number; readonly may: Permission }> {
    const { zones, tested, untested, waiting, planned, bags } = this.#of(site, holdings);
    const task = (
      weight: number,
      step: RoundsTask['step'],
      words: string,
      why: string,
      zoneId: string | null = null,
      may: Permission = 'work.write',
    ) => ({ weight, may, siteId: site.id, siteName: site.name, zoneId, step, words, why });
    const names = (list: readonly UndrawnZone[]): string => list.map(({ name }) => name).join(', ');
    const open = tested.filter((zone) => !planned.includes(zone));
    // A report that nobody read stands among the files already.
    const late = bags.filter(({ overdue, state }) => overdue > 0 && !(state === 'reported' && waiting.length > 0));
    const toWalk = bags.filter(({ state, overdue }) => state === 'planned' && overdue === 0);
    const unmeasured = zones.filter(({ thatch, rootDepth }) => thatch === null || rootDepth === null);
    return [
      ...waiting.map(({ fileName }) =>
        task(
          1,
          'lab',
          `Check ${fileName} and import it`,
          'A laboratory’s file is loaded, but none of its results is in use yet.',
        ),
      ),
      ...(open.length > 0
        ? [
            task(
              2,
              'rates',
              `Hand over ${open.length === 1 ? 'the plan' : `${open.length} plans`}: ${names(open)}`,
              'Tested, and the rates are worked out, but the owner has nothing in hand.',
              open[0]!.id,
            ),
          ]
        : []),
      ...late.map(({ code, state, days, laboratory }) =>
        task(
          1,
          'sampling',
          state === 'planned' ? `Walk bag ${writeBagCode(code)}` : `Ask after bag ${writeBagCode(code)}`,
          state === 'planned'
            ? 'Its day is past, and nobody has cored it.'
            : `${state === 'at the lab' ? `At ${laboratory ?? 'the laboratory'}` : capital(state)} for ${plural(days, 'day')}, longer than usual.`,
          null,
          'field.write',
        ),
      ),
      ...(toWalk.length > 0
        ? [
            task(
              4,
              'sampling',
              `Walk ${plural(toWalk.length, 'bag')}: ${toWalk.map(({ zoneNames }) => zoneNames.join(', ')).join('; ')}`,
              'Planned, with every core in its place; the soil waits.',
              null,
              'field.write',
            ),
          ]
        : []),
      ...(untested.length > 0
        ? [
            task(
              3,
              'lab',
              `Enter ${untested.length === 1 ? 'a result' : `${untested.length} results`}: ${names(untested)}`,
              'No test: no lime, phosphorus or potassium without one.',
              untested[0]!.id,
            ),
          ]
        : []),
      ...(unmeasured.length > 0
        ? [
            task(
              5,
              'ground',
              `Measure thatch and roots: ${names(unmeasured)}`,
              'Nobody has written down yet how thick the thatch is and how deep the roots go.',
              unmeasured[0]!.id,
              'field.write',
            ),
          ]
        : []),
      ...(zones.length === 0
        ? [
            task(
              4,
              'ground',
              'Divide the ground into zones',
              'Nothing can be sampled or treated before its area is known.',
            ),
          ]
        : []),
    ];
  }
}
