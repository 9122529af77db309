import type { CoreTapInput, CoreTapsAnswer, CoreTapsInput, TapAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Bag } from './bag.entity.ts';
import { Core } from './core.entity.ts';
import { CoreTap } from './coreTap.entity.ts';
import { SamplingService } from './sampling.service.ts';

/** Devices tell the time they have; a tap is never put into the future by it. */
const notLater = (time: number): Date => new Date(Math.min(time, Date.now()));

/** The touches of a walk, as often and as late as the connection brings them. */
@Injectable()
export class WalkService {
  constructor(
    private readonly records: Records,
    private readonly sampling: SamplingService,
    private readonly work: Work,
  ) {}

  /** Take touches in the order in which they were made. What came before is known by its id, and counts once. */
  async take({ sentAt, taps }: CoreTapsInput): Promise<CoreTapsAnswer> {
    const ahead = Date.parse(sentAt) - Date.now();
    const answers: TapAnswer[] = [];
    for (const tap of taps) {
      const at = notLater(Date.parse(tap.at) - ahead);
      answers.push(await this.records.together((of) => this.#one(of, tap, at)));
    }
    return { taps: answers, clockAhead: Math.round(ahead / 1000) };
  }

  async #one(of: RecordsOf, tap: CoreTapInput, at: Date): Promise<TapAnswer> {
    const { id, coreId, state } = tap;
    const [found] = await of(Core).find({ id: coreId });
    const [there] = found ? await of(Bag).find({ id: found.bagId }) : [];
    if (!found || !there)
      return { id, outcome: 'gone', words: 'The bag of this core was deleted meanwhile: tell who planned it.' };
    // Asked once nobody else is at the bag: the same touch may be on its way twice at a time.
    const bag = await of(Bag).locked(there.id);
    const [known] = await of(CoreTap).find({ id });
    if (known) return { id, outcome: 'known', words: null };
    const core = await of(Core).locked(coreId);
    const { person } = this.work.worker;
    const by = person?.name ?? 'Glenfold';
    const others = core.byId !== null && core.byId !== (person?.id ?? null);
    const met = others && core.state === 'cored' && state !== 'waiting';
    const outcome = met ? 'met' : 'taken';
    await of(CoreTap).add({ id, coreId, tap, at, by, outcome });
    if (met) {
      const words = `Core ${core.number} was taken by ${core.by ?? 'somebody'} already, at ${core.at?.toISOString().slice(11, 16) ?? ''} UTC. Both are kept; theirs counts. If both cores went into the bucket the zone's mean leans a little to this place.`;
      return { id, outcome, words };
    }
    const { pushed = null, recovered = null, moisture = null, reason = null, note = null } = tap;
    const cored = state === 'cored';
    await of(Core).change(coreId, {
      state,
      pushed: cored ? pushed : null,
      recovered: cored ? recovered : null,
      moisture: cored ? moisture : null,
      reason: state === 'skipped' ? reason : null,
      note,
      at: state === 'waiting' ? null : at,
      by: state === 'waiting' ? null : by,
      byId: state === 'waiting' ? null : (person?.id ?? null),
    });
    const all = await of(Core).find({ bagId: bag.id });
    const full = all.every((other) => other.state !== 'waiting') && all.some((other) => other.state === 'cored');
    if (full && bag.state === 'planned') await this.sampling.step(of, bag, 'cored', at, null);
    if (!full && bag.state === 'cored') await this.sampling.step(of, bag, 'planned', at, 'A core was opened again.');
    return { id, outcome, words: null };
  }
}
