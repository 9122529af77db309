import type { Treatment, Working } from '@glenfold/agronomy';
import {
  type LabResultAnswer,
  type ProblemAnswer,
  type ProductAnswer,
  type ShareLinkAnswer,
  type SiteAnswer,
  type SiteProgramAnswer,
  type SiteReportAnswer,
  materialInput,
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
import { limed, write } from './seasonScene.ts';

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

const siteProgram = async (name: string): Promise<SiteProgramAnswer> =>
  get(`/sites/${(await siteOf(name)).id}/program?units=us`);
const suppliesOf = ({ supply, others }: Treatment) => [...(supply ? [supply] : []), ...others];

describe('the program of a site', () => {
  it('buys what its zones take, each material once, in packs that they share; what is in stock is not bought', async () => {
    const { zones, list, untested, priced } = await siteProgram('Gannet');
    expect([zones.length, untested, priced]).toEqual([2, ['South bank'], true]);
    const own = await Promise.all(['GR-1', 'GR-2'].map(async (label) => programOf((await zoneOf('Gannet', label)).id)));
    const taken = new Map<string, number>();
    for (const { program } of own)
      for (const { name, quantity } of program.treatments.flatMap(suppliesOf))
        taken.set(name, (taken.get(name) ?? 0) + quantity.value);
    expect(list.purchases.map(({ name }) => name).sort()).toEqual([...taken.keys()].sort());
    for (const { name, quantity } of list.purchases) expect(quantity.value).toBeCloseTo(taken.get(name)!, 6);
    expect(list.cost!.value).toBeLessThanOrEqual(own.reduce((sum, { program }) => sum + program.cost!.value, 0));

    const [first] = list.purchases;
    const product = (await get<ProductAnswer[]>('/products')).find(({ id }) => id === first!.materialId)!;
    await send('put', `/products/${product.id}`, { ...materialInput(product), stock: first!.packs.value }, 200, product.version); // prettier-ignore
    const stocked = (await siteProgram('Gannet')).list.purchases.find(({ materialId }) => materialId === product.id)!;
    expect([stocked.stock, stocked.packs.value, stocked.cost!.value]).toEqual([first!.packs.value, 0, 0]);
    const [working] = [...leftBehind(stocked.packs).values()];
    expect(JSON.stringify(await get<Working>(working!))).toMatch(/packs that are there/);
  });

  it('tells no price to those who see none, in no working either', async () => {
    const wynn = await signIn(server.current(), demoEmails.technician);
    const { id } = await siteOf('Gannet');
    const zone = await zoneOf('Gannet', 'GR-1');
    const fell = { remedy: 'work', added: true, values: { what: 'Crowns lifted', price: 317.5 } };
    await decideTreatment(zone.id, 'added-tree', fell);
    const told = await wynn.ask('get', `/zones/${zone.id}/program?units=us`);
    expect(JSON.stringify(told.body)).toMatch(/Crowns lifted/);
    expect(JSON.stringify(told.body)).not.toMatch(/317\.5/);
    await send('delete', `/zones/${zone.id}/program/treatments/added-tree`);
    const asked = await wynn.ask('get', `/sites/${id}/program?units=us`);
    const { zones, list, priced } = asked.body as SiteProgramAnswer;
    expect([priced, list.cost, list.saved]).toEqual([false, null, null]);
    expect(JSON.stringify([zones, list.purchases])).not.toMatch(/"cost":\{/);
    for (const address of leftBehind([zones, list]).values()) {
      const opened = await wynn.ask('get', address);
      expect(opened.status).toBe(200);
      expect(JSON.stringify(opened.body)).not.toMatch(/\$\d|price of a pack/);
    }
  });

  it('of an empty site is nothing, and of another’s is not there', async () => {
    const { id } = await send<SiteAnswer>('post', '/sites', { name: 'Bare', place: null });
    expect(await get(`/sites/${id}/program?units=metric`)).toMatchObject({ zones: [], list: { purchases: [] } });
    await send('post', `/sites/${id}/programs?units=us`, {}, 404);
    await get('/sites/4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c/program?units=us', 404);
    await get(`/sites/${id}/program`, 400);
  });
});

describe('a working', () => {
  it('is fetched when it is opened: each leads to steps, and together they are most of what an answer was', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const answer = await programOf(id);
    const addresses = [...leftBehind(answer).values()];
    const workings = await Promise.all(addresses.map((address) => get<Working>(address)));
    expect(workings.length).toBeGreaterThan(10);
    for (const working of workings) expect(working.every(({ kind }) => kind !== 'elsewhere')).toBe(true);
    expect(JSON.stringify(workings).length).toBeGreaterThan(JSON.stringify({ ...answer, result: null }).length);
  });

  it('of a number that has changed since is not told as the number’s', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const placeOfLime = (found: Map<string, string>) =>
      [...found].find(([at]) => /treatments\/\d+\/supply\/packs/.test(at))!;
    const [place, before] = placeOfLime(leftBehind(await programOf(id)));
    const [bed] = (await get<ProductAnswer[]>('/products')).filter(({ name }) => name.startsWith('Pelletised'));
    await decideTreatment(id, 'lime', { values: { material: bed!.id } });
    expect((await get<ProblemAnswer>(before, 409)).detail).toMatch(/anew since the page was opened/);
    const now = leftBehind(await programOf(id)).get(place)!;
    await get(now);
    await get(now.replace(/at=.*/, 'at=%2Fprogram%2Ftoxic%2Fworking'), 404);
    await get(now.replace(/&?of=[^&]*/, ''), 422);
  });

  it('of a program that was handed over stays as it was, for the holder of a link too, and for nobody else', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    await send('post', `/sites/${zone.siteId}/programs?units=us`, {});
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

describe('what is decided by hand', () => {
  it('is kept with its reason, is held by the caps, survives a new test, and reaches the paper', async () => {
    const zone = await zoneOf('Harbour', 'HS-1');
    const asked = (await programOf(zone.id)).program;
    const nitrogen = asked.treatments.find(({ key }) => key === 'nitrogen')!;
    await decideTreatment(zone.id, 'nitrogen', { values: { rate: '200 lb/1000 ft2' }, reason: 'A match is coming' });
    const held = treatmentIn(await programOf(zone.id), 'nitrogen');
    expect(held.byHand).toMatchObject({ reason: 'A match is coming', held: expect.stringMatching(/200 lb.*by its caps/) as string }); // prettier-ignore
    expect(held.brings.n).toBeLessThanOrEqual(asked.balance.find(({ nutrient }) => nutrient === 'n')!.most! * 1.001);

    await decideTreatment(zone.id, 'nitrogen', { values: { rate: nitrogen.rate!.value / 2, times: 1 }, months: [5], reason: 'Clover is wanted' }); // prettier-ignore
    const half = treatmentIn(await programOf(zone.id), 'nitrogen');
    expect(half.rate!.value).toBeCloseTo(nitrogen.rate!.value / 2, 0);
    expect(half.doses.map(({ from, own }) => [from!.slice(5), own])).toEqual([
      ['05-01', true],
      // The pass beyond it goes where the grass grows.
      ['06-01', false],
    ]);
    await send('post', '/lab-results', typed(zone, { soilPh: 5.9 }));
    const later = treatmentIn(await programOf(zone.id), 'nitrogen');
    expect([later.rate!.value, later.byHand!.reason]).toEqual([half.rate!.value, 'Clover is wanted']);
    const paper = await textOf(`/api/zones/${zone.id}/program.pdf?units=us`);
    expect(paper).toMatch(/Set by hand: Clover is wanted/);

    await send('delete', `/zones/${zone.id}/program/treatments/nitrogen`);
    expect(treatmentIn(await programOf(zone.id), 'nitrogen').byHand).toBeNull();
  });

  it('adds work that no test asks for, leaves out what it does, and both are bought or not', async () => {
    const zone = await zoneOf('Kelp', 'KC-1');
    const before = await programOf(zone.id);
    const added = { remedy: 'wetting', added: true, reason: 'It sheds water every summer' };
    await decideTreatment(zone.id, 'added-1', { ...added, values: { times: 2, tank: '20 L' } });
    await decideTreatment(zone.id, 'nitrogen', { out: 'left out', reason: 'The goats feed it' });
    const after = await programOf(zone.id);
    expect(treatmentIn(after, 'added-1')).toMatchObject({ remedy: 'wetting', status: 'planned', byHand: { by: 'Orla Tench' } }); // prettier-ignore
    expect(treatmentIn(after, 'nitrogen').status).toBe('left out');
    const bought = (await siteProgram('Kelp')).list.purchases.flatMap(({ name, zones }) => zones.map(({ zoneId }) => `${zoneId} ${name}`)); // prettier-ignore
    expect(bought).toContain(`${zone.id} ${treatmentIn(after, 'added-1').supply!.name}`);
    expect(bought).not.toContain(`${zone.id} ${treatmentIn(before, 'nitrogen').supply!.name}`);
  });

  it.each<[string, string, object, RegExp]>([
    ['without a reason', 'lime', { reason: '' }, /why/i],
    ['with a rate that is none', 'lime', { values: { rate: 'much' } }, /much.*give above 0/i],
    ['with a field that lime has not', 'lime', { values: { tines: 3 } }, /tines/i],
    ['with a product for something else', 'sulfur', { added: true, remedy: 'sulfur', values: { material: 'x' } }, /no product/], // prettier-ignore
    ['in a month that is none', 'lime', { months: [13] }, /1 to 12/],
    ['added where it stands once', 'more-lime', { remedy: 'lime', added: true }, /stands once/],
    ['of a treatment that is none', 'limes', { remedy: 'lime' }, /no treatment/],
  ])('%s is refused, and nothing changes', async (_what, key, given, words) => {
    const { id } = await zoneOf('Harbour', 'HS-2');
    const before = (await programOf(id)).changes;
    const refused = await decideTreatment(id, key, given, 422);
    expect((refused as unknown as ProblemAnswer).detail).toMatch(words);
    expect((await programOf(id)).changes).toEqual(before);
  });
});

describe('a program', () => {
  it('differs between two zones of one pH, and says why', async () => {
    const [court, lawn] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Gannet', 'GR-2')];
    const own = await programOf(court.id, 'metric');
    const other = await programOf(lawn.id, 'metric');
    expect(own.result!.values.soilPh!.value).toBe(other.result!.values.soilPh!.value);
    expect(treatmentIn(own, 'lime').rate!.value).toBeGreaterThan(3 * treatmentIn(other, 'lime').rate!.value);
    expect(own.program.comparisons.find(({ otherZone }) => otherZone === 'Sycamore lawn')!.reasons).toHaveLength(2);
  });

  it('takes the advisor’s products, and refuses one for another purpose', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const products = await get<ProductAnswer[]>('/products');
    const pulverised = products.find(({ name }) => name.startsWith('Pulverised'))!;
    await decideTreatment(id, 'lime', { values: { material: pulverised.id } });
    expect(treatmentIn(await programOf(id), 'lime').supply!.name).toBe(pulverised.name);
    const refused = await decideTreatment(id, 'nitrogen', { values: { material: pulverised.id } }, 422);
    expect((refused as unknown as ProblemAnswer).errors[0]!.field).toBe('values.material');
    // One choice leaves the others as they were.
    const urea = products.find(({ name }) => name.startsWith('Urea'))!;
    await decideTreatment(id, 'nitrogen', { values: { material: urea.id } });
    const both = await programOf(id);
    expect(['lime', 'nitrogen'].map((key) => treatmentIn(both, key).supply!.name)).toEqual([
      pulverised.name,
      urea.name,
    ]);
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: -1 }, 422);
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: null });
    expect((await programOf(id)).program).toMatchObject({ cost: null, unpriced: [pulverised.name] });
    await send('put', `/products/${pulverised.id}`, { ...materialInput(pulverised), packSize: 25, packPrice: 6 });
  });

  it('once handed over is frozen: the paper stays when the test is corrected, and the differences are told', async () => {
    const zone = await zoneOf('Gannet', 'GR-2');
    const { pdf, zones } = await send<{ pdf: string; zones: number }>(
      'post',
      `/sites/${zone.siteId}/programs?units=us`,
      {},
    );
    expect(zones).toBe(2);
    expect((await programOf(zone.id)).handedOver!.differences).toEqual([]);
    const paper = await textOf(pdf);
    expect(paper).toMatch(/Sycamore lawn[\s\S]*pH 5.3 is below this mix’s 6.0–6.5. Lime to 6.1/);
    expect(paper).toMatch(/Walled court has pH 5.3 too/);
    const [newest] = (await get<LabResultAnswer[]>(`/sites/${zone.siteId}/lab-results`)).filter(({ zoneIds }) =>
      zoneIds.includes(zone.id),
    );
    await send('put', `/lab-results/${newest!.id}`, typed(zone, { soilPh: 6.1 }));
    expect(await textOf(pdf)).toBe(paper);
    expect((await programOf(zone.id)).handedOver!.differences.join(' ')).toMatch(/Lime: no more\./);
    // A new version of the zone alone leaves the other zone's as it was; the old program is superseded when none is left.
    await send('post', `/sites/${zone.siteId}/programs?units=us`, { zoneIds: [zone.id] });
    expect((await programOf(zone.id)).handedOver!.differences).toEqual([]);
    const states = () => server.current().sql<{ state: string }>(`SELECT state FROM program WHERE "siteId" = $1 AND state <> 'draft' ORDER BY "handedOverAt" DESC LIMIT 2`, [zone.siteId]); // prettier-ignore
    expect((await states()).map(({ state }) => state)).toEqual(['handed over', 'handed over']);
    await send('post', `/sites/${zone.siteId}/programs?units=us`, {});
    expect((await states()).map(({ state }) => state)).toEqual(['handed over', 'superseded']);
    const lines = await server.current().sql<{ n: number }>(`SELECT count(*)::int AS n FROM dose d JOIN treatment t ON t.id = d."treatmentId" JOIN program p ON p.id = t."programId"
      WHERE p."siteId" = $1 AND p.state = 'handed over' AND d.earliest IS NOT NULL`, [zone.siteId]); // prettier-ignore
    expect(lines[0]!.n).toBeGreaterThan(3);
    // Of many hand-overs the owner reads the last.
    const newestOfEach = await server.current().sql<{ id: string }>(`SELECT DISTINCT ON ("zoneId") id FROM program_zone WHERE "zoneId" IN (SELECT id FROM zone WHERE "siteId" = $1) ORDER BY "zoneId", "issuedAt" DESC`, [zone.siteId]); // prettier-ignore
    const { zones: told } = await get<SiteReportAnswer>(`/sites/${zone.siteId}/report`);
    expect(told.flatMap(({ plan }) => plan?.id ?? []).sort()).toEqual(newestOfEach.map(({ id }) => id).sort());
  });

  it('is handed over with fill, which is no product of the practice’s, and gets a job', async () => {
    const zone = await zoneOf('Gannet', 'GR-2');
    const values = { soil: 'topsoil', loads: 5, load: '9 m3' };
    await decideTreatment(zone.id, 'added-fill', {
      remedy: 'fill',
      added: true,
      values,
      reason: 'The middle has sunk',
    });
    await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] });
    const jobs = await server.current().sql<{ productId: string | null; quantity: number; unit: string }>(`SELECT "productId", quantity, unit FROM job WHERE "zoneId" = $1 AND remedy = 'fill' AND state = 'open'`, [zone.id]); // prettier-ignore
    expect(jobs).toEqual([{ productId: null, quantity: 45, unit: 'm3' }]);
  });
});

describe('a rate set by hand', () => {
  it('is less what went down since it was set, whatever else of it is changed afterwards', async () => {
    const { zone } = await limed('RATE-1');
    await decideTreatment(zone.id, 'lime', { values: { rate: '30 lb/1000 ft2' }, reason: 'All that is in the shed' });
    const set = treatmentIn(await programOf(zone.id), 'lime');
    const of = { zoneId: zone.id, kind: 'lime', words: 'lime', productId: set.supply!.materialId };
    await write({ ...of, on: '2026-12-02', rate: 100 });
    await decideTreatment(zone.id, 'lime', { values: { rate: '30 lb/1000 ft2' }, months: [5], reason: 'All that is in the shed' }); // prettier-ignore
    const left = treatmentIn(await programOf(zone.id), 'lime');
    expect([left.status, Math.round(left.rate!.value / 5)]).toEqual([
      'planned',
      Math.round((set.rate!.value - 100) / 5),
    ]);
    await write({ ...of, on: '2026-12-02', rate: 50 });
    expect(treatmentIn(await programOf(zone.id), 'lime')).toMatchObject({ status: 'down', byHand: { held: expect.stringMatching(/nothing more goes down/) as string } }); // prettier-ignore
  });
});
