import { randomUUID } from 'node:crypto';
import { contentOf, productOf } from '@glenfold/agronomy';
import type {
  CardAnswer,
  EntryWrittenAnswer,
  MessagesAnswer,
  ProblemAnswer,
  ProductAnswer,
  ZoneAnswer,
} from '@glenfold/contract';
import fc from 'fast-check';
import { decideTreatment, get, programOf, send, siteOf, textOf, treatmentIn, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';
import { zoneBody } from './promisedRoutes.ts';
import { bookOf, limeOf, limed, seasonOf, write } from './seasonScene.ts';

const server = useDemoServer();

describe('the logbook', () => {
  it('is never rewritten: the database itself refuses', async () => {
    const zone = await zoneOf('Quarry', 'QL-5');
    const { entry } = await write({ zoneId: zone.id, on: '2026-05-04', kind: 'lime', words: 'a bag', rate: 50 });
    for (const change of [`UPDATE entry SET "rate" = 1 WHERE "id" = $1`, `DELETE FROM entry WHERE "id" = $1`])
      await expect(server.current().sql(change, [entry.id])).rejects.toThrow(/never changed/);
    // Sent twice it is written once.
    const again = await write({
      id: entry.id,
      zoneId: zone.id,
      on: '2026-05-04',
      kind: 'lime',
      words: 'a bag',
      rate: 50,
    });
    expect(again.entry.recordedAt).toBe(entry.recordedAt);
  });

  it('is mended by a technician only where they wrote themselves, on the day; nothing is withdrawn by them', async () => {
    const { zone } = await limed('BOOK-T');
    const wynn = await signIn(server.current(), demoEmails.technician);
    const of = { zoneId: zone.id, on: '2026-05-04', kind: 'lime', words: 'a bag', state: 'done' };
    const wrote = async (input: object) => wynn.ask('post', '/entries', { ...of, id: randomUUID(), ...input });
    const { entry: owners } = await write(of);
    const own = (await wrote({ rate: 40 })).body as EntryWrittenAnswer;
    expect((await wrote({ correctsId: owners.id, reason: 'half', rate: 20 })).status).toBe(422);
    expect((await wrote({ correctsId: own.entry.id, reason: 'typed twice', state: 'withdrawn' })).body).toMatchObject({ errors: [{ message: expect.stringMatching(/withdraws none/) as string }] }); // prettier-ignore
    expect((await wrote({ correctsId: own.entry.id, reason: 'half of it', rate: 20 })).status).toBe(201);
  });

  it('comes to what its entries come to, after any entries and corrections', async () => {
    const { id: siteId } = await siteOf('Quarry');
    const products = await get<ProductAnswer[]>('/products');
    const feed = products.find(({ name }) => name === 'Polymer-coated urea 43-0-0')!;
    const lime = products.find(({ name }) => name === 'Pelletised calcitic lime')!;
    const held = (product: ProductAnswer) => contentOf(productOf('', product as never, null)!);
    const steps = fc.array(
      fc.record({
        product: fc.constantFrom(feed, lime),
        quantity: fc.option(fc.integer({ min: 1, max: 60 }), { nil: null }),
        corrects: fc.option(fc.nat(20), { nil: undefined }),
        state: fc.constantFrom('done', 'not done', 'withdrawn'),
      }),
      { minLength: 1, maxLength: 8 },
    );
    let label = 0;
    await fc.assert(
      fc.asyncProperty(steps, async (all) => {
        label += 1;
        const zone = await send<ZoneAnswer>('post', `/sites/${siteId}/zones`, {
          ...zoneBody,
          label: `FC-${label}`,
          area: 250,
        });
        const written: Array<{ id: string; root: string }> = [];
        const last = new Map<string, { n: number; k: number; unknown: number; lime: number }>();
        for (const { product, quantity, corrects, state } of all) {
          const target =
            corrects === undefined || written.length === 0 ? undefined : written[corrects % written.length];
          if (!target && state === 'withdrawn') continue;
          const id = randomUUID();
          await write({
            ...{ id, zoneId: zone.id, on: '2026-06-10', kind: product === lime ? 'lime' : 'fertilizer', state },
            ...{ productId: product.id, quantity, reason: 'as counted', correctsId: target?.id ?? null },
          });
          const root = target?.root ?? id;
          written.push({ id, root });
          const grams = state === 'done' ? ((quantity ?? 0) * 1000) / 250 : 0;
          last.set(root, {
            n: (grams * held(product).n) / 100,
            k: (grams * held(product).ca) / 100,
            unknown: state === 'done' && quantity === null ? 1 : 0,
            lime: product === lime ? grams : 0,
          });
        }
        const { zones } = await bookOf(siteId);
        const ledger = zones.find(({ zoneId }) => zoneId === zone.id)!;
        const of = (key: string): number => ledger.lines.find((line) => line.key === key)?.done ?? 0;
        const sum = (key: 'n' | 'k' | 'unknown' | 'lime'): number =>
          [...last.values()].reduce((total, one) => total + one[key], 0);
        expect([of('n'), of('ca'), of('limeProduct')].map((one) => one.toFixed(6))).toEqual([sum('n'), sum('k'), sum('lime')].map((one) => one.toFixed(6))); // prettier-ignore
        expect(ledger.unknown).toHaveLength(sum('unknown'));
      }),
      { numRuns: 12 },
    );
  });

  it('keeps what is odd and tells it: a card written twice, a day to come, more than the zone, more than the store', async () => {
    const { zone, jobs, season } = await limed('BOOK-1');
    const lime = limeOf(jobs);
    const [product] = (await get<ProductAnswer[]>('/products')).filter(({ name }) => name === lime.product);
    await server.current().sql(`UPDATE product SET "stock" = 2 WHERE "id" = $1`, [product!.id]);
    const card = { zoneId: zone.id, jobId: lime.id, kind: 'lime', productId: product!.id, quantity: 30 };
    const first = await write({ ...card, on: season.today });
    expect(first.notes).toEqual([]);
    const stock = async () => (await get<ProductAnswer[]>('/products')).find(({ id }) => id === product!.id)!.stock;
    expect(await stock()).toBeCloseTo(2 - 30 / product!.packSize, 2);
    expect((await seasonOf(zone.siteId)).jobs.find(({ id }) => id === lime.id)!.state).toBe('done');
    const second = await write({ ...card, on: season.today, quantity: 100 });
    expect(second.notes.join(' ')).toMatch(/wrote this card before, as done.*withdraw one of them/);
    // Only the office can decide it: it stands in Rounds until it is read.
    const { messages } = await get<MessagesAnswer>(`/sites/${zone.siteId}/messages`);
    expect(messages.map(({ side, done, words }) => [side, done, words])).toEqual([
      ['field', false, expect.stringMatching(/^Lime.*wrote this card before/)],
    ]);
    expect(second.notes.join(' ')).toMatch(/More .* was used than the store had.*Count it/);
    const odd = await write({ zoneId: zone.id, on: '2099-01-01', kind: 'other', words: 'slip', area: 900 });
    expect(odd.notes.join(' ')).toMatch(/2099-01-01 has not come yet.*correct the day/);
    expect(odd.notes.join(' ')).toMatch(/More was treated than the zone has \(200 m²\)/);
    // Withdrawn, it does not count, and what it took comes back to the store.
    await write({
      ...card,
      on: season.today,
      quantity: null,
      state: 'withdrawn',
      correctsId: second.entry.id,
      reason: 'written twice',
    });
    expect(await stock()).toBeCloseTo(100 / product!.packSize, 1);
    const book = await bookOf(zone.siteId);
    expect(book.entries.find(({ id }) => id === second.entry.id)!.stands).toBe(false);
  });

  it.each([
    ['not done without a why', { state: 'not done' }, 'reason'],
    ['done in part without how much', { state: 'partly done' }, 'area'],
    ['a day that is none', { on: 'in spring' }, 'on'],
    ['a correction of nothing', { correctsId: randomUUID(), reason: 'x' }, 'correctsId'],
    ['withdrawn without which', { state: 'withdrawn', reason: 'x' }, 'state'],
    ['a day with the wind of a hurricane', { day: { wind: 900 } }, 'day'],
  ])('%s is refused at its field', async (_what, input, field) => {
    const zone = await zoneOf('Quarry', 'QL-6');
    const problem = (await write(
      { zoneId: zone.id, on: '2026-05-04', kind: 'lime', words: 'x', ...input },
      422,
    )) as unknown as ProblemAnswer;
    expect(problem.errors.map((one) => one.field)).toEqual([field]);
  });

  it('leaves the rest of what was done in part, to the metre, and closes it when that is done', async () => {
    const { zone, jobs, season } = await limed('BOOK-2');
    const lime = limeOf(jobs);
    const card = { zoneId: zone.id, jobId: lime.id, kind: 'lime', on: season.today, words: 'lime' };
    const left = async () => (await get<CardAnswer>(`/jobs/${lime.id}/card?units=metric`)).quantity!;
    const whole = await left();
    await write({ ...card, state: 'partly done', area: 50, rate: 200, reason: 'rain' });
    expect(await left()).toBeCloseTo(whole * 0.75, 6);
    await write({ ...card, state: 'partly done', area: 100, rate: 200, reason: 'dark' });
    expect(await left()).toBeCloseTo(whole * 0.25, 6);
    await write({ ...card, state: 'partly done', area: 50, rate: 200 });
    expect((await seasonOf(zone.siteId)).jobs.find(({ id }) => id === lime.id)!.state).toBe('done');
  });

  it('loads, books and takes from the store every thing of a mix: the peat with the sand', async () => {
    const { zone } = await limed('LB-8');
    const values = { mass: '250 kg', peat: 15, times: 3 };
    await decideTreatment(zone.id, 'added-sand', { remedy: 'sand', added: true, values, reason: 'A firmer green' });
    await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] });
    const { jobs } = await seasonOf(zone.siteId);
    const job = jobs.find(({ zoneId, remedy }) => zoneId === zone.id && remedy === 'sand')!;
    const card = await get<CardAnswer>(`/jobs/${job.id}/card?units=metric`);
    // 250 kg at 1.55 are 0.1613 m³, 85 % of the mix; the peat is 0.02846 m³ of it, each of three times.
    const [peat] = card.mixed!;
    expect(peat).toMatchObject({ name: 'Sphagnum peat', unit: 'm3', quantity: expect.closeTo(0.02846, 4) as number });
    expect([card.card.parts.load.join(), job.amount]).toEqual([expect.stringMatching(/Sphagnum peat: /), expect.stringMatching(/ of .*sand.*, .+ of Sphagnum peat$/i)]); // prettier-ignore
    await server.current().sql(`UPDATE product SET stock = 2 WHERE id = $1`, [peat!.productId]);
    const done = { zoneId: zone.id, on: '2026-11-20', kind: 'sand', productId: card.productId };
    // Half of the sand was used, and nobody said anything of the peat: it went with it.
    const { entry } = await write({ ...done, jobId: job.id, quantity: card.quantity! / 2 });
    expect(entry.mixed).toMatchObject([
      { words: 'Sphagnum peat', quantity: expect.closeTo(0.01423, 4) as number, unit: 'cm' },
    ]);
    expect(entry.words).toMatch(/sand.* with Sphagnum peat$/);
    const thick = await write({ ...done, jobId: job.id, quantity: card.quantity! * 2 });
    expect(thick.notes.join(' ')).toMatch(/100 % more than the card asked for: brush it in/);
    await write({ ...done, state: 'withdrawn', correctsId: thick.entry.id, reason: 'written twice' });
    const stock = async () => (await get<ProductAnswer[]>('/products')).find(({ id }) => id === peat!.productId)!.stock;
    expect(await stock()).toBeCloseTo(2 - 0.01423 / 0.1076, 2);
    // Mended to none, it comes back in, and both books say so.
    const mended = { ...done, quantity: card.quantity! / 2, correctsId: entry.id, reason: 'The peat ran out' };
    await write({ ...mended, mixed: [{ productId: peat!.productId, quantity: 0 }] });
    expect(await stock()).toBeCloseTo(2, 2);
    const refused = await write({ ...done, quantity: 1, mixed: [{ productId: zone.id, quantity: 1 }] }, 422);
    expect(JSON.stringify(refused)).toMatch(/Choose products of the list/);
    const owner = await signIn(server.current(), demoEmails.owner);
    const csv = (await owner.ask('get', `/sites/${zone.siteId}/logbook.csv?from=2026-11-20&to=2026-11-20`)) as unknown as { text: string }; // prettier-ignore
    expect(csv.text).toMatch(/Sphagnum peat,0\.0142/);
  });

  it('makes the next rate smaller, and says so; the year keeps its cap together with it', async () => {
    const { zone, jobs, season } = await limed('BOOK-3');
    const before = treatmentIn(await programOf(zone.id, 'metric'), 'lime');
    const lime = limeOf(jobs);
    const card = await get<CardAnswer>(`/jobs/${lime.id}/card?units=metric`);
    await write({
      zoneId: zone.id,
      jobId: lime.id,
      kind: 'lime',
      on: season.today,
      productId: card.productId,
      quantity: card.quantity,
    });
    const after = treatmentIn(await programOf(zone.id, 'metric'), 'lime');
    expect(after.rate?.value ?? 0).toBeLessThan(before.rate!.value);
    expect(after.words).toMatch(/put down .*, after the sample, is taken off/);
    expect((after.rate?.value ?? 0) + card.rate!).toBeLessThanOrEqual(488.3);
    const ledger = (await bookOf(zone.siteId, Number(season.today.slice(0, 4)))).zones.find(
      ({ zoneId }) => zoneId === zone.id,
    )!;
    const line = ledger.lines.find(({ key }) => key === 'limeProduct')!;
    expect([line.done, line.allowed! + line.done]).toEqual([expect.closeTo(card.rate!, 6), expect.closeTo(488.24, 1)]);
    expect(line.working.length).toBeGreaterThan(0);
  });

  it('goes on paper and into a spreadsheet, whole, with what was mended', async () => {
    const { id } = await siteOf('Tollgate');
    const paper = await textOf(`/api/sites/${id}/logbook.pdf?units=us&from=2023-01-01&to=2025-12-31`);
    expect(paper).toMatch(/Logbook, Tollgate bowling green/);
    expect(paper).toMatch(/14 Nov 2023\s+Club lawn\s+Pelletised dolomitic lime/);
    expect(paper).toMatch(/not done/);
    expect(paper).toMatch(/Club lawn: .*N \d/);
    // A whole year stands against its caps.
    const year = await textOf(`/api/sites/${id}/logbook.pdf?units=us&from=2024-01-01&to=2024-12-31`);
    expect(year.replace(/\s+/g, ' ')).toMatch(
      /Club lawn: N 1\.8 lb\/1000 ft² \(year’s most [\d.]+ lb\/1000 ft², still allowed [\d.]+ lb/,
    );
    const csv = (await (
      await signIn(server.current(), demoEmails.owner)
    ).ask('get', `/sites/${id}/logbook.csv?from=2023-01-01&to=2025-12-31`)) as unknown as { text: string };
    expect(csv.text.split('\n')[0]).toMatch(/^day,zone,kind,state,what,used,used_unit,rate,rate_unit,area_m2/);
    expect(csv.text).toMatch(/2025-08-13,Club lawn,fertilizer,not done/);
    await get(`/sites/${id}/logbook.csv?from=2025-12-31&to=2023-01-01`, 422);
  });
});
