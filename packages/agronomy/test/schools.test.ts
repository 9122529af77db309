import fc from 'fast-check';
import {
  type ProgramInput,
  type SoilTest,
  type ZoneFacts,
  convert,
  defaultSettings,
  ownerReport,
  shoppingList,
  programZone,
  readChange,
  schoolsOf,
  settingsFrom,
  zoneReading,
} from '../src/index.ts';
import { materials } from './programScene.ts';
import { genericShelf } from '../bin/catalogue.ts';
import { cationNeed } from '../src/schools/cationNeeds.ts';
import { exchangeOf } from '../src/schools/exchangeOf.ts';
import { densityOf } from '../src/soil/bulkDensity.ts';

const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const lawn: ZoneFacts = {
  ...{ name: 'Lawn', area: 200, grass: 'kentucky bluegrass', surface: 'turf', intensity: 'medium' },
  ...{ shade: 'full sun', clippings: 'removed', soilGroup: 'loam' },
};
const values = { p: ppm(30), k: ppm(60), ca: ppm(1400), mg: ppm(70) };
const test: SoilTest = {
  ...{ soilPh: 6.4, extractant: 'mehlich-3', depth: 10, organicMatter: 4, cec: 12, sampledOn: '2026-09-20' },
  ...{ nutrients: values, values: { ...values, cec: { value: 12, unit: 'cmol/kg', basis: 'element' } } },
};
const input: ProgramInput = { zone: lawn, test, materials: genericShelf(), from: '2026-11-27', system: 'us' };
const by = (of: ProgramInput = input) => new Map(schoolsOf(of).schools.map((school) => [school.key, school]));
const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');

describe('the schools', () => {
  it('read the same report side by side, each with its program, and one is the zone’s own', () => {
    const schools = schoolsOf(input).schools;
    expect(schools.map(({ key, chosen }) => [key, chosen])).toEqual([
      ['sufficiency', true],
      ['minimum level', false],
      ['cation balance', false],
    ]);
    for (const { judged, puts, cost } of schools) {
      expect(judged).toHaveLength(5);
      expect(puts.length).toBeGreaterThan(0);
      expect(cost!.value).toBeGreaterThan(0);
    }
    expect(schoolsOf(input).agreements.find(({ name }) => name === 'Phosphorus')).toMatchObject({
      ...{ agree: false, words: 'minimum level wants more; sufficiency does not' },
    });
  });

  it('the school’s program is the very one that the zone gets when it is chosen', () => {
    for (const [key, { cost }] of by()) {
      const { program } = programZone({ ...input, settings: { ...defaultSettings, school: key as 'sufficiency' } });
      expect(program.cost!.value).toBeCloseTo(cost!.value, 6);
    }
  });

  it('by hand: K at 60 mg/kg holds 60/391/12 = 1.28 %; to 2 % is 33.8 mg/kg, × 1.335 g/cm³ × 10 cm × 0.01 = 4.52 g/m²', () => {
    const found = cationNeed('k', test, false);
    if ('why' in found) throw new Error(found.why);
    expect(found.share).toBeCloseTo((100 * 60) / 391 / 12, 6);
    const short = (0.02 - found.share / 100) * 12 * 391;
    expect(found.need!.value).toBeCloseTo(short * densityOf(4) * 10 * 0.01, 6);
    expect(found.need!.value).toBeCloseTo(4.52, 2);
  });

  it('shares add to a hundred with the sodium, and are not said where they mean nothing', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 4000 }),
        fc.integer({ min: 10, max: 500 }),
        fc.integer({ min: 10, max: 500 }),
        (ca, mg, k) => {
          const nutrients = { ca: ppm(ca), mg: ppm(mg), k: ppm(k) };
          const held = ca / 200.4 + mg / 121.5 + k / 391;
          const read = exchangeOf({ ...test, nutrients, values: nutrients, cec: held + 2 }, false);
          if (typeof read === 'string') throw new Error(read);
          const all = Object.values(read.shares).reduce((sum, { share }) => sum + share, 0);
          expect(all).toBeCloseTo(100, 6);
          expect(read.cec).toBeCloseTo(held + 2, 6);
        },
      ),
      { numRuns: 50 },
    );
    expect(exchangeOf(test, true)).toMatch(/free carbonate/);
    expect(exchangeOf({ ...test, cec: undefined, values }, false)).toMatch(/acidity/);
    expect(exchangeOf({ ...test, nutrients: { k: ppm(60) }, values: {} }, false)).toMatch(/all three/);
  });

  it('never breaks a cap, whatever the report: potash, magnesium and gypsum stay within the year', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 100, max: 900 }),
        (k, mg, ca) => {
          const nutrients = { p: ppm(30), k: ppm(k), ca: ppm(ca), mg: ppm(mg) };
          const { program } = programZone({
            ...input,
            test: { ...test, nutrients, values: nutrients, cec: 30 },
            settings: { ...defaultSettings, school: 'cation balance' },
          });
          const brought = (key: 'k2o' | 'mg') =>
            program.treatments.reduce((sum, { brings, status }) => sum + (status === 'planned' ? brings[key] : 0), 0);
          expect(brought('k2o')).toBeLessThanOrEqual(grams(4) * 1.15);
          expect(brought('mg')).toBeLessThanOrEqual(grams(1) * 1.6);
          const gypsum = program.treatments.find(({ remedy }) => remedy === 'gypsum');
          for (const { rate } of gypsum?.doses ?? []) expect(rate).toBeLessThanOrEqual(grams(50) * 1.01);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('a school that is switched off is not shown, and says why where it cannot read', () => {
    const off = by({ ...input, settings: { ...defaultSettings, schoolsOff: ['cation balance'] } });
    expect([...off.keys()]).toEqual(['sufficiency', 'minimum level']);
    const sour = by({ ...input, test: { ...test, soilPh: 5.2 } });
    expect(sour.get('minimum level')!.cannot).toMatch(/pH 5.5 and above/);
    expect(sour.get('minimum level')!.puts).toEqual([]);
  });
});

describe('rules of the place', () => {
  const rules = { name: 'Isle code', source: 'the gazette', phosphorus: 'shortage', blackouts: [] } as const;
  const short = { ...test, nutrients: { ...values, p: ppm(18) } };
  const program = (more: object, of: SoilTest = short, zone: ZoneFacts = lawn) =>
    programZone({
      ...input,
      zone,
      test: of,
      settings: settingsFrom([{ kind: 'rules', at: 'practice', value: { ...rules, ...more } }]),
    }).program;
  const phosphate = ({ treatments }: ReturnType<typeof program>): number =>
    treatments.reduce((sum, { brings, status }) => sum + (status === 'planned' ? brings.p2o5 : 0), 0);

  it('let phosphorus down on a shown shortage, and ask for the proof', () => {
    const given = program({ proof: 'the report, three years' });
    expect(phosphate(given)).toBeGreaterThan(1);
    expect(given.rules!.find(({ key }) => key === 'proof')!.words).toMatch(/2026-09-20.*Keep the report, three years/);
  });

  it('hold it back where low is no shortage to them, or the proof is too old', () => {
    expect(phosphate(program({ shortage: 'very low' }))).toBeLessThan(0.1);
    expect(program({ shortage: 'very low' }).rules!.map(({ key }) => key)).toContain('phosphorus');
    expect(phosphate(program({ proofYears: 3 }))).toBeGreaterThan(1);
    const old = { ...short, sampledOn: '2022-09-20' };
    expect(phosphate(program({ proofYears: 3 }, old))).toBeLessThan(0.1);
    expect(
      program({ proofYears: 3 }, old)
        .judged.map(({ words }) => words)
        .join(' '),
    ).toMatch(/not older than 3 years/);
    // Nor does it come by another door, such as the feed of a sprayed mulch.
    const tank = [readChange({ key: 'm', remedy: 'mulch', added: true, reason: 'a bank', values: { feed: 'Starter 18-24-12' } })]; // prettier-ignore
    const sprayed = programZone({ ...input, materials, zone: lawn, test: old, changes: tank, settings: settingsFrom([{ kind: 'rules', at: 'practice', value: { ...rules, proofYears: 3 } }]) }); // prettier-ignore
    const own = sprayed.program.treatments.find(({ key }) => key === 'm')!;
    expect([own.status, own.words]).toEqual(['refused', expect.stringMatching(/not older than 3 years/)]);
  });

  it('count a new lawn as a reason only where they say so', () => {
    const bed = { ...lawn, surface: 'seedbed' } as const;
    const medium = { ...test, nutrients: { ...values, p: ppm(30) } };
    expect(phosphate(program({}, medium, bed))).toBeGreaterThan(1);
    expect(phosphate(program({ establishing: false }, medium, bed))).toBeLessThan(0.1);
  });

  it('bind the nitrogen of a year and of a pass, and say so', () => {
    const held = program({ nitrogenYear: grams(2), nitrogenPass: grams(0.7), waterStrip: 5 });
    const nitrogen = held.treatments.reduce((sum, { brings }) => sum + brings.n, 0);
    expect(nitrogen).toBeLessThanOrEqual(grams(2) * 1.001);
    expect(held.rules!.map(({ key }) => key)).toEqual(expect.arrayContaining(['nitrogen year', 'water strip']));
  });
});

describe('the laboratory’s advice beside ours', () => {
  const acid: SoilTest = { ...test, soilPh: 5.4, depth: 10.16, buffer: { method: 'smp', ph: 6.5 } };
  const beside = (advised: ProgramInput['advised']) =>
    programZone({ ...input, test: acid, advised }).program.besideLab!;

  it('explains lime by target, depth, strength and cap, and what need not be bought', () => {
    const [lime] = beside([{ what: 'lime', amount: 5, unit: 'ton/acre', target: 'pH 6.8' }]);
    const why = lime!.why.join(' ');
    expect(why).toMatch(/Target: it limes to pH 6.8, we to 6.5/);
    expect(why).toMatch(/Depth: its method reckons for 8 in, this bag is of 4 in/);
    expect(why).toMatch(/Lime strength: it assumes lime of 65 % effect/);
    expect(lime!.saved!.value).toBeGreaterThan(0);
    // By hand: 71.4 − 1.03 × 65 = 4.45 short tons/acre to 6.8 at 8 in: near its 5, so nothing is left to ask.
    expect(lime!.open).toBeNull();
    expect(beside([{ what: 'lime', amount: 9, unit: 'ton/acre', target: 'pH 6.8' }])[0]!.open).toMatch(
      /Ask the laboratory/,
    );
  });

  it('explains what it feeds by the school, and calls its nitrogen a difference and no error', () => {
    const [phosphate, nitrogen, same] = beside([
      { what: 'phosphate', amount: 2, unit: 'lb/1000ft2' },
      { what: 'nitrogen', amount: 5, unit: 'lb/1000ft2' },
      { what: 'gypsum', amount: 0, unit: 'lb/1000ft2' },
    ]);
    expect(phosphate!.why[0]).toMatch(/^School: /);
    expect(nitrogen!.why[0]).toMatch(/grass’s year, and not from a test/);
    expect(same).toMatchObject({ why: [], open: null, saved: null });
  });
});

describe('the report for an owner', () => {
  const zone = (name: string, of: SoilTest | undefined, more: Partial<ZoneFacts> = {}) => {
    const facts = { ...lawn, ...more, name };
    return {
      ...{ zoneId: name, name, grass: 'bluegrass', zone: facts, borrowed: null, sampledOn: of?.sampledOn ?? null },
      read: zoneReading({ zone: facts, test: of, evidence: {}, values: [], system: 'us', today: '2026-11-27' }),
      program: programZone({ ...input, zone: facts, test: of }).program,
    };
  };
  const shared = { site: 'Quay', practice: 'Soil & Co', on: '2026-11-27', system: 'us', currency: '$' } as const;
  const zones = [
    zone('Court', { ...test, soilPh: 4.7, buffer: { method: 'smp', ph: 6.2 } }),
    zone('Bank', test, { measured: { percolationSlowest: 1 } }),
    zone('Verge', undefined),
  ];
  // Everything has a price: 10 a pack.
  const list = shoppingList(
    zones.map(({ zoneId, name, program }) => ({ zoneId, zone: name, treatments: program.treatments })),
    () => 0,
    () => 10,
    'us',
    '$',
  );
  const report = ownerReport({ ...shared, zones, list, priced: true });

  it('has three things to do first at most, water before food, and a page a zone in plain words', () => {
    expect(report.first.length).toBeLessThanOrEqual(3);
    expect(report.first.map(({ what }) => what).join(' ')).toMatch(/lime/i);
    expect(report.first[0]!.where).toEqual(expect.arrayContaining([expect.stringMatching(/Court|Bank/)]));
    expect(report.pages.map(({ name }) => name)).toEqual(['Court', 'Bank', 'Verge']);
    expect(report.pages[2]!.found[0]).toMatch(/not been tested yet/);
    const told = JSON.stringify(report);
    expect(told).not.toMatch(/"working"|NaN|undefined/);
    expect(told).not.toMatch(/Mehlich|cmol|LTI|saturation/);
  });

  it('says when lime is tested again, what the owner does, and hides money from whoever sees none', () => {
    expect(report.pages[0]!.retest!.words).toMatch(/once lime is down, a year after it/);
    expect(report.pages[0]!.part.length).toBeGreaterThan(1);
    // The year costs what the list of the site costs, and its pages are shares of it.
    expect(report.cost).toBe(`$${list.cost!.value.toFixed(2)}`);
    const shares = report.pages.reduce((sum, page) => sum + Number(page.cost?.slice(1) ?? 0), 0);
    expect(shares).toBeCloseTo(list.cost!.value, 1);
    const free = ownerReport({ ...shared, zones, list, priced: false });
    expect(JSON.stringify(free)).not.toMatch(/\$\d/);
  });
});
