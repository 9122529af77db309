import type { CoreState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** One push of the probe: where it is to be, and what came of it. */
@Entity('core')
export class Core extends Owned {
  @Column({ type: 'uuid' })
  bagId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** In its bag. */
  @Column({ type: 'integer' })
  number: number;

  /** In the walk. */
  @Column({ type: 'integer' })
  turn: number;

  /** [longitude, latitude] */
  @Column({ type: 'jsonb', nullable: true })
  place: [number, number] | null;

  @Column({ type: 'text' })
  state: CoreState;

  /** cm */
  @Column({ type: 'double precision', nullable: true })
  pushed: number | null;

  /** cm */
  @Column({ type: 'double precision', nullable: true })
  recovered: number | null;

  @Column({ type: 'text', nullable: true })
  moisture: string | null;

  @Column({ type: 'text', nullable: true })
  reason: string | null;

  @Column({ type: 'text', nullable: true })
  note: string | null;

  @Column({ type: 'timestamptz', nullable: true })
  at: Date | null;

  @Column({ type: 'text', nullable: true })
  by: string | null;

  @Column({ type: 'uuid', nullable: true })
  byId: string | null;
}
