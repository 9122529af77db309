import type { SessionAnswer } from '@glenfold/contract';
import { CacheProvider } from '@emotion/react';
import createCache from '@emotion/cache';
import { ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { expose } from 'comlink';
import { configure, render, screen } from '@testing-library/react';
import userEvent from './userEvent.ts';
import * as React from 'react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { Conflicts } from '../src/frame/Conflicts.tsx';
import { theme } from '../src/ui/theme.ts';
import { SessionProvider } from '../src/ui/session.tsx';
import { UndoProvider } from '../src/ui/undo.tsx';
import { UnitsProvider } from '../src/ui/units.tsx';
import { WorkingProvider } from '../src/ui/working.tsx';

// React keeps a stack for the first ten thousand elements of each second: a fifth of what a page costs here.
const { __CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE: internals } = React as unknown as Record<
  string,
  object
>;
if (internals) Object.defineProperty(internals, 'recentlyCreatedOwnerStacks', { get: () => 1e9, set: () => undefined });

// A page printed whole into a failure takes a minute and tells little.
configure({
  asyncUtilTimeout: 30_000,
  defaultHidden: true,
  getElementError: (message) => new Error(message ?? 'Not found.'),
});

/** What the server was asked, in order. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  /** The version that a change rests on. */
  readonly version: string | undefined;
}

/** Of what was asked, what would change something. */
export const changesOf = (asked: readonly Asked[]): Asked[] => asked.filter(({ method }) => method !== 'GET');

/** A refusal of the server's with more to it than a status. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly body: object,
  ) {}
}
export const problem = (status: number, body: object): Refusal => new Refusal(status, body);

type Answers = Readonly<Record<string, unknown>>;

/** A server that answers by address, with what is asked after it or for all of it; a function works its answer out, `Error` makes it unreachable, a number refuses with that status. */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = ((input: string, init: RequestInit = {}) => {
    const path = input.replace('/api', '');
    const method = init.method ?? 'GET';
    asked.push({
      method,
      path,
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
      version: new Headers(init.headers).get('if-match')?.replaceAll('"', ''),
    });
    const found = answers[`${method} ${path}`] ?? answers[path] ?? answers[path.split('?')[0]!];
    const answer = typeof found === 'function' ? (found as (asked: Asked) => unknown)(asked.at(-1)!) : found;
    if (answer instanceof Error) return Promise.reject(answer);
    const refused = typeof answer === 'number' ? problem(answer, { detail: `Refused with ${answer}.` }) : answer;
    if (refused instanceof Refusal)
      return Promise.resolve({
        ok: false,
        status: refused.status,
        headers: new Headers(),
        json: () => Promise.resolve(refused.body),
      });
    return Promise.resolve({
      ok: true,
      status: 200,
      headers: new Headers(),
      json: () => Promise.resolve(structuredClone(answer ?? [])),
    });
  }) as unknown as typeof fetch;
  globalThis.XMLHttpRequest = Sent as unknown as typeof XMLHttpRequest;
  return asked;
}

/** A request that tells how it gets on, answered as a fetch is. */
class Sent extends EventTarget {
  readonly upload = new EventTarget();
  status = 0;
  responseText = '';
  #to = '';

  open(_method: string, to: string): void {
    this.#to = to;
  }

  getResponseHeader(): null {
    return null;
  }

  setRequestHeader(): void {
    // Nothing here asks for it.
  }

  send(): void {
    this.upload.dispatchEvent(new ProgressEvent('progress', { loaded: 1, total: 2 }));
    fetch(this.#to, { method: 'POST' }).then(
      async (answer) => {
        this.status = answer.status;
        this.responseText = JSON.stringify(await answer.json());
        this.dispatchEvent(new Event('load'));
      },
      () => this.dispatchEvent(new Event('error')),
    );
  }
}

const session = (role: SessionAnswer['role']): SessionAnswer => ({
  state: 'signed in',
  csrf: 'x',
  person: { id: 'p', name: 'Orla Dunn', email: 'orla@brackwater.example', units: null },
  practice: {
    id: 'b',
    version: 1,
    name: 'Brackwater',
    demo: true,
    timeZone: 'UTC',
    currency: '$',
    phone: null,
    clientsShare: false,
    email: null,
  },
  role,
  practices: [],
  demoPeople: [],
  tiles: null,
});

/** Styles go nowhere: nothing is drawn here, and reading them and matching them to every element takes most of the time. */
const styles = createCache({ key: 'css', container: document.createElement('div') });
styles.sheet.insert = () => undefined;

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
    <CacheProvider value={styles}>
      <ThemeProvider theme={theme}>
        <QueryClientProvider client={client}>
          <SessionProvider value={session(role)}>
            <UnitsProvider>
              <WorkingProvider>
                <UndoProvider>
                  <MemoryRouter initialEntries={[at]}>{node}</MemoryRouter>
                  <Conflicts />
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

/** One end of a channel within the page: what is posted here arrives at the other end. */
class Port extends EventTarget {
  other: Port | undefined;
  postMessage(data: unknown): void {
    setTimeout(() => this.other?.dispatchEvent(new MessageEvent('message', { data })));
  }
  start(): void {
    // Nothing is held back.
  }
  close(): void {
    this.other = undefined;
  }
  terminate(): void {
    this.close();
  }
}

class Channel {
  readonly port1 = new Port();
  readonly port2 = new Port();
  constructor() {
    this.port1.other = this.port2;
    this.port2.other = this.port1;
  }
}

/** Workers of the page that are none: what they would do, by the name of their script, is done here by the same messages. */
export function besidePage(works: Readonly<Record<string, unknown>>): void {
  globalThis.MessageChannel = Channel as unknown as typeof MessageChannel;
  globalThis.Worker = class {
    constructor(script: URL) {
      const { port1, port2 } = new Channel();
      const work = works[script.pathname.split('/').at(-1)!];
      if (work) expose(work, port2);
      return port1;
    }
  } as unknown as typeof Worker;
}
