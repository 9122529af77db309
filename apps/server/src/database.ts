import pg from 'pg';
import { DataSource, type DataSourceOptions } from 'typeorm';
import { entities } from './entities.ts';
import { migrations } from './migrations/index.ts';
import { APP_ROLE, DOOR_ROLE } from './platform/roles.ts';
import { prepareQueue } from './runs/queue.ts';

/** The roles of the cluster, where they are not there yet. */
const makeRoles = [APP_ROLE, DOOR_ROLE]
  .map(
    (role) => `
    IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = '${role}') THEN
      BEGIN CREATE ROLE ${role} NOLOGIN; EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; END;
    END IF;
    IF NOT pg_has_role(current_user, '${role}', 'MEMBER') THEN EXECUTE 'GRANT ${role} TO ' || quote_ident(current_user); END IF;`,
  )
  .join('');

/** ms: a statement runs so long at most, waits so long for who has a row, and a transaction idles so long. */
const MOST = { statement: 60_000, lock: 5_000, idle: 300_000 } as const;
/** @throws where this user may make none */
export const ensureRoles = (client: pg.Client): Promise<unknown> => client.query(`DO $$ BEGIN ${makeRoles} END $$`);

/** Compiling a query for the machine takes longer than any of ours runs. */
const OPTIONS = `-c role=${APP_ROLE} -c jit=off -c statement_timeout=${MOST.statement} -c lock_timeout=${MOST.lock} -c idle_in_transaction_session_timeout=${MOST.idle}`;
/** Connections of one server: more than wait for one row at once, so that others are served meanwhile. */
const CONNECTIONS = 24;
/** ms that a request waits for a connection before it is told so. */
const MOST_WAITED = 10_000;

/** A connection beside those of the queries, with the same rights. */
export const appConnection = (connectionString: string): pg.ClientConfig => ({ connectionString, options: OPTIONS });

/** Everything that a query of the application can reach, with the rights of the application only. */
export function appOptions(url: string): DataSourceOptions {
  return {
    type: 'postgres',
    url,
    entities: [...entities],
    synchronize: false,
    applicationName: 'glenfold',
    extra: { options: OPTIONS, min: 1, max: CONNECTIONS, connectionTimeoutMillis: MOST_WAITED },
  };
}

/** A number of our own among the locks of the database. */
const START_LOCK = 7_104_656;

/** What two starts on one database must not do at once; a lock that ends with its connection. */
export async function oneStartAtATime<T>(url: string, work: () => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url, application_name: 'glenfold start' });
  // Its database lost: what is being done in it fails, and says so.
  client.on('error', () => undefined);
  await client.connect();
  try {
    await client.query('SELECT pg_advisory_lock($1)', [START_LOCK]);
    return await work();
  } finally {
    await client.end();
  }
}

/** The database's own role: for migrations, never for a request. */
export function ownerSource(url: string): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities: [...entities],
    migrations: [...migrations],
    synchronize: false,
  });
}

/**
 * Make the roles, bring the tables up to date, and see whose they are.
 * @returns whether there is a practice yet, and whether it is the made-up one
 * @throws when the database was made by a newer Glenfold, or the roles cannot be made
 */
export async function prepareDatabase(url: string): Promise<{ readonly practices: number; readonly demo: boolean }> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await ensureRoles(client);
  } catch (error) {
    throw new Error(
      `The database roles ${APP_ROLE} and ${DOOR_ROLE} cannot be made: ${(error as Error).message}. Let an administrator of the database create them (NOLOGIN) and grant both to this user.`,
      { cause: error },
    );
  } finally {
    await client.end();
  }
  const source = ownerSource(url);
  await source.initialize();
  try {
    await refuseNewer(source);
    await source.runMigrations();
    await prepareQueue(url).catch((error: unknown) => {
      throw new Error(
        `The tables of the queue cannot be made: ${(error as Error).message}. Let an administrator of the database grant this user CREATE on it.`,
        { cause: error },
      );
    });
    const practices = await source.query<Array<{ demo: boolean }>>('SELECT demo FROM practice');
    return { practices: practices.length, demo: practices.some(({ demo }) => demo) };
  } finally {
    await source.destroy();
  }
}

async function refuseNewer(source: DataSource): Promise<void> {
  const [{ made } = { made: false }] = await source.query<Array<{ made: boolean }>>(
    `SELECT to_regclass('public.migrations') IS NOT NULL AS made`,
  );
  if (!made) return;
  const done = await source.query<Array<{ name: string }>>('SELECT name FROM migrations');
  const known = new Set(migrations.map(({ name }) => name));
  const unknown = done.find(({ name }) => !known.has(name));
  if (unknown)
    throw new Error(
      `This database was made by a newer Glenfold (${unknown.name}). Start that version, or restore a backup made by this one.`,
    );
}
