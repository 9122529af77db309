import { type Product, productEffectiveness, purposes } from '@glenfold/agronomy';
import { ProductAnswer, type ProductPriceInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import papaparse from 'papaparse';
import type { Values } from '../platform/owned.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { ProductRecord } from './product.entity.ts';

type CatalogueRow = Readonly<Record<string, string>>;

@Injectable()
export class CatalogueService {
  constructor(private readonly records: Records) {}

  products(): Promise<ProductRecord[]> {
    return this.records.of(ProductRecord).find({}, { position: 'ASC' });
  }

  setPrice(id: string, { bagMass, bagPrice }: ProductPriceInput, version: number): Promise<ProductRecord> {
    const values = { bagMass, bagPrice: bagPrice ?? null };
    return this.records.of(ProductRecord).change(id, values, { version, tell: productAnswer });
  }

  /** Import a catalogue from CSV; all of it or nothing. */
  async import(csv: string): Promise<void> {
    const { data } = papaparse.parse<CatalogueRow>(csv.trim(), { header: true, skipEmptyLines: true });
    const products = data.map(readProduct);
    await this.records.together(async (of) => {
      for (const [position, product] of products.entries()) await of(ProductRecord).add({ ...product, position });
    });
  }
}

function readProduct(row: CatalogueRow, index: number): Omit<Values<ProductRecord>, 'position'> {
  const number = (name: string, fallback?: number): number => {
    const text = row[name]?.trim() ?? '';
    const value = text === '' ? fallback : Number(text);
    if (value === undefined || !Number.isFinite(value))
      return refuse([
        { field: `${index}.${name}`, message: `Product ${index + 1}: ${name} "${text}" is not a number.` },
      ]);
    return value;
  };
  const purpose = purposes.find((known) => known === row.purpose);
  if (!purpose || !row.name)
    return refuse([
      {
        field: `${index}.purpose`,
        message: `Product ${index + 1} needs a name and a purpose, one of ${purposes.join(', ')}.`,
      },
    ]);
  return {
    name: row.name,
    purpose,
    grade: { n: number('n', 0), p2o5: number('p2o5', 0), k2o: number('k2o', 0) },
    slowRelease: number('slow_release_percent', 0),
    lime:
      purpose === 'lime'
        ? {
            cce: number('cce_percent'),
            passing8: number('passing_8_mesh'),
            passing20: number('passing_20_mesh'),
            passing60: number('passing_60_mesh'),
            moisture: number('moisture_percent', 0),
            magnesium: row.magnesium === 'yes',
            caustic: row.caustic === 'yes',
          }
        : null,
    bagMass: number('bag_kg'),
    bagPrice: row.bag_price ? number('bag_price') : null,
  };
}

/** A catalogue entry as the core takes it. */
export function coreProduct({
  id,
  name,
  purpose,
  grade,
  slowRelease,
  lime,
  bagMass,
  bagPrice,
}: ProductRecord): Product {
  return { id, name, purpose: purpose, grade, slowRelease, lime: lime ?? undefined, bagMass, bagPrice };
}

export function productAnswer(record: ProductRecord): ProductAnswer {
  const { id, version, name, purpose, grade, slowRelease, lime, bagMass, bagPrice } = record;
  const effectiveness = lime ? productEffectiveness(lime).value : null;
  return {
    id,
    version,
    name,
    purpose,
    grade,
    slowRelease,
    effectiveness,
    caustic: lime?.caustic ?? false,
    bagMass,
    bagPrice,
  };
}
