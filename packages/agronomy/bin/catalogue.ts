import papaparse from 'papaparse';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { genericMaterials } from '../src/materials/material.ts';
import { type Product, productOf } from '../src/materials/product.ts';

/** The generic catalogue with the prices that the demo scenario ships. */
export function genericCatalogue(): Product[] {
  const csv = readFileSync(join(import.meta.dirname, '../../../demo/prices.csv'), 'utf8');
  const { data } = papaparse.parse<Record<string, string>>(csv.trim(), { header: true, skipEmptyLines: true });
  const prices = new Map(data.map(({ name, pack_price: price }) => [name, price ? Number(price) : null]));
  return genericMaterials.flatMap(
    (material, index) => productOf(`${index}`, material, prices.get(material.name) ?? null) ?? [],
  );
}
