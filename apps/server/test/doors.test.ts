import type { LabReportAnswer, ProblemAnswer, SiteAnswer } from '@glenfold/contract';
import { Plane } from '@glenfold/agronomy/geometry';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import fc from 'fast-check';
import { countValues } from '../src/platform/manyValues.ts';
import { ATTEMPT_LIMITS, FREE_TRIES } from '../src/people/signIn.service.ts';
import { demoEmails, demoPassword, openBrowser, signIn } from './harness.ts';

const server = useDemoServer();

describe('the door for bodies', () => {
  const heavy = (bytes: number): object => ({ file: 'x'.repeat(bytes) });

  it('is narrow for nobody: a large body is refused by its size, before anybody looks at what it says', async () => {
    const stranger = openBrowser(server.current());
    for (const path of ['/session', '/sites', '/sites/00000000-0000-4000-8000-000000000000/drawing']) {
      const answer = await stranger.ask('post', path, heavy(9_000));
      expect([path, answer.status, (answer.body as ProblemAnswer).title]).toEqual([path, 413, 'Too large']);
    }
    // A broken text is not looked at either when it is too long to be read.
    const broken = await stranger
      .ask('post', '/session')
      .set('content-type', 'application/json')
      .send(`{${'{'.repeat(9_000)}`);
    expect(broken.status).toBe(413);
  });

  it('opens for files only to those who may save them', async () => {
    const path = `/sites/${(await siteOf('Gannet')).id}/lab-reports`;
    const client = await signIn(server.current(), demoEmails.client);
    expect((await client.ask('post', path, heavy(300_000))).status).toBe(413);
    const owner = server.owner();
    // Read, and then refused for what it says.
    expect((await owner.ask('post', path, heavy(300_000))).status).toBe(422);
    expect((await owner.ask('post', '/sites', heavy(300_000))).status).toBe(413);
    // A technician brings pictures from the field, and no laboratory's files.
    const technician = await signIn(server.current(), demoEmails.technician);
    const { id } = await zoneOf('Gannet', 'GR-1');
    expect((await technician.ask('post', `/zones/${id}/photos`, heavy(2_000_000))).status).toBe(422);
    expect((await technician.ask('post', path, heavy(300_000))).status).toBe(413);
  });

  it('counts what a body holds before it is read: as many values as there are, wherever quotes and brackets stand', async () => {
    const wide = { values: 1e9, listed: 1e9 };
    const sizeOf = (value: unknown): number =>
      typeof value === 'object' && value !== null
        ? 1 + Object.values(value).reduce((sum: number, inner) => sum + sizeOf(inner), 0)
        : 1;
    await fc.assert(
      fc.asyncProperty(fc.jsonValue({ maxDepth: 5 }), async (value) => {
        const text = Buffer.from(JSON.stringify(value, null, 1));
        const counted = await countValues(text, wide);
        expect(counted).toBeGreaterThanOrEqual(sizeOf(value));
        expect(counted).toBeLessThanOrEqual(2 * sizeOf(value));
        await expect(countValues(text, { values: counted - 1, listed: 1e9 })).rejects.toThrow(/smaller parts/);
      }),
    );
  });

  it('lets nobody hold up the others with a body of nothing in very many pieces', async () => {
    const owner = server.owner();
    const path = `/sites/${(await siteOf('Gannet')).id}/drawing`;
    const raw = (text: string) => owner.ask('post', path).set('content-type', 'application/json').send(text);
    const refused = async (text: string, status: number, title: string) => {
      const answer = await raw(text);
      expect([answer.status, (answer.body as ProblemAnswer).title]).toEqual([status, title]);
    };
    await refused(`{"outlines":[${'{},'.repeat(300_000)}{}]}`, 413, 'Too many values');
    await refused(`{"newZones":[${'[1,2],'.repeat(100_000)}[]]}`, 413, 'Too many values');
    await refused(`${'['.repeat(60)}${']'.repeat(60)}`, 400, 'A value cannot be kept');
    await refused('[[]]', 422, 'Some values cannot be taken');
    // Very many that are in order are read on a thread, and refused there for what they say.
    await refused(`{"outlines":[${'{"id":1},'.repeat(1500)}{}]}`, 422, 'Some values cannot be taken');
  });

  it('tells what is wrong with a list where one thing is expected, and keeps nothing of it', async () => {
    const owner = server.owner();
    const { id } = await siteOf('Gannet');
    const { paths } = await get<{ paths: Record<string, Record<string, { requestBody?: unknown }>> }>('/openapi.json');
    const odd: string[] = [];
    for (const [path, ways] of Object.entries(paths))
      for (const [way, { requestBody }] of Object.entries(ways)) {
        if (!requestBody || !['post', 'put'].includes(way) || /session|first-run/.test(path)) continue;
        const address = path.replace('/api', '').replaceAll(/\{\w+\}/g, id);
        const asked = owner
          .ask(way as 'post', address)
          .set('content-type', 'application/json')
          .set('if-match', '"1"');
        const { status } = await asked.send('[[]]');
        if (status < 400 || status >= 500) odd.push(`${way} ${path}: ${status}`);
      }
    expect(odd).toEqual([]);
    const nested = await owner.ask('post', '/sites', { name: 'Listed', place: 'There', contacts: [[]] });
    expect([nested.status, (nested.body as ProblemAnswer).errors.map(({ field }) => field)]).toEqual([
      422,
      ['contacts'],
    ]);
    expect((await owner.ask('post', '/sites', { name: 'Listed', place: 'There', contacts: [] })).status).toBe(201);
  });

  it('is shut again when the session has ended', async () => {
    const browser = await signIn(server.current(), demoEmails.advisor);
    expect((await browser.ask('post', '/sites', heavy(20_000))).status).toBe(422);
    await browser.ask('delete', '/session');
    expect((await browser.ask('post', '/sites', heavy(20_000))).status).toBe(413);
  });
});

it('answers are packed for those who can unpack them, and never kept by anybody between', async () => {
  const { agent } = server.owner();
  const packed = await agent.get('/api/openapi.json').set('accept-encoding', 'gzip');
  expect(packed.headers['content-encoding']).toBe('gzip');
  expect(packed.headers['cache-control']).toBe('no-store');
  const plain = await agent.get('/api/openapi.json').set('accept-encoding', 'identity');
  expect(plain.headers['content-encoding']).toBeUndefined();
});

it('outlines that are tangled are refused with words, and the ground stays as it was', async () => {
  const { id } = await siteOf('Gannet');
  const court = await zoneOf('Gannet', 'GR-1');
  const plane = new Plane([-36.0034, 46.5012]);
  const comb = (flip: boolean): [number, number][] => {
    const teeth = 1200;
    const corners = Array.from({ length: teeth }, (_, tooth): [number, number][] => {
      const at = (60 * tooth) / teeth;
      const half = at + 30 / teeth;
      return [
        [at, 0.5],
        [at, 60],
        [half, 60],
        [half, 0.5],
      ];
    }).flat();
    const ring: [number, number][] = [[0, 0], ...corners, [60, 0.5], [60, 0], [0, 0]];
    return ring.map(([x, y]) => [...plane.toMap(flip ? [y, x] : [x, y])] as [number, number]);
  };
  const refused = await send<ProblemAnswer>(
    'post',
    `/sites/${id}/drawing`,
    {
      outlines: [{ id: court.id, version: court.version, geometry: { type: 'Polygon', coordinates: [comb(false)] } }],
      newFeatures: [{ kind: 'bed', name: 'Comb', geometry: { type: 'Polygon', coordinates: [comb(true)] } }],
    },
    422,
  );
  expect(JSON.stringify(refused)).toMatch(/cross one another too often/);
  expect((await zoneOf('Gannet', 'GR-1')).version).toBe(court.version);
});

describe('a laboratory’s file', () => {
  const imported = async (name: string, text: string): Promise<LabReportAnswer> => {
    const site: SiteAnswer = await siteOf('Gannet');
    return send<LabReportAnswer>('post', `/sites/${site.id}/lab-reports`, {
      fileName: name,
      content: text,
    });
  };

  it('of forty thousand signs of nothing is answered at once, with words', async () => {
    const site = await siteOf('Gannet');
    const refused = await send<ProblemAnswer>(
      'post',
      `/sites/${site.id}/lab-reports`,
      { fileName: 'x.csv', content: '='.repeat(40_000) },
      422,
    );
    expect(refused.detail).toMatch(/header|column|table/i);
  });

  it('with decimal commas, both pH and a method column is read as it was meant', async () => {
    const { extractant, bufferMethod, rows, columns } = await imported(
      'comma.csv',
      [
        'Sample;Salt pH;Water pH;Buffer pH (Moore-Sikora);P mg/100 g;P Rating;Extractant;Depth (cm)',
        'GR-1;5,2;5,9;7,72;2,4;low;Mehlich 3;10',
      ].join('\n'),
    );
    expect([extractant, bufferMethod]).toEqual(['mehlich-3', 'adams-evans']);
    expect(columns.map(({ field }) => field)).toEqual([
      'label',
      'saltPh',
      'soilPh',
      'bufferPh',
      'p',
      null,
      null,
      'depth',
    ]);
    expect(rows[0]!.row).toMatchObject({
      depth: 10,
      values: {
        saltPh: { value: 5.2 },
        soilPh: { value: 5.9 },
        bufferPh: { value: 7.72 },
        p: { value: 2.4, unit: 'mg/100g' },
      },
    });
  });

  it('that tells only a pH in salt is taken, and asked about', async () => {
    const { rows } = await imported('salt.csv', 'Sample,pH (CaCl2),P ppm,Depth (cm)\nGR-1,5.4,20,10');
    expect(rows[0]!.row.values).toMatchObject({ calciumChloridePh: { value: 5.4 } });
    expect(rows[0]!.questions.join(' ')).toMatch(/it is taken as 6\.0 in water/);
  });
});

describe('the door for people', () => {
  it('from a device that is known goes on, whatever others try with that address', async () => {
    const known = openBrowser(server.current());
    const enter = (password: string) => known.ask('post', '/session', { email: demoEmails.advisor, password });
    const elsewhere = async (): Promise<number> =>
      (
        await openBrowser(server.current()).ask('post', '/session', {
          email: demoEmails.advisor,
          password: demoPassword,
        })
      ).status;
    expect((await enter(demoPassword)).status).toBe(204);
    for (let at = 0; at < ATTEMPT_LIMITS.email; at += 1)
      await server.current().sql(`INSERT INTO sign_in_attempt (kind, email, origin) VALUES ('sign in', $1, $2)`, [demoEmails.advisor, `198.51.100.${at}`]); // prettier-ignore
    expect(await elsewhere()).toBe(429);
    expect((await enter('not the password')).status).toBe(401);
    expect((await enter(demoPassword)).status).toBe(204);
    // But it is counted too: what was stolen is no way in.
    for (let at = 0; at < FREE_TRIES; at += 1) await enter('not the password');
    const slowed = await enter(demoPassword);
    expect([slowed.status, slowed.headers['retry-after']]).toEqual([429, '2']);
    expect((slowed.body as { detail: string }).detail).toContain('Wait 2 seconds');
    await server.current().sql('DELETE FROM sign_in_attempt');
  });

  it('with one click ends the session that the browser had', async () => {
    const browser = openBrowser(server.current());
    const [first, second] = (await browser.session()).demoPeople;
    await browser.ask('post', '/demo/session', { personId: first!.personId });
    const before = await server.current().sql('SELECT id FROM session');
    await browser.ask('post', '/demo/session', { personId: second!.personId });
    expect(await server.current().sql('SELECT id FROM session')).toHaveLength(before.length);
  });

  it('is taken by the names of this installation only, and pages say what they use of a device', async () => {
    const turned = await server.current().http.get('/api/session').set('host', 'rebound.example:80');
    expect([turned.status, turned.text]).toEqual([421, expect.stringContaining('set GLENFOLD_URL')]);
    const own = await server.current().http.get('/api/session');
    expect(own.status).toBe(200);
    expect(own.headers['permissions-policy']).toMatch(/camera=\(self\), geolocation=\(self\)/);
    expect(own.headers['permissions-policy']).toContain('usb=()');
  });
});
