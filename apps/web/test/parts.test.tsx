import { withReadableDays } from '@glenfold/contract';
import { jest } from '@jest/globals';
import { type AuditEntryAnswer, siteInput } from '@glenfold/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Suspense, useState } from 'react';
import { useRemove, useSaveSite } from '../src/api/changes.ts';
import { Spoken } from '../src/frame/Spoken.tsx';
import { SiteHead } from '../src/frame/SiteHead.tsx';
import { useKeys } from '../src/frame/keyboard.ts';
import { Changes } from '../src/features/practice/Changes.tsx';
import { SoilHistory } from '../src/features/ground/facts/SoilHistory.tsx';
import { Boundary } from '../src/ui/Boundary.tsx';
import { QuantityField } from '../src/ui/QuantityField.tsx';
import { deferred } from '../src/ui/deferred.tsx';
import { inUnits } from '../src/ui/inUnits.ts';
import { dayOf } from '../src/ui/today.ts';
import { useFollowOwnUnits, useOwnUnits } from '../src/ui/ownUnits.ts';
import { SessionProvider, useSession } from '../src/ui/session.tsx';
import { useUnits } from '../src/ui/units.tsx';
import { orBroken } from '../src/ui/worker.ts';
import { changesOf, problem, serve, show } from './page.tsx';
import { site, zoneWith } from './scene.ts';

/** React tells of faults that a boundary catches; here they are meant. */
const quiet = jest.spyOn(console, 'error');
beforeEach(() => void quiet.mockImplementation(() => undefined));
afterEach(() => void quiet.mockReset());

it('a save that arrives is told to whoever listens, each time, and one that is refused is not', async () => {
  let tries = 0;
  serve({ 'PUT /sites/s': () => ((tries += 1) === 2 ? problem(422, { detail: 'No.', errors: [] }) : { ...site, version: tries }), 'DELETE /sites/s': null });
  function Page() {
    const [save, remove] = [useSaveSite(), useRemove()];
    return (
      <>
        <button onClick={() => save.mutate({ seen: site, input: siteInput(site) })}>Save</button>
        <button onClick={() => remove.mutate('/sites/s')}>Delete</button>
        <Spoken />
      </>
    );
  }
  const { container } = show(<Page />);
  const live = container.querySelector('[aria-live="polite"]')!;
  const said: string[] = [];
  new MutationObserver((changes) => said.push(...changes.flatMap(({ addedNodes }) => [...addedNodes].map(({ textContent }) => textContent ?? '')))).observe(live, { childList: true });
  for (const [name, turn] of [['Save', 1], ['Save', 2], ['Save', 3], ['Delete', 3]] as const) {
    await userEvent.click(screen.getByRole('button', { name }));
    await waitFor(() => expect(tries).toBe(turn));
  }
  await waitFor(() => expect(said).toEqual(['Saved.', 'Saved.', 'Deleted.']));
}); // prettier-ignore

describe('a part that breaks', () => {
  it('says that a newer version is there when its code is gone, and leaves what is typed beside it', async () => {
    const Gone = deferred<object>(() =>
      Promise.reject(new TypeError('Failed to fetch dynamically imported module: /assets/panel-1a2b.js')),
    );
    function Page() {
      const [open, setOpen] = useState(false);
      return (
        <>
          <textarea aria-label="Note" />
          <button onClick={() => setOpen(true)}>Open</button>
          <Suspense fallback="…">{open && <Gone />}</Suspense>
        </>
      );
    }
    show(<Page />);
    await userEvent.type(screen.getByLabelText('Note'), 'half a sentence');
    await userEvent.click(screen.getByRole('button', { name: 'Open' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/A newer version is there.*save it first/);
    expect(screen.getByRole('button', { name: 'Load the new version' })).toBeTruthy();
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('half a sentence');
  });

  it('is tried again in its place after a fault of its own', async () => {
    let broken = true;
    function Panel() {
      if (broken) throw new Error('no such thing');
      return <p>All is well.</p>;
    }
    show(
      <Boundary what="this panel">
        <Panel />
      </Boundary>,
    );
    expect(screen.getByRole('alert').textContent).toMatch(/Something broke in this panel/);
    broken = false;
    await userEvent.click(screen.getByRole('button', { name: 'Try again here' }));
    expect(screen.getByText('All is well.')).toBeTruthy();
  });

  it('in the background rejects with words instead of waiting for ever', async () => {
    const worker = new EventTarget() as unknown as Worker;
    const answer = orBroken(worker, new Promise<string>(() => undefined));
    worker.dispatchEvent(new Event('error'));
    await expect(answer).rejects.toThrow(/work in the background stopped/);
    await expect(orBroken(new EventTarget() as unknown as Worker, Promise.resolve('done'))).resolves.toBe('done');
  });
});

describe('a number field', () => {
  function Field({
    start,
    sense = 'limeRate',
  }: {
    readonly start: number | null;
    readonly sense?: 'limeRate' | 'depth' | 'area' | 'volume';
  }) {
    const [value, setValue] = useState<number | string | null>(start);
    const problem = sense === 'area' ? 'Area must be 1 to 1,000,000 m². Measure it.' : undefined;
    return (
      <>
        <QuantityField
          label="Amount"
          sense={sense}
          density={1.55}
          value={value}
          onChange={setValue}
          problem={problem}
        />
        <output>{JSON.stringify(value)}</output>
      </>
    );
  }

  it('takes the unit that was typed, and tells both', async () => {
    show(<Field start={null} />);
    await userEvent.type(screen.getByLabelText('Amount'), '200 g/m2');
    expect(Number(screen.getByRole('status').textContent)).toBeCloseTo(200, 9);
    expect(screen.getByText('41 lb/1000 ft² = 200 g/m²')).toBeTruthy();
  });

  it('takes the weight of what comes by volume, by its density', async () => {
    show(<Field start={null} sense="volume" />);
    await userEvent.type(screen.getByLabelText('Amount'), '800 lb');
    // 362.87 kg at 1.55.
    expect(Number(screen.getByRole('status').textContent)).toBeCloseTo(0.23411, 5);
  });

  it('keeps what it cannot read, to be corrected', async () => {
    show(<Field start={null} />);
    await userEvent.type(screen.getByLabelText('Amount'), 'a shovel');
    expect(screen.getByRole('status').textContent).toBe('"a shovel"');
  });

  it.each([
    ['depth', 1.2, '0.47'],
    ['area', 758.1, '8160'],
    ['area', 20, '215.3'],
    ['spotHeight', 31.206, '102.38'],
    ['money', 1234.5, '1234.5'],
  ] as const)('shows no more figures than a hand can use: %s of %d is %s', (sense, value, shown) => {
    show(<QuantityField label="Amount" sense={sense} value={value} onChange={() => undefined} />);
    expect(screen.getByLabelText<HTMLInputElement>('Amount').value).toBe(shown);
  });

  it('shows a depth of 15 cm as a tape has it, 6 in', () => {
    show(<Field start={15} sense="depth" />);
    expect(screen.getByLabelText<HTMLInputElement>('Amount').value).toBe('6');
  });

  it('tells areas in refusals in the person’s own unit', () => {
    show(<Field start={0} sense="area" />);
    expect(screen.getByText('Area must be 10.8 to 10,763,910 ft². Measure it.')).toBeTruthy();
  });
});

it.each([
  ['North would be left with 0.5 m² to treat: move it.', 'North would be left with 5.4 ft² to treat: move it.'],
  ['1 to 1,000 m² is wanted, not 2,000 m².', '10.8 to 10,760 ft² is wanted, not 21,530 ft².'],
  ['Some m² are missing.', 'Some m² are missing.'],
  ['Layer 1, depth is 12 cm: give 0 to 10 cm.', 'Layer 1, depth is 4.7 in: give 0 to 4 in.'],
  ['At most 10000 g/m2, from -10 to 40 °C.', 'At most 2,050 lb/1000 ft², from 14 to 104 °F.'],
])('%s', (metric, us) => {
  expect(inUnits(metric, 'us')).toBe(us);
  expect(inUnits(metric, 'metric')).toBe(metric);
});

it('a day is that of the place, whatever the hour', () => {
  expect(dayOf(new Date(2026, 9, 14, 0, 5))).toBe('2026-10-14');
  expect(dayOf(new Date(2026, 9, 14, 23, 55))).toBe('2026-10-14');
});

describe('the record of changes', () => {
  const entry = (more: Partial<AuditEntryAnswer>): AuditEntryAnswer => ({
    id: Math.floor(Number(more.recordId ?? 1)).toString(),
    at: '2026-10-14T09:05:00Z',
    by: 'Wynn',
    action: 'add',
    kind: 'bag',
    recordId: '1',
    recordName: 'routine',
    before: null,
    after: null,
    ...more,
  });

  it('calls a bag by its code, and moments by the person’s clock', async () => {
    serve({
      '/audit': {
        entries: [
          entry({ recordId: '1', after: { purpose: 'routine' } }),
          entry({
            recordId: '2',
            kind: 'bag custody',
            recordName: '',
            after: { bagId: '1', state: 'sent', since: '2026-10-14T09:05:00.000Z' },
          }),
        ],
        names: { 1: 'K7M' },
        next: null,
      },
    });
    show(<Changes />);
    const rows = await screen.findAllByRole('listitem');
    await waitFor(() => expect(rows[0]!.textContent).toMatch(/Wynn added bag K7M/));
    expect(rows[0]!.textContent).not.toMatch(/routine/);
    expect(rows[1]!.textContent).toMatch(/where a bag is, K7M/);
    await userEvent.click(screen.getAllByRole('button', { name: 'All of it' })[1]!);
    const at = new Date('2026-10-14T09:05:00Z');
    const clock = `${withReadableDays(dayOf(at))} ${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
    expect(rows[1]!.textContent).toContain(clock);
    expect(rows[1]!.textContent).not.toMatch(/T09:05/);
  });
});

it('what was put down before stands beside the soil, and lime without an amount says that nothing counts it', () => {
  const applied = [
    { kind: 'lime', on: '2026-04', words: 'a few bags', rate: null },
    { kind: 'lime', on: '2026-05', words: 'pelletised', rate: 195.3, cce: 95 },
  ];
  show(<SoilHistory zone={zoneWith({ applied: applied as never })} />);
  const [counted, unknown] = screen.getAllByRole('listitem').map(({ textContent }) => textContent);
  expect(unknown).toMatch(/Apr 2026a few bags: no amount, so the lime rate does not count it/);
  expect(counted).toMatch(/40 lb\/1000 ft² at 95 % CCE$/);
  expect(screen.getByRole('link', { name: /in the logbook/ }).getAttribute('href')).toBe('/sites/s/logbook');
});

it('the head of a site keeps all it can do in a menu of its own', async () => {
  const did: string[] = [];
  show(
    <SiteHead
      site={{ id: 's', version: 1, name: 'Gannet Row', place: 'by the sea' }}
      onChange={() => did.push('change')}
      onShare={undefined}
    />,
  );
  await userEvent.click(screen.getByRole('button', { name: 'More of Gannet Row' }));
  expect(screen.queryByRole('menuitem', { name: 'Share the report' })).toBeNull();
  await userEvent.click(screen.getByRole('menuitem', { name: 'Change the site' }));
  expect(did).toEqual(['change']);
});

it('units that were chosen as the page was left hold on the next one, and are sent again, once', async () => {
  let reached = false;
  const asked = serve({ 'PUT /session/personal': () => (reached ? null : new Error('left')) });
  function Choice() {
    useFollowOwnUnits();
    const choose = useOwnUnits();
    return <button onClick={() => choose('us')}>{useUnits().system}</button>;
  }
  /** The server has heard of nothing but the choice before. */
  function Page() {
    const session = useSession();
    return (
      <SessionProvider value={{ ...session, person: { ...session.person!, units: 'metric' } }}>
        <Choice />
      </SessionProvider>
    );
  }
  const first = show(<Page />);
  await userEvent.click(await screen.findByRole('button', { name: 'metric' }));
  await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
  first.unmount();
  reached = true;
  const second = show(<Page />);
  await screen.findByRole('button', { name: 'us' });
  await waitFor(() => expect(changesOf(asked).map(({ body }) => body)).toEqual([{ units: 'us' }, { units: 'us' }]));
  second.unmount();
  show(<Page />);
  await screen.findByRole('button', { name: 'metric' });
  expect(changesOf(asked)).toHaveLength(2);
});

it('a digit alone leads nowhere; after the key before it, it does, unless that was typed into a field', async () => {
  serve({});
  const gone: string[] = [];
  const actions = { 'g 4': () => void gone.push('4'), w: () => void gone.push('w') };
  function Page() {
    useKeys(actions);
    return <input aria-label="Rate" />;
  }
  show(<Page />);
  await userEvent.keyboard('3.24');
  expect(gone).toEqual([]);
  await userEvent.keyboard('g4w');
  expect(gone).toEqual(['4', 'w']);
  await userEvent.type(screen.getByLabelText('Rate'), 'g');
  screen.getByLabelText('Rate').blur();
  await userEvent.keyboard('4');
  expect(gone).toEqual(['4', 'w']);
});
