import type { SessionAnswer } from '@glenfold/contract';
import supertest from 'supertest';
import { createApp } from '../src/app.ts';
import { prepareDatabase } from '../src/database.ts';
import { type TestServer, openBrowser, root, startServer } from './harness.ts';

let server: TestServer;

beforeAll(async () => {
  server = await startServer({ empty: true });
});
afterAll(() => server.close());

describe('a start', () => {
  it('on a database that holds a real practice offers nobody with one click, demo asked for or not', async () => {
    const input = {
      practice: 'Reed & Rush',
      name: 'Ada Reed',
      email: 'ada@reed.example',
      password: 'only plain words here',
    };
    expect((await openBrowser(server).ask('post', '/first-run', input)).status).toBe(204);
    const app = await createApp({
      root,
      databaseUrl: server.url,
      empty: false,
      address: 'http://127.0.0.1',
      quiet: true,
      plain: true,
    });
    const http = supertest(app.getHttpServer());
    const session = (await http.get('/api/session')).body as SessionAnswer;
    expect([session.state, session.demoPeople]).toEqual(['signed out', []]);
    const [person] = await server.sql<{ id: string }>('SELECT id FROM person');
    expect((await http.post('/api/demo/session').send({ personId: person!.id })).status).toBe(404);
    expect(await server.sql('SELECT name FROM practice')).toEqual([{ name: 'Reed & Rush' }]);
    await app.close();
  });

  it('on a database of a newer version, or without the right to its roles, says what to do', async () => {
    await server.sql(`INSERT INTO migrations (timestamp, name) VALUES (1999999999999, 'Later1999999999999')`);
    await expect(prepareDatabase(server.url)).rejects.toThrow(/made by a newer Glenfold \(Later1999999999999\)/);
    await server.sql(`DELETE FROM migrations WHERE timestamp = 1999999999999`);

    const name = `plain_${process.pid}`;
    await server.sql(`CREATE ROLE ${name} LOGIN PASSWORD '${name}'`);
    const url = new URL(server.url);
    url.username = name;
    url.password = name;
    await expect(prepareDatabase(url.href)).rejects.toThrow(/Let an administrator of the database create them/);
    await server.sql(`DROP ROLE ${name}`);
  });

  it('sends cookies over https only where people open it by https', async () => {
    const app = await createApp({
      root,
      databaseUrl: server.url,
      empty: true,
      address: 'https://lawns.example',
      quiet: true,
      plain: true,
    });
    const secure = openBrowser({ app });
    const enter = (origin: string) =>
      secure
        .ask('post', '/session', { email: 'ada@reed.example', password: 'only plain words here' })
        .set('origin', origin);
    expect((await enter('http://127.0.0.1')).status).toBe(403);
    const response = await enter('https://lawns.example');
    expect((response.headers['set-cookie'] as unknown as string[])[0]).toMatch(/; Secure/);
    expect(response.headers['strict-transport-security']).toBeDefined();
    await app.close();
  });
});
