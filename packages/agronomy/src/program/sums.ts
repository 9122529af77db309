import { type Treatment } from '../remedies/treatment.ts';
import { money } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { planned } from './balance.ts';
import { type VisitLine, lacksPrice } from './work.ts';

/** Acidity of the year, what makes it less what limes. */
export function acidityOf(treatments: readonly Treatment[]): Figure {
  const book = new WorkingBook();
  const lines = planned(treatments).filter(({ acidity }) => Math.abs(acidity) > 1e-9);
  const value = lines.reduce((sum, { acidity }) => sum + acidity, 0);
  book.step({
    label: 'Acidity of the year',
    formula: 'sum of what acidifies − what limes, as CaCO₃',
    numbers: lines.map(({ name, acidity }) => `${name} ${acidity.toFixed(1)}`).join(' + ') || 'nothing',
    result: value,
    unit: 'g/m2',
  });
  return { value, working: book.entries };
}

interface CostOfZone {
  /** Nothing while something that is due has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** Work of which nobody has said what it costs: not in the sum. */
  readonly unpricedWork: readonly string[];
}

/** What the program of a zone costs by itself. */
export function costOf(treatments: readonly Treatment[], visits: readonly VisitLine[], currency: string): CostOfZone {
  const now = planned(treatments);
  const supplies = now.flatMap(({ supply, others }) => [...(supply ? [supply] : []), ...others]);
  const unpriced = [
    ...new Set([
      ...supplies.filter(({ cost }) => cost === null).map(({ name }) => name),
      ...now.flatMap(({ workUnpriced = [] }) => workUnpriced),
    ]),
  ];
  const unpricedWork = now.filter(lacksPrice).map(({ name }) => name);
  if (unpriced.length > 0) return { cost: null, unpriced, unpricedWork };
  const work = [
    ...now.flatMap(({ name, price }) => (price ? [{ name, price: price.value }] : [])),
    ...[...now.flatMap(({ work: lines = [] }) => lines), ...visits].map(({ name, cost }) => ({
      name,
      price: cost?.value ?? 0,
    })),
  ];
  const book = new WorkingBook();
  const value =
    supplies.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0) + work.reduce((sum, { price }) => sum + price, 0);
  book.step({
    label: 'The program of the zone',
    formula: 'sum of packs and of work at their price',
    numbers:
      [
        ...supplies.map(({ name, cost }) => `${name} ${money(cost?.value ?? 0, currency)}`),
        ...work.map(({ name, price }) => `${name} ${money(price, currency)}`),
      ].join(' + ') || 'nothing to buy',
    result: value,
    unit: '$',
  });
  if (unpricedWork.length > 0) book.warn(`${unpricedWork.join(', ')}: no price yet, and not in the sum.`);
  book.warn(
    'Each zone buys its own whole packs here; the list for all zones shares them, and counts what is in stock.',
  );
  return { cost: { value, working: book.entries }, unpriced, unpricedWork };
}
