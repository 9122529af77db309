import type { GroundFeatureInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A thing on the ground of a site: what is not treated, lines, trees, taps. */
@Entity('ground_feature')
export class GroundFeature extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  kind: GroundFeatureInput['kind'];

  @Column({ type: 'text', nullable: true })
  name: string | null;

  @Column({ type: 'jsonb' })
  geometry: GroundFeatureInput['geometry'];

  /** m, of a tree. */
  @Column({ type: 'double precision', nullable: true })
  canopyRadius: number | null;

  /** m above the ground; of a spot height, above what all are counted from. */
  @Column({ type: 'double precision', nullable: true })
  height: number | null;

  /** What the file that it came from said of it beside. */
  @Column({ type: 'jsonb', nullable: true })
  properties: Record<string, unknown> | null;
}

/** What of an input is kept; only a tree has a canopy. */
export function featureValues({
  kind,
  name = null,
  geometry,
  canopyRadius = null,
  height = null,
  properties = null,
}: GroundFeatureInput) {
  return { kind, name, geometry, canopyRadius: kind === 'tree' ? canopyRadius : null, height, properties };
}
