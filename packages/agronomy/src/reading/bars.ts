import { InputError } from '../calculators/fields.ts';
import { type AnalyteSense, type FieldTest, type Nutrient, analytes } from '../analytes/analytes.ts';
import { type ReportedValue, inOwnUnit } from '../analytes/reported.ts';
import { ratingSufficiency } from '../nutrients/sufficiency.ts';
import {
  type Extractant,
  type Rating,
  type SufficiencySet,
  extractantNames,
  ratings,
} from '../nutrients/sufficiencyTables.ts';
import { garden } from '../nutrients/garden.ts';
import type { Sward } from '../nutrients/sward.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type AdviceSettings, type NamedTarget, targetFor } from '../settings/settings.ts';
import { limitTable } from './limitTable.ts';
import { phDegree } from './degrees.ts';
import type { SoilTest, ZoneFacts } from './zoneFacts.ts';

/** The five words of a reading; pH and organic matter use them too. */
export interface Bar {
  readonly key: 'soilPh' | 'bufferPh' | 'organicMatter' | 'ecPaste' | 'esp' | 'cec' | Nutrient | FieldTest;
  readonly name: string;
  readonly figure: Figure;
  readonly sense: Exclude<AnalyteSense, 'word' | 'ratio' | 'density' | 'temperature'>;
  readonly rating: Rating | null;
  /** Starts of low, medium, high and very high on the bar, in the figure's unit. */
  readonly limits: readonly number[] | null;
  /** What is wanted, low and high. */
  readonly wanted: readonly [number, number] | null;
  readonly words: string;
  /** What of the words is said of this value alone: a detection limit, a table of one's own, a soil that is not known. */
  readonly notes?: string;
  readonly belowDetection: boolean;
  /** The report gave this word and no number: the figure is the middle of its band. */
  readonly word?: Rating;
  /** What the same value would be on sand, where the soil is not known and it matters. */
  readonly onSand?: Rating;
  /** Why there is no rating. */
  readonly unrated?: 'no table' | 'unsuited' | 'detection limit';
  /** The band is among the least certain. */
  readonly uncertain?: boolean;
  /** Words of its own instead of the five, with the one that is wanted; `limits` lie between them. */
  readonly scale?: { readonly words: readonly string[]; readonly wanted: number; readonly at: number };
  /** Something is to be done about it, or known of it before anything is. */
  readonly acts: boolean;
}

/** A bar’s value as a person reads it: "60 ppm", "<5 ppm", "“low”". */
export const tellBar = (
  { sense, figure: { value }, belowDetection, word }: Pick<Bar, 'sense' | 'figure' | 'belowDetection' | 'word'>,
  system: UnitSystem,
): string => (word ? `“${word}”` : `${belowDetection ? '<' : ''}${present(sense, value, system).text}`);

/** "Phosphorus, P" */
export const nutrientName = (nutrient: Nutrient): string => `${analytes[nutrient].name}, ${analytes[nutrient].symbol}`;

const potashWords: Readonly<Record<Rating, string>> = {
  'very low': 'Far short: the grass will answer to it.',
  low: 'Short: add it this year.',
  medium: 'Enough for now: replace what is used.',
  high: 'Plenty: add none.',
  'very high': 'More than plenty: add none for years.',
};

function phosphorusWords(rating: Rating, established: boolean): string {
  if (rating !== 'medium') return potashWords[rating];
  return established
    ? 'Enough for grown turf: add none. Many rules call it no shortage.'
    : 'Enough, save for a little at seeding.';
}

/** Calcium and magnesium come with lime where lime is due; at a good pH magnesium has carriers of its own. */
function baseWords(nutrient: 'ca' | 'mg', rating: Rating, acid: boolean): string {
  if (rating !== 'low' && rating !== 'very low') return 'Enough.';
  if (nutrient === 'ca') return acid ? 'Short: lime brings it.' : 'Short, though the pH is good: watch it.';
  return acid
    ? 'Short: dolomitic lime brings it.'
    : 'Short at a good pH: magnesium sulfate or potassium-magnesium sulfate brings it, not lime.';
}

function traceWords(nutrient: Nutrient, rating: Rating, surface: ZoneFacts['surface'], uncertain: boolean): string {
  if (!isShort(rating)) return uncertain ? 'Enough, by a band that is not certain.' : 'Enough.';
  if (nutrient === 's') return 'Short: a sulfate brings it, such as gypsum or potassium sulfate, and does not acidify.';
  return surface === 'seedbed'
    ? 'Short by a band that is not certain: at the label’s rate, before seeding.'
    : 'Short by a band that is not certain: only where the grass shows it too, at the label’s rate.';
}

export function bandWords([low, high]: readonly number[]): string {
  return `${low?.toFixed(1)}–${high?.toFixed(1)}`;
}

const place = (ph: number, [low, high]: readonly [number, number]): 'below' | 'above' | 'inside' =>
  ph < low - 1e-9 ? 'below' : ph > high + 1e-9 ? 'above' : 'inside';

export function phBar(sward: Sward, { soilPh, phIn }: SoilTest, working: Figure['working']): Bar {
  const { ph: wanted } = sward;
  const [low, high] = wanted;
  const limits = [low - 0.5, low, high, high + 0.5] as const;
  const degree = phDegree(soilPh, wanted);
  const where = place(soilPh, wanted);
  const rating =
    where === 'inside'
      ? 'medium'
      : where === 'below'
        ? soilPh < limits[0] - 1e-9
          ? 'very low'
          : 'low'
        : soilPh > limits[3] + 1e-9
          ? 'very high'
          : 'high';
  const told = soilPh.toFixed(1);
  const band = `${sward.possessive} ${bandWords(wanted)}`;
  const salt = phIn !== undefined && phIn !== 'water' ? ' Measured in salt and converted.' : '';
  const words =
    where === 'inside'
      ? `pH ${told} is inside ${band}.${salt}`
      : `pH ${told} is ${degree === 'small' ? 'a little ' : degree === 'severe' ? 'far ' : ''}${where} ${band}.${salt}`;
  const book = new WorkingBook();
  book.include(working);
  book.step({
    label: `Soil pH against ${sward.main ? 'the grass' : sward.label}`,
    formula: 'low ≤ pH ≤ high needs no correction',
    numbers: `${bandWords(wanted)}; test ${told}`,
    result: where,
    unit: '',
    source: sward.main ? 'Grass table: Carrow, Waddington & Rieke (2001) and general extension ranges' : garden.source,
  });
  for (const note of sward.notes) book.warn(note);
  return {
    key: 'soilPh',
    name: 'Soil pH',
    figure: { value: soilPh, working: book.entries },
    sense: 'ph',
    rating,
    limits,
    wanted,
    words,
    belowDetection: false,
    acts: rating !== 'medium',
  };
}

/** What the ground is, which decides how much organic matter it wants. */
export function groundKind({ surface, soilGroup }: ZoneFacts): 'lawn' | 'sand' | 'fine turf' {
  return surface === 'fine turf' ? 'fine turf' : soilGroup === 'sand' ? 'sand' : 'lawn';
}

const kindNames = { lawn: 'a lawn soil', sand: 'sand', 'fine turf': 'fine turf and a sand rootzone' } as const;

export function organicBar(
  value: number,
  zone: ZoneFacts,
  { targets }: Pick<AdviceSettings, 'targets'>,
  before: Figure['working'] = [],
): Bar {
  const kind = groundKind(zone);
  const limits = limitTable.organicMatter[kind];
  const rating = ratings[limits.filter((limit) => value >= limit - 1e-9).length]!;
  const book = new WorkingBook();
  book.include(before);
  book.step({
    label: `Organic matter of ${kindNames[kind]}`,
    formula: 'very low | low | wanted | high | very high, each from its lower limit',
    numbers: `${limits.join(' | ')} %; test ${figure(value)}`,
    result: rating,
    unit: '',
    source: limitTable.source,
  });
  const wanted = [limits[1]!, limits[2]!] as const;
  const organicSoil = value >= limitTable.organicMatter.organicSoilFrom - 1e-9;
  const words =
    kind === 'fine turf'
      ? {
          'very low': `Little, but fine turf on sand wants no more than ${wanted[0]}–${wanted[1]} %: the sward builds it.`,
          low: `A little under the ${wanted[0]}–${wanted[1]} % that fine turf wants: the sward builds it.`,
          medium: `As fine turf wants it, ${wanted[0]}–${wanted[1]} %.`,
          high: `More than the ${wanted[0]}–${wanted[1]} % that fine turf wants: topdress with sand.`,
          'very high': 'A sponge in the top: core it and dilute it with sand.',
        }[rating]
      : {
          'very low': 'Starved: holds little water, nutrients or life.',
          low: 'Poor: build it with compost over years.',
          medium: 'Several percent, as wanted.',
          high: 'Plenty: it feeds nitrogen of its own.',
          'very high': organicSoil
            ? 'An organic soil: it feeds much nitrogen, may lie wet, and its acidity is mostly harmless.'
            : 'Rich: it feeds nitrogen of its own, and no more is wanted.',
        }[rating];
  const target = organicTarget(zone, targets);
  const short = target !== undefined && value < target.value - 1e-9;
  const told = target ? ` ${short ? 'Below' : 'At'} the ${target.value} % that “${target.name}” wants.` : '';
  return {
    key: 'organicMatter',
    name: 'Organic matter',
    figure: { value, working: book.entries },
    sense: 'percent',
    rating,
    limits,
    wanted,
    words: `${words}${told}`,
    ...(told === '' ? {} : { notes: told.trim() }),
    belowDetection: false,
    acts: isShort(rating) || short,
  };
}

/** The organic matter that somebody wants here by name; a sponge is never built on fine turf. */
export function organicTarget(zone: ZoneFacts, targets: readonly NamedTarget[]): NamedTarget | undefined {
  return groundKind(zone) === 'fine turf' ? undefined : targetFor(targets, 'organicMatter', zone.grass);
}

/** What a rating's word stands for on its bar: the middle of its band, a tenth over the last limit, half of the first. */
function middleOf(rating: Rating, limits: readonly number[]): number {
  const at = ratings.indexOf(rating);
  const [low, high] = [limits[at - 1] ?? 0, limits[at]];
  return high === undefined ? low * 1.1 : (low + high) / 2;
}

/** A nutrient of which the report gives a word and no number: read as the middle of that band, and said so. */
function wordBar(
  nutrient: Nutrient,
  reported: ReportedValue & { readonly rated: Rating },
  ...[zone, test, soil]: NutrientGround
): Bar {
  const { rated, ...plain } = reported;
  const any = nutrientBar(nutrient, { ...plain, value: 1, unit: 'mg/kg', basis: 'element' }, zone, test, soil);
  if (!any.limits)
    return {
      ...any,
      ...{ figure: { value: 0, working: [] }, word: rated },
      words: `The report calls it ${rated}, and gives no number. ${any.words}`,
    };
  const value = middleOf(rated, any.limits);
  const bar = nutrientBar(nutrient, { ...plain, value, unit: 'mg/kg', basis: 'element' }, zone, test, soil);
  const book = new WorkingBook();
  book.step({
    label: `${analytes[nutrient].symbol} by the report’s word`,
    formula: `middle of “${rated}” by this extractant`,
    numbers: `limits ${any.limits.map((limit) => figure(limit)).join(', ')} mg/kg`,
    result: value,
    unit: 'mg/kg',
  });
  const said = `The report says “${rated}” and gives no number: read as the middle of that band. Ask the laboratory for the number.`;
  return {
    ...bar,
    ...{ word: rated, figure: { value, working: book.entries }, rating: rated },
    words: `${bar.words} ${said}`,
    notes: [bar.notes, said].filter(Boolean).join(' '),
  };
}

type NutrientGround = readonly [
  zone: ZoneFacts,
  test: SoilTest,
  soil: { readonly acid: boolean; readonly carbonate: boolean; readonly bands: readonly SufficiencySet[] },
];

const isShort = (rating: Rating): boolean => rating === 'low' || rating === 'very low';

export function nutrientBar(
  nutrient: Nutrient,
  reported: ReportedValue,
  zone: ZoneFacts,
  test: SoilTest,
  soil: { readonly acid: boolean; readonly carbonate: boolean; readonly bands: readonly SufficiencySet[] },
): Bar {
  if (reported.rated) return wordBar(nutrient, { ...reported, rated: reported.rated }, zone, test, soil);
  const element = inOwnUnit(nutrient, reported);
  const extractantUsed = (reported.method as Extractant | undefined) ?? test.extractant;
  const shared = {
    key: nutrient,
    name: nutrientName(nutrient),
    sense: 'concentration',
    belowDetection: reported.belowDetection ?? false,
  } as const;
  const { symbol } = analytes[nutrient];
  const own = soil.bands.find(
    ({ extractant, rows }) => extractant === extractantUsed && rows.some((row) => row.nutrient === nutrient),
  );
  if (zone.garden)
    return {
      ...shared,
      figure: element,
      rating: null,
      limits: null,
      wanted: null,
      acts: false,
      unrated: 'no table',
      words: `Not rated: the bands held here are of turf. What the crop wants of ${symbol} is in the laboratory’s own advice.`,
    };
  const rate = (soilGroup: ZoneFacts['soilGroup']) =>
    ratingSufficiency({
      nutrient,
      extractant: extractantUsed,
      value: reported.belowDetection ? `<${element.value}` : element.value,
      soilGroup,
      soilPh: test.soilPh,
      freeCarbonate: soil.carbonate,
      ...(own ? { table: own } : {}),
    });
  try {
    const { result, working } = rate(zone.soilGroup);
    if (reported.aboveRange && result.rating !== 'high' && result.rating !== 'very high')
      throw new InputError('value', `was given as above ${element.value}; wanted a number, or one above medium`);
    const tested = { value: element.value, working: [...element.working, ...working] };
    const extractant = extractantNames[extractantUsed];
    if (!result.suited)
      return {
        ...shared,
        figure: tested,
        rating: null,
        limits: null,
        wanted: null,
        acts: false,
        unrated: 'unsuited',
        words: `Not rated: ${extractant} misreads ${symbol} ${soil.carbonate && (nutrient === 'ca' || nutrient === 'mg') ? 'in a soil with free carbonate' : `at pH ${test.soilPh.toFixed(1)}`}.${nutrient === 'p' ? ` Ask for ${test.soilPh > 7 ? 'Olsen' : 'Mehlich-3 or Bray'} P: no phosphate is rated on this one.` : ''}`,
      };
    const established = zone.surface !== 'seedbed';
    const words =
      nutrient === 'ca' || nutrient === 'mg'
        ? baseWords(nutrient, result.rating, soil.acid)
        : nutrient === 'p'
          ? phosphorusWords(result.rating, established)
          : nutrient === 'k'
            ? potashWords[result.rating]
            : traceWords(nutrient, result.rating, zone.surface, result.uncertain);
    const onSand = zone.soilGroup === undefined ? rate('sand').result.rating : undefined;
    const doubt =
      onSand !== undefined && onSand !== result.rating
        ? ` Soil not known, read as loam: on sand it would be ${onSand}.`
        : '';
    const orLower =
      result.orLower && result.rating !== 'very low'
        ? ' Below detection: this or lower.'
        : reported.aboveRange
          ? ' Above what the method reads: this or more.'
          : '';
    const notes = `${orLower}${doubt}${own ? ` By the table of ${own.region}.` : ''}`;
    return {
      ...shared,
      figure: tested,
      rating: result.rating,
      limits: result.limits,
      wanted: result.band,
      acts: isShort(result.rating),
      ...(result.uncertain ? { uncertain: true } : {}),
      words: `${words}${notes}`,
      ...(notes === '' ? {} : { notes: notes.trim() }),
      ...(doubt === '' ? {} : { onSand: onSand! }),
    };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const vague = error.field === 'value';
    return {
      ...shared,
      figure: element,
      rating: null,
      limits: null,
      wanted: null,
      acts: false,
      unrated: vague ? 'detection limit' : 'no table',
      words: vague
        ? reported.aboveRange
          ? `Not rated: above ${Number(element.value.toPrecision(3))} ppm may be enough or not. Ask the laboratory to dilute it and read it again.`
          : `Not rated: below ${Number(element.value.toPrecision(3))} ppm may be short or not. Ask the laboratory for a lower detection limit.`
        : `Not rated: no table for ${symbol} by ${extractantNames[extractantUsed]} is held here, and extractants are not converted into one another.`,
    };
  }
}
