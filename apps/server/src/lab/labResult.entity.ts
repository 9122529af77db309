import type { BufferMethod, Extractant } from '@glenfold/agronomy';
import type { NutrientsInput } from '@glenfold/contract';
import { Column, Entity, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import { Sample } from './sample.entity.ts';

/** What a laboratory reported for a sample, as it printed it. */
@Entity('lab_result')
export class LabResult extends Owned {
  @Column({ type: 'uuid' })
  sampleId: string;

  @ManyToOne(() => Sample, { eager: true })
  @JoinColumn({ name: 'sampleId' })
  sample: Relation<Sample>;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'text', nullable: true })
  labNumber: string | null;

  @Column({ type: 'text' })
  extractant: Extractant;

  @Column({ type: 'text', nullable: true })
  bufferMethod: BufferMethod | null;

  @Column({ type: 'double precision' })
  soilPh: number;

  @Column({ type: 'double precision', nullable: true })
  bufferPh: number | null;

  /** By which an Adams–Evans laboratory has multiplied its lime already. */
  @Column({ type: 'double precision', nullable: true })
  limeFactor: number | null;

  /** % */
  @Column({ type: 'double precision', nullable: true })
  organicMatter: number | null;

  /** By nutrient, in the laboratory's own unit and basis. */
  @Column({ type: 'jsonb' })
  nutrients: NutrientsInput;

  /** What else the laboratory's line said, in its own words: the columns that no field takes. */
  @Column({ type: 'text', nullable: true })
  beside: string | null;

  /** "typed", or the name of the file. */
  @Column({ type: 'text' })
  origin: string;
}
