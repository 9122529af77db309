// A private PostgreSQL cluster on loopback, for starting and testing. Node alone: runs before any package is installed.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { aptInstall, fail, say } from './tools.mjs';

const DEBIAN_BINARIES = '/usr/lib/postgresql';
const isRoot = process.getuid?.() === 0;

/** Folder of the newest installed server binaries, or nothing. */
export function findBinaries() {
  if (existsSync(DEBIAN_BINARIES)) {
    const versions = readdirSync(DEBIAN_BINARIES).sort((a, b) => Number(b) - Number(a));
    for (const version of versions) {
      const folder = join(DEBIAN_BINARIES, version, 'bin');
      if (existsSync(join(folder, 'initdb')) && existsSync(join(folder, 'postgres'))) return folder;
    }
  }
  const onPath = spawnSync('sh', ['-c', 'command -v pg_ctl && command -v initdb'], { encoding: 'utf8' });
  return onPath.status === 0 ? onPath.stdout.split('\n')[0].replace(/\/pg_ctl$/, '') : undefined;
}

function ensureBinaries() {
  const found = findBinaries();
  if (found) return found;
  say('PostgreSQL is missing: installing it from Debian’s packages.');
  aptInstall(['postgresql'], 'PostgreSQL');
  return (
    findBinaries() ??
    fail(
      'PostgreSQL was installed, but its server is not under /usr/lib/postgresql.',
      'Install the package "postgresql" by hand, or set DATABASE_URL to a server you have.',
    )
  );
}

/** The server refuses to run as root: then everything of the cluster is done as the postgres system user. */
function run(binaries, program, args, options = {}) {
  const command = join(binaries, program);
  const [file, list] = isRoot ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];
  return spawnSync(file, list, { encoding: 'utf8', cwd: '/', ...options });
}

/** A folder that the cluster's user may reach: under the project, or under /var/lib when the project is in a closed home. */
function clusterFolder(root, name) {
  const folder = join(process.env.GLENFOLD_HOME ?? join(root, '.glenfold'), name);
  mkdirSync(folder, { recursive: true });
  if (!isRoot) return folder;
  const { uid, gid } = postgresUser();
  chownSync(folder, uid, gid);
  chmodSync(folder, 0o700);
  if (spawnSync('runuser', ['-u', 'postgres', '--', 'test', '-w', folder], { cwd: '/' }).status === 0) return folder;
  rmSync(folder, { recursive: true });
  const other = join('/var/lib/glenfold', `${createHash('sha256').update(root).digest('hex').slice(0, 12)}-${name}`);
  mkdirSync(other, { recursive: true });
  chownSync(other, uid, gid);
  chmodSync(other, 0o700);
  return other;
}

function postgresUser() {
  const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  try {
    return { uid: id('-u'), gid: id('-g') };
  } catch {
    return fail(
      'The system user "postgres" is missing, and the database refuses to run as root.',
      'Install Debian’s package "postgresql", or start as an ordinary user.',
    );
  }
}

function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.on('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** Whether the cluster's server runs. A lock file left by a killed server, or whose process number now belongs to another program, does not count. */
function isRunning(binaries, data) {
  const lock = join(data, 'postmaster.pid');
  if (!existsSync(lock)) return false;
  if (!existsSync('/proc/self/stat')) return run(binaries, 'pg_ctl', ['-D', data, 'status']).status === 0;
  const pid = readFileSync(lock, 'utf8').split('\n')[0].trim();
  const stat = existsSync(`/proc/${pid}/stat`) ? readFileSync(`/proc/${pid}/stat`, 'utf8') : '';
  const alive = /\(postgres\) [^ZX]/.test(stat);
  if (!alive) rmSync(lock);
  return alive;
}

function logTail(log) {
  return existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').slice(-3).join(' | ') : 'no log was written';
}

/**
 * Start the cluster of that name, creating it when it is new.
 * @returns {Promise<{url: string, stop: () => void}>} the database's address and how to stop what was started here
 */
export async function startCluster(root, name, { scratch = false } = {}) {
  const binaries = ensureBinaries();
  const folder = clusterFolder(root, name);
  const data = join(folder, 'data');
  const log = join(folder, 'postgres.log');
  const remedy = `Look into ${log}; to begin anew, delete ${folder} (its data is lost), or set DATABASE_URL.`;

  if (scratch && !isRunning(binaries, data)) rmSync(data, { recursive: true, force: true });
  if (!existsSync(join(data, 'PG_VERSION'))) {
    rmSync(data, { recursive: true, force: true });
    const made = run(binaries, 'initdb', [
      '-D',
      data,
      '-U',
      'glenfold',
      '--auth=trust',
      '--encoding=UTF8',
      '--locale=C.UTF-8',
      ...(scratch ? ['--no-sync'] : []),
    ]);
    if (made.status !== 0)
      fail(`The database cluster could not be created: ${made.stderr.trim().split('\n').at(-1)}`, remedy);
  }
  const version = readFileSync(join(data, 'PG_VERSION'), 'utf8').trim();
  const installed = run(binaries, 'postgres', ['--version']).stdout.match(/\d+/)?.[0];
  if (version !== installed)
    fail(
      `The database folder was made by PostgreSQL ${version}, but ${installed} is installed.`,
      `Install PostgreSQL ${version}, or dump and reload. ${remedy}`,
    );

  const running = isRunning(binaries, data);
  const port = running ? Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3]) : await freePort();
  if (!running) {
    const options = [
      `-p ${port}`,
      '-h 127.0.0.1',
      "-k ''",
      ...(scratch ? ['-c fsync=off', '-c synchronous_commit=off'] : []),
    ].join(' ');
    const started = run(binaries, 'pg_ctl', ['-D', data, '-l', log, '-w', '-t', '60', '-o', options, 'start'], {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    if (started.status !== 0) fail(`The database did not start: ${logTail(log)}`, remedy);
  }
  const exists = run(binaries, 'psql', [
    '-h',
    '127.0.0.1',
    '-p',
    String(port),
    '-U',
    'glenfold',
    '-d',
    'postgres',
    '-Atc',
    "select 1 from pg_database where datname = 'glenfold'",
  ]);
  if (exists.status !== 0) fail(`The database does not answer: ${exists.stderr.trim()}`, remedy);
  if (exists.stdout.trim() !== '1')
    run(binaries, 'createdb', ['-h', '127.0.0.1', '-p', String(port), '-U', 'glenfold', 'glenfold']);
  return {
    url: `postgres://glenfold@127.0.0.1:${port}/glenfold`,
    stop: () => {
      if (!running) run(binaries, 'pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']);
    },
  };
}
