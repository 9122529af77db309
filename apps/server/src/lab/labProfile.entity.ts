import type { BufferMethod, DateOrder, Extractant } from '@glenfold/agronomy';
import type { ProfileColumnInput, ProfileSampleInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** How one laboratory arranges its files, learned once from a person. */
@Entity('lab_profile')
export class LabProfile extends Owned {
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'jsonb' })
  columns: ProfileColumnInput[];

  @Column({ type: 'text', nullable: true })
  extractant: Extractant | null;

  @Column({ type: 'text', nullable: true })
  bufferMethod: BufferMethod | null;

  @Column({ type: 'double precision', nullable: true })
  limeFactor: number | null;

  /** cm, of files that do not give it. */
  @Column({ type: 'double precision', nullable: true })
  depth: number | null;

  @Column({ type: 'text', nullable: true })
  dateOrder: DateOrder | null;

  /** A file that keeps testing it. */
  @Column({ type: 'jsonb', nullable: true })
  sample: ProfileSampleInput | null;
}
