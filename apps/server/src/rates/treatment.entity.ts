import type { Change } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What of a change is kept; key and remedy stand in columns of their own. */
export type Override = Omit<Change, 'key' | 'remedy' | 'gone' | 'told' | 'out'> & {
  readonly out?: 'left out' | 'next year' | undefined;
  /** When its rate was set, ISO 8601; nothing on those of before, which were set with the record. */
  readonly rateAt?: string;
  /** Day on which it was left out or put off; that of the record before days were kept. */
  readonly outOn?: string;
};

/**
 * A treatment of a program. Of a draft only what was decided by hand is kept, since the rest follows from the test;
 * of what was handed over, every one.
 */
@Entity('treatment')
export class TreatmentRecord extends Owned {
  @Column({ type: 'uuid' })
  programId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** The remedy’s name, or a name of its own for what was added. */
  @Column({ type: 'text' })
  key: string;

  @Column({ type: 'text' })
  remedy: Change['remedy'];

  @Column({ type: 'uuid', nullable: true })
  productId: string | null;

  /** For the year, in `unit`. */
  @Column({ type: 'double precision', nullable: true })
  rate: number | null;

  @Column({ type: 'text', nullable: true })
  unit: string | null;

  @Column({ type: 'jsonb', nullable: true })
  override: Override | null;
}

/** One going-over of a treatment that was handed over. */
@Entity('dose')
export class DoseRecord extends Owned {
  @Column({ type: 'uuid' })
  treatmentId: string;

  @Column({ type: 'integer' })
  position: number;

  /** In the unit of the treatment. */
  @Column({ type: 'double precision' })
  rate: number;

  @Column({ type: 'date', nullable: true })
  earliest: string | null;

  @Column({ type: 'date', nullable: true })
  latest: string | null;
}
