import 'fake-indexeddb/auto';
import type { BagAnswer, CoreTapInput } from '@glenfold/contract';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { WalkPage } from '../src/features/sampling/walk/WalkPage.tsx';
import { type Asked, serve, show } from './page.tsx';
import { bagWith, coresWith, plane, zoneWith } from './scene.ts';

const signedIn = { state: 'signed in', csrf: 't', person: { id: 'p', name: 'Wynn Sands' }, practice: { id: 'b' } };
const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));

/** A site of its own for each test, since what is taken along stays on the device. */
let walked = 0;
function walk(answer: (taps: readonly CoreTapInput[]) => unknown, more: Partial<BagAnswer> = {}) {
  const siteId = `walk-${(walked += 1)}`;
  const place = [...plane.toMap([10, 10])] as [number, number];
  const bag = bagWith({
    id: `bag-${siteId}`,
    siteId,
    cores: 3,
    places: coresWith({ place }, { place }, { place }).map((core) => ({ ...core, id: `${siteId} ${core.number}` })),
    ...more,
  });
  const taps: CoreTapInput[] = [];
  const asked = serve({
    '/session': signedIn,
    [`/sites/${siteId}`]: { id: siteId, name: 'Gannet Row' },
    [`/sites/${siteId}/zones`]: [zoneWith()],
    [`/sites/${siteId}/drawing`]: { features: [], underlay: null },
    [`/sites/${siteId}/bags`]: [bag],
    '/walks': [{ siteId, siteName: 'Gannet Row', bags: 1 }],
    'POST /core-taps': ({ body }: Asked) => {
      const { taps: sent } = body as { taps: CoreTapInput[] };
      const told = answer(sent);
      if (!(told instanceof Error)) taps.push(...sent);
      return told;
    },
  });
  const open = (at = `/walk/${siteId}`) =>
    show(
      <Routes>
        <Route path="/walk/:siteId" element={<WalkPage />} />
      </Routes>,
      { at, units: 'metric' },
    );
  return { siteId, asked, taps, open };
}
const taken = (taps: readonly CoreTapInput[]) => ({
  taps: taps.map(({ id }) => ({ id, outcome: 'taken', words: null })),
  clockAhead: 0,
});
/** Past what is checked before the first core. */
async function begin(): Promise<void> {
  await screen.findByRole('heading', { name: 'Before the first core' });
  for (const box of screen.getAllByRole('checkbox')) fireEvent.click(box);
  await press('Walk 3 cores');
}
const sending = (): string | null => screen.getByRole('status', { name: 'Sending' }).textContent;

beforeEach(() => localStorage.clear());

describe('a walk', () => {
  it('begins only when bucket, buried lines, soil and depth are looked at', async () => {
    walk(taken).open();
    await screen.findByRole('heading', { name: 'Before the first core' });
    const boxes = screen.getAllByRole('checkbox');
    for (const [index, box] of boxes.entries()) {
      const start = screen.getByRole('button', { name: `${boxes.length - index} still to check` });
      expect(start).toHaveProperty('disabled', true);
      fireEvent.click(box);
    }
    expect(screen.getByText(/Buried lines and irrigation are marked/)).toBeTruthy();
    await press('Walk 3 cores');
    expect(screen.getByText('Core 1 of 3')).toBeTruthy();
  });

  it('sends each core as it was: how deep, how long, how moist, with what was noted', async () => {
    const { taps, open } = walk(taken);
    open();
    await begin();
    await press('Pushed to: more');
    await press('crumbles');
    await press('Note');
    await userEvent.type(within(screen.getByRole('dialog')).getByLabelText('Note'), 'worms');
    await press('Keep');
    await press('Cored');
    await screen.findByText('Core 2 of 3');
    await waitFor(() => expect(taps).toHaveLength(1));
    expect(taps[0]).toMatchObject({ state: 'cored', pushed: 11, recovered: 11, moisture: 'crumbles', note: 'worms' });
    // The next begins with the depth that is wanted, and without the note.
    expect(within(screen.getByRole('group', { name: 'Pushed to' })).getByText('10 cm')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Note' })).toBeTruthy();
    await waitFor(() => expect(sending()).toBe('all sent'));
  });

  it('says of a push that stopped what it means, on the spot', async () => {
    const { open } = walk(taken);
    open();
    await begin();
    expect(screen.queryByText(/stopped/)).toBeNull();
    for (let step = 0; step < 4; step += 1) await press('Pushed to: less');
    expect(screen.getByText(/stop/i).textContent).toMatch(/compact|stone|again/i);
  });

  it('leaves a core out only for a reason, and takes back the last touch', async () => {
    const { taps, open, siteId } = walk(taken);
    open();
    await begin();
    expect(screen.getByRole('button', { name: 'Undo' })).toHaveProperty('disabled', true);
    await press('Skip');
    await userEvent.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'root' }));
    await screen.findByText('Core 2 of 3');
    await press('Undo');
    await screen.findByText('Core 1 of 3');
    await waitFor(() => expect(taps.map(({ state }) => state)).toEqual(['skipped', 'waiting']));
    expect(taps.map(({ coreId, reason }) => [coreId, reason ?? null])).toEqual([
      [`${siteId} 1`, 'root'],
      [`${siteId} 1`, null],
    ]);
  });

  it('goes on without a connection, keeps every touch, and sends them all when it is back', async () => {
    let away = true;
    const { taps, open } = walk((sent) => (away ? new TypeError('fetch failed') : taken(sent)));
    const { unmount } = open();
    await begin();
    // Each once the one before stands: a second tap on the same core is no second core.
    for (const next of ['Core 2 of 3', 'Core 3 of 3']) {
      await press('Cored');
      await screen.findByText(next);
    }
    await waitFor(() => expect(sending()).toBe('2 kept here'));
    expect(await screen.findByText(/No connection: every tap is kept on this device/)).toBeTruthy();
    // The page is closed and opened again: what was touched still stands.
    unmount();
    open();
    expect(await screen.findByText('Core 3 of 3')).toBeTruthy();
    away = false;
    window.dispatchEvent(new Event('online'));
    await waitFor(() => expect(sending()).toBe('all sent'));
    expect(new Set(taps.map(({ id }) => id)).size).toBe(2);
    expect(screen.queryByText(/No connection/)).toBeNull();
  });

  it('goes on where it was when the phone closed the page: checklist, depth, moisture, note and photo; not on another day', async () => {
    Object.assign(globalThis, {
      createImageBitmap: () => Promise.resolve({ width: 4, height: 3, close: () => undefined }),
    });
    HTMLCanvasElement.prototype.getContext = (() => ({
      drawImage: () => undefined,
      fillRect: () => undefined,
    })) as never;
    HTMLCanvasElement.prototype.toBlob = (told) => told(new Blob(['small'], { type: 'image/jpeg' }));
    const { open } = walk(() => new TypeError('fetch failed'));
    const first = open();
    await screen.findByRole('heading', { name: 'Before the first core' });
    fireEvent.click(screen.getAllByRole('checkbox')[0]!);
    first.unmount();
    const second = open();
    expect(await screen.findByRole('button', { name: '3 still to check' })).toBeTruthy();
    for (const box of screen.getAllByRole('checkbox').slice(1)) fireEvent.click(box);
    await press('Walk 3 cores');
    await press('Cored');
    await screen.findByText('Core 2 of 3');
    await press('crumbles');
    await press('Pushed to: more');
    await press('Note');
    await userEvent.type(within(screen.getByRole('dialog')).getByLabelText('Note'), 'worms');
    await press('Keep');
    const picture = new File([new Uint8Array([1])], 'core.png', { type: 'image/png' });
    fireEvent.change(screen.getByLabelText('Photo of this place'), { target: { files: [picture] } });
    expect(await screen.findByRole('img', { name: /^Core 2 of bag/ })).toBeTruthy();
    second.unmount();
    const third = open();
    await screen.findByText('Core 2 of 3');
    expect(within(screen.getByRole('group', { name: 'Pushed to' })).getByText('11 cm')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'crumbles' }).getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByRole('button', { name: 'Note ✓' })).toBeTruthy();
    expect(screen.getByText('Photo 1')).toBeTruthy();
    await press('Take back');
    expect(await screen.findByText('Photo')).toBeTruthy();
    third.unmount();
    for (const key of Object.keys(localStorage).filter((each) => each.startsWith('glenfold.walk.')))
      localStorage.setItem(key, JSON.stringify({ ...JSON.parse(localStorage.getItem(key)!), day: '2020-01-01' }));
    open();
    expect(await screen.findByRole('heading', { name: 'Before the first core' })).toBeTruthy();
  });

  it('tells where somebody else was first', async () => {
    const words = 'Piet Vane cored this one at 10:12; his counts, yours is kept.';
    const { open } = walk((sent) => ({ taps: sent.map(({ id }) => ({ id, outcome: 'met', words })), clockAhead: 0 }));
    open();
    await begin();
    await press('Cored');
    expect((await screen.findByRole('alert')).textContent).toContain(words);
    await press('Read');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  });

  it('ends with what is done with the bucket, and the code that goes on the bag', async () => {
    const { open } = walk(taken);
    open();
    await begin();
    for (const next of ['Core 2 of 3', 'Core 3 of 3', 'All cores are in']) {
      await press('Cored');
      await screen.findByText(next);
    }
    expect(screen.getByText('K7F-4Q2')).toBeTruthy();
    expect(screen.getByText(/Never in an oven/)).toBeTruthy();
    await press('Undo last');
    expect(await screen.findByText('Core 3 of 3')).toBeTruthy();
  });

  it('says where nothing is to be walked', async () => {
    walk(taken, { state: 'sent' }).open();
    expect(await screen.findByRole('heading', { name: 'No bag to walk' })).toBeTruthy();
  });
});
