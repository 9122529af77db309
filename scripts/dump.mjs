// What backup and restore share. Node alone.
import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, openSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { findBinaries, startCluster } from './postgres.mjs';
import { fail, root } from './tools.mjs';

/** Where backups go that were given no name. */
export const backupFolder = process.env.GLENFOLD_BACKUPS ?? join(root, 'backups');

/** Where photos and laboratories' files are kept. */
export const filesFolder =
  process.env.GLENFOLD_FILES ?? join(process.env.GLENFOLD_HOME ?? join(root, '.glenfold'), 'files');

/** The database meant: DATABASE_URL, or the private one of "npm start", started for the while if it is not up. */
export async function targetDatabase(empty) {
  const { DATABASE_URL } = process.env;
  if (DATABASE_URL) return { url: DATABASE_URL, stop: () => {} };
  const cluster = await startCluster(root, empty ? 'empty' : 'demo');
  process.on('exit', () => cluster.stop());
  return { url: cluster.ownerUrl, stop: cluster.stop };
}

/** A program of PostgreSQL's; its output is text, or goes into a file. */
export function postgres(program, args, { into } = {}) {
  const folder = findBinaries();
  const command = folder && existsSync(join(folder, program)) ? join(folder, program) : program;
  const result = spawnSync(command, args, {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    stdio: ['ignore', into ?? 'pipe', 'pipe'],
    env: { ...process.env, PGCONNECT_TIMEOUT: '10' },
  });
  if (result.error)
    fail(`${program} is missing: ${result.error.message}.`, 'Install Debian’s package "postgresql-client".');
  return { ok: result.status === 0, text: result.stdout ?? '', problem: lastLine(result.stderr) };
}

function lastLine(text) {
  return (text ?? '').trim().split('\n').at(-1) ?? '';
}

/** Write the whole database into a file; a file that is there is never half of it. */
export function dump(url, file) {
  const part = `${file}.part`;
  const handle = openSync(part, 'wx');
  const { ok, problem } = postgres('pg_dump', ['--format=custom', '--no-owner', `--dbname=${url}`], { into: handle });
  closeSync(handle);
  if (!ok) {
    rmSync(part);
    fail(`The backup failed: ${problem}.`, 'Is DATABASE_URL right, and the server up? Nothing was written.');
  }
  renameSync(part, file);
  return statSync(file).size;
}

/** One value, as psql prints it. */
export function ask(url, sql) {
  const { ok, text, problem } = postgres('psql', ['--no-psqlrc', '-Atc', sql, url]);
  if (!ok) fail(`The database cannot be asked: ${problem}.`, 'Is DATABASE_URL right, and the server up?');
  return text.trim();
}
