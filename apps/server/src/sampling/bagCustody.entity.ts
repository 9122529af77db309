import type { BagState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A bag came somewhere. */
@Entity('bag_custody')
export class BagCustody extends Owned {
  @Column({ type: 'uuid' })
  bagId: string;

  @Column({ type: 'text' })
  state: BagState;

  @Column({ type: 'timestamptz' })
  at: Date;

  @Column({ type: 'text' })
  by: string;

  @Column({ type: 'text', nullable: true })
  note: string | null;
}
