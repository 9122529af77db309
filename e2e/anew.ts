import { expect } from '@playwright/test';
import pg from 'pg';
import { type Served, addressOf, databaseOf } from './servers.ts';

/**
 * A worker's database as it was before any journey: what one file of journeys has changed is not what the next one
 * finds, whichever of them a worker comes to first. The server goes on, and finds its database again.
 */
export async function makeAnew(kind: Served, worker: number): Promise<void> {
  const template = process.env[`E2E_${kind.toUpperCase()}_TEMPLATE`];
  const url = databaseOf(kind, worker);
  if (!template || !url) return;
  const name = new URL(url).pathname.slice(1);
  const client = new pg.Client({ connectionString: url.replace(/\/[^/]*$/, '/postgres') });
  await client.connect();
  try {
    await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await client.query(`CREATE DATABASE ${name} TEMPLATE ${template}`);
  } finally {
    await client.end();
  }
  await expect
    .poll(async () => (await fetch(`${addressOf(kind, worker)}/api/session`)).status, { timeout: 60_000 })
    .toBe(200);
}
