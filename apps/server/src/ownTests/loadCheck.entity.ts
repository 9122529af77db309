import type { LoadKind } from '@glenfold/agronomy';
import type { LoadCheckInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A load at the gate, or a bag of seed: what was looked at, and what was decided. */
@Entity('load_check')
export class LoadCheck extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  kind: LoadKind;

  @Column({ type: 'date' })
  on: string;

  @Column({ type: 'text' })
  name: string;

  /** By the fields of loads. */
  @Column({ type: 'jsonb' })
  record: object;

  @Column({ type: 'text', nullable: true })
  decided: NonNullable<LoadCheckInput['decided']> | null;

  @Column({ type: 'text', nullable: true })
  reason: string | null;

  @Column({ type: 'text', nullable: true })
  by: string | null;
}
