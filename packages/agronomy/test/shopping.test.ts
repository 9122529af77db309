import fc from 'fast-check';
import { type ProductAmount, type ShoppingList, shoppingList } from '../src/index.ts';
import type { PlannedZone } from '../src/rates/shopping.ts';

const BAG = 20;
const figure = (value: number) => ({ value, working: [] });
const amount = (productId: string, mass: number, bagMass = BAG): ProductAmount => ({
  ...{ productId, productName: productId.toUpperCase(), rate: figure(0), mass: figure(mass), bagMass, cost: null },
  bags: figure(Math.ceil(mass / bagMass - 1e-9)),
  applications: [],
});
const zone = (name: string, amounts: readonly ProductAmount[]): PlannedZone =>
  ({
    ...{ zoneId: `id ${name}`, zone: name },
    plan: { lime: { amount: null }, nutrients: amounts.map((each) => ({ amount: each })), verdicts: [] },
  }) as unknown as PlannedZone;
const buy = (zones: readonly PlannedZone[], stock = 0, price: number | null = 30): ShoppingList =>
  shoppingList(zones, () => stock, () => price, 'metric', '$'); // prettier-ignore

describe('one list to buy', () => {
  it('buys one bag for two lawns that want 4 and 6 kg, and tells what stays and what each owes', () => {
    const { purchases, cost, saved } = buy([zone('North', [amount('urea', 4)]), zone('South', [amount('urea', 6)])]);
    const [urea] = purchases;
    expect(urea).toMatchObject({ fewer: 1, stock: 0 });
    expect([urea!.mass.value, urea!.bags.value, urea!.leftover.value]).toEqual([10, 1, 10]);
    expect(urea!.zones.map(({ zone: name, mass, cost: share }) => [name, mass, share])).toEqual([
      ['North', 4, 12],
      ['South', 6, 18],
    ]);
    expect([cost!.value, saved]).toEqual([30, 30]);
  });

  it('counts the bags that are there first, and buys none where they do', () => {
    const list = buy([zone('North', [amount('urea', 35)])], 3);
    expect([list.purchases[0]!.bags.value, list.purchases[0]!.leftover.value, list.cost!.value]).toEqual([0, 25, 0]);
    // Nothing that is not bought wants a price.
    expect(buy([zone('North', [amount('urea', 35)])], 3, null).unpriced).toEqual([]);
    const open = buy([zone('North', [amount('urea', 35)])], 1, null);
    expect([open.unpriced, open.cost, open.saved, open.purchases[0]!.zones[0]!.cost]).toEqual([['UREA'], null, null, null]); // prettier-ignore
  });

  it('tells what is wanted and stands in no list', () => {
    const verdicts = [
      { name: 'Gypsum', status: 'due', told: '40 lb/1000 ft²' },
      { name: 'Sulfur', status: 'none' },
    ];
    const north = { zoneId: 'n', zone: 'North', plan: { lime: { amount: null }, nutrients: [], verdicts } };
    expect(buy([north as unknown as PlannedZone])).toMatchObject({
      purchases: [],
      unlisted: [{ zone: 'North', name: 'Gypsum', told: '40 lb/1000 ft²' }],
    });
  });

  it('is enough and no bag more, whatever the zones take; shares add up, and no working but the cost’s tells a price', () => {
    const mass = fc.double({ min: 0.01, max: 500, noNaN: true });
    const amounts = fc.array(fc.tuple(fc.constantFrom('urea', 'lime', 'potash'), mass), { maxLength: 4 });
    const zones = fc.array(amounts, { minLength: 1, maxLength: 8 }).map((all) =>
      all.map((some, index) =>
        zone(
          `Z${index}`,
          [...new Map(some)].map(([id, kilograms]) => amount(id, kilograms)),
        ),
      ),
    );
    fc.assert(
      fc.property(zones, fc.integer({ min: 0, max: 6 }), (planned, stock) => {
        const { purchases, cost, saved } = buy(planned, stock, 31.7);
        const wanted = planned.flatMap(({ plan }) => plan.nutrients.map((each) => each.amount!));
        expect(new Set(purchases.map(({ productId }) => productId)).size).toBe(purchases.length);
        for (const { productId, mass: all, bags, leftover, zones: takers, cost: own, fewer } of purchases) {
          const sum = wanted.filter((each) => each.productId === productId).reduce((total, each) => total + each.mass.value, 0); // prettier-ignore
          expect(all.value).toBeCloseTo(sum, 6);
          expect((stock + bags.value) * BAG).toBeGreaterThanOrEqual(sum - 1e-6);
          if (bags.value > 0) expect((stock + bags.value - 1) * BAG).toBeLessThan(sum);
          expect(leftover.value).toBeCloseTo((stock + bags.value) * BAG - sum, 6);
          expect(takers.reduce((total, each) => total + each.cost!, 0)).toBeCloseTo(own!.value, 6);
          expect(fewer).toBeGreaterThanOrEqual(0);
          expect(JSON.stringify([all, bags, leftover])).not.toContain('31.7');
        }
        expect(cost!.value).toBeCloseTo(
          purchases.reduce((total, each) => total + each.bags.value * 31.7, 0),
          6,
        );
        expect(saved).toBeCloseTo(
          purchases.reduce((total, each) => total + each.fewer * 31.7, 0),
          6,
        );
      }),
    );
  });
});
