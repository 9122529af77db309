import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from './person.ts';

const root = resolve(import.meta.dirname, '../..');
const port = '4695';
const address = `http://127.0.0.1:${port}`;

/** npm start in its own home, until it prints its address. */
async function start(home: string, env: Record<string, string> = {}): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: '', PORT: port, GLENFOLD_HOME: home, ...env },
  });
  await new Promise<void>((ready, failed) => {
    let said = '';
    child.stdout.on('data', (chunk: Buffer) => {
      said += String(chunk);
      // What is built already is not built again, under a server that serves it.
      if (said.includes('Building')) failed(new Error('builds what is built'));
      if (said.includes(address)) ready();
    });
    child.on('exit', (code) => failed(new Error(`ended with ${String(code)}`)));
  });
  return child;
}

async function stop(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  const ended = new Promise((done) => child.once('exit', done));
  child.kill(signal);
  await ended;
}

test('a start makes its database, Ctrl-C stops all of it, and the data is there the next time', async ({ request }) => {
  const home = mkdtempSync(join(tmpdir(), 'glenfold-'));
  // The database's own user must reach its folder.
  const reachable = process.getuid?.() === 0 ? join('/var/tmp', `glenfold-test-${process.pid}`) : home;
  const lock = (): string => join(reachable, 'empty/data/postmaster.pid');
  try {
    const first = await start(reachable);
    const practice = {
      practice: 'Kept',
      name: 'Ada Reed',
      email: 'ada@reed.example',
      password: 'only plain words here',
    };
    expect((await request.post(`${address}/api/first-run`, { data: practice })).status()).toBe(204);
    await stop(first, 'SIGINT');
    // The database removes its lock file as the last thing it does.
    expect(existsSync(lock())).toBe(false);
    await expect(request.get(`${address}/api/session`)).rejects.toThrow('ECONNREFUSED');

    // A lock file that a killed server left behind, its number now another program's, is no obstacle.
    writeFileSync(lock(), `${process.pid}\n${join(reachable, 'empty/data')}\n0\n1\n\n127.0.0.1\n`);
    const second = await start(reachable);
    // Even the session outlives the restart.
    expect(await (await request.get(`${address}/api/session`)).json()).toMatchObject({ practice: { name: 'Kept' } });
    await stop(second, 'SIGTERM');
  } finally {
    rmSync(home, { recursive: true, force: true });
    rmSync(reachable, { recursive: true, force: true });
  }
});

test('a database that cannot be used gives one clear line and a remedy', async () => {
  for (const [url, words] of [
    ['postgres://nobody@127.0.0.1:1/none', 'The database at 127.0.0.1:1 cannot be used'],
    ['not an address', 'which is not an address'],
  ] as const) {
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, PORT: port, DATABASE_URL: url },
    });
    let errors = '';
    child.stderr.on('data', (chunk: Buffer) => (errors += String(chunk)));
    const code = await new Promise((done) => child.once('exit', done));
    expect(code).toBe(1);
    expect(errors).toContain(words);
    expect(errors).toContain('What to do: ');
    expect(errors).not.toContain('    at ');
  }
});
