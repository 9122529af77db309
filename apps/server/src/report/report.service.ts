import { grassWords } from '@glenfold/agronomy';
import type { ReportPlanAnswer, SharedSiteAnswer, SiteReportAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { notFound } from '../platform/problem.ts';
import type { Plan } from '../rates/plan.entity.ts';
import { RatesService } from '../rates/rates.service.ts';

/** What a site's owner reads: the plans that were handed over, and nothing that is still being worked on. */
@Injectable()
export class ReportService {
  constructor(
    private readonly ground: GroundService,
    private readonly rates: RatesService,
    private readonly practices: PracticeService,
  ) {}

  /** @param only sites that may be read; all when absent */
  async sites(only?: readonly string[]): Promise<SharedSiteAnswer[]> {
    const sites = await this.ground.sites();
    return sites
      .filter(({ id }) => !only || only.includes(id))
      .map(({ id, name, place }) => ({ siteId: id, siteName: name, place }));
  }

  /** @param pdfUnder address under which the plans on paper are found */
  async site(siteId: string, pdfUnder: string): Promise<SiteReportAnswer> {
    const [site, zones, practice, issued] = await Promise.all([
      this.ground.site(siteId),
      this.ground.zones(siteId),
      this.practices.current(),
      this.rates.handedOver(),
    ]);
    const { name: siteName, place } = site;
    return {
      siteId,
      siteName,
      place,
      practiceName: practice.name,
      zones: zones.map(({ id, name, area, grass, facts }) => {
        const plan = issued.find(({ zoneId }) => zoneId === id);
        return { name, area, grass: grassWords(grass, facts?.mix), plan: plan ? reportPlan(plan, pdfUnder) : null };
      }),
    };
  }

  /** A plan of a zone of that site, on paper. @throws a 404 problem for any other plan */
  async plan(siteId: string, planId: string): Promise<Plan> {
    const [zones, plan] = await Promise.all([this.ground.zones(siteId), this.rates.issued(planId)]);
    if (!zones.some(({ id }) => id === plan.zoneId)) notFound();
    return plan;
  }
}

function reportPlan({ id, issuedAt, issued }: Plan, pdfUnder: string): ReportPlanAnswer {
  const { answer, units } = issued!;
  const { reading, plan, result } = answer;
  return {
    id,
    issuedAt: issuedAt!.toISOString(),
    sampledOn: result.sampledOn,
    reading,
    plan,
    units,
    pdf: `${pdfUnder}/plans/${id}/plan.pdf`,
  };
}
