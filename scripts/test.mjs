// npm test: everything from a fresh machine to every test passed. Node alone until the packages are there.
import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCluster } from './postgres.mjs';
import { checkNode, ensureBuild, ensurePackages, root, run, runAll, runToEnd, say } from './tools.mjs';

checkNode();
await ensurePackages();

const steps = process.argv.slice(2);
const wanted = (name) => steps.length === 0 || steps.includes(name);

/** What each part took, told at the end. */
const took = [];
async function timed(name, part) {
  const began = Date.now();
  await part();
  took.push([name, (Date.now() - began) / 1000]);
}
process.on('exit', () => {
  for (const [name, seconds] of took) say(`  ${String(Math.round(seconds)).padStart(5)} s  ${name}`);
});

const NODE_OPTIONS = '--experimental-vm-modules --disable-warning=ExperimentalWarning';
const jest = (projects, workers, env = {}) =>
  runToEnd('npx', ['jest', `--maxWorkers=${workers}`, '--selectProjects', ...projects], { ...env, NODE_OPTIONS });

/** Scripts of package.json one after the other, each with what it took. */
async function oneByOne(scripts) {
  for (const [name, remedy] of scripts) await timed(name, () => runAll([[name, remedy]]));
}

// One core checks what is written while the other builds it and tries what needs neither server nor page.
if (wanted('static') || wanted('unit')) {
  say('Types, lint, import boundaries, what is unused, formatting; beside them the build, and the tests of the core.');
  const checks = [['typecheck'], ['lint'], ['boundaries'], ['unused'], ['format:check', 'Run "npm run format".']];
  await timed('checks and, beside them, build, core and web', () =>
    Promise.all([
      wanted('static') && oneByOne(checks),
      (async () => {
        await oneByOne([['test-tools'], ...(wanted('unit') ? [['build']] : [])]);
        if (wanted('unit')) await timed('tests of core and web', () => jest(['core', 'web'], 1));
      })(),
    ]),
  );
} else await runAll([['test-tools']]);

const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop: () => {} }
  : await startCluster(root, 'test', { scratch: true }).then(({ adminUrl, files, stop }) => ({
      url: adminUrl,
      files,
      stop,
    }));
process.on('exit', () => cluster.stop());

// Photos and laboratories' files of the tests, beside the cluster whose databases tell of them: a run that was killed
// leaves both or neither to the next.
process.env.GLENFOLD_FILES ??= process.env.DATABASE_URL
  ? mkdtempSync(join(tmpdir(), 'glenfold-files-'))
  : cluster.files;

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
  await runToEnd('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], env);
}

if (wanted('unit')) {
  say('Tests of the screens, and of the server on a database.');
  await timed('tests of screens and server', () => jest(['screens', 'server'], 2, { DATABASE_URL: cluster.url }));
  const scenarios = readdirSync(join(root, 'packages/agronomy/scenarios')).map(
    (name) => `packages/agronomy/scenarios/${name}`,
  );
  await timed('scenarios', () => runAll([['scenarios', undefined, ['--', ...scenarios]]]));
  const shared = join(root, '../shared/cases/published.json');
  if (existsSync(shared)) run('npm', ['run', '--silent', 'cases', '--', shared], { show: true });
}

if (steps.includes('bench-server')) {
  await ensureBuild();
  for (const name of ['scale', 'history'])
    run('node', [`apps/server/bench/${name}.mjs`], {
      show: true,
      env: { DATABASE_URL: (await database(`bench_${name}`, 'none')).url },
    });
}
for (const own of ['pictures', 'bench'].filter((name) => steps.includes(name))) {
  await ensureBuild();
  await inBrowser(own, 1);
}

if (wanted('journeys')) {
  await ensureBuild();
  say('Journeys in the browser.');
  await timed('journeys', () => inBrowser('journeys', 2));
}
say('All passed.');
