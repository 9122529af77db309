import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { findBinaries } from '../../scripts/postgres.mjs';
import { expect, test } from './person.ts';

const root = resolve(import.meta.dirname, '../..');
const port = '4695';
const address = `http://127.0.0.1:${port}`;

/** A home of its own for what is started, which the database's own user reaches; gone after. */
const starts = test.extend<{ readonly home: string }>({
  home: async ({ browserName }, use, { parallelIndex }) => {
    const made =
      process.getuid?.() === 0
        ? join('/var/tmp', `glenfold-test-${browserName}-${process.pid}-${parallelIndex}`)
        : mkdtempSync(join(tmpdir(), 'glenfold-'));
    await use(made);
    rmSync(made, { recursive: true, force: true });
  },
});

interface Started {
  readonly child: ChildProcess;
  /** All that it has said, so far. */
  readonly said: () => string;
}

/** What a test leaves running would keep the port from the next one. */
const running = new Set<ChildProcess>();
test.afterEach(async () => {
  for (const child of running)
    if (child.exitCode === null && child.signalCode === null) await stop({ child }, 'SIGTERM');
  running.clear();
});

/** npm start in its own home, until it prints its address. */
async function start(home: string, at = port): Promise<Started> {
  const child = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: '', PORT: at, GLENFOLD_HOME: home },
  });
  running.add(child);
  let said = '';
  await new Promise<void>((ready, failed) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk: Buffer) => {
        said += String(chunk);
        // What is built already is not built again, under a server that serves it.
        if (said.includes('Building')) failed(new Error('builds what is built'));
        if (said.includes('Glenfold is ready')) ready();
      });
    child.on('exit', (code) => failed(new Error(`ended with ${String(code)}: ${said}`)));
  });
  return { child, said: () => said };
}

async function stop({ child }: Pick<Started, 'child'>, signal: NodeJS.Signals): Promise<void> {
  const ended = new Promise((done) => child.once('exit', done));
  child.kill(signal);
  await ended;
}

/** What a start that is refused says. */
async function refused(env: Record<string, string>): Promise<string> {
  const child = spawn(process.execPath, ['scripts/start.mjs'], { cwd: root, env: { ...process.env, ...env } });
  let errors = '';
  child.stderr.on('data', (chunk: Buffer) => (errors += String(chunk)));
  expect(await new Promise((done) => child.once('exit', done))).toBe(1);
  expect(errors).toContain('What to do: ');
  expect(errors).not.toContain('    at ');
  return errors;
}

const lockOf = (home: string): string => join(home, 'empty/data/postmaster.pid');
const lines = (home: string): string[] => readFileSync(lockOf(home), 'utf8').split('\n');
const serverOf = (home: string, at = port): number =>
  (JSON.parse(readFileSync(join(home, `server-${at}.json`), 'utf8')) as { server: { pid: number } }).server.pid;
const readiness = (at = port): Promise<number> =>
  fetch(`http://127.0.0.1:${at}/api/ready`).then(
    ({ status }) => status,
    () => 0,
  );

starts(
  'a start makes its database, Ctrl-C stops all of it, and the data is there the next time',
  async ({ home, request }) => {
    const first = await start(home);
    const practice = {
      practice: 'Kept',
      name: 'Ada Reed',
      email: 'ada@reed.example',
      password: 'only plain words here',
    };
    expect((await request.post(`${address}/api/first-run`, { data: practice })).status()).toBe(204);
    await stop(first, 'SIGINT');
    // The database removes its lock file as the last thing it does.
    expect(existsSync(lockOf(home))).toBe(false);
    await expect(request.get(`${address}/api/session`)).rejects.toThrow('ECONNREFUSED');

    // A lock file that a killed server left behind, its number now another program's, is no obstacle.
    writeFileSync(lockOf(home), `${process.pid}\n${join(home, 'empty/data')}\n0\n1\n\n127.0.0.1\n`);
    const second = await start(home);
    // Even the session outlives the restart.
    expect(await (await request.get(`${address}/api/session`)).json()).toMatchObject({ practice: { name: 'Kept' } });
    await stop(second, 'SIGTERM');
  },
);

starts('two first starts at once, each with a port, share one database; who leaves last ends it', async ({ home }) => {
  const [one, two] = await Promise.all([start(home), start(home, '4696')]);
  expect([await readiness(), await readiness('4696')]).toEqual([200, 200]);
  // The third, on a port that is taken, is told by whom.
  expect(await refused({ PORT: port, DATABASE_URL: '', GLENFOLD_HOME: home })).toContain(
    `Glenfold runs on port ${port} already`,
  );
  const foreign = createServer().listen(4697, '127.0.0.1');
  expect(await refused({ PORT: '4697', DATABASE_URL: '', GLENFOLD_HOME: home })).toContain(
    'Another program has port 4697',
  );
  foreign.close();
  await stop(one, 'SIGINT');
  expect(await readiness('4696')).toBe(200);
  await stop(two, 'SIGINT');
  expect(existsSync(lockOf(home))).toBe(false);
});

starts(
  'server and database come back when they are killed, and a killed start leaves nothing behind',
  async ({ home }) => {
    const first = await start(home);
    process.kill(serverOf(home), 'SIGKILL');
    await expect.poll(() => first.said()).toContain('The server was lost (SIGKILL): it is started again in 1 s.');
    await expect.poll(() => readiness()).toBe(200);
    process.kill(Number(lines(home)[0]), 'SIGKILL');
    await expect.poll(() => readiness()).toBe(503);
    await expect.poll(() => readiness()).toBe(200);
    // It answers before it is said.
    await expect.poll(() => first.said()).toContain('The database is back.');

    // Nobody watches over server and database now: the next start ends the one and shares the other, and stops both.
    await stop(first, 'SIGKILL');
    expect(await readiness()).toBe(200);
    const second = await start(home);
    expect(second.said()).toContain('left running by a start that was killed');
    await stop(second, 'SIGINT');
    expect(existsSync(lockOf(home))).toBe(false);
    expect(readdirSync(home).filter((name) => /^server-.*json$/.test(name))).toEqual([]);
  },
);

starts(
  'another user of the machine gets nothing of the private database, and no role of ours is a superuser',
  async ({ home }) => {
    const started = await start(home);
    const at = lines(home)[3]!;
    const asOther = (...command: string[]) => {
      const isRoot = process.getuid?.() === 0;
      const [file, ...rest] = [...(isRoot ? ['runuser', '-u', 'nobody', '--'] : []), ...command];
      return spawnSync(file!, rest, {
        cwd: '/',
        encoding: 'utf8',
        env: { PATH: process.env.PATH, PGPASSFILE: '/none' },
      });
    };
    const ask = (role: string, sql: string, password?: string) =>
      spawnSync('psql', ['-w', '-Atq', '-h', '127.0.0.1', '-p', at, '-U', role, '-d', 'glenfold', '-c', sql], {
        encoding: 'utf8',
        env: { ...process.env, ...(password === undefined ? {} : { PGPASSWORD: password }) },
      });
    for (const role of ['glenfold', 'glenfold_owner', 'glenfold_server', 'glenfold_app', 'postgres']) {
      const entered = asOther(
        'psql',
        '-w',
        '-h',
        '127.0.0.1',
        '-p',
        at,
        '-U',
        role,
        '-d',
        'glenfold',
        '-c',
        'SELECT 1',
      );
      expect([role, entered.status]).toEqual([role, 2]);
      expect(ask(role, 'SELECT 1', 'glenfold').status).toBe(2);
    }
    if (process.getuid?.() === 0) expect(asOther('cat', join(home, 'empty/secrets.json')).stderr).toMatch(/denied/i);

    // Who has the server's password has the rows of no practice by it, and no other role than those two.
    const { server, owner } = JSON.parse(readFileSync(join(home, 'empty/secrets.json'), 'utf8')) as Record<
      string,
      string
    >;
    expect(ask('glenfold_server', 'SELECT * FROM person', server).stderr).toContain('permission denied');
    expect(ask('glenfold_server', 'SET ROLE glenfold_owner', server).stderr).toContain('permission denied');
    expect(ask('glenfold_server', 'SET ROLE glenfold_app; SELECT count(*) FROM site', server).stdout.trim()).toBe('0');
    const powers = `SELECT string_agg(rolname, ' ') FROM pg_roles
    WHERE rolname LIKE 'glenfold_%' AND (rolsuper OR rolcreaterole OR rolcreatedb OR rolbypassrls)`;
    expect(ask('glenfold_owner', powers, owner).stdout.trim()).toBe('');
    await stop(started, 'SIGINT');
  },
);

starts(
  'a private database of before, which let everybody in, is closed at the next start, and keeps its rows',
  async ({ home, request }) => {
    // As the starts before this one made it: trust for all, and everything in the hands of its superuser.
    const folder = join(home, 'empty');
    mkdirSync(folder, { recursive: true });
    const isRoot = process.getuid?.() === 0;
    if (isRoot) execFileSync('chown', ['-R', 'postgres', folder]);
    const binaries = findBinaries()!;
    const run = (program: string, ...args: string[]) => {
      const command = join(binaries, program);
      const [file, rest] = isRoot ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];
      return execFileSync(file, rest, { cwd: '/', encoding: 'utf8', stdio: 'pipe' });
    };
    const data = join(folder, 'data');
    run('initdb', '-D', data, '-U', 'glenfold', '--auth=trust', '--encoding=UTF8', '--locale=C.UTF-8');
    const at = '4748';
    const log = join(folder, 'postgres.log');
    run('pg_ctl', '-D', data, '-l', log, '-w', '-o', `-p ${at} -h 127.0.0.1 -k ''`, 'start');
    run('createdb', '-h', '127.0.0.1', '-p', at, '-U', 'glenfold', 'glenfold');
    const old = spawn(process.execPath, ['--disable-warning=ExperimentalWarning', 'apps/server/dist/main.js'], {
      cwd: root,
      env: {
        ...{ ...process.env, DATABASE_URL: `postgres://glenfold@127.0.0.1:${at}/glenfold`, DATABASE_OWNER_URL: '' },
        ...{ PORT: port, HOST: '127.0.0.1', GLENFOLD_EMPTY: '1', GLENFOLD_HOME: home },
      },
    });
    await new Promise<void>((ready) =>
      old.stdout.on('data', (text: Buffer) => String(text).includes('ready ') && ready()),
    );
    const founder = {
      practice: 'Kept',
      name: 'Ada Reed',
      email: 'ada@reed.example',
      password: 'only plain words here',
    };
    expect((await request.post(`${address}/api/first-run`, { data: founder })).status()).toBe(204);
    const ended = new Promise((done) => old.once('exit', done));
    old.kill('SIGTERM');
    await ended;
    run('pg_ctl', '-D', data, '-m', 'fast', '-w', 'stop');

    const started = await start(home);
    expect(await (await request.get(`${address}/api/session`)).json()).toMatchObject({ practice: { name: 'Kept' } });
    const place = { name: 'Quay', place: null };
    const { csrf } = (await (await request.get(`${address}/api/session`)).json()) as { csrf: string };
    const added = await request.post(`${address}/api/sites`, { data: place, headers: { 'x-csrf-token': csrf } });
    expect(added.status()).toBe(201);
    const entered = spawnSync('psql', ['-w', '-h', '127.0.0.1', '-p', lines(home)[3]!, '-U', 'glenfold', 'glenfold', '-c', 'SELECT 1']); // prettier-ignore
    expect(entered.status).toBe(2);
    await stop(started, 'SIGINT');
  },
);

test('a database that cannot be used gives one clear line and a remedy', async () => {
  for (const [url, words] of [
    ['postgres://nobody@127.0.0.1:1/none', 'The database at 127.0.0.1:1 cannot be used'],
    ['not an address', 'which is not an address'],
  ] as const)
    expect(await refused({ PORT: port, DATABASE_URL: url })).toContain(words);
});
