import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, optional, quantity, soilPhField } from '../calculators/fields.ts';
import { type WorkingBook, figure } from '../working/working.ts';
import { convert } from '../units/unit.ts';
import {
  type Extractant,
  type Nutrient,
  type SoilGroup,
  type SufficiencyRow,
  type SufficiencySet,
  conversions,
  extractantField,
  extractantNames,
  limitsOf,
  nutrientSymbol,
  nutrients,
  ratings,
  readSufficiencySet,
  readYearlyRates,
  soilGroups,
  sufficiencySets,
  yearlyRates,
} from './sufficiencyTables.ts';

const plurals: Readonly<Record<SoilGroup, string>> = { sand: 'sands', loam: 'loams', clay: 'clays' };
const oxides = { p: 'P₂O₅', k: 'K₂O' } as const;

/** The set to rate by: the practice's own when given, else the general one of the extractant. */
function findSet(nutrient: Nutrient, extractant: Extractant, own: SufficiencySet | undefined): SufficiencySet {
  const holds = (set: SufficiencySet): boolean => set.rows.some((row) => row.nutrient === nutrient);
  if (own) {
    if (own.extractant !== extractant)
      throw new InputError(
        'table.extractant',
        `is ${extractantNames[own.extractant]}, but the test is by ${extractantNames[extractant]}; wanted a table of the same extractant`,
      );
    if (!holds(own))
      throw new InputError('table.rows', `hold none of ${nutrientSymbol(nutrient)}; wanted its bands, or no table`);
    return own;
  }
  const set = sufficiencySets.find((entry) => entry.extractant === extractant && holds(entry));
  if (set) return set;
  const others = sufficiencySets.filter(holds).map((entry) => entry.extractant);
  throw new InputError(
    'extractant',
    `was given "${extractant}"; no sufficiency table for ${nutrientSymbol(nutrient)} by it is held here, wanted one of ${others.join(', ')}, or the laboratory's own table. Extractants are not converted into one another silently.`,
  );
}

/** The row of the soil group, or the one for all others; and whom it is for, when the set tells soils apart. */
function findRow(set: SufficiencySet, nutrient: Nutrient, soilGroup: SoilGroup | undefined): [SufficiencyRow, string] {
  const rows = set.rows.filter((row) => row.nutrient === nutrient);
  const own = rows.find((row) => row.soilGroup !== undefined && row.soilGroup === soilGroup);
  if (own) return [own, `, ${plurals[own.soilGroup!]}`];
  const general = rows.find((row) => row.soilGroup === undefined);
  const named = rows.flatMap((row) => row.soilGroup ?? []);
  if (!general)
    throw new InputError(
      'soilGroup',
      `was given ${soilGroup ? `"${soilGroup}"` : 'nothing'}; the table has ${nutrientSymbol(nutrient)} for ${named.join(', ')} only`,
    );
  const others = soilGroups.filter((group) => !named.includes(group)).map((group) => plurals[group]);
  return [general, named.length > 0 ? `, ${others.join(' and ')}` : ''];
}

interface Test {
  readonly nutrient: Nutrient;
  readonly extractant: Extractant;
  /** mg/kg */
  readonly value: number;
}

/** The test as the named regression turns it into another extractant. */
function converted({ nutrient, extractant, value }: Test, name: string, book: WorkingBook): Test {
  const { source, region, conversions: known } = conversions;
  const conversion = known.find((entry) => entry.name === name)!;
  if (conversion.nutrient !== nutrient || conversion.from !== extractant)
    throw new InputError(
      'conversion',
      `was given "${name}", which turns ${nutrientSymbol(conversion.nutrient)} by ${extractantNames[conversion.from]} into ${extractantNames[conversion.to]}; the test is ${nutrientSymbol(nutrient)} by ${extractantNames[extractant]}`,
    );
  const result = conversion.factor * value;
  book.step({
    label: `As ${extractantNames[conversion.to]} would read it`,
    formula: `${conversion.factor} × ${extractantNames[extractant]}`,
    numbers: `${conversion.factor} × ${figure(value)} mg/kg`,
    result,
    unit: 'mg/kg',
    source,
  });
  book.warn(
    `A regression over many soils of ${region}: a single soil may differ by a third or more. A test in the extractant itself is better.`,
    source,
  );
  return { nutrient, extractant: conversion.to, value: result };
}

/**
 * Rate a soil test by sufficiency. Bands are half-open, [low, high).
 *
 * @param nutrient p, k, ca, …; `extractant` of the laboratory; `value` mg/kg of the element; `soilGroup` where the
 *   table tells soils apart (that of loams and clays when left out); `soilPh`, for a warning where the extractant
 *   misleads; `table` a set of bands of the laboratory's or the
 *   state's own instead of the general one; `conversion` a published regression to another extractant, by name.
 * @returns the rating and the band of medium, with all four limits in `limits`; `suited` is false where the pH is outside
 *   what the extractant was made for.
 * @throws {InputError} where no table exists: nothing is converted unless it is asked for.
 */
export const ratingSufficiency = defineCalculator({
  name: 'rating.sufficiency',
  title: 'Rating by sufficiency range',
  source: [...new Set(sufficiencySets.map((set) => set.source))].join('; '),
  inputs: {
    nutrient: choice(nutrients),
    extractant: extractantField(),
    value: quantity('mg/kg', { min: 0, max: 1_000_000 }),
    soilGroup: optional(choice(soilGroups)),
    soilPh: optional(soilPhField()),
    conversion: optional(choice(conversions.conversions.map(({ name }) => name))),
    table: optional({
      description: 'own table: source, basis, region, date, extractant and rows as in sufficiency.json',
      optional: false,
      read: readSufficiencySet,
    }),
  },
  outputs: {
    rating: 'very low, low, medium, high or very high',
    band: '[low, high] mg/kg',
    limits: '[low, medium, high, very high] mg/kg',
    suited: 'true or false: whether the extractant suits the pH',
  },
  compute({ soilGroup, soilPh, conversion, table, ...given }, book) {
    const { nutrient, extractant, value } = conversion === undefined ? given : converted(given, conversion, book);
    const set = findSet(nutrient, extractant, table);
    const [row, soils] = findRow(set, nutrient, soilGroup);
    const limits = limitsOf(row);
    const rating = ratings[limits.filter((limit) => value >= limit).length]!;
    book.step({
      label: `${nutrientSymbol(nutrient)} by ${extractantNames[extractant]}${soils}`,
      formula: 'very low | low | medium | high | very high, each from its lower limit',
      numbers: `${limits.map((limit) => figure(limit)).join(' | ')} mg/kg; test ${figure(value)}`,
      result: rating,
      unit: '',
      source: `${set.source} (${set.region})`,
    });
    if (row.veryLowBelow === undefined)
      book.warn('The source gives no very low for this: below half of the bottom of medium is used.');
    if (soils !== '' && soilGroup === undefined)
      book.warn(`No soil group was given: the band of ${soils.slice(2)} is used; another group needs its own.`);
    const [lowest, highest] = set.suitsPh ?? [0, 14];
    const suited = soilPh === undefined || (soilPh >= lowest && soilPh <= highest);
    if (!suited)
      book.warn(
        `${extractantNames[extractant]} was made for soils of pH ${soilPh < lowest ? `${lowest} and above` : `up to ${highest}`}: at ${figure(soilPh)} it misleads${soilPh > highest ? ', since carbonate spends its acid' : ''}. Ask for a test that suits the soil.`,
      );
    if (row.uncertain)
      book.warn(
        `Micronutrient bands are the least certain of all: look at the grass and a tissue test too.${nutrient === 'mn' ? ' Manganese is locked up as the pH rises: above 6.5 the same test means less.' : ''}`,
      );
    return { rating, band: row.medium, limits, suited };
  },
});

/**
 * P₂O₅ or K₂O for the year from a rating, by the general table or the state's own.
 *
 * @param nutrient p or k; `rating`; `perApplication` g/m², that of the table when left out; `table` rates by rating of
 *   one's own, lb/1000 ft² unless they carry a unit.
 * @returns `requirement` g/m² of the oxide; `applications` how many it is put down in.
 */
export const requirementSufficiency = defineCalculator({
  name: 'requirement.sufficiency',
  title: 'P₂O₅ or K₂O for the year from the rating',
  source: yearlyRates.source,
  inputs: {
    nutrient: choice(['p', 'k']),
    rating: choice(ratings),
    perApplication: optional(quantity('g/m2', { above: 0 })),
    table: optional({
      description: 'own table: source, basis, region, date, perApplication, p and k as in yearly-rates.json',
      optional: false,
      read: readYearlyRates,
    }),
  },
  outputs: { requirement: 'g/m2 of the oxide', applications: 'number' },
  compute({ nutrient, rating, perApplication, table = yearlyRates }, book) {
    const oxide = oxides[nutrient];
    const perThousand = table[nutrient][rating];
    const requirement = convert(perThousand, 'lb/1000ft2', 'g/m2');
    book.step({
      label: `${oxide} for the year`,
      formula: table === yearlyRates ? 'general table by rating' : `own table by rating, ${table.region}`,
      numbers: `${rating}: ${figure(perThousand)} lb/1000 ft²`,
      result: requirement,
      unit: 'g/m2',
      source: table.source,
    });
    const cap = perApplication ?? convert(table.perApplication, 'lb/1000ft2', 'g/m2');
    const applications = Math.ceil(requirement / cap - 1e-9);
    if (applications > 1)
      book.cap(
        `At most ${figure(convert(cap, 'g/m2', 'lb/1000ft2'))} lb/1000 ft² (${figure(cap)} g/m²) of ${oxide} at once: ${applications} applications.`,
        table.source,
      );
    if (nutrient === 'p' && requirement > 0)
      book.warn('Many places restrict phosphorus by law: check the local rule before buying.');
    return { requirement, applications };
  },
});
