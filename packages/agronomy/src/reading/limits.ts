import { capital } from '../units/capital.ts';
import { type Nutrient, analyteWord, isNutrient, nutrients } from '../analytes/analytes.ts';
import type { Sward } from '../nutrients/sward.ts';
import { allHold, firstThatHolds } from '../rules/engine.ts';
import { dropOf } from '../soil/percolation.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import type { Bar } from './bars.ts';
import { type Degree, degrees, phDegree } from './degrees.ts';
import { type LimitEvidence, type LimitRule, filled, limitRule, limitRules } from './limitRules.ts';
import { limitTable as table } from './limitTable.ts';
import type { FieldMeasurements, SoilTest, ZoneFacts } from './zoneFacts.ts';

/** What can limit a lawn, in the order in which equals are told: water and air, salt, light, acidity, the rest. */
const groundKeys = [
  ...['drainage', 'compaction', 'repellent', 'thatch', 'salt', 'sodium', 'shade', 'acid', 'alkaline'],
  'organic matter',
] as const;
/** Nutrients are named as they are; the first four and sulfur lead the trace elements. */
const nutrientOrder: readonly Nutrient[] = [
  ...(['p', 'k', 'mg', 'ca', 's', 'fe'] as const),
  ...nutrients.filter((key) => !['p', 'k', 'mg', 'ca', 's', 'fe'].includes(key)),
];
export const limitKeys: readonly string[] = [...groundKeys, ...nutrientOrder.map(analyteWord)];
/** A key of {@link limitKeys}: `drainage`, `acid`, `potassium`. */
export type LimitKey = string;

export interface Limitation {
  readonly key: LimitKey;
  readonly degree: Degree;
  /** One sentence of the trade. */
  readonly what: string;
  readonly evidence: string;
  /** It rests on what was seen, and on no measurement. */
  readonly seen?: true;
}

/** What is known of a zone that any rule of a limit asks for. */
export function limitEvidence(
  { slope, lie, surface, shade, sunHours, measured = {} }: ZoneFacts,
  sward: Sward,
  test: Pick<SoilTest, 'soilPh'> | undefined,
  bars: readonly Bar[],
): LimitEvidence {
  const bar = (key: Bar['key']): Bar | undefined => bars.find((each) => each.key === key);
  const worded = (key: Bar['key']): string | undefined => {
    const scale = bar(key)?.scale;
    return scale?.words[scale.at];
  };
  const { percolationSlowest: slowest, percolationOverall: overall, probeStop, thatch, waterDrop } = measured;
  return {
    percolation: slowest === undefined ? overall : dropOf(slowest),
    slope,
    lie,
    probeStop,
    thatch,
    waterDrop,
    surface,
    sunShort: sward.main ? sward.main.leastSun - (sunHours ?? table.shadeHours[shade]) : undefined,
    grows: sward.main ? 'grass' : 'garden bed',
    organicSoil: sward.organicSoil ? 'yes' : 'no',
    ph: test?.soilPh,
    bandFoot: (sward.main?.ph ?? sward.ph)[0],
    acidity: test && acidityOf(test.soilPh, sward.ph),
    salt: worded('ecPaste') as LimitEvidence['salt'],
    sodium: worded('esp') as LimitEvidence['sodium'],
    organicRating: bar('organicMatter')?.rating ?? undefined,
    organicShort: shortOf(bar('organicMatter')),
  };
}

/** By how much a value misses the low end of what is wanted. */
const shortOf = (bar: Bar | undefined): number | undefined =>
  bar?.wanted ? bar.wanted[0] - bar.figure.value : undefined;

/** How far a pH lies outside the band, in words; nothing inside it. */
function acidityOf(ph: number, band: readonly [number, number]): LimitEvidence['acidity'] {
  const degree = phDegree(ph, band);
  if (!degree) return undefined;
  const acid = ph < band[0];
  if (degree === 'clear') return acid ? 'acid' : 'alkaline';
  if (degree === 'small') return acid ? 'a little acid' : 'a little alkaline';
  return acid ? 'very acid' : 'very alkaline';
}

/** The value against what is wanted: "60 ppm, where 75 ppm is wanted". */
function shortBy({ sense, figure, wanted, belowDetection, word }: Bar, system: UnitSystem): string {
  if (word) return `“${word}” by the report, without a number.`;
  const told = `${belowDetection ? 'Below ' : ''}${present(sense, figure.value, system).text}`;
  return wanted ? `${told}, where ${present(sense, wanted[0], system).text} is wanted.` : `${told}.`;
}

/** A drop of water in a hole, with the figures that a test hole gives. */
function dropWords(drop: number, system: UnitSystem): string {
  if (drop < 0.5) return 'hardly at all';
  return system === 'us'
    ? `${Number(convert(drop, 'mm/h', 'in/h').toFixed(2))} in/h`
    : `${Number(drop.toPrecision(2))} mm/h`;
}

/** What the sentences of the rules stand open for, in a zone. */
function wordsFor(
  { shade, sunHours, measured = {} }: ZoneFacts,
  sward: Sward,
  known: LimitEvidence,
  bars: readonly Bar[],
  system: UnitSystem,
): Readonly<Record<string, () => string>> {
  const bar = (key: Bar['key']): Bar | undefined => bars.find((each) => each.key === key);
  const depth = (value = 0): string => present('depth', value, system).text;
  const { percolationSlowest: slowest, percolationOverall: overall } = measured;
  const grass = sward.main?.label ?? sward.label;
  const roughly = bar('ecPaste')?.uncertain ?? false;
  return {
    hole: () =>
      `The ${slowest === undefined ? 'test hole drops' : 'slowest layer lets a hole drop'} ${dropWords(known.percolation ?? 0, system)}`,
    pan: () =>
      slowest !== undefined && overall !== undefined && dropOf(slowest) < overall / 2
        ? ': quick over tight, a pan'
        : '',
    probeStop: () => depth(known.probeStop),
    thatch: () => depth(known.thatch),
    waterDrop: () => String(Math.round(known.waterDrop ?? 0)),
    grass: () => grass,
    paste: () =>
      `${roughly ? 'About ' : ''}${bar('ecPaste')?.figure.value.toFixed(1)} dS/m of the saturated paste${roughly ? ', by a general factor' : ''}`,
    stands: () => String(sward.salt[0]),
    esp: () => (bar('esp')?.figure.value ?? 0).toFixed(0),
    sunWanted: () => String(sward.main?.leastSun),
    sunHad: () =>
      sunHours === undefined
        ? `${shade === 'deep' ? 'deep' : 'part'} shade leaves about ${table.shadeHours[shade]}`
        : `${sunHours} were counted`,
    ph: () => (known.ph ?? 0).toFixed(1),
    possessive: () => sward.possessive,
    low: () => sward.ph[0].toFixed(1),
    high: () => sward.ph[1].toFixed(1),
    against: () => bar('soilPh')?.words ?? '',
  };
}

/** A constant of a rule, such as "25.4 mm/h", in the reader's unit. */
function constant(blank: string, system: UnitSystem): string {
  const [value = '', unit] = blank.split(' ');
  return present(unit === 'cm' ? 'depth' : 'rate', Number(value), system).text;
}

/** What a rule finds in what is known. */
function judge(
  { key, cases, adds = [], besides = [] }: LimitRule,
  signs: readonly string[],
  known: LimitEvidence,
  say: (words: string, sign: string | undefined) => string,
): Limitation | undefined {
  const { found, sign } = firstThatHolds(cases, signs, known) ?? {};
  if (!found) return undefined;
  const added = adds.filter(({ when }) => allHold(when, signs, known)).map(({ words }) => ` ${words}`);
  const beside = besides.find(({ when }) => allHold(when, signs, known));
  return {
    key,
    degree: found.severe && allHold(found.severe, signs, known) ? 'severe' : found.degree,
    what: say(`${found.what}${added.join('')}`, sign),
    evidence: say(`${found.evidence}${beside ? ` ${beside.words}` : ''}`, sign),
    ...(sign === undefined ? {} : { seen: true }),
  };
}

/** What limits a zone, most first: by degree, and among equals in the order of {@link limitKeys}. */
export function limitsOfZone(
  zone: ZoneFacts,
  sward: Sward,
  test: Pick<SoilTest, 'soilPh'> | undefined,
  bars: readonly Bar[],
  system: UnitSystem,
): Limitation[] {
  const { signs = [] } = zone;
  const known = limitEvidence(zone, sward, test, bars);
  const shared = wordsFor(zone, sward, known, bars, system);
  const sayOf =
    (bar?: Bar) =>
    (words: string, sign = ''): string =>
      filled(words, (blank) => {
        if (blank === 'sign') return sign.toLowerCase();
        if (blank === 'short') return bar ? shortBy(bar, system) : '';
        if (blank === 'Nutrient') return bar ? capital(analyteWord(bar.key)) : '';
        return shared[blank]?.() ?? constant(blank, system);
      });
  const organic = bars.find(({ key }) => key === 'organicMatter');
  const ofGround = limitRules.limits.flatMap((rule) =>
    rule.key === 'nutrient' ? [] : (judge(rule, signs, known, sayOf(organic)) ?? []),
  );
  const ofNutrients = bars.flatMap((bar) => {
    if (!isNutrient(bar.key) || bar.rating === null) return [];
    const short = judge(
      limitRule('nutrient'),
      [],
      { nutrient: bar.key, rating: bar.rating, surface: zone.surface },
      sayOf(bar),
    );
    return short ? [{ ...short, key: analyteWord(bar.key) }] : [];
  });
  const rank = ({ degree, key }: Limitation): number =>
    (degrees.length - degrees.indexOf(degree)) * limitKeys.length + limitKeys.indexOf(key);
  return [...ofGround, ...ofNutrients].sort((a, b) => rank(a) - rank(b));
}

/** Drainage or compaction that rules before feeding. */
export function groundFirst(limits: readonly Limitation[]): Limitation | undefined {
  return limits.find(({ key, degree }) => (key === 'drainage' || key === 'compaction') && degree === 'severe');
}

/** What was measured of structure, for asking after what was not. */
export function knowsDrainage({ percolationSlowest, percolationOverall }: FieldMeasurements = {}): boolean {
  return percolationSlowest !== undefined || percolationOverall !== undefined;
}
