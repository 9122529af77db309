import fc from 'fast-check';
import {
  NOTHING,
  type ShoppingList,
  type Supply,
  type Treatment,
  type ZoneToSupply,
  shoppingList,
} from '../src/index.ts';

const BAG = 20;
const figure = (value: number) => ({ value, working: [] });
const supply = (materialId: string, quantity: number, more: Partial<Supply> = {}): Supply => ({
  ...{ materialId, name: materialId.toUpperCase(), quantity: figure(quantity), unit: 'kg', packSize: BAG, cost: null },
  packs: figure(Math.ceil(quantity / BAG - 1e-9)),
  ...more,
});
const treatment = (more: Partial<Treatment>): Treatment =>
  ({
    remedy: 'nitrogen',
    status: 'planned',
    supply: null,
    others: [],
    price: null,
    brings: NOTHING,
    name: 'Feed',
    ...more,
  }) as Treatment;
const zone = (name: string, supplies: readonly Supply[], more: readonly Treatment[] = []): ZoneToSupply => ({
  ...{ zoneId: `id ${name}`, zone: name },
  treatments: [...supplies.map((each) => treatment({ supply: each })), ...more],
});
const buy = (zones: readonly ZoneToSupply[], stock = 0, price: number | null = 30): ShoppingList =>
  shoppingList(zones, () => stock, () => price, 'metric', '$'); // prettier-ignore

describe('one list to buy', () => {
  it('buys one bag for two lawns that want 4 and 6 kg, and tells what stays and what each owes', () => {
    const { purchases, cost, saved } = buy([zone('North', [supply('urea', 4)]), zone('South', [supply('urea', 6)])]);
    const [urea] = purchases;
    expect(urea).toMatchObject({ fewer: 1, stock: 0 });
    expect([urea!.quantity.value, urea!.packs.value, urea!.leftover.value]).toEqual([10, 1, 10]);
    expect(urea!.zones.map(({ zone: name, quantity, cost: share }) => [name, quantity, share])).toEqual([
      ['North', 4, 12],
      ['South', 6, 18],
    ]);
    expect([cost!.value, saved]).toEqual([30, 30]);
  });

  it('is brought once for all zones, in as many loads as it takes; what is there already is not brought', () => {
    const delivery = { price: 45, load: 8 };
    const loose = (quantity: number) => supply('compost', quantity, { unit: 'm3', packSize: 1, delivery });
    // 5 + 6 m³ at $30, in two loads of 8.
    expect(buy([zone('North', [loose(5)]), zone('South', [loose(6)])]).cost!.value).toBe(11 * 30 + 2 * 45);
    expect(buy([zone('North', [loose(5)]), zone('South', [loose(6)])], 4).cost!.value).toBe(7 * 30 + 45);
    expect(buy([zone('North', [loose(5)])], 5).cost!.value).toBe(0);
    const all = { ...delivery, load: null };
    expect(buy([zone('North', [{ ...loose(50), delivery: all }])]).cost!.value).toBe(50 * 30 + 45);
  });

  it('counts the bags that are there first, and buys none where they do', () => {
    const list = buy([zone('North', [supply('urea', 35)])], 3);
    expect([list.purchases[0]!.packs.value, list.purchases[0]!.leftover.value, list.cost!.value]).toEqual([0, 25, 0]);
    // Nothing that is not bought wants a price.
    expect(buy([zone('North', [supply('urea', 35)])], 3, null).unpriced).toEqual([]);
    const open = buy([zone('North', [supply('urea', 35)])], 1, null);
    expect([open.unpriced, open.cost, open.saved, open.purchases[0]!.zones[0]!.cost]).toEqual([['UREA'], null, null, null]); // prettier-ignore
  });

  it('tells what is wanted and has no product, adds what firms ask, and leaves out what is left out', () => {
    const list = buy([
      zone('North', [], [
        treatment({ name: 'Gypsum', status: 'open', words: 'Add gypsum to your products first.' }),
        treatment({ name: 'Drainage', words: 'By the ditcher.', price: figure(400) }),
        treatment({ status: 'left out', supply: supply('lime', 50) }),
        treatment({ status: 'next year', supply: supply('lime', 50), price: figure(900) }),
      ]),
    ]); // prettier-ignore
    expect(list).toMatchObject({
      purchases: [],
      work: [{ zone: 'North', name: 'Drainage', price: 400 }],
      unlisted: [{ zone: 'North', name: 'Gypsum', told: 'Add gypsum to your products first.' }],
    });
    expect(list.cost!.value).toBe(400);
  });

  it('orders what comes loose by the tenth of a cubic metre, less what lies there', () => {
    const loose = { unit: 'm3', packSize: 1 } as const;
    const [compost] = buy([zone('N', [supply('compost', 1.23, loose)]), zone('S', [supply('compost', 0.4, loose)])], 1).purchases; // prettier-ignore
    expect([compost!.packs.value, compost!.fewer]).toEqual([0.7, 0]);
    expect(compost!.leftover.value).toBeCloseTo(0.07, 9);
  });

  it('is enough and no bag more, whatever the zones take; shares add up, and no working but the cost’s tells a price', () => {
    const mass = fc.double({ min: 0.01, max: 500, noNaN: true });
    const amounts = fc.array(fc.tuple(fc.constantFrom('urea', 'lime', 'potash'), mass), { maxLength: 4 });
    const zones = fc.array(amounts, { minLength: 1, maxLength: 8 }).map((all) =>
      all.map((some, index) =>
        zone(
          `Z${index}`,
          [...new Map(some)].map(([id, kilograms]) => supply(id, kilograms)),
        ),
      ),
    );
    fc.assert(
      fc.property(zones, fc.integer({ min: 0, max: 6 }), (planned, stock) => {
        const { purchases, cost, saved } = buy(planned, stock, 31.7);
        const wanted = planned.flatMap(({ treatments }) => treatments.map((each) => each.supply!));
        expect(new Set(purchases.map(({ materialId }) => materialId)).size).toBe(purchases.length);
        for (const { materialId, quantity: all, packs: bags, leftover, zones: takers, cost: own, fewer } of purchases) {
          const sum = wanted.filter((each) => each.materialId === materialId).reduce((total, each) => total + each.quantity.value, 0); // prettier-ignore
          expect(all.value).toBeCloseTo(sum, 6);
          expect((stock + bags.value) * BAG).toBeGreaterThanOrEqual(sum * 0.999 - 1e-6);
          if (bags.value > 0) expect((stock + bags.value - 1) * BAG).toBeLessThan(sum);
          expect(leftover.value).toBeCloseTo(Math.max(0, (stock + bags.value) * BAG - sum), 5);
          expect(takers.reduce((total, each) => total + each.cost!, 0)).toBeCloseTo(own!.value, 6);
          expect(fewer).toBeGreaterThanOrEqual(0);
          expect(JSON.stringify([all, bags, leftover])).not.toContain('31.7');
        }
        expect(cost!.value).toBeCloseTo(
          purchases.reduce((total, each) => total + each.packs.value * 31.7, 0),
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
