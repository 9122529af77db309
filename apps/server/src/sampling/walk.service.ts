import { isFilled, touchCore } from '@glenfold/agronomy';
import {
  CoreTapInput,
  type CoreTapsAnswer,
  type CoreTapsInput,
  type TapAnswer,
  problemFields,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { Any } from 'typeorm';
import { Site } from '../sites/site.entity.ts';
import { Clock } from '../platform/clock.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Bag } from './bag.entity.ts';
import { BagCustody } from './bagCustody.entity.ts';
import { Core } from './core.entity.ts';
import { CoreTap } from './coreTap.entity.ts';

/** Devices tell the time they have; a tap is never put into the future by it. */
const notLater = (time: number, now: Date): Date => new Date(Math.min(time, now.getTime()));

/** The touches of a walk, as often and as late as the connection brings them. */
@Injectable()
export class WalkService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly clock: Clock,
  ) {}

  /**
   * Take touches in the order in which they were made. What came before is known by its id, and counts once; what
   * cannot be taken is told so, and holds up nothing else.
   */
  async take({ sentAt, taps }: CoreTapsInput): Promise<CoreTapsAnswer> {
    const now = this.clock.now();
    const ahead = Date.parse(sentAt) - now.getTime();
    const answers = new Map<object, TapAnswer>();
    const good: CoreTapInput[] = [];
    for (const given of taps) {
      const tap = plainToInstance(CoreTapInput, given);
      const [fault] = problemFields(await validate(tap, { whitelist: true }));
      const { id } = given as { readonly id?: unknown };
      if (fault) answers.set(given, { id: typeof id === 'string' ? id : '', outcome: 'refused', words: fault.message });
      else good.push(tap);
    }
    const taken = await this.records.together((of) =>
      this.#all(of, good, (at) => notLater(Date.parse(at) - ahead, now)),
    );
    return {
      taps: taps.map((given) => answers.get(given) ?? taken.shift()!),
      clockAhead: Math.round(ahead / 1000),
    };
  }

  /** As many statements for one touch as for hundreds. */
  async #all(of: RecordsOf, taps: readonly CoreTapInput[], timeOf: (at: string) => Date): Promise<TapAnswer[]> {
    const touched = await of(Core).find({ id: Any(taps.map(({ coreId }) => coreId)) });
    const locked = await of(Bag).lockedAll([...new Set(touched.map(({ bagId }) => bagId))]);
    const sites = await of(Site).find({ id: Any([...new Set(locked.map(({ siteId }) => siteId))]) });
    // Of a site that was deleted meanwhile nothing is touched.
    const bags = locked.filter(({ siteId }) => sites.some(({ id }) => id === siteId));
    // Asked once nobody else is at the bags: the same touch may be on its way twice at a time.
    const known = new Set((await of(CoreTap).find({ id: Any(taps.map(({ id }) => id)) })).map(({ id }) => id));
    const walk = new Walked(bags, await of(Core).find({ bagId: Any(bags.map(({ id }) => id)) }), known);
    const { person } = this.work.worker;
    const by = { name: person?.name ?? 'Glenfold', id: person?.id ?? null };
    const answers = taps.map((tap) => walk.touch(tap, timeOf(tap.at), by));
    await of(CoreTap).addAll(walk.taps);
    await of(Core).changeAll(
      [...walk.changed].map(({ id, state, pushed, recovered, moisture, reason, note, at, by: name, byId }) => ({
        ...{ id, state, pushed, recovered, moisture, reason, note, at, by: name, byId },
      })),
    );
    await of(BagCustody).addAll(walk.custody);
    await of(Bag).changeAll([...walk.moved].map(({ id, state, since }) => ({ id, state, since })));
    return answers;
  }
}

/** Bags with their cores while touches are laid over them, and what is to be written of it. */
class Walked {
  readonly taps: Array<Partial<CoreTap>> = [];
  readonly custody: Array<Partial<BagCustody>> = [];
  readonly changed = new Set<Core>();
  readonly moved = new Set<Bag>();
  readonly #bags: ReadonlyMap<string, Bag>;
  readonly #cores: ReadonlyMap<string, Core>;

  constructor(
    bags: readonly Bag[],
    private readonly all: readonly Core[],
    private readonly known: Set<string>,
  ) {
    this.#bags = new Map(bags.map((bag) => [bag.id, bag]));
    this.#cores = new Map(all.map((core) => [core.id, core]));
  }

  touch(tap: CoreTapInput, at: Date, by: { readonly name: string; readonly id: string | null }): TapAnswer {
    const { id, coreId } = tap;
    const core = this.#cores.get(coreId);
    const bag = core && this.#bags.get(core.bagId);
    if (!core || !bag)
      return {
        id,
        outcome: 'gone',
        words: 'The bag of this core, or its site, was deleted meanwhile: tell who planned it.',
      };
    if (this.known.has(id)) return { id, outcome: 'known', words: null };
    this.known.add(id);
    const others = core.byId !== null && core.byId !== by.id;
    const met = others && core.state === 'cored' && tap.state !== 'waiting';
    const outcome = met ? 'met' : 'taken';
    this.taps.push({ id, coreId, tap, at, by: by.name, outcome });
    if (met) {
      const words = `Core ${core.number} was taken by ${core.by ?? 'somebody'} already, at ${core.at?.toISOString().slice(11, 16) ?? ''} UTC. Both are kept; theirs counts. If both cores went into the bucket the zone's mean leans a little to this place.`;
      return { id, outcome, words };
    }
    const open = tap.state === 'waiting';
    Object.assign(core, touchCore(tap), open ? { at: null, by: null, byId: null } : { at, by: by.name, byId: by.id });
    this.changed.add(core);
    const full = isFilled(this.all.filter(({ bagId }) => bagId === bag.id));
    if (full && bag.state === 'planned') this.#step(bag, 'cored', at, by.name, null);
    if (!full && bag.state === 'cored') this.#step(bag, 'planned', at, by.name, 'A core was opened again.');
    return { id, outcome, words: null };
  }

  #step(bag: Bag, state: Bag['state'], at: Date, by: string, note: string | null): void {
    Object.assign(bag, { state, since: at });
    this.custody.push({ bagId: bag.id, state, at, by, note });
    this.moved.add(bag);
  }
}
