import fc from 'fast-check';
import {
  type SoilTest,
  type TakenValue,
  type ZoneFacts,
  type ZoneToRead,
  analytes,
  besideOf,
  compareTests,
  defaultSettings,
  nutrients,
  phAvailability,
  retestDue,
  soilOf,
  swardOf,
  zoneReading,
} from '../src/index.ts';
import { shareAt } from '../src/readings/availability.ts';
import { meaningOf } from '../src/readings/meanings.ts';
import { ratings } from '../src/nutrients/sufficiencyTables.ts';
import { testWeight } from '../src/readings/testWeight.ts';
import { trendsOf } from '../src/readings/overTime.ts';

const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const ph = (value: number) => ({ value, unit: 'pH', basis: 'element' }) as const;
const lawn: ZoneFacts = {
  ...{ name: 'Lawn', area: 100, grass: 'kentucky bluegrass', surface: 'turf', intensity: 'medium' },
  ...{ shade: 'full sun', clippings: 'returned', soilGroup: 'loam' },
};
const test: SoilTest = {
  ...{ soilPh: 6.4, extractant: 'mehlich-3', depth: 10, organicMatter: 4, sampledOn: '2026-09-20' },
  nutrients: { p: ppm(40), k: ppm(80) },
};
const read = (more: Partial<ZoneToRead> = {}) =>
  zoneReading({
    ...{ zone: lawn, test, evidence: {}, values: [], system: 'us', today: '2026-11-27' },
    taken: { on: '2026-09-20', depth: 10, cores: 15 },
    ...more,
  });
const line = (reading: ReturnType<typeof read>, key: string) => reading.lines.find(({ bar }) => bar.key === key)!;

it('names what is sour before organic matter that a laboratory may have missed, and cures a bed without grass', () => {
  const limits = (organicMatter: number, zone: Partial<ZoneFacts> = {}) =>
    read({ zone: { ...lawn, ...zone }, test: { ...test, soilPh: 5.2, organicMatter } }).ranked.limits;
  const low = 3 - 0.2;
  expect(limits(low).map(({ key, degree }) => [key, degree]).filter(([key]) => key !== 'potassium')).toEqual([['acid', 'clear'], ['organic matter', 'small']]); // prettier-ignore
  expect(limits(1.5).map(({ key }) => key)).toContain('organic matter');
  const bed = limits(1.5, { grass: undefined, garden: true, surface: 'seedbed', signs: ['slope never greens'] });
  expect(bed.map(({ remedy }) => remedy).join('; ')).not.toMatch(/grass|turf|coring/);
});

it('takes the soil that was written down, else the jar’s', () => {
  const jar = { sand: { value: 10 }, silt: { value: 20 }, clay: { value: 70 } };
  expect(soilOf({ soilGroup: null, measured: jar })).toEqual({ group: 'clay', byJar: true });
  expect(soilOf({ soilGroup: 'sand', measured: jar })).toEqual({ group: 'sand', byJar: false });
  expect(soilOf({ soilGroup: null, measured: { ...jar, silt: null } })).toBeUndefined();
});

describe('how sure a reading is', () => {
  it('by hand: pH 6.4 of 15 cores is ± 1.645 × √(0.1² + (6.4 × 7 % / √15)²) = 0.252', () => {
    const { spread } = line(read(), 'soilPh');
    expect(spread!.high - 6.4).toBeCloseTo(1.645 * Math.hypot(0.1, (6.4 * 0.07) / Math.sqrt(15)), 6);
    expect(spread!.told).toBe('± 0.3');
  });

  it('grows with more cores, and shrinks with age, season, depth and borrowing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 40 }), (one, more) => {
        const width = (cores: number) => {
          const { spread } = line(read({ taken: { on: '2026-09-20', depth: 10, cores } }), 'p');
          return spread!.high - spread!.low;
        };
        expect(width(one + more)).toBeLessThan(width(one));
      }),
      { numRuns: 30 },
    );
    const today = '2026-11-27';
    const plain = testWeight({ on: '2026-09-20', depth: 10 }, { today, system: 'us' });
    expect(plain).toEqual({ factor: 1, why: [] });
    for (const [taken, said] of [
      [{ on: '2022-09-20', depth: 10 }, /4 years old/],
      [{ on: null, depth: 10 }, /day of sampling/],
      [{ on: '2026-09-20', depth: 30 }, /not the depth/],
      [{ on: '2026-09-20', depth: 10, borrowed: 'One bag with Back.' }, /One bag/],
    ] as const) {
      const weight = testWeight(taken, { today, system: 'us' });
      expect(weight.factor).toBeGreaterThan(1);
      expect(weight.why.join(' ')).toMatch(said);
    }
    const soon = testWeight({ on: '2026-09-20', depth: 10 }, { today, system: 'us', applied: [{ kind: 'lime', on: '2026-08-01' }] }); // prettier-ignore
    expect(soon.why).toEqual(['Taken 7 weeks after lime, which asks for 13.']);
    const before = { on: '2023-03-20', depth: 15 };
    expect(testWeight({ on: '2026-09-20', depth: 10 }, { today, system: 'us', before }).why).toHaveLength(1);
  });

  it('names the border where chance may put the value across it, and what that would change', () => {
    const near = line(read({ test: { ...test, nutrients: { p: ppm(28) } } }), 'p').border!;
    expect(near.word).toBe('low');
    expect(near.chance).toBeGreaterThan(10);
    expect(near.chance).toBeLessThan(50);
    expect(near.words).toMatch(/Near the border: about \d in 10 that it is low. Then: .*phosphorus rule asks for/);
    expect(line(read({ test: { ...test, nutrients: { p: ppm(41) } }, taken: { on: '2026-09-20', depth: 10, cores: 400 } }), 'p').border).toBeNull(); // prettier-ignore
    // Of a pH only the ends of the band decide anything.
    expect(line(read({ test: { ...test, soilPh: 5.45 } }), 'soilPh').border).toBeNull();
    expect(line(read({ test: { ...test, soilPh: 5.95 } }), 'soilPh').border!.word).toBe('inside the band');
  });

  it('a limit that rests on an old test stands after its equals, and says why', () => {
    const old = read({
      zone: { ...lawn, measured: { thatch: 1.5 } },
      test: { ...test, soilPh: 5.5, sampledOn: '2020-09-20' },
      taken: { on: '2020-09-20', depth: 10, cores: 15 },
    });
    expect(old.ranked.limits.map(({ key }) => key)).toEqual(['thatch', 'acid']);
    expect(old.ranked.limits[1]!.doubt).toMatch(/6 years old/);
  });
});

describe('what a reading means', () => {
  it('has a sentence for every word of every nutrient, use and surface, with no blank left open', () => {
    const swards = ['kentucky bluegrass', 'creeping bentgrass', 'centipedegrass'].map((grass) => swardOf({ grass }));
    for (const sward of swards)
      for (const key of nutrients)
        for (const rating of ratings)
          for (const surface of ['turf', 'fine turf', 'seedbed'] as const)
            for (const use of [undefined, 'sport', 'ornamental'] as const) {
              const bar = { key, rating, figure: { value: 20, working: [] } };
              const says = meaningOf(bar, { ...lawn, surface, use }, sward, test);
              expect([key, rating, says]).toEqual([key, rating, expect.stringMatching(/^[^{}]{6,}[.!]$/)]);
            }
  });

  it('is by degree from the grass’s own band: nothing is toxic at 5.9, nothing wrong at 7.1 in tall fescue but a small miss', () => {
    const says = (grass: string, soilPh: number) =>
      line(read({ zone: { ...lawn, grass }, test: { ...test, soilPh } }), 'soilPh').says;
    expect(says('kentucky bluegrass', 5.9)).toMatch(/small miss.*nothing is toxic/i);
    expect(says('kentucky bluegrass', 4.8)).toMatch(/aluminium/);
    expect(says('tall fescue', 7.1)).toMatch(/small miss upward: harmless/i);
    expect(says('tall fescue', 6.8)).toMatch(/money for nothing/);
    expect(says('centipedegrass', 6.8)).toMatch(/Never lime here/);
    fc.assert(
      fc.property(fc.double({ min: 4, max: 9, noNaN: true }), (soilPh) => {
        const words = says('kentucky bluegrass', soilPh);
        if (soilPh >= 5.2) expect(words).not.toMatch(/aluminium/);
        if (soilPh >= 6 && soilPh <= 7) expect(words).toMatch(/money for nothing/);
      }),
      { numRuns: 60 },
    );
  });

  it('draws what pH does from curves between 0 and 100, iron falling and never rising above pH 5.5', () => {
    const iron = phAvailability.nutrients.find(({ key }) => key === 'fe')!;
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (at, step) => {
          for (const nutrient of phAvailability.nutrients) {
            expect(shareAt(nutrient, at)).toBeGreaterThanOrEqual(0);
            expect(shareAt(nutrient, at)).toBeLessThanOrEqual(100);
          }
          if (at >= 5.5) expect(shareAt(iron, at + step)).toBeLessThanOrEqual(shareAt(iron, at) + 1e-9);
        },
      ),
    );
  });
});

describe('over time', () => {
  const taken = (on: string, value: number, more: Partial<TakenValue> = {}): TakenValue => ({
    ...{ analyte: 'soilPh', value: ph(value), on, depthFrom: 0, depthTo: 10, cores: 15 },
    ...more,
  });

  it('a change is told as one only where test.difference says so', () => {
    fc.assert(
      fc.property(fc.integer({ min: 45, max: 80 }), fc.integer({ min: 45, max: 80 }), (a, b) => {
        const [one, other] = [a / 10, b / 10];
        const [trend] = trendsOf([taken('2023-09-20', one), taken('2026-09-20', other)], [], 'us');
        const differs = compareTests('soilPh', { value: one, cores: 15 }, { value: other, cores: 15 })!.result.differs;
        expect(trend!.words[0]!.includes('no more than two samples')).toBe(!differs);
      }),
    );
  });

  it('tells no sulfur to who stands on free carbonate, and leaves it open where nobody knows', () => {
    const remedyAt = (soilPh: number, fizz?: 'none' | 'strong'): string =>
      read({ test: { ...test, soilPh }, zone: { ...lawn, ...(fizz ? { measured: { fizz } } : {}) } }).ranked.limits.find(({ key }) => key === 'alkaline')!.remedy; // prettier-ignore
    expect(remedyAt(8.1, 'strong')).toMatch(/^ammonium .* no sulfur, which the free carbonate swallows$/);
    expect(remedyAt(8.1, 'none')).toMatch(/^sulfur in small steps, ammonium/);
    expect(remedyAt(8.1)).toMatch(/where there is no free carbonate; else/);
  });

  it('names what was spread between, in plain words', () => {
    const lime = [{ kind: 'lime', on: '2025-04-10' }];
    const [rose] = trendsOf([taken('2023-09-20', 5.4), taken('2026-09-20', 6.1)], lime, 'us');
    expect(rose!.words).toEqual(['pH rose 0.7, from 5.4 to 6.1, since the lime of April 2025.']);
    const [still] = trendsOf([taken('2023-09-20', 5.8), taken('2026-09-20', 5.9)], lime, 'us');
    expect(still!.words[0]).toMatch(/since the lime of April 2025: no more than two samples.*not shown yet/);
    const [apart] = trendsOf([taken('2023-09-20', 5.8, { depthTo: 20 }), taken('2026-09-20', 5.9)], lime, 'us');
    expect(apart!.words[0]).toMatch(/cannot be laid beside/);
  });

  it('is tested again a year after a correction, else after three', () => {
    expect(retestDue('2026-09-20', [])!.on).toBe('2029-09-20');
    expect(retestDue('2026-09-20', [{ kind: 'lime', on: '2027-04-10' }])!.on).toBe('2028-04-10');
    expect(retestDue('2026-09-20', [{ kind: 'lime', on: '2025-04-10' }])!.on).toBe('2029-09-20');
    expect(retestDue('2024-02-29', [])!.on).toBe('2027-02-28');
    expect(retestDue(null, [])).toBeNull();
    expect(retestDue('2026-09-20', [{ kind: 'gypsum', on: '2027-03' }])!.on).toBe('2028-03-31');
    expect(retestDue('2026-09-20', [], ['lime', 'gypsum'])!.words).toMatch(/once lime or gypsum is down/);
  });
});

describe('side by side', () => {
  const zones = [
    { zoneId: 'a', lines: read().lines, cores: 15 },
    {
      zoneId: 'b',
      lines: read({ test: { ...test, soilPh: 7.4, nutrients: { p: ppm(41), k: ppm(300) } } }).lines,
      cores: 15,
    },
  ];

  it('keeps the order of the zones, and a zone has no difference from itself', () => {
    const rows = besideOf(zones, 'us', 'a');
    expect(rows.map(({ key }) => key)).toEqual(['soilPh', 'organicMatter', 'p', 'k']);
    for (const { cells } of rows) expect(cells.map((cell) => cell?.zoneId)).toEqual(['a', 'b']);
    const [phRow, , p] = rows;
    expect(phRow!.cells.map((cell) => cell!.difference)).toEqual([null, { told: '+1.0', differs: true }]);
    expect(p!.cells[1]!.difference).toEqual({ told: '+1 ppm', differs: false });
  });

  it('laid the other way the differences change their sign, and no more', () => {
    const [there, back] = [besideOf(zones, 'us', 'a'), besideOf(zones, 'us', 'b')];
    there.forEach((row, index) => {
      const [to, from] = [row.cells[1]!.difference!, back[index]!.cells[0]!.difference!];
      expect(from.differs).toBe(to.differs);
      expect(from.told.slice(1)).toBe(to.told.slice(1));
    });
  });
});

it('the bad half is read against the healthy one: only what differs by more than chance tells', () => {
  const half = (p: number, k: number) => ({ test: { ...test, nutrients: { p: ppm(p), k: ppm(k) } }, cores: 15 });
  expect(read({ pair: { bad: half(40, 40), healthy: half(42, 160) } }).pair!.words).toBe(
    'Where it fails, potassium is lower than where the same lawn is healthy; the rest does not differ by more than chance.',
  );
  expect(read({ pair: { bad: half(40, 80), healthy: half(42, 85) } }).pair!.words).toMatch(/not in these numbers/);
});

it('a named target for the exchange capacity is told with its name', () => {
  const settings = { ...defaultSettings, targets: [{ name: 'Keeper’s wish', analyte: 'cec', value: 10 } as const] };
  const own = line(read({ test: { ...test, cec: 6 }, settings }), 'cec');
  expect(own.beside).toMatch(/Below the 10 meq\/100 g that “Keeper’s wish” wants/);
  expect(analytes.cec.name).toBeTruthy();
});
