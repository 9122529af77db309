import type { ForecastDay } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What was foretold of a zone’s pH when its program was handed over; it stays as it was. */
@Entity('prediction')
export class Prediction extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'uuid' })
  programId: string;

  /** The result that it begins from. */
  @Column({ type: 'uuid', nullable: true })
  labResultId: string | null;

  @Column({ type: 'date' })
  madeOn: string;

  /** Day of the test: day 0. */
  @Column({ type: 'date' })
  from: string;

  @Column({ type: 'double precision' })
  ph: number;

  @Column({ type: 'jsonb' })
  days: readonly ForecastDay[];

  @Column({ type: 'date' })
  retestOn: string;

  @Column({ type: 'text' })
  retestWords: string;
}
