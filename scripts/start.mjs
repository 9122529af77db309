// npm start: everything from a fresh machine to a page that answers. Node alone until the packages are there.
import { spawn } from 'node:child_process';
import { appendFileSync, existsSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { setTimeout as pause } from 'node:timers/promises';
import { bornAt, oneAtATime } from './locks.mjs';
import { homeFolder, startCluster } from './postgres.mjs';
import { checkNode, ensureBuild, ensurePackages, fail, root, say } from './tools.mjs';
import { growingPauses, inSeconds } from './watch.mjs';

const empty = process.argv.includes('--empty');
const unknown = process.argv.slice(2).find((argument) => argument !== '--empty');
if (unknown) fail(`"${unknown}" is not known here.`, 'Use "npm start" or "npm start -- --empty".');

const HOST = '127.0.0.1';
const wantedPort = process.env.PORT;
/** ms between two looks at the database. */
const LOOKS_AT_DATABASE = 1_000;
/** Level of pino's from which a line is about a fault. */
const ERROR = 50;
/** bytes from which a log is put aside at a start. */
const LONG_LOG = 10_000_000;
/** ms that a server has to end by itself. */
const ENDS_WITHIN = 20_000;

function portIsFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, HOST, () => probe.close(() => resolve(true)));
  });
}

/** Whether what answers there is Glenfold, and not some other program. */
async function isGlenfold(port) {
  try {
    const answer = await fetch(`http://${HOST}:${port}/api/health`, { signal: AbortSignal.timeout(2_000) });
    return (await answer.json()).name === 'Glenfold';
  } catch {
    return false;
  }
}

/** Who serves on a port, and who watches over it, for the start that comes after a kill. */
const recordOf = (port) => join(homeFolder(root), `server-${port}.json`);

function writeRecord(port, server) {
  const sign = (pid) => ({ pid, born: bornAt(pid) });
  writeFileSync(recordOf(port), JSON.stringify({ server: sign(server), start: sign(process.pid) }));
}

/** Ends a server whose start was killed, and which nobody watches over. @returns whether there was one */
async function endLeftover(port) {
  if (!existsSync(recordOf(port))) return false;
  const lives = ({ pid, born }) => born !== undefined && bornAt(pid) === born;
  let record;
  try {
    record = JSON.parse(readFileSync(recordOf(port), 'utf8'));
  } catch {
    return false;
  }
  if (lives(record.start) || !lives(record.server)) return false;
  say('A server was left running by a start that was killed: it is ended, and started anew.');
  process.kill(record.server.pid, 'SIGTERM');
  for (let waited = 0; lives(record.server); waited += 100) {
    if (waited === ENDS_WITHIN) process.kill(record.server.pid, 'SIGKILL');
    await pause(100);
  }
  return true;
}

async function choosePort() {
  if (wantedPort !== undefined && !/^\d{1,5}$/.test(wantedPort))
    fail(`PORT is "${wantedPort}", which is not a port.`, 'Give a number from 1024 to 65535.');
  const port = Number(wantedPort ?? 4600);
  if (await portIsFree(port)) return port;
  if ((await endLeftover(port)) && (await portIsFree(port))) return port;
  const elsewhere = `choose another: PORT=${port + 1} npm start`;
  return (await isGlenfold(port))
    ? fail(
        `Glenfold runs on port ${port} already.`,
        `Open http://${HOST}:${port}/; to start it anew, stop that one first (Ctrl-C where it was started), or ${elsewhere}`,
      )
    : fail(`Another program has port ${port}.`, `Stop that program, or ${elsewhere}`);
}

checkNode();
let port = await choosePort();
await oneAtATime(homeFolder(root), 'preparing', async () => {
  await ensurePackages();
  await ensureBuild();
});

// Another start may have come first meanwhile.
port = await choosePort();

// Demo and empty installations live side by side; each keeps its data.
if (!process.env.DATABASE_URL) say('Starting the private database.');
const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, ownerUrl: process.env.DATABASE_OWNER_URL ?? '', isUp: () => true, stop: () => {} }
  : await startCluster(root, empty ? 'empty' : 'demo');

const log = join(homeFolder(root), `server-${port}.log`);
if (existsSync(log) && statSync(log).size > LONG_LOG) renameSync(log, `${log}.before`);

let addresses = cluster;
let server;
let waiting;
let wasReady = false;
let stopping = false;
const serverPauses = growingPauses();
const databasePauses = growingPauses();

function end(code = 0) {
  rmSync(recordOf(port), { force: true });
  cluster.stop();
  process.exit(code);
}

function startServer() {
  waiting = undefined;
  serverPauses.began();
  server = spawn(
    process.execPath,
    ['--enable-source-maps', '--disable-warning=ExperimentalWarning', 'apps/server/dist/main.js'],
    {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      // Ctrl-C reaches the whole process group: the server must outlive it until it is asked to stop.
      detached: true,
      env: {
        ...process.env,
        NODE_ENV: 'production',
        DATABASE_URL: addresses.url,
        DATABASE_OWNER_URL: addresses.ownerUrl,
        PORT: String(port),
        HOST,
        GLENFOLD_EMPTY: empty ? '1' : '0',
      },
    },
  );
  writeRecord(port, server.pid);
  createInterface({ input: server.stdout }).on('line', (line) => {
    if (!line.startsWith('ready ')) {
      if (!wasReady) say(line);
    } else if (wasReady) say('It is back.');
    else say(`\nGlenfold is ready: http://${HOST}:${port}/\nCtrl-C stops it.`);
    wasReady ||= line.startsWith('ready ');
  });
  createInterface({ input: server.stderr }).on('line', writeDown);
  // When all it has printed is read, too.
  server.on('close', serverEnded);
}

/** The log keeps what the server tells; a fault is told here as well, and all that is no line of the log. */
function writeDown(line) {
  let told;
  try {
    told = JSON.parse(line);
  } catch {
    process.stderr.write(`${line}\n`);
  }
  appendFileSync(log, `${line}\n`, { mode: 0o600 });
  if (told?.level >= ERROR) say(`A fault of ours: ${told.err?.message ?? told.msg}. More of it is in ${log}.`);
}

function serverEnded(code, signal) {
  server = undefined;
  if (stopping) end();
  if (!wasReady) {
    process.stderr.write('\n');
    rmSync(recordOf(port), { force: true });
    cluster.stop();
    const remedy = process.env.DATABASE_URL
      ? 'Read the line above; is DATABASE_URL right and the server up?'
      : 'Read the line above; start again.';
    fail('The server stopped.', remedy);
  }
  const wait = serverPauses.lost();
  say(`The server was lost (${signal ?? `it ended with ${code}`}): it is started again in ${inSeconds(wait)}.`);
  waiting = setTimeout(startServer, wait);
}

/** The database comes back where it was; the server waits for it, and is told only when its address is another one. */
async function watchDatabase() {
  while (!stopping) {
    await pause(LOOKS_AT_DATABASE);
    if (stopping || cluster.isUp()) continue;
    const wait = databasePauses.lost();
    say(`The database was lost: it is started again in ${inSeconds(wait)}.`);
    await pause(wait);
    if (stopping) return;
    const again = await cluster.again();
    databasePauses.began();
    if (!again) say(`It did not start: ${cluster.problem()}`);
    else {
      say('The database is back.');
      const moved = again.url !== addresses.url;
      addresses = { ...cluster, ...again };
      if (moved) server?.kill('SIGTERM');
    }
  }
}

function stop(signal) {
  if (stopping) {
    // Asked twice: at once.
    if (signal !== 'SIGHUP') server?.kill('SIGKILL');
    return;
  }
  stopping = true;
  say('\nStopping.');
  if (waiting) {
    clearTimeout(waiting);
    end();
  } else if (server) server.kill('SIGTERM');
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, stop);

say('Starting the server.');
startServer();
void watchDatabase();
