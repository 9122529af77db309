import { wholes } from '../units/wholes.ts';
import { money, present, unitFor, type UnitSystem } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, type WorkingBook, figure } from '../working/working.ts';
import type { Product } from '../materials/product.ts';

/** Product for one zone: what to spread, weigh out, buy and pay. */
export interface ProductAmount {
  readonly productId: string;
  readonly productName: string;
  /** g/m² of product for the first year. */
  readonly rate: Figure;
  /** kg for the zone. */
  readonly mass: Figure;
  readonly bags: Figure;
  /** kg */
  readonly bagMass: number;
  /** Nothing until the product has a price. */
  readonly cost: Figure | null;
  readonly applications: ReadonlyArray<{
    readonly rate: number;
    readonly mass: number;
    readonly monthsFromStart: number | null;
  }>;
}

/** The smallest step a spreader is set by, in g/m². */
export function spreaderStep(sense: 'limeRate' | 'productRate', system: UnitSystem): number {
  const { unit, step } = unitFor(sense, system);
  return convert(step, unit, 'g/m2');
}

/** From a rate to the zone's amount, bags and cost, each with the working up to it. */
export function amountFor(
  product: Product,
  area: number,
  applications: ReadonlyArray<{ readonly rate: number; readonly monthsFromStart: number | null }>,
  book: WorkingBook,
  system: UnitSystem,
  currency: string,
): ProductAmount {
  const total = applications.reduce((sum, application) => sum + application.rate, 0);
  const snapshot = (value: number): Figure => ({ value, working: book.entries });
  const rate = snapshot(total);

  const kilograms = convert(total * area, 'g', 'kg');
  const told = { rate: present('productRate', total, system).text, area: present('area', area, system).text };
  book.step({
    label: 'For the zone',
    formula: 'rate × area',
    numbers: `${told.rate} × ${told.area}`,
    result: kilograms,
    unit: 'kg',
  });
  const mass = snapshot(kilograms);

  const count = wholes(kilograms / product.bagMass);
  const bag = present('mass', product.bagMass, system).text;
  book.step({
    label: 'Whole bags',
    formula: 'mass / bag, rounded up',
    numbers: `${present('mass', kilograms, system).text} / ${bag} = ${figure(kilograms / product.bagMass)}`,
    result: count,
    unit: 'bags',
  });
  const bags = snapshot(count);

  let cost: Figure | null = null;
  if (product.bagPrice !== null) {
    const price = count * product.bagPrice;
    book.step({
      label: 'Cost',
      formula: 'bags × price of a bag',
      numbers: `${count} × ${money(product.bagPrice, currency)}`,
      result: price,
      unit: '$',
      source: 'The practice’s own price list',
    });
    cost = snapshot(price);
  }
  return {
    productId: product.id,
    productName: product.name,
    rate,
    mass,
    bags,
    bagMass: product.bagMass,
    cost,
    applications: applications.map((application) => ({
      ...application,
      mass: convert(application.rate * area, 'g', 'kg'),
    })),
  };
}
