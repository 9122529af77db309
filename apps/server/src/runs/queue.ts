import pg from 'pg';
import PgBoss from 'pg-boss';
import { APP_ROLE } from '../platform/roles.ts';

const SCHEMA = 'pgboss';
/** Long work, whatever its kind; and the clock that strikes each minute. */
export const RUNS = 'runs';
export const CLOCK = 'clock';

const DAY = 86_400;
/** The lock tells earlier whether anybody is still at it; the queue asks for less than a day. */
const HALF_A_DAY = DAY / 2;

/** How often work is begun again where it failed, or where its server was lost. */
export const TRIES_AGAIN = 3;

/** Makes the queue's tables, with the rights of the database's owner; does nothing where they are there. */
export async function prepareQueue(url: string): Promise<void> {
  const boss = new PgBoss({ connectionString: url, schema: SCHEMA, supervise: false, max: 2 });
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await boss.start();
    const again = { retryLimit: TRIES_AGAIN, retryDelay: 2, retryBackoff: true };
    await boss.createQueue(RUNS, { name: RUNS, ...again, expireInSeconds: HALF_A_DAY });
    await boss.createQueue(CLOCK, { name: CLOCK, policy: 'short', retryLimit: 0, expireInSeconds: 300 });
    await client.query(`
      GRANT USAGE ON SCHEMA ${SCHEMA} TO ${APP_ROLE};
      GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA ${SCHEMA} TO ${APP_ROLE};
      GRANT EXECUTE ON ALL FUNCTIONS IN SCHEMA ${SCHEMA} TO ${APP_ROLE};`);
  } finally {
    await boss.stop({ graceful: false, wait: true });
    await client.end();
  }
}

/** The queue as a server works with it, with the rights of the application only. */
export function openQueue(executeSql: PgBoss.Db['executeSql']): PgBoss {
  return new PgBoss({
    db: { executeSql },
    schema: SCHEMA,
    migrate: false,
    archiveCompletedAfterSeconds: 3600,
    deleteAfterSeconds: DAY,
  });
}
