import type { LabReportAnswer, LabResultAnswer, RunAnswer } from '@glenfold/contract';
import { RereadingService } from '../src/lab/rereading.service.ts';
import { get, printed, send, siteOf, until, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

/** As at the start of a server: asked for by two at once, and waited for. */
async function readAgain(): Promise<void> {
  const rereading = server.current().app.get(RereadingService);
  await Promise.all([rereading.begin(), rereading.begin()]);
  await until(async () => (await get<RunAnswer[]>('/runs')).every(({ state }) => state === 'done'));
}

const content = [
  'Sample,pH,Depth in,P Mehlich 3 ppm,K ppm,S ppm,Zn DTPA ppm,EC 1:5 dS/m,CEC,Lime advised',
  'GR-1,6,4,20,90,14,<0.3,0.2,12.1,none',
  'GR-2,6.1,4,21,95,16,1.1,0.3,9.8,2 tons',
].join('\n');

/** The site's file and results as the first reader had left them: what it knew no field for, in words. */
async function asReadBefore(
  fileName: string,
): Promise<{ file: LabReportAnswer; results: () => Promise<LabResultAnswer[]> }> {
  const site = await siteOf('Gannet');
  const file = await send<LabReportAnswer>('post', `/sites/${site.id}/lab-reports`, {
    fileName,
    // The same file twice is one.
    content: `${fileName}\n${content}`,
  });
  await send('post', `/lab-reports/${file.id}/confirm`);
  const { sql } = server.current();
  const fresh = `('s', 'zn', 'ec15', 'cec')`;
  await sql(
    `DELETE FROM measurement WHERE analyte IN ${fresh} AND "resultId" IN (SELECT id FROM lab_result WHERE "reportId" = $1)`,
    [file.id],
  );
  await sql(
    `UPDATE lab_result SET beside = 'S ppm: 14; Zn DTPA ppm: <0.3; EC 1:5 dS/m: 0.2; CEC: 12.1; Lime advised: none' WHERE "reportId" = $1`,
    [file.id],
  );
  await sql(`UPDATE lab_report SET "readBy" = 1 WHERE id = $1`, [file.id]);
  const results = async (): Promise<LabResultAnswer[]> =>
    (await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`)).filter(({ origin }) => origin === fileName);
  return { file, results };
}

it('what an older reader left in words comes back as values, once, and nothing else is touched', async () => {
  const { results } = await asReadBefore('kept.csv');
  const court = await zoneOf('Gannet', 'GR-1');
  const [before] = (await results()).filter(({ zoneIds }) => zoneIds.includes(court.id));
  // Somebody corrected a number since.
  const { values, label, depth, extractant, zoneIds } = before!;
  await send('put', `/lab-results/${before!.id}`, {
    label,
    depth,
    extractant,
    zoneIds,
    values: { ...values, k: printed(99) },
  });

  await readAgain();
  await readAgain();
  expect(await get<RunAnswer[]>('/runs')).toMatchObject([
    { words: '1 file read again.', done: 1, total: 1, askedBy: null },
  ]);

  const after = await results();
  expect(after).toHaveLength(2);
  const one = after.find(({ id }) => id === before!.id)!;
  expect(one.values).toEqual({
    ...{ soilPh: printed(6, 'pH'), p: printed(20), k: printed(99), s: printed(14), cec: printed(12.1, 'cmol/kg') },
    ec15: printed(0.2, 'dS/m'),
    zn: printed(0.3, 'mg/kg', { belowDetection: true, method: 'dtpa' }),
  });
  expect(one.beside).toBe('Lime advised: none');
  const rows = await server
    .current()
    .sql<{ source: string }>(`SELECT DISTINCT source FROM measurement WHERE "resultId" = $1 AND analyte = 's'`, [
      one.id,
    ]);
  expect(rows).toEqual([{ source: 'read again from its file' }]);
});

it('a column that somebody set to be left out stays out', async () => {
  const { file, results } = await asReadBefore('left-out.csv');
  const columns = file.columns.map(({ field, unit, basis }) => ({ field: field === 'k' ? null : field, unit, basis }));
  await server
    .current()
    .sql(`UPDATE lab_report SET choices = $2 WHERE id = $1`, [
      file.id,
      JSON.stringify({ columns, rows: [], extractant: 'mehlich-3' }),
    ]);
  await server
    .current()
    .sql(
      `DELETE FROM measurement WHERE analyte = 'k' AND "resultId" IN (SELECT id FROM lab_result WHERE "reportId" = $1)`,
      [file.id],
    );
  await readAgain();
  for (const { values } of await results())
    expect(Object.keys(values).sort()).toEqual(['cec', 'ec15', 'p', 's', 'soilPh', 'zn']);
});

it('an amended report supersedes: both can be read, and rates rest on the new one', async () => {
  const { siteId } = await zoneOf('Kelp', 'KC-1');
  const { sql } = server.current();
  const [bag] = await sql<{ id: string; code: string }>(`SELECT id, code FROM bag WHERE "siteId" = $1 LIMIT 1`, [
    siteId,
  ]);
  await sql(`UPDATE bag SET state = 'reported' WHERE id = $1`, [bag!.id]);
  await sql(`UPDATE core SET state = 'cored', at = now() WHERE "bagId" = $1`, [bag!.id]);
  const bring = async (fileName: string, ph: number): Promise<void> => {
    const file = await send<LabReportAnswer>('post', `/sites/${siteId}/lab-reports`, {
      fileName,
      content: `Sample,pH,Depth cm,P Olsen ppm\n${bag!.code},${ph},10,18\n`,
    });
    await send('post', `/lab-reports/${file.id}/confirm`);
  };
  await bring('first.csv', 6.4);
  await bring('amended.csv', 5.8);
  const results = (await get<LabResultAnswer[]>(`/sites/${siteId}/lab-results`)).filter(({ origin }) =>
    /first|amended/.test(origin),
  );
  const [amended, first] = ['amended.csv', 'first.csv'].map((name) => results.find(({ origin }) => origin === name)!);
  expect([first!.values.soilPh!.value, first!.supersededById, amended!.supersedesId]).toEqual([
    6.4,
    amended!.id,
    first!.id,
  ]);
  expect(first!.sampleId).toBe(amended!.sampleId);
  // Looked at alone, or corrected, it still knows what has taken its place.
  const { label, depth, extractant, zoneIds, values } = first!;
  const corrected = { label, depth, extractant, zoneIds, values: { ...values, k: printed(80) } };
  expect(await send<LabResultAnswer>('put', `/lab-results/${first!.id}`, corrected)).toMatchObject({
    supersededById: amended!.id,
    values: { k: { value: 80 } },
  });
  const { result } = await get<{ result: LabResultAnswer }>(`/zones/${amended!.zoneIds[0]!}/program?units=us`);
  expect(result.values.soilPh!.value).toBe(5.8);
  // Taken back, the first one counts again.
  await send('delete', `/lab-results/${amended!.id}`);
  const again = await get<LabResultAnswer[]>(`/sites/${siteId}/lab-results`);
  expect(again.find(({ id }) => id === first!.id)!.supersededById).toBeNull();
});
