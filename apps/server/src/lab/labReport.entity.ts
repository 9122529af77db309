import type { BufferMethod, DateOrder, Extractant } from '@glenfold/agronomy';
import type { LabReportChoices } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import type { Digest } from '../ports/fileStore.ts';
import { Owned } from '../platform/owned.ts';
import type { LabTable } from './labTable.ts';

/** A laboratory's file, kept whole, with what the person chose about it. */
@Entity('lab_report')
export class LabReport extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  fileName: string;

  /** Its text, or what of it was read as text. */
  @Column({ type: 'text' })
  content: string;

  /** The file byte for byte, in the store of files; nothing of one that was kept as text only. */
  @Column({ type: 'text', nullable: true })
  original: Digest | null;

  @Column({ type: 'text', nullable: true })
  mediaType: string | null;

  /** "the sheet Results of a workbook"; nothing of plain text. */
  @Column({ type: 'text', nullable: true })
  readAs: string | null;

  /** The learned way of its laboratory, where that was known. */
  @Column({ type: 'uuid', nullable: true })
  profileId: string | null;

  /** Which comes first in its dates, as a person said it. */
  @Column({ type: 'text', nullable: true })
  dateOrder: DateOrder | null;

  /** Nothing until the person corrected something. */
  @Column({ type: 'jsonb', nullable: true })
  choices: LabReportChoices | null;

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

  /** Which reader its table was last found by; older ones are read again, since a newer one knows more analytes. */
  @Column({ type: 'integer', default: 1 })
  readBy: number;
}
