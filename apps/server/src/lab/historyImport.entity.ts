import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import type { Digest } from '../ports/fileStore.ts';

/** A file of many years' tests, of any sites of the practice: all of it comes in, or nothing. */
@Entity('history_import')
export class HistoryImport extends Owned {
  @Column({ type: 'text' })
  fileName: string;

  /** Byte for byte, in the store of files. */
  @Column({ type: 'text' })
  original: Digest;

  @Column({ type: 'text', default: 'waiting' })
  state: 'waiting' | 'imported' | 'refused';

  /** Lines that came in. */
  @Column({ type: 'integer', nullable: true })
  rows: number | null;

  /** What keeps it from coming in, a sentence each. */
  @Column({ type: 'jsonb', default: [] })
  words: string[];
}
