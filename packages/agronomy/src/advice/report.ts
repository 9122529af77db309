import { lightOf } from '../reading/light.ts';
import { sinceSampleOf } from '../ledger/ledger.ts';
import { surfaces } from '../ground/surfaces.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import {
  type Field,
  type Fields,
  InputError,
  type Values,
  choice,
  optional,
  quantity,
  readFields,
  shown,
} from '../calculators/fields.ts';
import { flag, group, listOf, series, text } from '../calculators/structures.ts';
import { bufferMethods } from '../lab/buffers.ts';
import { type Analyte, type LabUnit, analyteKeys, analytes, nutrients, soilAnalytes } from '../analytes/analytes.ts';
import { type ReportedValue, type ReportedValues, unitsFor } from '../analytes/reported.ts';
import { correctionRules } from '../nutrients/correction.ts';
import { findGrass, grassField } from '../nutrients/grasses.ts';
import { shades } from '../nutrients/nitrogenTables.ts';
import { extractantField } from '../nutrients/sufficiencyTables.ts';
import { soilTestOf } from '../reading/soilTest.ts';
import { type Product, purposes } from '../materials/product.ts';
import { type FieldMeasurements, type SoilTest, type ZoneFacts } from '../reading/zoneFacts.ts';
import { type AdviceSettings, defaultSettings, schools } from '../settings/settings.ts';
import { QuantityError, splitNumber } from '../units/quantity.ts';
import { UnitError, convert, parseUnit, sameDimension } from '../units/unit.ts';

const DAY = /^\d{4}(-\d{2}(-\d{2})?)?$/;
const day = (): Field<string, false> => ({
  description: 'a day, 2026-09-01, or 2026-09 or 2026 where no more is known',
  optional: false,
  shape: { kind: 'text' },
  read(raw, path) {
    if (typeof raw !== 'string' || !DAY.test(raw) || !Number.isFinite(Date.parse(raw)))
      throw new InputError(path, `was given ${shown(raw)}; wanted a day such as 2026-09-01`);
    return raw;
  },
});

const bufferAliases = { 'moore-sikora': 'adams-evans' } as const;

const zoneFields = {
  name: optional(text()),
  area: quantity('m2', { above: 0, max: 10_000_000 }),
  grass: optional(grassField()),
  mix: optional(
    listOf({ grass: grassField(), share: quantity('%', { above: 0, max: 100 }) }, 'grasses', { min: 1, max: 12 }),
  ),
  surface: choice(surfaces, { 'sand green': 'fine turf', established: 'turf' }),
  intensity: optional(choice(['low', 'medium', 'high'])),
  shade: optional(
    choice(shades, { sun: 'full sun', full: 'full sun', none: 'full sun', 'part shade': 'part', 'deep shade': 'deep' }),
  ),
  sunHours: optional(quantity('h', { min: 0, max: 24 })),
  clippings: optional(choice(['returned', 'removed'])),
  soilGroup: optional(choice(soilGroups)),
  aimPh: optional(quantity('pH', { min: 4, max: 9 })),
  aimReason: optional(text(400)),
  slope: optional(quantity('%', { min: 0, max: 200 })),
  lie: optional(choice(['slope', 'flat', 'hollow'])),
  seaside: optional(flag()),
};

/** A value: a number in the analyte’s own unit, a text with its unit, or below detection. */
function reportedValue(analyte: Analyte, raw: unknown, path: string): ReportedValue {
  const [own = ''] = unitsFor(analyte);
  const [min, max] = analytes[analyte].range;
  const plain = (value: unknown): number => quantity(own, { min, max }).read(value, path);
  if (typeof raw === 'number') return { value: plain(raw), unit: own, basis: 'element' };
  const wanted = `a number in ${own || 'its plain unit'}, a text with its unit such as "40 ${unitsFor(analyte).at(-1) ?? ''}", or "<27"`;
  if (typeof raw !== 'string') throw new InputError(path, `was given ${shown(raw)}; wanted ${wanted}`);
  const below = /^\s*(?:<|less than)\s*/i.exec(raw);
  const number = splitNumber(below ? raw.slice(below[0].length) : raw);
  if (!number || number.value < 0) throw new InputError(path, `was given ${shown(raw)}; wanted ${wanted}`);
  const detection = below ? { belowDetection: true } : {};
  if (number.rest === '') return { value: plain(number.value), unit: own, basis: 'element', ...detection };
  for (const unit of unitsFor(analyte).filter((known): known is Exclude<LabUnit, '' | 'pH' | 'mg/100g'> =>
    ['mg/kg', 'cmol/kg', 'lb/acre', 'kg/ha', '%', 'dS/m', 'g/cm3'].includes(known),
  )) {
    try {
      if (!sameDimension(parseUnit(number.rest), parseUnit(unit))) continue;
      return { value: convert(number.value, number.rest, unit), unit, basis: 'element', ...detection };
    } catch (error) {
      if (!(error instanceof UnitError) && !(error instanceof QuantityError)) throw error;
    }
  }
  throw new InputError(path, `was given ${shown(raw)}; wanted ${wanted}`);
}

const testFields = {
  depth: quantity('cm', { above: 0, max: 60 }),
  extractant: optional(extractantField()),
  soilPh: quantity('pH', { min: 2.5, max: 11, why: 'no soil reads outside it' }),
  phIn: optional(choice(['water', 'salt', 'CaCl2'])),
  buffer: optional(
    group({
      method: choice(bufferMethods, bufferAliases),
      ph: quantity('pH', { min: 2.5, max: 9 }),
      limeFactor: optional(quantity('', { min: 1, max: 2 })),
    }),
  ),
  organicMatter: optional(quantity('%', { min: 0, max: 100 })),
  values: optional({
    description:
      '{analyte: number in its own unit, or text with its unit, or "<27"}; ec stands for the saturated paste, dS/m',
    optional: false,
    shape: { kind: 'json' },
    read: (raw: unknown) => raw as Readonly<Record<string, unknown>>,
  }),
  sampledOn: optional(day()),
};

const measurementKinds: Readonly<Record<string, readonly [keyof FieldMeasurements, Field<number | string>]>> = {
  'percolation.slowest': ['percolationSlowest', quantity('mm/h', { min: 0, max: 5000 })],
  'percolation.overall': ['percolationOverall', quantity('mm/h', { min: 0, max: 5000 })],
  probeStop: ['probeStop', quantity('cm', { min: 0, max: 200 })],
  thatch: ['thatch', quantity('cm', { min: 0, max: 50 })],
  rootDepth: ['rootDepth', quantity('cm', { min: 0, max: 200 })],
  carbonate: ['carbonate', quantity('%', { min: 0, max: 100 })],
  fizz: ['fizz', choice(['none', 'weak', 'strong'])],
  waterDrop: ['waterDrop', quantity('s', { min: 0, max: 100_000 })],
};

const appliedFields = {
  kind: text(60),
  on: day(),
  rate: optional(quantity('g/m2', { min: 0, max: 100_000 })),
  cce: optional(quantity('%', { above: 0, max: 180 })),
};

const settingFields = {
  school: optional(choice(schools)),
  correct: optional(choice(correctionRules)),
  phosphorusRule: optional(choice(['shortage', 'none'])),
  units: optional(choice(['us', 'metric'])),
};

const percent = () => optional(quantity('%', { min: 0, max: 100 }));
const productFields = {
  name: text(),
  purpose: optional(choice(purposes)),
  analysis: optional(
    group({ n: percent(), p2o5: percent(), k2o: percent(), ca: percent(), mg: percent(), s: percent(), fe: percent() }),
  ),
  /** % of the nitrogen. */
  slow: optional(quantity('%', { min: 0, max: 100 })),
  solubleN: optional(quantity('%', { min: 0, max: 100 })),
  lime: optional(
    group({
      cce: quantity('%', { above: 0, max: 180 }),
      passing8: quantity('%', { min: 0, max: 100 }),
      passing20: quantity('%', { min: 0, max: 100 }),
      passing60: quantity('%', { min: 0, max: 100 }),
      moisture: optional(quantity('%', { min: 0, max: 60 })),
      magnesium: optional(flag()),
      caustic: optional(flag()),
    }),
  ),
  bagMass: quantity('kg', { above: 0, max: 2000 }),
  bagPrice: optional(quantity('$', { min: 0, max: 100_000 })),
};

/** A whole report, as {@link readReport} understands it. */
export interface Report {
  readonly zone: ZoneFacts;
  readonly test?: SoilTest | undefined;
  readonly settings: AdviceSettings;
  readonly system: 'us' | 'metric';
  /** Nothing where the generic catalogue is to serve. */
  readonly products?: readonly Product[] | undefined;
  /** The day of the advice. */
  readonly on: string;
}

const list = { min: 0, max: 100 } as const;
const reportFields = {
  zone: group(zoneFields),
  test: optional(group(testFields)),
  measurements: optional(
    listOf(
      {
        kind: text(60),
        value: { description: 'a value', optional: false, shape: { kind: 'json' }, read: (raw) => raw },
      },
      'measurements',
      list,
    ),
  ),
  signs: optional(series(text(200), 'signs', list)),
  applied: optional(listOf(appliedFields, 'applications', list)),
  settings: optional(group(settingFields)),
  products: optional(listOf(productFields, 'products', { min: 0, max: 200 })),
  on: optional(day()),
} satisfies Fields;

function readMeasurements(given: ReadonlyArray<{ readonly kind: string; readonly value: unknown }>): FieldMeasurements {
  return Object.fromEntries(
    given.map(({ kind, value }, index) => {
      const known = measurementKinds[kind];
      if (!known)
        throw new InputError(
          `measurements.${index}.kind`,
          `was given "${kind}"; known are ${Object.keys(measurementKinds).join(', ')}`,
        );
      const [name, field] = known;
      return [name, field.read(value, `measurements.${index}.value`)];
    }),
  );
}

/** Short names that reports are written with. */
const aliases: Readonly<Record<string, Analyte>> = { ec: 'ecPaste', nitrate: 'nitrateN', ammonium: 'ammoniumN' };
/** Values have fields of their own for these. */
const elsewhere: ReadonlySet<Analyte> = new Set(['soilPh', 'saltPh', 'calciumChloridePh', 'bufferPh', 'organicMatter']);
const known = soilAnalytes.filter((key) => !elsewhere.has(key));

function readValues(raw: unknown): ReportedValues {
  if (raw === undefined) return {};
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    throw new InputError('test.values', `was given ${shown(raw)}; wanted an object of analytes`);
  const read: Partial<Record<Analyte, ReportedValue>> = {};
  for (const [name, value] of Object.entries(raw)) {
    const path = `test.values.${name}`;
    const plain = name.toLowerCase();
    const key = aliases[plain] ?? analyteKeys.find((analyte) => analyte.toLowerCase() === plain);
    if (key === undefined || !known.includes(key))
      throw new InputError(
        path,
        `is not an analyte read here; known are ${[...known, ...Object.keys(aliases)].join(', ')}`,
      );
    read[key] = reportedValue(key, value, path);
  }
  return read;
}

/** The test as a laboratory would have reported it. */
function readTest({
  values: raw,
  soilPh,
  phIn,
  buffer,
  organicMatter,
  ...more
}: Values<typeof testFields>): SoilTest | undefined {
  const plain = (value: number, unit: LabUnit): ReportedValue => ({ value, unit, basis: 'element' });
  const values: ReportedValues = {
    ...readValues(raw),
    [phIn === 'salt' ? 'saltPh' : phIn === 'CaCl2' ? 'calciumChloridePh' : 'soilPh']: plain(soilPh, 'pH'),
    ...(buffer ? { bufferPh: plain(buffer.ph, 'pH') } : {}),
    ...(organicMatter === undefined ? {} : { organicMatter: plain(organicMatter, '%') }),
  };
  if (more.extractant === undefined && nutrients.some((nutrient) => values[nutrient]))
    throw new InputError('test.extractant', 'was given nothing; wanted the extractant that the values are by');
  return soilTestOf({
    ...more,
    values,
    extractant: more.extractant ?? 'mehlich-3',
    bufferMethod: buffer?.method,
    limeFactor: buffer?.limeFactor,
  });
}

function readProduct(
  { analysis, lime, slow, solubleN, purpose, ...rest }: Values<typeof productFields>,
  index: number,
): Product {
  const { n = 0, p2o5 = 0, k2o = 0 } = analysis ?? {};
  return {
    id: `${index}`,
    name: rest.name,
    purpose,
    grade: {
      ...Object.fromEntries(Object.entries(analysis ?? {}).filter(([, value]) => value !== undefined)),
      n,
      p2o5,
      k2o,
    },
    slowRelease: slow ?? (solubleN === undefined ? 0 : 100 - solubleN),
    ...(lime
      ? {
          lime: {
            ...lime,
            moisture: lime.moisture ?? 0,
            magnesium: lime.magnesium ?? false,
            caustic: lime.caustic ?? false,
          },
        }
      : {}),
    bagMass: rest.bagMass,
    bagPrice: rest.bagPrice ?? null,
  };
}

/**
 * Read a whole report: a zone, its test, what was measured on the ground, and the practice's settings.
 *
 * @throws {InputError} naming the full dotted path; unknown names are refused.
 */
export function readReport(raw: unknown): Report {
  const {
    zone,
    test,
    measurements = [],
    signs,
    applied,
    settings = {} as never,
    products,
    on,
  } = readFields(reportFields, raw);
  if (!zone.grass && !zone.mix) throw new InputError('zone.grass', 'was given nothing; wanted a grass, or a mix');
  const main = zone.mix?.reduce((most, part) => (part.share > most.share ? part : most)).grass;
  const shares = zone.mix?.reduce((sum, { share }) => sum + share, 0) ?? 100;
  if (Math.abs(shares - 100) > 1 + 1e-9)
    throw new InputError('zone.mix', `has shares that add to ${shares} %; wanted 100 ± 1`);
  const sampled = test?.sampledOn?.slice(0, 4);
  const { units, ...chosen } = settings;
  return {
    zone: {
      ...zone,
      name: zone.name ?? 'Zone',
      grass: findGrass(zone.grass ?? main!).name,
      intensity: zone.intensity ?? 'medium',
      ...lightOf(zone.shade ?? 'full sun', zone.sunHours, zone.grass ?? main),
      clippings: zone.clippings ?? 'removed',
      measured: readMeasurements(measurements),
      signs,
      applied,
      ...(applied ? { sinceTest: sinceSampleOf(applied, test?.sampledOn) } : {}),
    },
    ...(test ? { test: readTest(test) } : {}),
    settings: {
      ...defaultSettings,
      ...Object.fromEntries(Object.entries(chosen).filter(([, value]) => value !== undefined)),
    },
    system: units ?? 'us',
    products: products?.map(readProduct),
    on: on ?? `${sampled ?? '2026'}-09-01`,
  };
}
