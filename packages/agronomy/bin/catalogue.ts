import papaparse from 'papaparse';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { genericMaterials } from '../src/materials/material.ts';
import { type Product, productOf } from '../src/materials/product.ts';
import type { Stocked } from '../src/remedies/remedy.ts';

/** The general materials with the prices that the demo scenario ships. */
export function genericShelf(): Stocked[] {
  const csv = readFileSync(join(import.meta.dirname, '../../../demo/prices.csv'), 'utf8');
  const { data } = papaparse.parse<Record<string, string>>(csv.trim(), { header: true, skipEmptyLines: true });
  const prices = new Map(data.map(({ name, pack_price: price }) => [name, price ? Number(price) : null]));
  return genericMaterials.map((material, index) => ({
    id: `${index}`,
    material,
    price: prices.get(material.name) ?? null,
  }));
}

/** The same as rates of lime and feed are reckoned with them. */
export const genericCatalogue = (): Product[] =>
  genericShelf().flatMap(({ id, material, price }) => productOf(id, material, price) ?? []);
