import fc from 'fast-check';
import { interactionTable } from '../src/program/interactions.ts';
import { type Given, by, materials, ppm, programOf } from './programScene.ts';

describe('a remedy', () => {
  it('keeps the months that a person sets, says which would suit, and puts further doses where they do', () => {
    const months = (given: number[], more: object = {}) =>
      by(programOf({ test: { soilPh: 5.2, buffer: { method: 'smp', ph: 6 } }, changes: [{ remedy: 'lime', months: given, ...more }] }).treatments, 'lime'); // prettier-ignore
    const numbers = ({ doses }: ReturnType<typeof months>) => doses.map(({ from }) => from && Number(from.slice(5, 7)));
    const own = ({ doses }: ReturnType<typeof months>) => doses.filter((dose) => dose.own).map(({ from }) => Number(from!.slice(5, 7))); // prettier-ignore
    const once = months([3]);
    expect(own(once)).toEqual([3]);
    expect(numbers(once)).toContain(3);
    // Two passes by the cap: the second is where lime suits, and nobody is told that it does not.
    expect([once.doses.length, once.when]).toEqual([2, expect.stringMatching(/^A pass carries no more, so one more dose goes into \w+\.$/)]); // prettier-ignore
    const cold = by(programOf({ changes: [{ remedy: 'wetting', added: true, months: [1], values: { times: 3 } }] }).treatments, 'wetting'); // prettier-ignore
    expect(own(cold)).toEqual([1]);
    expect(cold.when).toMatch(/^Set by hand to January: .*would suit this work here\. A pass carries no more, so 2 more doses go into /); // prettier-ignore
  });

  it('says how far the packs that are there go, and re-rates by what a test pack covered', () => {
    const there = (values: object) => by(programOf({ changes: [{ remedy: 'compost', key: 'mine', added: true, values: { material: 'Worm castings', ...values } }] }).treatments, 'mine'); // prettier-ignore
    // 14 × 20 L over 6 mm are 46.7 m²; for 200 m² 60 are wanted.
    expect(there({ packs: 14 }).words).toMatch(/14 packs cover 46\.7 m² at 6 mm, of the 200 m² here: 46 more/);
    // 20 L over 7 m² are 2.9 mm.
    const tested = there({ testArea: 7 });
    expect(tested.rate!.value).toBeCloseTo(20 / 7 / 10, 6);
    expect(tested.words).toMatch(/A pack covered 7 m²: that is 3 mm, and 29 packs/);
    expect(there({ testArea: 1 }).byHand!.held).toMatch(/turf takes, after coring, 12 mm a year at most/);
  });

  it.each<[string, Given, string, RegExp]>([
    ['sulfur on sour ground', { test: { soilPh: 5 }, changes: [{ remedy: 'sulfur', key: 'x', added: true, values: { rate: 9 } }] }, 'x', /no ground for sulfur/], // prettier-ignore
    ['sulfur on free lime', { test: { soilPh: 8.1, carbonate: 3 }, changes: [{ remedy: 'sulfur', key: 'x', added: true, values: { rate: 9 } }] }, 'x', /No sulfur/], // prettier-ignore
    ['lime above the band', { test: { soilPh: 7.4 }, changes: [{ remedy: 'lime', values: { rate: 100 } }] }, 'lime', /No lime here/], // prettier-ignore
    ['compost where there is phosphorus enough', { test: { nutrients: { p: ppm(200) } }, changes: [{ remedy: 'compost', key: 'x', added: true, values: { material: 'Composted biosolids' } }] }, 'x', /take leaf mould/], // prettier-ignore
    ['too thick a topdressing', { changes: [{ remedy: 'sand', key: 'x', added: true, values: { layer: 2, times: 1 } }] }, 'x', /smothers turf.*4 times/], // prettier-ignore
    ['more calcined clay than a mix takes', { changes: [{ remedy: 'clay', key: 'x', added: true, values: { tineDiameter: 2.5, spacingAlong: 4, spacingAcross: 4, passes: 2 } }] }, 'x', /never passes 25 %/], // prettier-ignore
    ['seed of a grass that has none', { zone: { grass: 'st augustinegrass' }, changes: [{ remedy: 'seed', key: 'x', added: true }] }, 'x', /plant sod/], // prettier-ignore
  ])('refuses %s, by hand too, and says why', (_what, given, key, words) => {
    const refused = by(programOf(given).treatments, key);
    expect([refused.status, refused.supply]).toEqual(['refused', null]);
    expect(refused.words).toMatch(words);
  });

  it('proposes two thirds fine fescue in deep shade, and warns of a mix that is none', () => {
    const shade = { surface: 'seedbed', shade: 'deep', sunHours: 2 } as const;
    const proposed = by(programOf({ zone: shade }).treatments, 'seed');
    expect(proposed.supply!.name).toMatch(/two thirds fine fescue/);
    expect(proposed.cautions).toEqual([]);
    const own = by(programOf({ zone: shade, changes: [{ remedy: 'seed', values: { material: 'Kentucky bluegrass seed' } }] }).treatments, 'seed'); // prettier-ignore
    expect(own.cautions.join()).toMatch(/Deep shade wants about two thirds fine fescue; this holds 0 %/);
    // What is tilled in goes down with the sowing, the feed after it a month later.
    const bed = programOf({ zone: { surface: 'seedbed' }, test: { soilPh: 5.4, buffer: { method: 'smp', ph: 6.4 }, nutrients: { p: ppm(10), k: ppm(50) } } }); // prettier-ignore
    const month = (key: string) => by(bed.treatments, key).doses.map(({ from }) => from!.slice(0, 7));
    expect([month('lime'), month('phosphorus'), month('potassium')]).toEqual([['2027-08'], ['2027-08'], ['2027-08']]);
    expect(month('nitrogen')[0]).toBe('2027-08');
    expect(by(bed.treatments, 'lime').doses).toHaveLength(1);
  });

  it('puts 250 kg of sand with 15 % peat on a small lawn: layer, peat and exchange capacity by hand', () => {
    const sand = by(programOf({ changes: [{ remedy: 'sand', key: 'x', added: true, values: { mass: 250, peat: 15, times: 3 } }] }).treatments, 'x'); // prettier-ignore
    // 250 kg / 1.55 / 0.85 are 190 L over 200 m²: 0.95 mm, three times.
    expect(sand.rate!.value).toBeCloseTo((3 * 250) / 1550 / 0.85 / 2, 6);
    expect(sand.supply!.quantity.value).toBeCloseTo(750 / 1550, 6);
    expect(sand.others[0]).toMatchObject({ name: 'Sphagnum peat', unit: 'm3' });
    expect(sand.others[0]!.quantity.value).toBeCloseTo((750 / 1550 / 0.85) * 0.15, 6);
    expect(sand.facts.map(({ name }) => name)).toEqual([
      'Exchange capacity of what is laid',
      'Water it holds for roots',
    ]);
  });

  it('never sprays more than the label allows, whatever a hand sets, and says what was asked for', () => {
    const own = (rate: number) => by(programOf({ changes: [{ remedy: 'wetting', key: 'w', added: true, values: { rate } }] }).treatments, 'w'); // prettier-ignore
    const label = own(0.1).values.rate as number;
    expect([label, own(0.1).byHand!.held]).toEqual([0.1, null]);
    const much = own(50);
    expect(much.values.rate).toBeLessThan(5);
    for (const { rate } of much.doses) expect(rate).toBeCloseTo(much.values.rate as number, 9);
    expect(much.byHand!.held).toMatch(/^50 mL\/m² was asked for; the label allows 1\.9 mL\/m² a spraying, and no more/);
  });

  it('tells the man who limes a bag a year without asking what ten years of it do', () => {
    const habit = by(programOf({ test: { soilPh: 6.4, organicMatter: 3 }, changes: [{ remedy: 'lime', values: { rate: 95 } }] }).treatments, 'lime'); // prettier-ignore
    const [ten] = habit.facts;
    // 89 g/m² of pure lime less 20 of the feed, over a loam of about 1.4 cmol/kg in 207 kg/m²: half a unit and more.
    expect(ten!.name).toMatch(/Every year for 10/);
    expect(ten!.figure.value).toBeGreaterThan(7);
    expect(ten!.figure.value).toBeLessThanOrEqual(8.2);
    expect(ten!.figure.working.map((step) => ('label' in step ? step.label : step.kind))).toContain(
      'Capacity of the slice',
    );
  });

  it('gives sward up, lays sod and sows after a weedkiller, each with its numbers and its wait', () => {
    const changes = [
      { remedy: 'clear', key: 'lift', added: true, values: { area: 60 } },
      { remedy: 'clear', key: 'kill', added: true, values: { how: 'kill', area: 60, noSeedingWeeks: 3 }, months: [8] },
      { remedy: 'seed', key: 'seed', added: true, values: { area: 60, wantedGrass: 66 }, months: [8] },
      { remedy: 'sod', key: 'sod', added: true, values: { area: 60, curves: true } },
    ] as const;
    const { treatments, findings } = programOf({ changes });
    // 60 m² × 4 cm × 1.3 are 3.1 m³, and 60 m² with a tenth cut away 66.
    expect(by(treatments, 'lift').facts[0]).toMatchObject({ told: '3.1 m³' });
    expect(by(treatments, 'lift').words).toMatch(/hired turf cutter/);
    expect(by(treatments, 'kill').words).toMatch(/3 weeks before anything is sown/);
    expect(by(treatments, 'sod').facts[0]!.figure.value).toBeCloseTo(66, 9);
    expect(by(treatments, 'seed').words).toMatch(/^With 66 % of the grass one wants: core or slit/);
    const wait = findings.find(({ key }) => key.startsWith('weedkiller and seed'))!;
    expect(wait.mend).toMatchObject({ change: { key: 'seed', months: [10] } });
  });

  it('puts what lies on filled or cleared ground after it, whatever month that was set to, and what comes before ahead of what was set', () => {
    const first = (changes: Given['changes'], key: string) =>
      by(programOf({ zone: { surface: 'seedbed' }, changes }).treatments, key).doses[0]!.from!.slice(0, 7);
    const clear = { remedy: 'clear', key: 'c', added: true, months: [8] } as const;
    const fill = { remedy: 'fill', key: 'f', added: true, values: { soil: 'topsoil', loads: 2 } } as const;
    expect(first([clear, fill], 'f') >= '2027-08').toBe(true);
    expect(first([clear, fill], 'seed') >= first([clear, fill], 'f')).toBe(true);
    // Sown in April by hand: the fill comes before it.
    expect(first([fill, { remedy: 'seed', months: [4] }], 'f') <= '2027-04').toBe(true);
    fc.assert(
      fc.property(
        fc.subarray(['clear', 'fill', 'core', 'sand', 'gypsum', 'drain', 'seed'] as const),
        fc.option(fc.integer({ min: 1, max: 12 })),
        (remedies, month) => {
          // prettier-ignore
          const { treatments, findings } = programOf({ changes: remedies.map((remedy, index) => ({ remedy, key: remedy, added: true, ...(index === 0 && month ? { months: [month] } : {}), values: remedy === 'fill' ? { soil: 'topsoil', loads: 2 } : remedy === 'gypsum' ? { rate: 100 } : remedy === 'sand' ? { layer: 0.3 } : {} })) }); // prettier-ignore
          const at = (remedy: string) => treatments.find((one) => one.remedy === remedy && one.status === 'planned')?.doses[0]?.from ?? undefined; // prettier-ignore
          for (const { key, order, one, other } of interactionTable.pairs)
            for (const before of order ? one : [])
              for (const after of other) {
                const [a, b] = [at(before), at(after)];
                // Where what a person has set leaves no room, that is told.
                if (a && b && a > b) expect([before, after, month !== null && findings.some((one_) => one_.key.startsWith(key))]).toEqual([before, after, true]); // prettier-ignore
              }
        },
      ),
    );
  });

  it('sprays mulch with its seed, feed and binder bought, counted and sown once, the feed within what a pass carries', () => {
    const sprayed = (values: Readonly<Record<string, unknown>>, more: Given = {}) =>
      programOf({ ...more, zone: { surface: 'seedbed', slope: 40, ...more.zone }, changes: [{ remedy: 'mulch', key: 'm', added: true, values }] }); // prettier-ignore
    const program = sprayed({ feed: 'Starter 18-24-12', fertilizer: 90 }, { test: { nutrients: { p: ppm(10), k: ppm(200) } } }); // prettier-ignore
    const mulch = by(program.treatments, 'm');
    // 200 m² at 250 g of mulch, 5 % of it binder; 1 lb N/1000 ft² is 4.8824 g/m², which 27.12 g of 18-24-12 hold.
    expect([mulch.supply!.quantity.value, mulch.supply!.packs.value]).toEqual([50, 3]);
    const [seed, feed, binder] = mulch.others;
    expect([seed!.name, feed!.name, binder!.name]).toEqual([
      'Sun mix: bluegrass and ryegrass',
      'Starter 18-24-12',
      'Guar binder',
    ]);
    expect(binder!.quantity.value).toBeCloseTo(2.5, 9);
    expect(feed!.quantity.value).toBeCloseTo(0.2 * 27.124, 2);
    expect(mulch.brings).toMatchObject({
      n: expect.closeTo(4.8824, 3) as number,
      p2o5: expect.closeTo(6.51, 2) as number,
    });
    expect(mulch.cautions.join()).toMatch(/90 g\/m² of Starter 18-24-12 was asked for; one pass on a seedbed/);
    expect(by(program.treatments, 'seed').status).toBe('left out');
    const names = program.balance.find(({ nutrient }) => nutrient === 'n')!.layers.map(({ key }) => key);
    expect(names).toContain('m');
    // What the tank brings of phosphorus comes off what is fed beside it.
    const alone = programOf({ zone: { surface: 'seedbed', slope: 40 }, test: { nutrients: { p: ppm(10), k: ppm(200) } } }); // prettier-ignore
    const fedP = (of: typeof alone) => of.balance.find(({ nutrient }) => nutrient === 'p2o5')!.total;
    expect(fedP(program)).toBeLessThanOrEqual(fedP(alone) * 1.02 + 0.1);
    const rich = by(sprayed({ feed: 'Starter 18-24-12', fertilizer: 20 }, { test: { nutrients: { p: ppm(200) } } }).treatments, 'm'); // prettier-ignore
    expect([rich.status, rich.words]).toEqual(['refused', expect.stringMatching(/phosphorus is very high here: take a feed/)]); // prettier-ignore
    const without = by(sprayed({}, { materials: materials.filter(({ material }) => material.kind !== 'binder') }).treatments, 'm'); // prettier-ignore
    expect([without.status, without.words]).toEqual(['open', expect.stringMatching(/Add the binder to your products/)]);
  });
});
