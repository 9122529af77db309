import type { UnitSystem } from '@glenfold/agronomy';
import { type LabelSheet, feeOf } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { DrawingService } from '../ground/drawing.service.ts';
import { GroundService, zoneAnswer } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { refuse } from '../platform/problem.ts';
import { OwnLaboratoriesService } from '../laboratories/ownLaboratories.service.ts';
import { type SubmittedBag, labelsPdf, submissionCsv, submissionJson, submissionPdf, submitted } from './bagPapers.ts';
import { fieldSheetPdf } from './fieldSheet.ts';
import { SamplingService } from './sampling.service.ts';

/** What goes with bags on paper. */
@Injectable()
export class PapersService {
  constructor(
    private readonly sampling: SamplingService,
    private readonly ground: GroundService,
    private readonly plans: DrawingService,
    private readonly practices: PracticeService,
    private readonly laboratories: OwnLaboratoriesService,
  ) {}

  /** The plan with the cores on it, and a list to write on, for a walk without a device. */
  async fieldSheet(siteId: string, units: UnitSystem): Promise<Buffer> {
    const bags = (await this.sampling.ofSite(siteId)).filter(({ state }) => state === 'planned');
    if (bags.length === 0) refuse([{ field: 'bags', message: 'No bag is planned here: plan the cores first.' }]);
    const { name } = await this.practices.current();
    return fieldSheetPdf(await this.ground.site(siteId), await this.plans.plan(siteId), bags, name, units);
  }

  async labels(ids: readonly string[], sheet: LabelSheet, units: UnitSystem): Promise<Buffer> {
    return labelsPdf(await this.sampling.bagsWhole(some(ids)), sheet, units);
  }

  async submission(ids: readonly string[], units: UnitSystem): Promise<Buffer> {
    const { from, bags, addresses } = await this.#parcel(ids);
    return submissionPdf(bags, from, units, addresses);
  }

  async submissionTable(ids: readonly string[]): Promise<string> {
    return submissionCsv((await this.#parcel(ids)).bags);
  }

  async submissionJson(ids: readonly string[]): Promise<string> {
    const { from, bags } = await this.#parcel(ids);
    return submissionJson(bags, from);
  }

  async #parcel(ids: readonly string[]) {
    const bags = await this.sampling.bagsWhole(some(ids));
    const { name: from } = await this.practices.current();
    const sites = [...new Set(bags.map(({ siteId }) => siteId))];
    const zones = (await Promise.all(sites.map((siteId) => this.ground.zones(siteId)))).flat().map(zoneAnswer);
    const known = await this.laboratories.list();
    const submissions = bags.map((bag): SubmittedBag =>
      submitted(
        bag,
        zones,
        feeOf(
          known.find(({ name }) => name === bag.laboratory),
          bag.panels,
        ),
      ),
    );
    return { from, bags: submissions, addresses: new Map(known.map(({ name, address }) => [name, address])) };
  }
}

function some(ids: readonly string[]): readonly string[] {
  return ids.length > 0 ? ids : refuse([{ field: 'ids', message: 'Choose at least one bag.' }]);
}
