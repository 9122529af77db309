import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Rates } from '../src/features/rates/Rates.tsx';
import { openWorkingByKey } from '../src/ui/working.tsx';
import { serve, show } from './page.tsx';
import { answer, ppm, props, row, served } from './ratesScene.ts';

describe('the program of a zone', () => {
  it('say the decisive number, its reason and its caution first, and fold the rest', async () => {
    serve(served(answer()));
    show(<Rates {...props} />);
    const lime = await row('Lime');
    expect(lime.textContent).toMatch(/100 lb\/1000 ft²of product in 2 applications of 50 lb\/1000 ft²/);
    expect(lime.textContent).toMatch(/The rest, about 24 lb\/1000 ft², after the retest/);
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
      expect.stringMatching(/^Compostnot here.*phosphorus is high/) as string,
    ]);
  });

  it('lay gypsum and compost in doses with their months, opened to how they come about', async () => {
    // By hand: (20 − 5) % of 10 cmol/kg in 15.24 cm at 1.445 g/cm³ is 3.30 mol/m², × 86.09 / 0.8 = 355 g/m².
    serve(served(answer({ soil: { esp: 20, cec: 10, nutrients: { p: ppm(20), k: ppm(60) } } })));
    show(<Rates {...props} />);
    const gypsum = await row('Gypsum');
    expect(gypsum.textContent).toMatch(/73 lb\/1000 ft²of product in 2 applications of 36 lb\/1000 ft²/);
    expect(gypsum.textContent).toMatch(/December 2026, March 2027: 36.* each/);
    // 1 cm of it leaves 0.0529 g/cm² in a slice of 22.04: 0.24 %; the 0.6 % that is missing wants 2.5 cm, 6 mm a year.
    const compost = await row('Compost');
    expect(compost.textContent).toMatch(/0.25 inonce/);
    expect(compost.textContent).toMatch(/Reaches 3 % in 5 years, 1 in together/);
    expect(compost.textContent).toMatch(/0.7 yd³ for the zone0.8 yd³ loose, \$18.00/);
    await userEvent.click(within(gypsum).getByRole('button', { name: /^Gypsum for the year: 73 lb/ }));
    const opened = await screen.findByRole('dialog');
    expect(opened.textContent).toMatch(/Sodium to be replaced3\.296 mol\/m²/);
  });

  it('stand in the order of work, hang from the year’s line, and fill the balance', async () => {
    serve(served(answer({ soil: { nutrients: { p: ppm(20), k: ppm(60) } } })));
    show(<Rates {...props} />);
    const line = await screen.findByRole('group', { name: 'The year of this zone' });
    const marks = within(line)
      .getAllByRole('button')
      .map((mark) => mark.getAttribute('aria-label'));
    expect(marks).toEqual([
      expect.stringMatching(/^Compost: August 2027/),
      expect.stringMatching(/^Lime: December 2026, April 2027/),
      expect.stringMatching(/^K₂O: /),
      expect.stringMatching(/^Nitrogen: /),
    ]);
    const balance = screen.getByRole('region', { name: 'Balance of the year' });
    // Compost’s first-year nitrogen comes off the need of 3.5 lb.
    expect(within(balance).getAllByRole('img')[0]!.getAttribute('aria-label')).toMatch(
      /3.6 lb\/1000 ft² of N; 3.5 lb\/1000 ft² wanted; 5 lb\/1000 ft² at most; Compost 0.65 lb\/1000 ft²; Urea/,
    );
    act(() => within(line).getAllByRole('button')[1]!.focus());
    await userEvent.keyboard('{Enter}');
    expect(document.activeElement?.id).toBe('treatment-lime');
  });

  it('say that months are not known where the place has no climate, and lead to where it is set', async () => {
    const { program, ...rest } = answer();
    serve(served({ ...rest, program: { ...program, year: null } }));
    show(<Rates {...props} />);
    expect(await screen.findByText(/Months are not known/)).toBeTruthy();
    expect(screen.queryByRole('group', { name: 'The year of this zone' })).toBeNull();
  });

  it('keep a product that was picked as a change with a reason, on top of what was decided before', async () => {
    const asked = serve({
      ...served(answer({ changes: [{ remedy: 'nitrogen', values: { times: 5 }, reason: 'little and often' }] })),
      'PUT /zones/z/program/treatments/nitrogen': { id: 'c0', version: 4, change: {} },
    });
    show(<Rates {...props} />);
    const person = userEvent.setup();
    await person.click(await screen.findByRole('combobox', { name: 'Product for nitrogen' }));
    await person.click(screen.getByRole('option', { name: /Pellets/ }));
    await waitFor(() => expect(asked.some(({ method }) => method === 'PUT')).toBe(true));
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({
      path: '/zones/z/program/treatments/nitrogen',
      body: { remedy: 'nitrogen', values: { times: 5, material: 'Pellets 5-4-0' }, reason: 'little and often' },
    });
  });

  it('are changed by hand with a reason, in the person’s units, and refused at the field', async () => {
    const asked = serve({
      ...served({ ...answer(), work: [{ name: 'Labour', per: 'hour' }] }),
      'PUT /zones/z/program/treatments/lime': { id: 'c', version: 1, change: {} },
    });
    show(<Rates {...props} />);
    const person = userEvent.setup();
    await person.click(await screen.findByRole('button', { name: 'Change lime by hand' }));
    const dialog = within(await screen.findByRole('dialog'));
    await person.type(dialog.getByLabelText('Rate'), '40');
    await person.click(dialog.getByRole('button', { name: 'March' }));
    await person.click(dialog.getByRole('button', { name: 'Add work' }));
    await person.type(dialog.getByLabelText('How much'), '1.5');
    await person.type(dialog.getByLabelText(/^Why/), 'Bags were left');
    await person.click(dialog.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(asked.some(({ method }) => method === 'PUT')).toBe(true));
    expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
      ...{
        remedy: 'lime',
        added: false,
        values: { rate: '40 lb/1000ft2' },
        months: [3],
        work: [{ name: 'Labour', amount: 1.5 }],
        reason: 'Bags were left',
        out: null,
      },
    });
  });

  it('show what was changed with its reason and what it stands for; what is left out fades', async () => {
    serve(
      served(
        answer({
          changes: [
            { remedy: 'lime', values: { rate: 2000 }, reason: 'The client has a heap' },
            { remedy: 'nitrogen', out: 'left out', reason: 'Clover' },
            { remedy: 'wetting', key: 'mine', added: true, reason: 'Beads in June' },
          ],
        }),
      ),
    );
    show(<Rates {...props} />);
    const lime = await row('Lime');
    expect(lime.textContent).toMatch(
      /By hand: The client has a heap \(100 lb\/1000 ft² of Calcitic lime by the test\)/,
    );
    expect(lime.textContent).toMatch(/410 lb\/1000 ft² was asked for; a year takes 2 applications of 50 lb/);
    const nitrogen = await row('Nitrogen');
    expect(nitrogen.textContent).toMatch(/left out by hand.*Clover/);
    expect(within(nitrogen).queryByRole('combobox')).toBeNull();
    expect((await row('Wetting agent')).textContent).toMatch(/Beads in June/);
  });

  it('say what works against what, and mend it at a touch', async () => {
    const asked = serve({
      ...served(
        answer({
          soil: { soilPh: 6.2, nutrients: { p: ppm(20), k: ppm(60) } },
          changes: [
            { remedy: 'compost', key: 'mine', added: true, values: { layer: 0.6 }, reason: 'for the worms' },
            { remedy: 'compost', key: 'more', added: true, values: { layer: 1 }, reason: 'a gift' },
          ],
        }),
      ),
      'PUT /zones/z/program/treatments/more': { id: 'c1', version: 4, change: {} },
    });
    show(<Rates {...props} />);
    const minded = await screen.findByRole('region', { name: 'To be minded' });
    expect(minded.textContent).toMatch(/of material on the surface in one year/);
    await userEvent.click(within(minded).getByRole('button', { name: /Put Compost off to next year/ }));
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'PUT')!.body).toMatchObject({ out: 'next year', added: true }),
    );
  });

  it('of ground without a test say so, and hold what was added by hand', async () => {
    serve(served(answer({ soil: null, changes: [{ remedy: 'wetting', key: 'mine', added: true }] })));
    show(<Rates {...props} />);
    expect(await screen.findByText('Court has no test yet')).toBeTruthy();
    expect((await row('Wetting agent')).textContent).toMatch(/1 can of 2.6 gal/);
    expect((await row('Also looked at')).textContent).toMatch(/Nitrogen follows the grass, not the test: 3.5 lb/);
  });

  it('stand against the usual year, each difference with its reason', async () => {
    const { program, ...rest } = answer();
    const differences = [{ name: 'Lime', usual: '50 lb/1000 ft², March', here: 'none', why: 'No lime here.' }];
    serve(served({ ...rest, program: { ...program, usual: { name: 'Four visits', differences } } }));
    show(<Rates {...props} />);
    const usual = await row('Against the usual year, “Four visits”');
    expect(within(usual).getByRole('listitem').textContent).toBe('Limenoneusually 50 lb/1000 ft², MarchNo lime here.');
  });

  it('tell what its owner has in hand, and what has changed since', async () => {
    const handedOver = {
      at: '2026-10-01T08:00:00Z',
      pdf: '/x.pdf',
      differences: ['Lime: 40 lb/1000 ft² instead of 60 lb/1000 ft².'],
    };
    serve(served({ ...answer(), handedOver }));
    show(<Rates {...props} />);
    expect(
      (await screen.findByRole('link', { name: /^Handed over on 1 Oct 2026/ })).parentElement!.textContent,
    ).toMatch(/Changed since.*instead of 60 lb/);
  });

  it('refuse a product that brings what is not wanted, with the remedy', async () => {
    serve(served(answer({ changes: [{ remedy: 'nitrogen', values: { material: 'Pellets 5-4-0' } }] })));
    show(<Rates {...props} />);
    const nitrogen = await row('Nitrogen');
    expect(nitrogen.textContent).toMatch(/refused/);
    expect(nitrogen.textContent).toMatch(
      /Pellets 5-4-0 brings phosphorus, which is not wanted here: choose a product without it/,
    );
  });

  it('are printed as a draft without a change on the server, and handed over only by hand', async () => {
    const asked = serve({
      ...served(answer()),
      'POST /sites/s/programs?units=us': { id: 'i', issuedAt: '', pdf: '/p.pdf', zones: 1 },
      '/sites/s/programs/ahead?units=us&zone=z': {
        ...{ seal: 'as-seen', zones: [{ zoneId: 'z', name: 'Court', at: null, differences: [] }], without: [] },
        jobs: [{ kind: 'gone', name: 'Lime, Court', zoneId: 'z', zone: 'Court', amount: '50 lb', was: null, day: '2027-05-04', from: null, decided: ['on hold: it stands in water'] }], // prettier-ignore
      },
    });
    show(<Rates {...props} />);
    const draft = await screen.findByRole('link', { name: 'Print a draft (PDF)' });
    expect(draft.getAttribute('href')).toBe('/api/zones/z/program.pdf?units=us');
    expect(asked.every(({ method }) => method === 'GET')).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: /Hand the program over/ }));
    expect((await screen.findByRole('region', { name: 'Jobs that go' })).textContent).toMatch(/Lime, Court: Tue 4 May 2027; 50 lb; on hold: it stands in water/); // prettier-ignore
    expect(asked.every(({ method }) => method === 'GET')).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Hand over' }));
    expect((await screen.findByRole('link', { name: 'Open the PDF' })).getAttribute('href')).toBe('/p.pdf');
    expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({ seal: 'as-seen', zoneIds: ['z'] });
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
    serve(served(answer({ zone: { signs: ['puddles'] } })));
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
    act(() => screen.getByRole('button', { name: /^Urea 46-0-0 for the zone/ }).focus());
    act(openWorkingByKey);
    expect((await screen.findByRole('dialog')).textContent).toMatch(/Urea 46-0-0 for the zone/);
  });
});
