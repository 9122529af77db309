import { InputError, choice } from '../calculators/fields.ts';
import { type Product, purposes } from './product.ts';

/** A product as a catalogue's CSV tells it, one column a property. */
export type CatalogueRow = Readonly<Record<string, string | undefined>>;

const purposeField = choice(purposes);
const extras = ['ca', 'mg', 's', 'fe'] as const;

/**
 * Read a row of a catalogue.
 *
 * @throws {InputError} whose field is the row's index and the column.
 */
export function readCatalogueRow(row: CatalogueRow, index: number): Omit<Product, 'id'> {
  const number = (name: string, fallback?: number): number => {
    const text = row[name]?.trim() ?? '';
    const value = text === '' ? fallback : Number(text);
    if (value === undefined || !Number.isFinite(value))
      throw new InputError(`${index}.${name}`, `"${text}" of product ${index + 1} is not a number`);
    return value;
  };
  const name = row.name?.trim() ?? '';
  if (name === '') throw new InputError(`${index}.name`, `of product ${index + 1} is missing`);
  const purpose = purposeField.read(row.purpose, `${index}.purpose`);
  return {
    name,
    purpose,
    grade: {
      n: number('n', 0),
      p2o5: number('p2o5', 0),
      k2o: number('k2o', 0),
      ...Object.fromEntries(extras.flatMap((extra) => (row[extra]?.trim() ? [[extra, number(extra)]] : []))),
    },
    slowRelease: number('slow_release_percent', 0),
    ...(purpose === 'lime'
      ? {
          lime: {
            cce: number('cce_percent'),
            passing8: number('passing_8_mesh'),
            passing20: number('passing_20_mesh'),
            passing60: number('passing_60_mesh'),
            moisture: number('moisture_percent', 0),
            magnesium: row.magnesium === 'yes',
            caustic: row.caustic === 'yes',
          },
        }
      : {}),
    bagMass: number('bag_kg'),
    bagPrice: row.bag_price?.trim() ? number('bag_price') : null,
  };
}
