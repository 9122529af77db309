import fc from 'fast-check';
import {
  type Entry,
  type JobDose,
  type JobGround,
  type PlacedJob,
  type ProgramInput,
  backwardFrom,
  dateKinds,
  breaksOf,
  climateNames,
  climateOf,
  contentOf,
  daysBetween,
  downOf,
  sinceSample,
  entryKindOf,
  judgeDay,
  ledgerOf,
  normalVerdict,
  normalYear,
  planJobs,
  planned,
  plannedEntry,
  productOf,
  remedyTable,
  putDown,
  rateUnitOf,
  rulesBetween,
  standing,
  yearOf,
  zoneForecast,
} from '../src/index.ts';
import { phCourse } from '../src/forecast/phCourse.ts';
import { anyHand, anyReport, anyZone, by, dosesOf, grams, materialOf, programOf } from './programScene.ts';

const TODAY = '2026-11-27';

describe('the jobs of a season', () => {
  it('break no order, gap or window, whatever the program, and leave nothing out in silence', () => {
    let dated = 0;
    fc.assert(
      fc.property(anyZone, anyReport, anyHand, fc.constantFrom(...climateNames), (zone, test, changes, name) => {
        const climate = climateOf({ climate: name })!;
        const program = programOf({ zone, test, changes, climate });
        const warm = /bermuda|zoysia|augustine|centipede|bahia|buffalo/.test(zone.grass);
        const ground: JobGround = {
          ...{ today: TODAY, blackouts: [{ from: '11-15', to: '03-01', what: 'all fertilizer' }], system: 'metric' },
          year: normalYear(climate, warm ? 'warm' : 'cool', 46),
        };
        const doses = dosesOf(program, zone.surface === 'seedbed');
        const jobs = planJobs(doses, () => ground);
        expect(jobs.map(({ id }) => id)).toEqual(doses.map(({ id }) => id));
        for (const job of jobs) {
          if (job.day === null) {
            expect(job.words.join('')).not.toBe('');
            continue;
          }
          dated += 1;
          expect(job.day >= job.earliest! && job.day <= job.latest! && job.day >= TODAY).toBe(true);
          // What was set by hand to a month that does not suit says so, and stands.
          if (job.words.length === 0) expect(normalVerdict(job, job.day, ground).verdict).toBe('go');
          else expect(job.own).toBe(true);
          for (const other of jobs) {
            if (other === job || other.day === null) continue;
            for (const { ordered, days } of rulesBetween(job, other).filter(() => isBefore(job, other))) {
              const gap = daysBetween(job.day, other.day);
              expect(ordered ? gap : Math.abs(gap)).toBeGreaterThanOrEqual(days);
            }
          }
          expect(breaksOf(job, job.day, jobs, ground).filter(({ never }) => never)).toEqual([]);
        }
      }),
      { numRuns: 200 },
    );
    expect(dated).toBeGreaterThan(200);
  });

  const stageOf = ({ remedy }: PlacedJob): number => remedyTable.remedies.find(({ name }) => name === remedy)!.stage;
  const isBefore = (job: PlacedJob, other: PlacedJob): boolean =>
    job.key === other.key ? job.position < other.position : stageOf(job) < stageOf(other);

  const ground: JobGround = {
    ...{ today: TODAY, blackouts: [], system: 'us' },
    year: normalYear(climateOf({ climate: 'cool maritime' })!, 'cool', 46.5),
  };
  const dose = (key: string, more: Partial<JobDose> & Pick<JobDose, 'remedy'>): JobDose => ({
    ...{ id: key, zoneId: 'z', key, name: key, position: 0, from: '2027-03-01', to: '2027-10-31', own: false },
    ...{ product: null, bare: false },
    ...more,
  });

  it('say at once what a move breaks: the gap to lime, the order, the season, and a second pass that is one', () => {
    const urea = {
      name: 'urea',
      slow: false,
      gases: true,
      bringsNitrogen: true,
      feeds: true,
      bringsPhosphorus: false,
      noSeedingWeeks: 0,
    };
    const at = (one: JobDose, day: string) => ({ ...one, day });
    const lime = at(dose('Lime', { remedy: 'lime' }), '2027-05-10');
    const feed = dose('Nitrogen', { remedy: 'nitrogen', product: urea });
    const words = (job: JobDose, day: string, ...others: Array<JobDose & { day: string | null }>) =>
      breaksOf(job, day, others, ground)
        .map((one) => `${one.never ? '!' : ''}${one.words}`)
        .join(' ');
    expect(words(feed, '2027-05-17', lime)).toMatch(
      /^Lime and ammonium .* two weeks .*Nitrogen on 2027-05-17, Lime on 2027-05-10/,
    );
    expect(words(feed, '2027-05-24', lime)).toBe('');
    expect(words(feed, '2027-01-15')).toMatch(/grass has to grow \(growth potential 0\.0\d, asked from 0\.2\)/i);
    expect(words(feed, '2026-11-01')).toMatch(/^!2026-11-01 is past/);
    const again = at({ ...feed, id: 'second', position: 1 }, '2027-06-01');
    expect(words(feed, '2027-05-25', again)).toMatch(/^!Nitrogen on 2027-06-01 and this are 7 days apart: .* as one/);
    const core = dose('Coring', { remedy: 'core' });
    const compost = at(dose('Compost', { remedy: 'compost' }), '2027-06-01');
    expect(words(core, '2027-06-10', compost)).toMatch(/Cores are pulled first/);
    const closed = { ...ground, blackouts: [{ from: '05-01', to: '05-31', what: 'nitrogen' as const }] };
    expect(breaksOf(feed, '2027-05-24', [], closed)).toContainEqual(expect.objectContaining({ never: true }));
  });

  it('count backward from a fixed date, each before what follows it, and say what a shortcut risks', () => {
    const jobs = [
      { ...dose('Coring', { remedy: 'core' }), day: '2027-06-10', latest: '2027-08-20' },
      { ...dose('Compost', { remedy: 'compost' }), day: '2027-06-12', latest: '2027-09-30' },
      { ...dose('Overseeding', { remedy: 'seed' }), day: '2027-08-20', latest: '2027-09-10' },
    ];
    const found = backwardFrom('2027-09-12', 'match', jobs);
    const of = (id: string) => found.find((one) => one.id === id)!;
    // Seed wants ten weeks: 4 July; coring comes before it, and heals in four weeks anyway.
    expect(of('Overseeding')).toMatchObject({ latestStart: '2027-07-04', slack: -47 });
    expect(of('Coring')).toMatchObject({ latestStart: '2027-07-04', slack: 24 });
    expect(of('Coring').words).toMatch(/^Before overseeding/);
    expect(of('Compost')).toMatchObject({ latestStart: '2027-08-29' });
    expect(of('Overseeding').risk).toMatch(/tear out/);
  });

  it('count back from the rains, their end and a visit by what each of them does, and not in words of play', () => {
    const sown = { ...dose('Seed', { remedy: 'seed' }), day: '2027-09-20', bare: true, emerge: [7, 14] as const };
    const lime = { ...dose('Lime', { remedy: 'lime' }), day: '2027-09-20' };
    const before = (kind: 'rains begin' | 'rains end' | 'visit', ...jobs: Parameters<typeof backwardFrom>[2]) =>
      backwardFrom('2027-11-15', kind, jobs).map(({ id, latestStart }) => [id, latestStart]);
    // Up after three quarters of 7 to 14 days, 12; then 21 days on the flat and 42 on a slope; 35 before it turns dry.
    expect(before('rains begin', sown)).toEqual([['Seed', '2027-10-13']]);
    expect(before('rains begin', { ...sown, slope: 12 })).toEqual([['Seed', '2027-09-22']]);
    expect(before('rains end', sown, lime)).toEqual([['Seed', '2027-09-29'], ['Lime', '2027-11-08']]); // prettier-ignore
    expect(before('visit', sown)).toEqual([['Seed', '2027-10-06']]);
    // Bare ground that would be sown in the rains is not left out.
    expect(backwardFrom('2027-11-15', 'rains begin', [{ ...sown, day: '2027-11-20' }])[0]).toMatchObject({ slack: -38, risk: expect.stringMatching(/cover it/) as string }); // prettier-ignore
    for (const kind of dateKinds)
      for (const { words, risk } of backwardFrom('2027-11-15', kind, [sown, lime]))
        if (kind !== 'match') expect(`${words} ${risk}`).not.toMatch(/play|shoe|boot|ball|stud/);
  });
});

describe('go, wait or never', () => {
  it('never goes while something forbids it, and a better day is never worse', () => {
    const day = fc.record(
      {
        soilTemperature: fc.integer({ min: -5, max: 30 }),
        soilTrend: fc.constantFrom('rising', 'falling', 'steady'),
        wind: fc.integer({ min: 0, max: 60 }),
        rain24: fc.integer({ min: 0, max: 60 }),
        rain48: fc.integer({ min: 0, max: 90 }),
        growth: fc.double({ min: 0, max: 1, noNaN: true }),
        leaves: fc.constantFrom('dry', 'wet'),
        airMax: fc.integer({ min: 0, max: 45 }),
      },
      { requiredKeys: [] },
    );
    const jobs = ['lime', 'soluble fertilizer', 'slow fertilizer', 'gypsum', 'seed cool-season', 'sulfur'] as const;
    const rank = { go: 0, wait: 1, never: 2 } as const;
    fc.assert(
      fc.property(day, fc.constantFrom(...jobs), (known, job) => {
        const facts = known as Parameters<typeof judgeDay>[1];
        const { verdict } = judgeDay(job, facts);
        expect(judgeDay(job, { ...facts, ground: job === 'sulfur' ? 'saturated' : 'frozen' }).verdict).toBe('never');
        if (facts.wind !== undefined)
          expect(rank[judgeDay(job, { ...facts, wind: facts.wind + 40 }).verdict]).toBeGreaterThanOrEqual(
            rank[verdict],
          );
        // What is not told hinders nothing, and is named.
        const told = judgeDay(job, {});
        expect(told.verdict).toBe('go');
        expect(told.reasons.join(' ')).toMatch(/^Not known, look before you begin/);
      }),
    );
  });
});

describe('the ledger', () => {
  const lime = materialOf('Pelletised calcitic lime');
  const entry = (id: string, more: Partial<Entry> = {}): Entry => ({
    ...{ id, zoneId: 'z', on: '2027-04-10', kind: 'lime', state: 'done', words: 'lime', rate: 100, unit: 'g/m2' },
    ...{
      area: null,
      material: lime,
      cce: null,
      correctsId: null,
      recordedAt: `2027-05-01T00:00:${id.padStart(2, '0')}Z`,
    },
    ...more,
  });

  const held = contentOf(productOf('', lime, null)!);

  it('is a recount of what stands, after any corrections', () => {
    const writes = fc.array(
      fc.record({
        rate: fc.option(fc.integer({ min: 1, max: 300 }), { nil: null }),
        correct: fc.option(fc.nat(30), { nil: undefined }),
        state: fc.constantFrom('done', 'partly done', 'not done', 'withdrawn'),
      }),
      { maxLength: 14 },
    );
    fc.assert(
      fc.property(writes, (all) => {
        const entries: Entry[] = [];
        // A chain holds what was written last in it.
        const chains = new Map<string, Entry>();
        const rootOf = new Map<string, string>();
        for (const [index, { rate, correct, state }] of all.entries()) {
          const target = correct === undefined ? undefined : entries[correct % Math.max(1, entries.length)];
          const one = entry(String(index), { rate, state: state, correctsId: target?.id ?? null });
          const root = target ? rootOf.get(target.id)! : one.id;
          rootOf.set(one.id, root);
          entries.push(one);
          chains.set(root, one);
        }
        const last = [...chains.values()].filter(({ state }) => state !== 'withdrawn');
        expect(
          standing(entries)
            .map(({ id }) => id)
            .sort(),
        ).toEqual(last.map(({ id }) => id).sort());
        const counted = last.filter(({ state }) => state === 'done' || state === 'partly done');
        const sum = counted.reduce((total, { rate }) => total + (rate ?? 0), 0);
        const book = ledgerOf(entries, 200, yearOf(2027));
        expect(book.done.ca).toBeCloseTo((sum * held.ca) / 100, 6);
        expect(book.unknown).toHaveLength(counted.filter(({ rate }) => rate === null).length);
      }),
    );
  });

  it('reads what was used and what is told by area as one, and a job done in part for the rest of it', () => {
    const lime = materialOf('Pelletised calcitic lime');
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 10, max: 4000 }), (quantity, area) => {
        const used = putDown({ state: 'done', quantity, area }, 5000, lime);
        expect((used.rate! * area) / 1000).toBeCloseTo(quantity, 9);
        expect(putDown({ ...used, state: 'done' }, area, lime).rate).toBe(used.rate);
        expect(putDown({ state: 'not done', quantity }, area, lime).rate).toBeNull();
        // A layer of so many litres, cm: 1 L over 1 m² is 1 mm.
        const laid = putDown({ state: 'done', quantity }, area, { kind: 'compost', packUnit: 'L' });
        expect([laid.unit, laid.rate! * area * 10]).toEqual(['cm', expect.closeTo(quantity, 9)]);
        const job = { id: 'j', zoneId: 'z', remedy: 'lime', name: 'Lime', rate: used.rate, sense: 'limeRate', quantity, unit: 'kg', productId: 'l' } as const; // prettier-ignore
        expect(plannedEntry({ ...job, state: 'partly done' }, TODAY, 5000, () => lime).area).toBeCloseTo(area, 6);
        expect(plannedEntry({ ...job, state: 'open' }, TODAY, 5000, () => lime).area).toBeNull();
      }),
    );
    expect(['sand', 'lime', 'wetting agent', 'watering'].map((kind) => rateUnitOf(kind as 'sand'))).toEqual(['cm', 'g/m2', 'mL/m2', 'mm']); // prettier-ignore
  });

  it('counts a part of a zone by its share, lime by what still reacts, and says what it cannot count', () => {
    const book = ledgerOf([entry('1', { area: 50 }), entry('2', { rate: null, on: '2027' })], 200, yearOf(2027));
    expect(book.done.ca).toBeGreaterThan(0);
    expect(book.done.ca).toBeCloseTo(ledgerOf([entry('1', { rate: 25 })], 200, yearOf(2027)).done.ca, 9);
    expect(book.unknown[0]).toMatch(/2027: no amount is told/);
    const open = (on: string) => ledgerOf([entry('1', { on })], 200, yearOf(2027)).limeOpen;
    expect(open('2025-12-31')).toBeLessThan(open('2026-12-31'));
    expect(open('2027-12-31')).toBeGreaterThan(70);
  });

  it('comes off the next rate, and the year keeps its caps together with it', () => {
    const kinds = ['lime', 'nitrogen', 'sulfur', 'compost', 'gypsum'] as const;
    const slack = 1.002;
    fc.assert(
      fc.property(anyZone, anyReport, fc.constantFrom('2027-03-01', '2027-07-01'), (zone, test, on) => {
        const began = '2026-11-27';
        const given = { zone, test: { ...test, sampledOn: '2026-10-01' } } as never as Parameters<typeof programOf>[0];
        const before = programOf(given);
        // The first dose of everything is done as it was planned.
        const entries = planned(before.treatments).flatMap((treatment, index): Entry[] => {
          const [first] = treatment.doses;
          const unit = { layer: 'cm', limeRate: 'g/m2', productRate: 'g/m2', nutrientRate: 'g/m2' }[
            treatment.sense as 'layer'
          ];
          if (!first || !unit || !treatment.supply) return [];
          const material = materialOf(treatment.supply.materialId);
          return [entry(String(index), { ...{ on, material, rate: first.rate, unit: unit as 'cm' }, kind: entryKindOf(treatment.remedy) })]; // prettier-ignore
        });
        const down = downOf(entries, zone.area, { since: began, today: '2027-08-01' });
        const sinceTest = sinceSample(entries, zone.area, '2026-10-01', '2027-08-01');
        const applied = entries.map(({ kind, rate, on: day, material }) => ({
          kind,
          on: day,
          rate: rate!,
          cce: material!.analysis.cce,
        }));
        const after = programOf({ ...given, zone: { ...zone, down, sinceTest, applied }, from: '2027-08-01' });
        // Nobody need have begun a year for what is in the book to count.
        const apart = programOf({ ...given, zone: { ...zone, sinceTest, applied }, from: '2027-08-01' });
        const rate = (program: typeof before, key: string): number =>
          planned(program.treatments).filter((one) => one.remedy === key).reduce((sum, one) => sum + (one.rate?.value ?? 0), 0); // prettier-ignore
        for (const key of kinds) expect(rate(after, key)).toBeLessThanOrEqual(rate(before, key) * slack + 1e-6);
        for (const key of ['sulfur', 'gypsum'] as const) {
          const spread = entries.filter(({ kind }) => kind === key).reduce((sum, one) => sum + one.rate!, 0);
          for (const program of [after, apart])
            if (spread > 0) expect(rate(program, key) + spread).toBeLessThanOrEqual(rate(before, key) * slack + 0.05);
        }
        const { surface } = zone;
        const limeYear = { turf: 100, 'fine turf': 50, seedbed: 150 }[surface];
        expect(rate(after, 'lime') + down.limeProduct).toBeLessThanOrEqual(grams(limeYear) * slack);
        if (surface !== 'seedbed') expect(rate(after, 'compost') + down.year.compost).toBeLessThanOrEqual(1.2 * slack);
        const line = (program: typeof before) => program.balance.find(({ nutrient }) => nutrient === 'n');
        const most = line(before)?.most;
        if (most != null) expect((line(after)?.total ?? 0) + down.year.n).toBeLessThanOrEqual(Math.max(most, down.year.n) * slack + 0.02); // prettier-ignore
      }),
      { numRuns: 120 },
    );
  });
});

describe('pH over time', () => {
  it('keeps its books: the change is what went in and out over the capacity', () => {
    const many = <T>(one: fc.Arbitrary<T>) => fc.array(one, { maxLength: 3 });
    const day = fc.integer({ min: 0, max: 700 });
    fc.assert(
      fc.property(
        fc.double({ min: 4.2, max: 7.8, noNaN: true }),
        fc.double({ min: 0.5, max: 20, noNaN: true }),
        many(fc.record({ day, rate: fc.integer({ min: 1, max: 500 }), mesh: fc.constant({ fine: 50, medium: 30, coarse: 15 }) })), // prettier-ignore
        many(fc.record({ day, rate: fc.integer({ min: 1, max: 40 }), diameter: fc.constantFrom(0.05, 0.1, 0.5) })),
        many(fc.record({ day, acidity: fc.integer({ min: -10, max: 40 }) })),
        fc.array(fc.integer({ min: -5, max: 30 }), { minLength: 12, maxLength: 12 }),
        (soilPh, capacity, lime, sulfur, nitrogen, temperature) => {
          const course = { soilPh, capacity, days: 900, lime, sulfur, nitrogen, temperature, drainage: temperature.map((one) => Math.max(0, one)) }; // prettier-ignore
          const { ph, turnover } = phCourse(course);
          const net = (turnover.lime - turnover.nitrogen - turnover.lost) / 50.04 - turnover.sulfur / 16.03;
          expect(ph.at(-1)! - soilPh).toBeCloseTo(net / capacity, 8);
          const put = (rows: ReadonlyArray<{ rate: number }>): number => rows.reduce((sum, { rate }) => sum + rate, 0);
          expect(turnover.lime).toBeLessThanOrEqual(put(lime) * 0.95 + 1e-9);
          expect(turnover.sulfur).toBeLessThanOrEqual(put(sulfur) + 1e-9);
        },
      ),
    );
  });

  it('of a limed zone rises under its program, not under nothing, and names the day of the retest', () => {
    const year = normalYear(climateOf({ climate: 'cool maritime' })!, 'cool', 46.5);
    const test = { soilPh: 5.4, extractant: 'mehlich-3', depth: 15, organicMatter: 3.5, nutrients: {}, buffer: { method: 'smp', ph: 6.4 }, sampledOn: '2026-10-01' } as const; // prettier-ignore
    const program = programOf({ test });
    const { doses, supply } = by(program.treatments, 'lime');
    const zone = { ...{ name: 'Lawn', area: 200, surface: 'turf', soilGroup: 'loam' } } as NonNullable<
      ProgramInput['zone']
    >;
    const planned = doses.map(({ rate, from }) => ({
      day: from!,
      entry: {
        kind: 'lime' as const,
        rate,
        unit: 'g/m2' as const,
        material: materialOf(supply!.materialId),
        cce: null,
      },
    }));
    const found = zoneForecast({ zone, test, entries: [], planned, year, until: '2029-10-01' })!;
    expect(found.under.at(-1)!.ph).toBeGreaterThan(5.8);
    expect(found.nothing.at(-1)!.ph).toBeLessThan(5.41);
    expect(found.retest.on > '2027-10-01' && found.retest.on < '2029-10-01').toBe(true);
    for (const { low, ph, high } of found.under) expect(low < ph && ph < high).toBe(true);
    // What it opens to comes to what is told.
    expect((found.working.at(-1) as { result: number }).result).toBeCloseTo(found.under.at(-1)!.ph, 9);
    const guessed = zoneForecast({
      zone,
      test: { ...test, buffer: undefined },
      entries: [],
      planned,
      year,
      until: '2029-10-01',
    })!;
    expect(guessed.resistance.spread).toBe(0.35);
  });
});
