import { type UnitSystem, present } from '@glenfold/agronomy';

/** Areas in m² inside a sentence of the server or the contract, as the person reads areas. */
export function inUnits(words: string, system: UnitSystem): string {
  if (system === 'metric') return words;
  const number = (text: string): number => Number(text.replaceAll(',', ''));
  return words
    .replace(/([\d.,]+) to ([\d.,]+) m²/g, (_whole, from: string, to: string) => {
      const low = present('area', number(from), system);
      return `${low.number} to ${present('area', number(to), system).text}`;
    })
    .replace(/(\d[\d.,]*) m²/g, (_whole, amount: string) => present('area', number(amount), system).text);
}
