/**
 * Units of measurement: a unit expression such as `lb/1000ft2` becomes a scale
 * to coherent SI and a dimension.
 *
 * Exact definitions: NIST Handbook 44 (2024), Appendix C (international foot
 * and avoirdupois pound).
 */

/** Exponents of kilogram, metre, second, kelvin, mole of charge, siemens, currency. */
export type Dimension = readonly [number, number, number, number, number, number, number];

export interface Unit {
  /** Multiply by this (after adding `offset`) to reach coherent SI. */
  readonly scale: number;
  /** Added before scaling; only temperatures have one. */
  readonly offset: number;
  readonly dimension: Dimension;
}

const NONE: Dimension = [0, 0, 0, 0, 0, 0, 0];
const MASS: Dimension = [1, 0, 0, 0, 0, 0, 0];
const LENGTH: Dimension = [0, 1, 0, 0, 0, 0, 0];
const AREA: Dimension = [0, 2, 0, 0, 0, 0, 0];
const VOLUME: Dimension = [0, 3, 0, 0, 0, 0, 0];
const TIME: Dimension = [0, 0, 1, 0, 0, 0, 0];
const TEMPERATURE: Dimension = [0, 0, 0, 1, 0, 0, 0];
const CHARGE: Dimension = [0, 0, 0, 0, 1, 0, 0];
const CONDUCTANCE: Dimension = [0, 0, 0, 0, 0, 1, 0];
const MONEY: Dimension = [0, 0, 0, 0, 0, 0, 1];

const POUND = 0.45359237;
const FOOT = 0.3048;
const DAY = 86_400;

const table: ReadonlyArray<readonly [names: string, scale: number, dimension: Dimension, offset?: number]> = [
  ['kg kilogram kilograms kilo kilos', 1, MASS],
  ['g gram grams', 1e-3, MASS],
  ['mg milligram milligrams', 1e-6, MASS],
  ['t tonne tonnes Mg', 1000, MASS],
  ['lb lbs pound pounds #', POUND, MASS],
  ['oz ounce ounces', POUND / 16, MASS],
  ['ton tons', 2000 * POUND, MASS],
  ['m metre metres meter meters', 1, LENGTH],
  ['cm centimetre centimetres centimeter centimeters', 0.01, LENGTH],
  ['mm millimetre millimetres millimeter millimeters', 0.001, LENGTH],
  ['km kilometre kilometres kilometer kilometers', 1000, LENGTH],
  ['um µm μm', 1e-6, LENGTH],
  ['in inch inches "', FOOT / 12, LENGTH],
  ["ft foot feet '", FOOT, LENGTH],
  ['yd yard yards', 3 * FOOT, LENGTH],
  ['mi mile miles', 5280 * FOOT, LENGTH],
  ['ha hectare hectares', 10_000, AREA],
  ['ac acre acres A', 43_560 * FOOT * FOOT, AREA],
  ['L l litre litres liter liters', 1e-3, VOLUME],
  ['mL ml millilitre millilitres milliliter milliliters', 1e-6, VOLUME],
  ['gal gallon gallons', 3.785411784e-3, VOLUME],
  ['qt quart quarts', 3.785411784e-3 / 4, VOLUME],
  ['cup cups', 3.785411784e-3 / 16, VOLUME],
  ['floz', 3.785411784e-3 / 128, VOLUME],
  ['s sec second seconds', 1, TIME],
  ['min minute minutes', 60, TIME],
  ['h hr hour hours', 3600, TIME],
  ['d day days', DAY, TIME],
  ['week weeks', 7 * DAY, TIME],
  ['month months', (365.25 / 12) * DAY, TIME],
  ['yr year years', 365.25 * DAY, TIME],
  ['K kelvin', 1, TEMPERATURE],
  ['C degC celsius', 1, TEMPERATURE, 273.15],
  ['F degF fahrenheit', 5 / 9, TEMPERATURE, 459.67],
  ['mol', 1, CHARGE],
  ['cmol cmolc', 0.01, CHARGE],
  ['mmol mmolc meq', 0.001, CHARGE],
  ['S siemens', 1, CONDUCTANCE],
  ['dS', 0.1, CONDUCTANCE],
  ['mS mmho', 0.001, CONDUCTANCE],
  ['uS µS μS', 1e-6, CONDUCTANCE],
  ['% percent pct', 0.01, NONE],
  ['ppm', 1e-6, NONE],
  ['$ USD', 1, MONEY],
];

const symbols = new Map<string, Unit>();
for (const [names, scale, dimension, offset = 0] of table) {
  for (const name of names.split(' ')) symbols.set(name, { scale, offset, dimension });
}

/** Every symbol and word that stands for a unit. */
export const unitSymbols: readonly string[] = [...symbols.keys()];

function find(name: string): Unit {
  const unit = symbols.get(name) ?? symbols.get(name.toLowerCase()) ?? symbols.get(name.toUpperCase());
  if (!unit) throw new UnitError(`"${name}" is not a unit known here`);
  return unit;
}

/** A unit expression that cannot be read. */
export class UnitError extends Error {}

/** One spelling for what people and files write: superscripts, "sq ft", "per", "° F". */
function normalise(text: string): string {
  return text
    .trim()
    .replace(/[²₂]/g, '2')
    .replace(/[³₃]/g, '3')
    .replace(/[·⋅×]/g, '*')
    .replace(/⁻¹|\^-1|(?<=[a-z])-1\b/g, '~')
    .replace(/°\s*/g, 'deg')
    .replace(/\bfl\.?\s*oz\b/gi, 'floz')
    .replace(/\b(?:short|us)\s+(tons?)\b/gi, '$1')
    .replace(/\bmetric\s+tons?\b/gi, 't')
    .replace(/\b(?:sq|square)\.?\s*([a-z]+)/gi, '$12')
    .replace(/\b(?:cu|cubic)\.?\s*(?!ps?\b)([a-z]+)/gi, '$13')
    .split(/\bper\b|\//i)
    .map((part) => part.trim())
    .join('/');
}

const cache = new Map<string, Unit>();

/**
 * Read a unit expression: symbols with whole exponents, `*`, `/` and numbers
 * (`lb/1000ft2`, `meq/100g`, `m3/m3`). A space multiplies and binds tighter
 * than `/`. The empty text is the plain number.
 *
 * @throws {UnitError} naming the part that is not a unit.
 */
export function parseUnit(expression: string): Unit {
  const known = cache.get(expression);
  if (known) return known;

  let scale = 1;
  let offset = 0;
  const dimension: number[] = [...NONE];
  const text = normalise(expression);
  text.split('/').forEach((group, index) => {
    const factors = group.match(/[0-9.]+|[A-Za-zµμ$#%'"]+(?:\^?[0-9])?~?/g) ?? [];
    if (factors.join('') !== group.replace(/[\s*]/g, '') || (factors.length === 0 && text !== '')) {
      throw new UnitError(`"${expression.trim()}" is not a unit known here`);
    }
    for (const factor of factors) {
      const divides = index > 0 !== factor.endsWith('~');
      if (/^[0-9.]/.test(factor)) {
        scale *= Number(factor) ** (divides ? -1 : 1);
        continue;
      }
      const [, name = '', power = '1'] = /^([^0-9^~]+)\^?([0-9]?)~?$/.exec(factor) ?? [];
      const unit = find(name);
      const exponent = Number(power || 1) * (divides ? -1 : 1);
      scale *= unit.scale ** exponent;
      if (factors.length === 1 && text === factor && exponent === 1) offset = unit.offset;
      unit.dimension.forEach((value, i) => (dimension[i] = (dimension[i] ?? 0) + value * exponent));
    }
  });
  const unit: Unit = { scale, offset, dimension: dimension as unknown as Dimension };
  cache.set(expression, unit);
  return unit;
}

export function sameDimension(a: Unit, b: Unit): boolean {
  return a.dimension.every((value, i) => value === b.dimension[i]);
}

/** Convert a number between two units of the same dimension. @throws {UnitError} otherwise. */
export function convert(value: number, from: string, to: string): number {
  const source = parseUnit(from);
  const target = parseUnit(to);
  if (!sameDimension(source, target)) throw new UnitError(`${from} cannot become ${to}`);
  if (source.scale === target.scale && source.offset === target.offset) return value;
  return ((value + source.offset) * source.scale) / target.scale - target.offset;
}

const words: ReadonlyArray<readonly [unit: string, words: string]> = [
  ['m', 'a length, such as 8 in or 20 cm'],
  ['m2', 'an area, such as 4000 ft2 or 370 m2'],
  ['m3', 'a volume, such as 3 yd3 or 2.3 m3'],
  ['kg', 'a mass, such as 40 lb or 18 kg'],
  ['kg/m2', 'a mass per area, such as 50 lb/1000ft2 or 245 g/m2'],
  ['kg/m3', 'a density, such as 1.3 g/cm3'],
  ['m/s', 'a speed of water, such as 0.4 in/h or 10 mm/h'],
  ['s', 'a time, such as 30 min'],
  ['K', 'a temperature, such as 65 F or 18 C'],
  ['mol/kg', 'an amount of charge, such as 12 meq/100g'],
  ['S/m', 'a conductivity, such as 2 dS/m'],
  ['%', 'a share, such as 18 ppm or 4 %'],
];

/** What a unit measures, in words with an example, for messages. */
export function describeDimension(unit: string): string {
  const parsed = parseUnit(unit);
  if (unit === '') return 'a plain number';
  return words.find(([sample]) => sameDimension(parseUnit(sample), parsed))?.[1] ?? `an amount in ${unit}`;
}
