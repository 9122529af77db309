import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { SitesAnswer } from '@glenfold/contract';
import pg from 'pg';
import { createApp } from '../src/app.ts';
import { type TestServer, demoEmails, root, signIn, startServer } from './harness.ts';

let demo: TestServer;
let other: TestServer;
let folder: string;
let file: string;

/** Run a script as whoever runs the server would. */
function script(name: string, args: readonly string[], url: string): { code: number | null; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'scripts', `${name}.mjs`), ...args], {
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: url, GLENFOLD_BACKUPS: folder },
  });
  return { code: status, said: stdout + stderr };
}

/** Every row of every table, as text. */
async function everything(url: string): Promise<Record<string, unknown[]>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows: tables } = await client.query<{ name: string }>(
    `SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY 1`,
  );
  const held: Record<string, unknown[]> = {};
  for (const { name } of tables) held[name] = (await client.query(`SELECT t::text FROM "${name}" t ORDER BY 1`)).rows;
  await client.end();
  return held;
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'glenfold-backup-'));
  file = join(folder, 'all.dump');
  demo = await startServer({ empty: false });
  other = await startServer({ empty: true });
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await demo.close();
  await other.close();
});

describe('a backup', () => {
  it('is written while the server runs, and never over another', () => {
    expect(script('backup', [file], demo.url)).toMatchObject({
      code: 0,
      said: expect.stringContaining('Written') as string,
    });
    expect(script('backup', [file], demo.url)).toMatchObject({
      code: 1,
      said: expect.stringContaining('never overwritten') as string,
    });
  });

  it('goes to a second place too, whole and compared, and is closed to others', () => {
    const second = join(folder, 'second');
    expect(script('backup', [join(folder, 'two.dump'), '--also', second], demo.url)).toMatchObject({
      code: 1,
      said: expect.stringContaining('nothing was written yet') as string,
    });
    expect(readdirSync(folder)).not.toContain('two.dump');
    mkdirSync(second);
    const { code, said } = script('backup', [join(folder, 'two.dump'), '--also', second], demo.url);
    expect([code, said]).toEqual([0, expect.stringContaining('Copied and compared')]);
    expect(readFileSync(join(second, 'two.dump'))).toEqual(readFileSync(join(folder, 'two.dump')));
    expect(readdirSync(second).filter((name) => name.endsWith('.part'))).toEqual([]);
    expect(statSync(join(second, 'two.dump')).mode & 0o077).toBe(0);
  });

  it('is not restored under a running server, nor over a practice unasked, nor when it is damaged or no backup', async () => {
    const before = await everything(demo.url);
    expect(script('restore', [file], other.url).said).toContain('in use');
    await other.app.close();
    await demo.app.close();
    const [cut, note] = [join(folder, 'cut.dump'), join(folder, 'note.txt')];
    const whole = readFileSync(file);
    writeFileSync(cut, whole.subarray(0, Math.floor(whole.length * 0.8)));
    writeFileSync(note, 'not a dump');
    for (const [path, words] of [
      [file, 'Add --replace'],
      [cut, 'cut off or damaged'],
      [note, 'not a backup'],
      [join(folder, 'none'), 'There is no file'],
    ] as const) {
      const { code, said } = script('restore', [path], demo.url);
      expect([code, said]).toEqual([1, expect.stringContaining(words)]);
      expect(said).toContain('What to do: ');
    }
    expect(await everything(demo.url)).toEqual(before);
  });

  it('comes back whole, in an empty database and over another state, which is saved first', async () => {
    const whole = await everything(demo.url);
    expect(script('restore', [file, '--replace'], other.url)).toMatchObject({
      code: 0,
      said: expect.stringContaining('Brackwater Soil Advisory') as string,
    });
    expect(await everything(other.url)).toEqual(whole);

    await demo.sql(`UPDATE site SET name = 'Spoilt'`);
    const { said } = script('restore', [file, '--replace'], demo.url);
    expect(await everything(demo.url)).toEqual(whole);
    const saved = said.split(/\s/).find((word) => word.includes('before-restore') && word.endsWith('.dump')) ?? '';
    expect(script('restore', [saved, '--replace'], demo.url).code).toBe(0);
    expect(await demo.sql(`SELECT DISTINCT name FROM site`)).toEqual([{ name: 'Spoilt' }]);
  });

  it('is one that Glenfold goes on from, with its walls', async () => {
    const app = await createApp({
      root,
      databaseUrl: other.url,
      empty: false,
      address: 'http://127.0.0.1',
      quiet: true,
      plain: true,
    });
    const owner = await signIn({ app }, demoEmails.owner);
    expect(((await owner.ask('get', '/sites')).body as SitesAnswer).sites).toHaveLength(6);
    expect((await owner.ask('post', '/sites', { name: 'Next' })).status).toBe(201);
    await app.close();
  });
});
