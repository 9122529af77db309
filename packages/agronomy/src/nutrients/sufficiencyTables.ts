import { analytes, nutrientSymbol, nutrients } from '../analytes/analytes.ts';
import { type Rating, ratings } from '../analytes/ratings.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { band, flag, listOf, record, series } from '../calculators/structures.ts';
import { type Table, mustRise, readTable } from '../calculators/table.ts';
import conversionData from '../data/extractant-conversions.json' with { type: 'json' };
import setData from '../data/sufficiency.json' with { type: 'json' };
import rateData from '../data/yearly-rates.json' with { type: 'json' };

export const extractants = [
  'mehlich-3',
  'mehlich-1',
  'bray-1',
  'olsen',
  'morgan',
  'original morgan',
  'ammonium acetate',
  'dtpa',
  'hot water',
] as const;
export type Extractant = (typeof extractants)[number];
export const extractantNames: Readonly<Record<Extractant, string>> = {
  'mehlich-3': 'Mehlich-3',
  'mehlich-1': 'Mehlich-1',
  'bray-1': 'Bray P1',
  olsen: 'Olsen',
  morgan: 'modified Morgan',
  'original morgan': 'original Morgan',
  'ammonium acetate': 'ammonium acetate',
  dtpa: 'DTPA',
  'hot water': 'hot water',
};
export const extractantField = () =>
  choice(extractants, {
    m3: 'mehlich-3',
    m1: 'mehlich-1',
    'bray p1': 'bray-1',
    'modified morgan': 'morgan',
    'olsen bicarbonate': 'olsen',
  });
export { type Rating, ratings };

const level = () => quantity('mg/kg', { above: 0, max: 1_000_000 });
const rowFields = {
  nutrient: choice(nutrients),
  /** For this soil group only; a row without it is for all that have none of their own. */
  soilGroup: optional(choice(soilGroups)),
  medium: band(level()),
  /** Half of the bottom of medium when the source gives none. */
  veryLowBelow: optional(level()),
  /** Twice the top of medium when the source gives none. */
  veryHighFrom: optional(level()),
  uncertain: optional(flag()),
};
const setFields = {
  extractant: extractantField(),
  /** Soil pH outside which the extractant misleads: carbonate spends an acid one, acid soils mislead a basic one. */
  suitsPh: optional(band(quantity('pH', { min: 2.5, max: 11 }))),
  /** Hardly touched by the pH: never doubted for it. */
  notDoubted: optional(series(choice(nutrients), 'nutrients', { min: 0, max: 10 })),
  /** Doubted where free carbonate dissolves into the extract, not for the pH alone. */
  doubtedWithCarbonate: optional(series(choice(nutrients), 'nutrients', { min: 0, max: 10 })),
  rows: listOf(rowFields, 'rows', { min: 1, max: 100 }),
};

/** Bands of one publication or laboratory in one extractant. */
export type SufficiencySet = Table<typeof setFields>;
export type SufficiencyRow = SufficiencySet['rows'][number];

/** Where low, medium, high and very high begin as printed, mg/kg; medium's top belongs to it where it is a whole number. */
export function printedLimits({ medium: [low, high], veryLowBelow, veryHighFrom }: SufficiencyRow) {
  return [veryLowBelow ?? low / 2, low, high, veryHighFrom ?? high * 2] as const;
}

/** Whether a row's bands hold what rounds to their ends. */
export function isWhole({ nutrient, medium }: SufficiencyRow): boolean {
  return analytes[nutrient].whole === true && medium.every(Number.isInteger);
}

/** Where low, medium, high and very high begin, mg/kg: printed whole numbers from what rounds to them. */
export function limitsOf(row: SufficiencyRow) {
  const [veryLow, low, high, veryHigh] = printedLimits(row);
  if (!isWhole(row)) return [veryLow, low, high, veryHigh] as const;
  const half = (limit: number | undefined): number => (limit === undefined ? 0 : 0.5);
  return [veryLow - half(row.veryLowBelow), low - 0.5, high + 0.5, veryHigh - half(row.veryHighFrom)] as const;
}

/**
 * Read a set of bands, general or a practice's own.
 *
 * @throws {InputError} for bands that do not rise, and for two rows of one nutrient and soil group.
 */
export function readSufficiencySet(raw: unknown, name = 'table'): SufficiencySet {
  const set = readTable(name, setFields, raw);
  const seen = new Set<string>();
  for (const [index, row] of set.rows.entries()) {
    mustRise(`${name}.rows.${index}`, limitsOf(row));
    const key = `${row.nutrient} ${row.soilGroup ?? ''}`;
    if (seen.has(key))
      throw new InputError(
        `${name}.rows.${index}`,
        `is a second row of ${nutrientSymbol(row.nutrient)} for ${row.soilGroup ?? 'all soils'}; wanted one`,
      );
    seen.add(key);
  }
  return set;
}

/** The general sets; each extractant has one at most. */
export const sufficiencySets: readonly SufficiencySet[] = setData.sets.map((set) =>
  readSufficiencySet(set, `sufficiency.${set.extractant}`),
);

const byRating = () => record(ratings, quantity('lb/1000ft2', { min: 0, max: 20 }));
const yearlyFields = {
  perApplication: quantity('lb/1000ft2', { above: 0, max: 20 }),
  /** Middle of the nitrogen range of the grass that the rates are for; others scale by theirs, within the factor’s ends. */
  middlingNitrogen: optional(quantity('lb/1000ft2', { above: 0, max: 12 })),
  grassFactor: optional(band(quantity('', { above: 0, max: 5 }))),
  /** P₂O₅ while a lawn is being established; as `p` where none is given. */
  pEstablishing: optional(byRating()),
  p: byRating(),
  k: byRating(),
};
/** lb/1000 ft² of P₂O₅ and K₂O for the year by rating. */
export type YearlyRates = Table<typeof yearlyFields>;

/** Read rates by rating, general or a practice's own. @throws {InputError} where a poorer soil would get less. */
export function readYearlyRates(raw: unknown, name = 'table'): YearlyRates {
  const table = readTable(name, yearlyFields, raw);
  for (const nutrient of ['p', 'pEstablishing', 'k'] as const)
    ratings.slice(1).forEach((rating, index) => {
      const rates = table[nutrient];
      if (rates && rates[rating] > rates[ratings[index]!])
        throw new InputError(`${name}.${nutrient}.${rating}`, `gives more than ${ratings[index]} does; wanted no more`);
    });
  return table;
}

export const yearlyRates = readYearlyRates(rateData, 'yearly-rates');

/** Published regressions from one extractant to another; used only when named. */
export const conversions = readTable(
  'extractant-conversions',
  {
    conversions: listOf(
      {
        name: choice(conversionData.conversions.map(({ name }) => name)),
        nutrient: choice(nutrients),
        from: extractantField(),
        to: extractantField(),
        factor: quantity('', { above: 0, max: 10 }),
      },
      'conversions',
      { min: 1, max: 50 },
    ),
  },
  conversionData,
);
