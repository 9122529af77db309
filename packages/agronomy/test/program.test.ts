import fc from 'fast-check';
import { nitrogenCaps } from '../src/nutrients/nitrogenPass.ts';
import {
  climateNames,
  climateOf,
  defaultSettings,
  differencesOf,
  planned,
  remedyTable,
  yearAhead,
} from '../src/index.ts';
import { type Given, anyHand, anyReport, anyZone, by, day, grams, materials, ppm, programOf } from './programScene.ts';

describe('a program', () => {
  const rate = fc.double({ min: 0.5, max: 3000, noNaN: true });
  it('of any zone and report keeps every cap, adds up, and says how each number came about', () => {
    fc.assert(
      fc.property(
        anyZone,
        anyReport,
        anyHand,
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
            // A thousandth is what a number loses when it is told in another unit.
            expect(supply.packs.value * supply.packSize).toBeGreaterThanOrEqual(supply.quantity.value * 0.999 - 1e-6);
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
          // What goes into a tank with the seed comes off the need, which may leave none.
          const counts = ({ remedy }: { remedy: string }) => remedy !== 'compost' && (remedy !== 'mulch' || test.nutrients.p.value > 60); // prettier-ignore
          const products = now.filter(counts).reduce((sum, { brings }) => sum + brings.p2o5, 0);
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

  it('names what is not hunger, to be ruled out before it is fed', () => {
    const seen = programOf({ zone: { signs: ['small straw spots', 'grey threads'] } }).judged;
    expect(seen[0]).toMatchObject({ name: 'To rule out', status: 'cannot say' });
    expect(seen[0]!.words).toMatch(/small straw spots, grey threads.*disease, grubs/);
    expect(programOf({ zone: { signs: ['moss'] } }).judged.find(({ remedy }) => remedy === 'weeds')!.words).toMatch(
      /Moss fills/,
    );
  });

  it('begins from a usual year, takes its products, months and care, and tells what the test changes of it', () => {
    const usualYear = {
      name: 'Four visits',
      visits: [
        { month: 3, remedy: 'lime', rate: grams(50), material: 'Pelletised calcitic lime' },
        ...[5, 8].map((month) => ({ month, remedy: 'nitrogen', material: 'Methylene urea 40-0-0', rate: grams(3) })),
        ...[6, 7].map((month) => ({ month, remedy: 'wetting' })),
        { month: 9, remedy: 'core' },
      ],
    };
    const begun = programOf({ settings: { ...defaultSettings, usualYear }, test: { soilPh: 6.5 }, system: 'us' });
    const at = (key: string) => by(begun.treatments, key).doses.map(({ from }) => Number(from!.slice(5, 7)));
    expect([at('nitrogen'), at('wetting'), at('core')]).toEqual([[5, 7, 8], [6, 7], [9]]);
    expect(by(begun.treatments, 'nitrogen').supply!.name).toBe('Methylene urea 40-0-0');
    expect(by(begun.treatments, 'core').words).toMatch(/^Of the usual year, “Four visits”/);
    const { name, differences } = begun.usual!;
    expect(name).toBe('Four visits');
    expect(differences.map(({ name: what, usual, here }) => [what, usual, here])).toEqual([
      ['Lime', '50 lb/1000 ft², March', 'none'],
      [
        'Nitrogen',
        '6 lb/1000 ft², May, August',
        expect.stringMatching(/^8.* lb\/1000 ft², May, July, August/) as string,
      ],
    ]);
    // 50 lb/1000 ft² on 200 m² are 107.6 lb: 2.69 bags of 40 lb at $10 that nobody needs.
    expect(begun.usual!.saved!.value).toBeCloseTo((50 * 2.15278 * 10) / 40, 2);
    expect(differences[0]!.why).toMatch(/No lime here. pH 6.5 is inside/);
    // Nobody is sold what a test does not ask for, and a month that does not suit is not kept.
    expect(begun.treatments.some(({ key }) => key === 'lime')).toBe(false);
    const winter = { ...usualYear, visits: [1, 2].map((month) => ({ month, remedy: 'nitrogen' })) };
    const moved = programOf({ settings: { ...defaultSettings, usualYear: winter } });
    for (const { from } of by(moved.treatments, 'nitrogen').doses) expect(Number(from!.slice(5, 7))).toBeGreaterThan(3);
    expect(programOf().usual).toBeNull();
  });

  it('has a place in the order of work for every remedy, each its own', () => {
    const stages = remedyTable.remedies.map(({ stage }) => stage);
    expect(new Set(stages).size).toBe(stages.length);
    expect([...stages].sort((a, b) => a - b)).toEqual(stages);
  });
});
