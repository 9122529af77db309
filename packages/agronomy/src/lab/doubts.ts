import { type Analyte, analyteKeys, analytes, isNutrient } from '../analytes/analytes.ts';
import { type ReportedValue, type ReportedValues, inOwnUnit, isNumber, unitWord } from '../analytes/reported.ts';
import { questionPlausibility } from '../analytes/plausible.ts';
import type { Extractant } from '../nutrients/sufficiencyTables.ts';
import { figure } from '../working/working.ts';
import { type BufferMethod, bufferNames, bufferRange } from './buffers.ts';
import { notComparable } from './comparable.ts';
import { doubtLimits } from './doubtLimits.ts';

/** One sample as it was read, or as it was tested before. */
export interface SampleRead {
  readonly values: ReportedValues;
  readonly extractant: Extractant | null;
  /** cm */
  readonly depth?: number | undefined;
  readonly on: string | null;
}

/** Something that looks wrong, with the reason; a person decides. */
export interface Doubt {
  readonly key: 'plausible' | 'unit' | 'last' | 'buffer' | 'exchange' | 'carbon' | 'texture' | 'exchanged';
  /** Nothing where it is of the whole sample. */
  readonly analyte: Analyte | null;
  readonly words: string;
  /** The sample is not imported before somebody accepts it. */
  readonly grave: boolean;
}

const own = (analyte: Analyte, value: ReportedValue): number => inOwnUnit(analyte, value).value;
const plain = (value: ReportedValue | undefined): value is ReportedValue => value !== undefined && isNumber(value);
const named = (analyte: Analyte): string =>
  analytes[analyte].sense === 'concentration' ? analytes[analyte].symbol : analytes[analyte].name;
const told = (analyte: Analyte, value: number): string =>
  `${figure(value)} ${unitWord(analytes[analyte].units[0]!)}`.trim();

/** An earlier value that can be laid beside a later one, and why not where it cannot. */
export function lastOf(
  analyte: Analyte,
  sample: SampleRead,
  earlier: readonly SampleRead[],
): { readonly value: ReportedValue; readonly on: string | null; readonly apart: string | undefined } | undefined {
  const value = sample.values[analyte];
  const found = earlier.flatMap((before) => {
    const old = before.values[analyte];
    if (!value || !old) return [];
    const taken = (of: SampleRead, one: ReportedValue) => ({
      ...{ analyte, value: one, on: of.on, depthTo: of.depth },
      extractant: of.extractant ?? undefined,
    });
    return [{ value: old, on: before.on, apart: notComparable(taken(before, old), taken(sample, value)) }];
  });
  return found.find(({ apart }) => apart === undefined) ?? found[0];
}

/** What a ratio of two values would be, were one in another unit. */
const slips: ReadonlyArray<readonly [factor: number, words: string, of: (analyte: Analyte) => boolean]> = [
  [2, 'Is the column in lb/acre (twice the ppm)?', (analyte) => analytes[analyte].units.includes('lb/acre')],
  [0.5, 'Was a value in ppm read as lb/acre?', (analyte) => analytes[analyte].units.includes('lb/acre')],
  [10, 'Is a decimal lost, or a value in ppm read as mg/100 g?', () => true],
  [0.1, 'Is the column in mg/100 g (a tenth of the ppm)?', (analyte) => analytes[analyte].sense === 'concentration'],
  [2.2914, 'Is it P₂O₅ instead of P?', (analyte) => analyte === 'p'],
  [1 / 2.2914, 'Is it P, read as P₂O₅?', (analyte) => analyte === 'p'],
  [1 / 1.724, 'Is organic carbon meant? Organic matter is 1.72 times the carbon.', (analyte) => analyte === 'organicMatter'],
]; // prettier-ignore

interface Compared {
  readonly analyte: Analyte;
  readonly value: number;
  readonly before: number;
  readonly on: string | null;
  readonly ratio: number;
}

/** Values beside the last comparable ones, as ratios; a pH is told by its step. */
function comparedOf(sample: SampleRead, earlier: readonly SampleRead[]): Compared[] {
  return analyteKeys.flatMap((analyte) => {
    const value = sample.values[analyte];
    const last = lastOf(analyte, sample, earlier);
    if (!plain(value) || !last || last.apart !== undefined || !plain(last.value)) return [];
    const [now, before] = [own(analyte, value), own(analyte, last.value)];
    return before > 0 ? [{ analyte, value: now, before, on: last.on, ratio: now / before }] : [];
  });
}

/** A unit that is wrong shows in several nutrients at once, by the same factor. */
function unitDoubts(compared: readonly Compared[]): Doubt[] {
  const like = (ratio: number, factor: number): boolean => Math.abs(ratio / factor - 1) <= doubtLimits.alike;
  const masses = compared.filter(({ analyte }) => isNutrient(analyte));
  const many = slips.find(
    ([factor, , of]) => masses.filter(({ analyte, ratio }) => of(analyte) && like(ratio, factor)).length >= 2,
  );
  return compared.flatMap(({ analyte, value, before, on, ratio }): Doubt[] => {
    if (analytes[analyte].sense === 'ph') return [];
    const of = (slip: (typeof slips)[number]): boolean => slip[2](analyte) && like(ratio, slip[0]);
    const slip = many && of(many) ? many : slips.find((one) => one[0] !== 2 && one[0] !== 0.5 && of(one));
    if (!slip) return [];
    return [
      {
        key: slip[0] === 1 / 1.724 ? 'carbon' : 'unit',
        analyte,
        words: `${named(analyte)} ${told(analyte, value)} is ${times(ratio)} times the ${told(analyte, before)}${dated(on)}. ${slip[1]}`,
        grave: true,
      },
    ];
  });
}

/** "2.1", "0.52". */
const times = (ratio: number): string => String(Number(ratio.toPrecision(2)));
const dated = (on: string | null): string => (on ? ` of ${on}` : ' of the last test');

function lastDoubts(compared: readonly Compared[], doubted: ReadonlySet<Analyte | null>): Doubt[] {
  return compared.flatMap(({ analyte, value, before, on, ratio }): Doubt[] => {
    if (doubted.has(analyte)) return [];
    if (analytes[analyte].sense === 'ph')
      return Math.abs(value - before) > doubtLimits.phStep
        ? [
            {
              ...{ key: 'last', analyte, grave: true },
              words: `${named(analyte)} ${value.toFixed(1)} was ${before.toFixed(1)}${dated(on)}: more than lime or sulfur usually move a soil between two tests. Is it this zone’s bag, and the right column?`,
            },
          ]
        : [];
    return ratio >= doubtLimits.times || ratio <= 1 / doubtLimits.times
      ? [
          {
            ...{ key: 'last', analyte, grave: true },
            words: `${named(analyte)} ${told(analyte, value)} is ${times(ratio)} times the ${told(analyte, before)}${dated(on)}: check the unit, the column and the bag.`,
          },
        ]
      : [];
  });
}

function ofBuffer({ values: { bufferPh, soilPh } }: SampleRead): Doubt[] {
  if (!bufferPh) return [];
  const method = bufferPh.method as BufferMethod | undefined;
  const range = method && bufferRange(method);
  const name = method && bufferNames[method];
  const doubt = (words: string): Doubt[] => [{ key: 'buffer', analyte: 'bufferPh', words, grave: true }];
  if (range && bufferPh.value > range[1])
    return doubt(
      `Buffer pH ${figure(bufferPh.value)} is above the ${range[1].toFixed(1)} that the ${name} buffer itself has: another method, or another column?`,
    );
  if (soilPh && soilPh.value < 6.5 && bufferPh.value < soilPh.value - 0.05)
    return doubt(
      `Buffer pH ${figure(bufferPh.value)} is below the soil pH ${figure(soilPh.value)}: a buffer raises it. Are the two columns exchanged?`,
    );
  return [];
}

const bases = ['ca', 'mg', 'k', 'na'] as const;
const shares = ['caSaturation', 'mgSaturation', 'kSaturation', 'esp', 'acidSaturation'] as const;

function ofExchange({ values }: SampleRead): Doubt[] {
  const { cec } = values;
  const sum = bases.reduce((total, key) => {
    const value = values[key];
    return total + (plain(value) ? own(key, value) / analytes[key].mgPerCmol! : 0);
  }, 0);
  const doubts: Doubt[] = [];
  if (plain(cec) && sum > own('cec', cec) * doubtLimits.overCec)
    doubts.push({
      ...{ key: 'exchange', analyte: 'cec', grave: false },
      words: `Calcium, magnesium, potassium and sodium together hold ${figure(sum)} meq/100 g, more than the CEC of ${figure(own('cec', cec))}: free lime or salt dissolved into the extract, or a unit is wrong.`,
    });
  const told = shares.flatMap((key) => (plain(values[key]) ? [values[key].value] : []));
  const total = told.reduce((a, b) => a + b, 0);
  if (told.length >= 4 && Math.abs(total - 100) > doubtLimits.shareGap)
    doubts.push({
      ...{ key: 'exchange', analyte: 'baseSaturation', grave: false },
      words: `The shares of the exchange come to ${figure(total)} %, not 100: is one of them in another unit?`,
    });
  return doubts;
}

function ofTexture({ values: { sand, silt, clay } }: SampleRead): Doubt[] {
  if (!plain(sand) || !plain(silt) || !plain(clay)) return [];
  const total = own('sand', sand) + own('silt', silt) + own('clay', clay);
  return Math.abs(total - 100) > doubtLimits.textureGap
    ? [
        {
          ...{ key: 'texture', analyte: 'sand', grave: false },
          words: `Sand, silt and clay come to ${figure(total)} %, not 100: check the three columns.`,
        },
      ]
    : [];
}

/**
 * What looks wrong in a sample, each with its reason.
 *
 * @param earlier tests of the same ground, the newest first.
 */
export function doubtsAbout(sample: SampleRead, earlier: readonly SampleRead[]): Doubt[] {
  const compared = comparedOf(sample, earlier);
  const units = unitDoubts(compared);
  const implausible = analyteKeys.flatMap((analyte): Doubt[] => {
    const value = sample.values[analyte];
    const words =
      value && !value.belowDetection && !value.rated ? questionPlausibility(analyte, own(analyte, value)) : undefined;
    return words ? [{ key: 'plausible', analyte, words, grave: true }] : [];
  }); // prettier-ignore
  const doubted = new Set([...units, ...implausible].map(({ analyte }) => analyte));
  return [
    ...implausible,
    ...units.filter(({ analyte }) => !implausible.some((one) => one.analyte === analyte)),
    ...lastDoubts(compared, doubted),
    ...ofBuffer(sample),
    ...ofExchange(sample),
    ...ofTexture(sample),
  ];
}

/** How unlike two tests are, in standard deviations, by what both have; nothing where they share too little. */
function unlike(one: ReportedValues, other: ReportedValues): number | undefined {
  const { spread, exchanged } = doubtLimits;
  const squares = analyteKeys.flatMap((analyte) => {
    const [a, b] = [one[analyte], other[analyte]];
    if (!plain(a) || !plain(b) || analyte === 'bufferPh') return [];
    const [x, y] = [own(analyte, a), own(analyte, b)];
    if (analytes[analyte].sense === 'ph') return [((x - y) / spread.ph) ** 2];
    return x > 0 && y > 0 ? [(Math.log(x / y) / spread.other) ** 2] : [];
  });
  return squares.length >= exchanged.analytes
    ? squares.reduce((total, square) => total + square, 0) / squares.length
    : undefined;
}

export interface ExchangedPair {
  readonly one: number;
  readonly other: number;
}

/**
 * Samples of one file that fit each other's earlier tests far better than their own: their bags look exchanged.
 *
 * @param samples each with the last test of the ground that its label names.
 * @returns pairs by their places in the list.
 */
export function exchangedPairs(
  samples: ReadonlyArray<{ readonly values: ReportedValues; readonly before: ReportedValues | undefined }>,
): ExchangedPair[] {
  const { apart, better } = doubtLimits.exchanged;
  const pairs: ExchangedPair[] = [];
  samples.forEach(({ values, before }, one) => {
    if (!before) return;
    for (let other = one + 1; other < samples.length; other += 1) {
      const there = samples[other]!;
      if (!there.before) continue;
      const told = [unlike(values, before), unlike(there.values, there.before)];
      const turned = [unlike(values, there.before), unlike(there.values, before)];
      if ([...told, ...turned].includes(undefined)) continue;
      const sum = (list: ReadonlyArray<number | undefined>): number => (list[0] ?? 0) + (list[1] ?? 0);
      if (sum(told) > apart && sum(turned) < sum(told) * better) pairs.push({ one, other });
    }
  });
  return pairs;
}
