import {
  type Change,
  InputError,
  refusalWords,
  type Stocked,
  goneOf,
  inYear,
  readChange,
  remedyEntry,
  suitsRemedy,
} from '@glenfold/agronomy';
import { type TreatmentChangeAnswer, type TreatmentInput, dayIn } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import type { Booked } from '../entries/entries.service.ts';
import { Clock } from '../platform/clock.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { Program } from './program.entity.ts';
import { type Override, TreatmentRecord } from './treatment.entity.ts';

/** How the program of a site stands. */
export interface Standing {
  readonly began: string | null;
  /** First day of the newest that was handed over. */
  readonly handedOverFrom: string | null;
  readonly changes: ReadonlyMap<string, readonly TreatmentRecord[]>;
}

/** What was decided by hand on the draft of a site’s program. */
@Injectable()
export class Programs {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly days: Days,
    private readonly clock: Clock,
  ) {}

  /**
   * What was decided of some zones, by zone, the oldest first; the first day of the year that is worked on, as it was
   * begun, and as what was handed over began.
   */
  async standing(siteId: string, zoneIds: readonly string[]): Promise<Standing> {
    const programs = await this.records
      .of(Program)
      .find({ siteId, state: In(['draft', 'handed over']) }, { handedOverAt: 'DESC' });
    const draft = programs.find(({ state }) => state === 'draft');
    const inHand = programs.find(({ state }) => state === 'handed over');
    const found = draft
      ? await this.records
          .of(TreatmentRecord)
          .find({ programId: draft.id, zoneId: In([...zoneIds]) }, { createdAt: 'ASC' })
      : [];
    return {
      began: draft?.startsOn ?? null,
      handedOverFrom: inHand ? (inHand.startsOn ?? dayIn(inHand.handedOverAt!, 'UTC')) : null,
      changes: new Map(zoneIds.map((id) => [id, found.filter(({ zoneId }) => zoneId === id)])),
    };
  }

  /** Begin the next year: what was put off until now is due in it. */
  async beginYear(siteId: string): Promise<void> {
    const day = await this.days.on(siteId);
    await this.records.together(async (of) => {
      const draft = (await this.#draft(siteId)) ?? (await this.#begun(siteId));
      if (draft.startsOn !== day) await of(Program).change(draft.id, { startsOn: day });
    });
  }

  /** Leave a treatment out of the draft; what was decided of it beside that stays. */
  async leaveOut(
    siteId: string,
    zoneId: string,
    { key, remedy }: Pick<TreatmentRecord, 'key' | 'remedy'>,
    reason: string,
  ): Promise<void> {
    const draft = (await this.#draft(siteId)) ?? (await this.#begun(siteId));
    const of = this.records.of(TreatmentRecord);
    const [known] = await of.find({ programId: draft.id, zoneId, key });
    const override: Override = {
      ...(known?.override ?? { values: {} }),
      ...{ reason, out: 'left out', outOn: await this.days.on(siteId) },
    };
    if (known) await of.change(known.id, { override });
    else await of.add({ programId: draft.id, zoneId, key, remedy, productId: null, override });
  }

  /**
   * Keep a change of a treatment, on top of the version that was seen; 0 for one that was not changed before.
   * @throws a 422 problem naming the field that cannot be taken
   */
  async change(
    siteId: string,
    zoneId: string,
    key: string,
    input: TreatmentInput,
    version: number,
    materials: readonly Stocked[],
  ): Promise<TreatmentRecord> {
    const read = this.#read(key, input, materials);
    const { key: _key, remedy, ...decided } = read;
    const out = decided.out === undefined ? {} : { outOn: await this.days.on(siteId) };
    const productId = typeof read.values.material === 'string' ? read.values.material : null;
    return this.records.together(async (of) => {
      const draft = (await this.#draft(siteId)) ?? (await this.#begun(siteId));
      const [known] = await of(TreatmentRecord).find({ programId: draft.id, zoneId, key });
      const override = { ...decided, ...out, rateAt: this.#rateAt(read.values, known) } as Override;
      return known
        ? of(TreatmentRecord).change(known.id, { productId, override }, { version, tell: toldChange })
        : of(TreatmentRecord).add({ programId: draft.id, zoneId, key, remedy, productId, override });
    });
  }

  /** Back to what the test asks for. */
  async undo(siteId: string, zoneId: string, key: string): Promise<void> {
    const draft = await this.#draft(siteId);
    const [known] = draft ? await this.records.of(TreatmentRecord).find({ programId: draft.id, zoneId, key }) : [];
    if (known) await this.records.of(TreatmentRecord).remove(known.id);
  }

  /** When the rate was set: what goes down afterwards counts against it. */
  #rateAt(values: Change['values'], known: TreatmentRecord | undefined): string {
    const before = known?.override;
    const same = before && values.rate === before.values.rate && values.layer === before.values.layer;
    return (same ? rateSetAt(known) : undefined) ?? this.clock.now().toISOString();
  }

  #read(key: string, { values, out, months, work, ...input }: TreatmentInput, materials: readonly Stocked[]): Change {
    try {
      const read = readChange({
        key,
        ...input,
        values: values ?? {},
        out,
        months,
        work,
        by: this.work.worker.person?.name,
      });
      const { material } = read.values;
      const chosen = materials.find(({ id }) => id === material);
      if (material !== undefined && (!chosen || !suitsRemedy(chosen.material, read.remedy)))
        throw new InputError('values.material', 'is no product for this; choose one of your list that is');
      return read;
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return refuse([{ field: error.field, message: refusalWords(error) }]);
    }
  }

  /** A draft for a site that has none; two who begin at once begin the same. */
  async #begun(siteId: string): Promise<Program> {
    await this.records.ask(
      `INSERT INTO program ("practiceId", "siteId", "state") VALUES ($1, $2, 'draft') ON CONFLICT DO NOTHING`,
      [siteId],
    );
    return (await this.#draft(siteId))!;
  }

  async #draft(siteId: string): Promise<Program | undefined> {
    return (await this.records.of(Program).find({ siteId, state: 'draft' }))[0];
  }
}

/** Day on which a change was put off. */
const putOffOn = ({ override, createdAt }: TreatmentRecord): string => override?.outOn ?? dayIn(createdAt, 'UTC');

/**
 * When the rate of a change was set; nothing where nobody can tell: before it was kept, only what was never changed
 * again tells it by its record.
 */
const rateSetAt = ({ override, createdAt, version }: TreatmentRecord): string | undefined =>
  override?.rateAt ?? (version === 1 ? createdAt.toISOString() : undefined);

/** A change as the year has it that is worked on. @param began its first day, nothing while none was begun */
export function changeOf(record: TreatmentRecord, began: string | null): Change {
  const { key, remedy, override } = record;
  const { outOn: _outOn, rateAt: _rateAt, ...decided } = override ?? { values: {}, reason: '' };
  return inYear({ ...decided, key, remedy }, putOffOn(record), began);
}

/** The same with what went down since its rate was set. */
export function changeLess(
  record: TreatmentRecord,
  began: string | null,
  { entries, area }: Booked & { area: number },
): Change {
  const at = rateSetAt(record);
  return { ...changeOf(record, began), gone: at === undefined ? undefined : goneOf(entries, area, at) };
}

/** Names of what was put off and is due now. */
export const dueNow = (records: readonly TreatmentRecord[], began: string | null): string[] =>
  records
    .filter((record) => record.override?.out === 'next year' && !changeOf(record, began).out)
    .map(({ remedy, override }) => `${remedyEntry(remedy).label} was put off: ${override!.reason}`);

export const changeAnswer = (record: TreatmentRecord, began: string | null): TreatmentChangeAnswer => ({
  id: record.id,
  version: record.version,
  change: changeOf(record, began),
});

/** As the input has it, so that what somebody did not touch can be taken over. */
const toldChange = ({ version, remedy, override }: TreatmentRecord) => ({
  ...{ remedy, added: override?.added ?? false, values: override?.values ?? {}, reason: override?.reason ?? '' },
  ...{ months: override?.months ?? null, work: override?.work ?? null, out: override?.out ?? null, version },
});
