import type { HistoryAnswer, LabResultAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import { zoneInput } from '@glenfold/contract';
import { expect, it } from '@jest/globals';
import { HistoriesService } from '../src/lab/histories.service.ts';
import { Stopped } from '../src/runs/runKinds.ts';
import { FileStore } from '../src/ports/fileStore.ts';
import { Work } from '../src/platform/work.ts';
import { get, send, siteOf, until, useDemoServer } from './client.ts';

const server = useDemoServer();

const bytes = (text: string): string => Buffer.from(text).toString('base64');
const zonesOf = async (name: string): Promise<{ site: SiteAnswer; zones: ZoneAnswer[] }> => {
  const site = await siteOf(name);
  return { site, zones: await get<ZoneAnswer[]>(`/sites/${site.id}/zones`) };
};
const results = (siteId: string): Promise<LabResultAnswer[]> => get(`/sites/${siteId}/lab-results`);
const recorded = async (): Promise<number> =>
  Number((await server.current().sql<{ count: string }>('SELECT count(*) FROM lab_result'))[0]!.count);

/** A file that waits and that no run of the server is asked for. */
async function bring(fileName: string, text: string): Promise<void> {
  const { app, sql } = server.current();
  const original = await app.get(FileStore, { strict: false }).keep(Buffer.from(text));
  await sql(`INSERT INTO history_import ("practiceId", "fileName", "original") SELECT id, $1, $2 FROM practice`, [
    fileName,
    original,
  ]);
}

/** Take in what waits, as the run does. @param at told how far it is */
async function take(at: (done: number, total: number) => Promise<void> = () => Promise.resolve()): Promise<string> {
  const { app, sql } = server.current();
  const [practice] = await sql<{ id: string }>('SELECT id FROM practice');
  return app
    .get(Work)
    .run({ practiceId: practice!.id, person: null, role: null }, () =>
      app.get(HistoriesService, { strict: false }).take({ at }),
    );
}

const head = 'Site,Zone,Date,Depth cm,pH,P Mehlich-3 ppm,K ppm\n';
const lines = (site: string, zones: readonly ZoneAnswer[], count: number): string =>
  Array.from({ length: count }, (_, at) => `${site},${zones[at % zones.length]!.label},${1990 + (at % 30)}-10-0${1 + (at % 9)},10,6.1,${20 + (at % 9)},<40\n`).join(''); // prettier-ignore

it('many years come in whole, by site and zone; the same file again is refused', async () => {
  const { site, zones } = await zonesOf('Quarry');
  const before = await recorded();
  const input = { fileName: 'years.csv', bytes: bytes(head + lines(site.name, zones, 4_100)) };
  await send<HistoryAnswer>('post', '/histories', input);
  await until(async () => (await get<HistoryAnswer[]>('/histories'))[0]?.state !== 'waiting');
  expect(await recorded()).toBe(before + 4_100);
  const after = await results(site.id);
  expect(after.find(({ origin }) => origin === 'years.csv')?.values.k).toMatchObject({
    value: 40,
    belowDetection: true,
  });
  const [first] = await get<HistoryAnswer[]>('/histories');
  expect([first!.state, first!.rows]).toEqual(['imported', 4100]);
  await send('post', '/histories', input, 409);
});

it('a line that has no place keeps all of it out, and says which', async () => {
  const { site, zones } = await zonesOf('Quarry');
  const before = await recorded();
  const text = `${head}${lines(site.name, zones, 3)}Nowhere Hall,Lawn,2001-10-02,10,6,20,80\n${site.name},${zones[0]!.label},,10,word,20,80\n`;
  await bring('strange.csv', text);
  await take();
  const [first] = await get<HistoryAnswer[]>('/histories');
  expect(first!.state).toBe('refused');
  expect(first!.words.join(' ')).toMatch(/Line 6: .*"word" is not a number.*no day/);
  expect(first!.words.join(' ')).toMatch(/No site is called “Nowhere Hall”: line 5/);
  expect(await recorded()).toBe(before);
});

it('one that is stopped half-way leaves nothing, and comes in whole the next time', async () => {
  const { site, zones } = await zonesOf('Quarry');
  const before = await recorded();
  await bring('half.csv', head + lines(site.name, zones, 4_000).replaceAll('6.1', '6.3'));
  const stop = (done: number): Promise<void> => (done > 0 ? Promise.reject(new Stopped()) : Promise.resolve());
  await expect(take(stop)).rejects.toBeInstanceOf(Stopped);
  expect(await recorded()).toBe(before);
  const told: number[] = [];
  expect(await take((done) => Promise.resolve(void told.push(done)))).toContain('4,000 tests of');
  expect(told).toEqual([0, 2500, 4000]);
  expect(await recorded()).toBe(before + 4_000);
});

it('a name that two zones share names neither; their labels do', async () => {
  const { site, zones } = await zonesOf('Quarry');
  const [one, other] = zones;
  await send('put', `/zones/${other!.id}`, { ...zoneInput(other!), name: one!.name });
  await bring('names.csv', `${head}${site.name},${one!.name},2001-10-02,10,6,20,80\n`);
  expect(await take()).toContain(`Several zones of ${site.name} are called “${one!.name}”; give the label`);
  await bring('labels.csv', `${head}${site.name},${one!.label},2001-10-02,10,6,20,80\n`);
  expect(await take()).toContain('1 test of 1 zone in the record');
});
