import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readBagCode, writeBagCode } from '@glenfold/agronomy';
import {
  type BagAnswer,
  type BagLineAnswer,
  type BoardAnswer,
  BagAnswer as BagContract,
  type CoreTapsAnswer,
  type LaboratoryAnswer,
  type PhotoAnswer,
  type ProblemAnswer,
  problemFields,
} from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';
import { bagBody, picture } from './promisedRoutes.ts';

const server = useDemoServer();
const words = (problem: ProblemAnswer): string => problem.errors.map(({ message }) => message).join(' ');

async function planned(): Promise<BagAnswer> {
  const court = await zoneOf('Gannet', 'GR-1');
  const [bag] = await send<BagAnswer[]>('post', `/sites/${court.siteId}/bags`, { bags: [bagBody(court.id)] }, 201);
  return bag!;
}
const bagNow = async (id: string): Promise<BagAnswer> =>
  (await get<BagAnswer[]>(`/sites/${(await siteOf('Gannet')).id}/bags`)).find((bag) => bag.id === id)!;
const move = <T = BagLineAnswer[]>(bagIds: string[], state: string, status = 200, more = {}): Promise<T> =>
  send<T>('post', '/bags/custody', { bagIds, state, ...more }, status);

interface Touch {
  readonly id?: string;
  readonly coreId: string;
  readonly state?: string;
  readonly at?: string;
  readonly [more: string]: unknown;
}
const touches = (taps: readonly Touch[], sentAt = new Date().toISOString()) => ({
  sentAt,
  taps: taps.map((tap) => ({ id: randomUUID(), state: 'cored', at: sentAt, ...tap })),
});
const tap = (taps: readonly Touch[], sentAt?: string): Promise<CoreTapsAnswer> =>
  send<CoreTapsAnswer>('post', '/core-taps', touches(taps, sentAt), 200);

it('a bag is planned with a code of its own, found by it however it is typed, and a mistyped code is caught', async () => {
  const bag = await planned();
  expect(readBagCode(bag.code)).toBe(bag.code);
  const kept = plainToInstance(BagContract, bag);
  expect(problemFields(validateSync(kept, { whitelist: true, forbidNonWhitelisted: true }))).toEqual([]);
  expect(bag.places.map(({ number, place }) => [number, place])).toEqual([
    [1, [-36, 46.5]],
    [2, null],
  ]);
  const found = await get<BagLineAnswer>(`/bags/by-code/${writeBagCode(bag.code).toLowerCase()}`);
  expect(found.id).toBe(bag.id);
  const other = bag.code.startsWith('2') ? '3' : '2';
  const wrong = await server.current().http.get('/api/bags/by-code/x').expect(401);
  expect(wrong.status).toBe(401);
  const mistyped = await get<ProblemAnswer>(`/bags/by-code/${other}${bag.code.slice(1)}`, 422);
  expect(words(mistyped)).toMatch(/is mistyped/);
});

it('every touch of a walk counts once, however often it is sent, and the last core fills the bag', async () => {
  const { id, places } = await planned();
  const [first, second] = places.map((core) => core.id);
  const batch = touches([
    { coreId: first!, pushed: 8, recovered: 8, moisture: 'crumbles', note: 'hard' },
    { coreId: second!, state: 'skipped', reason: 'root' },
  ]);
  const once = await send<CoreTapsAnswer>('post', '/core-taps', batch, 200);
  expect(once.taps.map(({ outcome }) => outcome)).toEqual(['taken', 'taken']);
  const twice = await send<CoreTapsAnswer>('post', '/core-taps', batch, 200);
  expect(twice.taps.map(({ outcome }) => outcome)).toEqual(['known', 'known']);
  const bag = await bagNow(id);
  expect(bag).toMatchObject({ state: 'cored', cored: 1, cores: 2 });
  expect(bag.places.map(({ state, pushed, reason }) => [state, pushed, reason])).toEqual([
    ['cored', 8, null],
    ['skipped', null, 'root'],
  ]);
  expect(bag.custody.map(({ state }) => state)).toEqual(['planned', 'cored']);
  // Opened again by a slip of the finger, and taken once more.
  await tap([{ coreId: second!, state: 'waiting' }]);
  expect(await bagNow(id)).toMatchObject({ state: 'planned', cored: 1 });
});

it('a batch that is on its way twice at a time counts once, and no answer is a failure', async () => {
  const { id, places } = await planned();
  const batch = touches(places.map((core) => ({ coreId: core.id, pushed: 9, recovered: 9 })));
  const answers = await Promise.all(
    Array.from({ length: 4 }, () => send<CoreTapsAnswer>('post', '/core-taps', batch, 200)),
  );
  for (const at of places.keys())
    expect(answers.map(({ taps }) => taps[at]!.outcome).sort()).toEqual(['known', 'known', 'known', 'taken']);
  expect((await bagNow(id)).custody.map(({ state }) => state)).toEqual(['planned', 'cored']);
});

it('two who walk the same zone are both kept, and the later is told who was first', async () => {
  const { id, places } = await planned();
  const coreId = places[0]!.id;
  await tap([{ coreId, pushed: 10, recovered: 10 }]);
  const wynn = await signIn(server.current(), demoEmails.technician);
  const late = await wynn.ask('post', '/core-taps', touches([{ coreId, pushed: 4, recovered: 4 }]));
  expect((late.body as CoreTapsAnswer).taps[0]).toMatchObject({
    outcome: 'met',
    words: expect.stringMatching(/taken by Orla/) as string,
  });
  expect((await bagNow(id)).places[0]).toMatchObject({ pushed: 10, by: expect.stringMatching(/^Orla/) as string });
  const kept = await server
    .current()
    .sql<{ outcome: string }>('SELECT outcome FROM core_tap WHERE "coreId" = $1 ORDER BY "createdAt"', [coreId]);
  expect(kept.map(({ outcome }) => outcome)).toEqual(['taken', 'met']);
});

it('a device’s wrong clock is put right, and never puts a core into the future', async () => {
  const { id, places } = await planned();
  const [past, future] = [-2, 3].map((days) => new Date(Date.now() + days * 86_400_000));
  const answer = await tap(
    [{ coreId: places[0]!.id, at: new Date(future!.getTime() - 60_000).toISOString() }],
    future!.toISOString(),
  );
  expect(answer.clockAhead).toBeGreaterThan(3 * 86_400 - 60);
  await tap([{ coreId: places[1]!.id, at: past!.toISOString() }], past!.toISOString());
  for (const { at } of (await bagNow(id)).places) {
    expect(Date.parse(at!)).toBeLessThanOrEqual(Date.now());
    expect(Date.now() - Date.parse(at!)).toBeLessThan(120_000);
  }
});

it('custody goes on step by step: not without cores, not twice, and not past its end', async () => {
  const [bag, empty] = [await planned(), await planned()];
  expect(words(await move<ProblemAnswer>([empty.id], 'sent', 422))).toMatch(/has no cores in it: walk it first/);
  await tap(bag.places.map(({ id }) => ({ coreId: id })));
  // All of them or none.
  await move([bag.id, empty.id], 'sent', 422);
  expect((await bagNow(bag.id)).state).toBe('cored');
  const [sent] = await move([bag.id], 'sent', 200, { laboratory: 'Northern soil laboratory', parcel: 'P-17' });
  expect(sent).toMatchObject({ state: 'sent', laboratory: 'Northern soil laboratory', parcel: 'P-17', overdue: 0 });
  expect(words(await move<ProblemAnswer>([bag.id], 'sent', 422))).toMatch(/is sent already/);
  await server.current().sql(`UPDATE bag SET since = now() - interval '9 days' WHERE id = $1`, [bag.id]);
  expect((await get<BoardAnswer>('/bags')).bags.find(({ id }) => id === bag.id)).toMatchObject({ days: 9, overdue: 4 });
  await move([bag.id], 'lost', 200, { note: 'never arrived' });
  expect(words(await move<ProblemAnswer>([bag.id], 'at the lab', 422))).toMatch(/its way ended there/);

  const again = await send<BagAnswer>('post', `/bags/${bag.id}/again`, {}, 201);
  expect(again).toMatchObject({ state: 'planned', cored: 0, cores: 2, insteadOf: bag.id });
  expect(again.code).not.toBe(bag.code);
  expect(again.places.map(({ place }) => place)).toEqual(bag.places.map(({ place }) => place));
  expect((await bagNow(bag.id)).custody.map(({ state }) => state)).toEqual(['planned', 'cored', 'sent', 'lost']);
  expect(words(await send<ProblemAnswer>('post', `/bags/${bag.id}/again`, {}, 422))).toMatch(/taken again already/);
});

it('a touch that cannot be taken is told so, and holds up none of its batch', async () => {
  const { id, places } = await planned();
  const { taps } = await tap([
    { coreId: places[0]!.id, pushed: 900 },
    { coreId: randomUUID() },
    { coreId: 'no id' },
    { coreId: places[1]!.id, pushed: 9, reason: 'root' },
  ]);
  expect(taps.map(({ outcome }) => outcome)).toEqual(['refused', 'gone', 'refused', 'taken']);
  expect(taps[0]!.words).toMatch(/^Depth pushed/);
  const { places: after } = await bagNow(id);
  // A reason belongs to a core that was skipped.
  expect(after[1]).toMatchObject({ state: 'cored', pushed: 9, reason: null });
  expect(after[0]).toMatchObject({ state: 'waiting', pushed: null });
});

it('a laboratory’s number is on one bag only; a cored bag is not deleted; papers carry the code', async () => {
  const [one, other] = [await planned(), await planned()];
  await send('put', `/bags/${one.id}/lab-number`, { labNumber: 'A-100' }, 200, 1);
  expect(
    words(await send<ProblemAnswer>('put', `/bags/${other.id}/lab-number`, { labNumber: 'A-100' }, 422, 1)),
  ).toMatch(/is on one bag only/);
  const agent = await signIn(server.current(), demoEmails.technician);
  const table = (await agent.ask('get', `/bags/submission.csv?ids=${one.id},${other.id}`)).text;
  expect(table.split('\r\n')).toHaveLength(3);
  expect(table).toContain(`${writeBagCode(one.code)},A-100,`);
  const file = JSON.parse((await agent.ask('get', `/bags/submission.json?ids=${one.id}`)).text) as {
    samples: object[];
  };
  expect(file.samples).toEqual([
    expect.objectContaining({ code: writeBagCode(one.code), labNumber: 'A-100', grass: 'perennial ryegrass', depthCentimetres: 10, panels: ['routine'] }), // prettier-ignore
  ]);
  for (const path of [
    `/sites/${one.siteId}/field-sheet.pdf?units=us`,
    `/bags/submission.pdf?units=metric&ids=${one.id}`,
    `/bags/labels.pdf?units=us&sheet=${encodeURIComponent('A4, 24 labels of 70 × 37 mm')}&ids=${one.id},${other.id}`,
  ]) {
    const { body, status } = (await agent.ask('get', path).buffer(true)) as { body: unknown; status: number };
    expect(status).toBe(200);
    expect((body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  }
  await send('delete', `/bags/${other.id}`, undefined, 204);
  await tap(one.places.map(({ id }) => ({ coreId: id })));
  expect(words(await send<ProblemAnswer>('delete', `/bags/${one.id}`, undefined, 422))).toMatch(
    /mark it lost or spoiled/,
  );
});

it('fees are for those who see costs: in the list of laboratories, and on the form in the parcel', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const laboratory = 'Fennimore soil laboratory';
  const body = { ...bagBody(court.id), laboratory, panels: ['routine', 'organic matter'] };
  const bags = await send<BagAnswer[]>('post', `/sites/${court.siteId}/bags`, { bags: [body, body] }, 201);
  const path = `/bags/submission.pdf?units=us&ids=${bags.map(({ id }) => id).join()}`;
  for (const [who, sees] of [
    ['owner', true],
    ['technician', false],
  ] as const) {
    // prettier-ignore
    const agent = await signIn(server.current(), demoEmails[who]);
    const profiles = (await agent.ask('get', '/laboratories')).body as LaboratoryAnswer[];
    expect(profiles.every(({ fees }) => fees.length > 0)).toBe(sees);
    const { body: paper } = (await agent.ask('get', path).buffer(true)) as { body: Buffer };
    const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: paper, encoding: 'utf8' });
    expect(text).toContain(`to ${laboratory}. 2 bags`);
    expect(text.includes('these 2 bags together: $46.00')).toBe(sees);
  }
});

it('a photo that a device sends twice is kept once', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const photo = { ...picture, id: randomUUID(), caption: 'Core 2' };
  const [once, twice] = [await send<PhotoAnswer>('post', `/zones/${court.id}/photos`, photo), await send<PhotoAnswer>('post', `/zones/${court.id}/photos`, photo)]; // prettier-ignore
  expect([once.id, twice]).toEqual([photo.id, once]);
  const photos = await get<PhotoAnswer[]>(`/sites/${court.siteId}/photos`);
  expect(photos.filter(({ caption }) => caption === 'Core 2')).toHaveLength(1);
});
