import type { SessionAnswer } from '@glenfold/contract';
import { CacheProvider } from '@emotion/react';
import createCache from '@emotion/cache';
import { jest } from '@jest/globals';
import { ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { theme } from '../src/theme.ts';
import { SessionProvider } from '../src/ui/session.tsx';
import { UndoProvider } from '../src/ui/undo.tsx';
import { UnitsProvider } from '../src/ui/units.tsx';
import { WorkingProvider } from '../src/ui/working.tsx';

// A page printed whole into a failure takes a minute and tells little.
configure({ asyncUtilTimeout: 10_000, getElementError: (message) => new Error(message ?? 'Not found.') });
jest.setTimeout(60_000);

/** What the server was asked, in order. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

type Answers = Readonly<Record<string, unknown>>;

/** A server that answers by address; `Error` makes it unreachable, and a number refuses with that status. */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = ((input: string, init: RequestInit = {}) => {
    const path = input.replace('/api', '');
    const method = init.method ?? 'GET';
    asked.push({ method, path, body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined });
    const answer = answers[`${method} ${path}`] ?? answers[path];
    if (answer instanceof Error) return Promise.reject(answer);
    if (typeof answer === 'number')
      return Promise.resolve({
        ok: false,
        status: answer,
        json: () => Promise.resolve({ detail: `Refused with ${answer}.` }),
      });
    return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(structuredClone(answer ?? [])) });
  }) as unknown as typeof fetch;
  return asked;
}

const session = (role: SessionAnswer['role']): SessionAnswer => ({
  state: 'signed in',
  csrf: 'x',
  person: { id: 'p', name: 'Orla Dunn', email: 'orla@brackwater.example' },
  practice: { id: 'b', version: 1, name: 'Brackwater', demo: true },
  role,
  practices: [],
  demoPeople: [],
  tiles: null,
});

/** A part of the application as a signed-in person has it. */
export function show(
  node: ReactNode,
  {
    at = '/',
    role = 'owner',
    units = 'us',
  }: { at?: string; role?: SessionAnswer['role']; units?: 'us' | 'metric' } = {},
) {
  localStorage.setItem('glenfold.units', units);
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <CacheProvider value={createCache({ key: 'css' })}>
      <ThemeProvider theme={theme}>
        <QueryClientProvider client={client}>
          <SessionProvider value={session(role)}>
            <UnitsProvider>
              <WorkingProvider>
                <UndoProvider>
                  <MemoryRouter initialEntries={[at]}>{node}</MemoryRouter>
                </UndoProvider>
              </WorkingProvider>
            </UnitsProvider>
          </SessionProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>,
  );
}

/** Choose an entry of a list, as a person does. */
export async function choose(list: string | RegExp, entry: string | RegExp): Promise<void> {
  await userEvent.click(screen.getByRole('combobox', { name: list }));
  await userEvent.click(await screen.findByRole('option', { name: entry }));
}
