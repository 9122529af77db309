import { type Nutrient, nutrientSymbol, nutrients } from '../analytes/analytes.ts';
import { soilGroups, type SoilGroup } from '../soil/soilGroups.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity, soilPhField } from '../calculators/fields.ts';
import { detected, flag } from '../calculators/structures.ts';
import { findGrass, grassField } from './grasses.ts';
import { type WorkingBook, figure } from '../working/working.ts';
import { convert } from '../units/unit.ts';
import {
  type Extractant,
  type SufficiencyRow,
  type SufficiencySet,
  type YearlyRates,
  conversions,
  extractantField,
  extractantNames,
  limitsOf,
  printedLimits,
  ratings,
  readSufficiencySet,
  readYearlyRates,
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

/** pH above which a manganese test means less, and by how much its band rises there. Our step, the least certain. */
const MANGANESE = { above: 7, factor: 1.5 } as const;

function scaledToPh(row: SufficiencyRow, soilPh: number | undefined, book: WorkingBook): SufficiencyRow {
  if (row.nutrient !== 'mn' || soilPh === undefined || soilPh <= MANGANESE.above) return row;
  const scaled = (limit: number): number => limit * MANGANESE.factor;
  book.warn(
    `Above pH ${MANGANESE.above} the band of Mn counts ${MANGANESE.factor} times: our own step, the least certain.`,
  );
  return {
    ...row,
    medium: [scaled(row.medium[0]), scaled(row.medium[1])],
    ...(row.veryLowBelow === undefined ? {} : { veryLowBelow: scaled(row.veryLowBelow) }),
    ...(row.veryHighFrom === undefined ? {} : { veryHighFrom: scaled(row.veryHighFrom) }),
  };
}

/**
 * Rate a soil test by sufficiency. Bands printed in whole numbers hold what rounds to their ends; those with decimals
 * are half-open, [low, high). Below detection (`"<27"`) is rated as the band just below, and that or lower.
 *
 * @param nutrient p, k, ca, …; `extractant` of the laboratory; `value` mg/kg of the element, or `"<"` and the detection limit; `soilGroup` where the
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
    value: detected('mg/kg', { min: 0, max: 1_000_000 }),
    soilGroup: optional(choice(soilGroups)),
    soilPh: optional(soilPhField()),
    /** Whether the soil holds free carbonate, which dissolves into an acid extract. */
    freeCarbonate: optional(flag()),
    conversion: optional(choice(conversions.conversions.map(({ name }) => name))),
    table: optional({
      description: 'own table: source, basis, region, date, extractant and rows as in sufficiency.json',
      optional: false,
      shape: { kind: 'json' },
      read: readSufficiencySet,
    }),
  },
  outputs: {
    rating: 'very low, low, medium, high or very high',
    band: '[low, high] mg/kg',
    limits: '[low, medium, high, very high] mg/kg',
    suited: 'true or false: whether the extractant suits the soil',
    orLower: 'true where the value was below detection',
    uncertain: 'true where the band is among the least certain',
  },
  compute({ soilGroup, soilPh, freeCarbonate, conversion, table, value: reported, ...rest }, book) {
    const { value: amount, below } = reported;
    const given = { ...rest, value: amount };
    const { nutrient, extractant, value } = conversion === undefined ? given : converted(given, conversion, book);
    const set = findSet(nutrient, extractant, table);
    const [published, soils] = findRow(set, nutrient, soilGroup);
    const row = scaledToPh(published, soilPh, book);
    const limits = limitsOf(row);
    const printed = printedLimits(row);
    if (below && value > printed[1] * (1 + 1e-9))
      throw new InputError(
        'value',
        `was given "<${figure(value)}"; that limit lies above the foot of medium, ${figure(printed[1])} mg/kg, and says nothing of a shortage: ask the laboratory for a lower detection limit`,
      );
    const rating =
      ratings[(below ? printed : limits).filter((limit) => (below ? limit < value : value >= limit)).length]!;
    if (below) book.warn(`Below detection: rated as the band just below ${figure(value)} mg/kg, or lower.`);
    book.step({
      label: `${nutrientSymbol(nutrient)} by ${extractantNames[extractant]}${soils}`,
      formula: 'very low | low | medium | high | very high, each from its lower limit',
      numbers: `${limits.map((limit) => figure(limit)).join(' | ')} mg/kg; test ${below ? '<' : ''}${figure(value)}`,
      result: rating,
      unit: '',
      source: `${set.source} (${set.region})`,
    });
    if (row.veryLowBelow === undefined)
      book.warn('The source gives no very low for this: below half of the bottom of medium is used.');
    if (soils !== '' && soilGroup === undefined)
      book.warn(`No soil group was given: the band of ${soils.slice(2)} is used; another group needs its own.`);
    const [lowest, highest] = set.notDoubted?.includes(nutrient) ? [0, 14] : (set.suitsPh ?? [0, 14]);
    const byCarbonate = set.doubtedWithCarbonate?.includes(nutrient) ?? false;
    const suited = byCarbonate
      ? freeCarbonate !== true
      : soilPh === undefined || (soilPh >= lowest && soilPh <= highest);
    if (!suited && byCarbonate)
      book.warn(
        `Free carbonate dissolves into the ${extractantNames[extractant]} extract: ${nutrientSymbol(nutrient)} reads too high.`,
      );
    else if (!suited && soilPh !== undefined)
      book.warn(
        `${extractantNames[extractant]} was made for soils of pH ${soilPh < lowest ? `${lowest} and above` : `up to ${highest}`}: at ${figure(soilPh)} it misleads${soilPh > highest ? ', since carbonate spends its acid' : ''}. Ask for a test that suits the soil.`,
      );
    if (row.uncertain)
      book.warn(
        `Micronutrient bands are the least certain of all: look at the grass and a tissue test too.${nutrient === 'mn' ? ' Manganese is less available as the pH rises: the same test means less.' : ''}`,
      );
    return { rating, band: row.medium, limits, suited, orLower: below, uncertain: row.uncertain ?? false };
  },
});

/** What a grass of that middle nitrogen gets of the rates; 1 where the table or the grass says nothing. */
function grassFactor({ middlingNitrogen, grassFactor: ends }: YearlyRates, middle: number | undefined): number {
  if (middle === undefined || middlingNitrogen === undefined) return 1;
  const [low, high] = ends ?? [0, Infinity];
  return Math.min(high, Math.max(low, middle / middlingNitrogen));
}

/**
 * P₂O₅ or K₂O for the year from a rating, by the general table or the state's own.
 *
 * @param nutrient p or k; `rating`; `established` (phosphate at medium is for the establishing only); `grass`, whose
 *   nitrogen range scales the rates of a grass of middling need; `perApplication` g/m², that of the table when left out; `table` rates by rating of
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
    established: defaulted(flag(), true),
    grass: optional(grassField()),
    /** Middle of the nitrogen range of a mix, lb/1000 ft², instead of one grass’s. */
    middleNitrogen: optional(quantity('lb/1000ft2', { min: 0, max: 12 })),
    perApplication: optional(quantity('g/m2', { above: 0 })),
    table: optional({
      description: 'own table: source, basis, region, date, perApplication, p and k as in yearly-rates.json',
      optional: false,
      shape: { kind: 'json' },
      read: readYearlyRates,
    }),
  },
  outputs: { requirement: 'g/m2 of the oxide', applications: 'number' },
  compute({ nutrient, rating, established, grass, middleNitrogen, perApplication, table = yearlyRates }, book) {
    const oxide = oxides[nutrient];
    const rates = (nutrient === 'p' && !established && table.pEstablishing) || table[nutrient];
    const perThousand = rates[rating];
    const base = convert(perThousand, 'lb/1000ft2', 'g/m2');
    const range = grass === undefined ? undefined : findGrass(grass).nitrogen;
    const middle = middleNitrogen ?? (range && (range[0] + range[1]) / 2);
    const factor = grassFactor(table, middle);
    const requirement = base * factor;
    book.step({
      label: `${oxide} for the year`,
      formula: table === yearlyRates ? 'general table by rating' : `own table by rating, ${table.region}`,
      numbers: `${rating}: ${figure(perThousand)} lb/1000 ft²`,
      result: base,
      unit: 'g/m2',
      source: table.source,
    });
    if (middle !== undefined && table.middlingNitrogen !== undefined && base > 0)
      book.step({
        label: `For ${grass === undefined ? 'this mix' : findGrass(grass).label}`,
        formula: `rate × middle of its nitrogen range / ${figure(table.middlingNitrogen)} lb/1000 ft², held within ${table.grassFactor?.join(' and ') ?? ''}`,
        numbers: `${figure(base)} g/m² × ${figure(factor)}`,
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
