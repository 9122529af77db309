import fc from 'fast-check';
import catalogue from '../src/data/materials.json' with { type: 'json' };
import { nitrogenCaps } from '../src/nutrients/nitrogenPass.ts';
import {
  type Change,
  type ProgramInput,
  type Stocked,
  type Treatment,
  type ZoneFacts,
  climateNames,
  climateOf,
  convert,
  defaultSettings,
  differencesOf,
  grassNames,
  planned,
  programZone,
  readChange,
  readMaterial,
  remedyTable,
  soilGroups,
  surfaces,
  yearAhead,
} from '../src/index.ts';

const materials: readonly Stocked[] = (catalogue.materials as readonly unknown[]).map((raw) => {
  const material = readMaterial(raw);
  return { id: material.name, material, price: 10 };
});
const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const lawn: ZoneFacts = {
  ...{ name: 'Lawn', area: 200, grass: 'kentucky bluegrass', surface: 'turf', intensity: 'medium', soilGroup: 'loam' },
  ...{ shade: 'full sun', clippings: 'removed' },
} as const;
const maritime = climateOf({ climate: 'cool maritime' });

type Given = Partial<Omit<ProgramInput, 'zone' | 'test' | 'changes'>> & {
  readonly zone?: Partial<ZoneFacts>;
  readonly test?: Partial<NonNullable<ProgramInput['test']>> | null;
  readonly changes?: ReadonlyArray<Partial<Change>>;
};

function programOf({ zone = {}, test = {}, changes = [], ...more }: Given = {}) {
  return programZone({
    zone: { ...lawn, ...zone },
    test:
      test === null
        ? undefined
        : { soilPh: 6.4, extractant: 'mehlich-3', depth: 15.24, organicMatter: 3.5, nutrients: { p: ppm(40), k: ppm(200) }, ...test }, // prettier-ignore
    changes: changes.map((change) => readChange({ reason: 'as agreed', key: change.remedy, ...change })),
    ...{ materials, system: 'metric', from: '2026-11-27', climate: maritime },
    ...more,
  }).program;
}
const by = (treatments: readonly Treatment[], key: string): Treatment => treatments.find((one) => one.key === key)!;
const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const day = (text: string): number => Date.parse(text) / 86_400_000;

describe('a program', () => {
  const zones = fc.record({
    grass: fc.constantFrom(...grassNames),
    surface: fc.constantFrom(...surfaces),
    soilGroup: fc.constantFrom(...soilGroups),
    intensity: fc.constantFrom('low', 'medium', 'high'),
    shade: fc.constantFrom('full sun', 'part', 'deep'),
    clippings: fc.constantFrom('returned', 'removed'),
    area: fc.double({ min: 5, max: 9000, noNaN: true }),
    measured: fc.record({
      probeStop: fc.constantFrom(undefined, 6, 30),
      thatch: fc.constantFrom(undefined, 0.3, 3),
      waterDrop: fc.constantFrom(undefined, 700),
      percolationSlowest: fc.constantFrom(undefined, 1, 30),
    }),
  });
  const reports = fc.record({
    soilPh: fc.double({ min: 4.3, max: 8.9, noNaN: true }).map((ph) => Math.round(ph * 10) / 10),
    organicMatter: fc.double({ min: 0.5, max: 25, noNaN: true }),
    cec: fc.double({ min: 2, max: 40, noNaN: true }),
    esp: fc.constantFrom(undefined, 2, 9, 22),
    ec: fc.constantFrom(undefined, 1, 7),
    buffer: fc.constantFrom(undefined, { method: 'smp', ph: 6.2 }, { method: 'mehlich', ph: 6 }),
    nutrients: fc
      .tuple(fc.integer({ min: 2, max: 200 }), fc.integer({ min: 10, max: 400 }), fc.integer({ min: 10, max: 600 }))
      .map(([p, k, mg]) => ({ p: ppm(p), k: ppm(k), mg: ppm(mg) })),
  });
  const rate = fc.double({ min: 0.5, max: 3000, noNaN: true });
  const byHand: fc.Arbitrary<ReadonlyArray<Partial<Change>>> = fc.subarray<Partial<Change>>(
    [
      { remedy: 'core', key: 'a', added: true },
      { remedy: 'sand', key: 'b', added: true, values: { layer: 0.4, peat: 15 } },
      { remedy: 'wetting', key: 'c', added: true, values: { tank: 100 } },
      { remedy: 'seed', key: 'd', added: true },
      { remedy: 'compost', key: 'e', added: true, values: { layer: 0.5 } },
      { remedy: 'sulfur', key: 'f', added: true, values: { rate: 400 } },
      { remedy: 'iron', key: 'g', added: true, values: { rate: 40 } },
      { remedy: 'potassium', out: 'left out' },
      { remedy: 'nitrogen', months: [1, 7] },
    ],
    { maxLength: 5 },
  );

  it('of any zone and report keeps every cap, adds up, and says how each number came about', () => {
    fc.assert(
      fc.property(
        zones,
        reports,
        byHand,
        fc.option(rate, { nil: undefined }),
        fc.constantFrom(...climateNames),
        fc.constantFrom('metric', 'us'),
        (zone, test, more, own, climate, system) => {
          const changes = own === undefined ? more : [...more.filter(({ months }) => !months), ...(['lime', 'nitrogen', 'phosphorus'] as const).map((remedy) => ({ remedy, values: { rate: own } }))]; // prettier-ignore
          const program = programOf({ zone, test: test, changes, system, climate: climateOf({ climate }) });
          const { treatments, balance, judged } = program;
          const now = planned(treatments);
          const slack = 1.0015;

          // The order of work, and doses that add up to the rate and to what is weighed out.
          expect(treatments.map(({ stage }) => stage)).toEqual(
            [...treatments.map(({ stage }) => stage)].sort((a, b) => a - b),
          );
          for (const { doses, rate: total, supply, sense, facts, name, key } of now) {
            expect(doses.length).toBeGreaterThan(0);
            if (!total || key.startsWith('core')) continue;
            expect([name, total.working.length]).not.toEqual([name, 0]);
            for (const { figure } of facts) expect(figure.working.length).toBeGreaterThan(0);
            if (sense !== 'count') expect(doses.reduce((sum, one) => sum + one.rate, 0)).toBeCloseTo(total.value, 6);
            if (!supply) continue;
            expect(supply.packs.working.length).toBeGreaterThan(0);
            expect(supply.packs.value * supply.packSize).toBeGreaterThanOrEqual(supply.quantity.value - 1e-6);
            if (doses.every(({ quantity }) => quantity !== null))
              expect(doses.reduce((sum, one) => sum + one.quantity!, 0)).toBeCloseTo(supply.quantity.value, 4);
          }

          // No cap of a pass or of a year, whoever asked for more.
          const { surface } = zone;
          const lime = now.filter(({ remedy }) => remedy === 'lime');
          const once = { turf: 50, 'fine turf': 25, seedbed: 150 }[surface];
          for (const dose of lime.flatMap(({ doses }) => doses))
            expect(dose.rate).toBeLessThanOrEqual(grams(once) * slack);
          expect(lime.flatMap(({ doses }) => doses).length).toBeLessThanOrEqual(surface === 'seedbed' ? 1 : 2);
          for (const { supply, doses, brings, rate: total } of now.filter(
            ({ remedy }) => remedy === 'nitrogen' || remedy === 'phosphorus' || remedy === 'potassium',
          )) {
            const slow = materials.find(({ id }) => id === supply!.materialId)!.material.analysis.slowRelease ?? 0;
            const share = brings.n / total!.value;
            const caps = nitrogenCaps(surface, slow);
            for (const dose of doses) {
              expect(dose.rate * share).toBeLessThanOrEqual(caps.total * slack);
              expect(dose.rate * share * (1 - slow / 100)).toBeLessThanOrEqual(caps.soluble * slack);
            }
          }
          for (const { doses, supply } of now.filter(({ remedy }) => remedy === 'sulfur')) {
            const content = materials.find(({ id }) => id === supply!.materialId)!.material.analysis.s!;
            for (const dose of doses) expect((dose.rate * content) / 100).toBeLessThanOrEqual(grams(surface === 'fine turf' ? 0.5 : 5) * slack); // prettier-ignore
          }
          const layers = now.filter(({ remedy }) => remedy === 'compost' && surface !== 'seedbed');
          for (const { rate: total } of layers) expect(total!.value).toBeLessThanOrEqual(1.2 * slack);

          // The balance is the sum of what each treatment brings, and nothing is over in silence.
          for (const line of balance) {
            expect(line.total).toBeCloseTo(
              now.reduce((sum, { brings }) => sum + brings[line.nutrient], 0),
              6,
            );
            if (line.verdict === 'over')
              expect(program.findings.map(({ key }) => key)).toContain(`over ${line.nutrient}`);
          }
          // No product brings phosphorus where it is refused; compost is stopped where there is plenty.
          const phosphate = balance.find(({ nutrient }) => nutrient === 'p2o5');
          const products = now.filter(({ remedy }) => remedy !== 'compost').reduce((sum, { brings }) => sum + brings.p2o5, 0); // prettier-ignore
          if (
            judged.some(({ remedy, status }) => remedy === 'p2o5' && status !== 'refused') ||
            test.nutrients.p.value > 60
          )
            expect(products).toBeLessThanOrEqual((phosphate?.most ?? 0) * slack + 1e-6);
          for (const { supply } of now.filter(
            ({ remedy }) => remedy === 'compost' && test.nutrients.p.value > 60 && test.soilPh <= 7,
          ))
            // prettier-ignore
            expect(materials.find(({ id }) => id === supply!.materialId)!.material.analysis.p2o5).toBeLessThanOrEqual(0.3);

          // Lime and sulfur never together, unless both were forced; and then it is said.
          if (lime.length > 0 && now.some(({ remedy }) => remedy === 'sulfur'))
            expect(program.findings.some(({ words }) => words.includes('sulfur lowers'))).toBe(true);
          // Lime keeps two weeks from what it drives off.
          for (const { from, to, own: set } of lime.flatMap(({ doses }) => doses))
            for (const feed of now.filter(({ remedy }) => remedy === 'nitrogen').flatMap(({ doses }) => doses))
              if (from && to && feed.from && feed.to && !set && !feed.own && surface !== 'seedbed')
                expect(Math.max(day(feed.from) - day(to), day(from) - day(feed.to))).toBeGreaterThanOrEqual(14);
          expect(program.cost).not.toBeNull();
        },
      ),
      { numRuns: 200 },
    );
  });

  it('begins each job in a month that suits it, and none in a frozen one', () => {
    const acid = { soilPh: 5.2, buffer: { method: 'smp', ph: 6.4 }, organicMatter: 2, nutrients: { p: ppm(20), k: ppm(60) } } as const; // prettier-ignore
    const cold = programOf({
      test: acid,
      zone: { measured: { probeStop: 5 } },
      climate: climateOf({ climate: 'cold inland' }),
    });
    const months = (key: string) => by(cold.treatments, key).doses.map(({ from }) => from?.slice(0, 7));
    // Mean lows of the class lie above freezing from May to September only.
    for (const month of [...months('lime'), ...months('nitrogen')])
      expect(Number(month!.slice(5))).toBeGreaterThanOrEqual(4);
    expect(months('core')[0]! <= (months('compost')[0] ?? '9')).toBe(true);
    const unknown = programOf({ test: acid, climate: undefined });
    expect(unknown.year).toBeNull();
    expect(by(unknown.treatments, 'lime').doses.every(({ from }) => from === null)).toBe(true);
  });

  it('spreads nitrogen as the grass grows: a warm-season grass is fed in its summer, none in a blackout', () => {
    const bermuda = { grass: 'bermudagrass', intensity: 'high' } as const;
    const coast = climateOf({ climate: 'warm coast' });
    const fed = by(programOf({ zone: bermuda, climate: coast }).treatments, 'nitrogen').doses;
    expect(fed.map(({ from }) => Number(from!.slice(5, 7)))).toEqual([5, 7, 8, 9]);
    expect(fed.every(({ rate }) => rate * 0.43 <= grams(1.5) * 1.0015)).toBe(true);
    // 6 lb N less 0.15 of organic matter, as 43 %: 13.6 lb of product.
    expect(fed.reduce((sum, { rate }) => sum + rate, 0)).toBeCloseTo(grams(13.6), -1);
    const year = yearAhead('2026-11-27', coast, 'warm', [{ from: '05-01', to: '06-30', what: 'nitrogen' }])!;
    expect(year.months[0]!.month).toBe('2026-12');
    const ruled = programOf({
      ...{ zone: bermuda, climate: coast },
      settings: {
        ...defaultSettings,
        rules: { name: 'Code', source: 'x', phosphorus: 'shortage', blackouts: year.blackouts },
      },
    });
    for (const { from } of by(ruled.treatments, 'nitrogen').doses)
      expect(['05', '06']).not.toContain(from?.slice(5, 7));
  });

  it('takes compost’s nitrogen off the feeding, and half of the year’s need at most', () => {
    const poor = { organicMatter: 2.2, nutrients: { p: ppm(20), k: ppm(60) } };
    const [with_, without] = [
      programOf({ test: poor }),
      programOf({ test: poor, changes: [{ remedy: 'compost', out: 'left out' }] }),
    ];
    const brought = by(with_.treatments, 'compost').brings;
    // 6 mm × 0.55 × 55 % × 1.5 % × 12 % of 10 000 cm²: 3.27 g/m².
    expect(brought.n).toBeCloseTo(3.267, 2);
    const fed = (program: typeof with_) => by(program.treatments, 'nitrogen').brings.n;
    expect(fed(without) - fed(with_)).toBeCloseTo(3.267, 0);
    const rich = programOf({
      test: poor,
      changes: [{ remedy: 'compost', values: { material: 'Worm castings', layer: 1.2 } }],
    });
    expect(by(rich.treatments, 'nitrogen').brings.n).toBeGreaterThan(fed(without) * 0.45);
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

  it('finds what works against what, in any order, and its mend makes it good', () => {
    const acid = { soilPh: 5.2, buffer: { method: 'smp', ph: 6.4 } } as const;
    const given: Given = { test: acid, changes: [{ remedy: 'lime', months: [6, 6] }] };
    const before = programOf(given);
    const found = before.findings.find(({ key }) => key.startsWith('lime and nitrogen'))!;
    expect(found.between).toEqual(['Lime', 'Nitrogen']);
    const mended = programOf({ ...given, changes: [...given.changes!, { values: {}, ...found.mend!.change }] });
    expect(mended.findings.some(({ key }) => key.startsWith('lime and nitrogen'))).toBe(false);
    const seeded = programOf({ changes: [{ remedy: 'seed', key: 's', added: true }, { remedy: 'nitrogen', values: { material: 'Corn gluten meal 9-0-0' } }] }); // prettier-ignore
    expect(seeded.findings.map(({ words }) => words).join()).toMatch(/keeps seed from rooting/);
  });

  it('tells what is another than what was handed over, and nothing where an owner would do the same', () => {
    const before = programOf({ test: { soilPh: 5.2, buffer: { method: 'smp', ph: 6.4 } } });
    expect(differencesOf(before, before, 'us')).toEqual([]);
    const after = programOf({
      test: { soilPh: 5.9, buffer: { method: 'smp', ph: 6.7 } },
      changes: [
        { remedy: 'core', key: 'x', added: true },
        { remedy: 'nitrogen', out: 'next year' },
      ],
    });
    const told = differencesOf(before, after, 'us').join(' ');
    expect(told).toMatch(/Coring: new/);
    expect(told).toMatch(/Lime: \d+ lb\/1000 ft² instead of \d+ lb\/1000 ft²/);
    expect(told).toMatch(/Nitrogen: no more\./);
  });

  it('keeps what was set by hand when a later test asks for none, and says so', () => {
    const own = { remedy: 'lime', values: { rate: 120 }, reason: 'every second year' } as const;
    const kept = by(programOf({ test: { soilPh: 6.6 }, changes: [own] }).treatments, 'lime');
    expect(kept).toMatchObject({ status: 'planned', byHand: { reason: 'every second year' } });
    expect(kept.words).toMatch(/The test asks for none: kept by hand/);
    expect(programOf({ test: { soilPh: 6.6 } }).treatments.some(({ key }) => key === 'lime')).toBe(false);
    const bare = programOf({ test: null, changes: [own] });
    expect(bare.treatments.map(({ key }) => key)).toEqual(['lime']);
    expect(bare.judged.map(({ status }) => status)).toEqual(['cannot say', 'cannot say', 'cannot say']);
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

  it('names what is not hunger, to be ruled out before it is fed', () => {
    const seen = programOf({ zone: { signs: ['small straw spots', 'grey threads'] } }).judged;
    expect(seen[0]).toMatchObject({ name: 'To rule out', status: 'cannot say' });
    expect(seen[0]!.words).toMatch(/small straw spots, grey threads.*disease, grubs/);
    expect(programOf({ zone: { signs: ['moss'] } }).judged.find(({ remedy }) => remedy === 'weeds')!.words).toMatch(
      /Moss fills/,
    );
  });

  it('has a place in the order of work for every remedy, each its own', () => {
    const stages = remedyTable.remedies.map(({ stage }) => stage);
    expect(new Set(stages).size).toBe(stages.length);
    expect([...stages].sort((a, b) => a - b)).toEqual(stages);
  });
});
