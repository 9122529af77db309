import type { ZoneGeometry, ZoneInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A part of a site that is sampled and treated as one. */
@Entity('zone')
export class Zone extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'integer' })
  position: number;

  @Column({ type: 'text' })
  name: string;

  /** What stands on the bag. */
  @Column({ type: 'text' })
  label: string;

  /** m², measured on the ellipsoid when there is a geometry. */
  @Column({ type: 'double precision' })
  area: number;

  @Column({ type: 'jsonb', nullable: true })
  geometry: ZoneGeometry | null;

  @Column({ type: 'text' })
  grass: string;

  @Column({ type: 'text' })
  surface: ZoneInput['surface'];

  @Column({ type: 'text' })
  intensity: ZoneInput['intensity'];

  @Column({ type: 'text' })
  shade: ZoneInput['shade'];

  @Column({ type: 'text' })
  clippings: ZoneInput['clippings'];

  @Column({ type: 'text', nullable: true })
  soilGroup: ZoneInput['soilGroup'] | null;

  @Column({ type: 'double precision', nullable: true })
  aimPh: number | null;

  /** cm */
  @Column({ type: 'double precision', nullable: true })
  thatch: number | null;

  /** cm */
  @Column({ type: 'double precision', nullable: true })
  rootDepth: number | null;
}
