import { dayOn } from '@glenfold/agronomy';
import {
  type BeginningAnswer,
  type JobAnswer,
  type MemberAnswer,
  type MessagesAnswer,
  type OutboxAnswer,
  type SeasonAnswer,
  type TasksAnswer,
  dayIn,
  withReadableDays,
} from '@glenfold/contract';
import { randomUUID } from 'node:crypto';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, demoPassword, signIn } from './harness.ts';
import { VisitNews } from '../src/season/visitNews.service.ts';

const server = useDemoServer();
/** A zone in which it is afternoon now. */
const afternoon = (): string => {
  const shift = (18 - new Date().getUTCHours() + 24) % 24;
  return shift <= 12 ? `Etc/GMT-${shift}` : `Etc/GMT+${24 - shift}`;
};
const written = (words: string) => ({ id: randomUUID(), words });

it('a client asks about her site, the practice answers, and each is told by mail; what the field notes she does not read', async () => {
  const hetty = await signIn(server.current(), demoEmails.client);
  const wynn = await signIn(server.current(), demoEmails.technician);
  const site = await siteOf('Gannet');
  const at = `/sites/${site.id}/messages`;
  const tasks = async () => (await get<TasksAnswer>('/rounds')).tasks.map(({ words }) => words);
  const mails = async () => (await get<OutboxAnswer>('/outbox')).mails.map(({ to, subject }) => `${to}: ${subject}`);

  const question = written('When may the children go on it?');
  expect((await hetty.ask('post', at, question)).status).toBe(201);
  // Sent again it is the same.
  await hetty.ask('post', at, question);
  expect(await tasks()).toContain('Answer Hetty Coppice');
  expect(await mails()).toContain(`${demoEmails.owner}: Hetty Coppice writes about ${site.name}`);

  await send('post', at, written('On Friday, once it is watered in.'));
  expect(await tasks()).not.toContain('Answer Hetty Coppice');
  expect(await mails()).toContain(`${demoEmails.client}: Orla Tench writes about ${site.name}`);

  const note = { ...written('The gate code is another now.'), siteId: site.id };
  const { id } = (await wynn.ask('post', '/notes', note)).body as { id: string };
  expect(await tasks()).toContain('Read what Wynn Marram wrote');
  const read = (await hetty.ask('get', at)).body as MessagesAnswer;
  expect(read.messages.map(({ side, own, done }) => [side, own, done])).toEqual([['client', true, true], ['office', false, true]]); // prettier-ignore
  await send('post', `/messages/${id}/done`, undefined, 204);
  expect(await tasks()).not.toContain('Read what Wynn Marram wrote');

  // Of another site she reads and writes nothing.
  const other = await siteOf('Kelp');
  expect((await hetty.ask('post', `/sites/${other.id}/messages`, written('?'))).status).toBe(404);
  expect((await hetty.ask('get', `/sites/${other.id}/messages`)).status).toBe(404);
});

it('a client is told by mail of a quote and of what waits', async () => {
  const site = await siteOf('Gannet');
  const { jobs } = await get<SeasonAnswer>(`/sites/${site.id}/season?units=us`);
  const job = jobs.find(({ hold, state }) => hold === null && state === 'open')!;
  await send('post', `/sites/${site.id}/quotes?units=us`, { days: 30 });
  await send('put', `/jobs/${job.id}/hold?units=us`, { reason: 'it stands in water' }, 200, job.version);
  const { mails } = await get<OutboxAnswer>('/outbox');
  const told = mails.filter(({ to }) => to === demoEmails.client).map(({ subject, text }) => `${subject}: ${text}`);
  expect(told.join()).toMatch(/A quote for Gannet Row[\s\S]*say yes or no to each line/);
  expect(told.join()).toMatch(new RegExp(`Something waits at Gannet Row[\\s\\S]*${job.name} on ${job.zone} waits: it stands in water`)); // prettier-ignore
});

it('a client is told the afternoon before that somebody comes, once, and of nothing that waits', async () => {
  const { app, sql } = server.current();
  const site = await siteOf('Gannet');
  const day = dayOn(dayIn(new Date(), afternoon()), 1);
  await sql(`UPDATE site SET "timeZone" = $2 WHERE "id" = $1`, [site.id, afternoon()]);
  const { jobs } = await get<SeasonAnswer>(`/sites/${site.id}/season?units=us`);
  const [comes, waits] = jobs.filter(({ state }) => state === 'open') as [JobAnswer, JobAnswer];
  await sql(`UPDATE job SET "day" = NULL WHERE "siteId" = $1 AND "state" <> 'done'`, [site.id]);
  await sql(`UPDATE job SET "hold" = NULL, "part" = 'morning', "day" = $2 WHERE "id" = $1`, [comes.id, day]);
  await sql(`UPDATE job SET "hold" = '{"reason": "wet"}', "day" = $2 WHERE "id" = $1`, [waits.id, day]);
  const news = app.get(VisitNews, { strict: false });
  await news.tell();
  await news.tell();
  const { mails } = await get<OutboxAnswer>('/outbox');
  const told = mails.filter(({ subject }) => subject === `Tomorrow at ${site.name}`);
  const words = `Tomorrow, ${withReadableDays(day)}, we come to ${site.name}: ${comes.name}, ${comes.zone}, in the morning.`;
  expect(told.map(({ to, text }) => [to, text?.includes(words)])).toEqual([[demoEmails.client, true]]);
});

it('the practice is reached by phone and mail from whatever a client reads', async () => {
  const owner = await signIn(server.current(), demoEmails.owner);
  const { practice } = await owner.session();
  const { name, timeZone, currency, version } = practice!;
  const reached = { phone: '+44 1632 960018', email: 'office@brackwater.example' };
  expect((await owner.ask('put', '/practice', { name, timeZone, currency, phone: 'ring twice' }, version)).status).toBe(422); // prettier-ignore
  expect((await owner.ask('put', '/practice', { name, timeZone, currency, ...reached }, version)).status).toBe(200);
  const hetty = await signIn(server.current(), demoEmails.client);
  expect((await hetty.session()).practice).toMatchObject(reached);
  const report = await hetty.ask('get', `/sites/${(await siteOf('Gannet')).id}/report`);
  expect(report.body).toMatchObject({ practicePhone: reached.phone, practiceEmail: reached.email });
});

it('what a new practice begins with is left for later, and done by doing it; a client is invited before there is a site', async () => {
  const owner = await signIn(server.current(), demoEmails.owner);
  const states = async (): Promise<Record<string, string>> =>
    Object.fromEntries((await get<BeginningAnswer>('/beginning')).steps.map(({ key, state }) => [key, state]));
  const before = await states();
  expect([before.site, before.person, before.machines, before.units]).toEqual(['done', 'done', 'done', 'open']);
  await send('put', '/beginning/units', { later: true }, 200, 1);
  await send('put', '/beginning/horses', { later: true }, 404, 1);
  expect((await states()).units).toBe('later');
  expect((await owner.ask('put', '/session/personal', { units: 'metric' })).status).toBe(204);
  expect((await states()).units).toBe('done');
  await send('post', '/invitations', { email: 'new@client.example', role: 'client', siteIds: [] }, 201);
});

it('somebody who is removed hands their jobs on', async () => {
  const members = await get<MemberAnswer[]>('/members');
  const [wynn, piet] = ['Wynn', 'Piet'].map((name) => members.find(({ person }) => person.name.startsWith(name))!);
  const jobs = async (person: string) => (await server.current().sql(`SELECT 1 FROM job WHERE "personId" = $1 AND "state" = 'open'`, [person])).length; // prettier-ignore
  await server.current().sql(`UPDATE job SET "personId" = $1 WHERE "id" IN (SELECT "id" FROM job WHERE "state" = 'open' LIMIT 3)`, [wynn!.person.id]); // prettier-ignore
  const before = await jobs(piet!.person.id);
  const site = await siteOf('Quarry');
  const technician = await signIn(server.current(), demoEmails.technician);
  const begun = { id: randomUUID(), zoneId: (await zoneOf('Quarry', 'QL-5')).id, kind: 'probe', on: '2026-05-04', record: { stops: [20] }, closed: false, revision: 1 }; // prettier-ignore
  expect((await technician.ask('post', '/field-tests?units=metric', begun)).status).toBe(201);
  expect(await get(`/members/${wynn!.id}/holdings`)).toEqual({
    jobs: await jobs(wynn!.person.id),
    begun: [{ what: 'test', siteId: site.id, siteName: site.name }],
  });
  await send('delete', `/members/${wynn!.id}?jobsTo=${piet!.person.id}`);
  expect([await jobs(wynn!.person.id), await jobs(piet!.person.id)]).toEqual([0, before + 3]);
  // Whoever comes back has them again.
  await send('post', `/members/${wynn!.id}/restore`);
  expect([await jobs(wynn!.person.id), await jobs(piet!.person.id)]).toEqual([3, before]);
});

it('a client shares her report with her board and follows the visits in her calendar, as long as she may see it', async () => {
  const { http } = server.current();
  const owner = await signIn(server.current(), demoEmails.owner);
  const hetty = await signIn(server.current(), demoEmails.client);
  const site = await siteOf('Gannet');
  const at = `/sites/${site.id}/share-links`;
  const board = { purpose: 'The board', days: 30 };
  expect((await hetty.ask('post', `/sites/${(await siteOf('Kelp')).id}/share-links`, board)).status).toBe(404);
  const made = (await hetty.ask('post', at, board)).body as { id: string; address: string };
  await send('post', at, { purpose: 'Of the office', days: 30 });
  // She sees her own, and ends no other.
  const own = (await hetty.ask('get', at)).body as Array<{ id: string; purpose: string }>;
  expect(own.map(({ purpose }) => purpose)).toEqual(['The board']);
  const links = await get<Array<{ id: string; purpose: string }>>(at);
  const office = links.find(({ purpose }) => purpose === 'Of the office')!;
  expect((await hetty.ask('delete', `/share-links/${office.id}`)).status).toBe(409);

  const shared = () => http.get(`/api/shared/${made.address.split('/').at(-1)}`);
  expect((await shared()).status).toBe(200);
  const { practice } = await owner.session();
  const { name, timeZone, currency, version, clientsShare } = practice!;
  expect(clientsShare).toBe(true);
  await owner.ask('put', '/practice', { name, timeZone, currency, clientsShare: false }, version);
  expect([(await shared()).status, (await hetty.ask('post', at, board)).status]).toEqual([410, 403]);
  await owner.ask('put', '/practice', { name, timeZone, currency, clientsShare: true }, version + 1);
  expect((await shared()).status).toBe(200);

  const { jobs } = await get<SeasonAnswer>(`/sites/${site.id}/season?units=us`);
  const job = jobs.find(({ state, day }) => state === 'open' && day !== null)!;
  await send('put', `/jobs/${job.id}/crew?units=us`, { part: 'morning' }, 200, job.version);
  const { address } = (await hetty.ask('post', '/calendar-links')).body as { address: string };
  const feed = async () => (await http.get(new URL(address).pathname)).text.replaceAll('\r\n ', '');
  const calendar = await feed();
  expect(calendar).toContain(`${job.zone}\\, ${site.name}\\, morning`);
  expect(calendar).not.toMatch(/Kelp Cottage|The evening before|\/cards\//);

  const members = await get<MemberAnswer[]>('/members');
  const member = members.find(({ person }) => person.email === demoEmails.client)!;
  await owner.ask('delete', `/members/${member.id}`);
  expect([(await shared()).body, await feed()]).toEqual([expect.objectContaining({ status: 410 }), expect.stringContaining('does not belong to the practice any more')]); // prettier-ignore
});

it('a secret address ends with its time, with sign-out everywhere, with a new password, and where an owner ends it', async () => {
  const { http } = server.current();
  const owner = await signIn(server.current(), demoEmails.owner);
  let technician = await signIn(server.current(), demoEmails.technician);
  const make = async (): Promise<() => Promise<[number, string]>> => {
    const { address } = (await technician.ask('post', '/calendar-links')).body as { address: string };
    const path = new URL(address).pathname;
    const read = async (): Promise<[number, string]> => {
      const answer = await http.get(path);
      return [answer.status, (answer.body as { title?: string }).title ?? ''];
    };
    expect((await read())[0]).toBe(200);
    return read;
  };
  const old = await make();
  await server.current().sql(`UPDATE calendar_link SET "createdAt" = now() - interval '401 days'`);
  expect(await old()).toEqual([410, 'Expired']);

  const member = async (): Promise<MemberAnswer> =>
    (await get<MemberAnswer[]>('/members')).find(({ person }) => person.email === demoEmails.technician)!;
  const ended = await make();
  expect((await member()).addresses).toBe(1);
  expect((await owner.ask('delete', `/members/${(await member()).id}/addresses`)).status).toBe(204);
  expect([await ended(), (await member()).addresses]).toEqual([[410, 'Revoked'], 0]);

  const signedOut = await make();
  expect((await technician.ask('delete', '/sessions')).status).toBe(204);
  expect(await signedOut()).toEqual([410, 'Revoked']);
  technician = await signIn(server.current(), demoEmails.technician);
  const changed = await make();
  const password = { current: demoPassword, password: 'clay by touch, not by guess' };
  expect((await technician.ask('put', '/session/password', password)).status).toBe(204);
  expect(await changed()).toEqual([410, 'Revoked']);
});
