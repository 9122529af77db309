// npm test: everything from a fresh machine to every test passed. Node alone until the packages are there.
import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCluster } from './postgres.mjs';
import { checkNode, ensureBuild, ensurePackages, root, run, runAll, say } from './tools.mjs';

checkNode();
await ensurePackages();

const steps = process.argv.slice(2);
const wanted = (name) => steps.length === 0 || steps.includes(name);

/** What the later steps stand on is made beside the checks, which leave a core idle. */
const ground = steps.length === 0 ? [['build'], ['test-tools']] : [['test-tools']];
if (wanted('static')) {
  say('Types, lint, import boundaries, what is unused, formatting; beside them the build.');
  const checks = [['lint'], ['typecheck'], ['boundaries'], ['unused'], ['format:check', 'Run "npm run format".']];
  await runAll([...checks, ...ground]);
} else await runAll(ground);

const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop: () => {} }
  : await startCluster(root, 'test', { scratch: true }).then(({ adminUrl, stop }) => ({ url: adminUrl, stop }));
process.on('exit', () => cluster.stop());

// Photos and laboratories' files of the tests, in a folder of their own that the servers of all databases share.
process.env.GLENFOLD_FILES ??= mkdtempSync(join(tmpdir(), 'glenfold-files-'));

/** A new database in the test cluster; a copy of the template where the tests before have made one. */
async function database(name, template) {
  const { Client } = createRequire(join(root, 'apps/server/'))('pg');
  const client = new Client({ connectionString: cluster.url });
  await client.connect();
  const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [template]);
  await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await client.query(`CREATE DATABASE ${name}${rowCount ? ` TEMPLATE ${template}` : ''}`);
  await client.end();
  const url = new URL(cluster.url);
  url.pathname = name;
  return { url: url.href, template: rowCount ? template : '' };
}

/** What runs in the browser, with servers and databases of its own for each worker. */
async function inBrowser(name, workers) {
  const env = { E2E_TESTS: `./${name}`, E2E_WORKERS: String(workers) };
  for (let worker = 0; worker < workers; worker += 1)
    for (const kind of ['demo', 'empty', 'second']) {
      const from = kind === 'demo' ? 'template_demo' : 'template_empty';
      const { url, template } = await database(`${name}_${kind}_${worker}`, from);
      env[`E2E_${kind.toUpperCase()}_DATABASE_URL_${worker}`] = url;
      env[`E2E_${kind.toUpperCase()}_TEMPLATE`] = template;
    }
  run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], { show: true, env });
}

if (wanted('unit')) {
  say('Unit and integration tests.');
  run('npx', ['jest', '--maxWorkers=2'], {
    show: true,
    env: { DATABASE_URL: cluster.url, NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' },
  });
  const scenarios = readdirSync(join(root, 'packages/agronomy/scenarios')).map(
    (name) => `packages/agronomy/scenarios/${name}`,
  );
  run('npm', ['run', '--silent', 'scenarios', '--', ...scenarios]);
  const shared = join(root, '../shared/cases/published.json');
  if (existsSync(shared)) run('npm', ['run', '--silent', 'cases', '--', shared], { show: true });
}

for (const own of ['pictures', 'bench'].filter((name) => steps.includes(name))) {
  await ensureBuild();
  if (own === 'bench')
    run('node', ['apps/server/bench/scale.mjs'], {
      show: true,
      env: { DATABASE_URL: (await database('bench_scale', 'none')).url },
    });
  if (own === 'bench')
    run('node', ['apps/server/bench/history.mjs'], {
      show: true,
      env: { DATABASE_URL: (await database('bench_history', 'none')).url },
    });
  await inBrowser(own, 1);
}

if (wanted('journeys')) {
  await ensureBuild();
  say('Journeys in the browser.');
  await inBrowser('journeys', 2);
}
say('All passed.');
