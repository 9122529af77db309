import type { UnitSystem } from '@glenfold/agronomy';
import { type LabelSheet, feeOf } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { DrawingService } from '../ground/drawing.service.ts';
import { GroundService, zoneAnswer } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { refuse } from '../platform/problem.ts';
import { Threads } from '../platform/threads.ts';
import { Days } from '../settings/days.service.ts';
import { OwnLaboratoriesService } from '../laboratories/ownLaboratories.service.ts';
import {
  type SubmittedBag,
  labelsPaper,
  lastOf,
  submissionCsv,
  submissionJson,
  submissionPaper,
  submitted,
} from './bagPapers.ts';
import { fieldSheetPaper } from './fieldSheet.ts';
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
    private readonly threads: Threads,
    private readonly days: Days,
  ) {}

  /** The plan with the cores on it, and a list to write on, for a walk without a device. */
  async fieldSheet(siteId: string, units: UnitSystem): Promise<Uint8Array> {
    const bags = (await this.sampling.ofSite(siteId)).filter(({ state }) => state === 'planned');
    if (bags.length === 0) refuse([{ field: 'bags', message: 'No bag is planned here: plan the cores first.' }]);
    const { name } = await this.practices.current();
    const site = await this.ground.site(siteId);
    const named = { name: site.name, place: site.place };
    return this.threads.run(fieldSheetPaper, named, await this.plans.plan(siteId), bags, name, units);
  }

  async labels(ids: readonly string[], sheet: LabelSheet, units: UnitSystem): Promise<Uint8Array> {
    const { name } = await this.practices.current();
    return this.threads.run(labelsPaper, await this.sampling.bagsWhole(some(ids)), sheet, units, name);
  }

  async submission(ids: readonly string[], units: UnitSystem): Promise<Uint8Array> {
    const { from, bags, addresses } = await this.#parcel(ids);
    return this.threads.run(submissionPaper, bags, from, units, addresses);
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
    const submissions: SubmittedBag[] = [];
    for (const bag of bags) {
      const laboratory = known.find(({ name }) => name === bag.laboratory);
      const filled = lastOf(bag.places);
      const sampledOn = filled && (await this.days.on(bag.siteId, filled));
      submissions.push(submitted(bag, zones, feeOf(laboratory, bag.panels), sampledOn));
    }
    return { from, bags: submissions, addresses: new Map(known.map(({ name, address }) => [name, address])) };
  }
}

function some(ids: readonly string[]): readonly string[] {
  return ids.length > 0 ? ids : refuse([{ field: 'ids', message: 'Choose at least one bag.' }]);
}
