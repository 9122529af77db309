// npm run hammer [-- --seconds 30 --steady 120 --seed 20]: a steady load, a large site, odd requests, hostile files,
// races and kills against a scratch instance of two servers. Nothing of one's own data is touched.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { files, kills, load, odd, races } from '../apps/server/hammer/blows.mjs';
import { large } from '../apps/server/hammer/large.mjs';
import { Server, Visitor, sql } from '../apps/server/hammer/instance.mjs';
import { startCluster } from './postgres.mjs';
import { checkNode, ensureBuild, ensurePackages, fail, root, say } from './tools.mjs';

/** ms that one request may keep all others waiting. */
const LONGEST_BLOCK = 250;
const USE = 'Use "npm run hammer -- --seconds 30 --steady 120 --seed 20".';

function readArguments() {
  try {
    const options = { seconds: { type: 'string', default: '30' }, steady: { type: 'string', default: '120' } };
    const { values } = parseArgs({ options: { ...options, seed: { type: 'string', default: '20' } } });
    const numbers = Object.fromEntries(Object.entries(values).map(([name, text]) => [name, Number(text)]));
    if (Object.values(numbers).every((value) => Number.isInteger(value) && value >= 0 && value <= 3600)) return numbers;
  } catch (error) {
    fail(error.message, USE);
  }
  return fail('Seconds and seed are whole numbers of 0 to 3600.', USE);
}

const { seconds, steady, seed } = readArguments();
checkNode();
await ensurePackages();
await ensureBuild();

// The core's own seeded chance: the same seed deals the same blows.
const { chanceFrom } = await import('../packages/agronomy/dist/geometry/index.js');

const freePort = () =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => done(port));
    });
  });

const home =
  process.env.GLENFOLD_HOME ?? join(process.getuid?.() === 0 ? '/var/tmp' : tmpdir(), `glenfold-hammer-${process.pid}`);
process.env.GLENFOLD_HOME = home;
mkdirSync(home, { recursive: true });
const folder = mkdtempSync(join(tmpdir(), 'glenfold-hammer-'));
// Not as a scratch cluster of the tests: what is killed here must be on the disk.
const cluster = await startCluster(root, 'hammer');
const database = {
  kill: async () => {
    cluster.crash();
    await cluster.again();
  },
};
const servers = [];
process.on('exit', () => {
  cluster.stop();
  for (const path of [home, folder]) rmSync(path, { recursive: true, force: true });
});
while (servers.length < 2) {
  const port = await freePort();
  const server = new Server({ root, databaseUrl: cluster.adminUrl, files: join(folder, 'files'), port, folder });
  await server.start();
  servers.push(server);
}
const owner = await Visitor.enter(servers[0], 'Orla');
const { sites } = JSON.parse((await owner.ask(servers[0], 'get', '/sites')).text);
const siteId = sites.find(({ name }) => name.startsWith('Gannet')).id;
const zones = (await sql(cluster.adminUrl, 'SELECT id FROM zone WHERE "siteId" = $1', [siteId])).map(({ id }) => id);

const blows = [
  ['steady load', load, steady],
  ['a large site', large, seconds],
  ['odd requests', odd, seconds],
  ['hostile files', files, seconds],
  ['races', races, seconds],
  ['kills', kills, seconds],
];
const percentile = (times, share) => [...times].sort((one, other) => one - other)[Math.floor(times.length * share)];
let failed = false;
let longest = 0;
for (const [name, blow, time] of blows) {
  const until = Date.now() + 1000 * time;
  const result = await blow({
    servers,
    siteId,
    zones,
    until,
    database,
    url: cluster.adminUrl,
    chance: chanceFrom(seed),
  });
  await new Promise((done) => setTimeout(done, 300));
  for (const server of servers) server.look();
  const [block, atWork] = ['block', 'atWork'].map((which) => Math.max(...servers.map(({ longest }) => longest[which])));
  longest = Math.max(longest, atWork);
  for (const server of servers) server.forget();
  const times = result.times.length > 0 ? `, 99 of 100 within ${Math.round(percentile(result.times, 0.99))} ms` : '';
  const killed = result.kills === undefined ? '' : `, ${result.kills} kills`;
  say(
    `${name.padEnd(14)} ${String(result.tries).padStart(6)} tries${killed}, ${result.lost} lost, ${result.doubled} doubled, ${result.faults.length} × 500${times}, longest block ${Math.round(block)} ms, ${Math.round(atWork)} ms of it at work`,
  );
  for (const fault of result.faults.slice(0, 10)) say(`    ${fault}`);
  failed ||= result.lost + result.doubled + result.faults.length > 0;
}
say(`Longest block of the event loop at work: ${Math.round(longest)} ms (goal: under ${LONGEST_BLOCK}).`);
for (const server of servers) await server.stop();
if (failed || longest > LONGEST_BLOCK) fail('Not all of it held.', 'Read the lines above.');
say('All of it held.');
process.exit(0);
