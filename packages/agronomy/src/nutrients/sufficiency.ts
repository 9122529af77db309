import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import data from '../data/sufficiency.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

export const nutrients = ['p', 'k', 'ca', 'mg', 's', 'mn', 'zn', 'cu', 'fe', 'b'] as const;
export type Nutrient = (typeof nutrients)[number];
/** Chemical symbol of a nutrient: `mg` is Mg. */
export function nutrientSymbol(nutrient: string): string {
  return nutrient.charAt(0).toUpperCase() + nutrient.slice(1);
}

export const extractants = [
  'mehlich-3',
  'mehlich-1',
  'bray-1',
  'olsen',
  'morgan',
  'ammonium acetate',
  'hot water',
] as const;
export type Extractant = (typeof extractants)[number];
export const extractantNames: Readonly<Record<Extractant, string>> = {
  'mehlich-3': 'Mehlich-3',
  'mehlich-1': 'Mehlich-1',
  'bray-1': 'Bray P1',
  olsen: 'Olsen',
  morgan: 'modified Morgan',
  'ammonium acetate': 'ammonium acetate',
  'hot water': 'hot water',
};
export const ratings = ['very low', 'low', 'medium', 'high', 'very high'] as const;
export type Rating = (typeof ratings)[number];
export const soilGroups = ['sand', 'loam', 'clay'] as const;
export type SoilGroup = (typeof soilGroups)[number];

interface Table {
  readonly nutrient: string;
  readonly extractant: string;
  readonly medium: readonly number[];
  readonly mediumOnSand?: readonly number[];
  readonly veryLowBelow?: number;
  readonly uncertain?: boolean;
  readonly source: string;
}

const tables: readonly Table[] = data.tables;

function findTable(nutrient: Nutrient, extractant: Extractant): Table {
  const table = tables.find((entry) => entry.nutrient === nutrient && entry.extractant === extractant);
  if (table) return table;
  const others = tables.filter((entry) => entry.nutrient === nutrient).map((entry) => entry.extractant);
  throw new InputError(
    'extractant',
    `was given "${extractant}"; no sufficiency table for ${nutrientSymbol(nutrient)} by it is held here, wanted one of ${others.join(', ')}. Extractants are not converted into one another.`,
  );
}

/**
 * Rate a soil test by sufficiency. Bands are half-open, [low, high).
 *
 * @param nutrient p, k, ca, …; `extractant` of the laboratory; `value` mg/kg of
 *   the element; `soilGroup` where the table tells soils apart (loam when left out).
 * @returns the rating and the band of medium, with all four limits in `limits`.
 * @throws {InputError} where no table exists: nothing is converted silently.
 */
export const ratingSufficiency = defineCalculator({
  name: 'rating.sufficiency',
  title: 'Rating by sufficiency range',
  source: 'Carrow, Waddington & Rieke (2001), Turfgrass Soil Fertility and Chemical Problems',
  inputs: {
    nutrient: choice(nutrients),
    extractant: choice(extractants, {
      m3: 'mehlich-3',
      m1: 'mehlich-1',
      'bray p1': 'bray-1',
      'modified morgan': 'morgan',
      'olsen bicarbonate': 'olsen',
    }),
    value: quantity('mg/kg', { min: 0, max: 1_000_000 }),
    soilGroup: optional(choice(soilGroups)),
  },
  outputs: {
    rating: 'very low, low, medium, high or very high',
    band: '[low, high] mg/kg',
    limits: '[low, medium, high, very high] mg/kg',
  },
  compute({ nutrient, extractant, value, soilGroup }, book) {
    const table = findTable(nutrient, extractant);
    const onSand = soilGroup === 'sand' && table.mediumOnSand !== undefined;
    const [low = 0, high = 0] = onSand ? table.mediumOnSand : table.medium;
    const limits = [table.veryLowBelow ?? low / 2, low, high, high * 2] as const;
    const rating = ratings[limits.filter((limit) => value >= limit).length]!;
    book.step({
      label: `${nutrientSymbol(nutrient)} by ${extractantNames[extractant]}${table.mediumOnSand ? (onSand ? ', sands' : ', loams and clays') : ''}`,
      formula: 'very low | low | medium | high | very high, each from its lower limit',
      numbers: `${limits.map((limit) => figure(limit)).join(' | ')} mg/kg; test ${figure(value)}`,
      result: rating,
      unit: '',
      source: table.source,
    });
    if (table.veryLowBelow === undefined)
      book.warn('The source gives no very low for this: below half of the bottom of medium is used.');
    if (table.mediumOnSand && soilGroup === undefined)
      book.warn('No soil group was given: the band of loams and clays is used; sands need less.');
    if (table.uncertain)
      book.warn('Micronutrient bands are the least certain of all: look at the grass and a tissue test too.');
    return { rating, band: [low, high] as readonly [number, number], limits };
  },
});

/**
 * P₂O₅ or K₂O for the year from a rating, by the general table.
 *
 * @returns `requirement` g/m² of the oxide; `applications` how many it is put down in.
 */
export const requirementSufficiency = defineCalculator({
  name: 'requirement.sufficiency',
  title: 'P₂O₅ or K₂O for the year from the rating',
  source: data.yearlyRate.source,
  inputs: {
    nutrient: choice(['p', 'k']),
    rating: choice(ratings),
    perApplication: defaulted(
      quantity('g/m2', { above: 0 }),
      convert(data.yearlyRate.perApplication, 'lb/1000ft2', 'g/m2'),
    ),
  },
  outputs: { requirement: 'g/m2 of the oxide', applications: 'number' },
  compute({ nutrient, rating, perApplication }, book) {
    const row = data.yearlyRate[nutrient];
    const requirement = convert(row[rating], 'lb/1000ft2', 'g/m2');
    book.step({
      label: `${row.oxide} for the year`,
      formula: 'general table by rating',
      numbers: `${rating}: ${row[rating]} lb/1000 ft²`,
      result: requirement,
      unit: 'g/m2',
      source: data.yearlyRate.source,
    });
    const applications = Math.ceil(requirement / perApplication - 1e-9);
    if (applications > 1)
      book.cap(
        `At most ${figure(convert(perApplication, 'g/m2', 'lb/1000ft2'))} lb/1000 ft² (${figure(perApplication)} g/m²) of ${row.oxide} at once: ${applications} applications.`,
        data.yearlyRate.source,
      );
    if (nutrient === 'p' && requirement > 0)
      book.warn('Many places restrict phosphorus by law: check the local rule before buying.');
    return { requirement, applications };
  },
});
