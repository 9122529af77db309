import {
  type Dose,
  type RemedyName,
  type Supply,
  type Treatment,
  isLoose,
  monthName,
  present,
  tellSupply,
  type UnitSystem,
} from '@glenfold/agronomy';

const plural = (word: string): string =>
  /(s|ch|sh)$/.test(word) ? `${word}es` : /[^aeiou]y$/.test(word) ? `${word.slice(0, -1)}ies` : `${word}s`;

/** "once", "in 3 passes". */
export const times = (count: number, dose: string): string => (count === 1 ? 'once' : `in ${count} ${plural(dose)}`);

/** "March 2027", "1–10 March 2027" where a part of it is meant. */
export function monthOf({ from, to }: Pick<Dose, 'from' | 'to'>, short = false): string | undefined {
  if (!from || !to) return undefined;
  const month = monthName(Number(from.slice(5, 7)));
  const whole = from.endsWith('-01') && Number(to.slice(8)) >= 28;
  const name = short ? month.slice(0, 3) : `${month} ${from.slice(0, 4)}`;
  return whole || short ? name : `${Number(from.slice(8))}–${Number(to.slice(8))} ${name}`;
}

/** Months in a list, each year told once: "May, June 2027". */
export function monthList(doses: readonly Dose[]): string {
  const told = doses.flatMap((dose) => monthOf(dose) ?? []);
  return told.map((text, index) => (told[index + 1]?.endsWith(text.slice(-5)) ? text.slice(0, -5) : text)).join(', ');
}

/** What goes down and when: doses of the same amount together. */
export function doseWords(treatment: Treatment, system: UnitSystem): string[] {
  const { doses, rate, sense, supply } = treatment;
  const amountOf = (dose: Dose): string =>
    [
      supply && dose.quantity !== null ? tellSupply(dose.quantity, supply.unit, system) : undefined,
      rate ? present(sense, dose.rate, system).text : undefined,
    ]
      .filter(Boolean)
      .join(', ');
  const alike = new Map<string, Dose[]>();
  for (const dose of doses) alike.set(amountOf(dose), [...(alike.get(amountOf(dose)) ?? []), dose]);
  return [...alike].map(([amount, same]) =>
    [monthList(same), amount && `${amount}${same.length > 1 ? ' each' : ''}`].filter(Boolean).join(': '),
  );
}

/** What one pack is called: a load is brought, a can is poured, a bag is carried. */
export function packName({ unit, packSize }: Pick<Supply, 'unit' | 'packSize'>): string {
  if (unit === 'L') return 'can';
  return packSize >= (unit === 'm3' ? 0.2 : 500) ? 'load' : 'bag';
}

/** "3 bags". */
export const packCount = (count: number, supply: Pick<Supply, 'unit' | 'packSize'>): string =>
  `${count} ${count === 1 ? packName(supply) : plural(packName(supply))}`;

/** "3 bags of 20 kg", "1.2 m³ loose". */
export function packWords(supply: Pick<Supply, 'packs' | 'packSize' | 'unit'>, system: UnitSystem): string {
  const { packs, packSize, unit } = supply;
  if (isLoose(supply)) return `${tellSupply(packs.value, unit, system)} loose`;
  return `${packCount(packs.value, supply)} of ${tellSupply(packSize, unit, system)}`;
}

const shelves: Readonly<Partial<Record<RemedyName, string>>> = {
  ...{
    lime: 'lime',
    nitrogen: 'fertilizer',
    phosphorus: 'fertilizer',
    potassium: 'fertilizer',
    magnesium: 'fertilizer',
  },
  ...{
    sulfate: 'soil-chemistry',
    manganese: 'fertilizer',
    zinc: 'fertilizer',
    copper: 'fertilizer',
    boron: 'fertilizer',
  },
  ...{ sulfur: 'soil-chemistry', iron: 'soil-chemistry', gypsum: 'soil-chemistry' },
  ...{ compost: 'bulk', sand: 'bulk', clay: 'bulk', wetting: 'wetting', seed: 'seed', mulch: 'seed' },
};

/** Where among the products those of a remedy stand, to set a price. */
export const shelfOf = (remedy: RemedyName): string => `/products/${shelves[remedy] ?? ''}`;
