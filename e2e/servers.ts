import { resolve } from 'node:path';

/** The servers that one worker of the journeys has for itself, each with a database of its own. */
export const served = ['demo', 'empty', 'second'] as const;
export type Served = (typeof served)[number];

/** Elsewhere where two runs go on at once. */
const FIRST_PORT = Number(process.env.E2E_PORT ?? 4690);

/** A hundred ports for each worker. */
const port = (kind: Served, worker: number): number => FIRST_PORT + 100 * worker + served.indexOf(kind);

export const addressOf = (kind: Served, worker: number): string => `http://127.0.0.1:${port(kind, worker)}`;

export const root = resolve(import.meta.dirname, '..');

/** How many work side by side. */
export const workers = Number(process.env.E2E_WORKERS ?? 1);

/** The database of a worker's server, as `npm test` has made it: one address each, by kind and worker. */
export function databaseOf(kind: Served, worker: number): string {
  return process.env[`E2E_${kind.toUpperCase()}_DATABASE_URL_${worker}`] ?? '';
}

/** A server for Playwright to start. */
export function serverOf(kind: Served, worker: number) {
  const address = addressOf(kind, worker);
  return {
    command: 'node --disable-warning=ExperimentalWarning apps/server/dist/main.js',
    cwd: '..',
    url: `${address}/api/session`,
    env: {
      PORT: String(port(kind, worker)),
      DATABASE_URL: databaseOf(kind, worker),
      GLENFOLD_EMPTY: kind === 'demo' ? '0' : '1',
      // Answered by the journey that asks for them.
      GLENFOLD_TILES: `${address}/tiles/{z}/{x}/{y}.png`,
      GLENFOLD_TILES_ATTRIBUTION: 'Made-up tiles',
    },
    reuseExistingServer: false,
    timeout: 60_000,
  };
}
