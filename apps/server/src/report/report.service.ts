import { carriedOut, dayOn, grassWords, lastDayOf, standing } from '@glenfold/agronomy';
import type {
  ReportLineAnswer,
  ReportPlanAnswer,
  ReportYearAnswer,
  SharedSitesAnswer,
  SiteReportAnswer,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Breath } from '../platform/breath.ts';
import { grouped } from '../platform/grouped.ts';
import { GroundService, type SitesAsked } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { notFound } from '../platform/problem.ts';
import { workingsAside } from '../platform/workings.ts';
import { Work } from '../platform/work.ts';
import { HandingOver } from '../rates/handingOver.service.ts';
import { Quotes } from '../rates/quotes.service.ts';
import { RatesService } from '../rates/rates.service.ts';
import { ProofService } from '../proof/proof.service.ts';
import { OwnerReports } from './ownerReports.service.ts';
import { SitePrice } from './sitePrice.service.ts';
import { type SeasonBasis, SeasonBases } from '../season/basis.service.ts';
import { JobsService } from '../season/jobs.service.ts';
import type { Job } from '../season/job.entity.ts';

type HandedOver = Awaited<ReturnType<RatesService['issued']>>;

/** What a site's owner reads: the plans that were handed over, and nothing that is still being worked on. */
@Injectable()
export class ReportService {
  constructor(
    private readonly ground: GroundService,
    private readonly rates: RatesService,
    private readonly handing: HandingOver,
    private readonly practices: PracticeService,
    private readonly quotes: Quotes,
    private readonly bases: SeasonBases,
    private readonly jobs: JobsService,
    private readonly proofs: ProofService,
    private readonly owners: OwnerReports,
    private readonly prices: SitePrice,
    private readonly work: Work,
  ) {}

  /** @param only sites that may be read; all when absent */
  async sites(asked: SitesAsked, only?: readonly string[]): Promise<SharedSitesAnswer> {
    const ids = only && asked.ids ? only.filter((id) => asked.ids!.includes(id)) : (only ?? asked.ids);
    const { sites, count, next } = await this.ground.sites({ ...asked, ids });
    return { sites: sites.map(({ id, name, place }) => ({ siteId: id, siteName: name, place })), count, next };
  }

  /** @param under address of the report, under which the plans on paper and their workings are found */
  async site(siteId: string, under: string): Promise<SiteReportAnswer> {
    const basis = await this.bases.of(siteId);
    const { site, zones } = basis;
    const practice = await this.practices.current();
    const issued = await this.rates.handedOver(zones.map(({ id }) => id));
    const owner = await this.owners.newest(siteId, true, under);
    const quote = await this.quotes.last(siteId);
    const jobs = await this.jobs.of(siteId);
    const { name: siteName, place } = site;
    return {
      siteId,
      siteName,
      place,
      mayShare: this.work.worker.role === 'client' && practice.clientsShare,
      ...{ practiceName: practice.name, practicePhone: practice.phone, practiceEmail: practice.email },
      year: await this.#year(siteId, basis, jobs),
      owner,
      earlier: owner ? await this.owners.earlier(siteId, under) : [],
      entryKnown: !!site.access?.gate,
      price: await this.prices.of(siteId, { jobs, currency: practice.currency }),
      quote: quote && { ...quote, pdf: `/api${under}/quotes/${quote.id}/quote.pdf` },
      zones: await this.#zones(zones, new Map(issued.map((plan) => [plan.zoneId, plan])), under),
    };
  }

  async #zones(
    zones: SeasonBasis['zones'],
    plans: ReadonlyMap<string, HandedOver>,
    under: string,
  ): Promise<SiteReportAnswer['zones']> {
    const told: SiteReportAnswer['zones'] = [];
    const changing = await this.handing.changing(zones.map(({ id }) => id));
    const breath = new Breath();
    for (const { id, name, area, grass, facts } of zones) {
      const plan = plans.get(id);
      told.push({
        name,
        area,
        grass: grassWords(grass, facts?.mix),
        plan: plan ? await toldPlan(plan, under) : null,
        changing: changing.has(id),
      });
      await breath.drawn();
    }
    return told;
  }

  /** What was done in the last twelve months, what comes next, what moved, and when to test again. */
  async #year(siteId: string, basis: SeasonBasis, jobs: Job[]): Promise<ReportYearAnswer> {
    const { zones } = basis;
    const { zones: proved, today } = await this.proofs.proof(siteId, { basis, jobs });
    const nameOf = (zoneId: string): string => zones.find(({ id }) => id === zoneId)?.name ?? '';
    return {
      done: zones
        .flatMap((zone) =>
          carriedOut(standing(zone.entries))
            .filter(({ on }) => lastDayOf(on) > dayOn(today, -365) && lastDayOf(on) <= today)
            .map(({ on, kind, words }) => ({ zone: zone.name, when: on, part: null, words: doneWords(kind, words) })),
        )
        .sort(byDay),
      next: oneLineADay(
        jobs
          .filter(({ state, zoneId }) => (state === 'open' || state === 'partly done') && nameOf(zoneId) !== '')
          .map((job) => ({
            zone: nameOf(job.zoneId),
            when: whenOf(job),
            part: job.hold ? null : job.part,
            words: nextWords(job),
          })),
      )
        .sort(byDay)
        .slice(0, MOST_NEXT),
      moved: proved.flatMap(({ zone, predictions }) => {
        const told = predictions.find((one) => one.proved !== null);
        return told ? [{ zone, when: told.retestedOn, part: null, words: `pH. ${told.proved!.words.split(':')[0]!}: ${told.proved!.inside ? 'as foretold' : 'not as foretold, and we say why'}.` }] : []; // prettier-ignore
      }),
      retests: proved.flatMap(({ zone, retestOn, retestWords, from }) =>
        from === null || retestOn === null ? [] : [{ zone, when: retestOn, part: null, words: retestWords ?? '' }],
      ),
    };
  }

  /** The whole of a plan that was handed over, with its workings. @throws as `plan` */
  async whole(siteId: string, planId: string): Promise<Omit<ReportPlanAnswer, 'pdf'>> {
    return reportPlan(await this.plan(siteId, planId));
  }

  /** A plan of a zone of that site, on paper. @throws a 404 problem for any other plan */
  async plan(siteId: string, planId: string): Promise<HandedOver> {
    const zones = await this.ground.zones(siteId);
    const plan = await this.rates.issued(planId);
    if (!zones.some(({ id }) => id === plan.zoneId)) notFound();
    return plan;
  }
}

/** Lines of what comes next that an owner reads. */
const MOST_NEXT = 12;

const byDay = (one: ReportLineAnswer, other: ReportLineAnswer): number =>
  (one.when ?? '9').localeCompare(other.when ?? '9');

/** What is done in a zone on one day, on one line. */
function oneLineADay(lines: readonly ReportLineAnswer[]): ReportLineAnswer[] {
  const days = grouped(lines, ({ zone, when, part }) => JSON.stringify([zone, when, part]));
  return [...days.values()].map((own) => ({
    ...own[0]!,
    words: [...new Set(own.map(({ words }) => words))].join(', '),
  }));
}

/** What was done, with its kind where its words do not name it. */
function doneWords(kind: string, words: string): string {
  const named = words.toLowerCase().includes(kind) || kind === 'other';
  return named ? words : `${kind.charAt(0).toUpperCase()}${kind.slice(1)}: ${words}`;
}

/** The day of a job, or the span that it has. */
const whenOf = ({ day, earliest, latest, hold }: Job): string | null => {
  // What waits has no day to count on.
  if (hold) return null;
  return day ?? (earliest !== null && latest !== null ? `${earliest} to ${latest}` : null);
};

/** What the owner reads of a job to come: also that it waits, and why. */
const nextWords = ({ name, hold }: Job): string => (hold ? `${name}: waits since ${hold.since}. ${hold.reason}` : name);

async function toldPlan(plan: HandedOver, under: string): Promise<ReportPlanAnswer> {
  const at = `${under}/plans/${plan.id}`;
  return { ...(await workingsAside(reportPlan(plan), `${at}/working`)), pdf: `/api${at}/plan.pdf` };
}

function reportPlan({ id, issuedAt, paper }: HandedOver): Omit<ReportPlanAnswer, 'pdf'> {
  const { reading, program, result } = paper.answer;
  return {
    id,
    issuedAt: issuedAt.toISOString(),
    sampledOn: result?.sampledOn ?? null,
    reading,
    program,
    units: paper.units,
    currency: paper.currency ?? '$',
  };
}
