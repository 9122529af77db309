import { resolve } from 'node:path';
import pg from 'pg';
import { createApp } from './app.ts';

const {
  PORT = '4600',
  HOST = '127.0.0.1',
  GLENFOLD_EMPTY,
  GLENFOLD_ROOT = resolve(import.meta.dirname, '../../..'),
} = process.env;

/** One line about a database that does not answer, before anything else is tried. */
async function checkDatabase(): Promise<void> {
  const { DATABASE_URL } = process.env;
  if (!DATABASE_URL || !URL.canParse(DATABASE_URL))
    throw new Error(
      `DATABASE_URL is "${DATABASE_URL ?? ''}", which is not an address such as postgres://name@host:5432/database.`,
    );
  const client = new pg.Client({ connectionString: DATABASE_URL, connectionTimeoutMillis: 10_000 });
  try {
    await client.connect();
    await client.end();
  } catch (error) {
    const { code, message } = error as { code?: string; message: string };
    throw new Error(
      `The database at ${new URL(DATABASE_URL).host} cannot be used: ${message || (code ?? 'no answer')}.`,
      { cause: error },
    );
  }
}

try {
  await checkDatabase();
  const app = await createApp({ root: GLENFOLD_ROOT, empty: GLENFOLD_EMPTY === '1' });
  await app.listen(Number(PORT), HOST);
  process.stdout.write(`ready http://${HOST}:${PORT}/\n`);
} catch (error) {
  const { code, message } = error as { code?: string; message: string };
  process.stderr.write(`${code === 'EADDRINUSE' ? `Port ${PORT} is in use.` : message}\n`);
  process.exit(1);
}
