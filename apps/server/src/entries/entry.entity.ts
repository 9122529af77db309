import type { Day, EnteredMaterial, Entry, EntryKind, EntryPart, EntryState, RateUnit } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What was done in a zone. Never changed, by the database's own rule: a later one that names it stands in its place. */
@Entity('entry')
export class EntryRecord extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** The job whose card it is; nothing for what was done without one. */
  @Column({ type: 'uuid', nullable: true })
  jobId: string | null;

  /** `2026`, `2026-04` or `2026-04-20`. */
  @Column({ type: 'text' })
  on: string;

  @Column({ type: 'text' })
  kind: EntryKind;

  @Column({ type: 'text' })
  state: EntryState;

  @Column({ type: 'text' })
  words: string;

  @Column({ type: 'uuid', nullable: true })
  productId: string | null;

  /** The product as it was on the day. */
  @Column({ type: 'jsonb', nullable: true })
  material: EnteredMaterial | null;

  @Column({ type: 'double precision', nullable: true })
  quantity: number | null;

  @Column({ type: 'text', nullable: true })
  quantityUnit: 'kg' | 'L' | 'm3' | null;

  /** Over the area that was treated, in `unit`. */
  @Column({ type: 'double precision', nullable: true })
  rate: number | null;

  @Column({ type: 'text', nullable: true })
  unit: RateUnit | null;

  /** m² */
  @Column({ type: 'double precision', nullable: true })
  area: number | null;

  /** What else was in the mix. */
  @Column({ type: 'jsonb', default: [] })
  mixed: readonly EntryPart[];

  @Column({ type: 'double precision', nullable: true })
  cce: number | null;

  @Column({ type: 'text', nullable: true })
  reason: string | null;

  @Column({ type: 'text', nullable: true })
  doneBy: string | null;

  @Column({ type: 'text', nullable: true })
  writtenBy: string | null;

  /** The day as it was. */
  @Column({ type: 'jsonb', nullable: true })
  day: Day | null;

  @Column({ type: 'uuid', nullable: true })
  correctsId: string | null;

  /** What was odd about it when it was written. */
  @Column({ type: 'jsonb', default: [] })
  notes: readonly string[];

  @Column({ type: 'timestamptz' })
  recordedAt: Date;
}

/** An entry as the core counts it. */
export const entryOf = (record: EntryRecord): Entry => ({
  ...{ id: record.id, zoneId: record.zoneId, on: record.on, kind: record.kind, state: record.state },
  ...{ words: record.words, rate: record.rate, unit: record.unit, area: record.area, material: record.material },
  ...{
    cce: record.cce,
    correctsId: record.correctsId,
    mixed: record.mixed,
    recordedAt: record.recordedAt.toISOString(),
  },
});
