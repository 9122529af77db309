import fc from 'fast-check';
import {
  climateNames,
  climateOf,
  mowingAdvice,
  normalYear,
  rerate,
  emergenceOf,
  ledgerOf,
  overCard,
  planned,
  plannedEntry,
  seedWater,
  sinceOf,
  sodCare,
  soilGroups,
  thirstiestWeek,
  waterWeek,
  wateringTable,
  workCard,
  yearOf,
} from '../src/index.ts';
import { by, materials, ppm, programOf } from './programScene.ts';

const materialOf = (id: string) => materials.find((one) => one.id === id)!.material;

describe('on the lawn', () => {
  it('a card weighs out edges and two ways that make the whole, and says what is not known', () => {
    const material = materialOf('Pelletised calcitic lime');
    const job = { remedy: 'lime', name: 'Lime', rate: 200, sense: 'limeRate', quantity: 40, unit: 'kg', material, cautions: [] } as const; // prettier-ignore
    const zone = { name: 'Court', area: 200, border: 60, bare: false, irrigation: 'none' };
    const machine = { name: 'Drop spreader', kind: 'drop spreader', width: 0.6, holds: 20 };
    const card = workCard(job, zone, machine, 'metric');
    const { portions, quantity } = card.weigh!;
    expect(portions.map((one) => one.words)).toHaveLength(3);
    expect(portions.reduce((sum, one) => sum + one.quantity, 0)).toBeCloseTo(quantity, 9);
    // 60 m of border × 0.6 m of 200 m²: 18 % of 40 kg, by hand.
    expect(portions[0]!.quantity).toBeCloseTo(7.2, 9);
    expect(card.parts.set.join(' ')).toMatch(/No setting was tried .*test strip.* 2 fills/);
    expect(card.wear.join(' ')).toMatch(/dust mask/);
    expect(workCard(job, zone, null, 'us').parts.set[0]).toMatch(/No machine is chosen/);
  });

  it('a card loads all that goes into a mix, and what went down is counted thing by thing', () => {
    const feed = materialOf('Urea 46-0-0');
    const mixed = [{ productId: 'u', name: feed.name, quantity: 4, unit: 'kg', material: feed }] as const;
    const own = { name: 'Mulch', rate: 250, sense: 'productRate', quantity: 50, unit: 'kg', cautions: [] } as const;
    const job = { ...own, remedy: 'mulch', material: materialOf('Wood-fibre mulch'), mixed } as const;
    const card = workCard(job, { name: 'Bank', area: 200, bare: true }, null, 'metric');
    // 60 g of fibre a litre: 50 kg take 833 L, one tank of the usual 1000 L.
    expect(card.tanks.join(' ')).toMatch(/Tank 1: 833 L of water, 50 kg of Wood-fibre mulch, 4 kg of Urea 46-0-0/);
    expect(card.parts.load[1]).toMatch(/^Urea 46-0-0: 4 kg, 4 kg of a bag/);
    expect(card.weigh!.portions).toEqual([]);
    // A knapsack for a whole bank is refused in words; the other cards of the week stand.
    const tiny = { name: 'Knapsack', kind: 'sprayer', holds: 0.5 };
    expect(workCard({ ...job, quantity: 500 }, { name: 'Bank', area: 2000, bare: true }, tiny, 'metric').tanks).toEqual([expect.stringMatching(/^Choose another machine for this: Tank was given/)]); // prettier-ignore
    const toDo = { ...job, id: 'j', zoneId: 'z', state: 'open', productId: 'm' };
    const entry = plannedEntry(toDo, '2027-04-01', 200, (id) => (id === 'u' ? feed : job.material));
    // 250 kg of sand at 1.55 are 161 L, 0.081 cm of the 0.095 cm that they lie with their peat; twice of it is twice.
    const sand = { ...toDo, remedy: 'sand', sense: 'layer', rate: 0.095, quantity: 0.1613, unit: 'm3', productId: 's', mixed: [{ productId: 'p', name: 'Peat', quantity: 0.0285, unit: 'm3' }] } as const; // prettier-ignore
    const laid = plannedEntry(sand, '2027-06-01', 200, (id) => (id === 's' ? materialOf('Topdressing sand, medium') : undefined)); // prettier-ignore
    expect([laid.rate, laid.unit]).toEqual([expect.closeTo(0.08065, 5), 'cm']);
    expect(overCard({ quantity: 0.3226, rate: 0.1613 }, sand, 200)).toBeCloseTo(2, 9);
    // 4 kg × 46 % over 200 m².
    expect(ledgerOf([entry], 200, yearOf(2027)).done.n).toBeCloseTo(9.2, 9);
    expect(sinceOf([entry], '2027-04-11', 'cool')).toContainEqual({ job: 'soluble fertilizer', days: 10 });
  });

  it('a tally half-way evens out the rest, but never over what a pass may carry', () => {
    const half = { area: 200, done: 100, quantity: 40, used: 25 };
    const over = rerate(half);
    expect([over.soFar, over.rest, over.leftOver].map((one) => Number(one.toFixed(9)))).toEqual([1.25, 0.75, 0]);
    expect(rerate({ ...half, used: 12 })).toMatchObject({ rest: 1, forRest: 20, leftOver: 8, held: true });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 199 }), fc.integer({ min: 0, max: 60 }), (done, used) => {
        const found = rerate({ area: 200, done, quantity: 40, used });
        expect(found.rest).toBeLessThanOrEqual(1);
        expect(found.forRest + found.leftOver).toBeCloseTo(Math.max(0, 40 - used), 6);
      }),
    );
  });

  it('water comes in cycles on a clay slope, by half in shade, and for seed little and often, then tapering', () => {
    const year = normalYear(climateOf({ climate: climateNames[2]! })!, 'cool', 40);
    const zone = { season: 'cool', soilGroup: 'clay', slope: 12, deepShade: false } as const;
    const july = waterWeek(year, '2027-07-05', zone, 'metric')!;
    expect(july.cycles.length).toBeGreaterThan(1);
    expect(july.soakings * july.each).toBeCloseTo(july.water, 9);
    const shaded = waterWeek(year, '2027-07-05', { ...zone, deepShade: true }, 'metric')!;
    expect(shaded.use).toBeCloseTo(july.use / 2, 9);
    expect(
      waterWeek(normalYear(climateOf({ climate: climateNames[0]! })!, 'cool'), '2027-07-05', zone, 'us'),
    ).toBeUndefined();
    const seed = seedWater('2027-09-05', [7, 14], year, { soilGroup: 'loam', deepShade: false }, 'metric');
    expect(seed.map(({ runs, every }) => [runs, every])).toEqual([
      [3, 1],
      [1, 1],
      [1, 3],
    ]);
    // Up after three quarters of 7 to 14 days: the twelfth.
    expect(seed.map(({ from }) => from)).toEqual(['2027-09-05', '2027-09-17', '2027-10-01']);
    // A mix is watered until the slowest of it is up, and every place tells the same days.
    const mix = emergenceOf(['perennial ryegrass', 'kentucky bluegrass'])!;
    expect([mix, emergenceOf(['st augustinegrass'])]).toEqual([[5, 28], undefined]);
    const { treatments } = programOf({ zone: { surface: 'seedbed', mix: [{ grass: 'kentucky bluegrass', share: 60 }, { grass: 'perennial ryegrass', share: 40 }] } }); // prettier-ignore
    expect(by(treatments, 'seed').words).toContain(`Up in ${mix[0]} to ${mix[1]} days`);
  });

  it('what compost brings to a seedbed leaves no nutrient “without a rate”: it is told beside, as none to buy', () => {
    const { treatments, judged } = programOf({ zone: { surface: 'seedbed' }, test: { organicMatter: 2.1, nutrients: { p: ppm(12), k: ppm(60) } } }); // prettier-ignore
    const shares = ['nitrogen', 'phosphorus', 'potassium'] as const;
    expect(planned(treatments).map(({ key }) => key)).toContain('compost');
    expect(treatments.filter(({ key, status }) => shares.some((one) => one === key) && status === 'open')).toEqual([]);
    expect(judged.find(({ name }) => name.startsWith('Nitrogen'))).toMatchObject({ status: 'none', words: expect.stringMatching(/bring it already/) as string }); // prettier-ignore
  });

  it('sod is soaked, kept moist until it holds, and fed a month later unless a starter lies beneath', () => {
    const year = normalYear(climateOf({ climate: 'temperate inland' })!, 'cool', 40);
    const { water, words } = sodCare('2027-05-01', year, { cut: 8, starter: false }, 'metric');
    expect(water.map(({ from, to, depth, every }) => [from, to, depth, every])).toEqual([
      ['2027-05-01', '2027-05-01', 25, 1],
      ['2027-05-02', '2027-05-22', expect.any(Number), 1],
      ['2027-05-23', '2027-06-19', 25, 7],
    ]);
    expect(water[1]!.depth * water[1]!.runs).toBeGreaterThanOrEqual(5);
    expect(water[1]!.depth * water[1]!.runs).toBeLessThanOrEqual(8);
    expect(words.join(' ')).toMatch(/until it holds, 2027-05-15 to 2027-05-22.*a third above its height to 8 cm.*First feed 2027-05-29 to 2027-06-12/); // prettier-ignore
    expect(sodCare('2027-05-01', undefined, { starter: true }, 'us').words.at(-1)).toMatch(/not before 2027-06-12/);
  });

  it('water of any week is what is missing, in soakings that the roots can use or that reach them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...climateNames),
        fc.integer({ min: 0, max: 51 }),
        fc.constantFrom(...soilGroups),
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 3, max: 30 }),
        fc.boolean(),
        (climate, week, soilGroup, slope, rootDepth, deepShade) => {
          const year = normalYear(climateOf({ climate })!, 'cool', 42);
          const zone = { season: 'cool', soilGroup, slope, rootDepth, deepShade } as const;
          const monday = new Date(Date.UTC(2027, 0, 4 + 7 * week)).toISOString().slice(0, 10);
          const found = waterWeek(year, monday, zone, 'metric')!;
          const { use, rain, water, soakings, each, cycles } = found;
          expect(water).toBeLessThanOrEqual(Math.min(wateringTable.weekMost, Math.max(0, use - rain)) + 1e-9);
          expect(soakings * each).toBeCloseTo(water, 9);
          const holds = (wateringTable.availableWater[soilGroup] * rootDepth * 10 * wateringTable.depletion) / 100;
          if (soakings > 1) expect(each).toBeGreaterThanOrEqual(Math.min(holds, wateringTable.soakingLeast) / 2);
          if (holds >= wateringTable.soakingLeast && soakings < 7) expect(each).toBeLessThanOrEqual(holds + 1e-9);
          expect(cycles.length === 0).toBe(water === 0);
          // A timer that is set to these gives what is told, no more.
          const given = cycles.reduce((sum, { run }) => sum + (run / 60) * wateringTable.precipitation, 0);
          expect(given).toBeCloseTo(each, 9);
          expect(thirstiestWeek(year, '2027-01-04', zone, 'metric')!.water).toBeGreaterThanOrEqual(water - 1e-9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('a green is mown as a green and its clippings go where the zone says; no lawn is cut so low', () => {
    const sward = { grass: 'creeping bentgrass', top: false, fineTurf: true, clippings: 'removed' };
    expect(mowingAdvice(sward, 'us')!.words).toMatch(
      /^Set the mower to 0\.16 in; cut before the grass stands 0\.24 in.*Take the clippings off\. .*from 0\.5 in, 0\.06 in a week\.$/,
    );
    expect(mowingAdvice(sward, 'metric')!.words).toMatch(/^Set the mower to 4 mm/);
    const lawn = mowingAdvice({ ...sward, grass: 'kentucky bluegrass', fineTurf: false, clippings: 'returned' }, 'us')!;
    expect(lawn.words).toMatch(/^Set the mower to 2\.5 in; .*Leave the clippings\.$/);
    expect(lawn.cutAt).toBeCloseTo(lawn.height * 1.5, 9);
  });
});
