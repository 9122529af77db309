import { randomUUID } from 'node:crypto';
import { readBagCode, writeBagCode } from '@glenfold/agronomy';
import { Plane, type PlanePoint } from '@glenfold/agronomy/geometry';
import { corePlaces } from '@glenfold/agronomy/sampling';
import type {
  BagAnswer,
  HiddenSoilAnswer,
  LabReportAnswer,
  LabResultAnswer,
  LaboratoryAnswer,
  LaboratoryNewsAnswer,
  ProblemAnswer,
} from '@glenfold/contract';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readLabRow } from '@glenfold/agronomy';
import { readLabTable } from '../src/lab/labTable.ts';
import { assay } from '../src/standins/laboratory/assay.ts';
import { HiddenSoil, type Soil, mixed } from '../src/standins/laboratory/hiddenSoil.ts';
import { houseStyles } from '../src/standins/laboratory/houseStyles.ts';
import { type PrintedSample } from '../src/standins/laboratory/reportFiles.ts';
import { faultOf } from '../src/standins/laboratory/standInLaboratories.ts';
import { get, send, useDemoServer, zoneOf } from './client.ts';
import { openBrowser, startServer } from './harness.ts';
import { bagBody } from './promisedRoutes.ts';
import { LabPost } from '../src/lab/labPost.ts';

const plane = new Plane([-36, 46.5]);
const square = (side: number) => {
  const corners: PlanePoint[] = [[0, 0], [side, 0], [side, side], [0, side], [0, 0]]; // prettier-ignore
  return { type: 'Polygon' as const, coordinates: [corners.map((corner) => [...plane.toMap(corner)])] };
};
const soilOf = (key: string): HiddenSoil => new HiddenSoil({ key, soilGroup: 'loam', outline: square(50) });
/** Mean error of a bag's potash, as a share, over many zones. */
function errorOf(cores: number, side = 50): number {
  const places = corePlaces(square(side), cores, 'coverage', 1);
  const errors = Array.from({ length: 60 }, (_, zone) => {
    const soil = soilOf(`zone ${zone}`);
    const bag = mixed(places.map((place, at) => soil.core({ key: `${at}`, place, whole: 1 })));
    return Math.abs(bag.k / soil.mean().k - 1);
  });
  return errors.reduce((sum, error) => sum + error, 0) / errors.length;
}

describe('the soil that nobody sees', () => {
  it('is the same each time, and its bag errs less with more cores and with cores spread over the zone', () => {
    expect(soilOf('A').mean()).toEqual(soilOf('A').mean());
    const [few, usual, many, corner] = [errorOf(4), errorOf(16), errorOf(64), errorOf(16, 6)];
    // Halved, or better, by four times the cores.
    expect(usual).toBeLessThan(0.65 * few);
    expect(many).toBeLessThan(0.65 * usual);
    expect(corner).toBeGreaterThan(1.6 * usual);
    // The means of all single cores are the zone's: nothing leans.
    const soil = soilOf('A');
    const all = mixed(corePlaces(square(50), 400, 'random', 3).map((place, at) => soil.core({ key: `${at}`, place, whole: 1 }))); // prettier-ignore
    for (const analyte of ['ph', 'p', 'k', 'organicMatter'] as const)
      expect(Math.abs(all[analyte] / soil.mean()[analyte] - 1)).toBeLessThan(0.08);
  });

  it('reads richer where cores came up short, and agrees with a test that was there before', () => {
    const soil = soilOf('B');
    const bag = (whole: number): Soil => mixed(Array.from({ length: 20 }, (_, at) => soil.core({ key: `${at}`, place: null, whole }))); // prettier-ignore
    expect(bag(0.5).p).toBeCloseTo(1.25 * bag(1).p, 6);
    const reported = { value: 80, unit: 'lb/acre', basis: 'element' } as const;
    const plain = (value: number, unit: 'pH' | '%') => ({ value, unit, basis: 'element' }) as const;
    const tested = { soilPh: plain(5.2, 'pH'), organicMatter: plain(3.1, '%'), p: reported };
    const known = new HiddenSoil({ key: 'C', soilGroup: null, outline: null, tested }).mean();
    expect(known).toMatchObject({ ph: 5.2, organicMatter: 3.1, p: 40 });
  });
});

describe('each house style', () => {
  const panels = ['routine', 'secondary and micronutrients', 'organic matter', 'salts'];
  const submitted = { bagId: '', siteId: '', siteName: 'Kelp; Cottage', code: 'K7F-4Q2', sentAt: new Date(), sampledOn: '2026-10-14', depth: 15.24, panels }; // prettier-ignore
  const printed = (style: (typeof houseStyles)[number], seed: number): PrintedSample =>
    assay(
      style,
      soilOf(`soil ${seed}`).mean(),
      'loam',
      { ...submitted, panels: panels.slice(0, 1 + (seed % 4)) },
      `26-1/${seed}`,
      seed,
    );

  it.each(houseStyles.map((style) => [style.profile.name, style] as const))(
    '%s is read back to what it printed, with its extractant, buffer and units',
    (_name, style) => {
      fc.assert(
        fc.property(fc.array(fc.nat(5000), { minLength: 1, maxLength: 6 }), (seeds) => {
          const samples = seeds.map((seed) => printed(style, seed));
          const { extractant, bufferMethod, name } = style.profile;
          const methods = { 'mehlich-3': 'Mehlich 3', 'mehlich-1': 'Mehlich 1', morgan: 'Modified Morgan' } as const;
          const { content } = style.write({
            ...{ laboratory: name, number: '26-1', day: '2026-11-02', client: 'Kelp; Cottage', amends: null, samples },
            extractant: methods[extractant as keyof typeof methods],
            buffer: { smp: 'SMP', sikora: 'Sikora', mehlich: 'Mehlich', 'adams-evans': 'Adams-Evans' }[bufferMethod],
          });
          const { header, rows } = readLabTable(content);
          expect(header).toMatchObject({ extractant, bufferMethod });
          expect(rows).toHaveLength(samples.length);
          for (const [index, { cells }] of rows.entries()) {
            const { row, faults } = readLabRow(cells, header.columns);
            expect(faults).toEqual([]);
            expect(row).toMatchObject({ label: 'K7F-4Q2', labNumber: samples[index]!.labNumber, sampledOn: '2026-10-14' }); // prettier-ignore
            expect(row.depth).toBeCloseTo(15.2, 6);
            for (const { name: head, text } of samples[index]!.cells) {
              const { values } = row;
              const of = { pH: values.soilPh, 'Buffer pH': values.bufferPh, 'Organic matter': values.organicMatter, 'EC of the saturated paste': values.ecPaste, P: values.p, P2O5: values.p, K: values.k, K2O: values.k, Ca: values.ca, Mg: values.mg, S: values.s, Fe: values.fe, Mn: values.mn, Zn: values.zn, Cu: values.cu, B: values.b, Na: values.na }; // prettier-ignore
              if (head in of)
                expect([head, of[head as keyof typeof of]?.value]).toEqual([head, Number(text.replace('<', ''))]);
            }
            expect(row.values.p).toMatchObject({ unit: style.unit, basis: style.oxides ? 'oxide' : 'element' });
            expect(row.values.p!.belowDetection ?? false).toBe(samples[index]!.cells.some(({ name: head, text }) => head.startsWith('P') && text.startsWith('<'))); // prettier-ignore
          }
        }),
        { numRuns: 25 },
      );
    },
  );

  it('asks for less lime as the soil is less acid, in its own rounding; a buffer never leaves its scale', () => {
    for (const style of houseStyles) {
      const [low, high] = [style.buffer(12), style.buffer(0)];
      expect(low).toBeLessThan(high);
      expect(high).toBeLessThanOrEqual(8);
      const [sour, sweet] = [style.lime(5.2, style.buffer(5), 15.24), style.lime(6.2, style.buffer(1.5), 15.24)];
      expect(sour!).toBeGreaterThan(sweet!);
    }
  });
});

it('of a hundred reports about two thirds are plain, and each fault befalls some', () => {
  const faults = Array.from({ length: 100 }, (_, at) => faultOf((at + 0.5) / 100));
  expect(faults.filter((fault) => fault === null).length).toBeGreaterThan(55);
  expect(new Set(faults)).toEqual(new Set([null, 'missing analyte', 'mislabelled', 'duplicate', 'amended']));
});

describe('a bag that is sent', () => {
  const server = useDemoServer();
  const bagNow = async (bag: BagAnswer): Promise<BagAnswer> =>
    (await get<BagAnswer[]>(`/sites/${bag.siteId}/bags`)).find(({ id }) => id === bag.id)!;
  const news = (): Promise<LaboratoryNewsAnswer> => send('post', '/laboratories/news', {}, 200);
  const hurry = (days: number): Promise<void> => send('post', '/laboratories/hurry', { days }, 204);
  const filesOf = async (bag: BagAnswer): Promise<LabReportAnswer[]> =>
    (await get<LabReportAnswer[]>(`/sites/${bag.siteId}/lab-reports`)).filter(({ rows }) =>
      rows.some(({ bagId }) => bagId === bag.id),
    );

  async function sent(laboratory: string, labels = ['GR-1', 'GR-2']): Promise<BagAnswer> {
    const zones = await Promise.all(labels.map((label) => zoneOf('Gannet', label)));
    const body = bagBody(zones[0]!.id);
    const cores = zones.map(({ id }, index) => ({ zoneId: id, turn: index + 1 }));
    const [bag] = await send<BagAnswer[]>('post', `/sites/${zones[0]!.siteId}/bags`, { bags: [{ ...body, laboratory, cores }] }, 201); // prettier-ignore
    const at = new Date().toISOString();
    await send('post', '/core-taps', { sentAt: at, taps: bag!.places.map(({ id }) => ({ id: randomUUID(), coreId: id, state: 'cored', at, pushed: 10, recovered: 10 })) }, 200); // prettier-ignore
    await send('post', '/bags/custody', { bagIds: [bag!.id], state: 'sent' }, 200);
    return bag!;
  }
  /** As the simulated laboratory would have it without what it gets wrong by chance. */
  const plain = (bag: BagAnswer, fault: string | null = null) =>
    server.current().sql(`UPDATE standin_sample SET fault = $2, "printed" = jsonb_set("printed", '{code}', to_jsonb($3::text)), "printedTwice" = NULL, "printedFirst" = NULL, "amendsAt" = NULL WHERE "bagId" = $1`, [bag.id, fault, writeBagCode(bag.code)]); // prettier-ignore

  it('arrives, is reported for all its zones, is read once, and shows how near it came to the soil', async () => {
    const laboratories = await get<LaboratoryAnswer[]>('/laboratories');
    expect(new Set(laboratories.map(({ extractant }) => extractant)).size).toBe(3);
    for (const { name } of laboratories) {
      const bag = await sent(name);
      await news();
      await plain(bag);
      expect((await bagNow(bag)).state).toBe('sent');
      await hurry(4);
      expect((await news()).arrived).toBeGreaterThan(0);
      const arrived = await bagNow(bag);
      expect(arrived).toMatchObject({ state: 'at the lab', labNumber: expect.stringMatching(/^\d\d-\d{4}\/1$/) as unknown }); // prettier-ignore
      expect(arrived.custody.at(-1)).toMatchObject({ by: name });
      expect((await get<HiddenSoilAnswer>(`/bags/${bag.id}/hidden-soil`)).values).toEqual([]);
      await hurry(15);
      expect((await news()).reports).toBeGreaterThan(0);
      expect((await bagNow(bag)).state).toBe('reported');
      // Asked again, nothing is told twice.
      expect(await news()).toMatchObject({ arrived: 0, reports: 0 });

      const [file] = await filesOf(bag);
      expect(file!.rows).toEqual([expect.objectContaining({ bagId: bag.id, faults: [] })]);
      await send('post', `/lab-reports/${file!.id}/confirm`, {}, 201);
      const results = (await get<LabResultAnswer[]>(`/sites/${bag.siteId}/lab-results`)).filter(({ label }) => label === writeBagCode(bag.code)); // prettier-ignore
      expect(results).toHaveLength(1);
      expect(new Set(results[0]!.zoneIds)).toEqual(new Set(bag.zoneIds));
      expect((await bagNow(bag)).state).toBe('read');
      // Its own advice and words are kept as it printed them.
      expect(results[0]!.beside).toMatch(/lime advised/i);
      const hidden = await get<HiddenSoilAnswer>(`/bags/${bag.id}/hidden-soil`);
      const ph = hidden.values.find(({ analyte }) => analyte === 'pH')!;
      expect(Math.abs(ph.bag - results[0]!.values.soilPh!.value)).toBeLessThan(0.25);
      expect(hidden.cores).toBe(2);
    }
  });

  it('is reported once, however many ask at the same time', async () => {
    const bag = await sent('Grey Skerry farm laboratory', ['GR-2']);
    await Promise.all(Array.from({ length: 4 }, news));
    await plain(bag);
    await hurry(20);
    const told = await Promise.all(Array.from({ length: 4 }, news));
    expect(told.reduce((sum, { reports }) => sum + reports, 0)).toBe(1);
    expect((await filesOf(bag)).length).toBe(1);
    expect((await bagNow(bag)).custody.map(({ state }) => state)).toEqual(['planned', 'cored', 'sent', 'at the lab', 'reported']); // prettier-ignore
  });

  it('does not join a parcel that is nearly there: it never arrives before it was sent', async () => {
    const first = await sent('Tern Sound testing station', ['GR-3']);
    await news();
    const soon = `UPDATE standin_sample SET "arrivesAt" = now() + interval '1 hour' WHERE "bagId" = $1`;
    await server.current().sql(soon, [first.id]);
    const second = await sent('Tern Sound testing station', ['GR-1']);
    const third = await sent('Tern Sound testing station', ['GR-2']);
    await news();
    const rows = await server
      .current()
      .sql<{ bagId: string; report: string; early: boolean }>(
        `SELECT "bagId", report, "arrivesAt" < now() + interval '20 hours' AS early FROM standin_sample WHERE "bagId" = ANY($1)`,
        [[first.id, second.id, third.id]],
      );
    const of = ({ id }: BagAnswer) => rows.find(({ bagId }) => bagId === id)!;
    expect([of(first).early, of(second).early, of(third).early]).toEqual([true, false, false]);
    expect(of(second).report).not.toBe(of(first).report);
    expect(of(third).report).toBe(of(second).report);
  });

  it('with a copied code goes to the bag that is chosen; a second run is held; an amended report takes the place of the first', async () => {
    const bag = await sent('Fennimore soil laboratory', ['GR-3']);
    await news();
    await plain(bag, 'amended');
    const code = writeBagCode(bag.code);
    const wrong = writeBagCode(`${bag.code[1]}${bag.code[0]}${bag.code.slice(2)}`);
    const differs = !bag.code.startsWith(bag.code[1]!);
    await server
      .current()
      .sql(
        `UPDATE standin_sample SET "printedFirst" = jsonb_set("printed", '{code}', to_jsonb($2::text)), "printedTwice" = "printed", "amendsAt" = "reportsAt" + interval '5 days' WHERE "bagId" = $1`,
        [bag.id, differs ? wrong : code],
      );
    await hurry(15);
    await news();
    await hurry(1);
    const { siteId } = bag;
    const file = (await get<LabReportAnswer[]>(`/sites/${siteId}/lab-reports`)).find(
      ({ fileName, rows }) => fileName.startsWith('fennimore') && rows.length === 2,
    )!;
    const [first, second] = file.rows;
    if (differs) {
      expect(() => readBagCode(first!.row.label)).toThrow(/mistyped/);
      expect(first).toMatchObject({ bagId: null, zoneId: null });
      expect(first!.faults[0]!.message).toContain(`${code} looks like it`);
      const { columns, extractant, bufferMethod } = file;
      const choices = { columns: columns.map(({ field, unit, basis }) => ({ field, unit, basis })), extractant, bufferMethod }; // prettier-ignore
      const choose = <T = LabReportAnswer>(rows: object[], status = 200) => send<T>('put', `/lab-reports/${file.id}`, { ...choices, rows }, status, file.version); // prettier-ignore
      const refused = await choose<ProblemAnswer>([{ line: first!.line, zoneId: null, bagId: file.id }], 422);
      expect(refused.errors[0]!.message).toMatch(/zone or bag that is not on this site/);
      const chosen = await choose([{ line: first!.line, zoneId: null, bagId: bag.id }]);
      expect(chosen.rows[0]).toMatchObject({ bagId: bag.id, faults: [] });
      expect(chosen.rows[1]!.faults[0]!.message).toMatch(/is of this bag too, as when a laboratory runs it twice/);
    } else expect(second!.faults[0]!.message).toMatch(/runs it twice/);
    await send('post', `/lab-reports/${file.id}/confirm`, {}, 201);
    const results = async (): Promise<LabResultAnswer[]> =>
      (await get<LabResultAnswer[]>(`/sites/${siteId}/lab-results`)).filter(({ label }) => label === code);
    const before = await results();
    expect(before).toHaveLength(1);

    await hurry(10);
    expect((await news()).words.join()).toMatch(/an amended report came/);
    const amended = (await filesOf(bag)).find(({ fileName }) => fileName.includes('amended'))!;
    expect(amended.rows[0]!.questions.join()).toMatch(/was read before, with pH/);
    await send('post', `/lab-reports/${amended.id}/confirm`, {}, 201);
    const after = await results();
    // Both can be read; the new one counts.
    expect(after.map(({ origin, supersedesId }) => [origin, supersedesId])).toEqual([
      [amended.fileName, before[0]!.id],
      [file.fileName, null],
    ]);
    expect(after[1]).toMatchObject({ id: before[0]!.id, supersededById: after[0]!.id });
  });

  it('of which a number is not reported is asked after; a lost bag takes no news', async () => {
    const bag = await sent('Tern Sound testing station', ['GR-2']);
    const lost = await sent('Tern Sound testing station', ['GR-1']);
    await news();
    await plain(bag);
    await server
      .current()
      .sql(
        `UPDATE standin_sample SET "printed" = jsonb_set("printed", '{cells}', (SELECT jsonb_agg(CASE WHEN cell->>'name' = 'K' THEN jsonb_set(cell, '{text}', '""') ELSE cell END) FROM jsonb_array_elements("printed"->'cells') cell)) WHERE "bagId" = $1`,
        [bag.id],
      );
    await send('post', '/bags/custody', { bagIds: [lost.id], state: 'lost' }, 200);
    await hurry(30);
    await news();
    expect((await bagNow(lost)).state).toBe('lost');
    const [file] = await filesOf(bag);
    const row = file!.rows.find(({ bagId }) => bagId === bag.id)!;
    expect(row.questions.join()).toMatch(/K was asked for and not reported/);
    // A half of a pair says that it is one, before it is read and ever after.
    await server.current().sql(`UPDATE bag SET purpose = 'problem' WHERE id = $1`, [bag.id]);
    const [again] = await filesOf(bag);
    expect(again!.rows.find(({ bagId }) => bagId === bag.id)!.questions.join()).toMatch(/holds the bad part alone/);
    await send('post', `/lab-reports/${file!.id}/confirm`, {}, 201);
    const results = await get<LabResultAnswer[]>(`/sites/${bag.siteId}/lab-results`);
    expect(results.find(({ label }) => label === writeBagCode(bag.code))!.beside).toMatch(/^Taken for: problem; /);
  });

  it('is asked after by the clock too, for every practice, and in nobody’s name', async () => {
    const bag = await sent('Fennimore soil laboratory', ['GR-1']);
    const clock = server.current().app.get(LabPost, { strict: false });
    await clock.ask();
    await hurry(4);
    await clock.ask();
    const { state, custody } = await bagNow(bag);
    expect(state).toBe('at the lab');
    expect(custody.at(-1)).toMatchObject({ by: 'Fennimore soil laboratory', note: null });
    const [told] = await server
      .current()
      .sql<{ personId: string | null }>(
        `SELECT "personId" FROM audit WHERE "recordId" = $1 ORDER BY "number" DESC LIMIT 1`,
        [bag.id],
      );
    expect(told!.personId).toBeNull();
  });
});

it('a real practice is offered no simulated laboratory: made-up numbers never reach its ground', async () => {
  const real = await startServer({ empty: true });
  const owner = openBrowser(real);
  await owner.session();
  const made = await owner.ask('post', '/first-run', {
    practice: 'Weir Lawns',
    name: 'Ada Sedge',
    email: 'ada@weir.example',
    password: 'a long enough password',
  });
  expect(made.status).toBeLessThan(300);
  await owner.session();
  const listed = await owner.ask('get', '/laboratories');
  expect([listed.status, listed.body]).toEqual([200, []]);
  await real.close();
});
