import {
  type CatalogueRow,
  InputError,
  type Product,
  productEffectiveness,
  readCatalogueRow,
} from '@glenfold/agronomy';
import { ProductAnswer, type ProductPriceInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import papaparse from 'papaparse';
import type { Values } from '../platform/owned.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { ProductRecord } from './product.entity.ts';

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
  try {
    const { lime, ...product } = readCatalogueRow(row, index);
    return { ...product, lime: lime ?? null };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return refuse([{ field: error.field, message: error.message }]);
  }
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
