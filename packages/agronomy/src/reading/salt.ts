import { defineCalculator } from '../calculators/calculator.ts';
import { quantity } from '../calculators/fields.ts';
import { record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/salt.json' with { type: 'json' };
import { findGrass, grassField, grassTable, saltLimits } from '../nutrients/grasses.ts';
import { type SoilGroup, soilGroups } from '../soil/soilGroups.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';

const factor = () => quantity('', { above: 0, max: 100 });
/** From diluted extracts to the saturated paste. */
export const saltFactors = readTable(
  'salt',
  { fromOneToFive: record(soilGroups, factor()), fromOneToTwo: factor() },
  data,
);

/** An EC of an extract that is not the saturated paste, dS/m. */
export interface DilutedEc {
  readonly ratio: '1:2' | '1:5';
  readonly value: number;
}

export const saltRatings = ['no harm', 'some harm', 'harmful'] as const;
export type SaltRating = (typeof saltRatings)[number];

/**
 * What salt does to a grass.
 *
 * @param ec dS/m of the saturated paste; `grass`.
 * @returns `rating`: no harm, some harm, harmful; `from` dS/m where harm to this grass begins.
 */
export const saltRating = defineCalculator({
  name: 'salt.rating',
  title: 'What salt does to a grass',
  source: grassTable.source,
  inputs: { ec: quantity('dS/m', { min: 0, max: 100 }), grass: grassField() },
  outputs: { rating: saltRatings.join(', '), from: 'dS/m' },
  compute({ ec, grass: name }, book) {
    const grass = findGrass(name);
    const [from, to] = saltLimits(grass);
    const rating: SaltRating = ec >= to - 1e-9 ? 'harmful' : ec >= from - 1e-9 ? 'some harm' : 'no harm';
    book.step({
      label: `Salt for ${grass.label}`,
      formula: `no harm below ${figure(from)}, harmful from ${figure(to)} dS/m`,
      numbers: `${figure(ec)} dS/m`,
      result: rating,
      unit: '',
      source: grassTable.source,
    });
    if (grass.salt[0] === 0)
      book.warn(`${grass.label} is sensitive and has no safe end in the table: half of ${figure(to)} dS/m is taken.`);
    return { rating, from };
  },
});

/**
 * The EC of the saturated paste, as measured or roughly from a diluted extract.
 *
 * @returns dS/m with its working, and whether it is rough; loam where the soil is not known.
 */
export function pasteEc(
  { ec, ecDiluted }: { readonly ec?: number | undefined; readonly ecDiluted?: DilutedEc | undefined },
  soilGroup: SoilGroup | undefined,
): (Figure & { readonly rough: boolean }) | undefined {
  const book = new WorkingBook();
  if (ec !== undefined) {
    book.step({
      label: 'EC of the saturated paste',
      formula: 'as measured',
      numbers: `${figure(ec)} dS/m`,
      result: ec,
      unit: 'dS/m',
    });
    return { value: ec, working: book.entries, rough: false };
  }
  if (!ecDiluted) return undefined;
  const by = ecDiluted.ratio === '1:2' ? saltFactors.fromOneToTwo : saltFactors.fromOneToFive[soilGroup ?? 'loam'];
  const value = ecDiluted.value * by;
  book.step({
    label: 'EC of the saturated paste, roughly',
    formula: `EC ${ecDiluted.ratio} × ${by}`,
    numbers: `${figure(ecDiluted.value)} × ${by}`,
    result: value,
    unit: 'dS/m',
    source: saltFactors.source,
  });
  book.warn(
    `A general factor${ecDiluted.ratio === '1:5' && soilGroup === undefined ? ', for loam since the soil is not known' : ''}: a single soil may differ by half. A saturated paste settles it.`,
    saltFactors.source,
  );
  return { value, working: book.entries, rough: true };
}
