import type { ProductAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { Stores } from '../src/features/materials/Stores.tsx';
import { type Asked, changesOf, choose, problem, serve, show } from './page.tsx';
import { productWith } from './scene.ts';

const burnt = productWith({
  id: 'h',
  name: 'Hydrated lime',
  caustic: true,
  caution: 'Burns skin.',
  effectiveness: 120,
  packPrice: null,
  unitPrice: null,
});
const urea = productWith({
  ...{
    id: '4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c',
    name: 'Urea 46-0-0',
    kind: 'fertilizer',
    analysis: { n: 46, p2o5: 0, k2o: 0 },
    effectiveness: null,
  },
  unitPrice: { of: 'N', perKg: 3 },
});
const slow: ProductAnswer = {
  ...urea,
  id: 'x',
  name: 'Coated urea',
  analysis: { n: 43, p2o5: 0, k2o: 0, slowRelease: 90 },
};
const sand = productWith({
  id: 's',
  name: 'Sand',
  kind: 'sand',
  analysis: { bulkDensity: 1.5 },
  packSize: 1,
  packUnit: 'm3',
  effectiveness: null,
  unitPrice: null,
});

function openPart(part: string, more = {}, options = {}) {
  const asked = serve({ '/products': [productWith(), burnt, urea, slow, sand], '/machines': [], ...more });
  const { unmount } = show(
    <Routes>
      <Route path="/products/:part?" element={<Stores />} />
    </Routes>,
    { at: `/products/${part}`, ...options },
  );
  return { asked, unmount };
}
const open = (part: string, more = {}, options = {}): Asked[] => openPart(part, more, options).asked;
beforeEach(() => sessionStorage.clear());
const price = (): Promise<HTMLElement> => screen.findByLabelText('Price of a bag of Pelletised calcitic lime');
const lastBody = (asked: readonly Asked[]) => changesOf(asked).at(-1)!.body;

describe('the products', () => {
  it('stand by kind, with what they are, what they cost for it, and what they can do', async () => {
    open('lime');
    await price();
    expect(screen.getByText(/87 % effective: CCE 97 %, 84 % through 60 mesh/)).toBeTruthy();
    expect(screen.getByText('Burns skin.')).toBeTruthy();
    expect(screen.getByText('$0.15 a lb of effective lime')).toBeTruthy();
    expect(screen.queryByText('Coated urea')).toBeNull();
    await userEvent.click(screen.getByRole('link', { name: /^Fertilizer/ }));
    expect(await screen.findByText('43-0-0, 90 % of the N slow')).toBeTruthy();
    await userEvent.click(screen.getByRole('link', { name: /^Compost, sand/ }));
    expect(await screen.findByText('load of 1.3 yd³')).toBeTruthy();
  });

  it('save price and stock on the version that was seen, and the next on the one that came of it', async () => {
    let lime = productWith();
    const asked = open('lime', {
      '/products': () => [lime],
      'PUT /products/lime': ({ body }: Asked) => (lime = { ...lime, ...(body as object), version: lime.version + 1 }),
    });
    for (const text of ['$7.25', '8']) {
      await userEvent.clear(await price());
      await userEvent.type(await price(), text);
      await userEvent.click(screen.getByRole('button', { name: 'Save' }));
      await waitFor(() => expect(screen.queryByRole('button', { name: 'Save' })).toBeNull());
    }
    await userEvent.type(screen.getByLabelText('In stock of Pelletised calcitic lime'), '12');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(3));
    expect(changesOf(asked).map(({ body, version }) => [body, version])).toMatchObject([
      [{ packSize: 22.68, packPrice: 7.25, stock: null }, '3'],
      [{ packPrice: 8 }, '4'],
      [{ packPrice: 8, stock: 12 }, '5'],
    ]);
  });

  it('keep a price that is typed and not saved while another page is looked at', async () => {
    const { unmount } = openPart('lime');
    await userEvent.clear(await price());
    await userEvent.type(await price(), '12.40');
    unmount();
    openPart('lime');
    expect(await price()).toHaveProperty('value', '12.40');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(sessionStorage.getItem(`glenfold.product.${productWith().id}`)).toBeNull());
  });

  it('ask before they let go what was typed into a form, by Escape and by Cancel', async () => {
    openPart('lime');
    await userEvent.click(await screen.findByRole('button', { name: 'Change Pelletised calcitic lime' }));
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await userEvent.click(screen.getByRole('button', { name: 'Change Pelletised calcitic lime' }));
    const form = within(await screen.findByRole('dialog'));
    await userEvent.type(form.getAllByRole('textbox')[0]!, ' X');
    await userEvent.keyboard('{Escape}');
    await userEvent.click(await screen.findByRole('button', { name: 'Keep it open' }));
    expect((form.getAllByRole('textbox')[0] as HTMLInputElement).value).toMatch(/ X$/);
    await userEvent.click(form.getByRole('button', { name: 'Cancel' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Close without saving' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('keep a price that is no number in its field, with the server’s words under it', async () => {
    const words = 'Give the price as a number of 0 or more.';
    open('lime', { 'PUT /products/lime': problem(400, { errors: [{ field: 'packPrice', message: words }] }) });
    await userEvent.clear(await price());
    await userEvent.type(await price(), 'cheap');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText(words)).toBeTruthy();
    expect((await price()) as HTMLInputElement).toHaveProperty('value', 'cheap');
  });

  it('show both where somebody else was first, and save mine on top of theirs only when told to', async () => {
    const theirs = productWith({ version: 9, packPrice: 9 });
    const conflict = { changedBy: 'Piet Vane', changedAt: '2026-10-14T09:30:00Z', current: theirs };
    const asked = open('lime', { 'PUT /products/lime': problem(409, { conflict }) });
    await userEvent.clear(await price());
    await userEvent.type(await price(), '7');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    const ask = await screen.findByRole('dialog');
    expect(within(ask).getByRole('heading').textContent).toBe('Piet Vane saved this first');
    expect(ask.textContent).toMatch(/\$7\.00.*\$9\.00/);
    await userEvent.click(within(ask).getByRole('button', { name: 'Keep mine' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(2));
    expect(changesOf(asked)[1]).toMatchObject({ version: '9', body: { packPrice: 7 } });
    // Their version instead: the field shows it, and nothing more is sent.
    await userEvent.click(within(await screen.findByRole('dialog')).getByRole('button', { name: /Keep Piet/ }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect((await price()) as HTMLInputElement).toHaveProperty('value', '9.00');
    expect(changesOf(asked)).toHaveLength(2);
  });

  it('keep without a question what only one of the two touched, and say so', async () => {
    let first = true;
    const asked = open('lime', {
      'PUT /products/lime': ({ body }: Asked) => {
        const current = productWith({ version: 9, stock: 4 });
        const late = first;
        first = false;
        return late ? problem(409, { conflict: { changedBy: 'Piet Vane', changedAt: '2026-10-14T09:30:00Z', current } }) : { ...current, ...(body as object), version: 10 }; // prettier-ignore
      },
    });
    await userEvent.clear(await price());
    await userEvent.type(await price(), '7');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText('Saved together with what Piet Vane changed meanwhile: In stock.')).toBeTruthy();
    expect(changesOf(asked)[1]).toMatchObject({ version: '9', body: { packPrice: 7, stock: 4 } });
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  it('take one of the practice’s own by its label, with what is wrong told beside the number', async () => {
    const asked = open('fertilizer', {
      'POST /products': ({ body }: Asked) => ({ ...urea, ...(body as object), id: 'new' }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Add a product' }));
    const form = await screen.findByRole('dialog');
    const type = (label: string, text: string) => userEvent.type(within(form).getByLabelText(label), text);
    await type('Name', 'Own 16-4-8');
    for (const [label, text] of [
      ['N', '66'],
      ['P₂O₅', '44'],
      ['K₂O', '8'],
    ] as const)
      await type(label, text);
    await userEvent.click(within(form).getByRole('button', { name: 'Add the product' }));
    expect(await within(form).findByText(/118 % together: check the label/)).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    for (const [label, text] of [
      ['N', '16'],
      ['P₂O₅', '4'],
    ] as const) {
      await userEvent.clear(within(form).getByLabelText(label));
      await type(label, text);
    }
    await type('Slow share of the N', '35');
    await type('Its price', '27,50');
    await type('In stock', '3');
    // A bag of 40 lb, as a person who reads US units has it.
    const pack = within(form).getByLabelText('One bag, can or load holds');
    await userEvent.clear(pack);
    await userEvent.type(pack, '40');
    await userEvent.click(within(form).getByRole('button', { name: 'Add the product' }));
    expect(await screen.findByText(/Own 16-4-8 is in your list/)).toBeTruthy();
    expect(lastBody(asked)).toMatchObject({
      ...{ name: 'Own 16-4-8', kind: 'fertilizer', analysis: { n: 16, p2o5: 4, k2o: 8, slowRelease: 35 } },
      ...{ packSize: expect.closeTo(18.1437, 4) as number, packUnit: 'kg', packPrice: 27.5, stock: 3 },
    });
  });

  it('of another kind ask for what that kind has, and leave the rest behind', async () => {
    const asked = open('fertilizer', {
      'POST /products': ({ body }: Asked) => ({ ...sand, ...(body as object), id: 'new' }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Add a product' }));
    const form = await screen.findByRole('dialog');
    await userEvent.type(within(form).getByLabelText('N'), '16');
    await choose('Kind', 'Seed');
    expect(within(form).queryByLabelText('N')).toBeNull();
    await userEvent.type(within(form).getByLabelText('Name'), 'Shade mix');
    await userEvent.click(within(form).getByRole('button', { name: 'Another species' }));
    await userEvent.click(within(form).getByRole('button', { name: 'Add the product' }));
    expect(await within(form).findByText(/110 % together/)).toBeTruthy();
    const [first] = within(form).getAllByLabelText('Share');
    await userEvent.clear(first!);
    await userEvent.type(first!, '90');
    await userEvent.click(within(form).getByRole('button', { name: 'Add the product' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    const body = lastBody(asked) as { seeds: unknown; analysis: Record<string, unknown> };
    expect(body.seeds).toEqual([
      { grass: 'tall fescue', share: 90 },
      { grass: 'fine fescue', share: 10 },
    ]);
    expect(Object.values(body.analysis).every((value) => value === null)).toBe(true);
  });

  it('come from the generic catalogue by ticks, and from a file with what came of it', async () => {
    const asked = open('lime', {
      '/products/generic': [
        { name: 'Marl', kind: 'lime', here: false },
        { name: 'Wood ash', kind: 'lime', here: false },
        { name: 'Urea 46-0-0', kind: 'fertilizer', here: true },
      ],
      'POST /products/generic': { added: 1, changed: 0, unchanged: 0 },
      'POST /products/file': { added: 2, changed: 1, unchanged: 76 },
    });
    await userEvent.click(await screen.findByRole('button', { name: 'From the generic catalogue' }));
    const ask = await screen.findByRole('dialog');
    await userEvent.click(await within(ask).findByLabelText('Marl'));
    expect(within(ask).queryByLabelText('Urea 46-0-0')).toBeNull();
    await userEvent.click(within(ask).getByRole('button', { name: 'Take over 1' }));
    await waitFor(() => expect(lastBody(asked)).toEqual({ names: ['Marl'] }));
    const file = Object.assign(new File(['name,kind\n'], 'p.csv'), { text: () => Promise.resolve('name,kind\n') });
    await userEvent.upload(screen.getByLabelText('A list of products (CSV)'), file);
    expect(await screen.findByText(/2 added, 1 changed, 76 as they were/)).toBeTruthy();
  });
});

describe('the machines', () => {
  const spreader = {
    ...{
      id: 'm',
      version: 2,
      name: 'Drop spreader',
      kind: 'drop spreader',
      width: 0.61,
      holds: 20,
      weight: null,
      hired: false,
    },
    ...{
      hireDay: null,
      hiredFrom: null,
      note: null,
      settings: [{ productId: 'lime', setting: '11', rate: 122, checkedOn: '2026-04-02' }],
    },
  };

  it('tell what they let through of each product, in the person’s units', async () => {
    open('machines', { '/machines': [spreader] });
    const own = await screen.findByRole('listitem', { name: 'Drop spreader' });
    await waitFor(() =>
      expect(own.textContent).toMatch(
        /11 for Pelletised calcitic lime: 25 lb\/1000 ft² in one pass, tried on 2 Apr 2026/,
      ),
    );
  });

  it('are all that a technician is shown, without changing them', async () => {
    open('lime', { '/machines': [spreader], '/products': 403 }, { role: 'technician' });
    expect(await screen.findByRole('heading', { name: 'Machines' })).toBeTruthy();
    expect(screen.queryByRole('link', { name: /^Fertilizer/ })).toBeNull();
    expect(screen.queryByRole('button', { name: /Add a machine/ })).toBeNull();
  });

  it('are added with a setting, and asked for what is missing', async () => {
    const asked = open('machines', { 'POST /machines': spreader });
    await userEvent.click(await screen.findByRole('button', { name: 'Add a machine' }));
    const form = await screen.findByRole('dialog');
    await userEvent.type(within(form).getByLabelText('Name'), 'Slinger');
    await userEvent.click(within(form).getByRole('button', { name: 'Another setting' }));
    await userEvent.click(within(form).getByRole('button', { name: 'Add the machine' }));
    expect(await within(form).findByText('Choose a product of the list.')).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await choose('Product', 'Urea 46-0-0');
    await userEvent.type(within(form).getByLabelText('Setting'), '4');
    await userEvent.type(within(form).getByLabelText('Lets through'), '1');
    await userEvent.click(within(form).getByRole('button', { name: 'Add the machine' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(lastBody(asked)).toMatchObject({
      name: 'Slinger',
      hired: false,
      settings: [{ productId: urea.id, setting: '4', rate: expect.closeTo(4.88, 2) as number }],
    });
  });
});
