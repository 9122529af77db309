// npm start: everything from a fresh machine to a page that answers. Node alone until the packages are there.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { createInterface } from 'node:readline';
import { startCluster } from './postgres.mjs';
import { checkNode, ensureBuild, ensurePackages, fail, root, say } from './tools.mjs';

const empty = process.argv.includes('--empty');
const unknown = process.argv.slice(2).find((argument) => argument !== '--empty');
if (unknown) fail(`"${unknown}" is not known here.`, 'Use "npm start" or "npm start -- --empty".');

const HOST = '127.0.0.1';
const wantedPort = process.env.PORT;

function portIsFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, HOST, () => probe.close(() => resolve(true)));
  });
}

async function choosePort() {
  if (wantedPort !== undefined && !/^\d{1,5}$/.test(wantedPort))
    fail(`PORT is "${wantedPort}", which is not a port.`, 'Give a number from 1024 to 65535.');
  const port = Number(wantedPort ?? 4600);
  if (await portIsFree(port)) return port;
  return fail(
    `Port ${port} is in use, perhaps by Glenfold itself.`,
    `Open http://${HOST}:${port}/, stop what runs there, or choose another: PORT=${port + 1} npm start`,
  );
}

checkNode();
const port = await choosePort();
ensurePackages();
ensureBuild();

// Demo and empty installations live side by side; each keeps its data.
const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop: () => {} }
  : await startCluster(root, empty ? 'empty' : 'demo');

const server = spawn(
  process.execPath,
  ['--enable-source-maps', '--disable-warning=ExperimentalWarning', 'apps/server/dist/main.js'],
  {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    // Ctrl-C reaches the whole process group: the server must outlive it until it is asked to stop.
    detached: true,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: cluster.url,
      PORT: String(port),
      HOST,
      GLENFOLD_EMPTY: empty ? '1' : '0',
    },
  },
);

createInterface({ input: server.stdout }).on('line', (line) =>
  say(line.startsWith('ready ') ? `\nGlenfold is ready: http://${HOST}:${port}/\nCtrl-C stops it.` : line),
);

let stopping = false;
function stop() {
  if (stopping) return;
  stopping = true;
  say('\nStopping.');
  server.kill('SIGTERM');
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, stop);

server.on('exit', (code) => {
  cluster.stop();
  if (!stopping && code !== 0) {
    const remedy = process.env.DATABASE_URL
      ? 'Read the line above; is DATABASE_URL right and the server up?'
      : 'Read the line above; start again.';
    fail('The server stopped.', remedy);
  }
  process.exit(0);
});
