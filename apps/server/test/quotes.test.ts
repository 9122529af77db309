import type {
  QuoteAnswer,
  QuoteOfSiteAnswer,
  TasksAnswer,
  SiteProgramAnswer,
  SiteReportAnswer,
} from '@glenfold/contract';
import {
  decideTreatment,
  get,
  programOf,
  send,
  siteOf,
  textOf,
  treatmentIn,
  typed,
  useDemoServer,
  zoneOf,
} from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();
const offer = async (site: string, more: object = {}): Promise<QuoteAnswer> =>
  send('post', `/sites/${(await siteOf(site)).id}/quotes?units=us`, { days: 30, ...more });
const standing = async (site: string): Promise<QuoteAnswer | null> =>
  (await get<QuoteOfSiteAnswer>(`/sites/${(await siteOf(site)).id}/quote`)).quote;
const say = (lines: ReadonlyArray<{ id: string }>, answer: string, by = 'Hetty Coppice') => ({
  by,
  lines: lines.map(({ id }) => ({ id, answer })),
});

describe('a quote', () => {
  it('is answered line by line by whoever holds the link, and what was declined is left out with who said so', async () => {
    const site = await siteOf('Gannet');
    const quote = await offer('Gannet', { note: 'As we walked it' });
    const whole = await get<SiteProgramAnswer>(`/sites/${site.id}/program?units=us`);
    const priced = quote.lines.reduce((sum, { price }) => sum + (price ?? 0), quote.visits ?? 0);
    expect(quote.total).toBeCloseTo(priced, 2);
    expect(quote.total).toBeCloseTo(whole.list.cost!.value, 1);
    expect(quote.unpriced).toBe(whole.list.unpricedWork.length);

    const { address } = await send<{ address: string }>('post', `/sites/${site.id}/share-links`, {
      purpose: 'Trustees',
      days: 3,
    });
    const token = address.split('/').at(-1)!;
    const stranger = server.current().http;
    const read = (await stranger.get(`/api/shared/${token}`)).body as SiteReportAnswer;
    expect(read.quote).toMatchObject({ id: quote.id, open: true, note: 'As we walked it' });
    const lime = quote.lines.find(({ zone, name }) => zone === 'Walled court' && name === 'Lime')!;
    const others = quote.lines.filter((line) => line !== lime);
    const path = `/api/shared/${token}/quotes/${quote.id}/answers`;
    const bad = await stranger.post(path).send({ lines: [{ id: lime.id, answer: 'maybe' }], by: 'x' });
    expect(bad.body).toMatchObject({ status: 422, errors: [{ field: 'lines.0.answer' }, { field: 'by' }] });
    const once = (await stranger.post(path).send(say([lime], 'declined'))).body as QuoteAnswer;
    expect([once.state, once.accepted]).toEqual(['open', 0]);
    // A price that is open is agreed to apart, up to an amount.
    const swept = await stranger.post(path).send(say(others, 'accepted'));
    expect(swept.body).toMatchObject({ status: 422, errors: [{ message: expect.stringMatching(/is open: say what it may cost at most/) as string }] }); // prettier-ignore
    const given = say(others, 'accepted');
    const agreed = given.lines.map((one) => ({ ...one, ...(others.find(({ id }) => id === one.id)!.priceOpen ? { ceiling: 80 } : {}) })); // prettier-ignore
    const all = (await stranger.post(path).send({ ...given, lines: agreed })).body as QuoteAnswer;
    expect(all.ceilings).toBe(80 * quote.unpriced);
    expect(all.state).toBe('answered');
    expect(all.accepted).toBeCloseTo(quote.total! - lime.price!, 2);

    const court = await zoneOf('Gannet', 'GR-1');
    const tasks = async () => (await get<TasksAnswer>('/rounds')).tasks.map(({ words }) => words);
    expect(await tasks()).toContain('Take over what Hetty Coppice has answered');
    await send('post', `/quotes/${quote.id}/taken-over`, undefined, 200);
    const left = treatmentIn(await programOf(court.id), 'lime');
    expect([left.status, left.byHand!.reason]).toEqual([
      'left out',
      expect.stringMatching(/^Hetty Coppice declined it on 20\d\d-\d\d-\d\d\.$/),
    ]);
    const late = await stranger.post(path).send(say([lime], 'accepted'));
    expect([late.status, late.body]).toEqual([409, expect.objectContaining({ title: 'Settled' })]);
    await send('delete', `/quotes/${quote.id}`, undefined, 409);
    await send('delete', `/zones/${court.id}/program/treatments/lime`);
  });

  it('is one price with program and report: what was agreed and what is another since lead to what stands, to the cent', async () => {
    const site = await siteOf('Gannet');
    const quote = await offer('Gannet');
    const lines = quote.lines.map(({ id, priceOpen }) => ({ id, answer: 'accepted', ...(priceOpen ? { ceiling: 80 } : {}) })); // prettier-ignore
    await send('post', `/quotes/${quote.id}/answers`, { by: 'Hetty Coppice', lines }, 200);
    await send('post', `/sites/${site.id}/programs?units=us`, {});
    const price = async () => (await get<SiteReportAnswer>(`/sites/${site.id}/report`)).price!;
    const agreed = await price();
    expect([agreed.sum, agreed.quote!.sum, agreed.quote!.changes]).toEqual([quote.total, quote.total, []]);
    expect(agreed.most).toBeCloseTo(quote.total! + 80 * quote.unpriced, 6);

    const court = await zoneOf('Gannet', 'GR-1');
    const lime = treatmentIn(await programOf(court.id), 'lime');
    await decideTreatment(court.id, 'lime', { values: { rate: lime.rate!.value / 2 }, reason: 'a trial' });
    expect((await price()).sum).toBe(agreed.sum);
    await send('post', `/sites/${site.id}/programs?units=us`, {});
    const now = await price();
    const less = now.quote!.changes.find(({ words }) => words.startsWith('Lime: '))!;
    expect([less.zone, less.words, less.difference < 0]).toEqual([court.name, expect.stringMatching(/ in place of /), true]); // prettier-ignore
    expect(now.quote!.changes.reduce((sum, { difference }) => sum + difference, agreed.sum)).toBeCloseTo(now.sum, 6);
    const { list } = await get<SiteProgramAnswer>(`/sites/${site.id}/program?units=us`);
    expect(now.sum).toBe(Math.round(list.cost!.value * 100) / 100);
    await send('delete', `/zones/${court.id}/program/treatments/lime`);
    await send('delete', `/quotes/${quote.id}`);
  });

  it('stands alone: a newer one withdraws it, another site’s report does not know it, and after its last day it is over', async () => {
    const [first, second] = [await offer('Tollgate'), await offer('Tollgate')];
    const withdrawn = await send<{ title: string }>(
      'post',
      `/quotes/${first.id}/answers`,
      say([first.lines[0]!], 'accepted'),
      409,
    );
    expect(withdrawn.title).toBe('Withdrawn');
    expect((await standing('Tollgate'))!.id).toBe(second.id);
    const gannet = await siteOf('Gannet');
    await send(
      'post',
      `/sites/${gannet.id}/report/quotes/${second.id}/answers`,
      say([second.lines[0]!], 'accepted'),
      404,
    );
    await send('post', `/quotes/${second.id}/answers`, say([{ id: first.lines[0]!.id }], 'accepted'), 422);
    await send('post', `/quotes/${second.id}/taken-over`, undefined, 409);
    await server.current().sql(`UPDATE quote SET "validUntil" = '2026-01-31' WHERE id = $1`, [second.id]);
    expect(await standing('Tollgate')).toMatchObject({ state: 'expired', open: false });
    const over = await send<{ detail: string }>(
      'post',
      `/quotes/${second.id}/answers`,
      say([second.lines[0]!], 'accepted'),
      409,
    );
    expect(over.detail).toMatch(/stood until 2026-01-31\. Ask the practice for a new one/);
    await send('delete', `/quotes/${second.id}`);
    expect(await standing('Tollgate')).toBeNull();
  });

  it('tells no price to those who see none, on paper either; and what has none is on it with none', async () => {
    const quote = await offer('Gannet');
    const technician = await signIn(server.current(), demoEmails.technician);
    const site = await siteOf('Gannet');
    const seen = await technician.ask('get', `/sites/${site.id}/quote`);
    expect(JSON.stringify(seen.body)).not.toMatch(/"(price|visits|total|accepted)":[\d.]+/);
    const path = `/api/quotes/${quote.id}/quote.pdf`;
    expect(await textOf(path, technician)).not.toMatch(/\$/);
    const own = await textOf(path);
    expect(own).toMatch(/What has a price: \$[\d.]+; 2 lines have none yet/);
    // A zone never begins at the foot of a page without its first line.
    for (const page of own.split('\f')) expect(page.trimEnd()).not.toMatch(/What and why\s+When\s+Price\s+Answer$/);
  });

  it('of a site with nothing in it is not made, and says what to do', async () => {
    const { id } = await send<{ id: string }>('post', '/sites', { name: 'Bare' });
    const { detail } = await send<{ detail: string }>('post', `/sites/${id}/quotes?units=us`, { days: 30 }, 409);
    expect(detail).toMatch(/Enter a test, or add a treatment/);
    const { errors } = await send<{ errors: unknown[] }>('post', `/sites/${id}/quotes?units=us`, { days: 0 }, 422);
    expect(errors).toEqual([{ field: 'days', message: 'A quote stands for a day at least.' }]);
  });
});

describe('a year of a program', () => {
  it('rolls over: what was put off and what waits for the retest comes first, and the retest is asked for', async () => {
    const zone = await zoneOf('Harbour', 'HS-2');
    const { siteId } = zone;
    await decideTreatment(zone.id, 'potassium', { out: 'next year', reason: 'The money is gone' });
    await send('post', `/sites/${siteId}/programs?units=us`, { zoneIds: [zone.id] });
    expect((await programOf(zone.id)).yearBefore).toBeNull();
    // Handed over fourteen months ago, and put off then.
    await server.current().sql(`UPDATE program SET "startsOn" = '2025-09-20', "handedOverAt" = '2025-09-20T10:00:00Z' WHERE "siteId" = $1 AND state = 'handed over'`, [siteId]); // prettier-ignore
    await server
      .current()
      .sql(`UPDATE program_zone SET "issuedAt" = '2025-09-20T10:00:00Z' WHERE "zoneId" = $1`, [zone.id]);
    await server.current().sql(`UPDATE treatment SET override = jsonb_set(override, '{outOn}', '"2025-09-20"') WHERE "zoneId" = $1 AND override ? 'outOn'`, [zone.id]); // prettier-ignore
    const before = (await programOf(zone.id)).yearBefore!;
    expect(before).toMatchObject({ over: true, began: null, retested: false });
    expect(before.waits.join()).toMatch(/K₂O was put off: The money is gone/);
    expect((await get<SiteProgramAnswer>(`/sites/${siteId}/program?units=us`)).over).toBe(true);

    const tasks = async () => (await get<TasksAnswer>('/rounds')).tasks.map(({ words }) => words);
    expect(await tasks()).toContain('Begin the next year');
    await send('post', `/sites/${siteId}/program/year`, undefined, 204);
    expect(await tasks()).not.toContain('Begin the next year');
    const after = await programOf(zone.id);
    expect(after.yearBefore).toMatchObject({ over: false, began: expect.stringMatching(/^20\d\d-/) as string });
    expect(after.yearBefore!.waits).toEqual(before.waits);
    await send('post', '/lab-results', typed(zone, { soilPh: 6.2, bufferPh: null }));
    expect((await programOf(zone.id)).yearBefore!.retested).toBe(true);
  });
});

describe('sections of a site', () => {
  it('have a year and a budget each, which their zones stand against; who sees no prices sees neither', async () => {
    const site = await siteOf('Gannet');
    const path = `/sites/${site.id}/program?units=us`;
    const { sections } = await get<SiteProgramAnswer>(path);
    expect(sections.map(({ section, year, budget, zones }) => [section, year, budget, zones])).toEqual([
      ['now', 2027, 400, ['Walled court']],
      ['next', 2028, 250, ['Sycamore lawn']],
    ]);
    expect(sections[1]!.over).toMatch(/more than the \$250\.00 there is/);
    const technician = await signIn(server.current(), demoEmails.technician);
    const seen = await technician.ask('get', path);
    expect(JSON.stringify((seen.body as SiteProgramAnswer).sections)).not.toMatch(/\$|"budget":\d|"value":/);
  });
});
