import {
  type LabReportAnswer,
  type LabResultAnswer,
  type ProblemAnswer,
  type ZoneProgramAnswer,
  labResultInput,
} from '@glenfold/contract';
import { get, printed, send, siteOf, typed, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

describe('a typed result', () => {
  it('keeps the laboratory’s own unit and basis, and is read as the element', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const { id } = await send<LabResultAnswer>('post', '/lab-results', typed(zone));
    const { result, reading } = await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`);
    expect(result!.values.p).toEqual({ value: 92, unit: 'lb/acre', basis: 'oxide' });
    expect(reading.bars.find(({ key }) => key === 'p')!.figure.value).toBeCloseTo(46 / 2.2914, 6);
    await send('put', `/lab-results/${id}`, typed(zone, { values: {}, bufferPh: null }));
    const corrected = await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`);
    expect([corrected.result!.values, corrected.program.treatments.find(({ key }) => key === 'lime')!.words]).toEqual([
      { soilPh: printed(5.2, 'pH') },
      expect.stringMatching(/No buffer pH was measured: estimated/),
    ]);
    await send('delete', `/lab-results/${id}`);
    expect((await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`)).result).toBeNull();
  });

  it('is refused field by field, in the contract’s words, as problem details', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const response = await server
      .owner()
      .ask('post', '/lab-results')
      .send(typed(zone, { soilPh: 15, bufferPh: 7.5, depth: undefined, extra: 1 }));
    expect(response.status).toBe(422);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect((response.body as ProblemAnswer).errors.map(({ field }) => field).sort()).toEqual([
      'depth',
      'extra',
      'values.bufferPh',
      'values.soilPh',
    ]);
  });

  it.each([
    ['a zone that is not there', { zoneIds: ['00000000-0000-4000-8000-000000000000'] }, 404],
    ['a date to come', { sampledOn: '2199-01-01' }, 422],
    ['a word for a number', { soilPh: 'low' }, 422],
  ])('refuses %s', async (_name, more, status) => {
    const zone = await zoneOf('Gannet', 'GR-3');
    await send('post', '/lab-results', typed(zone, more), status);
  });

  it('is questioned, not refused, when it looks like a slip', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const { id, questions } = await send<LabResultAnswer>(
      'post',
      '/lab-results',
      typed(zone, { values: { k: printed(960) } }),
    );
    expect(questions).toEqual([expect.stringContaining('lb/acre')]);
    await send('delete', `/lab-results/${id}`);
  });
});

it('a result keeps what a change does not speak of, and the form sends all that it was opened with', async () => {
  const zone = await zoneOf('Gannet', 'GR-3');
  const { id } = await send<LabResultAnswer>('post', '/lab-results', typed(zone, { cores: 18 }));
  const advice = { ...typed(zone), advice: 'Lime, 2 t/ha' };
  expect((await send<LabResultAnswer>('put', `/lab-results/${id}`, advice)).cores).toBe(18);
  const kept = await send<LabResultAnswer>('put', `/lab-results/${id}`, { ...advice, cores: 12 });
  expect(labResultInput(kept)).toMatchObject({ cores: 12, advice: 'Lime, 2 t/ha' });
  await send('delete', `/lab-results/${id}`);
});

describe('a laboratory’s file', () => {
  const imports = async (): Promise<LabReportAnswer[]> => get(`/sites/${(await siteOf('Harbour')).id}/lab-reports`);
  const choices = (file: LabReportAnswer, more: object = {}) => ({
    columns: file.columns.map(({ field, unit, basis }) => ({ field, unit, basis })),
    rows: [],
    extractant: file.extractant,
    bufferMethod: file.bufferMethod,
    depth: file.depth,
    ...more,
  });

  it('imports nothing until it is confirmed, then what is ready; the rest stays with its reason', async () => {
    const open = (await imports()).find(({ status }) => status === 'open')!;
    const before = await get<LabResultAnswer[]>(`/sites/${(await siteOf('Harbour')).id}/lab-results`);
    expect(open.rows.every(({ faults }) => faults.some(({ field }) => field === 'depth'))).toBe(true);
    await send('post', `/lab-reports/${open.id}/confirm`, undefined, 422);

    const east = await zoneOf('Harbour', 'HS-5');
    const corrected = await send<LabReportAnswer>(
      'put',
      `/lab-reports/${open.id}`,
      choices(open, { depth: 15.24, rows: [{ line: 10, zoneId: east.id }] }),
    );
    expect(corrected.rows.map(({ faults }) => faults.map(({ field }) => field))).toEqual([[], [], [], ['soilPh'], []]);
    const done = await send<LabReportAnswer>('post', `/lab-reports/${open.id}/confirm`);
    expect(done.rows.map(({ resultId }) => resultId !== null)).toEqual([true, true, true, false, true]);
    expect(done.rows.map(({ zoneChosen }) => zoneChosen)).toEqual([false, false, false, false, true]);
    expect(done.rows[3]!.faults[0]!.message).toContain('"see note"');

    const after = await get<LabResultAnswer[]>(`/sites/${(await siteOf('Harbour')).id}/lab-results`);
    expect(after.length - before.length).toBe(4);
    expect(after.find(({ zoneIds }) => zoneIds.includes(east.id))).toMatchObject({
      values: { p: { value: 6, belowDetection: true, unit: 'lb/acre' } },
      origin: 'harbour-school-2026-lab.csv',
    });
    // A second confirmation finds nothing left to do, and doubles nothing.
    await send('post', `/lab-reports/${open.id}/confirm`, undefined, 422);
    expect(await get<LabResultAnswer[]>(`/sites/${(await siteOf('Harbour')).id}/lab-results`)).toHaveLength(
      after.length,
    );
  });

  it.each([
    ['no header', 'a,b\n1,2\n', /No line of this file names columns/],
    ['a header alone', 'Sample,pH\n', /no sample under it/],
    ['a torn workbook', 'PK\u0000\u0001', /workbook cannot be opened/],
    ['a binary file', 'Sample\u0000\u0001pH,6', /binary/],
  ])('with %s is explained', async (_name, content, message) => {
    const problem = await send<ProblemAnswer>(
      'post',
      `/sites/${(await siteOf('Harbour')).id}/lab-reports`,
      { fileName: 'x.csv', content },
      422,
    );
    expect(problem.detail).toMatch(message);
  });

  it('with two rows for one zone, a column taken twice or a zone from elsewhere asks again', async () => {
    const content = 'Sample,pH,Depth in,P Mehlich 3 ppm\nHS-1,6,6,20\nHS1,6.1,6,21\n';
    const file = await send<LabReportAnswer>('post', `/sites/${(await siteOf('Harbour')).id}/lab-reports`, {
      fileName: 'twice.csv',
      content,
    });
    expect(file.rows[1]!.faults[0]!.message).toMatch(/Line 2 already goes to this zone/);
    const twice = choices(file);
    twice.columns[1] = { ...twice.columns[1]!, field: 'label' };
    expect((await send<ProblemAnswer>('put', `/lab-reports/${file.id}`, twice, 422)).detail).toMatch(
      /both set to label/,
    );
    const elsewhere = await zoneOf('Gannet', 'GR-1');
    expect(
      (
        await send<ProblemAnswer>(
          'put',
          `/lab-reports/${file.id}`,
          choices(file, { rows: [{ line: 3, zoneId: elsewhere.id }] }),
          422,
        )
      ).detail,
    ).toMatch(/not on this site/);
    await send('delete', `/lab-reports/${file.id}`);
  });
});
