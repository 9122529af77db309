import { execFileSync } from 'node:child_process';
import type { Treatment, UnitSystem } from '@glenfold/agronomy';
import type { SiteAnswer, SitesAnswer, TreatmentChangeAnswer, ZoneAnswer, ZoneProgramAnswer } from '@glenfold/contract';
import { afterAll, beforeAll, expect } from '@jest/globals';
import { type Browser, type TestServer, demoEmails, signIn, startServer } from './harness.ts';

let server: TestServer;
let owner: Browser;

/** A demo server for the tests of one file, with the owner signed in. */
export function useDemoServer(): { readonly current: () => TestServer; readonly owner: () => Browser } {
  beforeAll(async () => {
    server = await startServer({ empty: false });
    owner = await signIn(server, demoEmails.owner);
  });
  afterAll(() => (server as TestServer | undefined)?.close());
  return { current: () => server, owner: () => owner };
}

/** Ask, and expect that status. */
export async function get<T>(path: string, status = 200): Promise<T> {
  const response = await owner.ask('get', path);
  expect([path, response.status]).toEqual([path, status]);
  return response.body as T;
}

const usual = { post: 201, put: 200, delete: 204 } as const;

/** Change, and expect that status or the method's usual one. */
export async function send<T>(
  method: keyof typeof usual,
  path: string,
  body?: object,
  status: number = usual[method],
  version?: number,
): Promise<T> {
  const response = await owner.ask(method, path, body, version ?? (method === 'put' ? await seen(path) : undefined));
  expect([path, response.status, response.body]).toEqual([path, status, response.body]);
  return response.body as T;
}

/** Wait for what comes about by itself. */
export async function until(holds: () => Promise<boolean>, seconds = 120): Promise<void> {
  const end = Date.now() + 1000 * seconds;
  while (!(await holds())) {
    if (Date.now() > end) throw new Error(`Not within ${seconds} seconds.`);
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** The demo site whose name begins so. */
export async function siteOf(name: string): Promise<SiteAnswer> {
  return (await get<SitesAnswer>('/sites')).sites.find((entry) => entry.name.startsWith(name))!;
}

export async function zoneOf(siteName: string, label: string): Promise<ZoneAnswer> {
  const zones = await get<ZoneAnswer[]>(`/sites/${(await siteOf(siteName)).id}/zones`);
  return zones.find((zone) => zone.label === label)!;
}

/** The program of a zone as it stands. */
export const programOf = (zoneId: string, units: UnitSystem = 'us'): Promise<ZoneProgramAnswer> =>
  get(`/zones/${zoneId}/program?units=${units}`);

/** A treatment of a program by its key. */
export const treatmentIn = ({ program }: Pick<ZoneProgramAnswer, 'program'>, key: string): Treatment =>
  program.treatments.find((treatment) => treatment.key === key)!;

/** Decide something of a treatment by hand. */
export const decideTreatment = (
  zoneId: string,
  key: string,
  given: object,
  status = 200,
): Promise<TreatmentChangeAnswer> =>
  send('put', `/zones/${zoneId}/program/treatments/${key}`, { remedy: key, reason: 'as agreed', ...given }, status);

/** A value as a report prints it. */
export const printed = (value: unknown, unit = 'mg/kg', more: object = {}) => ({
  value,
  unit,
  basis: 'element',
  ...more,
});

interface Typed {
  readonly soilPh?: unknown;
  /** By the Mehlich method. */
  readonly bufferPh?: unknown;
  /** Beside the pH. */
  readonly values?: object;
}

/** A result as the sheet would send it. */
export function typed(zone: Pick<ZoneAnswer, 'id' | 'label'>, given: Typed & Readonly<Record<string, unknown>> = {}) {
  const { soilPh = 5.2, bufferPh = 6, values = { p: printed(92, 'lb/acre', { basis: 'oxide' }) }, ...more } = given;
  return {
    zoneIds: [zone.id],
    label: zone.label,
    depth: 15.24,
    extractant: 'mehlich-3',
    values: {
      soilPh: printed(soilPh, 'pH'),
      ...(bufferPh === null ? {} : { bufferPh: printed(bufferPh, 'pH', { method: 'mehlich' }) }),
      ...values,
    },
    ...more,
  };
}

/** The version of the record that a change is about, as the person would have it on screen. */
async function seen(path: string): Promise<number> {
  const [, kind = '', id = ''] = path.split('?')[0]!.split('/');
  const table = {
    sites: 'site',
    zones: 'zone',
    'lab-results': 'lab_result',
    'lab-reports': 'lab_report',
    products: 'product',
  };
  const [, key] = /\/treatments\/([^/?]+)/.exec(path) ?? [];
  const [row] = await server.sql<{ version: number }>(
    key === undefined
      ? `SELECT version FROM ${table[kind as keyof typeof table]} WHERE "id" = $1`
      : `SELECT version FROM treatment WHERE "zoneId" = $1 AND "key" = $2 AND "override" IS NOT NULL AND "deletedAt" IS NULL`,
    key === undefined ? [id] : [id, key],
  );
  return row?.version ?? 0;
}

/** The PDF at an address of the application. */
export async function pdfBytes(address: string, reader: Browser = owner): Promise<Buffer> {
  const { body } = (await reader.agent
    .get(address)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    })) as { body: Buffer };
  expect([address, body.subarray(0, 5).toString()]).toEqual([address, '%PDF-']);
  return body;
}

/** What is read on a PDF. */
export const pdfText = (body: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: body, encoding: 'utf8' });

/** The text of a PDF at an address of the application, as it would be read on paper. */
export async function textOf(address: string, reader: Browser = owner): Promise<string> {
  const body = await pdfBytes(address, reader);
  // A glyph that the fonts lack would print as a box and read as U+FFFD or nothing.
  const text = pdfText(body);
  expect(text).not.toMatch(/\uFFFD|undefined|NaN|\[object/);
  return text;
}
