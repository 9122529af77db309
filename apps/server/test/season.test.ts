import type {
  BreaksAnswer,
  CalendarLinkAnswer,
  CardAnswer,
  HandOverAheadAnswer,
  HitsAnswer,
  JobAnswer,
  ProblemAnswer,
  ProofAnswer,
  TasksAnswer,
  SeasonAnswer,
  SiteDateAnswer,
  SiteReportAnswer,
  WeekAnswer,
  ZoneAnswer,
} from '@glenfold/contract';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import ICAL from 'ical.js';
import { decideTreatment, get, send, siteOf, typed, useDemoServer } from './client.ts';
import { demoEmails, signIn } from './harness.ts';
import { zoneBody } from './promisedRoutes.ts';
import { bookOf, limeOf, limed, seasonOf, write } from './seasonScene.ts';

const server = useDemoServer();

describe('jobs', () => {
  it('come of what is handed over, on days inside their windows, and give way to those of the next program', async () => {
    const { zone, jobs, season } = await limed('JOB-1');
    expect(jobs.length).toBeGreaterThan(2);
    for (const { day, earliest, latest, state, breaks } of jobs) {
      expect([day! >= earliest!, day! <= latest!, state, breaks]).toEqual([true, true, 'open', []]);
    }
    const { windows } = season.zones.find(({ zoneId }) => zoneId === zone.id)!;
    expect(windows.find(({ key }) => key === 'nitrogen')!.spans[0]!.from.slice(5) > '03').toBe(true);
  });

  it('keep what people decided when the program is handed over anew; a card of before counts for what took its place, once', async () => {
    const { zone, jobs, season } = await limed('JOB-9');
    const lime = limeOf(jobs);
    const feed = jobs.find(({ key }) => key === 'nitrogen')!;
    const hold = { reason: 'the lawn stands in water', words: 'not before the wedding' };
    await send('put', `/jobs/${lime.id}/hold?units=metric`, hold, 200, lime.version);
    const set = { day: feed.latest, reason: 'the client asked' };
    await send('put', `/jobs/${feed.id}/day?units=metric`, set, 200, feed.version);
    await decideTreatment(zone.id, 'lime', { values: { rate: 60 }, reason: 'half of it this year' });
    await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] });
    const after = (await seasonOf(zone.siteId)).jobs.filter(({ zoneId }) => zoneId === zone.id);
    expect(limeOf(after)).toMatchObject({ hold, was: lime.amount, late: false });
    expect(limeOf(after).amount).not.toBe(lime.amount);
    expect(after.find(({ day, was }) => day === feed.latest && was === null)).toMatchObject({ key: 'nitrogen' });
    expect(after.map(({ id }) => id)).not.toContain(lime.id);
    expect((await get<CardAnswer>(`/jobs/${lime.id}/card?units=metric`)).job).toMatchObject({ state: 'superseded', replacedById: limeOf(after).id }); // prettier-ignore

    // Done all the same with the card of before, without a connection: that is the new job, and it is done.
    const done = { zoneId: zone.id, jobId: lime.id, on: season.today, kind: 'lime', words: 'lime', rate: 30 };
    const { entry, notes } = await write(done);
    expect([entry.jobId, notes.join()]).toEqual([limeOf(after).id, expect.stringMatching(/took its place, and is \d\d % of what that asks for/)]); // prettier-ignore
    expect(limeOf((await seasonOf(zone.siteId)).jobs.filter(({ zoneId }) => zoneId === zone.id)).state).toBe('done');
    expect((await write({ ...done, id: randomUUID() })).notes.join()).toMatch(/wrote this card before/);

    // Handed over once more without it: nothing takes its place, and an entry says so.
    const [other] = after.filter(({ key }) => key === 'nitrogen');
    const { productId } = await get<CardAnswer>(`/jobs/${other!.id}/card?units=metric`);
    await decideTreatment(zone.id, 'nitrogen', { out: 'left out', reason: 'clover' });
    await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] });
    const fed = { zoneId: zone.id, jobId: other!.id, on: season.today, kind: 'fertilizer', productId, quantity: 1 };
    expect((await write(fed)).notes.join()).toMatch(/this work is not in it any more: what was done counts/);
  });

  it('lose nothing that people decided, whatever is changed and handed over, but what was told before', async () => {
    const { zone } = await limed('JOB-10');
    const mine = async () => (await seasonOf(zone.siteId)).jobs.filter(({ zoneId, state }) => zoneId === zone.id && state === 'open'); // prettier-ignore
    const kept = (jobs: readonly JobAnswer[]) => jobs.flatMap(({ hold }) => hold?.words ?? []).sort();
    let count = 0;
    const keys = ['lime', 'nitrogen', 'potassium'] as const;
    const doing = {
      hold: async (at: number) => {
        const jobs = await mine();
        const job = jobs[at % Math.max(1, jobs.length)];
        if (job && !job.hold) await send('put', `/jobs/${job.id}/hold?units=metric`, { reason: 'the client asked', words: `word ${(count += 1)}` }, 200, job.version); // prettier-ignore
      },
      change: async (at: number) => {
        const key = keys[at % 3]!;
        await send('delete', `/zones/${zone.id}/program/treatments/${key}`);
        const change = [{ out: 'left out' }, { values: { rate: 20 + at } }, { values: { times: 1 + (at % 4) } }][at % 3 === 0 ? at % 2 : (at >> 1) % 3]; // prettier-ignore
        await decideTreatment(zone.id, key, { ...change, reason: 'as agreed' });
      },
      handOver: async () => {
        const before = await mine();
        const { seal, jobs } = await get<HandOverAheadAnswer>(`/sites/${zone.siteId}/programs/ahead?units=metric&zone=${zone.id}`); // prettier-ignore
        await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id], seal });
        const told = jobs.filter(({ kind }) => kind === 'gone').flatMap(({ decided }) => decided.flatMap((one) => /on hold: (.*)/.exec(one)?.[1] ?? [])); // prettier-ignore
        const after = await mine();
        expect([...kept(after), ...told].sort()).toEqual(kept(before));
        // What was to move has moved, and nothing else.
        for (const { kind, day, from, name } of jobs)
          if (kind === 'moved') expect([name, after.some((job) => job.day === day), from === day]).toEqual([name, true, false]); // prettier-ignore
      },
    };
    const step = fc.tuple(fc.constantFrom('hold', 'hold', 'change', 'change', 'handOver'), fc.nat(11));
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 8 }), async (steps) => {
        for (const [what, at] of steps) await doing[what](at);
        await doing.handOver();
      }),
      { numRuns: 4, endOnFailure: true },
    );
    expect(count).toBeGreaterThan(2);

    // Somebody changes it between the look and the hand-over: nothing is handed over.
    const { seal } = await get<HandOverAheadAnswer>(`/sites/${zone.siteId}/programs/ahead?units=metric&zone=${zone.id}`); // prettier-ignore
    await send('delete', `/zones/${zone.id}/program/treatments/lime`);
    await decideTreatment(zone.id, 'lime', { values: { rate: 33 } });
    const refused = await send<ProblemAnswer>('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id], seal }, 409); // prettier-ignore
    expect(refused.detail).toMatch(/nothing was handed over. Look at what it says now/);
  });

  it('say that something was decided after the hand-over, on the job, in the report and in Rounds, until it is taken back', async () => {
    const { zone } = await limed('JOB-11');
    const told = async () => {
      const { jobs } = await seasonOf(zone.siteId);
      const { zones } = await get<SiteReportAnswer>(`/sites/${zone.siteId}/report`);
      const { tasks } = await get<TasksAnswer>('/rounds');
      return [
        new Set(jobs.flatMap((job) => (job.zoneId === zone.id && job.changedSince ? job.key : []))).has('lime'),
        zones.find(({ name }) => name === 'JOB-11')!.changing,
        tasks.some(({ words }) => /^Changed since it was handed over: .*JOB-11/.test(words)),
      ];
    };
    expect(await told()).toEqual([false, false, false]);
    await decideTreatment(zone.id, 'lime', { values: { rate: 60 }, reason: 'half of it this year' });
    expect(await told()).toEqual([true, true, true]);
    await send('delete', `/zones/${zone.id}/program/treatments/lime`);
    expect(await told()).toEqual([false, false, false]);
  });

  it('say what a move breaks, want a reason for it, and never let a law or a cap be broken', async () => {
    const { jobs, season } = await limed('JOB-2');
    const [first, second] = jobs.filter(({ key }) => key === 'nitrogen') as [JobAnswer, JobAnswer];
    const breaks = async (day: string) =>
      (await get<BreaksAnswer>(`/jobs/${second.id}/breaks?units=us&day=${day}`)).breaks;
    expect(await breaks(second.day!)).toEqual([]);
    expect((await breaks(first.day!))[0]).toMatchObject({
      never: true,
      words: expect.stringMatching(/as one/) as string,
    });
    const move = (day: string, reason: string | null, status: number) =>
      send<ProblemAnswer>('put', `/jobs/${second.id}/day?units=us`, { day, reason }, status, second.version);
    expect((await move(first.day!, 'hurry', 422)).errors[0]!.message).toMatch(
      /over what one may carry.*Choose another day/,
    );
    const winter = `${Number(season.today.slice(0, 4)) + 1}-03-03`;
    expect((await move(winter, null, 422)).errors[0]!.message).toMatch(/grass has to grow.*Say why/);
    await move(winter, 'the client insists', 200);
    const moved = (await seasonOf(second.siteId)).jobs.find(({ id }) => id === second.id)!;
    expect(moved).toMatchObject({ day: winter, movedBecause: 'the client insists' });
    expect(moved.breaks[0]).toMatch(/In an ordinary year: The grass has to grow/);
    // Looked for anew, the days that somebody set stay.
    await send('post', `/sites/${second.siteId}/season/days?units=us`, undefined, 200);
    expect((await seasonOf(second.siteId)).jobs.find(({ id }) => id === second.id)!.day).toBe(winter);
  });

  it('wait on a hold with its reason and the client’s words, also by a technician, and go on', async () => {
    const { jobs } = await limed('JOB-3');
    const lime = limeOf(jobs);
    const wynn = await signIn(server.current(), demoEmails.technician);
    const refused = await wynn.ask('put', `/jobs/${lime.id}/hold?units=us`, { reason: '' }, lime.version);
    expect(refused.status).toBe(422);
    const held = await wynn.ask(
      'put',
      `/jobs/${lime.id}/hold?units=us`,
      { reason: 'a storm', words: 'but the wedding' },
      lime.version,
    );
    expect((held.body as JobAnswer).hold).toMatchObject({
      reason: 'a storm',
      words: 'but the wedding',
      by: 'Wynn Marram',
    });
    const { tasks } = await get<{ tasks: Array<{ step: string; words: string }> }>('/rounds?limit=100');
    expect(tasks.flatMap(({ step, words }) => (step === 'season' ? [words] : [])).join()).not.toContain('JOB-3');
    const { version } = held.body as JobAnswer;
    expect((await wynn.ask('delete', `/jobs/${lime.id}/hold?units=us`, undefined, version)).body).toMatchObject({
      hold: null,
    });
  });

  it('without a climate have no day, and say so; with one they are found', async () => {
    const site = await send<{ id: string; version: number }>('post', '/sites', { name: 'Nowhere' });
    const zone = await send<ZoneAnswer>('post', `/sites/${site.id}/zones`, { ...zoneBody, area: 100 });
    await send('post', '/lab-results', typed(zone, { soilPh: 5, sampledOn: '2026-09-01' }));
    await send('post', `/sites/${site.id}/programs?units=us`, {});
    const before = await seasonOf(site.id);
    expect(before).toMatchObject({ climate: null, weeks: [] });
    for (const { day, words } of before.jobs)
      expect([day, words[0]]).toEqual([null, expect.stringMatching(/no climate/)]);
    await send('put', `/sites/${site.id}`, { name: 'Nowhere', climate: 'cool maritime' }, 200, site.version);
    await server
      .current()
      .sql(`UPDATE job SET "from" = now()::date + 5, "to" = now()::date + 120 WHERE "zoneId" = $1`, [zone.id]);
    const after = await send<SeasonAnswer>('post', `/sites/${site.id}/season/days?units=us`, undefined, 200);
    expect(limeOf(after.jobs).day).not.toBeNull();
  });

  it('are counted backward from a date, and stand in the week with what is late', async () => {
    const { jobs, season } = await limed('JOB-4');
    const { siteId } = jobs[0]!;
    const year = Number(season.today.slice(0, 4)) + 1;
    const match = await send<SiteDateAnswer>('post', `/sites/${siteId}/dates`, {
      name: 'Match',
      kind: 'match',
      day: `${year}-09-12`,
    });
    const lime = match.jobs.find(({ id }) => id === limeOf(jobs).id)!;
    // Two weeks before the match at the latest, and its window closes long before.
    expect(lime.latestStart).toBe(limeOf(jobs).latest);
    expect(lime.slack).toBeGreaterThanOrEqual(0);
    await send('delete', `/site-dates/${match.id}`);
    // Taken out by mistake, it comes back.
    expect(await send<SiteDateAnswer>('post', `/site-dates/${match.id}/restore`)).toMatchObject({ name: 'Match', jobs: match.jobs }); // prettier-ignore
    await send('delete', `/site-dates/${match.id}`);
    await server.current().sql(`UPDATE job SET "day" = '2020-05-04' WHERE "id" = $1`, [lime.id]);
    const week = await get<WeekAnswer>('/season/week?units=us');
    expect(week.late.map(({ id }) => id)).toContain(lime.id);
    const rounds = await get<{ tasks: Array<{ words: string; why: string }> }>('/rounds?limit=100');
    expect(rounds.tasks.find(({ words }) => words.includes('JOB-4'))!.words).toMatch(/^Late: /);
  });

  it('are fed to a calendar by a secret address, in iCalendar, until it is taken back', async () => {
    const { jobs } = await limed('JOB-5');
    const link = await send<CalendarLinkAnswer>('post', '/calendar-links');
    const path = new URL(link.address!).pathname.replace('/api', '');
    const outside = await signIn(server.current(), demoEmails.client);
    const read = async () => (await outside.ask('get', path)) as unknown as { status: number; text: string };
    const feed = new ICAL.Component(ICAL.parse((await read()).text) as never);
    const events = feed.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    const lime = events.find(({ uid }) => uid.startsWith(limeOf(jobs).id))!;
    expect(lime.summary).toBe('Lime, JOB-5, Gannet Row Almshouses');
    expect([lime.startDate.isDate, lime.startDate.toString()]).toEqual([true, limeOf(jobs).day]);
    expect(lime.description).toMatch(/The evening before/);
    // Where it is, the evening before, and no day taken by it; what is years ago is not told.
    const { place } = await siteOf('Gannet');
    expect([lime.location, lime.component.getFirstPropertyValue('transp')]).toEqual([
      `Gannet Row Almshouses, ${place}`,
      'TRANSPARENT',
    ]);
    const alarm = lime.component.getFirstSubcomponent('valarm')!.getFirstPropertyValue('trigger') as {
      toString: () => string;
    };
    expect(alarm.toString()).toBe('-PT6H');
    await server.current().sql(`UPDATE job SET "day" = '2021-04-01' WHERE "id" = $1`, [limeOf(jobs).id]);
    expect((await read()).text).not.toContain(limeOf(jobs).id);
    expect((await get<CalendarLinkAnswer[]>('/calendar-links'))[0]).toMatchObject({ state: 'open', address: null });
    await send('delete', `/calendar-links/${link.id}`);
    expect((await read()).status).toBe(410);
  });

  it('of the made-up practice are on today only where the day allows, and its book of this year counts', async () => {
    const cards = await get<CardAnswer[]>('/season/cards?units=us');
    const { today } = await seasonOf((await siteOf('Tollgate')).id);
    expect(cards.length).toBeGreaterThan(0);
    for (const { job } of cards.filter(({ job: { day } }) => day === today))
      expect((await get<BreaksAnswer>(`/jobs/${job.id}/breaks?units=us&day=${job.day}`)).breaks).toEqual([]);
    for (const name of ['Gannet', 'Tollgate', 'Harbour', 'Quarry']) {
      const { zones, entries } = await bookOf((await siteOf(name)).id);
      expect([name, entries.length > 0, zones.flatMap(({ unknown }) => unknown)]).toEqual([name, true, []]);
    }
  });

  it('stand on a card with what is weighed out, the day’s facts, and what was done before', async () => {
    const { jobs, zone } = await limed('JOB-6');
    await write({ zoneId: zone.id, on: '2026-11-20', kind: 'fertilizer', words: 'urea', rate: 5 });
    const card = await get<CardAnswer>(`/jobs/${limeOf(jobs).id}/card?units=metric`);
    expect(card.card.weigh!.quantity).toBeCloseTo((card.rate! * card.area) / 1000, 6);
    expect(card).toMatchObject({ windowJob: 'lime', entryKind: 'lime', day: { pulverised: false } });
    expect(card.since.map(({ job }) => job)).toEqual(['soluble fertilizer']);
    const cards = await get<CardAnswer[]>('/season/cards?units=us');
    expect(cards.map(({ job }) => job.name)).toEqual(expect.arrayContaining(['Lime']));
  });
});

describe('the proof', () => {
  it('lays each retest beside what was foretold: one that disappoints, one inside the band', async () => {
    const { id } = await siteOf('Tollgate');
    const { zones } = await get<ProofAnswer>(`/sites/${id}/proof`);
    const club = zones.find(({ zone }) => zone === 'Club lawn')!;
    const judged = club.predictions.filter(({ proved }) => proved !== null);
    expect(judged.map(({ madeOn, proved }) => [madeOn.slice(0, 4), proved!.inside])).toEqual([
      ['2024', true],
      ['2023', false],
    ]);
    expect(judged[1]!.proved!.words).toMatch(/^Moved 0\.4, 0\.\d was expected: outside the band/);
    expect(club.under.at(-1)!.low).toBeLessThan(club.under.at(-1)!.high);
    expect(club.changes.find(({ analyte }) => analyte === 'P')!.words).toMatch(/two tests of one ground/);
    const hits = await get<HitsAnswer>('/proof');
    expect([hits.hits.length, hits.inside]).toEqual([2, 1]);
    expect(hits.words).toMatch(/1 of 2 inside the band.*Too few/);
  });

  it('keeps what is foretold when a program is handed over, as it was', async () => {
    const { zone } = await limed('PROOF-1', '2025-08-01');
    const proofOf = async () =>
      (await get<ProofAnswer>(`/sites/${zone.siteId}/proof`)).zones.find(({ zoneId }) => zoneId === zone.id)!;
    const before = await proofOf();
    expect(before.predictions).toHaveLength(1);
    expect(before.predictions[0]!.days.at(-1)!.ph).toBeGreaterThan(5.4);
    // A year and a bit later.
    await server.current().sql(`UPDATE prediction SET "madeOn" = "madeOn" - 430 WHERE "zoneId" = $1`, [zone.id]); // prettier-ignore
    await send('post', '/lab-results', typed(zone, { soilPh: 5.6, sampledOn: '2026-11-20' }));
    const after = await proofOf();
    expect(after.predictions[0]).toMatchObject({ days: before.predictions[0]!.days, retestedOn: '2026-11-20' });
    expect(after.predictions[0]!.proved!.moved).toBeCloseTo(0.4, 6);
  });
});

it('the owner reads what was done, what comes next and what moved', async () => {
  const { id } = await siteOf('Tollgate');
  const { year } = await get<{
    year: { next: Array<{ zone: string; words: string }>; moved: Array<{ words: string }>; retests: object[] };
  }>(`/sites/${id}/report`);
  expect(year.next.map(({ zone, words }) => `${words}, ${zone}`)).toContain('Lime, Club lawn');
  expect(year.moved[0]!.words).toMatch(/^pH\. Moved 0\.3, 0\.\d was expected: as foretold/);
  expect(year.retests.length).toBeGreaterThan(0);
});
