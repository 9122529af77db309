import { randomInt } from 'node:crypto';
import { bagCode, writeBagCode } from '@glenfold/agronomy';
import {
  type BagAnswer,
  type BagInput,
  type BagLineAnswer,
  type BagState,
  type CustodyInput,
  type SamplingInput,
  custodyEnds,
  custodyStates,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { notFound, refuse } from '../platform/problem.ts';
import { Clock } from '../platform/clock.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Days } from '../settings/days.service.ts';
import { Work } from '../platform/work.ts';
import { Bag } from './bag.entity.ts';
import { BagCustody } from './bagCustody.entity.ts';
import { Core } from './core.entity.ts';
import { BagAnswers } from './bagAnswers.service.ts';

const DAY = 86_400_000;
const isEnd = (state: BagState): boolean => (custodyEnds as readonly string[]).includes(state);
const rank = (state: BagState): number => (custodyStates as readonly string[]).indexOf(state);

/** A bag with soil in it. */
export type FilledBag = Pick<Bag, 'id' | 'code' | 'zoneIds' | 'depth' | 'state' | 'panels' | 'purpose'> & {
  readonly sampledOn: string;
};

/** @throws a refusal where a bag cannot go there from where it is; `filled` where it has soil in it */
function mayGo(bag: Bag, to: BagState, filled: boolean): void {
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
  if (rank(to) > rank('planned') && !filled)
    refuse([{ field, message: `Bag ${code} has no cores in it: walk it first, or mark its cores as taken.` }]);
}

/** Bags: planned, cored, on their way, and where each is. */
@Injectable()
export class SamplingService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
    private readonly clock: Clock,
    private readonly answers: BagAnswers,
    private readonly days: Days,
  ) {}

  /** Bags of a site with their cores and custody, newest plan first. */
  async ofSite(siteId: string): Promise<BagAnswer[]> {
    await this.ground.site(siteId);
    return this.answers.whole(await this.records.of(Bag).find({ siteId }, { createdAt: 'DESC', code: 'ASC' }));
  }

  async plan(siteId: string, { bags }: SamplingInput): Promise<BagAnswer[]> {
    return this.records.together(async (of) => {
      const zones = new Set((await this.ground.zones(siteId)).map(({ id }) => id));
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
      return this.answers.whole(made);
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
      return (await this.answers.whole([await this.#add(of, bag.siteId, again, bagId)]))[0]!;
    });
  }

  /** Bags go on together, or their way ends. All of them or none. */
  async move({ bagIds, state, at, laboratory, parcel, note = null }: CustodyInput): Promise<BagLineAnswer[]> {
    const when = at ? new Date(at) : this.clock.now();
    if (when.getTime() > this.clock.now().getTime() + DAY)
      refuse([{ field: 'at', message: 'That is in the future: check the day.' }]);
    return this.records.together(async (of) => {
      const ids = [...new Set(bagIds)];
      const bags = new Map((await of(Bag).lockedAll(ids)).map((bag) => [bag.id, bag]));
      const cored = await of(Core).findWithout(['place'], { bagId: In(ids), state: 'cored' });
      const filled = new Set(cored.map(({ bagId }) => bagId));
      for (const id of ids) mayGo(bags.get(id) ?? (await of(Bag).locked(id)), state, filled.has(id));
      await of(BagCustody).addAll(ids.map((bagId) => ({ bagId, state, at: when, by: this.#by, note })));
      await of(Bag).changeAll(
        [...bags.values()].map((bag) => ({
          ...{ id: bag.id, state, since: when },
          laboratory: laboratory === undefined ? bag.laboratory : laboratory,
          parcel: parcel === undefined ? bag.parcel : parcel,
        })),
      );
      const moved = new Map((await of(Bag).find({ id: In(ids) })).map((bag) => [bag.id, bag]));
      return this.answers.lines(ids.map((id) => moved.get(id)!));
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
    return this.answers.whole(await this.records.of(Bag).find({ laboratory, state: In(['sent', 'at the lab']) }));
  }

  /** A laboratory said where a bag is; what is past already is left as it is. */
  async heard(of: RecordsOf, bagId: string, state: BagState, at: Date, laboratory: string, labNumber?: string) {
    const bag = await of(Bag).locked(bagId);
    if (isEnd(bag.state) || rank(bag.state) >= rank(state) || rank(bag.state) < rank('sent')) return;
    const free = labNumber && bag.labNumber === null && !(await this.#twin(of, bagId, labNumber));
    const number = free ? { labNumber } : {};
    await this.step(of, bag, state, at, null, number, laboratory);
  }

  /** The results of a bag are in use. */
  async read(of: RecordsOf, bagId: string, note: string): Promise<void> {
    const bag = await of(Bag).locked(bagId);
    if (bag.state !== 'read' && !isEnd(bag.state)) await this.step(of, bag, 'read', this.clock.now(), note);
  }

  /** Bags of a site with the day there on which they were filled, for finding whose numbers a report tells. */
  async filled(siteId: string): Promise<FilledBag[]> {
    const bags = await this.records.of(Bag).find({ siteId }, { since: 'DESC' });
    const cores = await this.records.of(Core).find({ bagId: In(bags.map(({ id }) => id)), state: 'cored' });
    const dayOf = await this.days.at(siteId);
    return bags.flatMap((bag) => {
      const times = cores.flatMap(({ bagId, at }) => (bagId === bag.id && at ? [at.getTime()] : []));
      return times.length > 0 ? [{ ...bag, sampledOn: dayOf(new Date(Math.max(...times))) }] : [];
    });
  }

  setLabNumber(bagId: string, labNumber: string | null): Promise<BagLineAnswer> {
    return this.records.together(async (of) => {
      const twin = labNumber && (await this.#twin(of, bagId, labNumber));
      if (twin)
        refuse([
          {
            field: 'labNumber',
            message: `Bag ${writeBagCode(twin.code)} has the number ${labNumber} already: a number is on one bag only. Look at both again.`,
          },
        ]);
      return (await this.answers.lines([await of(Bag).change(bagId, { labNumber })]))[0]!;
    });
  }

  /** Another bag with this number; nobody else gives it to one meanwhile. */
  async #twin(of: RecordsOf, bagId: string, labNumber: string): Promise<Bag | undefined> {
    await this.records.alone(`laboratory’s number ${labNumber}`);
    return (await of(Bag).find({ labNumber })).find(({ id }) => id !== bagId);
  }

  async remove(bagId: string): Promise<void> {
    const bag = await this.records.of(Bag).one(bagId);
    if (bag.state !== 'planned')
      refuse([{ field: 'state', message: 'Only a bag that nobody has cored is deleted: mark it lost or spoiled.' }]);
    await this.records.of(Bag).remove(bagId);
  }

  async restore(bagId: string): Promise<BagLineAnswer> {
    return (await this.answers.lines([await this.records.of(Bag).restore(bagId)]))[0]!;
  }

  /** Bags with all that is known of them. */
  async bagsWhole(ids: readonly string[]): Promise<BagAnswer[]> {
    const bags = await this.records.of(Bag).find({ id: In([...ids]) }, { createdAt: 'ASC', code: 'ASC' });
    if (bags.length !== new Set(ids).size) notFound();
    return this.answers.whole(bags);
  }

  get #by(): string {
    return this.work.worker.person?.name ?? 'Glenfold';
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
    const now = this.clock.now();
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
    await of(Core).addAll(
      inTurn.map(({ zoneId, turn, place = null }, index) => ({
        ...{ bagId: bag.id, zoneId, turn, place, number: index + 1 },
        state: 'waiting' as const,
      })),
    );
    return bag;
  }

  async #freshCode(of: RecordsOf): Promise<string> {
    for (;;) {
      const code = bagCode(() => randomInt(2 ** 32) / 2 ** 32);
      if ((await of(Bag).find({ code })).length === 0) return code;
    }
  }
}
