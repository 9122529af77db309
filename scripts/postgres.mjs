// A private PostgreSQL cluster on loopback, for starting and testing. Node alone: runs before any package is installed.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import {
  ADMIN,
  addressesOf,
  adminPassword,
  closeDoors,
  ownershipSql,
  rolesSql,
  secretsOf,
  sqlOn,
  trustsAnybody,
} from './clusterRoles.mjs';
import { leave, oneAtATime, use } from './locks.mjs';
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

/** Folder of what is kept between starts. */
export const homeFolder = (root) => process.env.GLENFOLD_HOME ?? join(root, '.glenfold');

/** A folder that the cluster's user may reach: under the project, or under /var/lib when the project is in a closed home. */
function clusterFolder(root, name) {
  const folder = join(homeFolder(root), name);
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

/** Port that the running server of a cluster listens on. */
const portOf = (data) => Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3]);

/** A new cluster, which nobody enters without a password from its first moment. */
function initialise({ binaries, folder, data, secrets, scratch, remedy }) {
  rmSync(data, { recursive: true, force: true });
  const pwfile = join(folder, 'first.password');
  writeFileSync(pwfile, secrets.admin, { mode: 0o600 });
  if (isRoot) chownSync(pwfile, postgresUser().uid, postgresUser().gid);
  const fixed = ['-U', ADMIN, '--auth=scram-sha-256', `--pwfile=${pwfile}`, '--encoding=UTF8', '--locale=C.UTF-8'];
  const made = run(binaries, 'initdb', ['-D', data, ...fixed, ...(scratch ? ['--no-sync'] : [])]);
  rmSync(pwfile, { force: true });
  if (made.status !== 0)
    fail(`The database cluster could not be created: ${made.stderr.trim().split('\n').at(-1)}`, remedy);
}

/** A cluster of before, or one whose passwords are lost, gets its passwords while nobody can reach it. */
function secure({ binaries, data, secrets, remedy }) {
  const alone = run(binaries, 'postgres', ['--single', '-D', data, 'postgres'], {
    input: `${adminPassword(secrets)}\n`,
  });
  if (alone.status !== 0)
    fail(`The database could not be given its password: ${alone.stderr.trim().split('\n').at(-1)}`, remedy);
  closeDoors(data);
}

/** Start the server of a cluster on a port. @returns whether it did */
function startServer({ binaries, data, log, scratch }, port) {
  const options = [
    `-p ${port}`,
    '-h 127.0.0.1',
    "-k ''",
    ...(scratch ? ['-c fsync=off', '-c synchronous_commit=off'] : []),
  ].join(' ');
  const args = ['-D', data, '-l', log, '-w', '-t', '60', '-o', options, 'start'];
  return run(binaries, 'pg_ctl', args, { stdio: ['ignore', 'ignore', 'pipe'] }).status === 0;
}

/**
 * Start the cluster of that name, creating it when it is new; or share the one that runs. Who leaves last stops it,
 * whoever started it.
 *
 * @returns the database's addresses, as the server enters it (`url`), as the owner of its tables (`ownerUrl`) and as
 *   who makes databases (`adminUrl`); `isUp`, `again` to start it once more after it was lost (with its port, where
 *   that is free), and `stop`
 */
export async function startCluster(root, name, { scratch = false } = {}) {
  const binaries = ensureBinaries();
  const folder = clusterFolder(root, name);
  const data = join(folder, 'data');
  const log = join(folder, 'postgres.log');
  const remedy = `Look into ${log}; to begin anew, delete ${folder} (its data is lost), or set DATABASE_URL.`;
  const stopServer = () => run(binaries, 'pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']);

  return oneAtATime(folder, 'starting', async () => {
    const files = join(folder, 'files');
    if (scratch) {
      // What a run that was killed has left is of its code, and perhaps half made: begun anew.
      if (leave(folder) && isRunning(binaries, data)) stopServer();
      if (!isRunning(binaries, data)) for (const made of [data, files]) rmSync(made, { recursive: true, force: true });
      mkdirSync(files, { recursive: true });
    }
    const isNew = !existsSync(join(data, 'PG_VERSION'));
    const known = existsSync(join(folder, 'secrets.json'));
    const secrets = secretsOf(folder);
    const cluster = { binaries, folder, data, log, secrets, scratch, remedy };
    if (isNew) initialise(cluster);
    const version = readFileSync(join(data, 'PG_VERSION'), 'utf8').trim();
    const installed = run(binaries, 'postgres', ['--version']).stdout.match(/\d+/)?.[0];
    if (version !== installed)
      fail(
        `The database folder was made by PostgreSQL ${version}, but ${installed} is installed.`,
        `Install PostgreSQL ${version}, or dump and reload. ${remedy}`,
      );
    if (trustsAnybody(data) || (!isNew && !known)) {
      if (isRunning(binaries, data)) stopServer();
      secure(cluster);
    }
    const start = async () => {
      if (isRunning(binaries, data)) return portOf(data);
      const port = await freePort();
      if (!startServer(cluster, port)) fail(`The database did not start: ${logTail(log)}`, remedy);
      return port;
    };
    let port = await start();
    const of = (database) => addressesOf(secrets, port, database);
    const must = (url, sql) => {
      const { status, stdout, stderr } = sqlOn(binaries, url, sql);
      if (status !== 0) fail(`The database does not answer: ${stderr.trim()}`, remedy);
      return stdout.trim();
    };
    const { adminUrl } = of('postgres');
    must(adminUrl, rolesSql(secrets));
    if (must(adminUrl, "SELECT 1 FROM pg_database WHERE datname = 'glenfold';") !== '1')
      must(adminUrl, 'CREATE DATABASE glenfold;');
    must(of('glenfold').adminUrl, ownershipSql);
    use(folder);
    return {
      ...of('glenfold'),
      /** Folder of the files of a scratch cluster's databases, which ends with them. */
      files,
      isUp: () => isRunning(binaries, data),
      /** @returns the addresses, which are others where its port was taken meanwhile; nothing when it did not start */
      again: async () => {
        if (!isRunning(binaries, data) && !startServer(cluster, port)) {
          const other = await freePort();
          if (!startServer(cluster, other)) return undefined;
          port = other;
        }
        return of('glenfold');
      },
      problem: () => logTail(log),
      /** As a power cut does it: for trying what is left after. */
      crash: () => {
        const [pid] = readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n');
        process.kill(Number(pid), 'SIGKILL');
      },
      stop: () => {
        if (leave(folder) && isRunning(binaries, data)) stopServer();
      },
    };
  });
}
