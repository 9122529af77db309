import type { TapedShape, ZoneFactsInput, ZoneGeometry, ZoneInput } from '@glenfold/contract';
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

  /** Nothing on a garden bed. */
  @Column({ type: 'text', nullable: true })
  grass: string | null;

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

  /** Why the aim lies where it does. */
  @Column({ type: 'text', nullable: true })
  aimReason: string | null;

  /** How the area was found without a plan. */
  @Column({ type: 'jsonb', nullable: true })
  taped: TapedShape | null;

  /** What else is known; nothing until somebody says something. */
  @Column({ type: 'jsonb', nullable: true })
  facts: ZoneFactsInput | null;

  /** What the file that it came from said of it beside. */
  @Column({ type: 'jsonb', nullable: true })
  properties: Record<string, unknown> | null;

  /** The zone that it was parted from: its tests speak for this part too. */
  @Column({ type: 'uuid', nullable: true })
  partOf: string | null;

  /** Of a zone that was taken away: the one it was joined to. */
  @Column({ type: 'uuid', nullable: true })
  joinedInto: string | null;
}
