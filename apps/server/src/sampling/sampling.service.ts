import { randomInt } from 'node:crypto';
import { InputError, bagCode, readBagCode, writeBagCode } from '@glenfold/agronomy';
import {
  type BagAnswer,
  type BagInput,
  type BagLineAnswer,
  type BagState,
  type CoreAnswer,
  type CustodyAnswer,
  type CustodyInput,
  type SamplingInput,
  custodyDays,
  custodyEnds,
  custodyStates,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { Problem, notFound, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Bag } from './bag.entity.ts';
import { BagCustody } from './bagCustody.entity.ts';
import { Core } from './core.entity.ts';

const DAY = 86_400_000;
const isEnd = (state: BagState): boolean => (custodyEnds as readonly string[]).includes(state);
const rank = (state: BagState): number => (custodyStates as readonly string[]).indexOf(state);

/** A bag with soil in it. */
export type FilledBag = Pick<Bag, 'id' | 'code' | 'zoneIds' | 'depth' | 'state' | 'panels' | 'purpose'> & {
  readonly sampledOn: string;
};

/** Bags: planned, cored, on their way, and where each is. */
@Injectable()
export class SamplingService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
  ) {}

  /** Bags of a site with their cores and custody, newest plan first. */
  async ofSite(siteId: string): Promise<BagAnswer[]> {
    await this.ground.site(siteId);
    return this.#whole(await this.records.of(Bag).find({ siteId }, { createdAt: 'DESC', code: 'ASC' }));
  }

  /** Bags of all sites. */
  async board(): Promise<BagLineAnswer[]> {
    return this.#lines(await this.records.of(Bag).find({}, { since: 'ASC' }));
  }

  /** The bag of a code, however it was typed. @throws a refusal for a mistyped code, 404 for one of no bag */
  async find(typed: string): Promise<BagLineAnswer> {
    const [bag] = await this.records.of(Bag).find({ code: readCode(typed) });
    if (!bag)
      throw new Problem(
        404,
        'No such bag',
        `The code is well formed, but no bag of this practice has it. It may belong to another practice, or its bag was deleted.`,
      );
    return (await this.#lines([bag]))[0]!;
  }

  async plan(siteId: string, { bags }: SamplingInput): Promise<BagAnswer[]> {
    return this.records.together(async (of) => {
      const zones = new Set((await this.ground.undrawnZones(siteId)).map(({ id }) => id));
      await this.ground.site(siteId);
      for (const [index, bag] of bags.entries())
        for (const [at, core] of bag.cores.entries())
          if (!zones.has(core.zoneId))
            refuse([
              {
                field: `bags.${index}.cores.${at}.zoneId`,
                message: 'The zone is not of this site, or was deleted meanwhile. Plan the bag anew.',
              },
            ]);
      const made: Bag[] = [];
      for (const bag of bags) made.push(await this.#add(of, siteId, bag, null));
      return this.#whole(made);
    });
  }

  /** The same cores once more, under a new code, for a bag that was lost or spoiled. */
  async again(bagId: string): Promise<BagAnswer> {
    return this.records.together(async (of) => {
      const bag = await of(Bag).locked(bagId);
      if (!isEnd(bag.state))
        refuse([{ field: 'state', message: 'The bag is on its way: only a lost or spoiled one is taken again.' }]);
      const [already] = await of(Bag).find({ insteadOf: bagId });
      if (already)
        refuse([{ field: 'state', message: `It is being taken again already: bag ${writeBagCode(already.code)}.` }]);
      const cores = await of(Core).find({ bagId }, { number: 'ASC' });
      const { purpose, depth, probe, panels, design, edge, clear, seed, note, laboratory, grassWanted } = bag;
      const plan = { purpose, depth, probe, panels, design, edge, clear, seed, note, laboratory, grassWanted };
      const again = { ...plan, plannedFor: null, cores };
      return (await this.#whole([await this.#add(of, bag.siteId, again, bagId)]))[0]!;
    });
  }

  /** Bags go on together, or their way ends. All of them or none. */
  async move({ bagIds, state, at, laboratory, parcel, note = null }: CustodyInput): Promise<BagLineAnswer[]> {
    const when = at ? new Date(at) : new Date();
    if (when.getTime() > Date.now() + DAY) refuse([{ field: 'at', message: 'That is in the future: check the day.' }]);
    return this.records.together(async (of) => {
      const moved: Bag[] = [];
      for (const id of new Set(bagIds)) {
        const bag = await of(Bag).locked(id);
        await this.#mayGo(of, bag, state);
        moved.push(
          await this.step(of, bag, state, when, note, {
            ...(laboratory === undefined ? {} : { laboratory }),
            ...(parcel === undefined ? {} : { parcel }),
          }),
        );
      }
      return this.#lines(moved);
    });
  }

  /** One step of custody, written to the bag and to its history. @param by who brought it there, where it is not the person at work */
  async step(
    of: RecordsOf,
    bag: Bag,
    state: BagState,
    at: Date,
    note: string | null,
    more: Partial<Bag> = {},
    by = this.#by,
  ): Promise<Bag> {
    await of(BagCustody).add({ bagId: bag.id, state, at, by, note });
    return of(Bag).change(bag.id, { ...more, state, since: at });
  }

  /** Bags that are on their way to a laboratory or with it, with all that is known of them. */
  async sentTo(laboratory: string): Promise<BagAnswer[]> {
    return this.#whole(await this.records.of(Bag).find({ laboratory, state: In(['sent', 'at the lab']) }));
  }

  /** A laboratory said where a bag is; what is past already is left as it is. */
  async heard(of: RecordsOf, bagId: string, state: BagState, at: Date, laboratory: string, labNumber?: string) {
    const bag = await of(Bag).locked(bagId);
    if (isEnd(bag.state) || rank(bag.state) >= rank(state) || rank(bag.state) < rank('sent')) return;
    const number = labNumber && bag.labNumber === null ? { labNumber } : {};
    await this.step(of, bag, state, at, null, number, laboratory);
  }

  /** The results of a bag are in use. */
  async read(of: RecordsOf, bagId: string, note: string): Promise<void> {
    const bag = await of(Bag).locked(bagId);
    if (bag.state !== 'read' && !isEnd(bag.state)) await this.step(of, bag, 'read', new Date(), note);
  }

  /** Bags of a site with the day on which they were filled, for finding whose numbers a report tells. */
  async filled(siteId: string): Promise<FilledBag[]> {
    const bags = await this.records.of(Bag).find({ siteId }, { since: 'DESC' });
    const cores = await this.records.of(Core).find({ bagId: In(bags.map(({ id }) => id)), state: 'cored' });
    return bags.flatMap((bag) => {
      const days = cores.flatMap(({ bagId, at }) => (bagId === bag.id && at ? [at.toISOString()] : [])).sort();
      const last = days.at(-1);
      return last ? [{ ...bag, sampledOn: last.slice(0, 10) }] : [];
    });
  }

  async setLabNumber(bagId: string, labNumber: string | null): Promise<BagLineAnswer> {
    const twin = labNumber && (await this.records.of(Bag).find({ labNumber })).find(({ id }) => id !== bagId);
    if (twin)
      refuse([
        {
          field: 'labNumber',
          message: `Bag ${writeBagCode(twin.code)} has the number ${labNumber} already: a number is on one bag only. Look at both again.`,
        },
      ]);
    return (await this.#lines([await this.records.of(Bag).change(bagId, { labNumber })]))[0]!;
  }

  async remove(bagId: string): Promise<void> {
    const bag = await this.records.of(Bag).one(bagId);
    if (bag.state !== 'planned')
      refuse([{ field: 'state', message: 'Only a bag that nobody has cored is deleted: mark it lost or spoiled.' }]);
    await this.records.of(Bag).remove(bagId);
  }

  async restore(bagId: string): Promise<BagLineAnswer> {
    return (await this.#lines([await this.records.of(Bag).restore(bagId)]))[0]!;
  }

  /** Bags with all that is known of them. */
  async bagsWhole(ids: readonly string[]): Promise<BagAnswer[]> {
    const bags = await this.records.of(Bag).find({ id: In([...ids]) }, { createdAt: 'ASC', code: 'ASC' });
    if (bags.length !== new Set(ids).size) notFound();
    return this.#whole(bags);
  }

  get #by(): string {
    return this.work.worker.person?.name ?? 'Glenfold';
  }

  async #mayGo(of: RecordsOf, bag: Bag, to: BagState): Promise<void> {
    const field = 'state';
    const code = writeBagCode(bag.code);
    const told = `Bag ${code} is ${bag.state === 'at the lab' ? 'at the laboratory' : bag.state}`;
    if (bag.state === to) refuse([{ field, message: `${told} already.` }]);
    if (isEnd(bag.state)) refuse([{ field, message: `${told}: its way ended there. Take its cores again.` }]);
    if (isEnd(to)) {
      if (bag.state === 'read') refuse([{ field, message: `${told}: its results are in, so it is no loss.` }]);
      return;
    }
    if (rank(to) < rank(bag.state) - 1)
      refuse([{ field, message: `${told}: it goes back one step at a time, for a slip of the finger.` }]);
    if (rank(to) > rank('planned')) {
      const cores = await of(Core).find({ bagId: bag.id });
      if (!cores.some(({ state }) => state === 'cored'))
        refuse([{ field, message: `Bag ${code} has no cores in it: walk it first, or mark its cores as taken.` }]);
    }
  }

  async #add(
    of: RecordsOf,
    siteId: string,
    input: Omit<BagInput, 'cores'> & {
      readonly cores: ReadonlyArray<Pick<Core, 'zoneId' | 'turn'> & { place?: [number, number] | null }>;
    },
    insteadOf: string | null,
  ): Promise<Bag> {
    const { cores, plannedFor = null, note = null, laboratory = null, grassWanted = null, ...rest } = input;
    const now = new Date();
    const bag = await of(Bag).add({
      ...rest,
      plannedFor,
      note,
      laboratory,
      grassWanted,
      siteId,
      insteadOf,
      code: await this.#freshCode(of),
      zoneIds: [...new Set(cores.map(({ zoneId }) => zoneId))],
      state: 'planned',
      since: now,
    });
    await of(BagCustody).add({ bagId: bag.id, state: 'planned', at: now, by: this.#by, note: null });
    const inTurn = [...cores].sort((one, other) => one.turn - other.turn);
    for (const [index, { zoneId, turn, place = null }] of inTurn.entries())
      await of(Core).add({ bagId: bag.id, zoneId, turn, place, number: index + 1, state: 'waiting' });
    return bag;
  }

  async #freshCode(of: RecordsOf): Promise<string> {
    for (;;) {
      const code = bagCode(() => randomInt(2 ** 32) / 2 ** 32);
      if ((await of(Bag).find({ code })).length === 0) return code;
    }
  }

  async #lines(bags: readonly Bag[]): Promise<BagLineAnswer[]> {
    const cores = await this.records.of(Core).find({ bagId: In(bags.map(({ id }) => id)) });
    const names = await this.#names(bags);
    return bags.map((bag) =>
      line(
        bag,
        cores.filter(({ bagId }) => bagId === bag.id),
        names,
      ),
    );
  }

  async #whole(bags: readonly Bag[]): Promise<BagAnswer[]> {
    const ofBags = { bagId: In(bags.map(({ id }) => id)) };
    const cores = await this.records.of(Core).find(ofBags, { turn: 'ASC', number: 'ASC' });
    const custody = await this.records.of(BagCustody).find(ofBags, { createdAt: 'ASC' });
    const names = await this.#names(bags);
    return bags.map((bag) => {
      const own = cores.filter(({ bagId }) => bagId === bag.id);
      const { depth, probe, design, edge, clear, seed, note, insteadOf, grassWanted } = bag;
      return {
        ...line(bag, own, names),
        ...{ depth, probe, design, edge, clear, seed, note, insteadOf, grassWanted },
        places: own.map(coreAnswer),
        custody: custody.filter(({ bagId }) => bagId === bag.id).map(custodyAnswer),
      };
    });
  }

  async #names(bags: readonly Bag[]): Promise<ReadonlyMap<string, string>> {
    const sites = await this.ground.sites();
    // A deleted zone keeps its name on its bags.
    const zones = await this.ground.zonesEver([...new Set(bags.flatMap(({ zoneIds }) => zoneIds))]);
    return new Map([...sites, ...zones].map(({ id, name }) => [id, name]));
  }
}

/** @throws a refusal that says what is wrong with a code */
function readCode(typed: string): string {
  try {
    return readBagCode(typed, 'The code');
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return refuse([{ field: 'code', message: `${error.message}.` }]);
  }
}

function line(bag: Bag, cores: readonly Core[], names: ReadonlyMap<string, string>): BagLineAnswer {
  const { id, version, siteId, code, zoneIds, state, since, plannedFor, laboratory, labNumber, parcel } = bag;
  const { panels, purpose } = bag;
  const days = Math.max(0, Math.floor((Date.now() - since.getTime()) / DAY));
  const planned = state === 'planned' && plannedFor ? Math.floor((Date.now() - Date.parse(plannedFor)) / DAY) : 0;
  const mayStand = custodyDays[state];
  return {
    ...{ id, version, siteId, code, zoneIds, state, days, plannedFor, laboratory, labNumber, parcel, panels, purpose },
    siteName: names.get(siteId) ?? '',
    zoneNames: zoneIds.map((zoneId) => names.get(zoneId) ?? ''),
    since: since.toISOString(),
    overdue: Math.max(0, mayStand === undefined ? planned : days - mayStand),
    cored: cores.filter((core) => core.state === 'cored').length,
    cores: cores.length,
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
