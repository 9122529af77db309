import type { Rating, Analyte, Basis, LabUnit } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** One value of one analyte or field test: of a sample, by a report, or of a zone itself. Kept as it was printed or read. */
@Entity('measurement')
export class Measurement extends Owned {
  /** Of a test on the ground itself. */
  @Column({ type: 'uuid', nullable: true })
  zoneId: string | null;

  @Column({ type: 'uuid', nullable: true })
  sampleId: string | null;

  /** The result of a report that it stands in. */
  @Column({ type: 'uuid', nullable: true })
  resultId: string | null;

  /** The test with one's own hands that it comes of. */
  @Column({ type: 'uuid', nullable: true })
  fieldTestId: string | null;

  @Column({ type: 'text' })
  analyte: Analyte;

  /** Buffer method, or the extractant of this value alone; nothing where the result's holds. */
  @Column({ type: 'text', nullable: true })
  method: string | null;

  @Column({ type: 'double precision' })
  value: number;

  /** Nothing of a plain number. */
  @Column({ type: 'text', nullable: true })
  unit: Exclude<LabUnit, ''> | null;

  @Column({ type: 'text' })
  basis: Basis;

  /** `below`: the truth lies between 0 and the value; `above`: it is the value or more. */
  @Column({ type: 'text', nullable: true })
  qualifier: 'below' | 'above' | Rating | null;

  /** Nothing where nobody wrote down when. */
  @Column({ type: 'date', nullable: true })
  takenOn: string | null;

  /** cm; of a layer of its own, where it is not the sample's. */
  @Column({ type: 'double precision', nullable: true })
  depthFrom: number | null;

  @Column({ type: 'double precision', nullable: true })
  depthTo: number | null;

  /** [longitude, latitude] */
  @Column({ type: 'jsonb', nullable: true })
  place: [number, number] | null;

  /** Standard deviation in the value's unit, where it is known. */
  @Column({ type: 'double precision', nullable: true })
  error: number | null;

  /** Who or what it came from, in words. */
  @Column({ type: 'text', nullable: true })
  source: string | null;

  @Column({ type: 'uuid', nullable: true })
  supersedesId: string | null;
}
