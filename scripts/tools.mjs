// What the start, test and bench scripts share. Node alone.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** One clear line and a remedy, then the end. */
export function fail(problem, remedy) {
  process.stderr.write(`\n${problem}\n  What to do: ${remedy}\n`);
  process.exit(1);
}

/** Run a command in the project's folder; its output is shown only when it fails, unless `show`. */
export function run(command, args, { show = false, env = {}, remedy = 'Read the lines above.' } = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    encoding: 'utf8',
    stdio: show ? 'inherit' : ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
    maxBuffer: 1 << 28,
  });
  if (result.status === 0) return;
  if (!show) process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`);
  fail(`"${[command, ...args].join(' ')}" failed${result.error ? `: ${result.error.message}` : ''}.`, remedy);
}

/** ms between two lines about what takes long. */
const TELLS_EVERY = 15_000;

/** Run a command that takes long: it is said what for, that it goes on, and how long it took. */
export async function runTelling(what, command, args, { env = {}, remedy = 'Read the lines above.' } = {}) {
  const began = Date.now();
  const soFar = () => `${Math.round((Date.now() - began) / 1000)} s`;
  say(`${what}.`);
  const telling = setInterval(() => say(`  still at it: ${soFar()}`), TELLS_EVERY);
  let printed = '';
  const code = await new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (printed += chunk));
    child.on('error', (error) => (printed += error.message));
    child.on('close', done);
  });
  clearInterval(telling);
  if (code === 0) return say(`  done in ${soFar()}: ${what}`);
  process.stderr.write(printed);
  return fail(`"${[command, ...args].join(' ')}" failed.`, remedy);
}

/** Run a command and show what it says; the scripts beside it go on. */
export async function runToEnd(command, args, env = {}) {
  const code = await new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    child.on('error', () => done(1));
    child.on('close', done);
  });
  if (code !== 0) fail(`"${[command, ...args].join(' ')}" failed.`, 'Read the lines above.');
}

/** Run scripts of package.json side by side; the first that fails ends all, with what it printed. */
export async function runAll(scripts) {
  await Promise.all(
    scripts.map(
      ([name, remedy = 'Read the lines above.', args = []]) =>
        new Promise((done) => {
          const child = spawn('npm', ['run', '--silent', name, ...args], {
            cwd: root,
            stdio: ['ignore', 'pipe', 'pipe'],
          });
          let printed = '';
          const keep = (chunk) => (printed += chunk);
          child.stdout.on('data', keep);
          child.stderr.on('data', keep);
          child.on('exit', (code) => {
            if (code === 0) return done();
            process.stderr.write(printed);
            fail(`"npm run ${name}" failed.`, remedy);
          });
        }),
    ),
  );
}

/** Install Debian packages, as root or through sudo. */
export function aptInstall(packages, what) {
  const byHand = `Install ${what} by hand (apt-get install ${packages.join(' ')}) and start again.`;
  if (spawnSync('sh', ['-c', 'command -v apt-get']).status !== 0)
    fail(`${what} is missing, and this machine has no apt-get to install it with.`, byHand);
  const prefix = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (args) => {
    const [file, ...rest] = [...prefix, 'apt-get', ...args];
    return spawnSync(file, rest, { encoding: 'utf8', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  };
  apt(['update', '-q']);
  const result = apt(['install', '-y', '-q', '--no-install-recommends', ...packages]);
  if (result.status !== 0)
    fail(`${what} could not be installed: ${(result.stderr ?? '').trim().split('\n').at(-1) ?? 'no answer'}`, byHand);
}

function filesUnder(folder, skip) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    // What a build leaves beside its sources is none of them: it would be built anew the next time.
    if (skip.has(entry.name) || entry.name.endsWith('.tsbuildinfo')) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesUnder(path, skip) : [path];
  });
}

function stampPath(name) {
  return join(root, '.glenfold', `${name}.stamp`);
}

/** Do some work only when the files it depends on have changed since it was last done. */
export async function whenChanged(name, paths, done, work) {
  const hash = createHash('sha256');
  const skip = new Set(['node_modules', 'dist', '.glenfold', 'test', 'test-results']);
  for (const path of paths.map((entry) => join(root, entry))) {
    if (!existsSync(path)) continue;
    for (const file of statSync(path).isDirectory() ? filesUnder(path, skip).sort() : [path])
      hash.update(file.slice(root.length)).update(readFileSync(file));
  }
  const stamp = hash.digest('hex');
  const known = existsSync(stampPath(name)) ? readFileSync(stampPath(name), 'utf8') : '';
  if (known === stamp && done.every((path) => existsSync(join(root, path)))) return;
  await work();
  mkdirSync(join(root, '.glenfold'), { recursive: true });
  writeFileSync(stampPath(name), stamp);
}

/** npm's packages, as the lock file says. */
export function ensurePackages() {
  return whenChanged(
    'packages',
    ['package-lock.json'],
    ['node_modules/typescript7/package.json', 'node_modules/vite/package.json'],
    () => {
      // Not "npm ci": it refuses a lock file without the optional binaries of other platforms, which not every registry serves.
      const args = ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'];
      return runTelling('Installing the npm packages, some 900 MB in this folder', 'npm', args, {
        remedy: 'Check the connection to the npm registry and start again.',
      });
    },
  );
}

/** The packages and the server compiled, the web application bundled. */
export async function ensureBuild() {
  const sources = [
    'packages',
    'apps',
    'scripts/describe.mjs',
    'tsconfig.base.json',
    'tsconfig.json',
    'package-lock.json',
  ];
  await whenChanged(
    'build',
    sources,
    ['apps/server/dist/main.js', 'apps/server/dist/described.json', 'apps/web/dist/index.html'],
    async () => {
      const compiler = [join(root, 'node_modules/typescript7/bin/tsc'), '-b'];
      await runTelling('Building the application: the core and the server', 'node', compiler);
      await Promise.all([
        runTelling('Building the application: the description of its API', 'node', ['scripts/describe.mjs']),
        // Whoever asks for it, a test too: what is served is built to be served.
        runTelling('Building the application: the pages', 'npm', ['run', '--silent', 'build', '-w', '@glenfold/web'], {
          env: { NODE_ENV: 'production' },
        }),
      ]);
    },
  );
}

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Glenfold needs Node 20.19 or newer; this is ${process.versions.node}.`, 'Install a newer Node.');
}
