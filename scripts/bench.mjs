// npm run bench: speed and goodness as ratios to baselines in the same run; its parts run by name.
//   core      calculators, to parsing the same input as JSON
//   programs  plans, programs and readings of zones, among themselves and to parsing their input
//   sampling  places of cores and the walk through them, to chance and to the nearest-neighbour tour
//   server    lists at ten thousand sites, to plain SQL; a history of 50 000 tests, to parsing and inserting its rows
//   browser   the plan, to an empty plan and to its data drawn without the application
import { checkNode, ensurePackages, fail, run, say } from './tools.mjs';

const parts = {
  core: ['node', ['--import', 'tsx', 'packages/agronomy/bench/core.ts']],
  programs: ['node', ['--import', 'tsx', 'packages/agronomy/bench/programs.ts']],
  sampling: ['node', ['--import', 'tsx', 'packages/agronomy/bench/sampling.ts']],
  server: ['node', ['scripts/test.mjs', 'bench-server']],
  browser: ['node', ['scripts/test.mjs', 'bench']],
};

checkNode();
await ensurePackages();
const asked = process.argv.slice(2);
const strange = asked.find((name) => !(name in parts));
if (strange) fail(`There is no part “${strange}” of the bench.`, `Choose among ${Object.keys(parts).join(', ')}.`);
for (const [name, [command, args]] of Object.entries(parts)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  const began = Date.now();
  say(`\n${name}`);
  run(command, args, { show: true });
  say(`(${name}: ${Math.round((Date.now() - began) / 1000)} s)`);
}
