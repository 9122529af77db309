import type { WorkingElsewhere } from '@glenfold/agronomy';
import {
  type PracticeAnswer,
  type ProblemAnswer,
  type SessionAnswer,
  type SettingAnswer,
  type SiteAnswer,
  type ZoneAnswer,
  type ZoneProgramAnswer,
  dayIn,
  siteInput,
} from '@glenfold/contract';
import { get, printed, send, siteOf, textOf, typed, useDemoServer, zoneOf, treatmentIn } from './client.ts';
import { demoEmails, signIn } from './harness.ts';
import { zoneBody } from './promisedRoutes.ts';

const server = useDemoServer();
const school = (correct: string, more = {}) => ({
  school: 'sufficiency',
  correct,
  limeDepth: 'sampled slice',
  ...more,
});
const decide = (kind: string, body: object, status?: number): Promise<SettingAnswer> =>
  send('put', `/settings/${kind}`, body, status, 0);
const rates = (zoneId: string): Promise<ZoneProgramAnswer> => get(`/zones/${zoneId}/program?units=us`);

describe('a decision', () => {
  it('for a zone changes that zone’s rates alone, is told with its reason, and can be taken back', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const other = await zoneOf('Gannet', 'GR-2');
    const before = await rates(zone.id);
    expect(treatmentIn(before, 'lime').status).toBe('planned');
    const value = school('leave alone', { leaveAloneFrom: 5, leaveAloneTo: 7.2, reason: 'ferns beside it' });
    const made = await decide('school', { zoneId: zone.id, value });
    const after = await rates(zone.id);
    expect(after.program.judged.find(({ remedy }) => remedy === 'lime')).toMatchObject({
      status: 'none',
      words: expect.stringMatching(/between 5 and 7.2.*ferns beside it/) as string,
    });
    expect(treatmentIn(await rates(other.id), 'lime').more.join()).not.toMatch(/ferns/);
    await send('delete', `/settings/${made.id}`);
    expect(treatmentIn(await rates(zone.id), 'lime').words).toBe(treatmentIn(before, 'lime').words);
    await send('post', `/settings/${made.id}/restore`);
    expect(treatmentIn(await rates(zone.id), 'lime')).toBeUndefined();
    await send('delete', `/settings/${made.id}`);
  });

  it('for the practice reaches reading, rates and paper: bands and rates of its own, and a rule of the place', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    await decide('bands', {
      value: {
        tables: [
          {
            name: 'Tern table',
            source: 'sheet 3',
            date: 2025,
            extractant: 'mehlich-3',
            rows: [{ nutrient: 'k', low: 30, high: 60 }],
          },
        ],
      },
    });
    const { reading, program } = await rates(zone.id);
    expect(reading.bars.find(({ key }) => key === 'k')).toMatchObject({
      rating: 'high',
      words: expect.stringMatching(/table of Tern table/) as string,
    });
    expect(program.judged.find(({ remedy }) => remedy === 'k2o')).toMatchObject({ status: 'none' });
    expect(treatmentIn({ program }, 'nitrogen').cautions.join(' ')).toMatch(
      /None from 15 November to 1 March: Fennimore nutrient code/,
    );
    expect(await textOf(`/api/zones/${zone.id}/program.pdf?units=us`)).toMatch(/Fennimore nutrient code/);
  });

  it('for what is sold to everybody reaches the program, its paper and the differences', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const visits = [
      { month: 6, remedy: 'iron' },
      { month: 3, remedy: 'lime', rate: 200 },
    ];
    const made = await decide('usualYear', { value: { name: 'Four visits', visits } });
    const { usual, treatments } = (await rates(zone.id)).program;
    expect(treatments.find(({ key }) => key === 'iron')!.doses[0]!.from).toMatch(/-06-/);
    expect(usual!.differences.map(({ name }) => name)).toContain('Lime');
    expect(await textOf(`/api/zones/${zone.id}/program.pdf?units=us`)).toMatch(/Other than in “Four visits”/);
    await send('delete', `/settings/${made.id}`);
    expect((await rates(zone.id)).program.usual).toBeNull();
  });

  it.each([
    [
      'another way for a zone without a reason',
      'school',
      (ids: Ids) => ({ zoneId: ids.zone, value: school('to the aim') }),
      'value.reason',
      /why this zone/,
    ],
    [
      'prices for one site',
      'work',
      (ids: Ids) => ({ siteId: ids.site, value: { prices: [] } }),
      'siteId',
      /whole practice/,
    ],
    [
      'a site and a zone',
      'caps',
      (ids: Ids) => ({ siteId: ids.site, zoneId: ids.zone, value: {} }),
      'siteId',
      /not both/,
    ],
    [
      'bands that fall',
      'bands',
      () => ({
        value: {
          tables: [
            { name: 'L', source: 's', date: 2025, extractant: 'olsen', rows: [{ nutrient: 'p', low: 30, high: 12 }] },
          ],
        },
      }),
      'value.tables.0.rows.0.low',
      /to rise/,
    ],
    [
      'two tables of one extractant',
      'bands',
      () => ({ value: { tables: [table, table] } }),
      'value.tables.1.extractant',
      /already/,
    ],
    [
      'less for the poorer soil',
      'yearlyRates',
      () => ({ value: { name: 'S', source: 's', date: 2025, p: { ...even, low: 1, 'very low': 0 }, k: even } }),
      'value.p.low',
      /poorer soil/,
    ],
    [
      'a blackout on no day',
      'rules',
      () => ({
        value: {
          name: 'R',
          source: 's',
          phosphorus: 'none',
          blackouts: [{ from: '13-40', to: '03-01', what: 'nitrogen' }],
        },
      }),
      'value.blackouts.0.from',
      /11-15/,
    ],
    [
      'organic matter of a bog',
      'targets',
      () => ({ value: { targets: [{ name: 'T', analyte: 'organicMatter', value: 40 }] } }),
      'value.targets.0.value',
      /0.5 and 12/,
    ],
    ['what nobody knows', 'caps', () => ({ value: { gold: 1 } }), 'value.gold', /not known/],
  ])('is refused with %s', async (_what, kind, body, field, message) => {
    const ids = { site: (await siteOf('Gannet')).id, zone: (await zoneOf('Gannet', 'GR-1')).id };
    const refused = (await decide(kind, body(ids), 422)) as unknown as ProblemAnswer;
    expect(refused.errors).toContainEqual({ field, message: expect.stringMatching(message) as string });
  });

  it('of a kind nobody knows is not found', async () => {
    await decide('mood', { value: {} }, 404);
  });

  it('tells prices of work only to those who see costs', async () => {
    const technician = await signIn(server.current(), demoEmails.technician);
    const seen = (await technician.ask('get', '/settings')).body as SettingAnswer[];
    const all = await get<SettingAnswer[]>('/settings');
    expect([seen, all].map((list) => list.some(({ kind }) => kind === 'work'))).toEqual([false, true]);
  });
});

interface Ids {
  readonly site: string;
  readonly zone: string;
}
const even = { 'very low': 1, low: 1, medium: 1, high: 0, 'very high': 0 };
const table = { name: 'L', source: 's', date: 2025, extractant: 'olsen', rows: [{ nutrient: 'p', low: 10, high: 20 }] };

describe('a place', () => {
  it('has its own day: what is measured there is of that day, and nothing is sampled tomorrow', async () => {
    const site = await siteOf('Gannet');
    // Somewhere it is always another day than here.
    const far = [...['Pacific/Kiritimati', 'Pacific/Pago_Pago']].find(
      (zone) => dayIn(new Date(), zone) !== dayIn(new Date(), 'Atlantic/Azores'),
    )!;
    const there = dayIn(new Date(), far);
    await send<SiteAnswer>('put', `/sites/${site.id}`, { ...siteInput(site), timeZone: far });
    const zone = await zoneOf('Gannet', 'GR-3');
    await send('put', `/zones/${zone.id}/measurements`, { thatch: 2.2 });
    const [row] = await server
      .current()
      .sql<{ takenOn: string }>(
        `SELECT "takenOn"::text FROM measurement WHERE "zoneId" = $1 AND analyte = 'thatch' ORDER BY "createdAt" DESC LIMIT 1`,
        [zone.id],
      );
    expect(row!.takenOn).toBe(there);
    const later = new Date(Date.parse(`${there}T12:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
    const refused = await send<ProblemAnswer>('post', '/lab-results', { ...typed(zone), sampledOn: later }, 422);
    expect(refused.errors[0]).toMatchObject({ field: 'sampledOn', message: expect.stringMatching(/future/) as string });
    await send('post', '/lab-results', { ...typed(zone), sampledOn: there });
  });

  it.each([
    ['a time zone nobody keeps', { timeZone: 'Fennimore/Port' }, 'timeZone', /of the list/],
    [
      'a phone that is none',
      { contacts: [{ name: 'Una', role: 'owner', phone: 'ask Jory' }] },
      'contacts.0.phone',
      /digits/,
    ],
    ['a person without a name', { contacts: [{ name: '', role: 'owner' }] }, 'contacts.0.name', /name/],
    ['a climate nobody knows', { climate: 'balmy' }, 'climate', /choose one of/],
    [
      'eleven months',
      { normals: { low: Array(11).fill(1), high: Array(12).fill(5), rain: Array(12).fill(50), source: 's' } },
      'normals.low',
      /twelve months/,
    ],
    [
      'nights warmer than days',
      { normals: { low: Array(12).fill(9), high: Array(12).fill(5), rain: Array(12).fill(50), source: 's' } },
      'normals.low.0',
      /change the two about/,
    ],
    ['a place beyond the pole', { position: [0, 95] }, 'position', /degrees/],
  ])('is refused with %s', async (_what, more, field, message) => {
    const site = await siteOf('Gannet');
    const { errors } = await send<ProblemAnswer>('put', `/sites/${site.id}`, { ...siteInput(site), ...more }, 422);
    expect(errors).toContainEqual({ field, message: expect.stringMatching(message) as string });
  });

  it('keeps gate and dog from clients, who read reports only', async () => {
    const site = await siteOf('Gannet');
    const client = await signIn(server.current(), demoEmails.client);
    expect(JSON.stringify((await client.ask('get', `/sites/${site.id}/report`)).body)).not.toMatch(
      /Terrier|key from number 4|Jory/,
    );
    expect((await client.ask('get', `/sites/${site.id}`)).status).toBe(403);
  });
});

describe('a garden bed', () => {
  it('has no grass, is limed by its test, and shows the laboratory’s own advice beside', async () => {
    const { id: siteId } = await siteOf('Gannet');
    const bed = { ...zoneBody, label: 'KG', surface: 'garden bed', grass: null };
    const wrong = await send<ProblemAnswer>('post', `/sites/${siteId}/zones`, { ...bed, grass: 'tall fescue' }, 422);
    expect(wrong.errors).toEqual([{ field: 'grass', message: expect.stringMatching(/has no grass/) as string }]);
    const lawn = await send<ProblemAnswer>('post', `/sites/${siteId}/zones`, { ...bed, surface: 'turf' }, 422);
    expect(lawn.errors[0]!.field).toBe('grass');
    const zone = await send<ZoneAnswer>('post', `/sites/${siteId}/zones`, bed);
    const advice = '58 lb lime per 1000 sq ft for vegetables';
    await send('post', '/lab-results', {
      ...typed(zone, { soilPh: 5.4, bufferPh: 6.4, values: { p: printed(20, 'mg/kg') } }),
      advice,
    });
    const { program, result, reading } = await rates(zone.id);
    expect(result!.advice).toBe(advice);
    expect(reading.bars.find(({ key }) => key === 'p')).toMatchObject({ rating: null });
    expect(treatmentIn({ program }, 'lime').doses).toHaveLength(1);
    expect(program.treatments.filter(({ dose }) => dose === 'pass')).toEqual([]);
    expect(await textOf(`/api/zones/${zone.id}/program.pdf?units=us`)).toMatch(/garden bed/);
  });
});

it('money and days are the practice’s, units the person’s', async () => {
  const practice = await get<PracticeAnswer>('/practice');
  await send(
    'put',
    '/practice',
    { name: practice.name, timeZone: practice.timeZone, currency: 'kr' },
    200,
    practice.version,
  );
  const zone = await zoneOf('Gannet', 'GR-1');
  const [cost] = (await rates(zone.id)).program.cost!.working as readonly WorkingElsewhere[];
  expect(JSON.stringify(await get(cost!.at))).toMatch(/kr \d/);
  expect(await textOf(`/api/zones/${zone.id}/program.pdf?units=us`)).toMatch(/For this zone: kr \d/);
  const piet = await signIn(server.current(), demoEmails.advisor);
  expect((await piet.ask('put', '/session/personal', { units: 'metric' })).status).toBe(204);
  expect(((await piet.ask('get', '/session')).body as SessionAnswer).person!.units).toBe('metric');
  expect((await get<SessionAnswer>('/session')).person!.units).toBeNull();
});
