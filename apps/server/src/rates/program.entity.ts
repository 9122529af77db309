import type { UnitSystem, YearPrice } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** The treatments of a site for a year: one draft, and what was handed over. */
@Entity('program')
export class Program extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  /** `2026-11-27`; nothing for a draft, which begins on the day it is looked at, and for plans of before. */
  @Column({ type: 'date', nullable: true })
  startsOn: string | null;

  @Column({ type: 'text' })
  state: 'draft' | 'handed over' | 'superseded';

  @Column({ type: 'timestamptz', nullable: true })
  handedOverAt: Date | null;

  @Column({ type: 'text', nullable: true })
  units: UnitSystem | null;

  /** What its zones come to as it was handed over, and the visits of the whole site; nothing for drafts and of before. */
  @Column({ type: 'jsonb', nullable: true })
  price: (YearPrice & { readonly zoneIds: readonly string[] }) | null;
}
