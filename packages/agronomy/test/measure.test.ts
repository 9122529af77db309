import fc from 'fast-check';
import {
  type Analyte,
  type ReportedValue,
  type SampleRead,
  arrange,
  arrangementFor,
  countedShare,
  doubtsAbout,
  drainageNext,
  exchangedPairs,
  fieldTestKinds,
  fieldTestOf,
  greenShare,
  jarSpread,
  judgeFieldTest,
  judgeLoad,
  likeness,
  notComparable,
  readAdvisedRate,
  readHeader,
  waterCatchCups,
  waterRing,
} from '../src/index.ts';

const told = (value: number, unit: ReportedValue['unit'] = 'mg/kg', more: Partial<ReportedValue> = {}): ReportedValue => ({ value, unit, basis: 'element', ...more }); // prettier-ignore
const sample = (values: Partial<Record<Analyte, number>>, more: Partial<SampleRead> = {}): SampleRead => ({
  values: Object.fromEntries(
    Object.entries(values).map(([key, value]) => [
      key,
      told(value, key.endsWith('Ph') ? 'pH' : key === 'organicMatter' ? '%' : key === 'cec' ? 'cmol/kg' : 'mg/kg'),
    ]),
  ),
  ...{ extractant: 'mehlich-3', depth: 10, on: '2026-10-02' },
  ...more,
});

describe('cups and a ring', () => {
  const cups = fc.array(fc.double({ min: 0.5, max: 200, noNaN: true }), { minLength: 4, maxLength: 40 });

  it('tell the same evenness whatever the size of the cup, and never more than all of it', () => {
    fc.assert(
      fc.property(cups, fc.double({ min: 0.1, max: 10, noNaN: true }), (list, factor) => {
        const of = (one: readonly number[]) => waterCatchCups({ cups: one, throatArea: 80, minutes: 10 }).result;
        const [plain, scaled] = [of(list), of(list.map((cup) => cup * factor))];
        expect(scaled.uniformity).toBeCloseTo(plain.uniformity, 6);
        expect(scaled.rate).toBeCloseTo(plain.rate * factor, 6);
        expect(plain.uniformity).toBeLessThanOrEqual(100 + 1e-9);
        expect(plain.christiansen).toBeLessThanOrEqual(100 + 1e-9);
      }),
    );
  });

  it('give back the S and A that readings were made with', () => {
    const number = fc.double({ min: 0.5, max: 60, noNaN: true });
    fc.assert(
      fc.property(number, number, (sorptivity, steady) => {
        const readings = [5, 10, 20, 40, 80].map((time) => ({
          time,
          infiltrated: sorptivity * Math.sqrt(time / 60) + (steady * time) / 60,
        }));
        const { result } = waterRing({ readings });
        expect(result.sorptivity).toBeCloseTo(sorptivity, 4);
        expect(result.steady).toBeCloseTo(steady, 4);
      }),
    );
  });
});

const began = Date.parse('2026-11-20T08:00:00Z');
const at = (minutes: number): string => new Date(began + minutes * 60_000).toISOString();
const hole = (...readings: ReadonlyArray<readonly [minutes: number, depth: number]>) => ({
  ...{ holeDepth: 30, soakedAt: at(-14 * 60), filledAt: at(0) },
  readings: readings.map(([minutes, depthBelowStick]) => ({ at: at(minutes), depthBelowStick })),
});

describe('a drainage hole', () => {
  const pan = hole([0, 0], [45, 6.9], [90, 12.7], [180, 14.1], [360, 14.9], [1380, 15]);

  it('names the pan and not the mean, and judges it by how the ground lies', () => {
    const { title, words, values } = judgeFieldTest('drainage', pan, { lie: 'hollow' }, 'metric');
    expect(title).toBe('A pan at 15 cm: water stands on it');
    expect(words.join(' ')).toMatch(/Above it, to 12\.5 cm, it drains at .*Quick over tight.*hollow/s);
    expect(values[0]).toMatchObject({ analyte: 'percolationSlowest', depthFrom: 14.9, depthTo: 30 });
    expect(judgeFieldTest('drainage', pan, { slope: 9 }, 'metric').words.join(' ')).toContain('leave sideways');
    expect(judgeFieldTest('drainage', pan, {}, 'metric').words.join(' ')).toContain('How the ground lies is not known');
  });

  it('that is evenly slow is no pan', () => {
    const slow = hole([0, 0], [600, 6], [1200, 11], [1440, 12.6]);
    const { title, words } = judgeFieldTest('drainage', slow, { lie: 'flat' }, 'metric');
    expect(title).toBe('Drains slowly, by its slowest layer');
    expect(words.join(' ')).toContain('Evenly slow');
  });

  it('knows at any moment what comes next, and never asks for what is done', () => {
    expect(drainageNext({ holeDepth: 30, readings: [] }, at(0)).what).toBe('soak');
    expect(drainageNext({ holeDepth: 30, soakedAt: at(0), readings: [] }, at(120)).words).toContain('The walls soak');
    expect(drainageNext({ holeDepth: 30, soakedAt: at(0), readings: [] }, at(600)).what).toBe('fill');
    expect(drainageNext({ holeDepth: 30, soakedAt: at(0), readings: [] }, at(48 * 60)).what).toBe('soak');
    expect(drainageNext(hole([0, 0]), at(80)).words).toBe('The next reading is 20 minutes overdue.');
    expect(drainageNext(hole([0, 0], [60, 29.9]), at(999)).what).toBe('done');
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5000 }), (minutes) => {
        expect(drainageNext(pan, at(minutes)).words).not.toMatch(/NaN|undefined|-\d/);
      }),
    );
  });
});

describe('tests with one’s own hands', () => {
  it('say nothing before anything is read, and refuse what cannot be by its field', () => {
    for (const kind of fieldTestKinds) {
      const empty = { drainage: { holeDepth: 30, readings: [] }, probe: { stops: [] }, ring: { readings: [] }, waterDrop: { seconds: [] }, soilTemperature: { readings: [] }, soilMoisture: { readings: [] }, catchCups: { cups: [] }, wateringDepth: { places: [] }, cover: { method: 'by eye' } }; // prettier-ignore
      const record = (empty as Partial<Record<string, object>>)[kind] ?? {};
      expect([kind, judgeFieldTest(kind, record, {}, 'us')]).toEqual([kind, { values: [], title: null, words: [], working: [] }]); // prettier-ignore
      expect(fieldTestOf[kind].steps.length).toBeGreaterThan(0);
    }
    expect(() => judgeFieldTest('waterDrop', { seconds: [-1] }, {}, 'us')).toThrow('seconds.0');
    expect(() => judgeFieldTest('catchCups', { cups: 'many' }, {}, 'us')).toThrow('cups');
  });

  it('a jar stays among the classes that it can be read as', () => {
    const height = fc.double({ min: 0.2, max: 12, noNaN: true });
    fc.assert(
      fc.property(height, height, height, (sand, silt, clay) => {
        const { points, classes } = jarSpread({ sand, silt, clay });
        const { title } = judgeFieldTest('jar', { sandHeight: sand, siltHeight: silt, clayHeight: clay }, {}, 'us');
        expect(classes[0]).toBe(title!.toLowerCase());
        for (const point of points) expect(point.sand + point.silt + point.clay).toBeCloseTo(100, 6);
      }),
    );
    const { words } = judgeFieldTest('jar', { sandHeight: 6.1, siltHeight: 3.8, clayHeight: 2.2 }, { soilGroup: 'sand' }, 'us'); // prettier-ignore
    expect(words.join(' ')).toMatch(/50 % sand, 31 % silt, 18 % clay.*written down as sand/s);
  });

  it('the next run is longer where water stayed high, never more than twice, and not at all where it is uneven', () => {
    const run = (...depths: number[]) =>
      judgeFieldTest('wateringDepth', { places: depths.map((depth) => ({ depth })), minutes: 20, wanted: 15 }, {}, 'metric'); // prettier-ignore
    expect(run(10, 10, 10).title).toBe('Next run 30 minutes instead of 20');
    expect(run(2, 2, 2).title).toBe('Next run 40 minutes instead of 20');
    expect(run(30, 30, 30).title).toBe('Next run 10 minutes instead of 20');
    expect(run(12, 11, 3, 12).title).toContain('the heads first');
  });

  it('a share that was counted holds what it may be, and more points hold it closer', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.double({ min: 0, max: 1, noNaN: true }), (points, share) => {
        const hits = Math.round(points * share);
        const [few, many] = [countedShare(hits, points), countedShare(hits * 4, points * 4)];
        expect(few.low).toBeLessThanOrEqual(few.share + 1e-9);
        expect(few.high).toBeGreaterThanOrEqual(few.share - 1e-9);
        expect(many.high - many.low).toBeLessThan(few.high - few.low);
      }),
    );
    expect(greenShare([40, 160, 40, 255, 120, 110, 90, 255])).toBe(50);
  });

  it.each([
    ['compost', { heat: 'hot', smell: 'ammonia', pieces: 10, papers: false }, 'only for some things', /finishing in a heap/],
    ['compost', { source: 'yard waste', heat: 'warm', smell: 'earth', mature: true, pieces: 6, weedSeed: false, papers: true }, 'take it', /topdressing turf/],
    ['compost', { weedSeed: true }, 'send it back', /^$/],
    ['compost', {}, 'ask first', /^$/],
    ['compost', { rubbish: true, smell: 'earth', mature: true }, 'send it back', /^$/],
    ['compost', { ec: 5, heat: 'cold', smell: 'earth', mature: true, pieces: 5 }, 'only for some things', /^a thin dressing of grown turf, watered in$/],
    ['compost', { smell: 'rot', heat: 'cold', mature: true, pieces: 5 }, 'only for some things', /^waiting in a heap/],
    ['fill', { rubbish: true, source: 'not known' }, 'send it back', /^$/],
    ['sand', { source: 'not known', asOrdered: false, weedSeed: false, smell: 'nothing' }, 'send it back', /^$/],
    ['seed', { purity: 98, germination: 70, weeds: 0.1, testedOn: '2026-09-01' }, 'only for some things', /higher rate/],
    ['seed', { purity: 98, germination: 90, weeds: 0.1, testedOn: '2026-09-01' }, 'take it', /sowing/],
  ] as const)('%s with %j: %s', (kind, record, verdict, good) => {
    const judged = judgeLoad(kind, record, '2026-11-27');
    expect(judged.verdict).toBe(verdict);
    expect(judged.goodFor.join('; ')).toMatch(good);
  }); // prettier-ignore
});

describe('what looks wrong in a report', () => {
  const before = sample({ soilPh: 5.6, p: 30, k: 100, ca: 900, mg: 120, organicMatter: 4 }, { on: '2025-10-02' });

  it('is nothing where nothing changed, and a unit where all nutrients are twice as much', () => {
    expect(doubtsAbout(sample({ soilPh: 5.6, p: 31, k: 96, ca: 930, mg: 118, organicMatter: 3.9 }), [before])).toEqual([]); // prettier-ignore
    const twice = doubtsAbout(sample({ soilPh: 5.6, p: 60, k: 200, ca: 1800, mg: 240 }), [before]);
    expect(twice.map(({ analyte, key }) => [analyte, key])).toEqual([
      ['p', 'unit'],
      ['k', 'unit'],
      ['ca', 'unit'],
      ['mg', 'unit'],
    ]);
    expect(twice[0]!.words).toContain('lb/acre');
  });

  it('is carbon for organic matter, a far pH, a buffer below the soil, cations beyond the CEC', () => {
    expect(doubtsAbout(sample({ organicMatter: 2.32 }), [before])[0]).toMatchObject({ key: 'carbon', grave: true });
    expect(doubtsAbout(sample({ soilPh: 7.2 }), [before])[0]).toMatchObject({ key: 'last', analyte: 'soilPh' });
    expect(doubtsAbout(sample({ soilPh: 6.1, bufferPh: 5.4 }), [])[0]).toMatchObject({ key: 'buffer' });
    expect(doubtsAbout(sample({ ca: 3000, mg: 300, cec: 9 }), [])[0]).toMatchObject({ key: 'exchange', grave: false });
  });

  it('is not seen across methods, depths and seasons, which are said instead', () => {
    const far = sample({ p: 90 }, { extractant: 'olsen' });
    expect(doubtsAbout(far, [before])).toEqual([]);
    const taken = (more: object) => ({ analyte: 'p' as const, value: told(20), extractant: 'mehlich-3' as const, depthTo: 10, on: '2026-10-02', ...more }); // prettier-ignore
    expect(notComparable(taken({}), taken({ on: '2023-09-20' }))).toBeUndefined();
    expect(notComparable(taken({}), taken({ extractant: 'olsen' }))).toContain('not Olsen');
    expect(notComparable(taken({}), taken({ depthTo: 15.24 }))).toContain('of 0–10 cm');
    expect(notComparable(taken({}), taken({ on: '2026-03-20' }))).toBe('taken in autumn, not in spring');
  });

  it('two bags that were exchanged fit each other; any two that were not stay apart', () => {
    const near = (value: number) => fc.double({ min: value * 0.85, max: value * 1.15, noNaN: true });
    const a = { soilPh: 5.2, p: 12, k: 60, ca: 500, mg: 60 };
    const b = { soilPh: 7.1, p: 80, k: 240, ca: 2400, mg: 300 };
    const like = (of: typeof a) => fc.record({ soilPh: fc.double({ min: of.soilPh - 0.2, max: of.soilPh + 0.2, noNaN: true }), p: near(of.p), k: near(of.k), ca: near(of.ca), mg: near(of.mg) }); // prettier-ignore
    fc.assert(
      fc.property(like(a), like(b), (first, second) => {
        const [one, other] = [sample(first).values, sample(second).values];
        const [old, older] = [sample(a).values, sample(b).values];
        expect(exchangedPairs([{ values: one, before: older }, { values: other, before: old }])).toEqual([{ one: 0, other: 1 }]); // prettier-ignore
        expect(exchangedPairs([{ values: one, before: old }, { values: other, before: older }])).toEqual([]); // prettier-ignore
      }),
    );
  });
});

describe('a laboratory’s way', () => {
  const headings = ['Client ref', 'pH (1:1)', 'Phosphorus', 'Result 7', 'Lime rec. lb/1000 sq ft'];
  const learned = readHeader(headings).columns.map((column) =>
    column.header === 'Result 7' ? { ...column, field: 'k' as const, unit: 'lb/acre' as const } : column,
  );

  it('is known again by its heads, whatever their case, and lies over what a header says', () => {
    const next = ['CLIENT REF', 'pH  (1:1)', 'phosphorus', 'result 7', 'Zinc ppm'];
    expect(likeness(headings, { columns: learned })).toBe(1);
    expect(arrangementFor(next, [{ columns: learned }])).toBeDefined();
    expect(arrangementFor(['Sample', 'Mg ppm'], [{ columns: learned }])).toBeUndefined();
    const { columns, fresh, missing } = arrange(readHeader(next).columns, { columns: learned });
    expect(columns.map(({ field }) => field)).toEqual(['label', 'soilPh', 'p', 'k', 'zn']);
    expect(columns[3]!.unit).toBe('lb/acre');
    expect([fresh, missing]).toEqual([['Zinc ppm'], ['Lime rec. lb/1000 sq ft']]);
  });

  it('keeps its advice apart from its numbers', () => {
    expect(learned[4]).toMatchObject({ field: null, advised: { what: 'lime', unit: 'lb/1000ft2' } });
    expect(readAdvisedRate('1.5 ton/acre')).toEqual({ amount: 1.5, unit: 'ton/acre' });
    expect(readAdvisedRate('58 lb per 1000')).toEqual({ amount: 58, unit: 'lb/1000ft2' });
    expect(() => readAdvisedRate('58')).toThrow('write it with its unit');
  });
});
