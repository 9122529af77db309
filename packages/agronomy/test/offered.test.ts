import fc from 'fast-check';
import {
  type SectionName,
  type WorkPrice,
  climateOf,
  defaultSettings,
  inYear,
  isOver,
  lacksPrice,
  offeredYear,
  priceSince,
  standingPrice,
  yearSum,
  type PricedLine,
  readChange,
  sectionSums,
  shoppingList,
  visitLines,
  waitedOf,
  zoneCost,
} from '../src/index.ts';
import { type Given, by, ppm, programOf } from './programScene.ts';

const prices: readonly WorkPrice[] = [
  { name: 'Labour', price: 40, per: 'hour' },
  { name: 'Corer', price: 95, per: 'day', whole: true },
  { name: 'Spreading', price: 6, per: '1000 ft²', for: ['lime', 'nitrogen'] },
  { name: 'Haulage', price: 75, per: 'load', for: ['fill'] },
  { name: 'Visit', price: 28, per: 'visit', for: ['all'] },
];
const settings = { ...defaultSettings, work: prices };
const acid = { soilPh: 5.4, buffer: { method: 'smp', ph: 6.4 }, nutrients: { p: ppm(10), k: ppm(50) } } as const;
const program = (given: Given = {}) => programOf({ settings, ...given });
const zoneOf = (name: string, given: Given) => ({
  ...{ zoneId: `id ${name}`, zone: name, area: given.zone?.area ?? 200, section: 'now' as SectionName },
  treatments: program(given).treatments,
});
const listOf = (zones: ReadonlyArray<ReturnType<typeof zoneOf>>, stock = 0) =>
  shoppingList(zones, () => stock, () => 10, 'metric', '$', prices); // prettier-ignore

describe('what work costs', () => {
  it('counts by area and times, by load, and by the hours and days that were set; in one visit what falls into one month', () => {
    const { treatments, visits, cost } = program({
      test: acid,
      changes: [
        { remedy: 'core', key: 'c', added: true, work: [{ name: 'Labour', amount: 3 }, { name: 'Corer', amount: 0.5 }] }, // prettier-ignore
        {
          remedy: 'fill',
          key: 'f',
          added: true,
          values: { loads: 2, load: 9, soil: 'subsoil', pricePerVolume: 20 },
        },
      ],
    });
    const lines = (key: string) =>
      (by(treatments, key).work ?? []).map(({ name, amount, cost: own }) => [name, amount, own!.value]);
    // 200 m² are 2.1528 × 1000 ft²; lime in two applications.
    const [[name, amount, spread]] = lines('lime') as [[string, number, number]];
    expect([name, by(treatments, 'lime').doses.length]).toEqual(['Spreading', 2]);
    expect(amount).toBeCloseTo(2 * 2.15278, 4);
    expect(spread).toBeCloseTo(25.8334, 3);
    expect(lines('c')).toEqual([['Labour', 3, 120], ['Corer', 0.5, 47.5]]); // prettier-ignore
    expect(lines('f')).toEqual([['Haulage', 2, 150]]);
    const months = new Set(
      treatments
        .flatMap(({ doses, status }) => (status === 'planned' ? doses : []))
        .map(({ from }) => from!.slice(0, 7)),
    );
    expect(visits!.map(({ visits: of, cost: own }) => [of.length, own!.value])).toEqual([[months.size, months.size * 28]]); // prettier-ignore
    // The sum stands on what was said of each.
    const packs = treatments.flatMap(({ supply, others }) => [supply, ...others]).reduce((sum, one) => sum + (one?.cost?.value ?? 0), 0); // prettier-ignore
    const work = treatments.flatMap(({ work: of = [] }) => of).reduce((sum, { cost: own }) => sum + own!.value, 0);
    const own = treatments.reduce((sum, { price }) => sum + (price?.value ?? 0), 0);
    expect(cost!.value).toBeCloseTo(packs + work + own + months.size * 28, 6);
  });

  it('hires a machine for whole days over the site, and shares them by use', () => {
    const cored = (name: string, days: number) =>
      zoneOf(name, { changes: [{ remedy: 'core', key: 'c', added: true, work: [{ name: 'Corer', amount: days }] }] });
    const zones = [cored('North', 0.5), cored('South', 0.75)];
    const list = listOf(zones);
    expect(list.labour[0]).toMatchObject({ name: 'Corer', amount: 2, used: 1.25, zones: ['North', 'South'] });
    expect(list.labour[0]!.cost!.value).toBe(190);
    const coring = offeredYear(zones, list, 'metric').lines.filter(({ key }) => key === 'c');
    expect(coring.map(({ price }) => price)).toEqual([76, 114]);
  });

  it('is told to be open where nobody has said it, and is no nought in a sum, a section or an offer', () => {
    const zones = [zoneOf('North', { changes: [{ remedy: 'core', key: 'c', added: true }] })];
    const list = listOf(zones);
    expect(list.unpricedWork).toEqual([{ zone: 'North', name: 'Coring' }]);
    expect(program({ changes: [{ remedy: 'core', key: 'c', added: true }] }).unpricedWork).toEqual(['Coring']);
    expect(sectionSums(zones, list, { now: { budget: 1e6 } }, '$')[0]!.unpricedWork).toEqual(['Coring, North']);
    expect(offeredYear(zones, list, 'metric').lines.find(({ key }) => key === 'c')!.price).toBeNull();
    const free = [{ ...zones[0]!, treatments: zones[0]!.treatments.map((one) => ({ ...one, price: { value: 0, working: [] } })) }]; // prettier-ignore
    expect(free[0]!.treatments.some(lacksPrice)).toBe(false);
  });

  it('keeps what was set by hand of a price that is gone, says so, and leaves the cost open', () => {
    const { treatments, cost, unpriced } = program({
      changes: [{ remedy: 'core', key: 'c', added: true, work: [{ name: 'Old lorry', amount: 2 }] }],
    });
    expect([by(treatments, 'c').workUnpriced, cost, unpriced]).toEqual([['Old lorry'], null, ['Old lorry']]);
  });
});

describe('a program that is offered', () => {
  const remedies = ['core', 'sand', 'wetting', 'fill', 'compost'] as const;
  const zones = fc.array(
    fc.record({
      area: fc.integer({ min: 20, max: 3000 }),
      soilPh: fc.double({ min: 4.8, max: 7.4, noNaN: true }),
      added: fc.subarray([...remedies]),
      hours: fc.double({ min: 0.25, max: 20, noNaN: true }),
    }),
    { minLength: 1, maxLength: 4 },
  );

  it('adds up line by line to what the site costs, whatever is shared', () => {
    fc.assert(
      fc.property(zones, fc.integer({ min: 0, max: 3 }), (given, stock) => {
        const made = given.map(({ area, soilPh, added, hours }, index) =>
          zoneOf(`Zone ${index}`, {
            zone: { area },
            test: { ...acid, soilPh },
            changes: added.map((remedy) => ({
              ...{ remedy, key: `own ${remedy}`, added: true },
              ...(remedy === 'core' ? { work: [{ name: 'Corer', amount: hours }] } : {}),
              ...(remedy === 'fill' ? { values: { depth: 5 } } : {}),
            })),
          }),
        );
        const list = listOf(made, stock);
        const offered = offeredYear(made, list, 'metric');
        const visits = visitLines(made.flatMap(({ treatments }) => treatments), prices, '$'); // prettier-ignore
        // Each line is told to the cent, and so is their sum.
        expect(Math.abs(yearSum(offered) - list.cost!.value)).toBeLessThanOrEqual(0.005 + 1e-6);
        const byZone = made.reduce((all, zone) => all + zoneCost(zone, list, '$')!.value, 0);
        expect(byZone + visits.reduce((all, { cost }) => all + cost!.value, 0)).toBeCloseTo(list.cost!.value, 4);
        const [section] = sectionSums(made, list, { now: { year: 2027, budget: list.cost!.value + 1 } }, '$');
        expect(section!.cost!.value).toBeCloseTo(list.cost!.value - visits.reduce((all, { cost }) => all + cost!.value, 0), 4); // prettier-ignore
        expect(section!.over).toBeNull();
      }),
      { numRuns: 40 },
    );
  });

  const priced = fc.record({
    lines: fc
      .uniqueArray(fc.record({ zone: fc.constantFrom('North', 'South'), key: fc.constantFrom('lime', 'core', 'nitrogen'), cents: fc.option(fc.integer({ min: 0, max: 90_000 })) }), { selector: ({ zone, key }) => `${zone} ${key}` }) // prettier-ignore
      .map((lines) => lines.map(({ zone, key, cents }): PricedLine => ({ zoneId: zone, zone, key, name: key, amount: `${cents} g`, price: cents === null ? null : cents / 100 }))), // prettier-ignore
    visits: fc.integer({ min: 0, max: 30_000 }).map((cents) => cents / 100),
    zoneIds: fc.subarray(['North', 'South'], { minLength: 1 }),
    on: fc.integer({ min: 10, max: 28 }).map((day) => `2027-03-${day}`),
  });
  const key = ({ zoneId, key: own }: PricedLine): string => `${zoneId} ${own}`;

  it('leads from what was told to what stands, to the cent, and takes nothing off for what is done', () => {
    fc.assert(
      fc.property(
        fc.array(priced, { minLength: 1, maxLength: 5 }),
        fc.subarray(['North lime', 'South core']),
        (told, gone) => {
          const done = new Set(gone);
          const standing = standingPrice(told, done);
          for (const then of told) {
            const changes = priceSince(then, standing, done);
            const sum = changes.reduce((all, { difference }) => all + difference, yearSum(then));
            expect(Math.abs(sum - yearSum(standing))).toBeLessThan(0.005);
          }
          // What was told first of a thing that is done is what it cost.
          for (const one of gone) {
            const first = told.find(({ lines, zoneIds }) =>
              lines.some((line) => key(line) === one && zoneIds.includes(line.zoneId)),
            );
            const was = first?.lines.find((line) => key(line) === one)?.price;
            expect(standing.lines.find((line) => key(line) === one)?.price).toBe(was);
          }
          expect(new Set(standing.lines.map(key)).size).toBe(standing.lines.length);
        },
      ),
    );
  });

  it('says what is another in words: lime halved, a drain left out, a price found', () => {
    const line = (name: string, amount: string, price: number | null): PricedLine => ({ zoneId: 'n', zone: 'North', key: name, name, amount, price }); // prettier-ignore
    const then = { lines: [line('Lime', '60 lb', 140), line('Drain', '', 900), line('Coring', '', null)], visits: 56, zoneIds: ['n'], on: '2026-11-20' }; // prettier-ignore
    const now = { lines: [line('Lime', '30 lb', 70), line('Coring', '', 95.5)], visits: 28, zoneIds: ['n'], on: '2026-12-01' }; // prettier-ignore
    const changes = priceSince(then, standingPrice([then, now]));
    expect(changes.map(({ words, on, difference }) => [words, on, difference])).toEqual([
      ['Lime: 30 lb in place of 60 lb', '2026-12-01', -70],
      ['Drain: not in the program any more', '2026-12-01', -900],
      ['Coring: it has a price now', '2026-12-01', 95.5],
      ['Visits: another number of them', '2026-12-01', -28],
    ]);
  });

  it('stands against a budget, and says by how much it does not reach', () => {
    const zone = zoneOf('North', { test: acid });
    const list = listOf([zone]);
    const [section] = sectionSums([zone], list, { now: { budget: 1 } }, '$');
    expect(section!.over).toMatch(/^\$\d+\.\d\d more than the \$1\.00 there is: put a treatment off/);
    expect(sectionSums([{ ...zone, section: null }], list, {}, '$')).toEqual([]);
  });
});

describe('a year that is over', () => {
  it('hands on what was put off and what waits for the retest, and is over after twelve months', () => {
    const { treatments } = programOf({
      test: { ...acid, soilPh: 4.8, buffer: { method: 'smp', ph: 5.8 } },
      changes: [{ remedy: 'potassium', out: 'next year', reason: 'The money is gone' }],
    });
    expect(waitedOf(treatments)).toEqual([
      expect.stringMatching(/^About \d+ g\/m² of lime waits for the retest\.$/) as string,
      expect.stringMatching(/^K₂O was put off: The money is gone/) as string,
    ]);
    expect(['2027-11-26', '2027-11-27', '2028-03-01'].map((day) => isOver('2026-11-27', day))).toEqual([false, true, true]); // prettier-ignore
  });

  it('has due what was put off before it began, and leaves out what was put off in it', () => {
    const off = readChange({ remedy: 'lime', key: 'lime', out: 'next year', reason: 'later', values: { rate: 100 } });
    expect(inYear(off, '2026-12-01', null).out).toBe('next year');
    expect(inYear(off, '2026-12-01', '2027-11-01').out).toBeUndefined();
    expect(inYear(off, '2027-12-01', '2027-11-01').out).toBe('next year');
    expect(inYear({ ...off, out: 'left out' }, '2026-12-01', '2027-11-01').out).toBe('left out');
  });
});

describe('a ground that is filled', () => {
  it('tells how deep five loads of 9 m³ lie over a sunken middle of 480 m², loose and settled, and whether that is enough', () => {
    const of = (values: object) =>
      by(program({ zone: { area: 1350 }, changes: [{ remedy: 'fill', key: 'f', added: true, values: { area: 480, soil: 'subsoil', load: 9, ...values } }] }).treatments, 'f'); // prettier-ignore
    // 45 m³ over 480 m² are 94 mm loose; a fifth of it settles away.
    const five = of({ loads: 5, depth: 10 });
    expect(five.words).toMatch(/94 mm deep as tipped, 75 mm when it has settled/);
    // 10 cm firm are 60 m³ loose: seven loads.
    expect(five.words).toMatch(/not enough: 100 mm is wanted, which takes 7 loads, 2 more/);
    expect(of({ depth: 10 }).loads).toBe(7);
    const topsoil = by(program({ zone: { area: 1350 }, changes: [{ remedy: 'fill', key: 't', added: true, values: { depth: 7, soil: 'topsoil', load: 9, pricePerVolume: 30 } }] }).treatments, 't'); // prettier-ignore
    const loose = topsoil.supply?.quantity.value ?? topsoil.loads! * 9;
    expect(topsoil.loads).toBe(Math.ceil(loose / 9 - 1e-9));
    expect(topsoil.work).toMatchObject([{ name: 'Haulage', amount: topsoil.loads }]);
    // What is hauled as agreed is not hauled again.
    expect(of({ loads: 5, haul: 60 }).work).toBeUndefined();
  });

  it('goes before whatever lies on it', () => {
    const { findings } = program({
      test: acid,
      changes: [
        { remedy: 'fill', key: 'f', added: true, values: { depth: 5 }, months: [9] },
        { remedy: 'seed', key: 's', added: true, months: [8] },
      ],
    });
    expect(findings.map(({ words }) => words).join()).toMatch(/filled and levelled first.*Here: .*and/);
  });
});

describe('what works against what', () => {
  const told = (given: Given) => programOf(given).findings.map(({ words, mend }) => [words, mend?.words ?? null]);
  const urea = { remedy: 'nitrogen', values: { material: 'Urea 46-0-0' } } as const;

  it('warns of a salty feed on turf that nobody waters, and moves it where it does not burn', () => {
    const hot = { climate: climateOf({ climate: 'temperate inland' }) };
    const dry = { ...hot, zone: { irrigation: 'none', intensity: 'low', clippings: 'returned' } } as const;
    expect(told({ ...dry, changes: [{ ...urea, months: [7, 8] }] })).toEqual([
      [
        expect.stringMatching(/^Urea 46-0-0 is salty, nobody waters here.*dry turf it burns\. Before rain only/),
        expect.stringMatching(/^Move nitrogen to April, May/),
      ],
    ]);
    // Watered, slow, or cool: nothing to say.
    expect(told({ ...hot, zone: { irrigation: 'hose' }, changes: [{ ...urea, months: [7, 8] }] })).toEqual([]);
    expect(told({ ...dry, changes: [{ ...urea, months: [4, 10] }] })).toEqual([]);
    expect(told({ ...dry, changes: [{ ...urea, values: { material: 'Polymer-coated urea 43-0-0' }, months: [7, 8] }] })).toEqual([]); // prettier-ignore
  });

  it('tells what stands twice, what is sown twice, lime beside peat, and clay without holes', () => {
    const twice = { remedy: 'wetting', added: true } as const;
    expect(
      told({
        changes: [
          { ...twice, key: 'a' },
          { ...twice, key: 'b' },
        ],
      }),
    ).toEqual([[expect.stringMatching(/^Wetting agent stands twice here/), 'Leave the second wetting agent out']]);
    // Seed that nobody asked for goes; what somebody has set by hand stays, and is told.
    const bed = { zone: { surface: 'seedbed' }, changes: [{ remedy: 'mulch', key: 'm', added: true }, { remedy: 'seed', values: { nurse: 5 } }] } as const; // prettier-ignore
    expect(told(bed)).toEqual([
      [expect.stringMatching(/^The sprayed mulch brings its own seed/), 'Leave sun mix: bluegrass and ryegrass out'],
    ]);
    const sour = { test: { soilPh: 5.2, buffer: { method: 'smp', ph: 6.2 } } } as const;
    const sand = { remedy: 'sand', key: 's', added: true, values: { layer: 0.3, times: 1 } } as const;
    expect(told({ ...sour, changes: [sand] })).toEqual([]);
    expect(told({ ...sour, changes: [{ ...sand, values: { ...sand.values, peat: 15 } }] })).toEqual([
      [expect.stringMatching(/^Peat is sour, and lime undoes it/), null],
    ]);
    // Clay for holes that nobody opens.
    const clay = { remedy: 'clay', key: 'c', added: true } as const;
    expect(told({ changes: [clay] })).toEqual([[expect.stringMatching(/fills the holes of coring, and no coring/), null]]); // prettier-ignore
    expect(told({ changes: [clay, { remedy: 'core', key: 'h', added: true, months: [5] }] })).toEqual([]);
  });
});

describe('a bed', () => {
  it('is limed early in its month and sown two weeks later with its starter, in the late summer of a cold place', () => {
    const { treatments, findings } = programOf({
      ...{ zone: { surface: 'seedbed' }, test: acid, climate: climateOf({ climate: 'temperate inland' }) },
    });
    const days = (key: string) => by(treatments, key).doses.map(({ from, to }) => [from, to]);
    expect(days('lime')).toEqual([['2027-08-01', '2027-08-10']]);
    expect(days('seed')).toEqual([['2027-08-25', '2027-08-31']]);
    expect(days('nitrogen')[0]).toEqual(['2027-08-25', '2027-08-31']);
    expect(findings).toEqual([]);
    expect(by(treatments, 'seed').supply!.name).toBe('Sun mix: bluegrass and ryegrass');
  });

  it.each([
    ['cool maritime', 'kentucky bluegrass', '08'],
    ['temperate inland', 'kentucky bluegrass', '08'],
    ['cold inland', 'tall fescue', '08'],
    ['warm coast', 'tall fescue', '10'],
    ['dry summer', 'tall fescue', '10'],
    ['temperate inland', 'bermudagrass', '06'],
    ['warm coast', 'bermudagrass', '04'],
  ] as const)('in a %s place sows %s where it comes up before heat or frost', (climate, grass, month) => {
    const place = climateOf({ climate });
    const { treatments } = programOf({ zone: { surface: 'seedbed', grass }, climate: place });
    const [dose] = by(treatments, 'seed').doses;
    expect(dose!.from!.slice(5, 7)).toBe(month);
    const frost = `${dose!.from!.slice(0, 4)}-${place!.firstFrost}`;
    expect((Date.parse(frost) - Date.parse(dose!.from!)) / 86_400_000).toBeGreaterThan(45);
  });

  it('sows what is cleared as bare ground, and the rest not at all', () => {
    const { treatments } = programOf({
      changes: [
        { remedy: 'clear', key: 'c', added: true, values: { area: 60 } },
        { remedy: 'seed', key: 's', added: true },
      ],
    });
    expect(by(treatments, 's').words).toMatch(/^On the 60 m² that is cleared/);
    expect(by(treatments, 's').values).toMatchObject({ area: 60, purpose: 'new' });
    expect(by(treatments, 'c').more.join()).toMatch(/2\.4 m³ of topsoil, settled, brings it level/);
  });
});

describe('shortages besides the great three', () => {
  it('are fed on evidence only: sulfur on sand, trace elements where test and leaf both show it', () => {
    const asked = (zone: object, nutrients: object) =>
      programOf({ zone, test: { nutrients: { p: ppm(40), k: ppm(200), ...nutrients } } }).treatments.map(
        ({ remedy }) => remedy,
      );
    const sand = { soilGroup: 'sand' } as const;
    expect(asked(sand, { s: ppm(3) })).toContain('sulfate');
    expect(asked({}, { s: ppm(3) })).not.toContain('sulfate');
    expect(asked(sand, {})).not.toContain('sulfate');
    expect(asked(sand, { mn: ppm(0.5) })).not.toContain('manganese');
    expect(asked({ ...sand, signs: ['green veins'] }, { mn: ppm(0.5) })).toContain('manganese');
  });
});
