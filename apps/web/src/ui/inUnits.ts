import { type UnitSystem, convert, present } from '@glenfold/agronomy';

const UNIT = ' m²';
const number = (text: string): number => Number(text.replaceAll(',', ''));
const isNumber = (text: string | undefined): text is string => text !== undefined && /^\d[\d,]*(?:\.\d+)?$/.test(text);

/** Units of sentences that know no reader, by how a person who reads US units has them. */
const others: ReadonlyArray<readonly [told: string, from: string, to: string, label: string]> = [
  ['g/m²', 'g/m2', 'lb/1000ft2', 'lb/1000 ft²'],
  ['g/m2', 'g/m2', 'lb/1000ft2', 'lb/1000 ft²'],
  ['L/min', 'L/min', 'gal/min', 'gal/min'],
  ['mm/h', 'mm/h', 'in/h', 'in/h'],
  ['km/h', 'km/h', 'mi/h', 'mph'],
  ['m³', 'm3', 'yd3', 'yd³'],
  ['°C', 'C', 'F', '°F'],
  ['cm', 'cm', 'in', 'in'],
  ['mm', 'mm', 'in', 'in'],
  ['kg', 'kg', 'lb', 'lb'],
  ['mL', 'mL', 'floz', 'fl oz'],
  ['L', 'L', 'gal', 'gal'],
  ['m', 'm', 'ft', 'ft'],
];
/** A limit is told as roundly as this share lets it be; as much over it is taken, so that a limit typed as told is inside. */
const ROUNDED = 0.02;

/** "4" of 3.937: as few figures as stay within the rounding. */
function round(value: number): string {
  for (let figures = 1; figures < 4; figures += 1) {
    const rounded = Number(value.toPrecision(figures));
    if (Math.abs(rounded - value) <= Math.abs(value) * ROUNDED) return rounded.toLocaleString('en');
  }
  return Number(value.toPrecision(4)).toLocaleString('en');
}

const NAMED = /\d (?:in|ft|lb|gal|yd³|fl oz|°F)(?![\w²])/;
const AMOUNTS = new RegExp(
  `(-?\\d[\\d,]*(?:\\.\\d+)?)(?: to (-?\\d[\\d,]*(?:\\.\\d+)?))? (${others.map(([told]) => told).join('|')})(?![\\w²³/°])`,
  'g',
);

/** Amounts in metric units inside a sentence of the server or the contract, "3 m²" and "1 to 9 cm", as the person reads them. */
export function inUnits(words: string, system: UnitSystem): string {
  if (system === 'metric') return words;
  // A sentence that names an example in either unit says enough.
  if (NAMED.test(words)) return areasIn(words);
  return areasIn(words).replace(AMOUNTS, (_all, first: string, last: string | undefined, told: string) => {
    const [, from, to, label] = others.find(([own]) => own === told)!;
    const read = (text: string): string => {
      const value = convert(number(text), from, to);
      return to === 'F' ? String(Math.round(value)) : round(value);
    };
    return `${read(first)}${last === undefined ? '' : ` to ${read(last)}`} ${label}`;
  });
}

/** Areas in m², as the person reads areas. */
function areasIn(words: string): string {
  if (!words.includes(UNIT)) return words;
  const [first = '', ...rest] = words.split(UNIT);
  return rest.reduce((told, after) => {
    const parts = told.split(' ');
    const amount = parts.pop();
    if (!isNumber(amount)) return `${told}${UNIT}${after}`;
    const from = parts.at(-1) === 'to' ? parts.at(-2) : undefined;
    if (isNumber(from)) parts.splice(-2, 1, present('area', number(from), 'us').number);
    return `${[...parts, present('area', number(amount), 'us').text].join(' ')}${after}`;
  }, first);
}
