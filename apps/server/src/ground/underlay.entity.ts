import type { MatchInput, PictureType } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** An image that lies under the plan of a site. */
@Entity('underlay')
export class Underlay extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  name: string;

  /** Pixels. */
  @Column({ type: 'integer' })
  width: number;

  @Column({ type: 'integer' })
  height: number;

  @Column({ type: 'jsonb' })
  matches: MatchInput[];

  @Column({ type: 'double precision' })
  opacity: number;

  @Column({ type: 'text' })
  type: PictureType;

  /** Base64; read only where the picture itself is asked for. */
  @Column({ type: 'text', select: false })
  image: string;
}
