import {
  type ConflictAnswer,
  type MachineAnswer,
  type ProblemAnswer,
  type ProductAnswer,
  type ZoneAnswer,
  machineInput,
  materialInput,
  zoneInput as inputOf,
} from '@glenfold/contract';
import { printed } from './client.ts';
import { laboratoryBody } from './promisedRoutes.ts';
import { type Browser, type TestServer, demoEmails, signIn, startServer } from './harness.ts';

type Record_ = Readonly<{ id: string; version: number }> & Readonly<Record<string, unknown>>;

interface Editable {
  /** The list or record it is read from. */
  readonly read: (ids: Ids) => string;
  readonly save: (ids: Ids) => string;
  /** Two different saves, from the record as it was read. */
  readonly saves: (record: Record_) => readonly [object, object];
  readonly audited: string;
}

interface Ids {
  readonly siteId: string;
  readonly zoneId: string;
  readonly id: string;
}

const zoneInput = (record: Record_) => inputOf(record as unknown as ZoneAnswer);
const resultInput = ({ zoneIds, label, depth, extractant, values }: Record_, soilPh: number) => ({
  ...{ zoneIds, label, depth, extractant },
  values: { ...(values as object), soilPh: printed(soilPh, 'pH') },
});
const fileInput = ({ columns, extractant }: Record_) => ({
  columns: (columns as object[]).map((column) => ({ ...column, header: undefined })),
  rows: [],
  extractant,
});

const laboratoryInput = ({
  id: _id,
  version: _version,
  simulated: _simulated,
  units: _units,
  reports: _reports,
  ...rest
}: Record_) => rest;

/** Every kind of record that people edit. */
const editable: Readonly<Record<string, Editable>> = {
  site: {
    read: () => '/sites',
    save: ({ id }) => `/sites/${id}`,
    saves: ({ name }) => [
      { name, place: 'here', contacts: [{ name: 'Una', role: 'owner' }] },
      { name, place: 'there' },
    ],
    audited: 'site',
  },
  zone: {
    read: ({ siteId }) => `/sites/${siteId}/zones`,
    save: ({ id }) => `/zones/${id}`,
    saves: (zone) => [
      { ...zoneInput(zone), name: 'East' },
      { ...zoneInput(zone), name: 'West' },
    ],
    audited: 'zone',
  },
  measurements: {
    read: ({ siteId }) => `/sites/${siteId}/zones`,
    save: ({ id }) => `/zones/${id}/measurements`,
    saves: () => [{ thatch: 1 }, { thatch: 2 }],
    audited: 'zone',
  },
  result: {
    read: ({ siteId }) => `/sites/${siteId}/lab-results`,
    save: ({ id }) => `/lab-results/${id}`,
    saves: (result) => [resultInput(result, 6.1), resultInput(result, 6.2)],
    audited: 'lab result',
  },
  laboratory: {
    read: () => '/laboratories',
    save: ({ id }) => `/laboratories/${id}`,
    saves: (own) => [
      { ...laboratoryInput(own), phone: '1' },
      { ...laboratoryInput(own), phone: '2' },
    ],
    audited: 'laboratory',
  },
  file: {
    read: ({ siteId }) => `/sites/${siteId}/lab-reports`,
    save: ({ id }) => `/lab-reports/${id}`,
    saves: (file) => [
      { ...fileInput(file), depth: 10 },
      { ...fileInput(file), depth: 12 },
    ],
    audited: 'lab report',
  },
  product: {
    read: () => '/products',
    save: ({ id }) => `/products/${id}`,
    saves: (product) => [
      { ...materialInput(product as unknown as ProductAnswer), packPrice: 8 },
      { ...materialInput(product as unknown as ProductAnswer), packPrice: 9 },
    ],
    audited: 'product',
  },
  machine: {
    read: () => '/machines',
    save: ({ id }) => `/machines/${id}`,
    saves: (machine) => [
      { ...machineInput(machine as unknown as MachineAnswer), note: 'Oiled' },
      { ...machineInput(machine as unknown as MachineAnswer), note: 'Greased' },
    ],
    audited: 'machine',
  },
  setting: {
    read: () => '/settings',
    save: () => '/settings/work',
    saves: () => [{ value: { prices: [] } }, { value: { prices: [{ name: 'Labour', price: 40, per: 'hour' }] } }],
    audited: 'setting',
  },
  member: {
    read: () => '/members',
    save: ({ id }) => `/members/${id}`,
    saves: ({ role }) =>
      role === 'advisor'
        ? [
            { role: 'technician', siteIds: [] },
            { role: 'owner', siteIds: [] },
          ]
        : [
            { role: 'advisor', siteIds: [] },
            { role: 'owner', siteIds: [] },
          ],
    audited: 'membership',
  },
  practice: {
    read: () => '/practice',
    save: () => '/practice',
    saves: ({ timeZone, currency }) => [
      { name: 'Brackwater', timeZone, currency },
      { name: 'Brackwater and Sons', timeZone, currency },
    ],
    audited: 'practice',
  },
};

let server: TestServer;
let first: Browser;
let second: Browser;
let siteId: string;
let zoneId: string;

const read = async (path: string, id?: string): Promise<Record_> => {
  const answer = (await first.ask('get', path)).body as Record_ | Record_[] | { readonly sites: Record_[] };
  const body = 'sites' in answer ? (answer.sites as Record_[]) : answer;
  // The last of a list: nobody else's test rests on it, and the last member is no owner.
  if (!Array.isArray(body)) return body;
  return id
    ? body.find((record) => record.id === id)!
    : body.filter((record) => (record.id as string | null) !== null).at(-1)!;
};

beforeAll(async () => {
  server = await startServer({ empty: false });
  [first, second] = [await signIn(server, demoEmails.owner), await signIn(server, demoEmails.owner)];
  const { sites } = (await first.ask('get', '/sites')).body as { sites: Record_[] };
  siteId = sites.find(({ name }) => String(name).startsWith('Harbour'))!.id;
  zoneId = (await read(`/sites/${siteId}/zones`)).id;
  // Its own stands before those that let know by themselves.
  expect((await first.ask('post', '/laboratories', laboratoryBody)).status).toBe(201);
});
afterAll(() => server.close());

describe('every editable record', () => {
  it.each(Object.keys(editable))(
    '%s: a stale save is refused with the newer version, and can still be made on top of it',
    async (kind) => {
      const { read: address, save, saves, audited } = editable[kind]!;
      const opened = await read(address({ siteId, zoneId, id: '' }));
      const path = save({ siteId, zoneId, id: opened.id });
      const [early, late] = saves(opened);

      const saved = await first.ask('put', path, early, opened.version);
      expect([saved.status, saved.body]).toEqual([200, expect.objectContaining({ version: opened.version + 1 })]);
      const refused = await second.ask('put', path, late, opened.version);
      expect([refused.status, (refused.body as ProblemAnswer).title]).toEqual([409, 'Changed meanwhile']);
      const { current, changedBy } = (refused.body as { conflict: ConflictAnswer }).conflict;
      expect(changedBy).toBe('Orla Tench');
      // What the other is shown is what was saved, in the form that saves are made of.
      expect(saved.body).toMatchObject(current);
      expect(Object.keys(late).filter((field) => !['columns', 'rows'].includes(field) && !(field in current))).toEqual(
        [],
      );
      expect(await read(address({ siteId, zoneId, id: opened.id }), opened.id)).toMatchObject({
        version: opened.version + 1,
      });

      expect((await second.ask('put', path, late, current.version)).status).toBe(200);
      const [entry] = (
        (await first.ask('get', '/audit')).body as { entries: Array<{ kind: string; action: string; by: string }> }
      ).entries;
      expect(entry).toMatchObject({
        kind: (audited === 'lab result' ? expect.stringMatching(/lab result|sample/) : audited) as string,
        action: 'change',
        by: 'Orla Tench',
      });
    },
  );

  it('a treatment of a zone: the first decision of two windows stands', async () => {
    const gannet = ((await first.ask('get', '/sites')).body as { sites: Record_[] }).sites.find(({ name }) =>
      String(name).startsWith('Gannet'),
    )!;
    const [zone] = (await first.ask('get', `/sites/${gannet.id}/zones`)).body as Record_[];
    zoneId = zone!.id;
    const products = ((await first.ask('get', '/products')).body as Array<{ id: string; kind: string }>).filter(
      ({ kind }) => kind === 'lime',
    );
    const choose = (browser: Browser, index: number, seen: number) =>
      browser.ask(
        'put',
        `/zones/${zoneId}/program/treatments/lime`,
        { remedy: 'lime', reason: 'as agreed', values: { material: products[index]!.id } },
        seen,
      );
    const outcomes = await Promise.all([choose(first, 0, 0), choose(second, 1, 0)]);
    expect(outcomes.map(({ status }) => status).sort()).toEqual([200, 409]);
    const late = await choose(second, 1, 0);
    expect((late.body as { conflict: ConflictAnswer }).conflict.current).toMatchObject({
      ...{ remedy: 'lime', added: false, months: null, out: null, reason: 'as agreed', version: 1 },
      values: { material: expect.any(String) as string },
    });
    expect((await choose(second, 1, 1)).status).toBe(200);
  });
});
