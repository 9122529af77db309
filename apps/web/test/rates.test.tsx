import { type Product, type SoilTest, type ZoneFacts, planZone, shoppingList } from '@glenfold/agronomy';
import type { ProductAnswer, ShoppingAnswer, SiteAnswer, ZoneAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Rates } from '../src/features/rates/Rates.tsx';
import { Reading } from '../src/features/reading/Reading.tsx';
import { openWorkingByKey } from '../src/ui/working.tsx';
import { serve, show } from './page.tsx';
import { printed, productWith, resultWith } from './scene.ts';

const none = { n: 0, p2o5: 0, k2o: 0 };
const mesh = { passing8: 100, passing20: 95, passing60: 80, moisture: 0, magnesium: false, caustic: false };
const plain = { slowRelease: 0, bagMass: 20, bagPrice: 10 };
const products: readonly Product[] = [
  { ...plain, id: 'lime', name: 'Calcitic lime', purpose: 'lime', grade: none, lime: { ...mesh, cce: 95 } },
  { ...plain, id: 'urea', name: 'Urea 46-0-0', purpose: 'nitrogen', grade: { ...none, n: 46 } },
  { ...plain, id: 'pellets', name: 'Pellets 5-4-0', purpose: 'nitrogen', grade: { ...none, n: 5, p2o5: 4 } },
  { ...plain, id: 'tsp', name: 'Superphosphate 0-46-0', purpose: 'phosphorus', grade: { ...none, p2o5: 46 } },
  {
    ...plain,
    id: 'sop',
    name: 'Sulfate of potash 0-0-50',
    purpose: 'potassium',
    grade: { ...none, k2o: 50 },
    bagPrice: null,
  },
];
const productAnswers = products.map(({ id, name, grade, slowRelease, bagMass, bagPrice, lime }) =>
  productWith({
    ...{ id, name, version: 1, kind: lime ? 'lime' : 'fertilizer', packSize: bagMass, packPrice: bagPrice },
    analysis: lime ? { ...lime } : { ...grade, slowRelease },
    effectiveness: lime ? 87 : null,
  } as Partial<ProductAnswer>),
);

const facts: ZoneFacts = {
  name: 'Court',
  area: 93,
  grass: 'kentucky bluegrass',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'removed',
  soilGroup: 'loam',
};
const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const test: SoilTest = {
  soilPh: 5.4,
  buffer: { method: 'smp', ph: 6.4 },
  extractant: 'mehlich-3',
  depth: 15.24,
  organicMatter: 2.4,
  nutrients: { p: ppm(60), k: ppm(60) },
};
const site = { id: 's', version: 1, name: 'Gannet Row', place: null } as SiteAnswer;
const zone = {
  id: 'z',
  version: 1,
  siteId: 's',
  label: 'GR-1',
  geometry: null,
  facts: {},
  ...facts,
} as unknown as ZoneAnswer;
const result = resultWith({
  label: 'GR-1',
  values: { soilPh: printed(5.4), bufferPh: printed(6.4, 'pH', { method: 'smp' }) },
  depth: 15.24,
  sampledOn: null,
});

function answer(zoneFacts: Partial<ZoneFacts> = {}, soil: Partial<SoilTest> = {}, choices = {}): ZonePlanAnswer {
  const worked = planZone({
    zone: { ...facts, ...zoneFacts },
    test: { ...test, ...soil },
    products,
    choices,
    system: 'us',
  });
  return { zoneId: 'z', result, ...worked, choices, version: 3, priced: true };
}
const props = { site, zones: [zone], zone, results: [result] };
const served = (plan: unknown) => ({ '/zones/z/plan?units=us': plan, '/products': productAnswers });

describe('the rates of a zone', () => {
  it('say the decisive number, its reason and its caution first, and fold the rest', async () => {
    serve(served(answer()));
    show(<Rates {...props} />);
    const lime = await screen.findByRole('region', { name: 'Lime' });
    expect(lime.textContent).toMatch(/100 lb\/1000 ft²of product in 2 applications of 50 lb\/1000 ft² at most/);
    expect(lime.textContent).toMatch(/the rest, about 24 lb\/1000 ft², after the retest/);
    expect(lime.textContent).toMatch(/pH 5.4 is below Kentucky bluegrass’s 6.0–7.0. Lime to 6.5/);
    const folded = lime.querySelector('details')!;
    expect(folded.open).toBe(false);
    const [first] = within(lime).getAllByRole('list', { name: 'Cautions' });
    expect(first!.textContent).toMatch(/dust mask/);
    expect(folded.contains(first!)).toBe(false);
    expect(folded.textContent).toMatch(/Rule: correct only outside the grass’s band/);
  });

  it('tell what was looked at and is not given, with its reason', async () => {
    serve(served(answer()));
    show(<Rates {...props} />);
    const judged = await screen.findByRole('region', { name: 'Also looked at' });
    expect(
      within(judged)
        .getAllByRole('listitem')
        .map((row) => row.textContent),
    ).toEqual([
      expect.stringMatching(/^P2O5none.*P 60 ppm by Mehlich-3 is high/) as string,
      expect.stringMatching(/^Compostrefused|^Compostnot here.*phosphorus is high/) as string,
    ]);
  });

  it('tell how much gypsum and compost there is to lay, opened to how it comes about', async () => {
    // By hand: (20 − 5) % of 10 cmol/kg in 15.24 cm at 1.445 g/cm³ is 3.30 mol/m², × 86.09 / 0.8 = 355 g/m².
    serve(served(answer({}, { esp: 20, cec: 10, nutrients: { p: ppm(20), k: ppm(60) } })));
    show(<Rates {...props} />);
    const judged = await screen.findByRole('region', { name: 'Also looked at' });
    expect(judged.textContent).toMatch(
      /gypsum, 73 lb\/1000 ft² in all, about 36 lb\/1000 ft² at a time, twice this year/,
    );
    // 1 cm of it leaves 0.0529 g/cm² in a slice of 22.04: 0.24 %; the 0.6 % that is missing wants 2.5 cm, 6 mm a year.
    expect(judged.textContent).toMatch(
      /About 0.25 in of mature compost a year for 5 years, 1 in together, reaches 3 %/,
    );
    await userEvent.click(within(judged).getByRole('button', { name: /^Gypsum in all: 73 lb/ }));
    const opened = await screen.findByRole('dialog');
    expect(opened.textContent).toMatch(/Sodium to be replaced3\.296 mol\/m²/);
    expect(opened.textContent).toMatch(/The drain first/);
  });

  it('send a chosen product alone, and leave the others to the server', async () => {
    const asked = serve(served(answer()));
    show(<Rates {...props} />);
    const person = userEvent.setup();
    await person.click(await screen.findByRole('combobox', { name: 'Product for nitrogen' }));
    await person.click(screen.getByRole('option', { name: /Pellets/ }));
    await waitFor(() => expect(asked.some(({ method }) => method === 'PUT')).toBe(true));
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({
      path: '/zones/z/plan/choices?units=us',
      body: { nitrogen: 'pellets' },
    });
  });

  it('refuse a product that brings what is not wanted, with the remedy', async () => {
    serve(served(answer({}, {}, { nitrogen: 'pellets' })));
    show(<Rates {...props} />);
    const nitrogen = await screen.findByRole('region', { name: 'Nitrogen' });
    expect(nitrogen.textContent).toMatch(/refused/);
    expect(nitrogen.textContent).toMatch(
      /Pellets 5-4-0 brings phosphorus, which is not wanted here: choose a product without it/,
    );
  });

  it('are printed as a draft without a change on the server, and handed over only by hand', async () => {
    const asked = serve({
      ...served(answer()),
      'POST /zones/z/plans?units=us': { id: 'i', issuedAt: '', pdf: '/p.pdf' },
    });
    const opened: string[] = [];
    window.open = ((address: string) => (opened.push(address), null)) as typeof window.open;
    show(<Rates {...props} />);
    const draft = await screen.findByRole('link', { name: 'Print a draft (PDF)' });
    expect(draft.getAttribute('href')).toBe('/api/zones/z/plan.pdf?units=us');
    expect(asked.every(({ method }) => method === 'GET')).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: /Hand the plan over/ }));
    await waitFor(() => expect(opened).toEqual(['/p.pdf']));
  });

  it('lead to the price of a product without loading the page anew', async () => {
    serve(served(answer()));
    show(<Rates {...props} />);
    for (const link of await screen.findAllByRole('link', { name: /set its price|Sulfate of potash/ })) {
      expect(link.getAttribute('href')).toMatch(/^\/products\/(lime|fertilizer)$/);
      // The router takes the click: the browser does not go there by itself.
      expect(fireEvent.click(link)).toBe(false);
    }
  });

  it('put the ground first where water stands', async () => {
    serve(served(answer({ signs: ['puddles'] })));
    show(<Rates {...props} />);
    expect((await screen.findByText('First:')).parentElement!.textContent).toMatch(/Water stands.*puddles/);
  });

  it('open the main working by the key, else the first, else the one that has the focus', async () => {
    serve(served(answer()));
    show(<Rates {...props} />);
    await screen.findByRole('region', { name: 'Lime' });
    act(openWorkingByKey);
    expect((await screen.findByRole('dialog')).textContent).toMatch(/Calcitic lime for the year.*100 lb/);
    await userEvent.click(screen.getByRole('button', { name: 'Close the working' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    act(() => screen.getByRole('button', { name: /^Nitrogen for the zone/ }).focus());
    act(openWorkingByKey);
    expect((await screen.findByRole('dialog')).textContent).toMatch(/Nitrogen for the zone/);
  });
});

describe('what the property buys', () => {
  const north = { ...zone, id: 'n', name: 'North' };
  const both = { ...props, zones: [zone, north] };
  const planned = ['z', 'n'].map((zoneId) => ({ zoneId, zone: zoneId, plan: answer({}, { esp: 20, cec: 10 }).plan }));
  const list = shoppingList(
    planned,
    (id) => (id === 'urea' ? 3 : 0),
    (id) => (id === 'sop' ? null : 10),
    'us',
    '$',
  );
  const buying = (more: Partial<ShoppingAnswer> = {}) => ({
    ...served(answer()),
    '/sites/s/shopping?units=us': { list, zones: 2, untested: ['Bank'], priced: true, ...more },
  });
  const whole = { at: '/sites/s/rates?whole=' };

  it('is each product once, what to buy first, with what is there, what stays and whom it is for', async () => {
    serve(buying());
    show(<Rates {...both} />, whole);
    const rows = within(await screen.findByRole('list', { name: 'To buy' })).getAllByRole('listitem', { name: /./ });
    expect(rows.map((row) => row.getAttribute('aria-label'))).toEqual(list.purchases.map(({ productName }) => productName)); // prettier-ignore
    // 2 × 100 lb/1000 ft² on 1001 ft² are 200 lb: five bags of 44, with 20 left.
    expect(rows[0]!.textContent).toMatch(
      /Calcitic lime.*z 100 lb.*n 100 lb.*5 bagsof 44 lb\$50\.00200 lb wanted20 lb left/,
    );
    const urea = screen.getByRole('listitem', { name: /^Urea/ });
    expect(urea.textContent).toMatch(/noneof 44 lb; 3 bags there already/);
    expect(urea.textContent).not.toMatch(/\$/);
    expect(screen.getByText(/Cost open: set a price for/).textContent).toMatch(/Sulfate of potash/);
    const missing = screen.getByRole('region', { name: 'Not on this list' });
    expect(missing.textContent).toMatch(/Gypsum for z, altogether 73 lb\/1000 ft²/);
    expect(missing.textContent).toMatch(/Bank: no test yet/);
    await userEvent.click(within(rows[0]!).getByRole('button', { name: /to buy: 5 bags/ }));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/z 100 lb \+ n 100 lb/);
  });

  it('is reached from a zone and left for one; who sees no prices is shown none', async () => {
    serve(buying({ list: { ...list, cost: null, saved: null, unpriced: [] }, priced: false, untested: [] }));
    show(<Rates {...both} />, { at: '/sites/s/rates' });
    await userEvent.click(await screen.findByRole('button', { name: 'To buy for all' }));
    expect((await screen.findByRole('heading', { name: 'What to buy' })).textContent).toBe('What to buy');
    expect(await screen.findByRole('list', { name: 'To buy' })).toBeTruthy();
    expect(screen.queryByText(/Cost open|all products/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'The zone' }));
    expect(await screen.findByRole('region', { name: 'Lime' })).toBeTruthy();
  });

  it('is nothing where no zone has a test', async () => {
    serve(buying({ zones: 0 }));
    show(<Rates {...both} />, whole);
    expect(await screen.findByText('No zone has a test yet')).toBeTruthy();
  });
});

describe('the reading of a zone', () => {
  it('tells what limits it most first, each with its degree and evidence', async () => {
    serve(served(answer({ measured: { percolationSlowest: 1 } })));
    show(<Reading {...props} />);
    const limits = await screen.findByRole('list', { name: 'What limits this zone, most first' });
    const rows = within(limits).getAllByRole('listitem');
    expect(rows.map((row) => within(row).getByRole('img').getAttribute('aria-label'))).toEqual([
      'severely',
      'clearly',
      'clearly',
      'a little',
    ]);
    expect(rows[0]!.textContent).toMatch(/0.1 in\/h, where 1 in\/h is wanted/);
    expect(screen.getByRole('heading', { level: 2 }).textContent).toMatch(/Water hardly leaves/);
  });

  it('says once, in one line, what stays open, and only where it matters', async () => {
    serve(served(answer({ soilGroup: 'clay' })));
    const { unmount } = show(<Reading {...props} />);
    expect((await screen.findAllByText(/^Not known:/)).map(({ textContent }) => textContent)).toHaveLength(1);
    unmount();
    serve(served(answer()));
    show(<Reading {...props} />);
    await screen.findByRole('heading', { level: 2 });
    expect(screen.queryByText(/^Not known:/)).toBeNull();
  });
});
