import { randomUUID } from 'node:crypto';
import type { FieldTestAnswer, LabProfileAnswer, LabReportAnswer, LoadCheckAnswer, PhotoAnswer, ZoneProgramAnswer, ZoneRecordAnswer } from '@glenfold/contract'; // prettier-ignore
import { describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { get, send, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();
const at = (minutes: number): string => new Date(Date.parse('2026-11-20T08:00:00Z') + minutes * 60_000).toISOString();
const readings = (list: ReadonlyArray<readonly [number, number]>) =>
  list.map(([minutes, depthBelowStick]) => ({ at: at(minutes), depthBelowStick }));

/** A hole on South bank, as a device sends it. */
async function hole(id: string, revision: number, list: ReadonlyArray<readonly [number, number]>, status = 201) {
  const { id: zoneId } = await zoneOf('Gannet', 'GR-3');
  const record = { holeDepth: 30, readings: readings(list) };
  return send<FieldTestAnswer>(
    'post',
    '/field-tests?units=metric',
    { id, zoneId, kind: 'drainage', on: '2026-11-20', record, closed: false, revision },
    status,
  );
}

describe('a test with one’s own hands', () => {
  it('sent from two devices is one, with the readings of both; what is older takes nothing back', async () => {
    const id = randomUUID();
    await hole(id, 1, [[0, 0], [45, 6.9]]); // prettier-ignore
    await hole(id, 3, [[0, 0], [45, 6.9], [180, 14.1]]); // prettier-ignore
    const late = await hole(id, 2, [[0, 0], [90, 12.7]]); // prettier-ignore
    expect((late.record as { readings: unknown[] }).readings).toEqual(readings([[0, 0], [45, 6.9], [90, 12.7], [180, 14.1]])); // prettier-ignore
    expect(late.revision).toBe(3);
    const again = await hole(id, 3, [[0, 0], [45, 6.9], [180, 14.1]]); // prettier-ignore
    expect((again.record as { readings: unknown[] }).readings).toHaveLength(4);
  });

  it('is a measurement that reading and rates rest on, and goes with it', async () => {
    const id = randomUUID();
    const { siteId, id: zoneId } = await zoneOf('Gannet', 'GR-2');
    const done = readings([[0, 0], [45, 6.9], [90, 12.7], [180, 14.1], [360, 14.9], [1380, 15]]); // prettier-ignore
    const test = { id, zoneId, kind: 'drainage', on: '2026-11-20', record: { holeDepth: 30, readings: done } };
    await send('post', '/field-tests?units=metric', { ...test, closed: true, revision: 1 });
    const limits = async (): Promise<string> =>
      JSON.stringify((await get<ZoneProgramAnswer>(`/zones/${zoneId}/program?units=metric`)).reading.limitations);
    expect(await limits()).toContain('quick over tight, a pan');
    const record = await get<ZoneRecordAnswer>(`/zones/${zoneId}/record?units=metric`);
    const slowest = record.series.find(({ analyte }) => analyte === 'percolationSlowest');
    expect(slowest?.points[0]).toMatchObject({ told: 'under 0.5 mm/h', method: 'drainage', depthFrom: 14.9 });
    await send('delete', `/field-tests/${id}`);
    expect(await limits()).not.toContain('a pan');
    await send('post', `/field-tests/${id}/restore?units=metric`);
    expect(await limits()).toContain('a pan');
    expect(await get<FieldTestAnswer[]>(`/sites/${siteId}/field-tests?units=us`)).toContainEqual(
      expect.objectContaining({ id, title: 'A pan at 5.75 in: water stands on it' }),
    );
  });

  it('that cannot be is refused by its field, and the future is', async () => {
    const refused = await hole(randomUUID(), 1, [[0, 9], [45, 6]], 422); // prettier-ignore
    expect(JSON.stringify(refused)).toContain('record.readings.1.depthBelowStick');
    const { id: zoneId } = await zoneOf('Gannet', 'GR-3');
    const test = { id: randomUUID(), zoneId, kind: 'fizz', record: { fizz: 'none' }, closed: true, revision: 1 };
    await send('post', '/field-tests?units=us', { ...test, on: '2999-01-01' }, 422);
    await send('post', '/field-tests?units=us', { ...test, on: '2026-11-01', record: { fizz: 'loud' } }, 422);
  });

  it('goes out as a table that a spreadsheet takes for no formula', async () => {
    const { id: zoneId } = await zoneOf('Gannet', 'GR-3');
    const test = { id: randomUUID(), zoneId, kind: 'probe', on: '2026-11-01', record: { stops: [12] }, closed: true };
    await send('post', '/field-tests?units=us', { ...test, revision: 1, doneBy: '=HYPERLINK("x")' });
    const { text } = await server.owner().ask('get', `/zones/${zoneId}/record.csv?units=us`);
    expect(text).toContain(`'=HYPERLINK`);
  });
});

it('a load that the checks doubt is taken with a reason only', async () => {
  const { siteId } = await zoneOf('Gannet', 'GR-3');
  const load = { id: randomUUID(), siteId, kind: 'compost', on: '2026-11-20', name: 'One truck', record: { heat: 'hot' } };
  const refused = await send<object>('post', '/load-checks', { ...load, decided: 'taken' }, 422);
  expect(JSON.stringify(refused)).toContain('Say why it is taken all the same.');
  const kept = await send<LoadCheckAnswer>('post', '/load-checks', { ...load, decided: 'taken', reason: 'For the heap' });
  expect(kept).toMatchObject({ verdict: 'only for some things', by: 'Orla Tench' });
  expect(kept.open).toContain('C:N');
}); // prettier-ignore

describe('a laboratory’s file', () => {
  it('comes back byte for byte, is one when it comes twice, and teaches its laboratory’s way', async () => {
    const { siteId } = await zoneOf('Quarry', 'QL-1');
    const bytes = Buffer.from('Ref;pH;Col 7;Tiefe in\r\nQL-1;6,1;27;6\r\n', 'latin1');
    const bring = (name: string, content: Buffer) =>
      send<LabReportAnswer>('post', `/sites/${siteId}/lab-reports`, { fileName: name, bytes: content.toString('base64') });
    const file = await bring('one.csv', bytes);
    expect((await bring('two.csv', bytes)).id).toBe(file.id);
    const original = await server.owner().ask('get', `/lab-reports/${file.id}/original`).buffer(true).parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });
    expect(Buffer.compare(original.body as Buffer, bytes)).toBe(0);

    // "Col 7" is phosphorus in ppm, by Olsen: somebody says so once.
    const columns = file.columns.map(({ header, ...column }) =>
      header === 'Col 7' ? { ...column, field: 'p', unit: 'mg/kg' } : header === 'Ref' ? { ...column, field: 'label' } : column,
    );
    const choices = { columns, rows: [], extractant: 'olsen', bufferMethod: null, limeFactor: null, depth: 15 };
    await send('put', `/lab-reports/${file.id}`, choices, 200, file.version);
    await send('post', `/lab-reports/${file.id}/profile`, { name: 'Harz' });
    const next = await bring('next.csv', Buffer.from('Ref;pH;Col 7;Zn ppm\nQL-2;6,4;31;2\n'));
    expect(next.profile).toMatchObject({ name: 'Harz', fresh: ['Zn ppm'] });
    expect(next.extractant).toBe('olsen');
    expect(next.rows[0]!.row.values.p).toMatchObject({ value: 31, unit: 'mg/kg' });

    // It keeps being tested by its sample, and goes from one practice to another.
    const [way] = await get<LabProfileAnswer[]>('/lab-profiles');
    expect(way!.trial).toEqual({ passes: true, differences: [] });
    const { id, version, trial: _trial, ...input } = way!;
    const wrong = input.columns.map((column) => (column.field === 'p' ? { ...column, unit: 'lb/acre' } : column));
    const changed = await send<LabProfileAnswer>('put', `/lab-profiles/${id}`, { ...input, columns: wrong }, 200, version);
    expect(changed.trial!.differences[0]).toBe('QL-1: p was 27 mg/kg and is 27 lb/acre.');
    await send('post', '/lab-profiles', input, 422);
    expect((await send<LabProfileAnswer>('post', '/lab-profiles', { ...input, name: 'Harz 2' })).trial!.passes).toBe(true);
  });
}); // prettier-ignore

it('a photo is kept upright as a file, without the place that the camera wrote into it', async () => {
  const { id: zoneId } = await zoneOf('Gannet', 'GR-3');
  const taken = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#446622' } })
    .withExif({ IFD0: { Copyright: 'x' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '46/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
  const add = (more: object) =>
    send<PhotoAnswer>('post', `/zones/${zoneId}/photos`, { type: 'image/jpeg', image: taken.toString('base64'), ...more }); // prettier-ignore
  const bytesOf = async (address: string): Promise<Buffer> =>
    (await server.owner().ask('get', address.replace('/api', ''))).body as Buffer;
  const plain = await sharp(await bytesOf((await add({})).address)).metadata();
  expect([plain.width, plain.height, plain.exif]).toEqual([20, 40, undefined]);
  const kept = await add({ keepPlace: true });
  expect((await sharp(await bytesOf(kept.address)).metadata()).exif).toBeDefined();
  expect((await sharp(await bytesOf(kept.small)).metadata()).exif).toBeUndefined();
  const [row] = await server
    .current()
    .sql<{ image: string | null }>('SELECT image FROM zone_photo ORDER BY "createdAt" DESC LIMIT 1');
  expect(row!.image).toBeNull();
  await send('post', `/zones/${zoneId}/photos`, { type: 'image/jpeg', image: taken.subarray(0, 30).toString('base64') }, 422); // prettier-ignore
});
