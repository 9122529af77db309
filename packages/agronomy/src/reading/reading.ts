import { InputError } from '../calculators/fields.ts';
import { type ReportedValue, type PanelNutrient, panel, toElement } from '../lab/analytes.ts';
import { type BufferMethod, bufferNames } from '../lab/buffers.ts';
import { questionPlausibility } from '../lab/plausible.ts';
import { findGrass } from '../nutrients/grasses.ts';
import { ratingSufficiency } from '../nutrients/sufficiency.ts';
import {
  type Extractant,
  type Rating,
  type SoilGroup,
  extractantNames,
  nutrientSymbol,
} from '../nutrients/sufficiencyTables.ts';
import { type Figure, WorkingBook } from '../working/working.ts';

/** What is known of a zone that bears on reading its test and setting its rates. */
export interface ZoneFacts {
  readonly name: string;
  /** m², less beds, drives and the like. */
  readonly area: number;
  readonly grass: string;
  readonly surface: 'turf' | 'fine turf' | 'seedbed';
  readonly intensity: 'low' | 'medium' | 'high';
  readonly shade: 'full sun' | 'part' | 'deep';
  readonly clippings: 'returned' | 'removed';
  readonly soilGroup?: SoilGroup | undefined;
  /** The advisor's own aim; the grass's when absent. */
  readonly aimPh?: number | undefined;
}

/** A laboratory's result for one zone. */
export interface SoilTest {
  readonly soilPh: number;
  readonly buffer?: { readonly method: BufferMethod; readonly ph: number } | undefined;
  readonly extractant: Extractant;
  /** cm */
  readonly depth: number;
  /** % */
  readonly organicMatter?: number | undefined;
  readonly nutrients: Readonly<Partial<Record<PanelNutrient, ReportedValue>>>;
}

/** The five words of a reading; pH and organic matter use them too. */
export interface Bar {
  readonly key: 'soilPh' | 'organicMatter' | PanelNutrient;
  readonly name: string;
  readonly figure: Figure;
  readonly sense: 'ph' | 'percent' | 'concentration';
  readonly rating: Rating | null;
  /** Starts of low, medium, high and very high on the bar, in the figure's unit. */
  readonly limits: readonly number[] | null;
  /** What is wanted, low and high. */
  readonly wanted: readonly [number, number] | null;
  readonly words: string;
  readonly belowDetection: boolean;
}

export interface Limitation {
  /** 3 acts on everything else, 1 can wait. */
  readonly severity: 1 | 2 | 3;
  readonly what: string;
  readonly evidence: string;
}

export interface Reading {
  readonly headline: string;
  readonly bars: readonly Bar[];
  readonly buffer: string;
  /** What limits the zone, most first. */
  readonly limitations: readonly Limitation[];
  readonly notMeasured: readonly string[];
  readonly questions: readonly string[];
}

const nutrientNames: Readonly<Record<PanelNutrient, string>> = {
  p: 'Phosphorus, P',
  k: 'Potassium, K',
  ca: 'Calcium, Ca',
  mg: 'Magnesium, Mg',
};

const ratingWords: Readonly<Record<Rating, string>> = {
  'very low': 'Far short: the grass will answer to it.',
  low: 'Short: add it this year.',
  medium: 'Enough for now: replace what is used.',
  high: 'Plenty: add none.',
  'very high': 'More than plenty: add none for years.',
};

/** Calcium and magnesium come with lime, not with the year's fertilizer. */
function baseWords(nutrient: 'ca' | 'mg', rating: Rating): string {
  if (rating !== 'low' && rating !== 'very low') return 'Enough.';
  return nutrient === 'ca'
    ? 'Short: lime brings it where lime is due.'
    : 'Short: dolomitic lime brings it where lime is due.';
}

/** Possessive of a grass name inside a sentence. */
export function grassPossessive(grass: string): string {
  return `${findGrass(grass).label}’s`;
}

function band([low, high]: readonly number[]): string {
  return `${low?.toFixed(1)}–${high?.toFixed(1)}`;
}

function phBar(zone: ZoneFacts, test: SoilTest): Bar {
  const { ph: wanted } = findGrass(zone.grass);
  const [low, high] = wanted;
  const limits = [low - 0.5, low, high, high + 0.5] as const;
  const rating = (['very low', 'low', 'medium', 'high', 'very high'] as const)[
    [test.soilPh >= limits[0], test.soilPh >= low, test.soilPh > high, test.soilPh > limits[3]].filter(Boolean).length
  ]!;
  const place = test.soilPh < low ? 'below' : test.soilPh > high ? 'above' : 'inside';
  const words = `pH ${test.soilPh.toFixed(1)} is ${place} ${grassPossessive(zone.grass)} ${band(wanted)}.`;
  const book = new WorkingBook();
  book.step({
    label: 'Soil pH against the grass',
    formula: 'low ≤ pH ≤ high needs no correction',
    numbers: `${band(wanted)}; test ${test.soilPh.toFixed(1)}`,
    result: place,
    unit: '',
    source: 'Grass table: Carrow, Waddington & Rieke (2001) and general extension ranges',
  });
  return {
    key: 'soilPh',
    name: 'Soil pH',
    figure: { value: test.soilPh, working: book.entries },
    sense: 'ph',
    rating,
    limits,
    wanted,
    words,
    belowDetection: false,
  };
}

/** Under 2 % starved, under 3 % poor, 3–8 wanted, above 12 an organic soil. */
const ORGANIC_LIMITS = [2, 3, 8, 12] as const;

function organicBar(value: number): Bar {
  const rating = (['very low', 'low', 'medium', 'high', 'very high'] as const)[
    ORGANIC_LIMITS.filter((limit) => value >= limit).length
  ]!;
  const book = new WorkingBook();
  book.step({
    label: 'Organic matter',
    formula: 'very low | low | wanted | high | very high, each from its lower limit',
    numbers: `${ORGANIC_LIMITS.join(' | ')} %; test ${value}`,
    result: rating,
    unit: '',
    source: 'General extension guidance: under about 3 % a lawn soil holds little water, nutrients or life',
  });
  const words = {
    'very low': 'Starved: holds little water, nutrients or life.',
    low: 'Poor: build it with compost over years.',
    medium: 'Several percent, as wanted.',
    high: 'Rich: it feeds nitrogen of its own.',
    'very high': 'An organic soil: it feeds much nitrogen and may lie wet.',
  }[rating];
  return {
    key: 'organicMatter',
    name: 'Organic matter',
    figure: { value, working: book.entries },
    sense: 'percent',
    rating,
    limits: ORGANIC_LIMITS,
    wanted: [3, 8],
    words,
    belowDetection: false,
  };
}

function nutrientBar(nutrient: PanelNutrient, reported: ReportedValue, zone: ZoneFacts, test: SoilTest): Bar {
  const element = toElement(nutrient, reported);
  const shared = {
    key: nutrient,
    name: nutrientNames[nutrient],
    sense: 'concentration',
    belowDetection: reported.belowDetection ?? false,
  } as const;
  try {
    const { result, working } = ratingSufficiency({
      nutrient,
      extractant: test.extractant,
      value: element.value,
      soilGroup: zone.soilGroup,
      soilPh: test.soilPh,
    });
    const words =
      nutrient === 'ca' || nutrient === 'mg' ? baseWords(nutrient, result.rating) : ratingWords[result.rating];
    return {
      ...shared,
      figure: { value: element.value, working: [...element.working, ...working] },
      rating: result.rating,
      limits: result.limits,
      wanted: result.band,
      words: result.suited
        ? words
        : `${words} ${extractantNames[test.extractant]} misleads at pH ${test.soilPh.toFixed(1)}: see the working.`,
    };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return {
      ...shared,
      figure: element,
      rating: null,
      limits: null,
      wanted: null,
      words: `Not rated: no table for ${nutrientSymbol(nutrient)} by ${extractantNames[test.extractant]} is held here, and extractants are not converted into one another.`,
    };
  }
}

const phLimits = {
  low: 'Acid: aluminium turns toxic, phosphorus is tied up, microbes slow and moss gains.',
  high: 'Alkaline: iron and manganese are locked up.',
};

function limitations(bars: readonly Bar[]): Limitation[] {
  const found: Limitation[] = [];
  for (const bar of bars) {
    const short = bar.rating === 'very low' || bar.rating === 'low';
    const extreme = bar.rating === 'very low' || bar.rating === 'very high';
    if (bar.key === 'soilPh' && bar.rating !== 'medium') {
      found.push({ severity: extreme ? 3 : 2, what: short ? phLimits.low : phLimits.high, evidence: bar.words });
    } else if (bar.key === 'organicMatter' && short) {
      found.push({
        severity: extreme ? 3 : 2,
        what: `Organic matter is ${bar.rating}.`,
        evidence: bar.words,
      });
    } else if (short && (bar.key === 'p' || bar.key === 'k' || bar.key === 'mg')) {
      found.push({ severity: extreme ? 2 : 1, what: `${bar.name} is ${bar.rating}.`, evidence: bar.words });
    }
  }
  return found.sort((a, b) => b.severity - a.severity);
}

/** What a soil test means for the grass that grows in the zone. */
export function readZone(zone: ZoneFacts, test: SoilTest): Reading {
  const bars = [phBar(zone, test)];
  if (test.organicMatter !== undefined) bars.push(organicBar(test.organicMatter));
  for (const nutrient of panel) {
    const reported = test.nutrients[nutrient];
    if (reported) bars.push(nutrientBar(nutrient, reported, zone, test));
  }
  const found = limitations(bars);
  const missing = [
    ...(test.buffer ? [] : ['Buffer pH: without it no lime rate can be given']),
    ...(test.organicMatter === undefined ? ['Organic matter'] : []),
    ...panel.filter((nutrient) => !test.nutrients[nutrient]).map((nutrient) => nutrientNames[nutrient]),
    'Drainage: a soil that does not drain is not fixed with fertilizer',
    'Compaction',
  ];
  const questions = bars.flatMap((bar) =>
    bar.key === 'soilPh' ? [] : (questionPlausibility(bar.key, bar.figure.value) ?? []),
  );
  return {
    headline: found[0] ? found[0].what : `Nothing on this report limits ${findGrass(zone.grass).label}.`,
    bars,
    buffer: test.buffer
      ? `${bufferNames[test.buffer.method]} buffer pH ${test.buffer.ph.toFixed(1)}: how hard the soil resists change. It sets the lime rate; soil pH alone does not.`
      : 'No buffer pH was measured.',
    limitations: found,
    notMeasured: missing,
    questions,
  };
}
