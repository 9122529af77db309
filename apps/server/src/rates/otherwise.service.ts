import type { AskedFees, UnitSystem } from '@glenfold/agronomy';
import { type SchoolsAnswer, type WorthAnswer, allows } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { IsNull, Not } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { OwnLaboratoriesService } from '../laboratories/ownLaboratories.service.ts';
import { Records } from '../platform/records.ts';
import { Bag } from '../sampling/bag.entity.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { wordsWithoutMoney } from './costs.ts';
import { RatesService } from './rates.service.ts';
import { zoneSchools, zoneWorth } from './sitePrograms.ts';

/** What the program of a zone would be otherwise: with one more measurement, by another school. */
@Injectable()
export class Otherwise {
  constructor(
    private readonly rates: RatesService,
    private readonly threads: Threads,
    private readonly work: Work,
    private readonly ground: GroundService,
    private readonly records: Records,
    private readonly laboratories: OwnLaboratoriesService,
  ) {}

  /** What each measurement that was not made would settle in a zone, the most worth first. */
  async worth(zoneId: string, units: UnitSystem): Promise<WorthAnswer[]> {
    const { zone, shared } = await this.rates.toPlan(zoneId, units);
    const found = await this.threads.run(zoneWorth, zone, shared, await this.#asked(zoneId));
    const priced = this.#seesCosts();
    return found.map(({ fee: _fee, firsts, moved, working, stake, ...worth }) => ({
      ...{ ...worth, firsts: [...firsts], moved: [...moved] },
      ...(priced
        ? { stake, working }
        : {
            stake: null,
            words: wordsWithoutMoney(worth.words, shared.currency),
            working: working.filter((entry) => entry.kind !== 'step' || entry.label !== 'Money at stake'),
          }),
    }));
  }

  /** The report of a zone read by every school, and what each would spend this year. */
  async schools(zoneId: string, units: UnitSystem): Promise<SchoolsAnswer> {
    const { zone, shared } = await this.rates.toPlan(zoneId, units);
    const { schools, agreements, by } = await this.threads.run(zoneSchools, zone, shared);
    const priced = this.#seesCosts();
    return {
      schools: schools.map((school) => (priced ? school : { ...school, cost: null, unpriced: [] })),
      agreements: [...agreements],
      ...{ by, priced },
    };
  }

  /** What the laboratory asks that the last bag of the site is for. */
  async #asked(zoneId: string): Promise<AskedFees | undefined> {
    const { siteId } = await this.ground.zone(zoneId);
    const [bag] = await this.records.of(Bag).find({ siteId, laboratory: Not(IsNull()) }, { createdAt: 'DESC' });
    const found = bag && (await this.laboratories.list()).find(({ name }) => name === bag.laboratory);
    return found && { laboratory: found.name, fees: found.fees };
  }

  #seesCosts(): boolean {
    const { role } = this.work.worker;
    return role === null || allows(role, 'costs.read');
  }
}
