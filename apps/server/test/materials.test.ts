import {
  type MachineAnswer,
  type MaterialsFileAnswer,
  type ProblemAnswer,
  type ProductAnswer,
  materialInput,
} from '@glenfold/contract';
import { decideTreatment, get, programOf, treatmentIn, send, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';
import { machineBody, productBody } from './promisedRoutes.ts';

const server = useDemoServer();
const products = (): Promise<ProductAnswer[]> => get('/products');
const own = {
  ...{ name: 'Own 16-4-8', kind: 'fertilizer', analysis: { n: 16, p2o5: 4, k2o: 8, slowRelease: 35 } },
  ...{ packSize: 22.5, packUnit: 'kg', packPrice: 27.5, stock: 3 },
};

describe('a product of the practice’s own', () => {
  it('is chosen for nitrogen where phosphorus is wanted too, within the year of both, and refused where it is not', async () => {
    const { id, unitPrice } = await send<ProductAnswer>('post', '/products', own);
    expect(unitPrice).toEqual({ of: 'N', perKg: expect.closeTo(27.5 / 3.6, 6) as number });
    const { id: low } = await zoneOf('Gannet', 'GR-1');
    await decideTreatment(low, 'nitrogen', { values: { material: id } });
    const program = await programOf(low);
    const p = treatmentIn(program, 'phosphorus');
    expect(treatmentIn(program, 'nitrogen')).toMatchObject({ status: 'planned', supply: { name: 'Own 16-4-8', packSize: 22.5 } }); // prettier-ignore
    // What it brings of phosphate is taken off what superphosphate has to.
    expect(p.supply!.name).toMatch(/superphosphate/);
    const phosphate = program.program.balance.find(({ nutrient }) => nutrient === 'p2o5')!;
    expect(phosphate.total).toBeLessThanOrEqual(phosphate.need! * 1.0001);
    expect(phosphate.total).toBeGreaterThan(p.rate!.value * 0.46);
    const { id: enough } = await zoneOf('Harbour', 'HS-1');
    await decideTreatment(enough, 'nitrogen', { values: { material: id } });
    expect(treatmentIn(await programOf(enough), 'nitrogen')).toMatchObject({ status: 'refused', supply: null });
  });

  it.each([
    [
      'what does not belong to its kind',
      { kind: 'seed', seeds: [{ grass: 'tall fescue', share: 100 }] },
      'analysis.n',
      /does not belong/,
    ],
    ['more than the whole', { analysis: { n: 60, p2o5: 50, k2o: 0 } }, 'analysis.n', /110 % together/],
    ['a name that is there', { name: 'urea 46-0-0' }, 'name', /in the list already/],
    ['a bag of nothing', { packSize: 0 }, 'packSize', /0.001 to 100000/],
    ['a negative price', { packPrice: -1 }, 'packPrice', /0 to 1000000/],
  ])('is refused with %s', async (_what, more, field, message) => {
    const { errors } = await send<ProblemAnswer>('post', '/products', { ...productBody, ...more }, 422);
    expect(errors).toContainEqual({ field, message: expect.stringMatching(message) as string });
  });

  it('goes and comes back, unless its name was given away meanwhile', async () => {
    const made = await send<ProductAnswer>('post', '/products', { ...productBody, name: 'Short-lived' });
    await send('delete', `/products/${made.id}`);
    expect((await products()).some(({ id }) => id === made.id)).toBe(false);
    expect(await send<ProductAnswer>('post', `/products/${made.id}/restore`)).toMatchObject({ name: 'Short-lived' });
  });
});

describe('the list of products', () => {
  const csv = async (): Promise<string> =>
    (await (await signIn(server.current(), demoEmails.owner)).ask('get', '/products/file.csv')).text;
  const load = (content: string, status = 201): Promise<unknown> => send('post', '/products/file', { content }, status);

  it('goes out as a file and comes in again without changing anything', async () => {
    const before = await products();
    expect(await load(await csv())).toEqual({ added: 0, changed: 0, unchanged: before.length });
    expect(await products()).toEqual(before);
  });

  it('takes prices by name and adds what is new, all of a file or nothing', async () => {
    const lines = (await csv()).trim().split('\n');
    const head = lines[0]!;
    const urea = lines.find((line) => line.startsWith('Urea '))!;
    const price = head.split(',').indexOf('pack_price');
    const dearer = urea
      .split(',')
      .map((cell, at) => (at === price ? '33.25' : cell))
      .join(',');
    const fresh = 'name;kind;n;p2o5;k2o;pack_size;price\nMeal 8-3-1;fertilizer;8;3;1;"25,0";"19,90"';
    expect(await load(`${head}\n${dearer}\n`)).toEqual<MaterialsFileAnswer>({ added: 0, changed: 1, unchanged: 0 });
    expect((await products()).find(({ name }) => name === 'Urea 46-0-0')!.packPrice).toBe(33.25);
    expect(await load(fresh)).toMatchObject({ added: 1 });
    expect((await products()).find(({ name }) => name === 'Meal 8-3-1')).toMatchObject({
      packSize: 25,
      packPrice: 19.9,
    });
    const before = await products();
    const half = 'name,kind,n,pack_size\nGood,fertilizer,20,25\nBad,fertilizer,much,25\n';
    const { errors, detail } = (await load(half, 422)) as ProblemAnswer;
    expect([errors[0]!.field, detail]).toEqual([
      '1.n',
      expect.stringMatching(/Line 3, n is "much".*Nothing was taken/),
    ]);
    for (const nothing of ['x', 'a,b\n1,2\n', 'name,kind,n,pack_size\nTwin,fertilizer,1,1\ntwin,fertilizer,1,1\n'])
      expect(((await load(nothing, 422)) as ProblemAnswer).detail).toMatch(/Nothing was taken/);
    expect(await products()).toEqual(before);
  });

  it('keeps a text that a spreadsheet would take for a formula', async () => {
    const made = await send<ProductAnswer>('post', '/products', {
      ...productBody,
      name: '=Meal',
      caution: '+1 day dry',
    });
    expect(await csv()).toMatch(/'=Meal/);
    await load(await csv());
    expect((await products()).find(({ id }) => id === made.id)).toMatchObject({ name: '=Meal', caution: '+1 day dry' });
  });

  it('takes generic materials over once, by name', async () => {
    const gone = (await products()).find(({ name }) => name === 'Leaf mould')!;
    await send('delete', `/products/${gone.id}`);
    const names = ['Leaf mould', 'Marl'];
    expect(await send('post', '/products/generic', { names })).toEqual({ added: 1, changed: 0, unchanged: 1 });
    expect((await get<Array<{ name: string; here: boolean }>>('/products/generic')).every(({ here }) => here)).toBe(
      true,
    );
    await send('post', '/products/generic', { names: ['Gold dust'] }, 422);
  });

  it('keeps the day of its price: today where it is new, as written where that is told, and the old one while it stands', async () => {
    const today = new Date().toISOString().slice(0, 10);
    const { pricedOn: first, ...fed } = await send<ProductAnswer>('post', '/products', { ...own, name: 'Dated feed' });
    // The practice's own day may be another than the one of this clock.
    expect(Math.abs(Date.parse(first!) - Date.parse(today))).toBeLessThanOrEqual(86_400_000);
    const put = (more: object) => send<ProductAnswer>('put', `/products/${fed.id}`, { ...materialInput(fed), ...more }); // prettier-ignore
    expect((await put({ packPrice: 30, pricedOn: '2026-02-03' })).pricedOn).toBe('2026-02-03');
    expect((await put({ packPrice: 30, stock: 9, pricedOn: null })).pricedOn).toBe('2026-02-03');
    expect((await put({ packPrice: 31, pricedOn: '2026-02-03' })).pricedOn).toBe(first);
    expect((await put({ packPrice: null, pricedOn: '2026-02-03' })).pricedOn).toBeNull();
    // A file without days keeps those of prices that stand, and one in another money is refused whole.
    await put({ packPrice: 30, pricedOn: '2026-02-03' });
    const file = (price: string) => ({ content: `name,kind,n,p2o5,k2o,slow_release_percent,pack_size,pack_price\nDated feed,fertilizer,16,4,8,35,22.5,${price}\n` }); // prettier-ignore
    await send('post', '/products/file', file('30'));
    const named = async () => (await products()).find(({ name }) => name === 'Dated feed')!;
    expect((await named()).pricedOn).toBe('2026-02-03');
    const { errors } = await send<ProblemAnswer>('post', '/products/file', file('€30'), 422);
    expect(errors[0]!.message).toMatch(
      /Line 2, pack_price is in €, and this practice reckons in \$: convert it.*Nothing was taken/,
    );
    await send('put', `/products/${fed.id}`, { ...materialInput(await named()), pricedOn: 'spring' }, 422);
  });

  it('changes by hand only what is changed: a price keeps the analysis', async () => {
    const lime = (await products()).find(({ kind }) => kind === 'lime')!;
    const after = await send<ProductAnswer>('put', `/products/${lime.id}`, { ...materialInput(lime), packPrice: 7.1 });
    expect(after).toMatchObject({ analysis: lime.analysis, effectiveness: lime.effectiveness, packPrice: 7.1 });
  });
});

describe('machines', () => {
  it('keep their settings by product, and their hire from those who see no prices', async () => {
    const [product] = await products();
    const made = await send<MachineAnswer>('post', '/machines', {
      ...{ ...machineBody, name: 'Slinger', kind: 'drop spreader', hired: true, hireDay: 60 },
      settings: [{ productId: product!.id, setting: 'H½', rate: 49, checkedOn: '2026-05-01' }],
    });
    expect(made.settings).toHaveLength(1);
    const technician = await signIn(server.current(), demoEmails.technician);
    const seen = (await technician.ask('get', '/machines')).body as MachineAnswer[];
    expect(seen.find(({ id }) => id === made.id)).toMatchObject({ hireDay: null, settings: made.settings });
  });

  it.each([
    ['a hire of its own', { hired: false, hireDay: 20 }, 'hireDay', /your own/],
    [
      'a product nobody has',
      { settings: [{ productId: '00000000-0000-4000-8000-000000000000', setting: '1', rate: 5 }] },
      'settings.0.productId',
      /of the list/,
    ],
    ['a name that is there', { name: 'ROTARY spreader' }, 'name', /is there already/],
  ])('are refused with %s', async (_what, more, field, message) => {
    const { errors } = await send<ProblemAnswer>('post', '/machines', { ...machineBody, name: 'M', ...more }, 422);
    expect(errors).toEqual([{ field, message: expect.stringMatching(message) as string }]);
  });
});
