import type { UnitSystem } from '@glenfold/agronomy';
import type { LabelSheet } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, zoneAnswer } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { refuse } from '../platform/problem.ts';
import { type SubmittedBag, labelsPdf, submissionCsv, submissionPdf, submitted } from './bagPapers.ts';
import { SamplingService } from './sampling.service.ts';

/** What goes with bags on paper. */
@Injectable()
export class PapersService {
  constructor(
    private readonly sampling: SamplingService,
    private readonly ground: GroundService,
    private readonly practices: PracticeService,
  ) {}

  async labels(ids: readonly string[], sheet: LabelSheet, units: UnitSystem): Promise<Buffer> {
    return labelsPdf(await this.sampling.bagsWhole(some(ids)), sheet, units);
  }

  async submission(ids: readonly string[], units: UnitSystem): Promise<Buffer> {
    const bags = await this.sampling.bagsWhole(some(ids));
    const { name } = await this.practices.current();
    const laboratories = [...new Set(bags.flatMap(({ laboratory }) => laboratory ?? []))];
    return submissionPdf(await this.#submitted(ids), name, laboratories.join(', ') || null, units);
  }

  async submissionTable(ids: readonly string[]): Promise<string> {
    return submissionCsv(await this.#submitted(ids));
  }

  async #submitted(ids: readonly string[]): Promise<SubmittedBag[]> {
    const bags = await this.sampling.bagsWhole(some(ids));
    const sites = [...new Set(bags.map(({ siteId }) => siteId))];
    const zones = (await Promise.all(sites.map((siteId) => this.ground.zones(siteId)))).flat().map(zoneAnswer);
    return bags.map((bag) => submitted(bag, zones));
  }
}

function some(ids: readonly string[]): readonly string[] {
  return ids.length > 0 ? ids : refuse([{ field: 'ids', message: 'Choose at least one bag.' }]);
}
