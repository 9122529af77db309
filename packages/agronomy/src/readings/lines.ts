import { type Analyte, isNutrient } from '../analytes/analytes.ts';
import { inOwnUnit, presentValue } from '../analytes/reported.ts';
import { dropOf } from '../soil/percolation.ts';
import { bufferNames } from '../lab/buffers.ts';
import { type Taken, notComparable } from '../lab/comparable.ts';
import { monthOf } from '../units/monthOf.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import type { Bar } from '../reading/bars.ts';
import { meaningOf } from './meanings.ts';
import { type Ground, type Reading, readTested } from '../reading/reading.ts';
import { structureBars } from './structureBars.ts';
import { compareTests, errorOfTest, errorWorked, testErrors, testedOf } from '../reading/testDifference.ts';
import { type TestWeight, testWeights } from './testWeight.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';

/** Parts of a reading, in the order in which they are read. */
export const readingGroups = [
  'acidity',
  'structure and water',
  'organic matter and exchange',
  'nutrients',
  'salts',
] as const;
export type ReadingGroup = (typeof readingGroups)[number];

/** A value of before, laid beside the one that is read. */
export interface EarlierValue {
  readonly on: string | null;
  readonly value: number;
  readonly told: string;
  /** Why it cannot be laid beside the newest; nothing where it can. */
  readonly apart: string | null;
  /** Whether the newest differs by more than chance; nothing where nobody can say. */
  readonly differs: boolean | null;
}

/** How sure a value is: nine of ten such tests of the same ground lie within. */
export interface ValueSpread {
  readonly low: number;
  readonly high: number;
  /** "± 0.3" */
  readonly told: string;
  readonly working: Working;
}

/** What a value would be called on the other side of the border that it lies close to. */
export interface Border {
  readonly word: string;
  /** Of a hundred. */
  readonly chance: number;
  readonly words: string;
}

/** One analyte as it is read: its bar, how sure it is, what it means here, and what it was before. */
export interface ReadingLine {
  readonly bar: Bar;
  readonly group: ReadingGroup;
  /** One sentence of the trade: what it means for this grass, use and ground. */
  readonly says: string;
  /** What is said of the number itself beside; nothing where the sentence says it. */
  readonly beside: string | null;
  readonly spread: ValueSpread | null;
  readonly border: Border | null;
  readonly earlier: readonly EarlierValue[];
  /** "From 5.6 in March 2023: risen by more than chance." */
  readonly change: string | null;
}

/** A value of a zone with the sample it came of. */
export interface TakenValue extends Taken {
  readonly cores?: number | undefined;
}

/** What the lines of a zone are read from. */
export interface LinesInput {
  readonly zone: ZoneFacts;
  readonly test: SoilTest | undefined;
  readonly reading: Reading;
  readonly ground: Ground | undefined;
  readonly settings: AdviceSettings;
  readonly system: UnitSystem;
  /** Of the composite; nothing where it was not told. */
  readonly cores: number | undefined;
  readonly weight: TestWeight;
  /** Every value of the zone, the newest test’s too, oldest first; superseded ones left out. */
  readonly values: readonly TakenValue[];
}

const groupOf = (key: Bar['key']): ReadingGroup =>
  key === 'soilPh' || key === 'bufferPh'
    ? 'acidity'
    : key === 'organicMatter' || key === 'cec'
      ? 'organic matter and exchange'
      : isNutrient(key)
        ? 'nutrients'
        : key === 'ecPaste' || key === 'esp'
          ? 'salts'
          : 'structure and water';

/** The value of a bar out of a measurement: drainage is told as the drop of a whole hole. */
function shown(
  analyte: Analyte,
  one: TakenValue,
  system: UnitSystem,
): { readonly value: number; readonly told: string } {
  const { value } = inOwnUnit(analyte, one.value);
  if (analyte !== 'percolationSlowest') return { value, told: presentValue(analyte, one.value, system) };
  const drop = { ...one.value, value: dropOf(value), unit: 'mm/h' } as const;
  return { value: drop.value, told: presentValue(analyte, drop, system) };
}

/** One of the five words of a scale, or the bar’s own; nothing for a bar without either. */
export const wordOf = ({ scale, rating }: Pick<Bar, 'scale' | 'rating'>): string | null =>
  scale ? scale.words[scale.at]! : rating;

/** Chance in a hundred that a normal value lies beyond so many deviations (Abramowitz & Stegun 1964, 26.2.17). */
function beyond(deviations: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(deviations));
  const density = Math.exp((-deviations * deviations) / 2) / Math.sqrt(2 * Math.PI);
  const terms = [0.31938153, -0.356563782, 1.781477937, -1.821255978, 1.330274429];
  return 100 * density * terms.reduce((sum, term, power) => sum + term * t ** (power + 1), 0);
}

/** sd of a value, counted with what makes its test weigh less; nothing of what has no table. */
function errorOf(bar: Bar, cores: number | undefined, { factor }: TestWeight) {
  const tested = testedOf(bar.key, { value: bar.figure.value, cores });
  if (!tested || bar.belowDetection || bar.word) return undefined;
  const plain = errorOfTest(tested);
  const book = new WorkingBook();
  book.step({
    ...{ label: 'Error of the value', ...errorWorked(tested) },
    result: plain,
    unit: '',
    source: testErrors.source,
  });
  if (cores === undefined) book.warn('How many cores the bag held was not told: it is counted as one.');
  if (factor > 1)
    book.step({
      label: 'Counted larger, since the test weighs less',
      formula: 'error × factor',
      numbers: `${figure(plain)} × ${figure(factor)}`,
      result: plain * factor,
      unit: '',
      source: testWeights.source,
    });
  return { sd: plain * factor, book };
}

function spreadOf(bar: Bar, sd: number, book: WorkingBook, system: UnitSystem): ValueSpread {
  const half = testErrors.deviations * sd;
  book.step({
    label: 'Nine of ten such tests lie within',
    formula: `value ± ${testErrors.deviations} × error`,
    numbers: `${figure(bar.figure.value)} ± ${figure(half)}`,
    result: half,
    unit: '',
    source: testErrors.source,
  });
  const { value } = bar.figure;
  return {
    low: Math.max(0, value - half),
    high: value + half,
    told: `± ${present(bar.sense, half, system).text}`,
    working: book.entries,
  };
}

/** "about 3 in 10" */
const inTen = (chance: number): string => `about ${Math.max(1, Math.round(chance / 10))} in 10`;

/** "inside the band" of a pH across its end. */
const phWord = ({ rating }: Bar): string => (rating === 'medium' ? 'inside the band' : 'outside the band');

/** What the value would be called across the nearest border, where chance may put it there. */
function borderOf(
  bar: Bar,
  says: string,
  sd: number,
  across: (value: number) => { readonly bar: Bar; readonly says: string } | undefined,
): Border | null {
  if (!bar.limits || sd <= 0) return null;
  const { value } = bar.figure;
  const word = wordOf(bar);
  // Of a pH only the ends of the band decide anything.
  const candidates = (bar.key === 'soilPh' ? (bar.wanted ?? []) : bar.limits)
    .map((limit) => ({ limit, chance: beyond((limit - value) / sd) }))
    .filter(({ chance }) => chance >= testWeights.borderFrom)
    .sort((one, other) => other.chance - one.chance);
  for (const { limit, chance } of candidates) {
    const step = Math.max(1e-6, Math.abs(limit) * 1e-4);
    const other = across(value >= limit ? limit - step : limit + step);
    const said = other && (bar.key === 'soilPh' ? phWord(other.bar) : wordOf(other.bar));
    if (!other || !said || said === word) continue;
    const then = other.says === says ? 'That would change nothing.' : `Then: ${other.says}`;
    return { word: said, chance, words: `Near the border: ${inTen(chance)} that it is ${said}. ${then}` };
  }
  return null;
}

/** The test with one value other than it was read. */
function withValue(test: SoilTest, key: Bar['key'], value: number): SoilTest | undefined {
  if (key === 'soilPh') return { ...test, soilPh: value, phIn: 'water' };
  if (key === 'organicMatter') return { ...test, organicMatter: value };
  if (key === 'cec' || key === 'esp') return { ...test, [key]: value };
  if (key === 'ecPaste') return { ...test, ec: value, ecDiluted: undefined };
  if (!isNutrient(key)) return undefined;
  const reported = test.nutrients[key];
  return (
    reported && {
      ...test,
      nutrients: { ...test.nutrients, [key]: { ...reported, value, unit: 'mg/kg', basis: 'element' } },
    }
  );
}

function bufferBar({ buffer }: SoilTest, words: string): Bar[] {
  if (!buffer) return [];
  return [
    {
      ...{ key: 'bufferPh', name: `Buffer pH, ${bufferNames[buffer.method]}`, sense: 'ph', words, rating: null },
      ...{ limits: null, wanted: null, belowDetection: false, acts: false },
      figure: { value: buffer.ph, working: [] },
    },
  ];
}

/** Values of before, newest first, with what of them differs from the newest. */
function earlierOf(bar: Bar, { zone, values, system, cores }: LinesInput, on: string | undefined): EarlierValue[] {
  const analyte =
    bar.key === 'percolationSlowest' && zone.measured?.percolationSlowest === undefined
      ? 'percolationOverall'
      : bar.key;
  const own = values.filter((one) => one.analyte === analyte);
  const newest = own.findLast((one) => one.on === (on ?? null)) ?? own.at(-1);
  if (!newest) return [];
  return own
    .filter((one) => one !== newest && (one.on ?? '') <= (newest.on ?? '9'))
    .reverse()
    .map((one): EarlierValue => {
      const apart = notComparable(newest, one) ?? null;
      const { value, told } = shown(analyte, one, system);
      const now = shown(analyte, newest, system).value;
      const compared =
        apart === null ? compareTests(analyte, { value, cores: one.cores }, { value: now, cores }) : undefined;
      return {
        ...{ on: one.on, value, told, apart },
        differs: compared?.result.differs ?? null,
      };
    });
}

function changeOf(bar: Bar, [last]: readonly EarlierValue[], system: UnitSystem): string | null {
  if (!last) return null;
  const when = `${last.told} in ${monthOf(last.on)}`;
  if (last.apart !== null) return `Before: ${when}, ${last.apart}: not laid side by side.`;
  if (last.differs === null) return `Before: ${when}.`;
  if (!last.differs) return `Before: ${when}. No more than chance between two samples.`;
  const by = present(bar.sense, Math.abs(bar.figure.value - last.value), system).text;
  return `Before: ${when}. ${bar.figure.value > last.value ? 'Risen' : 'Fallen'} by ${by}, more than chance.`;
}

/** Every reading of a zone in its part, with its error, what it means here and what it was before. */
export function readingLines(input: LinesInput): ReadingLine[] {
  const { zone, test, reading, ground, settings, system, cores, weight } = input;
  const [ph, ...rest] = reading.bars;
  const bars = [...(ph ? [ph] : []), ...(test ? bufferBar(test, reading.buffer) : []), ...structureBars(zone), ...rest];
  const lines = bars.map((bar): ReadingLine => {
    const group = groupOf(bar.key);
    const error = errorOf(bar, cores, weight);
    const means = ground ? meaningOf(bar, zone, ground.sward, test) : null;
    const beside = bar.key === 'soilPh' || bar.key === 'bufferPh' ? bar.words : (bar.notes ?? null);
    const across = (value: number) => {
      const turned = test && withValue(test, bar.key, value);
      if (!turned) return undefined;
      const other = readTested(zone, turned, settings, system).reading.bars.find(({ key }) => key === bar.key);
      return other && { bar: other, says: (ground && meaningOf(other, zone, ground.sward, turned)) ?? other.words };
    };
    const earlier = earlierOf(bar, input, test?.sampledOn);
    return {
      ...{ bar, group, earlier },
      says: means ?? bar.words,
      beside: means === null || beside === '' ? null : beside,
      border: error ? borderOf(bar, means ?? bar.words, error.sd, across) : null,
      spread: error ? spreadOf(bar, error.sd, error.book, system) : null,
      change: changeOf(bar, earlier, system),
    };
  });
  return readingGroups.flatMap((group) => lines.filter((line) => line.group === group));
}
