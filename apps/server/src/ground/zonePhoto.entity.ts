import type { PictureType } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A photo of a zone. */
@Entity('zone_photo')
export class ZonePhoto extends Owned {
  @Column({ type: 'uuid' })
  zoneId: string;

  /** The entry of the logbook that it shows. */
  @Column({ type: 'uuid', nullable: true })
  entryId: string | null;

  @Column({ type: 'text', nullable: true })
  caption: string | null;

  @Column({ type: 'text', nullable: true })
  takenOn: string | null;

  @Column({ type: 'text' })
  type: PictureType;

  /** Base64; read only where the picture itself is asked for. */
  @Column({ type: 'text', select: false })
  image: string;
}
