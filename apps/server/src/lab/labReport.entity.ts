import type { BufferMethod, Extractant } from '@glenfold/agronomy';
import type { LabReportChoices } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import type { LabTable } from './labTable.ts';

/** A laboratory's file, kept whole, with what the person chose about it. */
@Entity('lab_report')
export class LabReport extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  fileName: string;

  @Column({ type: 'text' })
  content: string;

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
