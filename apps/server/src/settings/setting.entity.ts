import type { SettingKind } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What a practice, a site or a zone has decided. */
@Entity('setting')
export class Setting extends Owned {
  @Column({ type: 'text' })
  kind: SettingKind;

  /** What it is called where changes are told: "Rules of the place, Gannet Row". */
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'uuid', nullable: true })
  siteId: string | null;

  @Column({ type: 'uuid', nullable: true })
  zoneId: string | null;

  @Column({ type: 'jsonb' })
  value: object;
}
