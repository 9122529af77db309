import { type UnitSystem, present } from '@glenfold/agronomy';

const UNIT = ' m²';
const number = (text: string): number => Number(text.replaceAll(',', ''));
const isNumber = (text: string | undefined): text is string => text !== undefined && /^\d[\d,]*(?:\.\d+)?$/.test(text);

/** Areas in m² inside a sentence of the server or the contract, "3 m²" and "1 to 9 m²", as the person reads areas. */
export function inUnits(words: string, system: UnitSystem): string {
  if (system === 'metric' || !words.includes(UNIT)) return words;
  const [first = '', ...rest] = words.split(UNIT);
  return rest.reduce((told, after) => {
    const parts = told.split(' ');
    const amount = parts.pop();
    if (!isNumber(amount)) return `${told}${UNIT}${after}`;
    const from = parts.at(-1) === 'to' ? parts.at(-2) : undefined;
    if (isNumber(from)) parts.splice(-2, 1, present('area', number(from), system).number);
    return `${[...parts, present('area', number(amount), system).text].join(' ')}${after}`;
  }, first);
}
