import { execFileSync, spawn } from 'node:child_process';
import { join } from 'node:path';
import type { LabReportAnswer, ProblemAnswer, RunAnswer } from '@glenfold/contract';
import { expect } from '@jest/globals';
import pg from 'pg';
import { createApp } from '../src/app.ts';
import { Problem } from '../src/platform/problem.ts';
import { type RunAtWork, RunKinds } from '../src/runs/runKinds.ts';
import { RunsService } from '../src/runs/runs.service.ts';
import { Work } from '../src/platform/work.ts';
import { get, send, siteOf, until, useDemoServer } from './client.ts';
import { root } from './harness.ts';

const server = useDemoServer();

const runs = () => get<RunAnswer[]>('/runs');
const stateOf = async (id: string) => (await runs()).find((run) => run.id === id)?.state;

/** Ask for work of a kind of our own, in the demo’s practice. */
async function start(kind: string, work?: (run: RunAtWork) => Promise<string>): Promise<RunAnswer> {
  const { app, sql } = server.current();
  if (work) app.get(RunKinds).register({ name: kind, work });
  const [practice] = await sql<{ id: string }>('SELECT id FROM practice');
  const worker = { practiceId: practice!.id, person: null, role: null };
  return (await app.get(Work).run(worker, () => app.get(RunsService).start(kind, `Counting ${kind}`)))!;
}

/** Something to wait at. */
function gate(): { readonly open: () => void; readonly passed: Promise<void> } {
  let open = (): void => undefined;
  const passed = new Promise<void>((done) => (open = done));
  return { open, passed };
}

describe('long work', () => {
  it('tells how far it is, is there once of a kind, stops after its part when asked, and can be begun again', async () => {
    const [begun, half] = [gate(), gate()];
    const parts: number[] = [];
    const run = await start('sheep', async ({ at }) => {
      for (let part = 0; part < 5; part += 1) {
        await at(part, 5);
        parts.push(part);
        if (part === 2) {
          begun.open();
          await half.passed;
        }
      }
      return 'Five counted.';
    });
    expect(run).toMatchObject({ state: 'waiting', title: 'Counting sheep', total: null });
    expect(await start('sheep')).toBeUndefined();
    await begun.passed;
    expect((await runs())[0]).toMatchObject({ id: run.id, state: 'running', done: 2, total: 5 });
    await send('post', `/runs/${run.id}/again`, undefined, 409);
    expect(await send<RunAnswer>('post', `/runs/${run.id}/stop`, undefined, 200)).toMatchObject({ stopping: true });
    half.open();
    await until(async () => (await stateOf(run.id)) === 'stopped');
    expect(parts).toEqual([0, 1, 2]);
    server
      .current()
      .app.get(RunKinds)
      .register({ name: 'sheep', work: () => Promise.resolve('Five counted.') });
    const again = await send<RunAnswer>('post', `/runs/${run.id}/again`, undefined, 200);
    await until(async () => (await stateOf(again.id)) === 'done');
    expect((await runs()).map(({ words }) => words)).toEqual(['Five counted.']);
    await send('delete', `/runs/${again.id}`);
    expect(await runs()).toEqual([]);
  });

  it('that fails by a fault is tried again; what is refused is told as it was refused', async () => {
    let tries = 0;
    const faulty = await start('faulty', () => {
      tries += 1;
      return tries === 1 ? Promise.reject(new Error('a wire fell off')) : Promise.resolve('Counted.');
    });
    const refused = await start('refused', () => Promise.reject(new Problem(422, 'No', 'There is nothing to count.')));
    await until(async () => (await stateOf(faulty.id)) === 'done' && (await stateOf(refused.id)) === 'failed');
    expect((await runs()).find(({ id }) => id === refused.id)!.words).toBe('There is nothing to count.');
    const late = await send<ProblemAnswer>('post', `/runs/${refused.id}/stop`, undefined, 409);
    expect(late.detail).toBe('“Counting refused” is failed by now: look at the list again, and choose what fits.');
    await send('delete', `/runs/${refused.id}`);
  });
});

it('goes on after the database has cut the connection that holds its locks', async () => {
  const [begun, cut] = [gate(), gate()];
  let turns = 0;
  const run = await start('cut', async ({ at }) => {
    turns += 1;
    await at(0, 2);
    if (turns === 1) {
      begun.open();
      await cut.passed;
    }
    await at(1, 2);
    return 'Both counted.';
  });
  await begun.passed;
  await server
    .current()
    .sql(`SELECT pg_terminate_backend(pid) FROM pg_locks WHERE locktype = 'advisory' AND database = (SELECT oid FROM pg_database WHERE datname = current_database())`); // prettier-ignore
  await new Promise((done) => setTimeout(done, 200));
  cut.open();
  await until(async () => (await stateOf(run.id)) === 'done');
  expect(turns).toBe(2);
});

/** Files of the site as an older reader left them. */
async function keepFiles(siteId: string, count: number): Promise<string[]> {
  const ids: string[] = [];
  for (let index = 0; index < count; index += 1) {
    const content = `Sample,pH,Depth in,P Mehlich 3 ppm,S ppm\nGR-1,6,4,20,${10 + index}\n`;
    const fileName = `kept-${index}.csv`;
    const { id } = await send<LabReportAnswer>('post', `/sites/${siteId}/lab-reports`, { fileName, content });
    await send('post', `/lab-reports/${id}/confirm`);
    ids.push(id);
  }
  const { sql } = server.current();
  const ofThem = `"resultId" IN (SELECT id FROM lab_result WHERE "reportId" = ANY($1))`;
  await sql(`DELETE FROM measurement WHERE analyte = 's' AND ${ofThem}`, [ids]);
  await sql(`UPDATE lab_report SET "readBy" = 1 WHERE id = ANY($1)`, [ids]);
  return ids;
}

/** The server as it is built, a process of its own; not built anew where it is up to date. */
beforeAll(() => void execFileSync(process.execPath, [join(root, 'scripts/build.mjs')], { stdio: 'ignore' }));

it('two servers share it, one is killed in the middle: the other ends it, and nothing is done twice', async () => {
  const { id: siteId } = await siteOf('Gannet');
  const ids = await keepFiles(siteId, 6);
  const { url, sql } = server.current();
  const changes = async () => (await sql(`SELECT FROM audit WHERE "recordId" = ANY($1)`, [ids])).length;
  const unread = await changes();
  // The one in this process would take it too.
  await server.current().app.close();

  // Held at the fourth file, the first server is killed while it waits.
  const holder = new pg.Client({ connectionString: url });
  await holder.connect();
  const read = async () => (await sql<{ id: string }>(`SELECT id FROM lab_report WHERE "readBy" > 1 AND id = ANY($1)`, [ids])).length; // prettier-ignore
  await holder.query('BEGIN');
  await holder.query(`SELECT FROM lab_report WHERE id = $1 FOR UPDATE`, [ids[3]]);
  const main = join(root, 'apps/server/dist/main.js');
  const first = spawn(process.execPath, ['--disable-warning=ExperimentalWarning', main], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      DATABASE_URL: url,
      PORT: '0',
      GLENFOLD_URL: 'http://127.0.0.1:1',
      GLENFOLD_ROOT: root,
    },
    stdio: 'ignore',
  });
  await until(async () => (await sql(`SELECT FROM pg_stat_activity WHERE wait_event_type = 'Lock' AND query ~ 'lab_report' AND datname = current_database()`)).length > 0); // prettier-ignore
  const before = await read();
  expect(before).toBeGreaterThan(0);
  expect(before).toBeLessThan(6);
  first.kill('SIGKILL');
  const second = await createApp({
    root,
    databaseUrl: url,
    empty: false,
    address: 'http://127.0.0.1',
    quiet: true,
    plain: true,
  });
  await holder.query('ROLLBACK');
  await holder.end();
  await until(async () => (await sql(`SELECT FROM run WHERE kind = 'reread' AND state = 'done'`)).length > 0);
  await second.close();

  expect(await read()).toBe(6);
  const sulfur = await sql<{ value: number }>(
    `SELECT value FROM measurement WHERE analyte = 's' AND "resultId" IN (SELECT id FROM lab_result WHERE "reportId" = ANY($1)) ORDER BY value`,
    [ids],
  );
  expect(sulfur.map(({ value }) => value)).toEqual([10, 11, 12, 13, 14, 15]);
  expect(await changes()).toBe(unread + 6);
  expect(await sql(`SELECT tries FROM run WHERE kind = 'reread'`)).toEqual([{ tries: 2 }]);
});
