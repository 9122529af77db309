import fc from 'fast-check';
import { numberNames, wordFacts, wordNames } from '../src/evidence/facts.ts';
import { type RecordedZone, zoneEvidence } from '../src/evidence/zoneEvidence.ts';
import { Plane, drawnFacts } from '../src/geometry/index.ts';
import { type SoilTest, type ZoneFacts, grassNames, readZone, troubleCauses, troubleRules } from '../src/index.ts';
import { limitFacts, limitRules } from '../src/reading/limitRules.ts';
import { limitEvidence } from '../src/reading/limits.ts';
import { type Piece, checkConditions, firstThatHolds, weigh } from '../src/rules/engine.ts';
import { swardOf } from '../src/nutrients/sward.ts';

const plane = new Plane([-36, 46.5]);
const ringOf = (corners: ReadonlyArray<readonly [number, number]>): number[][] =>
  [...corners, corners[0]!].map((corner) => [...plane.toMap(corner)]);
const point = (at: readonly [number, number]) => ({ type: 'Point' as const, coordinates: [...plane.toMap(at)] });
const outline = {
  type: 'Polygon' as const,
  coordinates: [ringOf([[0, 0], [30, 0], [30, 20], [0, 20]])], // prettier-ignore
};

/** A zone of which everything is known that can be recorded. */
const zone: RecordedZone = {
  ...{ grass: 'kentucky bluegrass', surface: 'turf', shade: 'part', clippings: 'returned', soilGroup: 'loam' },
  ...{ thatch: 1.5, rootDepth: 6, probeStop: 12 },
  measured: { percolationSlowest: { value: 4 }, waterDrop: { value: 70 } },
  applied: [{ kind: 'fertilizer', on: '2026-04' }],
  facts: {
    ...{ sunHours: 3, slope: 4, aspect: 'south-east', irrigation: 'hose', use: 'play', air: 'still' },
    ...{ drySpell: 'browned', seaside: true },
    layers: [
      { material: 'fill soil', depth: 10 },
      { material: 'sand', depth: 3 },
    ],
  },
};
const value = (number: number, unit: string) => ({ value: number, unit, basis: 'element' as const });
const values = { soilPh: value(5.4, 'pH'), organicMatter: value(3, '%'), ec15: value(0.8, 'dS/m') } as never;
const levels = Array.from({ length: 9 }, (_, at) => ({
  id: `s${at}`,
  kind: 'spot height' as const,
  geometry: point([5 + 10 * (at % 3), 4 + 6 * Math.floor(at / 3)]),
  // In the middle it lies deeper: water stands there.
  height: at === 4 ? -0.1 : 0,
}));
const drawn = drawnFacts(outline, [
  ...(levels as never[]),
  { id: 't', kind: 'tree', geometry: point([10, 10]), canopyRadius: 4 } as never,
  {
    id: 'w',
    kind: 'paving',
    geometry: { type: 'Polygon', coordinates: [ringOf([[30, 0], [33, 0], [33, 20], [30, 20]])] }, // prettier-ignore
  } as never,
]);
const known = zoneEvidence(zone, { values, drawn, latitude: 46.5, today: '2026-11-26' });

describe('what is known of a zone', () => {
  it('feeds every fact that any rule asks for', () => {
    const asked = new Set(troubleRules.causes.flatMap(({ evidence }) => evidence.flatMap(({ fact }) => fact ?? [])));
    expect([...asked].filter((fact) => known[fact] === undefined)).toEqual([]);
    // And no fact is kept that nothing ever tells.
    expect([...numberNames, ...wordNames].filter((fact) => known[fact] === undefined)).toEqual([]);
  });

  it('tells nothing of what nobody looked at', () => {
    const bare = zoneEvidence(
      { surface: 'turf', shade: 'part', clippings: 'removed', grass: 'tall fescue', applied: [], facts: {} },
      { today: '2026-11-26' },
    );
    expect(JSON.parse(JSON.stringify(bare))).toEqual({ surface: 'turf', shade: 'part', clippings: 'removed' });
  });

  it('salt is what the paste would have over where the grass begins to suffer, roughly from a thinner extract', () => {
    const of = (grass: string, more: object = {}) =>
      zoneEvidence({ ...zone, grass, ...more }, { values, today: '2026-11-26' }).saltiness!;
    // By hand: 0.8 dS/m of 1:5 is 8 of the paste on loam, 13.6 on sand; tall fescue begins to suffer at 6, and bluegrass,
    // sensitive and without a safe end, at half of 3.
    expect(of('tall fescue')).toBeCloseTo(2, 9);
    expect(of('tall fescue', { soilGroup: 'sand' })).toBeCloseTo(7.6, 9);
    expect(of('kentucky bluegrass')).toBeCloseTo(6.5, 9);
    const { causes } = troubleCauses({ signs: ['white crust'], facts: known }).result;
    expect(causes[0]!.for.map(({ words }) => words)).toContainEqual(expect.stringContaining('salinity tested above'));
  });

  it('the sun stands in the north south of the equator', () => {
    const facing = (latitude: number) => zoneEvidence(zone, { latitude, today: '2026-11-26' }).aspect;
    expect([facing(46), facing(-30)]).toEqual(['toward the sun', 'away from the sun']);
  });
});

describe('a rule', () => {
  const number = fc.double({ min: -50, max: 50, noNaN: true });
  const piece = fc.record({
    fact: fc.constantFrom('thatch', 'slope', 'ph'),
    above: fc.option(number, { nil: undefined }),
    below: fc.option(number, { nil: undefined }),
    weight: fc.integer({ min: -4, max: 4 }),
    words: fc.constant('so it is'),
  });

  it('weighs what speaks, for and against, and names what is not known; its order does not matter', () => {
    const facts = fc.record({ thatch: number, slope: number, ph: number }, { requiredKeys: [] });
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), facts, (pieces, some) => {
        const tell = ({ weight, words }: { weight: number; words: string }) => ({ points: weight, words });
        const found = weigh(pieces, [], some, tell);
        const sum = [...found.for, ...found.against].reduce((total, { points }) => total + points, 0);
        expect(found.points).toBe(sum);
        expect(found.unknown.every((fact) => !(fact in some))).toBe(true);
        expect(weigh([...pieces].reverse(), [], some, tell).points).toBe(sum);
        // What nobody knows speaks neither way.
        expect(weigh(pieces, [], {}, tell).points).toBe(0);
      }),
    );
  });

  it.each<[Piece, RegExp]>([
    [{ weight: 1, words: 'x' }, /wants a sign, something said or a fact/],
    [{ sign: 'moss', fact: 'ph', above: 1, weight: 1, words: 'x' }, /wants a sign, something said or a fact/],
    [{ sign: 'unicorn', weight: 1, words: 'x' }, /is no sign/],
    [{ fact: 'ph', weight: 1, words: 'x' }, /does not say when ph counts/],
    [{ fact: 'shade', is: ['purple'], weight: 1, words: 'x' }, /does not say when shade counts/],
  ])('that could never speak is refused: %j', (one, words) => {
    expect(() => checkConditions([one], { signs: ['moss'], words: wordFacts }, 'here')).toThrow(words);
  });
});

describe('what limits a lawn', () => {
  const lawn: ZoneFacts = {
    ...{ name: 'A', area: 100, grass: 'tall fescue', surface: 'turf', intensity: 'medium', shade: 'part' },
    ...{ clippings: 'returned', soilGroup: 'loam', slope: 2, lie: 'flat', sunHours: 5 },
    measured: { percolationSlowest: 30, percolationOverall: 40, probeStop: 20, thatch: 1, waterDrop: 5 },
  };
  const report: SoilTest = {
    ...{ soilPh: 5.2, extractant: 'mehlich-3', depth: 10, organicMatter: 2, ec: 1, esp: 2 },
    nutrients: { k: { value: 40, unit: 'mg/kg', basis: 'element' } },
  };
  const rulesOf = (key: string) => limitRules.limits.find((rule) => rule.key === key)!;

  it('is judged by facts that are all fed, and by no others', () => {
    const { bars } = readZone(lawn, report);
    const fed = { ...limitEvidence(lawn, swardOf(lawn), report, bars), nutrient: 'p', rating: 'low' };
    const names = limitFacts;
    expect(names.filter((name) => fed[name] === undefined)).toEqual([]);
    const asked = new Set(
      limitRules.limits.flatMap(({ cases, adds = [], besides = [] }) =>
        [...cases, ...adds, ...besides].flatMap(({ when }) => when.map(({ fact }) => fact)),
      ),
    );
    expect(names.filter((name) => !asked.has(name))).toEqual([]);
  });

  it('leaves no blank open, whatever is known, in either system', () => {
    const some = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined });
    const number = (max: number) => some(fc.double({ min: 0.01, max, noNaN: true }));
    const measured = fc.record({
      ...{ percolationSlowest: number(80), percolationOverall: number(80), probeStop: number(30) },
      ...{ thatch: number(4), waterDrop: number(900) },
    });
    const zones = fc.record({
      grass: fc.constantFrom(...grassNames),
      surface: fc.constantFrom('turf', 'fine turf', 'seedbed'),
      shade: fc.constantFrom('full sun', 'part', 'deep'),
      slope: number(20),
      lie: some(fc.constantFrom('slope', 'flat', 'hollow')),
      signs: fc.subarray(['puddles', 'Hard ground', 'water beads', 'moss']),
      measured,
    });
    const tests = fc.record({ soilPh: fc.double({ min: 4, max: 9, noNaN: true }), esp: number(30), ec: number(15) });
    fc.assert(
      fc.property(zones, tests, fc.constantFrom('us', 'metric'), (zone, test, system) => {
        const { limitations } = readZone({ ...lawn, ...zone }, { ...report, ...test }, undefined, system);
        for (const { key, what, evidence } of limitations) {
          expect([key, /[{}]|undefined|NaN/.test(`${what} ${evidence}`)]).toEqual([key, false]);
          expect(what).toMatch(/^[A-Z].*\.$/);
          expect(evidence).toMatch(/^(?:pH |[A-Z\d]).*\.$/);
        }
      }),
      { numRuns: 400 },
    );
  });

  // A quarter of an inch an hour and an inch.
  it.each([
    [6.3, 'severe'],
    [6.35, 'clear'],
    [25.3, 'clear'],
    [25.4, undefined],
  ])('a hole that drops %d mm/h is a limit that is %s', (percolation, degree) => {
    expect(firstThatHolds(rulesOf('drainage').cases, ['puddles'], { percolation })?.found.degree).toBe(degree);
  });

  it('goes by what was measured where that is known, and by what was seen where it is not', () => {
    const { cases } = rulesOf('compaction');
    expect(firstThatHolds(cases, ['Hard ground by the goal'], {})).toMatchObject({ sign: 'Hard ground by the goal' });
    expect(firstThatHolds(cases, ['Hard ground by the goal'], { probeStop: 25 })).toBeUndefined();
    expect(firstThatHolds(cases, ['moss'], {})).toBeUndefined();
  });
});
