import { capital } from '../units/capital.ts';
import { choice, optional, quantity, readFields } from '../calculators/fields.ts';
import { band, flag, group, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/analytes.json' with { type: 'json' };

/** All that laboratories report in common panels and hands measure on the ground, by what it is about. */
const { source, basis, region, date, ...kinds } = data;
type Kinds = typeof kinds;
export type AnalyteKind = keyof Kinds;
/** Key of an analyte: `soilPh`, `p`, `ecPaste`, `thatch`. */
export type Analyte = { [K in AnalyteKind]: keyof Kinds[K] }[AnalyteKind];
/** Plant nutrients that are rated by bands. */
export type Nutrient = keyof Kinds['nutrients'];
/** What is measured on the ground itself, with a hand of one’s own. */
export type FieldTest = keyof Kinds['field'];

/** What a number is, which decides how it is told; see `present`. */
const senses = [
  ...[
    'ph',
    'percent',
    'concentration',
    'exchange',
    'conductivity',
    'ratio',
    'density',
    'depth',
    'rate',
    'time',
    'temperature',
  ],
  'word',
] as const;
export type AnalyteSense = 'ph' | 'percent' | 'concentration' | 'exchange' | 'conductivity' | 'ratio' | 'density' | 'depth' | 'rate' | 'time' | 'temperature' | 'word'; // prettier-ignore

/** Units that reports come in. `pH` and the empty unit are plain numbers. */
export const labUnits = [
  ...(['mg/kg', 'lb/acre', 'kg/ha', 'cmol/kg', 'mg/100g'] as const),
  ...(['%', 'g/kg', 'dS/m', 'uS/cm', 'g/cm3', 'cm', 'mm/h', 's', 'C', 'pH', ''] as const),
] as const;
export type LabUnit = (typeof labUnits)[number];

const words = () => text(300);
const positive = () => quantity('', { above: 0, max: 1000 });
/** The empty unit stands for a plain number, which `choice` cannot name. */
const unit = {
  description: 'a unit that reports come in',
  optional: false,
  shape: { kind: 'choice', names: labUnits },
  read: (raw: unknown, path: string): LabUnit => (raw === '' ? '' : choice(labUnits.slice(0, -1)).read(raw, path)),
} as const;

const entryFields = {
  name: text(),
  /** Short, for the head of a column. */
  symbol: text(20),
  sense: choice(senses as unknown as readonly AnalyteSense[]),
  /** The first is the one that all values are turned into. */
  units: series(unit, 'units', { min: 1, max: 8 }),
  /** What can be at all, in the first unit. */
  range: band(quantity('', { min: -100, max: 100_000 })),
  /** What lawns usually show, in the first unit: outside it a slip is asked after. */
  plausible: optional(band(quantity('', { above: 0, max: 100_000 }))),
  /** Reported as another compound too, this many times the mass. */
  oxide: optional(group({ name: text(20), factor: positive() })),
  /** mg per cmol of charge. */
  mgPerCmol: optional(positive()),
  /** The panel that must bring it. */
  panel: optional(text()),
  /** Its bands are printed in whole numbers and hold what rounds to their ends. */
  whole: optional(flag()),
  /** What its numbers stand for, where they are words: 0, 1, 2. */
  words: optional(series(text(), 'words', { min: 2, max: 8 })),
  /** What of a header names it, as a regular expression; the first analyte of the file that fits is taken. */
  header: optional(text(400)),
  answers: words(),
  silent: words(),
};

type Fields = typeof entryFields;
export type AnalyteEntry = { readonly [K in keyof Fields]: ReturnType<Fields[K]['read']> } & {
  readonly key: Analyte;
  readonly kind: AnalyteKind;
};

/** Where the numbers of the analytes come from. */
export const analyteSource = readTable('analytes', {}, { source, basis, region, date });

/** In the order of the file, which is the order in which headers are read. */
export const analyteList: readonly AnalyteEntry[] = Object.entries(kinds).flatMap(([kind, entries]) =>
  Object.entries(entries as Readonly<Record<string, { readonly header: string }>>).map(
    ([key, { header, ...entry }]) => ({
      ...readFields(entryFields, header === '' ? entry : { ...entry, header }, `analytes.${key}.`),
      key: key as Analyte,
      kind: kind as AnalyteKind,
    }),
  ),
);

/** Every analyte by its key. */
export const analytes = Object.fromEntries(analyteList.map((entry) => [entry.key, entry])) as Readonly<
  Record<Analyte, AnalyteEntry>
>;

export const analyteKeys: readonly Analyte[] = analyteList.map(({ key }) => key);

/** What a laboratory finds in a bag of soil, in the order in which a report is read: acidity and what is ordered most first. */
export const soilAnalytes: readonly Analyte[] = analyteKeys.filter((key) => analytes[key].kind !== 'field');

const keysOf = <K extends AnalyteKind>(kind: K): ReadonlyArray<keyof Kinds[K] & Analyte> =>
  Object.keys(kinds[kind]) as unknown as ReadonlyArray<keyof Kinds[K] & Analyte>;

export const nutrients: readonly Nutrient[] = keysOf('nutrients');
export const fieldTests: readonly FieldTest[] = keysOf('field');

export const isAnalyte = (key: string): key is Analyte => Object.hasOwn(analytes, key);
export const isNutrient = (key: string): key is Nutrient => Object.hasOwn(kinds.nutrients, key);

/** Kinds in words, for lists to choose from. */
export const analyteKindNames: Readonly<Record<AnalyteKind, string>> = {
  reaction: 'Acidity',
  organic: 'Organic matter',
  exchange: 'Exchange',
  salts: 'Salts',
  ground: 'Carbonate, texture, density',
  nutrients: 'Nutrients',
  elements: 'Nitrogen, sodium, aluminium',
  field: 'On the ground',
};

/** Chemical symbol of a nutrient: `mg` is Mg. Others keep their own. */
export function nutrientSymbol(key: string): string {
  return isAnalyte(key) ? analytes[key].symbol : capital(key);
}

/** "phosphorus": the name inside a sentence. */
export function analyteWord(key: Analyte): string {
  const { name } = analytes[key];
  return /^(EC|pH)/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);
}

/** Where the factors of the oxides come from: "P₂O₅/2P 2.2914" and so on. */
export const OXIDE_SOURCE = `Oxide factors from IUPAC standard atomic weights (${nutrients
  .flatMap((key) => {
    const { symbol, oxide } = analytes[key];
    return oxide ? `${oxide.name}/${oxide.name.startsWith(`${symbol}₂`) ? 2 : ''}${symbol} ${oxide.factor}` : [];
  })
  .join(', ')})`;

/** What a sample can be of. */
export const sampleKinds = ['soil', 'water', 'compost', 'grass'] as const;
export type SampleKind = (typeof sampleKinds)[number];

const readingOrder: readonly AnalyteKind[] = [
  'reaction',
  'nutrients',
  'organic',
  'exchange',
  'salts',
  'elements',
  'ground',
];

/** Soil analytes as a report is read: acidity with water first and its buffer last, nutrients, and what is ordered beside. */
export const sheetOrder: readonly Analyte[] = readingOrder.flatMap((kind) => {
  const own = soilAnalytes.filter((key) => analytes[key].kind === kind);
  return kind === 'reaction' ? own.toReversed() : own;
});

/** What a routine report of a lawn holds. */
export const routineAnalytes = ['soilPh', 'bufferPh', 'p', 'k', 'ca', 'mg', 'organicMatter'] as const satisfies readonly Analyte[]; // prettier-ignore
