import type { FieldShape, Fields } from '../calculators/fields.ts';
import examples from './examples.json' with { type: 'json' };
import type { UnitSystem } from '../units/present.ts';
import { convert, parseUnit, UnitError } from '../units/unit.ts';

/** An input that a calculator can be tried with, in the units it was published in; nothing for one without. */
export function exampleOf(calculator: string): Readonly<Record<string, unknown>> | undefined {
  return (examples as Readonly<Record<string, Readonly<Record<string, unknown>>>>)[calculator];
}

/** Units in which somebody who reads US units has such amounts before them; what is not here is the same for both. */
const usUnits: Readonly<Record<string, string>> = {
  ...{ cm: 'in', mm: 'in', m: 'ft', m2: 'ft2', m3: 'yd3', kg: 'lb', t: 'ton', L: 'gal', C: 'F' },
  ...{ 'g/m2': 'lb/1000ft2', 'mm/h': 'in/h', '$/m3': '$/yd3', 'L/m2': 'gal/1000ft2', 'km/h': 'mi/h' },
  ...{ mL: 'floz', 'mL/m2': 'floz/1000ft2', 'L/min': 'gal/min', g: 'oz' },
};

/** The unit in which a person reads an amount that the core has in `unit`. */
export function readIn(unit: string, system: UnitSystem): string {
  return (system === 'us' ? usUnits[unit] : undefined) ?? unit;
}

/** A unit as it is printed: `lb/1000 ft²`. */
export function printedUnit(unit: string): string {
  return unit
    .replaceAll(/([a-zµ])([23])/g, (_whole, name: string, power: string) => `${name}${power === '2' ? '²' : '³'}`)
    .replace('/1000', '/1000 ')
    .replace(/^floz/, 'fl oz')
    .replace(/^C$/, '°C')
    .replace(/^F$/, '°F');
}

/**
 * The unit of a result by the words that a calculator has for its results: a number among the fields of a list stands
 * with the unit written after its name, or with one for all.
 *
 * @param outputs of the calculator. @param path such as `applications.rate`.
 * @returns an empty text for a plain number or a word.
 */
export function unitOfOutput(outputs: Readonly<Record<string, string>>, path: string): string {
  const unit = writtenUnit(outputs, path);
  return isUnit(unit) ? unit : '';
}

/** The same, also where it stands for several units or for none. */
export function writtenUnit(outputs: Readonly<Record<string, string>>, path: string): string {
  const root = path.split('.')[0] ?? path;
  const text = outputs[path] ?? outputs[root] ?? '';
  const key = path.split('.').at(-1) ?? '';
  // "[{rate g/m2, monthsFromStart}]": the unit written after the field's own name, or one for all.
  const own = new RegExp(String.raw`\b${key} ([^,}\]]+)`).exec(text)?.[1];
  return own ?? /[}\]] ([^ ,]+)$/.exec(text)?.[1] ?? text.split(/[ ,]/)[0] ?? '';
}

function isUnit(text: string): boolean {
  try {
    parseUnit(text);
    return text !== '';
  } catch (error) {
    if (error instanceof UnitError) return false;
    throw error;
  }
}

/** A number of a result as a person of that system reads it: three figures with its unit, the working has more. */
export function tellResult(value: number, unit: string, system: UnitSystem): string {
  const theirs = readIn(unit, system);
  const number = theirs === unit ? value : convert(value, unit, theirs);
  const rounded = Number(number.toPrecision(3));
  const figures = Math.abs(number) >= 1000 ? Math.round(number).toLocaleString('en-US') : String(rounded);
  const sign = figures.replace('-', '−');
  return theirs === '$' ? `$${number.toFixed(2)}` : `${sign} ${printedUnit(theirs)}`.trim();
}

/** What is typed into a form of a calculator: texts, and lists and groups of them. */
export type Typed = string | readonly Typed[] | { readonly [name: string]: Typed };

const isList = (typed: Typed): typed is readonly Typed[] => Array.isArray(typed);

/**
 * The input of a calculator from what was typed. A number without a unit is in the unit that stood beside it; what is
 * empty is left out.
 */
export function inputFrom(typed: Typed | undefined, shape: FieldShape, system: UnitSystem): unknown {
  if (typed === undefined || typed === '') return undefined;
  if (shape.kind === 'list')
    return isList(typed) ? typed.map((item) => inputFrom(item, shape.item.shape, system) ?? '') : typed;
  if (shape.kind === 'group') {
    if (typeof typed === 'string' || isList(typed)) return typed;
    const inside = Object.entries(shape.fields).flatMap(([name, field]) => {
      const value = inputFrom(typed[name], field.shape, system);
      return value === undefined ? [] : [[name, value] as const];
    });
    return inside.length > 0 ? Object.fromEntries(inside) : undefined;
  }
  if (typeof typed !== 'string') return typed;
  if (shape.kind === 'flag') return typed === 'true' ? true : typed === 'false' ? false : typed;
  if (shape.kind === 'json') {
    try {
      return JSON.parse(typed) as unknown;
    } catch {
      return typed;
    }
  }
  const unit = shape.kind === 'quantity' ? readIn(shape.unit, system) : '';
  return shape.kind === 'quantity' && unit !== shape.unit && PLAIN.test(typed) ? `${typed} ${unit}` : typed;
}

const PLAIN = /^\s*[-−+]?[\d.,]+\s*$/;

/** What was typed beside the units of one system, as it reads beside those of another: numbers get the unit they had. */
export function spelledOut(typed: Typed, shape: FieldShape, system: UnitSystem): Typed {
  if (shape.kind === 'list')
    return isList(typed) ? typed.map((item) => spelledOut(item, shape.item.shape, system)) : typed;
  if (shape.kind === 'group')
    return typeof typed === 'string' || isList(typed)
      ? typed
      : Object.fromEntries(
          Object.entries(typed).map(([name, value]) => {
            const inner = shape.fields[name]?.shape;
            return [name, inner ? spelledOut(value, inner, system) : value];
          }),
        );
  if (shape.kind !== 'quantity' || typeof typed !== 'string' || !PLAIN.test(typed)) return typed;
  // What both read alike needs no unit.
  return readIn(shape.unit, 'us') === readIn(shape.unit, 'metric') ? typed : `${typed} ${readIn(shape.unit, system)}`;
}

/** What stands in the form for an input: a number with its unit where that is not the one beside the field. */
export function typedFrom(input: unknown, shape: FieldShape, system: UnitSystem): Typed {
  if (input === undefined || input === null) return '';
  if (shape.kind === 'list')
    return Array.isArray(input) ? input.map((item) => typedFrom(item, shape.item.shape, system)) : [];
  if (shape.kind === 'group')
    return Object.fromEntries(
      Object.entries(shape.fields).map(([name, field]) => [
        name,
        typedFrom((input as Readonly<Record<string, unknown>>)[name], field.shape, system),
      ]),
    );
  if (shape.kind === 'json') return JSON.stringify(input);
  const bare = shape.kind !== 'quantity' || ['', 'pH', readIn(shape.unit, system)].includes(shape.unit);
  if (typeof input === 'string') return input;
  const written = JSON.stringify(input);
  return typeof input === 'number' && !bare ? `${written} ${shape.unit}` : written;
}

/** What is wrong in what was typed so far, also while other inputs are still wanted. @throws {InputError} */
export function checkTyped(fields: Fields, input: Readonly<Record<string, unknown>>): void {
  for (const [name, value] of Object.entries(input)) fields[name]?.read(value, name);
}

/** Names of the inputs that are still wanted before anything can be computed. */
export function stillWanted(fields: Fields, input: Readonly<Record<string, unknown>>): string[] {
  return Object.entries(fields).flatMap(([name, field]) =>
    !field.optional && (input[name] === undefined || (Array.isArray(input[name]) && input[name].length === 0))
      ? [name]
      : [],
  );
}
