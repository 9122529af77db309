// npm run restore -- FILE: put a backup in the place of the database; all of it or nothing.
import { spawnSync } from 'node:child_process';
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ask, backupFolder, dump, filesFolder, postgres, targetDatabase } from './dump.mjs';
import { checkNode, fail, root, say } from './tools.mjs';

const UNCHANGED = 'Nothing was changed.';

checkNode();
// What is written is closed to everybody else on the machine.
process.umask(0o077);
const args = process.argv.slice(2);
const flags = args.filter((argument) => argument.startsWith('--'));
const [name, ...more] = args.filter((argument) => !argument.startsWith('--'));
if (!name || more.length > 0 || flags.some((flag) => !['--replace', '--empty'].includes(flag)))
  fail('Say which backup.', 'Use "npm run restore -- FILE"; add --replace where there is a practice already.');
const file = resolve(name);
if (!existsSync(file)) fail(`There is no file ${file}.`, 'Give the file that "npm run backup" wrote.');

const listed = postgres('pg_restore', ['--list', file]);
if (!listed.ok || !listed.text.includes(' TABLE public practice '))
  fail(
    `${file} is not a backup of Glenfold${listed.ok ? '' : `: ${listed.problem}`}. ${UNCHANGED}`,
    'Give the file that "npm run backup" wrote, whole.',
  );

const work = mkdtempSync(join(tmpdir(), 'glenfold-restore-'));
process.on('exit', () => rmSync(work, { recursive: true, force: true }));
const script = join(work, 'restore.sql');
writeFileSync(
  script,
  `SET lock_timeout = '10s';
   DO $$ BEGIN
     IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'glenfold_app') THEN CREATE ROLE glenfold_app NOLOGIN; END IF;
     IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'glenfold_door') THEN CREATE ROLE glenfold_door NOLOGIN; END IF;
   END $$;
   DROP SCHEMA public CASCADE;
   DROP SCHEMA IF EXISTS pgboss CASCADE;
   CREATE SCHEMA public;
   GRANT USAGE ON SCHEMA public TO PUBLIC;
`,
);
const body = join(work, 'body.sql');
const unpacked = postgres('pg_restore', ['--no-owner', `--file=${body}`, file]);
if (!unpacked.ok)
  fail(`The backup is cut off or damaged: ${unpacked.problem}. ${UNCHANGED}`, 'Copy it again, or take an earlier one.');
const sql = readFileSync(body, 'utf8').replace(/^CREATE SCHEMA public;$/m, '');
refuseNewer(sql);
appendFileSync(script, sql);

const { url } = await targetDatabase(flags.includes('--empty'));
const others = Number(
  ask(
    url,
    "SELECT count(*) FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'glenfold'",
  ),
);
if (others > 0)
  fail(`The database is in use, by Glenfold itself perhaps. ${UNCHANGED}`, 'Stop it (Ctrl-C), then restore.');
const practices =
  ask(url, `SELECT CASE WHEN to_regclass('public.practice') IS NULL THEN 0 ELSE 1 END`) === '1'
    ? ask(url, "SELECT string_agg(name, ', ') FROM practice")
    : '';
if (practices !== '' && !flags.includes('--replace'))
  fail(
    `The database holds ${practices}. ${UNCHANGED}`,
    'Add --replace to put the backup in its place: what is there now is saved to a file first.',
  );
if (practices !== '') {
  mkdirSync(backupFolder, { recursive: true });
  const safe = join(backupFolder, `before-restore-${new Date().toISOString().replace(/[:.]/g, '')}.dump`);
  dump(url, safe);
  say(`What was there is saved: ${safe}`);
}
const done = postgres('psql', [
  '--no-psqlrc',
  '--quiet',
  '--single-transaction',
  '--set=ON_ERROR_STOP=1',
  `--file=${script}`,
  url,
]);
if (!done.ok)
  fail(`The backup was not taken: ${done.problem}. ${UNCHANGED}`, 'Read the line above; an earlier backup may do.');
// Files are named by their content: what is there stays, what is missing comes back.
if (existsSync(`${file}.files.tar`)) {
  mkdirSync(filesFolder, { recursive: true });
  const { status } = spawnSync('tar', ['-xf', `${file}.files.tar`, '--skip-old-files', '-C', filesFolder]);
  if (status !== 0) fail('The files beside the database could not be unpacked.', 'Unpack them by hand, with tar.');
}
say(
  `Restored: ${ask(url, "SELECT string_agg(name, ', ') FROM practice") || 'an installation without a practice'}. Start Glenfold to go on.`,
);

/** A later version may have tables that this one would not know what to do with. */
function refuseNewer(text) {
  const known = readdirSync(join(root, 'apps/server/src/migrations')).map((entry) => entry.split('-')[0]);
  const rows = /^COPY public\.migrations [^\n]*\n([\s\S]*?)^\\\.$/m.exec(text)?.[1] ?? '';
  const unknown = rows
    .split('\n')
    .map((row) => row.split('\t'))
    .find(([, timestamp]) => timestamp && !known.includes(timestamp));
  if (unknown)
    fail(`The backup was made by a newer Glenfold (${unknown[2]}). ${UNCHANGED}`, 'Update Glenfold, then restore.');
}
