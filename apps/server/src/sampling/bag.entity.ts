import type { BagState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A composite: what is planned to go into one bag, and where that bag is. */
@Entity('bag')
export class Bag extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  /** With its check sign, in no other bag of the practice. */
  @Column({ type: 'text' })
  code: string;

  @Column({ type: 'jsonb' })
  zoneIds: string[];

  @Column({ type: 'text' })
  purpose: string;

  /** cm */
  @Column({ type: 'double precision' })
  depth: number;

  /** Inner diameter of the probe, cm. */
  @Column({ type: 'double precision' })
  probe: number;

  @Column({ type: 'jsonb' })
  panels: string[];

  @Column({ type: 'text' })
  design: string;

  /** m */
  @Column({ type: 'double precision' })
  edge: number;

  /** m */
  @Column({ type: 'double precision' })
  clear: number;

  @Column({ type: 'bigint', transformer: { from: Number, to: (value: number) => value } })
  seed: number;

  @Column({ type: 'date', nullable: true })
  plannedFor: string | null;

  @Column({ type: 'text', nullable: true })
  note: string | null;

  @Column({ type: 'text' })
  state: BagState;

  @Column({ type: 'timestamptz' })
  since: Date;

  @Column({ type: 'text', nullable: true })
  laboratory: string | null;

  @Column({ type: 'text', nullable: true })
  labNumber: string | null;

  @Column({ type: 'text', nullable: true })
  parcel: string | null;

  /** What is to grow there, where that is not what grows there now. */
  @Column({ type: 'text', nullable: true })
  grassWanted: string | null;

  /** The lost or spoiled bag whose cores are taken again. */
  @Column({ type: 'uuid', nullable: true })
  insteadOf: string | null;
}
