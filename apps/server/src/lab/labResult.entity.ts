import type { Advised, Extractant } from '@glenfold/agronomy';
import { Column, Entity, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import { Sample } from './sample.entity.ts';

/** What one report said of one sample. Its values are measurements, kept as they were printed. */
@Entity('lab_result')
export class LabResult extends Owned {
  @Column({ type: 'uuid' })
  sampleId: string;

  @ManyToOne(() => Sample, { eager: true })
  @JoinColumn({ name: 'sampleId' })
  sample: Relation<Sample>;

  /** The laboratory's file that it stands in; nothing where it was typed. */
  @Column({ type: 'uuid', nullable: true })
  reportId: string | null;

  /** The result that it takes the place of; that one is kept. */
  @Column({ type: 'uuid', nullable: true })
  supersedesId: string | null;

  @Column({ type: 'text', nullable: true })
  labNumber: string | null;

  /** Of the nutrients, where a value does not name its own. */
  @Column({ type: 'text' })
  extractant: Extractant;

  /** By which an Adams–Evans laboratory has multiplied its lime already. */
  @Column({ type: 'double precision', nullable: true })
  limeFactor: number | null;

  /** What else the laboratory's line said, in its own words: the columns that no field takes. */
  @Column({ type: 'text', nullable: true })
  beside: string | null;

  /** What the laboratory itself advises, in its words. */
  @Column({ type: 'text', nullable: true })
  advice: string | null;

  /** The same in amounts. */
  @Column({ type: 'jsonb', default: [] })
  advised: Advised[];

  /** "typed", or the name of the file. */
  @Column({ type: 'text' })
  origin: string;
}
