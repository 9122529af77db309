import { randomUUID } from 'node:crypto';
import { join, resolve } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import pg from 'pg';
import type { SessionAnswer } from '@glenfold/contract';
import supertest from 'supertest';
import { createApp } from '../src/app.ts';
import { readScenario } from '../src/demo/firstRun.ts';

export const root = resolve(import.meta.dirname, '../../..');

export interface TestServer {
  readonly app: NestExpressApplication;
  readonly http: ReturnType<typeof supertest>;
  /** SQL on the server's own database. */
  readonly sql: <T extends object>(text: string, values?: unknown[]) => Promise<T[]>;
  readonly url: string;
  readonly close: () => Promise<void>;
}

function adminUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: run the tests with "npm test".');
  return url;
}

/** A number of our own among the locks of the cluster. */
const TEMPLATE_LOCK = 7_104_655;

function urlOf(name: string): URL {
  const url = new URL(adminUrl());
  url.pathname = name;
  return url;
}

/** A database that is migrated, and filled with the demo unless empty; made once, whoever comes first, and copied by all. */
async function template(admin: pg.Client, empty: boolean): Promise<string> {
  const name = empty ? 'template_empty' : 'template_demo';
  await admin.query('SELECT pg_advisory_lock($1)', [TEMPLATE_LOCK]);
  try {
    const { rowCount } = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [name]);
    if (rowCount === 0) {
      const making = `${name}_making`;
      await admin.query(`DROP DATABASE IF EXISTS ${making} WITH (FORCE)`);
      await admin.query(`CREATE DATABASE ${making}`);
      const databaseUrl = urlOf(making).href;
      await (
        await createApp({ root, databaseUrl, empty, address: 'http://127.0.0.1', quiet: true, plain: true })
      ).close();
      await admin.query(`ALTER DATABASE ${making} RENAME TO ${name}`);
    }
  } finally {
    await admin.query('SELECT pg_advisory_unlock($1)', [TEMPLATE_LOCK]);
  }
  return name;
}

/** Do some work on a database of its own with the demo in it, in the test cluster, that is gone after. */
export async function withDemoDatabase(work: (url: string) => Promise<void> | void): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl() });
  await admin.connect();
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  try {
    await admin.query(`CREATE DATABASE ${name} TEMPLATE ${await template(admin, false)}`);
    await work(urlOf(name).href);
  } finally {
    await admin.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await admin.end();
  }
}

/** The application on a database of its own, in the test cluster. */
export async function startServer({ empty, smtp }: { empty: boolean; smtp?: string }): Promise<TestServer> {
  const admin = new pg.Client({ connectionString: adminUrl() });
  await admin.connect();
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  // What cannot be made is told, and leaves nothing open that would keep the tests from ending.
  const from = await template(admin, empty).catch(async (error: unknown) => {
    await admin.end();
    throw error;
  });
  await admin.query(`CREATE DATABASE ${name} TEMPLATE ${from}`);
  const url = urlOf(name);
  const app = await createApp({
    root,
    databaseUrl: url.href,
    empty,
    address: 'http://127.0.0.1',
    smtp,
    quiet: true,
    plain: true,
  });
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  return {
    app,
    url: url.href,
    http: supertest(app.getHttpServer()),
    sql: async <T extends object>(text: string, values: unknown[] = []) => (await client.query<T>(text, values)).rows,
    close: async () => {
      await client.end();
      await app.close();
      await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
      await admin.end();
    },
  };
}

/** The made-up people of the demo, by their e-mail. */
export const demoEmails = {
  owner: 'orla@brackwater.example',
  advisor: 'piet@brackwater.example',
  technician: 'wynn@brackwater.example',
  client: 'hetty@gannetrow.example',
} as const;
export const demoPassword = readScenario(join(root, 'demo')).password;

type Method = 'get' | 'post' | 'put' | 'delete';

/** A browser: keeps its cookie, sends the token with every change, and names the version it saw. */
export interface Browser {
  readonly ask: (method: Method, path: string, body?: object, version?: number) => supertest.Test;
  readonly session: () => Promise<SessionAnswer>;
  readonly agent: ReturnType<typeof supertest.agent>;
}

export function openBrowser({ app }: Pick<TestServer, 'app'>): Browser {
  const agent = supertest.agent(app.getHttpServer());
  let csrf = '';
  const session = async (): Promise<SessionAnswer> => {
    const answer = (await agent.get('/api/session')).body as SessionAnswer;
    csrf = answer.csrf;
    return answer;
  };
  const ask: Browser['ask'] = (method, path, body, version) => {
    const request = agent[method](`/api${path}`).set('x-csrf-token', csrf);
    if (version !== undefined) void request.set('if-match', `"${version}"`);
    return body === undefined ? request : request.send(body);
  };
  return { ask, session, agent };
}

/** Sign in with e-mail and password. */
export async function signIn(
  server: Pick<TestServer, 'app'>,
  email: string,
  password = demoPassword,
): Promise<Browser> {
  const browser = openBrowser(server);
  const response = await browser.ask('post', '/session', { email, password });
  if (response.status !== 204) throw new Error(`${email} was not let in: ${response.text}`);
  await browser.session();
  return browser;
}
