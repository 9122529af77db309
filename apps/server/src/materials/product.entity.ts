import type { Analysis, MaterialKind, packUnits } from '@glenfold/agronomy';
import type { SeedShare } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A material in the practice's list, by its analysis. */
@Entity('product')
export class ProductRecord extends Owned {
  @Column({ type: 'integer' })
  position: number;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  kind: MaterialKind;

  /** Read and written whole, by everything that reckons with a product: one column, not a row a number. */
  @Column({ type: 'jsonb' })
  analysis: Analysis;

  @Column({ type: 'text', nullable: true })
  nitrogenSource: string | null;

  @Column({ type: 'text', nullable: true })
  chelate: string | null;

  @Column({ type: 'jsonb', nullable: true })
  seeds: SeedShare[] | null;

  @Column({ type: 'boolean', default: false })
  natural: boolean;

  @Column({ type: 'boolean', default: false })
  dolomitic: boolean;

  @Column({ type: 'boolean', default: false })
  caustic: boolean;

  @Column({ type: 'text', nullable: true })
  caution: string | null;

  /** In the unit of the pack. */
  @Column({ type: 'double precision' })
  packSize: number;

  @Column({ type: 'text', default: 'kg' })
  packUnit: (typeof packUnits)[number];

  @Column({ type: 'double precision', nullable: true })
  packPrice: number | null;

  /** Packs that are there; nothing where nobody counted. */
  @Column({ type: 'double precision', nullable: true })
  stock: number | null;

  /** Day of the price; nothing for prices of before days were kept. */
  @Column({ type: 'date', nullable: true })
  pricedOn: string | null;

  /** Of bringing one load; nothing where it is fetched. */
  @Column({ type: 'double precision', nullable: true })
  deliveryPrice: number | null;

  /** What one load brings, in the unit of the pack; nothing for all at once. */
  @Column({ type: 'double precision', nullable: true })
  loadSize: number | null;
}
