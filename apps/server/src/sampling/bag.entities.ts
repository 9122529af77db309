import type { BagState, CoreState } from '@glenfold/contract';
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

/** A touch on the walk as the device sent it. Its id was made there, so that it counts once however often it comes. */
@Entity('core_tap')
export class CoreTap extends Owned {
  @Column({ type: 'uuid' })
  coreId: string;

  /** As it came. */
  @Column({ type: 'jsonb' })
  tap: object;

  /** By the server's clock. */
  @Column({ type: 'timestamptz' })
  at: Date;

  @Column({ type: 'text' })
  by: string;

  @Column({ type: 'text' })
  outcome: string;
}

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
