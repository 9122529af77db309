import {
  type Entry,
  type ReportedValues,
  type ToCome,
  type ZoneForecast,
  carriedOut,
  compareTests,
  dayOn,
  daysBetween,
  entryKindOf,
  isNumber,
  plannedEntry,
  wentDown,
  lastDayOf,
  proved,
  standing,
  swardOf,
  waterPh,
  organicMatterIn,
} from '@glenfold/agronomy';
import type { HitsAnswer, PredictionAnswer, ProofAnswer, ProofChangeAnswer, ProofZoneAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any } from 'typeorm';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { LabService, type ReadResult, coresOf, standingOf, testOf } from '../lab/lab.service.ts';
import { grouped } from '../platform/grouped.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { HandOver, type Handed } from '../rates/handOver.service.ts';
import { soilTest, zoneFacts } from '../rates/facts.ts';
import { type SeasonBasis, SeasonBases, seasonOfZone } from '../season/basis.service.ts';
import type { Job } from '../season/job.entity.ts';
import { JobsService } from '../season/jobs.service.ts';
import { Site } from '../sites/site.entity.ts';
import { type ForecastZone, forecasts } from './forecasts.ts';
import { Prediction } from './prediction.entity.ts';

/** How far ahead it is foretold, days. */
const AHEAD = 3 * 365;
/** Days after the test of a prediction from which a test is its retest. */
const LATER = 120;

/** A test of a zone with its day. */
interface Tested {
  readonly id: string;
  readonly sampledOn: string;
  readonly ph: number;
  readonly values: ReportedValues;
  readonly cores: number | undefined;
}

/** Whether it worked: what was foretold, what the retest says, and what is due. */
@Injectable()
export class ProofService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly bases: SeasonBases,
    private readonly jobs: JobsService,
    private readonly threads: Threads,
    handOver: HandOver,
  ) {
    handOver.listen((handed) => this.#foretell(handed));
  }

  async proof(
    siteId: string,
    known?: { readonly basis: SeasonBasis; readonly jobs: readonly Job[] },
  ): Promise<ProofAnswer> {
    const basis = known?.basis ?? (await this.bases.of(siteId));
    const results = await this.lab.resultsOf(siteId);
    const jobs = known?.jobs ?? (await this.jobs.of(siteId));
    const predictions = grouped(
      await this.records.of(Prediction).find({ siteId }, { madeOn: 'DESC', createdAt: 'DESC' }),
      ({ zoneId }) => zoneId,
    );
    const jobsOf = grouped(jobs, ({ zoneId }) => zoneId);
    const foretold = await this.#forecasts(basis.zones, results, jobsOf, basis);
    return {
      today: basis.today,
      zones: basis.zones.map((zone, at) =>
        this.#zone(
          zone,
          testsOf(results, zone.id),
          foretold[at],
          jobsOf.get(zone.id) ?? [],
          predictions.get(zone.id) ?? [],
          basis,
        ),
      ),
    };
  }

  /** All predictions of the practice that a retest has judged. */
  async hits(): Promise<HitsAnswer> {
    const predictions = await this.records.of(Prediction).find({}, { madeOn: 'DESC' });
    const siteIds = [...new Set(predictions.map(({ siteId }) => siteId))];
    const sites = new Map(
      (await this.records.of(Site).findEver({ id: Any(siteIds) })).map(({ id, name }) => [id, name]),
    );
    const hits: HitsAnswer['hits'] = [];
    let waiting = 0;
    for (const [siteId, own] of grouped(predictions, (one) => one.siteId)) {
      const results = await this.lab.resultsOf(siteId);
      const zones = new Map(
        (await this.ground.zonesEver(own.map(({ zoneId }) => zoneId))).map(({ id, name }) => [id, name]),
      );
      for (const [zoneId, ofZone] of grouped(own, (one) => one.zoneId)) {
        const tests = testsOf(results, zoneId);
        for (const told of ofZone.map((one) => predictionAnswer(one, ofZone, tests))) {
          if (!told.proved || !told.retestedOn) {
            waiting += 1;
            continue;
          }
          const { expected, moved, inside } = told.proved;
          hits.push({
            ...{ siteId, site: sites.get(siteId) ?? '', zoneId, zone: zones.get(zoneId) ?? '' },
            ...{ madeOn: told.madeOn, retestedOn: told.retestedOn, expected, moved, inside },
          });
        }
      }
    }
    const inside = hits.filter((hit) => hit.inside).length;
    return {
      ...{ hits, inside, waiting },
      words:
        hits.length === 0
          ? 'No retest has judged a prediction yet.'
          : `${inside} of ${hits.length} inside the band; of many, 8 in 10 should be.${hits.length < 10 ? ' Too few to say more.' : ''}`,
    };
  }

  /** Keep what is foretold of every zone of a program that is handed over. */
  async #foretell({ program, zones }: Handed): Promise<void> {
    const basis = await this.bases.of(program.siteId);
    const results = await this.lab.resultsOf(program.siteId);
    const jobsOf = grouped(await this.jobs.of(program.siteId), ({ zoneId }) => zoneId);
    const handed = zones.flatMap(({ zoneId }) => basis.zoneOf(zoneId) ?? []);
    const foretold = await this.#forecasts(handed, results, jobsOf, basis);
    const forecastOf = new Map(handed.map(({ id }, at) => [id, foretold[at]]));
    const made = zones.flatMap(({ zoneId, resultId }): Array<Partial<Prediction>> => {
      const forecast = forecastOf.get(zoneId);
      if (!forecast) return [];
      return [
        {
          ...{ siteId: program.siteId, zoneId, programId: program.id, labResultId: resultId, madeOn: basis.today },
          ...{ from: forecast.from, ph: forecast.under[0]!.ph, days: forecast.under },
          ...{ retestOn: forecast.retest.on, retestWords: forecast.retest.words },
        },
      ];
    });
    await this.records.of(Prediction).addAll(made);
  }

  /** What is foretold of zones, worked out beside the other requests. */
  #forecasts(
    zones: readonly MeasuredZone[],
    results: readonly ReadResult[],
    jobsOf: ReadonlyMap<string, readonly Job[]>,
    basis: SeasonBasis,
  ): Promise<Array<ZoneForecast | undefined>> {
    const { climate, latitude } = basis;
    const given = zones.map((zone) => this.#foretoldFrom(zone, results, jobsOf.get(zone.id) ?? [], basis));
    return this.threads.run(forecasts, { climate, latitude }, given);
  }

  #foretoldFrom(
    zone: MeasuredZone,
    results: readonly ReadResult[],
    jobs: readonly Job[],
    basis: SeasonBasis,
  ): ForecastZone | undefined {
    const result = testOf(results, zone.id);
    const test = result && soilTest(result);
    if (!test?.sampledOn) return undefined;
    const planned = jobs.flatMap((job): ToCome[] => {
      const day = job.day ?? job.earliest ?? job.from;
      const material = basis.material(job.productId);
      if (day === null || !material || (job.state !== 'open' && job.state !== 'partly done') || job.unit !== 'kg')
        return [];
      const until = job.moved ? day : (job.to ?? day);
      return wentDown([plannedEntry(job, day, zone.area, basis.material)]).map((entry) => ({ day, until, entry }));
    });
    const until = dayOn(test.sampledOn > basis.today ? test.sampledOn : basis.today, AHEAD);
    return {
      ...{ zone: zoneFacts(zone), test, entries: zone.entries, planned, until },
      season: seasonOfZone(zone),
    };
  }

  #zone(
    zone: MeasuredZone,
    tests: readonly Tested[],
    forecast: ZoneForecast | undefined,
    jobs: readonly Job[],
    predictions: readonly Prediction[],
    basis: SeasonBasis,
  ): ProofZoneAnswer {
    const last = tests.at(-1);
    const sward = zone.surface === 'garden bed' ? undefined : swardOf({ grass: zone.grass, mix: zone.facts?.mix ?? undefined }, last && organicMatterIn(last.values)); // prettier-ignore
    const retestOn = forecast?.retest.on ?? null;
    return {
      ...{ zoneId: zone.id, zone: zone.name },
      tests: tests.map(({ sampledOn, ph }) => ({ sampledOn, ph })),
      ...{ from: forecast?.from ?? null, under: [...(forecast?.under ?? [])], nothing: [...(forecast?.nothing ?? [])] },
      working: forecast?.working ?? [],
      band: sward?.main ? [...sward.ph] : null,
      ...{ retestOn, retestWords: forecast?.retest.words ?? null },
      retestDue: retestOn !== null && retestOn <= basis.today,
      words: forecast
        ? [...forecast.words]
        : [
            last === undefined
              ? 'No test with a pH and a day yet: nothing is foretold, and nothing can be judged.'
              : 'The day of the last test is not known: give it on the Lab step, and the pH is foretold from there.',
          ],
      marks: marksOf(zone.entries, jobs),
      predictions: predictions.map((one) => predictionAnswer(one, predictions, tests)),
      changes: changesOf(tests),
    };
  }
}

/** Tests of a zone with a day and a pH, the oldest first; what was superseded is left out. */
export function testsOf(results: readonly ReadResult[], zoneId: string): Tested[] {
  return standingOf(results, zoneId)
    .flatMap((result): Tested[] => {
      const { id, values, sample } = result;
      const ph = waterPh(values);
      return ph === undefined || !sample.sampledOn
        ? []
        : [{ id, sampledOn: sample.sampledOn, ph, values, cores: coresOf(result) }];
    })
    .sort((one, other) => one.sampledOn.localeCompare(other.sampledOn));
}

/** A prediction beside its retest: the first test that is late enough, and before a later program's own beginning. */
function predictionAnswer(one: Prediction, all: readonly Prediction[], tests: readonly Tested[]): PredictionAnswer {
  const retest = tests.find(({ sampledOn }) => daysBetween(one.from, sampledOn) >= LATER);
  // Of several programs that begin from one test, the last that was handed over is the one that was worked.
  const worked = all.filter(({ from, madeOn }) => from === one.from && (!retest || madeOn <= retest.sampledOn));
  const isWorked = worked.every(
    ({ madeOn, createdAt }) => madeOn < one.madeOn || (madeOn === one.madeOn && createdAt <= one.createdAt),
  );
  const judged =
    retest && isWorked ? proved(one.days, one.ph, daysBetween(one.from, retest.sampledOn), retest.ph) : undefined;
  return {
    ...{ id: one.id, madeOn: one.madeOn, from: one.from, ph: one.ph, days: [...one.days], retestOn: one.retestOn },
    proved: judged ?? null,
    retestedOn: judged ? retest!.sampledOn : null,
  };
}

/** What was put down and what is to be, on its days. */
function marksOf(entries: readonly Entry[], jobs: readonly Job[]): ProofZoneAnswer['marks'] {
  const works = new Set(['lime', 'sulfur', 'fertilizer', 'compost', 'gypsum']);
  return [
    ...carriedOut(standing(entries))
      .filter(({ kind }) => works.has(kind))
      .map(({ on, words }) => ({ on: lastDayOf(on), words, done: true })),
    ...jobs.flatMap(({ state, day, earliest, from, name, remedy }) => {
      const on = day ?? earliest ?? from;
      return (state === 'open' || state === 'partly done') && on !== null && works.has(entryKindOf(remedy))
        ? [{ on, words: name, done: false }]
        : [];
    }),
  ].sort((one, other) => one.on.localeCompare(other.on));
}

const told = [
  { analyte: 'soilPh', name: 'pH', sense: 'ph' },
  { analyte: 'p', name: 'P', sense: 'concentration' },
  { analyte: 'k', name: 'K', sense: 'concentration' },
] as const;

/** The last two tests, analyte by analyte: changed, or noise. */
function changesOf(tests: readonly Tested[]): ProofChangeAnswer[] {
  const [before, after] = [tests.at(-2), tests.at(-1)];
  if (!before || !after) return [];
  return told.flatMap(({ analyte, name, sense }): ProofChangeAnswer[] => {
    const [one, other] = [before.values[analyte], after.values[analyte]];
    if (!one || !other || !isNumber(one) || !isNumber(other) || one.unit !== other.unit || one.basis !== other.basis)
      return [];
    const { result, working } = compareTests(analyte, { value: one.value, cores: before.cores }, { value: other.value, cores: after.cores })!; // prettier-ignore
    const { change, uncertainty, differs } = result;
    const unknown = before.cores === undefined || after.cores === undefined ? ' How many cores are in the bags is not known, and one is taken: with more, less would show.' : ''; // prettier-ignore
    const say = (of: number): string => (sense === 'ph' ? of.toFixed(1) : `${Math.round(of)} ${one.unit}`);
    return [
      {
        ...{ analyte: name, from: before.sampledOn, to: after.sampledOn, before: one.value, after: other.value },
        ...{ change, uncertainty, differs, unit: one.unit, working },
        words: differs
          ? `${name} has changed from ${say(one.value)} to ${say(other.value)}: more than the ${say(uncertainty)} that two tests of one ground may differ by.${unknown}`
          : `${name} ${say(one.value)} and ${say(other.value)}: within the ${say(uncertainty)} that two tests of one ground may differ by. No change is shown.${unknown}`,
      },
    ];
  });
}
