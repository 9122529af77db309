import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { flag, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/interactions.json' with { type: 'json' };
import type { Product } from '../materials/product.ts';
import { nitrogenSourceOf } from '../materials/product.ts';
import { remedyNames } from '../remedies/remedyTable.ts';
import { type UnitSystem, present, inLine } from '../units/present.ts';
import { type BalanceLine, planned } from './balance.ts';
import type { Change } from './changes.ts';
import type { Treatment } from '../remedies/treatment.ts';

const remedyList = () => series(choice(remedyNames), 'remedies', { min: 1, max: remedyNames.length });
const sides = ['one', 'other'] as const;

/** What works against what in one program. */
export const interactionTable = readTable(
  'interactions',
  {
    /** cm laid on the surface in a year. */
    surfaceYear: quantity('cm', { above: 0, max: 10 }),
    /** What stands once in a zone. */
    once: remedyList(),
    pairs: listOf(
      {
        key: text(60),
        one: remedyList(),
        other: remedyList(),
        /** Only where the product of one of the feeds is of this kind. */
        carries: optional(choice(['ammonium', 'keeps seed from rooting', 'a wait before seeding'])),
        /** Days from one to the other, at least. */
        apartDays: optional(quantity('', { min: 0, max: 366, whole: true })),
        /** The first before the other. */
        order: optional(flag()),
        /** Never both in one program: which of them goes. */
        never: optional(choice(sides)),
        /** Which of them moves. */
        move: optional(choice(sides)),
        words: text(240),
      },
      'pairs',
      { min: 1, max: 60 },
    ),
  },
  data,
);
for (const { key, apartDays, order, never } of interactionTable.pairs)
  if (apartDays === undefined && !order && never === undefined) throw new InputError(key, 'does not say what is wrong');

/** A change that would mend something, in words for a button. */
export interface Mend {
  readonly words: string;
  readonly change: Pick<Change, 'key' | 'remedy' | 'reason'> & Partial<Pick<Change, 'out' | 'months'>>;
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

/** What of these sources has no ammonium and no urea, and so loses nothing beside lime. */
const NITRATES = ['calcium nitrate', 'potassium nitrate', 'sodium nitrate'];

const gases = (product: Product | undefined): boolean =>
  product !== undefined && product.grade.n > 0 && !NITRATES.includes(nitrogenSourceOf(product));

const nameOf = ({ name, supply }: Treatment): string => supply?.name ?? name;

/** The next month in which a treatment could stand, after another’s last dose. */
function monthsAfter(moved: Treatment, fixed: Treatment, skip: number): number[] | undefined {
  const end = fixed.doses.flatMap(({ to }) => to ?? []).at(-1);
  if (!end) return undefined;
  const [, month = 1] = end.split('-').map(Number);
  return moved.doses.map((_, index) => ((month + skip + index) % 12) + 1);
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
export const monthName = (month: number): string => MONTHS[month - 1] ?? '';

/** What is to be minded of a zone’s program, each with both treatments and a mend. */
export function findingsOf(
  treatments: readonly Treatment[],
  balance: readonly BalanceLine[],
  products: readonly Product[],
  system: UnitSystem,
): readonly Finding[] {
  const now = planned(treatments);
  const productOf = ({ supply }: Treatment): Product | undefined =>
    products.find(({ id }) => id === supply?.materialId);
  const findings: Finding[] = [];
  for (const pair of interactionTable.pairs)
    for (const one of now.filter(({ remedy }) => pair.one.includes(remedy)))
      for (const other of now.filter((treatment) => treatment !== one && pair.other.includes(treatment.remedy))) {
        const feeds = [one, other].map(productOf);
        if (pair.carries === 'ammonium' && !feeds.some(gases)) continue;
        if (pair.carries === 'keeps seed from rooting' && !feeds.some((product) => product?.noSeedingWeeks)) continue;
        const wait = pair.carries === 'a wait before seeding' ? waitOf(one) : pair.apartDays;
        const near = wait !== undefined && pair.never === undefined && daysApart(one, other) < wait;
        const turned = pair.order === true && (first(one) ?? '') > (first(other) ?? '9');
        if (!near && !turned && pair.never === undefined) continue;
        const goes = { one, other }[pair.never ?? pair.move ?? 'other'];
        const stays = goes === one ? other : one;
        const months = pair.never === undefined ? monthsAfter(goes, stays, wait ? Math.ceil(wait / 30) : 0) : undefined;
        // Of two that use one product, what is done with it tells them apart.
        const told = nameOf(one) === nameOf(other) ? ({ name }: Treatment) => name : nameOf;
        findings.push({
          key: `${pair.key}: ${one.key}, ${other.key}`,
          words: `${pair.words} Here: ${told(one)} and ${told(other)}.`,
          between: [one.name, other.name],
          mend:
            pair.never === undefined
              ? months
                ? {
                    words: `Move ${inLine(goes.name)} to ${months.map(monthName).join(', ')}`,
                    change: { key: goes.key, remedy: goes.remedy, months, reason: pair.words },
                  }
                : null
              : {
                  words: `Leave ${inLine(told(goes))} out`,
                  change: { key: goes.key, remedy: goes.remedy, out: 'left out', reason: pair.words },
                },
        });
      }
  for (const twice of now.filter(
    (treatment, index) =>
      interactionTable.once.includes(treatment.remedy) &&
      now.some((other, at) => at < index && other.remedy === treatment.remedy),
  ))
    findings.push({
      key: `twice ${twice.key}`,
      words: `${twice.name} stands twice here, and the label’s rate and what the test asks for count for both together.`,
      between: [twice.name, twice.name],
      mend: {
        words: `Leave the second ${inLine(twice.name)} out`,
        change: { key: twice.key, remedy: twice.remedy, out: 'left out', reason: 'It stands in the program already.' },
      },
    });
  for (const line of balance.filter(({ verdict }) => verdict === 'over')) {
    const [largest] = [...line.layers].sort((a, b) => b.value - a.value);
    findings.push({
      key: `over ${line.nutrient}`,
      words: `${present('nutrientRate', line.total, system).text} of ${line.symbol} in all, and the year takes ${present('nutrientRate', line.most ?? 0, system).text}. Less of ${largest?.name ?? 'it'}.`,
      between: line.layers.map(({ name }) => name),
      mend: null,
    });
  }
  const surface = now.reduce((sum, treatment) => sum + treatment.surface, 0);
  if (surface > interactionTable.surfaceYear + 1e-9)
    findings.push({
      key: 'surface',
      words: `${present('layer', surface, system).text} of material on the surface in one year; turf takes ${present('layer', interactionTable.surfaceYear, system).text} at most, and that only after coring. Put one of them off.`,
      between: now.filter((treatment) => treatment.surface > 0).map(({ name }) => name),
      mend: lastSurface(now),
    });
  return findings;
}

function lastSurface(treatments: readonly Treatment[]): Mend | null {
  const last = treatments.filter(({ surface }) => surface > 0).at(-1);
  return (
    (last && {
      words: `Put ${nameOf(last)} off to next year`,
      change: {
        key: last.key,
        remedy: last.remedy,
        out: 'next year',
        reason: 'The surface takes no more this year.',
      },
    }) ??
    null
  );
}
