import type { BufferMethod, Extractant } from '@glenfold/agronomy';
import type { LabImportChoices } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import type { LabTable } from './labTable.ts';

/** A laboratory's file, kept whole, with what the person chose about it. */
@Entity('lab_import')
export class LabImport extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  fileName: string;

  @Column({ type: 'text' })
  content: string;

  /** Nothing until the person corrected something. */
  @Column({ type: 'jsonb', nullable: true })
  choices: LabImportChoices | null;

  /** Line of the file to the result it became. */
  @Column({ type: 'jsonb', default: {} })
  imported: Record<string, string>;

  @Column({ type: 'text', nullable: true })
  extractant: Extractant | null;

  @Column({ type: 'text', nullable: true })
  bufferMethod: BufferMethod | null;

  /** By which an Adams–Evans laboratory has multiplied its lime already. */
  @Column({ type: 'double precision', nullable: true })
  limeFactor: number | null;

  /** The table as it was found when the file came in; nothing for files kept before that was written down. */
  @Column({ type: 'jsonb', nullable: true })
  found: LabTable | null;

  /** cm */
  @Column({ type: 'double precision', nullable: true })
  depth: number | null;
}
