import {
  type BagAnswer,
  type BagLineAnswer,
  type CoreAnswer,
  type CustodyAnswer,
  custodyDays,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { Bag } from './bag.entity.ts';
import { BagCustody } from './bagCustody.entity.ts';
import { Core } from './core.entity.ts';

const DAY = 86_400_000;

interface CoreCount {
  readonly cores: number;
  readonly cored: number;
}

/** Tells bags with their names, their cores and for how long they stand where they are. */
@Injectable()
export class BagAnswers {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly clock: Clock,
  ) {}

  async lines(bags: readonly Bag[]): Promise<BagLineAnswer[]> {
    const ids = bags.map(({ id }) => id);
    const counted = await this.records.ask<CoreCount & { readonly bagId: string }>(
      `SELECT "bagId", count(*)::int AS "cores", (count(*) FILTER (WHERE "state" = 'cored'))::int AS "cored" FROM core
       WHERE "practiceId" = $1 AND "bagId" = ANY($2) AND "deletedAt" IS NULL GROUP BY 1`,
      [ids],
    );
    const cores = new Map(counted.map((count) => [count.bagId, count]));
    const names = await this.#names(bags);
    const now = this.clock.now();
    return bags.map((bag) => line(bag, cores.get(bag.id), names, now));
  }

  async whole(bags: readonly Bag[]): Promise<BagAnswer[]> {
    const ofBags = { bagId: In(bags.map(({ id }) => id)) };
    const cores = await this.records.of(Core).find(ofBags, { turn: 'ASC', number: 'ASC' });
    const custody = await this.records.of(BagCustody).find(ofBags, { createdAt: 'ASC' });
    const names = await this.#names(bags);
    const now = this.clock.now();
    return bags.map((bag) => {
      const own = cores.filter(({ bagId }) => bagId === bag.id);
      const { depth, probe, design, edge, clear, seed, note, insteadOf, grassWanted } = bag;
      return {
        ...line(bag, { cores: own.length, cored: own.filter(({ state }) => state === 'cored').length }, names, now),
        ...{ depth, probe, design, edge, clear, seed, note, insteadOf, grassWanted },
        places: own.map(coreAnswer),
        custody: custody.filter(({ bagId }) => bagId === bag.id).map(custodyAnswer),
      };
    });
  }

  #names(bags: readonly Bag[]): Promise<ReadonlyMap<string, string>> {
    return this.ground.namesEver(bags.flatMap(({ siteId, zoneIds }) => [siteId, ...zoneIds]));
  }
}

function line(
  bag: Bag,
  { cores, cored }: CoreCount = { cores: 0, cored: 0 },
  names: ReadonlyMap<string, string>,
  now: Date,
): BagLineAnswer {
  const { id, version, siteId, code, zoneIds, state, since, plannedFor, laboratory, labNumber, parcel } = bag;
  const { panels, purpose } = bag;
  const days = Math.max(0, Math.floor((now.getTime() - since.getTime()) / DAY));
  const planned = state === 'planned' && plannedFor ? Math.floor((now.getTime() - Date.parse(plannedFor)) / DAY) : 0;
  const mayStand = custodyDays[state];
  return {
    ...{ id, version, siteId, code, zoneIds, state, days, plannedFor, laboratory, labNumber, parcel, panels, purpose },
    siteName: names.get(siteId) ?? '',
    zoneNames: zoneIds.map((zoneId) => names.get(zoneId) ?? ''),
    since: since.toISOString(),
    overdue: Math.max(0, mayStand === undefined ? planned : days - mayStand),
    cored,
    cores,
  };
}

const coreAnswer = (core: Core): CoreAnswer => {
  const { id, zoneId, number, turn, place, state, pushed, recovered, moisture, reason, note, at, by } = core;
  return {
    id,
    zoneId,
    number,
    turn,
    place,
    state,
    pushed,
    recovered,
    moisture,
    reason,
    note,
    at: at?.toISOString() ?? null,
    by,
  };
};
const custodyAnswer = ({ state, at, by, note }: BagCustody): CustodyAnswer => ({
  state,
  at: at.toISOString(),
  by,
  note,
});
