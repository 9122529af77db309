// npm run several: two or more servers behind Debian's nginx, which speaks TLS, before one PostgreSQL.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, openSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { homeFolder, startCluster } from './postgres.mjs';
import { aptInstall, checkNode, ensureBuild, ensurePackages, fail, root, say } from './tools.mjs';
import { growingPauses, inSeconds } from './watch.mjs';

const USE =
  'Use "npm run several -- --url https://lawns.example --certificate cert.pem --key key.pem [--servers 2] [--listen 443]".';
/** The first server's port; the others follow. */
const FIRST_PORT = 4611;
const MOST_SERVERS = 16;

/** nginx in a folder of its own, as whoever started it: nothing of the machine's own configuration is touched. */
export function nginxConfiguration({ folder, listen, host, certificate, key, ports }) {
  return `worker_processes auto;
daemon off;
pid ${join(folder, 'nginx.pid')};
error_log ${join(folder, 'nginx.log')} warn;
events { worker_connections 1024; }
http {
  access_log off;
  server_tokens off;
${['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((kind) => `  ${kind}_temp_path ${join(folder, 'passing')};`).join('\n')}
  upstream glenfold {
    least_conn;
${ports.map((port) => `    server 127.0.0.1:${port} max_fails=1 fail_timeout=2s;`).join('\n')}
    keepalive 16;
  }
  server {
    listen ${listen} ssl;
    server_name ${host};
    ssl_certificate ${certificate};
    ssl_certificate_key ${key};
    ssl_protocols TLSv1.2 TLSv1.3;
    ssl_session_tickets off;
    # Photos and exports pass as they come: the server itself says what is too large.
    client_max_body_size 0;
    proxy_request_buffering off;
    proxy_read_timeout 300s;
    location / {
      proxy_pass http://glenfold;
      proxy_http_version 1.1;
      proxy_set_header Connection "";
      proxy_set_header Host $http_host;
      # Set, not added to: what a visitor claims of himself does not pass.
      proxy_set_header X-Forwarded-For $remote_addr;
      proxy_set_header X-Forwarded-Proto https;
      proxy_set_header X-Request-Id $request_id;
      # A server that is gone, or cannot reach the database, is passed over; what changes something is never sent twice.
      proxy_next_upstream error timeout http_503;
    }
  }
}
`;
}

function readArguments() {
  try {
    const { values } = parseArgs({
      options: {
        url: { type: 'string' },
        certificate: { type: 'string' },
        key: { type: 'string' },
        servers: { type: 'string', default: '2' },
        listen: { type: 'string', default: '443' },
        empty: { type: 'boolean', default: false },
      },
    });
    return values;
  } catch (error) {
    return fail(error.message, USE);
  }
}

const { url = '', certificate = '', key = '', servers, listen, empty } = readArguments();
const count = Number(servers);
if (!URL.canParse(url) || new URL(url).protocol !== 'https:')
  fail(`--url is "${url}", which is no https address that people open.`, USE);
for (const [name, file] of Object.entries({ certificate, key }))
  if (!existsSync(file))
    fail(`--${name} is "${file}", which is no file.`, `${USE} A certificate comes from whoever signs for your name.`);
if (!Number.isInteger(count) || count < 1 || count > MOST_SERVERS)
  fail(`--servers is "${servers}".`, `Give a whole number of 1 to ${MOST_SERVERS}.`);

checkNode();
await ensurePackages();
await ensureBuild();
if (spawnSync('sh', ['-c', 'command -v nginx']).status !== 0) {
  say('nginx is missing: installing it from Debian’s packages.');
  aptInstall(['nginx-light'], 'nginx');
}
const { DATABASE_URL } = process.env;
const cluster = DATABASE_URL
  ? { url: DATABASE_URL, ownerUrl: process.env.DATABASE_OWNER_URL ?? '', stop: () => {} }
  : await startCluster(root, empty ? 'empty' : 'demo');

const folder = join(homeFolder(root), 'several');
mkdirSync(folder, { recursive: true, mode: 0o700 });
const ports = Array.from({ length: count }, (_, at) => Number(process.env.PORT ?? FIRST_PORT) + at);
const configuration = join(folder, 'nginx.conf');
writeFileSync(
  configuration,
  nginxConfiguration({
    ...{ folder, listen, ports },
    host: new URL(url).hostname,
    certificate: resolve(certificate),
    key: resolve(key),
  }),
);

let stopping = false;
const running = new Map();

/** Start something, and start it again when it is lost, each time after a longer pause. @returns when it is up */
function keep(name, command, args, options, isUp) {
  const pauses = growingPauses();
  let wasUp = false;
  return new Promise((done) => {
    const up = () => {
      wasUp = true;
      done();
    };
    const begin = () => {
      pauses.began();
      const child = spawn(command, args, { cwd: root, detached: true, ...options });
      running.set(name, child);
      child.stdout?.on('data', (chunk) => isUp(String(chunk)) && up());
      // nginx says nothing when all is well.
      if (!child.stdout) setTimeout(() => running.has(name) && up(), 500);
      child.on('exit', (code, signal) => {
        running.delete(name);
        if (stopping) return end();
        if (!wasUp) return giveUp(name);
        const wait = pauses.lost();
        say(`${name} was lost (${signal ?? `it ended with ${code}`}): it is started again in ${inSeconds(wait)}.`);
        setTimeout(() => !stopping && begin(), wait);
      });
    };
    begin();
  });
}

/** What does not even begin is not tried for ever: the ports may be somebody else's, or the certificate no good. */
function giveUp(name) {
  for (const child of running.values()) child.kill('SIGTERM');
  cluster.stop();
  fail(
    `${name} did not start.`,
    `Read the lines above and the logs in ${folder}: is its port free, and the certificate good?`,
  );
}

function end() {
  if (running.size > 0) return;
  cluster.stop();
  process.exit(0);
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    say('\nStopping.');
    for (const child of running.values()) child.kill('SIGTERM');
    end();
  });

for (const port of ports) {
  const log = openSync(join(folder, `server-${port}.log`), 'a', 0o600);
  await keep(
    `Server ${port}`,
    process.execPath,
    ['--enable-source-maps', '--disable-warning=ExperimentalWarning', 'apps/server/dist/main.js'],
    {
      stdio: ['ignore', 'pipe', log],
      env: {
        ...process.env,
        ...{ NODE_ENV: 'production', GLENFOLD_URL: url, GLENFOLD_LOG: process.env.GLENFOLD_LOG ?? 'info' },
        ...{ DATABASE_URL: cluster.url, DATABASE_OWNER_URL: cluster.ownerUrl, GLENFOLD_EMPTY: empty ? '1' : '0' },
        ...{ HOST: '127.0.0.1', PORT: String(port) },
      },
    },
    (text) => text.includes('ready '),
  );
}
await keep(
  'nginx',
  'nginx',
  ['-c', configuration, '-e', join(folder, 'nginx.log')],
  { stdio: ['ignore', 'ignore', 'inherit'] },
  () => true,
);
say(`\n${count} servers behind ${url}, logs in ${folder}.\nCtrl-C stops them all.`);
