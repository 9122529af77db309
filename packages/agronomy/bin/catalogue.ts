import papaparse from 'papaparse';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type CatalogueRow, readCatalogueRow } from '../src/rates/catalogueRow.ts';
import type { Product } from '../src/rates/product.ts';

/** The generic catalogue with its prices, as the demo scenario ships it. */
export function genericCatalogue(): Product[] {
  const csv = readFileSync(join(import.meta.dirname, '../../../demo/products.csv'), 'utf8');
  const { data } = papaparse.parse<CatalogueRow>(csv.trim(), { header: true, skipEmptyLines: true });
  return data.map((row, index) => ({ id: `${index}`, ...readCatalogueRow(row, index) }));
}
