import type { PictureType } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import type { Digest } from '../ports/fileStore.ts';
import { Owned } from '../platform/owned.ts';

/** A photo of a zone. */
@Entity('zone_photo')
export class ZonePhoto extends Owned {
  @Column({ type: 'uuid' })
  zoneId: string;

  /** The entry of the logbook that it shows. */
  @Column({ type: 'uuid', nullable: true })
  entryId: string | null;

  /** The test of one's own that it shows. */
  @Column({ type: 'uuid', nullable: true })
  fieldTestId: string | null;

  @Column({ type: 'text', nullable: true })
  caption: string | null;

  @Column({ type: 'text', nullable: true })
  takenOn: string | null;

  @Column({ type: 'text' })
  type: PictureType;

  /** The picture, in the store of files. */
  @Column({ type: 'text', nullable: true })
  digest: Digest | null;

  /** A small one of it, for lists. */
  @Column({ type: 'text', nullable: true })
  thumb: Digest | null;

  /** Base64, of one that has not moved into a file yet. */
  @Column({ type: 'text', nullable: true, select: false })
  image: string | null;
}
