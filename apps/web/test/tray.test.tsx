import type { RunAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Tray } from '../src/frame/Tray.tsx';
import { changesOf, serve, show } from './page.tsx';

const run: RunAnswer = {
  ...{ id: 'r', kind: 'reread', title: 'Reading kept laboratory files again', state: 'running', done: 3, total: 12 },
  ...{ words: null, stopping: false, askedBy: null, askedAt: '2026-11-20T08:00:00Z', endedAt: null },
};

describe('the tray', () => {
  it('is not there while nothing runs', async () => {
    const asked = serve({ '/runs': [] });
    show(<Tray />);
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('tells how far it is, stops it, and offers to begin again what failed, with what went wrong', async () => {
    let now: RunAnswer[] = [
      run,
      { ...run, id: 'f', title: 'Reading a history', state: 'failed', words: 'Row 7 has no date.' },
    ];
    const asked = serve({
      '/runs': () => now,
      'POST /runs/r/stop': () => {
        now = [{ ...run, stopping: true }, now[1]!];
        return now[0];
      },
      'POST /runs/f/again': () => {
        now = [now[0]!, { ...run, id: 'g', title: 'Reading a history', state: 'waiting' }];
        return now[1];
      },
    });
    show(<Tray />);
    await userEvent.click(await screen.findByRole('button', { name: 'Long work: 1 under way' }));
    const [first, second] = within(screen.getByRole('dialog', { name: 'Long work' })).getAllByRole('listitem');
    expect(first!.textContent).toContain('3 of 12');
    expect(within(first!).getByRole('progressbar').getAttribute('aria-valuenow')).toBe('25');
    expect(second!.textContent).toContain('Failed. Row 7 has no date.');
    await userEvent.click(within(first!).getByRole('button', { name: 'Stop' }));
    await screen.findByText('3 of 12; stops after this part');
    await userEvent.click(screen.getByRole('button', { name: 'Begin again' }));
    await screen.findByText('Waits for its turn');
    expect(changesOf(asked).map(({ method, path }) => `${method} ${path}`)).toEqual([
      'POST /runs/r/stop',
      'POST /runs/f/again',
    ]);
  });
});
