import { type RemedyName, remedyEntry, remedyNames } from '../remedies/remedyTable.ts';
import type { Judged, Treatment } from '../remedies/treatment.ts';
import type { UsualVisit, UsualYear } from '../settings/settings.ts';
import type { Stocked } from '../remedies/remedy.ts';
import { type UnitSystem, money, present } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { planned } from './balance.ts';
import { macroOf } from './fed.ts';
import { monthName } from '../units/monthOf.ts';

/** Where a zone's program is another than the usual year, and why. */
export interface UsualDifference {
  readonly name: string;
  readonly usual: string;
  readonly here: string;
  readonly why: string;
}

export interface AgainstUsual {
  readonly name: string;
  readonly differences: readonly UsualDifference[];
  /** What is not bought here of it, at its price; nothing where none of that is known, as on papers of before. */
  readonly saved?: Figure | null;
}

/** Shares of a rate within which nobody would call it another one. */
const SAME = 0.05;

const isRemedy = (name: string): name is RemedyName => (remedyNames as readonly string[]).includes(name);

/** The visits of a usual year by remedy, in the order of work. */
export function visitsOf(usual: UsualYear | null, remedy: RemedyName): readonly UsualVisit[] {
  return usual?.visits.filter((visit) => visit.remedy === remedy) ?? [];
}

const months = (numbers: readonly number[]): string => [...new Set(numbers)].map(monthName).join(', ');

/** "80 lb/1000 ft², March, April". */
function usually(visits: readonly UsualVisit[], system: UnitSystem): string {
  const rate = visits.reduce((sum, visit) => sum + (visit.rate ?? 0), 0);
  return [
    ...(rate > 0 ? [present('productRate', rate, system).text] : []),
    months(visits.map(({ month }) => month)),
  ].join(', ');
}

function now({ rate, sense, doses }: Treatment, system: UnitSystem): string {
  const at = months(doses.flatMap(({ from }) => (from ? [Number(from.slice(5, 7))] : [])));
  return [rate ? present(sense, rate.value, system).text : 'once', at].filter(Boolean).join(', ');
}

/** Whether somebody would do another thing by the one than by the other. */
function differs({ rate, doses }: Treatment, visits: readonly UsualVisit[]): boolean {
  const usual = visits.reduce((sum, visit) => sum + (visit.rate ?? 0), 0);
  const here = rate?.value ?? 0;
  const other = usual > 0 && Math.abs(here - usual) > SAME * Math.max(here, usual);
  const set = new Set(visits.map(({ month }) => month));
  return (
    other || doses.length !== visits.length || doses.some(({ from }) => from && !set.has(Number(from.slice(5, 7))))
  );
}

const wordsFor = (remedy: RemedyName, judged: readonly Judged[]): string =>
  judged.find(
    (one) =>
      one.remedy === remedy ||
      one.remedy === (macroOf as Readonly<Record<string, string>>)[remedy] ||
      one.name.includes(remedyEntry(remedy).label),
  )?.words ?? 'Nothing asks for it here.';

interface UsualBasis {
  readonly system: UnitSystem;
  readonly materials: readonly Stocked[];
  /** m² of the zone. */
  readonly area: number;
  readonly currency: string;
}

/** What visits would have cost in material, by weight: only what has a rate, a product of the list and a price. */
function savedOf(
  visits: readonly UsualVisit[],
  area: number,
  materials: readonly Stocked[],
  currency: string,
): Figure | null {
  const lines = visits.flatMap(({ material: id, rate }) => {
    const stocked = materials.find((one) => one.id === id);
    if (!rate || stocked?.material.packUnit !== 'kg' || stocked.price === null) return [];
    const { name, packSize } = stocked.material;
    return [{ name, price: (((rate * area) / 1000) * stocked.price) / packSize }];
  });
  if (lines.length === 0) return null;
  const value = lines.reduce((sum, { price }) => sum + price, 0);
  const book = new WorkingBook();
  book.step({
    label: 'Not bought of the usual year',
    formula: 'sum of rate × area / pack × price, by weight',
    numbers: lines.map(({ name, price }) => `${name} ${money(price, currency)}`).join(' + '),
    result: value,
    unit: '$',
    source: 'The practice’s own price list and usual year',
  });
  return { value, working: book.entries };
}

/** What of a zone's program is other than the usual year, each with its reason. */
export function againstUsual(
  usual: UsualYear | null,
  treatments: readonly Treatment[],
  judged: readonly Judged[],
  { system, materials, area, currency }: UsualBasis,
): AgainstUsual | null {
  if (!usual) return null;
  const here = planned(treatments);
  const sold = [...new Set(usual.visits.map(({ remedy }) => remedy))].filter(isRemedy);
  const differences = [
    ...sold.flatMap((remedy): UsualDifference[] => {
      const visits = visitsOf(usual, remedy);
      const [treatment] = here.filter((one) => one.remedy === remedy);
      const shared = { name: remedyEntry(remedy).label, usual: usually(visits, system) };
      if (treatment)
        return differs(treatment, visits)
          ? [{ ...shared, here: now(treatment, system), why: treatment.byHand?.reason ?? treatment.words }]
          : [];
      const left = treatments.find((one) => one.remedy === remedy);
      return [
        {
          ...shared,
          here: left && left.status !== 'planned' ? left.status : 'none',
          why: left?.byHand?.reason ?? left?.words ?? wordsFor(remedy, judged),
        },
      ];
    }),
    ...here.flatMap((treatment): UsualDifference[] =>
      sold.includes(treatment.remedy)
        ? []
        : [
            {
              name: treatment.name,
              usual: 'none',
              here: now(treatment, system),
              why: treatment.byHand?.reason ?? treatment.words,
            },
          ],
    ),
  ];
  const unsold = sold.filter((remedy) => !here.some((one) => one.remedy === remedy));
  return {
    ...{ name: usual.name, differences },
    saved: savedOf(
      unsold.flatMap((remedy) => visitsOf(usual, remedy)),
      area,
      materials,
      currency,
    ),
  };
}
