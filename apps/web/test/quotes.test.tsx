import type { QuoteAnswer, QuoteWord } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { SiteQuote } from '../src/features/rates/Quote.tsx';
import { Offered } from '../src/features/report/Offered.tsx';
import { changesOf, problem, serve, show } from './page.tsx';

const line = (id: string, name: string, price: number | null, answer: QuoteWord | null = null) => ({
  ...{ id, zone: 'Court', name, words: 'Compacted.', amount: '', when: 'August 2027', caution: null, price, answer },
  ...{ priceOpen: price === null, ceiling: null },
});
const quote = (more: Partial<QuoteAnswer> = {}): QuoteAnswer => ({
  ...{ id: 'q', version: 1, state: 'open', offeredAt: '2026-11-20T10:00:00Z', validUntil: '2026-12-20', note: null },
  ...{
    currency: '$',
    visits: 28,
    total: 167.68,
    unpriced: 1,
    accepted: null,
    ceilings: null,
    open: true,
    pdf: '/api/quotes/q/quote.pdf',
  },
  ...{ answeredBy: null, answeredAt: null, answerWords: null },
  lines: [line('a', 'Coring', null), line('b', 'Lime', 139.68)],
  ...more,
});

describe('a quote that an owner reads', () => {
  const read = (given: QuoteAnswer, answer: unknown = given) => {
    const asked = serve({ 'POST /sites/s/report/quotes/q/answers': answer });
    show(<Offered under="/sites/s/report" quote={given} by="Hetty Coppice" />);
    return asked;
  };

  it('is answered line by line; what has no price is told to have none', async () => {
    const asked = read(quote());
    const coring = screen.getByRole('listitem', { name: 'Coring, Court' });
    expect(coring.textContent).toMatch(/price open/);
    expect(screen.getByText(/What has a price/).textContent).toBe(
      'What has a price $167.68; one line has none yet: ask before you say yes, with $28.00 of visits whatever is accepted.',
    );
    await userEvent.click(within(coring).getByRole('button', { name: 'no' }));
    await userEvent.click(
      within(screen.getByRole('listitem', { name: 'Lime, Court' })).getByRole('button', { name: 'yes' }),
    );
    expect(screen.getByRole('status').textContent).toBe('2 of 2 answered, not sent yet.');
    await userEvent.type(screen.getByLabelText('Words to the practice'), 'Coring next year');
    await userEvent.click(screen.getByRole('button', { name: 'Send the answer' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toEqual({
      lines: [
        { id: 'a', answer: 'declined' },
        { id: 'b', answer: 'accepted' },
      ],
      by: 'Hetty Coppice',
      words: 'Coring next year',
      version: 1,
    });
  });

  it('takes yes to all that has a price; what has none wants an amount that it may cost at most', async () => {
    const asked = read(quote());
    await userEvent.click(screen.getByRole('button', { name: 'Yes to all that has a price' }));
    expect(screen.getByRole('status').textContent).toMatch(/1 of 2 answered/);
    await userEvent.click(screen.getAllByRole('button', { name: 'yes' })[0]!);
    await userEvent.type(screen.getByLabelText('Yes, up to ($)'), '$1,080');
    await userEvent.click(screen.getByRole('button', { name: 'Send the answer' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect((changesOf(asked)[0]!.body as { lines: object[] }).lines).toEqual([
      { id: 'b', answer: 'accepted' },
      { id: 'a', answer: 'accepted', ceiling: 1080 },
    ]);
  });

  it('takes yes to all at once, and tells at its field what is missing', async () => {
    read(
      quote(),
      problem(422, {
        title: 'Some values cannot be taken',
        errors: [{ field: 'by', message: 'Write the name of whoever decides.' }],
      }),
    );
    await userEvent.clear(screen.getByLabelText(/Who decides/));
    await userEvent.click(screen.getByRole('button', { name: 'Yes to all that has a price' }));
    await userEvent.click(screen.getByRole('button', { name: 'Send the answer' }));
    expect(await screen.findByText('Write the name of whoever decides.')).toBeTruthy();
    // Nothing of it is lost.
    expect(screen.getByRole('status').textContent).toBe('1 of 2 answered, not sent yet.');
  });

  it.each([
    ['expired', /Its days are over/],
    ['taken over', /work is being planned/],
  ] as const)('can only be read once it is %s', (state, words) => {
    read(quote({ state, open: false, lines: [line('b', 'Lime', 139.68, 'accepted')] }));
    expect(screen.getByText(words)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Send the answer' })).toBeNull();
    expect(screen.getByRole('listitem', { name: 'Lime, Court' }).textContent).toMatch(/accepted$/);
  });
});

describe('a quote of a site', () => {
  it('says what was answered, and leaves out of the program what was declined', async () => {
    const answered = quote({
      state: 'answered',
      answeredBy: 'Hetty Coppice',
      answerWords: 'Coring next year',
      lines: [line('a', 'Coring', null, 'declined'), line('b', 'Lime', 139.68, 'accepted')],
    });
    const asked = serve({ '/sites/s/quote': { quote: answered }, 'POST /quotes/q/taken-over': answered });
    show(<SiteQuote siteId="s" />);
    const stands = await screen.findByRole('region', { name: 'The quote' });
    expect(stands.textContent).toMatch(/is answered.*Hetty Coppice: 1 yes, 1 no\. “Coring next year”/);
    await userEvent.click(screen.getByRole('button', { name: 'Leave out what was declined (1)' }));
    await waitFor(() => expect(changesOf(asked).map(({ path }) => path)).toEqual(['/quotes/q/taken-over']));
  });

  it('is written down for an owner who says it on the phone, and is nothing where none was offered', async () => {
    const asked = serve({ '/sites/s/quote': { quote: quote() }, 'POST /quotes/q/answers': quote() });
    show(<SiteQuote siteId="s" />);
    await userEvent.click(await screen.findByRole('button', { name: 'Write down the answers' }));
    await userEvent.type(screen.getByLabelText(/Who decides/), 'Jory Pell');
    await userEvent.click(screen.getAllByRole('button', { name: 'yes' })[1]!);
    await userEvent.click(screen.getByRole('button', { name: 'Keep the answers' }));
    await waitFor(() =>
      expect(changesOf(asked)[0]).toMatchObject({
        body: { by: 'Jory Pell', lines: [{ id: 'b', answer: 'accepted' }] },
      }),
    );
  });
});
