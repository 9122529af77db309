import { randomUUID } from 'node:crypto';
import { resolve } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import pg from 'pg';
import supertest from 'supertest';
import { createApp } from '../src/app.ts';

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

/** The application on a database of its own, in the test cluster. */
export async function startServer({ empty }: { empty: boolean }): Promise<TestServer> {
  const base = adminUrl();
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await admin.query(`CREATE DATABASE ${name}`);
  const url = new URL(base);
  url.pathname = name;
  process.env.DATABASE_URL = url.href;
  const app = await createApp({ root, empty, quiet: true });
  process.env.DATABASE_URL = base;
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
