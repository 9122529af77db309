// npm test: everything from a fresh machine to every test passed. Node alone until the packages are there.
import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { startCluster } from './postgres.mjs';
import { aptInstall, checkNode, ensureBuild, ensurePackages, root, run, say } from './tools.mjs';

checkNode();
ensurePackages();

const missing = [
  ['chromium', 'Chromium', ['chromium']],
  ['pdftotext', 'a PDF reader', ['poppler-utils']],
].filter(([program]) => spawnSync('sh', ['-c', `command -v ${program}`]).status !== 0);
for (const [, what, packages] of missing) {
  say(`Installing ${what}.`);
  aptInstall(packages, what);
}

const steps = process.argv.slice(2);
const wanted = (name) => steps.length === 0 || steps.includes(name);

if (wanted('static')) {
  say('Types.');
  run('npm', ['run', '--silent', 'typecheck'], { show: true });
  say('Lint and import boundaries.');
  run('npm', ['run', '--silent', 'lint'], { show: true });
  say('Formatting.');
  run('npm', ['run', '--silent', 'format:check'], { show: true, remedy: 'Run "npm run format".' });
}

const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop: () => {} }
  : await startCluster(root, 'test', { scratch: true });
process.on('exit', () => cluster.stop());

/** A new database in the test cluster. */
async function database(name) {
  const { Client } = createRequire(join(root, 'apps/server/'))('pg');
  const client = new Client({ connectionString: cluster.url });
  await client.connect();
  await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  const url = new URL(cluster.url);
  url.pathname = name;
  return url.href;
}

if (wanted('unit')) {
  say('Unit and integration tests.');
  run('npx', ['jest'], {
    show: true,
    env: { DATABASE_URL: cluster.url, NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' },
  });
  const shared = join(root, '../shared/cases/published.json');
  if (existsSync(shared)) run('npm', ['run', '--silent', 'cases', '--', shared], { show: true });
}

for (const own of ['pictures', 'bench'].filter((name) => steps.includes(name))) {
  ensureBuild();
  const env = {
    E2E_DATABASE_URL: await database(own),
    E2E_EMPTY_DATABASE_URL: await database(`${own}_empty`),
    E2E_SECOND_DATABASE_URL: await database(`${own}_second`),
    E2E_TESTS: `./${own}`,
  };
  run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], { show: true, env });
}

if (wanted('journeys')) {
  ensureBuild();
  say('Journeys in the browser.');
  const env = {
    E2E_DATABASE_URL: await database('journeys'),
    E2E_EMPTY_DATABASE_URL: await database('journeys_empty'),
    E2E_SECOND_DATABASE_URL: await database('journeys_second'),
  };
  run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], { show: true, env });
}
say('All passed.');
