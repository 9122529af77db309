import { isWritten } from '../working/numbersOnly.ts';
import { convert } from './unit.ts';

/** What a person reads and types in: one switch for everything. */
export type UnitSystem = 'metric' | 'us';

/** The sense of a number, which decides its unit on screen and how finely it is told. */
export type Sense =
  | 'limeRate'
  | 'nutrientRate'
  | 'productRate'
  | 'area'
  | 'mass'
  | 'depth'
  | 'length'
  | 'spotHeight'
  | 'volume'
  | 'tonnes'
  | 'layer'
  | 'liquid'
  | 'liquidRate'
  | 'flow'
  | 'hours'
  | 'volumePrice'
  | 'concentration'
  | 'ph'
  | 'exchange'
  | 'conductivity'
  | 'ratio'
  | 'density'
  | 'rate'
  | 'time'
  | 'word'
  | 'percent'
  | 'temperature'
  | 'rainfall'
  | 'watering'
  | 'closeCut'
  | 'speed'
  | 'count'
  | 'money';

interface Presentation {
  /** The core's own unit for this sense. */
  readonly si: string;
  readonly metric: { readonly unit: string; readonly label: string; readonly step: number };
  readonly us: { readonly unit: string; readonly label: string; readonly step: number };
}

/** Steps are what a spreader, a scale or a tape can be set to, not what a computer can print. */
const PER_THOUSAND = { unit: 'lb/1000ft2', label: 'lb/1000 ft²' };
const PER_SQUARE_METRE = { unit: 'g/m2', label: 'g/m²' };
const plain = (label: string, step: number) => ({ unit: '', label, step });

const presentations: Readonly<Record<Sense, Presentation>> = {
  limeRate: { si: 'g/m2', metric: { ...PER_SQUARE_METRE, step: 5 }, us: { ...PER_THOUSAND, step: 1 } },
  nutrientRate: { si: 'g/m2', metric: { ...PER_SQUARE_METRE, step: 0.1 }, us: { ...PER_THOUSAND, step: 0.1 } },
  productRate: { si: 'g/m2', metric: { ...PER_SQUARE_METRE, step: 0.5 }, us: { ...PER_THOUSAND, step: 0.1 } },
  area: { si: 'm2', metric: { unit: 'm2', label: 'm²', step: 1 }, us: { unit: 'ft2', label: 'ft²', step: 10 } },
  mass: { si: 'kg', metric: { unit: 'kg', label: 'kg', step: 0.1 }, us: { unit: 'lb', label: 'lb', step: 0.1 } },
  depth: { si: 'cm', metric: { unit: 'cm', label: 'cm', step: 0.5 }, us: { unit: 'in', label: 'in', step: 0.25 } },
  length: { si: 'm', metric: { unit: 'm', label: 'm', step: 0.1 }, us: { unit: 'ft', label: 'ft', step: 0.5 } },
  spotHeight: { si: 'm', metric: { unit: 'm', label: 'm', step: 0.01 }, us: { unit: 'ft', label: 'ft', step: 0.01 } },
  volume: { si: 'm3', metric: { unit: 'm3', label: 'm³', step: 0.1 }, us: { unit: 'yd3', label: 'yd³', step: 0.1 } },
  tonnes: {
    si: 't',
    metric: { unit: 't', label: 't', step: 0.1 },
    us: { unit: 'ton', label: 'tons', step: 0.1 },
  },
  concentration: {
    si: 'mg/kg',
    metric: { unit: 'mg/kg', label: 'mg/kg', step: 1 },
    us: { unit: 'ppm', label: 'ppm', step: 1 },
  },
  layer: { si: 'cm', metric: { unit: 'mm', label: 'mm', step: 1 }, us: { unit: 'in', label: 'in', step: 0.05 } },
  liquid: { si: 'L', metric: { unit: 'L', label: 'L', step: 0.1 }, us: { unit: 'gal', label: 'gal', step: 0.1 } },
  liquidRate: {
    si: 'mL/m2',
    metric: { unit: 'mL/m2', label: 'mL/m²', step: 0.1 },
    us: { unit: 'floz/1000ft2', label: 'fl oz/1000 ft²', step: 0.1 },
  },
  flow: {
    si: 'L/min',
    metric: { unit: 'L/min', label: 'L/min', step: 0.5 },
    us: { unit: 'gal/min', label: 'gal/min', step: 0.1 },
  },
  hours: { si: 'h', metric: { unit: 'h', label: 'h', step: 0.5 }, us: { unit: 'h', label: 'h', step: 0.5 } },
  volumePrice: {
    si: '$/m3',
    metric: { unit: '$/m3', label: '$/m³', step: 0.5 },
    us: { unit: '$/yd3', label: '$/yd³', step: 0.5 },
  },
  ph: { si: '', metric: plain('', 0.1), us: plain('', 0.1) },
  exchange: {
    si: 'cmol/kg',
    metric: { unit: 'cmol/kg', label: 'cmol/kg', step: 0.1 },
    us: { unit: 'meq/100g', label: 'meq/100 g', step: 0.1 },
  },
  conductivity: {
    si: 'dS/m',
    metric: { unit: 'dS/m', label: 'dS/m', step: 0.1 },
    us: { unit: 'dS/m', label: 'dS/m', step: 0.1 },
  },
  ratio: { si: '', metric: plain('', 0.1), us: plain('', 0.1) },
  density: {
    si: 'g/cm3',
    metric: { unit: 'g/cm3', label: 'g/cm³', step: 0.01 },
    us: { unit: 'g/cm3', label: 'g/cm³', step: 0.01 },
  },
  rate: {
    si: 'mm/h',
    metric: { unit: 'mm/h', label: 'mm/h', step: 1 },
    us: { unit: 'in/h', label: 'in/h', step: 0.05 },
  },
  time: { si: 's', metric: { unit: 's', label: 's', step: 1 }, us: { unit: 's', label: 's', step: 1 } },
  word: { si: '', metric: plain('', 1), us: plain('', 1) },
  percent: { si: '%', metric: plain('%', 0.1), us: plain('%', 0.1) },
  temperature: { si: 'C', metric: { unit: 'C', label: '°C', step: 1 }, us: { unit: 'F', label: '°F', step: 1 } },
  rainfall: { si: 'mm', metric: { unit: 'mm', label: 'mm', step: 1 }, us: { unit: 'in', label: 'in', step: 0.1 } },
  watering: { si: 'mm', metric: { unit: 'mm', label: 'mm', step: 0.5 }, us: { unit: 'in', label: 'in', step: 0.05 } },
  closeCut: { si: 'cm', metric: { unit: 'mm', label: 'mm', step: 0.5 }, us: { unit: 'in', label: 'in', step: 0.01 } },
  speed: {
    si: 'km/h',
    metric: { unit: 'km/h', label: 'km/h', step: 1 },
    us: { unit: 'mi/h', label: 'mi/h', step: 1 },
  },
  count: { si: '', metric: plain('', 1), us: plain('', 1) },
  money: { si: '$', metric: plain('$', 0.01), us: plain('$', 0.01) },
};

export interface Presented {
  /** The number in the person's unit, rounded by sense. */
  readonly value: number;
  readonly unit: string;
  /** Number and unit, ready to read: `42 lb/1000 ft²`. */
  readonly text: string;
  /** The number alone: `42`. */
  readonly number: string;
}

function decimals(step: number): number {
  return Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
}

/**
 * Round to a multiple, either to the nearest or up (what must be bought or put
 * down is never rounded below the need).
 */
export function roundTo(value: number, step: number, way: 'nearest' | 'up' = 'nearest'): number {
  const ratio = value / step;
  const whole = way === 'up' ? Math.ceil(ratio - 1e-9) : Math.round(ratio);
  return Number((whole * step).toPrecision(12));
}

/** The unit and step in which a person of this system reads a sense. */
export function unitFor(sense: Sense, system: UnitSystem): { unit: string; label: string; step: number } {
  return presentations[sense][system];
}

/** The core's own unit for a sense. */
export function coreUnit(sense: Sense): string {
  return presentations[sense].si;
}

/** Big numbers drop decimals that nobody can act on; small ones keep two figures. */
function stepFor(value: number, step: number, sense: Sense): number {
  const size = Math.abs(value);
  if ((sense === 'mass' || sense === 'volume' || sense === 'tonnes') && size >= 20) return 1;
  if ((sense === 'productRate' || sense === 'mass' || sense === 'liquid') && size >= 100) return 1;
  if (sense === 'mass' && size < 1) return 0.01;
  if (sense === 'length' && size >= 100) return 1;
  if (sense === 'area' && size < 100) return 0.1;
  // Thatch, a shallow loosening: half an inch is 1.3 cm, not 1.5.
  if (sense === 'depth' && size < (step === 0.5 ? 5 : 1)) return step / 5;
  if (sense === 'nutrientRate' && size < 1) return Math.min(step, 0.05);
  // A thin topdressing is less than the step of a thick one.
  if (sense === 'layer' && size < 2 * step) return step / (step < 1 ? 5 : 10);
  if (sense === 'concentration' && size < 10) return 0.1;
  return step;
}

/** What an amount is told in when it is less than one of its unit, or a tenth of it: below that the number says nothing. */
const smaller: Partial<
  Record<Sense, Readonly<Record<UnitSystem, { readonly below: number; readonly unit: string; readonly label: string }>>>
> = {
  mass: { us: { below: 1, unit: 'oz', label: 'oz' }, metric: { below: 0.1, unit: 'g', label: 'g' } },
  liquid: { us: { below: 1, unit: 'floz', label: 'fl oz' }, metric: { below: 1, unit: 'mL', label: 'mL' } },
  volume: { us: { below: 0.3, unit: 'ft3', label: 'ft³' }, metric: { below: 0.1, unit: 'L', label: 'L' } },
  tonnes: { us: { below: 0.1, unit: 'lb', label: 'lb' }, metric: { below: 0.1, unit: 'kg', label: 'kg' } },
};

/** The step of a small amount: two figures of it, never finer than a hundredth. */
const fineStep = (value: number): number => (value >= 10 ? 1 : value >= 1 ? 0.1 : 0.01);

const formats = new Map<string, Intl.NumberFormat>();

/** Making a formatter costs far more than using one. */
function format(value: number, least: number, most: number): string {
  if (!isWritten()) return '';
  const key = `${least} ${most}`;
  const known =
    formats.get(key) ?? new Intl.NumberFormat('en-US', { minimumFractionDigits: least, maximumFractionDigits: most });
  formats.set(key, known);
  return known.format(value);
}

/**
 * Say a number of the core to a person.
 *
 * @param sense what kind of number it is
 * @param value in the core's unit for that sense ({@link coreUnit})
 * @param currency sign of the money, where it is money
 */
export function present(sense: Sense, value: number, system: UnitSystem, currency = '$'): Presented {
  const usual = presentations[sense][system];
  const own = convert(value, presentations[sense].si, usual.unit === '' ? presentations[sense].si : usual.unit);
  const small = smaller[sense]?.[system];
  const isSmall = small !== undefined && own !== 0 && Math.abs(own) < small.below;
  const { unit, label } = isSmall ? small : usual;
  const converted = isSmall ? convert(own, usual.unit, unit) : own;
  const used = isSmall ? fineStep(Math.abs(converted)) : stepFor(converted, usual.step, sense);
  const rounded = roundTo(converted, used) + 0;
  const places = sense === 'depth' ? undefined : decimals(used);
  const number = format(
    rounded,
    sense === 'ph' || sense === 'money' || sense === 'conductivity' ? (places ?? 0) : 0,
    places ?? 2,
  );
  if (sense === 'money') return { value: rounded, unit: label, number, text: `${before(currency)}${number}` };
  return { value: rounded, unit: label, number, text: label === '' ? number : `${number} ${label}` };
}

/** A number of the core as it stands in a field, which has the usual unit beside it however little it holds. */
export function inField(sense: Sense, value: number, system: UnitSystem): number {
  const { unit, step } = presentations[sense][system];
  const own = convert(value, presentations[sense].si, unit === '' ? presentations[sense].si : unit);
  const small = smaller[sense]?.[system];
  return small && own !== 0 && Math.abs(own) < small.below
    ? Number(own.toPrecision(3))
    : roundTo(own, stepFor(own, step, sense)) + 0;
}

/** The sign of a currency as it stands before an amount: "$", "kr ". */
const before = (currency: string): string => (/[A-Za-z]$/.test(currency) ? `${currency} ` : currency);

/** An amount of money in a sentence or a working, to the cent. */
export function money(amount: number, currency: string): string {
  return `${before(currency)}${amount.toFixed(2)}`;
}

/** The units of working steps, spelt for reading. */
const stepLabels: Readonly<Record<string, string>> = { 'ton/acre': 'short ton/acre' };

/** "kg/m²" of "kg/m2": a length to a power has it raised. */
const spelt = (unit: string): string =>
  stepLabels[unit] ?? unit.replace(/(?<=\b(?:m|cm|dm|mm|ft|yd))[23]\b/g, (power) => (power === '2' ? '²' : '³'));

/**
 * A step of a working as read: four figures and its own unit, and a rate or a
 * mass in the person's unit too when that is another.
 */
export function presentStep(result: number | string, unit: string, system: UnitSystem, currency = '$'): string {
  if (typeof result === 'string') return result;
  if (unit === 'bags' && result === 1) return '1 bag';
  if (unit === '$') return present('money', result, system, currency).text;
  const own = `${format(Number(result.toPrecision(4)), 0, 6)} ${spelt(unit)}`.trim();
  if (system !== 'us' || (unit !== 'g/m2' && unit !== 'kg')) return own;
  const theirs = unitFor(unit === 'kg' ? 'mass' : 'productRate', 'us');
  return `${format(Number(convert(result, unit, theirs.unit).toPrecision(4)), 0, 3)} ${theirs.label} (${own})`;
}

/** A name within a sentence: "coring" of "Coring"; "P₂O₅" and other symbols stay as they are. */
export const inLine = (name: string): string =>
  /^[A-Z][a-z]+(?![\w₀-₉])/.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name;
