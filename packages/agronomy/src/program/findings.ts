import { type Product, nitrogenSourceOf, saltIndexOf } from '../materials/product.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { YearAhead } from '../remedies/months.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { type UnitSystem, inLine, present } from '../units/present.ts';
import { type BalanceLine, planned } from './balance.ts';
import type { Change } from './changes.ts';
import { gasesFrom } from '../nutrients/ammonium.ts';
import { monthName } from '../units/monthOf.ts';
import { interactionTable } from './interactions.ts';

/** A change that would mend something, in words for a button. */
export interface Mend {
  readonly words: string;
  readonly change: Pick<Change, 'key' | 'remedy' | 'reason' | 'months'> & { readonly out?: 'left out' | 'next year' };
}

/** Two treatments that work against each other, or one against a limit of the year. */
export interface Finding {
  readonly key: string;
  readonly words: string;
  /** Names of the treatments. */
  readonly between: readonly string[];
  readonly mend: Mend | null;
}

const day = (text_: string): number => Date.parse(`${text_}T00:00:00Z`) / 86_400_000;

/** Days between the nearest doses of two treatments; many while a month is not known. */
function daysApart(one: Treatment, other: Treatment): number {
  let nearest = Infinity;
  for (const a of one.doses)
    for (const b of other.doses) {
      if (!a.from || !a.to || !b.from || !b.to) continue;
      const gap = Math.max(day(b.from) - day(a.to), day(a.from) - day(b.to));
      nearest = Math.min(nearest, gap);
    }
  return nearest;
}

/** Days in which the label of what is put down lets nothing be seeded; nothing where it was not told, or nothing is sprayed. */
const waitOf = ({ values }: Treatment): number | undefined =>
  typeof values.noSeedingWeeks === 'number' ? values.noSeedingWeeks * 7 : undefined;

const first = ({ doses }: Treatment): string | undefined => doses.flatMap(({ from }) => from ?? [])[0];

const gases = (product: Product | undefined): boolean =>
  product !== undefined && product.grade.n > 0 && gasesFrom(nitrogenSourceOf(product));

const nameOf = ({ name, supply }: Treatment): string => supply?.name ?? name;

/** The next month in which a treatment could stand, after another’s last dose. */
function monthsAfter(moved: Treatment, fixed: Treatment, skip: number): number[] | undefined {
  const end = fixed.doses.flatMap(({ to }) => to ?? []).at(-1);
  if (!end) return undefined;
  const [, month = 1] = end.split('-').map(Number);
  return moved.doses.map((_, index) => ((month + skip + index) % 12) + 1);
}

const bringsPeat = ({ values, supply, others }: Treatment): boolean =>
  (typeof values.peat === 'number' && values.peat > 0) ||
  [supply, ...others].some((each) => each !== null && /\bpeat\b/i.test(each.name));

type ProductOf = (treatment: Treatment) => Product | undefined;

/** A salty feed in a warm month on turf that nobody waters, with the months in which it would not burn. */
function saltOnDry(
  now: readonly Treatment[],
  productOf: ProductOf,
  { irrigation, surface }: ZoneFacts,
  year: YearAhead | undefined,
): Finding[] {
  const { indexFrom, meanFrom, growthFrom } = interactionTable.saltOnDry;
  if (irrigation !== 'none' || surface === 'seedbed' || !year) return [];
  const warm = new Set(year.months.filter(({ mean }) => mean >= meanFrom).map(({ month }) => month));
  const cooler = year.months.filter(({ mean, growth }) => mean < meanFrom && growth >= growthFrom);
  return now.flatMap((treatment): Finding[] => {
    const product = productOf(treatment);
    const salty = product && ((saltIndexOf(product) ?? 0) * (100 - product.slowRelease)) / 100 >= indexFrom;
    const hot = treatment.doses.filter(({ from }) => from && warm.has(from.slice(0, 7)));
    if (!product || !salty || hot.length === 0) return [];
    const months = cooler.slice(0, treatment.doses.length).map(({ month }) => Number(month.slice(5)));
    const words = `${product.name} is salty, nobody waters here, and it goes down in the warm months: on dry turf it burns.`;
    return [
      {
        key: `salt ${treatment.key}`,
        words: `${words} Before rain only, or a slow product, or cooler months.`,
        between: [treatment.name, 'dry turf'],
        mend:
          months.length === treatment.doses.length
            ? {
                words: `Move ${inLine(treatment.name)} to ${months.map(monthName).join(', ')}`,
                change: { key: treatment.key, remedy: treatment.remedy, months, reason: words },
              }
            : null,
      },
    ];
  });
}

type Pair = (typeof interactionTable.pairs)[number];

/** Whether a pair is about these two: only where one of them carries what it is about. */
function isAbout({ carries }: Pair, one: Treatment, other: Treatment, productOf: ProductOf): boolean {
  const feeds = [one, other].map(productOf);
  if (carries === 'ammonium') return feeds.some(gases);
  if (carries === 'peat') return bringsPeat(other);
  return carries !== 'keeps seed from rooting' || feeds.some((product) => product?.noSeedingWeeks);
}

/** What is wrong between two treatments by a pair of the table, with the mend; nothing where nothing is. */
function betweenTwo(pair: Pair, one: Treatment, other: Treatment): Finding | undefined {
  const { never, order, told: toTell } = pair;
  const wait = pair.carries === 'a wait before seeding' ? waitOf(one) : pair.apartDays;
  const near = wait !== undefined && daysApart(one, other) < wait;
  const turned = order === true && (first(one) ?? '') > (first(other) ?? '9');
  if (never === undefined && !toTell && !near && !turned) return undefined;
  const goes = { one, other }[never ?? pair.move ?? 'other'];
  const stays = goes === one ? other : one;
  const months = toTell ? undefined : monthsAfter(goes, stays, wait ? Math.ceil(wait / 30) : 0);
  // Of two that use one product, what is done with it tells them apart.
  const called = nameOf(one) === nameOf(other) ? ({ name }: Treatment) => name : nameOf;
  const moved = months && {
    words: `Move ${inLine(goes.name)} to ${months.map(monthName).join(', ')}`,
    change: { key: goes.key, remedy: goes.remedy, months, reason: pair.words },
  };
  return {
    key: `${pair.key}: ${one.key}, ${other.key}`,
    words: `${pair.words} Here: ${called(one)} and ${called(other)}.`,
    between: [one.name, other.name],
    mend:
      never === undefined
        ? (moved ?? null)
        : {
            words: `Leave ${inLine(called(goes))} out`,
            change: { key: goes.key, remedy: goes.remedy, out: 'left out', reason: pair.words },
          },
  };
}

/** Treatments that work against each other by the table. */
const againstEachOther = (now: readonly Treatment[], productOf: ProductOf): Finding[] =>
  interactionTable.pairs.flatMap((pair) =>
    now
      .filter(({ remedy }) => pair.one.includes(remedy))
      .flatMap((one) =>
        now
          .filter((other) => other !== one && pair.other.includes(other.remedy))
          .flatMap((other) => (isAbout(pair, one, other, productOf) ? (betweenTwo(pair, one, other) ?? []) : [])),
      ),
  );

/** What stands once in a zone, and stands there again. */
const twice = (now: readonly Treatment[]): Finding[] =>
  now
    .filter(
      ({ remedy }, index) =>
        interactionTable.once.includes(remedy) && now.some((other, at) => at < index && other.remedy === remedy),
    )
    .map(({ name, key, remedy }) => ({
      key: `twice ${key}`,
      words: `${name} stands twice here, and the label’s rate and what the test asks for count for both together.`,
      between: [name, name],
      mend: {
        words: `Leave the second ${inLine(name)} out`,
        change: { key, remedy, out: 'left out', reason: 'It stands in the program already.' },
      },
    }));

/** What stands without that on which it rests. */
const alone = (now: readonly Treatment[]): Finding[] =>
  interactionTable.needs.flatMap(({ one, needs, words }) =>
    now.some(({ remedy }) => needs.includes(remedy))
      ? []
      : now
          .filter(({ remedy }) => one.includes(remedy))
          .map(({ key, name }) => ({ key: `alone ${key}`, words, between: [name], mend: null })),
  );

/** Nutrients of which the year takes less than everything brings together. */
const tooMuch = (balance: readonly BalanceLine[], system: UnitSystem): Finding[] =>
  balance
    .filter(({ verdict }) => verdict === 'over')
    .map(({ nutrient, symbol, total, most, layers }) => {
      const [largest] = [...layers].sort((a, b) => b.value - a.value);
      const say = (rate: number): string => present('nutrientRate', rate, system).text;
      return {
        key: `over ${nutrient}`,
        words: `${say(total)} of ${symbol} in all, and the year takes ${say(most ?? 0)}. Less of ${largest?.name ?? 'it'}.`,
        between: layers.map(({ name }) => name),
        mend: null,
      };
    });

/** More on the surface than a year takes. */
function onSurface(now: readonly Treatment[], system: UnitSystem): Finding[] {
  const laid = now.filter(({ surface }) => surface > 0);
  const sum = laid.reduce((all, { surface }) => all + surface, 0);
  if (sum <= interactionTable.surfaceYear + 1e-9) return [];
  const say = (layer: number): string => present('layer', layer, system).text;
  const last = laid.at(-1)!;
  return [
    {
      key: 'surface',
      words: `${say(sum)} of material on the surface in one year; turf takes ${say(interactionTable.surfaceYear)} at most, and that only after coring. Put one of them off.`,
      between: laid.map(({ name }) => name),
      mend: {
        words: `Put ${nameOf(last)} off to next year`,
        change: {
          key: last.key,
          remedy: last.remedy,
          out: 'next year',
          reason: 'The surface takes no more this year.',
        },
      },
    },
  ];
}

interface FindingsOf {
  readonly system: UnitSystem;
  readonly zone: ZoneFacts;
  /** Nothing where the place has no climate. */
  readonly year: YearAhead | undefined;
}

/** What is to be minded of a zone’s program, each with what it is between and a mend. */
export function findingsOf(
  treatments: readonly Treatment[],
  balance: readonly BalanceLine[],
  products: readonly Product[],
  { system, zone, year }: FindingsOf,
): readonly Finding[] {
  const now = planned(treatments);
  const productOf: ProductOf = ({ supply }) => products.find(({ id }) => id === supply?.materialId);
  return [
    ...againstEachOther(now, productOf),
    ...twice(now),
    ...alone(now),
    ...saltOnDry(now, productOf, zone, year),
    ...tooMuch(balance, system),
    ...onSurface(now, system),
  ];
}
