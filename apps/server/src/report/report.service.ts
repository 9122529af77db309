import { grassWords } from '@glenfold/agronomy';
import type { ReportPlanAnswer, SharedSitesAnswer, SiteReportAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, type SitesAsked } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { notFound } from '../platform/problem.ts';
import { workingsAside } from '../platform/workings.ts';
import { Quotes } from '../rates/quotes.service.ts';
import { RatesService } from '../rates/rates.service.ts';

type HandedOver = Awaited<ReturnType<RatesService['issued']>>;

/** What a site's owner reads: the plans that were handed over, and nothing that is still being worked on. */
@Injectable()
export class ReportService {
  constructor(
    private readonly ground: GroundService,
    private readonly rates: RatesService,
    private readonly practices: PracticeService,
    private readonly quotes: Quotes,
  ) {}

  /** @param only sites that may be read; all when absent */
  async sites(asked: SitesAsked, only?: readonly string[]): Promise<SharedSitesAnswer> {
    const ids = only && asked.ids ? only.filter((id) => asked.ids!.includes(id)) : (only ?? asked.ids);
    const { sites, count, next } = await this.ground.sites({ ...asked, ids });
    return { sites: sites.map(({ id, name, place }) => ({ siteId: id, siteName: name, place })), count, next };
  }

  /** @param under address of the report, under which the plans on paper and their workings are found */
  async site(siteId: string, under: string): Promise<SiteReportAnswer> {
    const site = await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    const practice = await this.practices.current();
    const issued = await this.rates.handedOver(zones.map(({ id }) => id));
    const quote = await this.quotes.last(siteId);
    const { name: siteName, place } = site;
    return {
      siteId,
      siteName,
      place,
      practiceName: practice.name,
      quote: quote && { ...quote, pdf: `/api${under}/quotes/${quote.id}/quote.pdf` },
      zones: zones.map(({ id, name, area, grass, facts }) => {
        const plan = issued.find(({ zoneId }) => zoneId === id);
        return { name, area, grass: grassWords(grass, facts?.mix), plan: plan ? toldPlan(plan, under) : null };
      }),
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

function toldPlan(plan: HandedOver, under: string): ReportPlanAnswer {
  const at = `${under}/plans/${plan.id}`;
  return { ...workingsAside(reportPlan(plan), `${at}/working`), pdf: `/api${at}/plan.pdf` };
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
