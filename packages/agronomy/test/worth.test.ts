import fc from 'fast-check';
import { readReport } from '../src/advice/report.ts';
import { genericShelf } from '../bin/catalogue.ts';
import { type ProgramInput, type Worth, climateOf, programZone, worthOfMeasuring } from '../src/index.ts';

const materials = genericShelf();
const zone = { area: '4500 ft2', grass: 'perennial ryegrass', surface: 'turf', intensity: 'medium', soilGroup: 'clay', shade: 'full sun' }; // prettier-ignore
const test = { depth: '4 in', extractant: 'mehlich-3', soilPh: 5.3, organicMatter: 4, values: { p: 60, k: 150, mg: 150 } }; // prettier-ignore
const input = (more: { zone?: object; test?: object } = {}): ProgramInput => {
  const { products: _own, ...report } = readReport({
    zone: { ...zone, ...more.zone },
    test: { ...test, ...more.test },
  });
  return { ...report, materials, from: '2026-11-27', climate: climateOf({ climate: 'temperate inland' }) };
};
const worthIn = (of: ProgramInput, key: string, draws = 60): Worth | undefined =>
  worthOfMeasuring(of, { draws }).find((one) => one.key === key);

describe('what one more measurement is worth', () => {
  it('names the lime that a buffer pH settles, in a range about the estimate, with the money', () => {
    const buffer = worthIn(input(), 'buffer', 200)!;
    expect(buffer.words).toMatch(/^A buffer pH \(\$8\) settles whether lime is \d+ or \d+ lb\/1000 ft²\.$/);
    const [lime] = buffer.moved;
    const rate = programZone(input()).program.treatments.find(({ remedy }) => remedy === 'lime')!.rate!.value;
    expect(lime!.low).toBeLessThan(rate * 1.5);
    expect(lime!.high).toBeGreaterThan(rate);
    expect(buffer.stake).toBeGreaterThan(buffer.fee);
    expect(buffer.working.map((entry) => (entry.kind === 'step' ? entry.label : ''))).toContain('Money at stake');
  });

  it('is nothing where it was made, or where there is no test yet', () => {
    expect(worthIn(input({ test: { buffer: { method: 'smp', ph: 6.2 } } }), 'buffer')).toBeUndefined();
    const { test: _test, ...untested } = input();
    expect(worthOfMeasuring({ ...untested, test: undefined })).toEqual([]);
  });

  it('puts what decides what comes first before money: a hole in clay before the buffer', () => {
    const dry = input();
    const wet = { ...dry, zone: { ...dry.zone, signs: ['puddles'] } };
    const [first, second] = worthOfMeasuring(wet, { draws: 60 });
    expect([first!.key, second!.key]).toEqual(['drainage', 'buffer']);
    expect(first!.words).toMatch(/settles what comes first: drainage in \d of 10 such lawns/);
    // Where water stands it is likelier than where it does not.
    const share = (worth: Worth | undefined): number => worth!.firsts.find(({ limit }) => limit === 'drainage')!.share;
    expect(share(first)).toBeGreaterThan(share(worthIn(input(), 'drainage')));
  });

  it('asks what the laboratory asks that the bags go to, and the usual fee where it names none', () => {
    const asked = { laboratory: 'the testing station', fees: [{ panel: 'routine', fee: 31 }] };
    const found = worthOfMeasuring(input(), { draws: 12, asked });
    const priced = (key: string): string => found.find((one) => one.key === key)!.words;
    expect(priced('cores')).toContain('($31 at the testing station and 45 minutes)');
    expect(priced('buffer')).toContain('($8)');
  });

  it('leaves shell sand its carbonate, however often it is tested again', () => {
    const shell = input({ zone: { soilGroup: 'sand', grass: 'fine fescue' }, test: { soilPh: 8, values: { p: 18, k: 52, ca: 3400, mg: 110 } } }); // prettier-ignore
    expect(worthIn(shell, 'cores', 200)!.moved.map(({ remedy }) => remedy)).not.toContain('sulfur');
    expect(worthIn(shell, 'carbonate', 200)!.words).toMatch(/^A fizz test \(5 minutes\)/);
  });

  it('gives the same for the same seed, shares that add up, and ends in order, whatever the test', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4.5, max: 8.6, noNaN: true }),
        fc.constantFrom('sand', 'loam', 'clay'),
        fc.integer({ min: 5, max: 200 }),
        fc.integer(),
        (soilPh, soilGroup, p, seed) => {
          const of = input({ zone: { soilGroup }, test: { soilPh, values: { ...test.values, p } } });
          const found = worthOfMeasuring(of, { draws: 12, seed });
          expect(worthOfMeasuring(of, { draws: 12, seed })).toEqual(found);
          for (const { firsts, moved, words, stake } of found) {
            expect(Math.abs(firsts.reduce((sum, { share }) => sum + share, 0) - 100)).toBeLessThanOrEqual(
              firsts.length,
            );
            for (const { low, high } of moved) expect(low).toBeLessThanOrEqual(high);
            expect(stake === null || stake >= 0).toBe(true);
            expect(words).not.toMatch(/NaN|undefined|null/);
            // It says that it would change nothing where nothing moves, and only there.
            const still = moved.length === 0 && firsts[0]!.share > 90;
            expect(words.includes('would change nothing')).toBe(still);
          }
        },
      ),
      { numRuns: 12 },
    );
  });
});
