import { execFileSync } from 'node:child_process';
import type { Working } from '@glenfold/agronomy';
import {
  type LabResultAnswer,
  type ProblemAnswer,
  type ProductAnswer,
  type ShareLinkAnswer,
  type ShoppingAnswer,
  type SiteAnswer,
  type SiteReportAnswer,
  type ZoneAnswer,
  type ZonePlanAnswer,
  materialInput,
} from '@glenfold/contract';
import { get, send, siteOf, typed, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();

/** Every working that an answer left behind, by its place. */
function leftBehind(value: unknown, found = new Map<string, string>(), at = ''): Map<string, string> {
  if (typeof value === 'object' && value !== null) {
    const { kind, at: address } = value as { kind?: unknown; at?: unknown };
    if (kind === 'elsewhere') found.set(at, String(address));
    for (const [key, inner] of Object.entries(value)) leftBehind(inner, found, `${at}/${key}`);
  }
  return found;
}

describe('what a site buys', () => {
  const planOf = (zone: ZoneAnswer) => get<ZonePlanAnswer>(`/zones/${zone.id}/plan?units=us`);
  const listOf = async (name: string) => get<ShoppingAnswer>(`/sites/${(await siteOf(name)).id}/shopping?units=us`);

  it('is what its zones take, each product once, in bags that they share; what is in stock is not bought', async () => {
    const { list, zones, untested, priced } = await listOf('Gannet');
    expect([zones, untested, priced]).toEqual([2, ['South bank'], true]);
    const plans = await Promise.all(['GR-1', 'GR-2'].map(async (label) => planOf(await zoneOf('Gannet', label))));
    const taken = new Map<string, number>();
    for (const { plan } of plans)
      for (const amount of [plan.lime.amount, ...plan.nutrients.map((each) => each.amount)])
        if (amount) taken.set(amount.productName, (taken.get(amount.productName) ?? 0) + amount.mass.value);
    expect(list.purchases.map(({ productName }) => productName).sort()).toEqual([...taken.keys()].sort());
    for (const { productName, mass } of list.purchases) expect(mass.value).toBeCloseTo(taken.get(productName)!, 6);
    expect(list.cost!.value).toBeLessThanOrEqual(plans.reduce((sum, { plan }) => sum + plan.cost!.value, 0));

    const [first] = list.purchases;
    const product = (await get<ProductAnswer[]>('/products')).find(({ id }) => id === first!.productId)!;
    await send('put', `/products/${product.id}`, { ...materialInput(product), stock: first!.bags.value }, 200, product.version); // prettier-ignore
    const stocked = (await listOf('Gannet')).list.purchases.find(({ productId }) => productId === product.id)!;
    expect([stocked.stock, stocked.bags.value, stocked.cost!.value]).toEqual([first!.bags.value, 0, 0]);
    const [working] = [...leftBehind(stocked.bags).values()];
    expect(JSON.stringify(await get<Working>(working!))).toMatch(/bags that are there/);
  });

  it('tells no price to those who see none, in no working either', async () => {
    const wynn = await signIn(server.current(), demoEmails.technician);
    const { id } = await siteOf('Gannet');
    const asked = await wynn.ask('get', `/sites/${id}/shopping?units=us`);
    const { list, priced } = asked.body as ShoppingAnswer;
    expect([priced, list.cost, list.saved]).toEqual([false, null, null]);
    for (const { cost, zones } of list.purchases) expect([cost, ...zones.map((zone) => zone.cost)].every((each) => each === null)).toBe(true); // prettier-ignore
    for (const address of leftBehind(list).values()) {
      const opened = await wynn.ask('get', address);
      expect(opened.status).toBe(200);
      expect(JSON.stringify(opened.body)).not.toMatch(/\$\d|price of a bag/);
    }
  });

  it('of an empty site is nothing, and of another’s is not there', async () => {
    const { id } = await send<SiteAnswer>('post', '/sites', { name: 'Bare', place: null });
    expect(await get(`/sites/${id}/shopping?units=metric`)).toMatchObject({ zones: 0, list: { purchases: [] } });
    await get('/sites/4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c/shopping?units=us', 404);
    await get(`/sites/${id}/shopping`, 400);
  });
});

describe('a working', () => {
  it('is fetched when it is opened: each leads to steps, and together they are most of what an answer was', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const answer = await get<ZonePlanAnswer>(`/zones/${id}/plan?units=us`);
    const addresses = [...leftBehind(answer).values()];
    const workings = await Promise.all(addresses.map((address) => get<Working>(address)));
    expect(workings.length).toBeGreaterThan(10);
    for (const working of workings) expect(working.every(({ kind }) => kind !== 'elsewhere')).toBe(true);
    expect(JSON.stringify(workings).length).toBeGreaterThan(JSON.stringify({ ...answer, result: null }).length);
  });

  it('of a number that has changed since is not told as the number’s', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const [place, before] = [...leftBehind(await get(`/zones/${id}/plan?units=us`))].find(([at]) =>
      at.includes('lime'),
    )!;
    const [bed] = (await get<ProductAnswer[]>('/products')).filter(({ name }) => name.startsWith('Pelletised'));
    await send('put', `/zones/${id}/plan/choices?units=us`, { lime: bed!.id });
    expect((await get<ProblemAnswer>(before, 409)).detail).toMatch(/anew since the page was opened/);
    const now = leftBehind(await get(`/zones/${id}/plan?units=us`)).get(place)!;
    await get(now);
    await get(now.replace(/at=.*/, 'at=%2Fplan%2Ftoxic%2Fworking'), 404);
    await get(now.replace(/&?of=[^&]*/, ''), 422);
  });

  it('of a handed over plan stays as it was, for the holder of a link too, and for nobody else', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    await send('post', `/zones/${zone.id}/plans?units=us`);
    const { address: link } = await send<ShareLinkAnswer>('post', `/sites/${zone.siteId}/share-links`, {
      purpose: 'Trust',
      days: 3,
    });
    const token = link!.split('/').at(-1)!;
    const own = leftBehind((await get<SiteReportAnswer>(`/sites/${zone.siteId}/report`)).zones);
    const byLink = leftBehind((await get<SiteReportAnswer>(`/shared/${token}`)).zones);
    const [place, address] = [...byLink][0]!;
    expect(await get(address)).toEqual(await get(own.get(place)!));
    await get(address.replace(token, `${token}x`), 404);
  });
});

describe('a plan', () => {
  it('differs between two zones of one pH, and says why', async () => {
    const [court, lawn] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Gannet', 'GR-2')];
    const { result, plan } = await get<ZonePlanAnswer>(`/zones/${court.id}/plan?units=metric`);
    const other = await get<ZonePlanAnswer>(`/zones/${lawn.id}/plan?units=metric`);
    expect(result.values.soilPh!.value).toBe(other.result.values.soilPh!.value);
    expect(plan.lime.amount!.rate.value).toBeGreaterThan(3 * other.plan.lime.amount!.rate.value);
    expect(plan.comparisons.find(({ otherZone }) => otherZone === 'Sycamore lawn')!.reasons).toHaveLength(2);
  });

  it('takes the advisor’s products, and refuses one for another purpose', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const products = await get<ProductAnswer[]>('/products');
    const pulverised = products.find(({ name }) => name.startsWith('Pulverised'))!;
    const { plan } = await send<ZonePlanAnswer>('put', `/zones/${id}/plan/choices?units=us`, { lime: pulverised.id });
    expect(plan.lime.amount!.productName).toBe(pulverised.name);
    expect(
      (await send<ProblemAnswer>('put', `/zones/${id}/plan/choices?units=us`, { nitrogen: pulverised.id }, 422))
        .errors[0]!.field,
    ).toBe('nitrogen');
    // One choice leaves the others as they were.
    const urea = products.find(({ name }) => name.startsWith('Urea'))!;
    const both = await send<ZonePlanAnswer>('put', `/zones/${id}/plan/choices?units=us`, { nitrogen: urea.id });
    expect(both.choices).toEqual({ lime: pulverised.id, nitrogen: urea.id });
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: -1 }, 422);
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: null });
    expect((await get<ZonePlanAnswer>(`/zones/${id}/plan?units=us`)).plan).toMatchObject({
      cost: null,
      unpriced: [pulverised.name],
    });
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: 6 });
  });

  it('once handed over is frozen: the paper stays when the test is corrected', async () => {
    const zone = await zoneOf('Gannet', 'GR-2');
    const { pdf } = await send<{ pdf: string }>('post', `/zones/${zone.id}/plans?units=us`);
    const read = async (): Promise<string> => {
      const paper = await server
        .owner()
        .agent.get(pdf)
        .expect('content-type', 'application/pdf')
        .buffer(true)
        .parse((response, done) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => done(null, Buffer.concat(parts)));
        });
      return execFileSync('pdftotext', ['-layout', '-', '-'], { input: paper.body as Buffer, encoding: 'utf8' });
    };
    const paper = await read();
    expect(paper).toMatch(/Sycamore lawn[\s\S]*pH 5.3 is below this mix’s 6.0–6.5. Lime to 6.1/);
    expect(paper).toMatch(/Walled court has pH 5.3 too/);
    const [newest] = (await get<LabResultAnswer[]>(`/sites/${zone.siteId}/lab-results`)).filter(({ zoneIds }) =>
      zoneIds.includes(zone.id),
    );
    await send('put', `/lab-results/${newest!.id}`, typed(zone, { soilPh: 6.1 }));
    expect(await read()).toBe(paper);
  });
});
