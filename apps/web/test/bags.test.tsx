import type { BagAnswer, BagState } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { BagList } from '../src/features/sampling/bags/BagList.tsx';
import { Board } from '../src/features/sampling/bags/Board.tsx';
import { changesOf, serve, show } from './page.tsx';
import { bagWith, coresWith, laboratory, site, zoneWith } from './scene.ts';

const [lawn, court] = [zoneWith(), zoneWith({ id: 'c', name: 'Court' })];
const listed = (): string[] =>
  within(screen.getByRole('list', { name: 'Bags' }))
    .getAllByRole('checkbox')
    .map((box) => box.getAttribute('aria-label')!.replace('Choose bag ', ''));
const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));

describe('the bags of all sites', () => {
  const bag = (code: string, state: BagState, days: number, overdue: number, more: Partial<BagAnswer> = {}) =>
    bagWith({ id: code, code, state, days, overdue, ...more });
  // In the server's order: what is longest overdue first.
  const [late, cored, drying, planned, reported] = [
    bag('BBBBB3', 'at the lab', 30, 16, { laboratory: laboratory.name }),
    bag('EEEEE6', 'cored', 9, 7),
    bag('AAAAA2', 'drying', 3, 0),
    bag('CCCCC4', 'planned', 1, 0, { plannedFor: '2026-10-20', cored: 4 }),
    bag('FFFFF7', 'reported', 1, 0),
  ] as const;
  const counts = [late, cored, drying, planned, reported].map(({ state, laboratory: at }) => ({
    ...{ state, laboratory: at, count: 1 },
  }));
  const board = (bags: readonly BagAnswer[], next: string | null = null) => ({
    bags,
    counts: [...counts, { state: 'read', laboratory: null, count: 90 }],
    next,
  });
  const open = (more = {}, role: 'advisor' | 'client' = 'advisor') => {
    const asked = serve({
      '/bags': board([late, cored, drying, planned, reported]),
      '/bags?state=read': board([bag('DDDDD5', 'read', 90, 0)], 'on'),
      '/bags?state=read&after=on': board([bag('GGGGG8', 'read', 91, 0)]),
      '/bags?state=sent': board([]),
      '/laboratories': [laboratory],
      ...more,
    });
    show(<Board />, { role });
    return asked;
  };

  it('stand with those first that have waited too long, and say by how much', async () => {
    open();
    await screen.findByRole('list', { name: 'Bags' });
    expect(listed()).toEqual(['BBB-BB3', 'EEE-EE6', 'AAA-AA2', 'CCC-CC4', 'FFF-FF7']);
    expect(screen.getAllByRole('listitem')[0]!.textContent).toContain(', 16 over');
    expect(screen.getByText('for 2026-10-20')).toBeTruthy();
    expect(screen.getByText('4 of 15 cores')).toBeTruthy();
  });

  it('are shown by where they are, what is done as well', async () => {
    open();
    await screen.findByRole('list', { name: 'Bags' });
    const group = screen.getByRole('group', { name: 'Where they are' });
    await userEvent.click(within(group).getByRole('button', { name: /^90\s*Read/ }));
    await waitFor(() => expect(listed()).toEqual(['DDD-DD5']));
    await press('More bags');
    await waitFor(() => expect(listed()).toEqual(['DDD-DD5', 'GGG-GG8']));
    await userEvent.click(within(group).getByRole('button', { name: /^0\s*Sent/ }));
    expect(await screen.findByText('No bag stands there now.')).toBeTruthy();
  });

  it('go on by one press, and only as their state allows', async () => {
    const asked = open({ 'POST /bags/custody': [] });
    await screen.findByRole('list', { name: 'Bags' });
    const row = (code: string): HTMLElement => screen.getByText(code).closest('li')!;
    // One that a laboratory tells of itself is waited for; a report is read.
    await waitFor(() => expect(within(row('BBB-BB3')).queryByRole('button', { name: /report/i })).toBeNull());
    expect(within(row('FFF-FF7')).getByRole('link', { name: 'Read the report' }).getAttribute('href')).toBe(
      '/sites/s/lab',
    );
    expect(within(row('CCC-CC4')).getByRole('link', { name: 'Walk' }).getAttribute('href')).toBe('/walk/s');
    await userEvent.click(within(row('EEE-EE6')).getByRole('button', { name: /dry/i }));
    await waitFor(() => expect(changesOf(asked)[0]!.body).toEqual({ bagIds: ['EEEEE6'], state: 'drying' }));
    // A slip of the finger goes back one step.
    await press('More about bag AAA-AA2');
    await userEvent.click(screen.getByRole('menuitem', { name: /^Back to/ }));
    await waitFor(() => expect(changesOf(asked)[1]!.body).toEqual({ bagIds: ['AAAAA2'], state: 'cored' }));
  });

  it('are found by their codes, one after the other, and told when scanned twice', async () => {
    const asked = open({
      '/bags/by-code/EEE-EE6': cored,
      '/bags/by-code/EEEEE6': cored,
      '/bags/by-code/AAAAA2': drying,
    });
    const field = await screen.findByLabelText('Scan or type a bag’s code');
    await userEvent.type(field, 'EEE-EE6{Enter}');
    await waitFor(() =>
      expect(screen.getByRole('status', { name: 'Found' }).textContent).toBe('Bag EEE-EE6 is found.'),
    );
    await userEvent.type(field, 'AAAAA2{Enter}');
    await waitFor(() => expect(listed()).toEqual(['EEE-EE6', 'AAA-AA2']));
    await userEvent.type(field, 'EEE-EE6{Enter}');
    await waitFor(() => expect(screen.getByRole('status', { name: 'Found' }).textContent).toMatch(/scanned twice/));
    expect(listed()).toHaveLength(2);
    expect(screen.getByRole('checkbox', { name: 'Choose bag EEE-EE6' })).toHaveProperty('checked', true);
    await press('Show all bags');
    expect(listed()).toHaveLength(5);
    expect(changesOf(asked)).toEqual([]);
  });

  it('that nobody knows are told in words, and the code stays to be corrected', async () => {
    open({ '/bags/by-code/ZZZ': 404 });
    const field = await screen.findByLabelText('Scan or type a bag’s code');
    await userEvent.type(field, 'ZZZ{Enter}');
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 404.');
    expect(field).toHaveProperty('value', 'ZZZ');
  });

  it('are not moved by those who only read', async () => {
    open({}, 'client');
    await screen.findByRole('list', { name: 'Bags' });
    expect(screen.queryByRole('button', { name: /More about bag/ })).toBeNull();
    expect(screen.queryByRole('link', { name: 'Walk' })).toBeNull();
  });
});

describe('a bag with its cores and its history', () => {
  const stopped = { state: 'cored', pushed: 6, recovered: 6 } as const;
  const filled = bagWith({
    state: 'drying',
    cored: 5,
    places: coresWith(
      { state: 'cored', pushed: 10.16, recovered: 10.16, moisture: 'crumbles', by: 'Wynn Sands' },
      stopped,
      { ...stopped, pushed: 6.4, recovered: 6.4 },
      { ...stopped, pushed: 5.8, recovered: 5.8, note: 'stone' },
      { state: 'skipped', reason: 'root' },
      { state: 'cored', pushed: 10.16, recovered: 5 },
    ),
    custody: [{ state: 'drying', at: '2026-10-14T09:30:00Z', by: 'Wynn Sands', note: 'in the barn' }],
  });
  const open = async (bag: BagAnswer, more = {}, others: readonly BagAnswer[] = []) => {
    const asked = serve({ '/laboratories': [laboratory], ...more });
    show(<BagList site={site} zones={[lawn, court]} bags={[bag, ...others]} onPlan={() => undefined} />, {
      units: 'metric',
    });
    await userEvent.click(screen.getAllByRole('button', { name: 'Cores and history' })[0]!);
    return asked;
  };

  it('tells of each core what happened to it', async () => {
    await open(filled);
    const rows = screen
      .getAllByRole('row')
      .slice(1)
      .map(({ textContent }) => textContent);
    expect(rows[0]).toMatch(/^1.*10 cm.*whole, crumbles, Wynn Sands$/);
    expect(rows[3]).toMatch(/the push stopped, stone/);
    expect(rows[4]).toBe('5––left out: root');
    expect(rows[5]).toMatch(/short: jammed or pressed$/);
    expect(within(screen.getByRole('list', { name: /History/ })).getByRole('listitem').textContent).toContain(
      '2026-10-14, Wynn Sands: in the barn',
    );
  });

  it('calls three stopped pushes compaction, and keeps the depth with the zone by one press', async () => {
    const asked = await open(filled, { 'PUT /zones/z/measurements': lawn });
    expect(screen.getByText(/Three or more pushes stopped, at about 6 cm/)).toBeTruthy();
    await press('Keep it with Back lawn');
    await waitFor(() => expect(changesOf(asked)[0]).toMatchObject({ version: '4', body: { probeStop: 6 } }));
  });

  it('does not call two of them that', async () => {
    await open({ ...filled, places: filled.places.filter(({ number }) => number !== 3) });
    expect(screen.queryByText(/compaction/)).toBeNull();
  });

  it('keeps the laboratory’s own number, and says when another bag has it', async () => {
    const asked = await open(filled, { 'PUT /bags/b1/lab-number': 409 });
    const keep = screen.getByRole('button', { name: 'Keep' });
    expect(keep).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByLabelText('The laboratory’s number or barcode'), 'TW-1204');
    await userEvent.click(keep);
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 409.');
    expect(changesOf(asked)[0]!.body).toEqual({ labNumber: 'TW-1204' });
    expect(screen.getByLabelText('The laboratory’s number or barcode')).toHaveProperty('value', 'TW-1204');
  });

  it('is taken again where it was lost, and tells which it stands for', async () => {
    const lost = bagWith({ id: 'old', code: 'AAAAA2', state: 'lost' });
    const asked = await open(bagWith({ insteadOf: 'old', grassWanted: 'tall fescue' }), {}, [lost]);
    expect(screen.getByText(/To grow: tall fescue\. In place of bag AAA-AA2, which was lost\./)).toBeTruthy();
    await press('Take again');
    await waitFor(() => expect(changesOf(asked)[0]!.path).toMatch(/old/));
  });

  it('shows how near it came only once a simulated laboratory has reported', async () => {
    const soil = {
      cores: 15,
      fault: null,
      values: [
        { analyte: 'pH', unit: '', soil: 5.6, bag: 5.4 },
        { analyte: 'P', unit: 'mg/kg', soil: 20, bag: 25 },
      ],
    };
    const asked = await open(filled, { '/bags/b1/hidden-soil': soil });
    expect(asked.some(({ path }) => path.endsWith('hidden-soil'))).toBe(false);
    document.body.innerHTML = '';
    await open({ ...filled, state: 'reported' }, { '/bags/b1/hidden-soil': soil });
    const told = await screen.findByRole('region', { name: 'The soil behind the numbers' });
    expect(
      within(told)
        .getAllByRole('row')
        .map(({ textContent }) => textContent),
    ).toEqual(['zonebagoff by', 'pH5.65.4−0.2', 'P, mg/kg2025+25 %']);
  });

  it('is planned first where there is none', async () => {
    let planned = 0;
    serve({});
    show(<BagList site={site} zones={[lawn]} bags={[]} onPlan={() => (planned += 1)} />);
    await press('Plan the cores');
    expect(planned).toBe(1);
  });
});
