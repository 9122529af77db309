import type { LimeStrength, Product, Purpose } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A generic product of the practice's catalogue. */
@Entity('product')
export class ProductRecord extends Owned {
  @Column({ type: 'integer' })
  position: number;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  purpose: Purpose;

  /** % N, P₂O₅ and K₂O, and of what else the label tells. */
  @Column({ type: 'jsonb' })
  grade: Product['grade'];

  /** % of the nitrogen */
  @Column({ type: 'double precision' })
  slowRelease: number;

  @Column({ type: 'jsonb', nullable: true })
  lime: LimeStrength | null;

  /** kg */
  @Column({ type: 'double precision' })
  bagMass: number;

  @Column({ type: 'double precision', nullable: true })
  bagPrice: number | null;
}
