// npm run bench: how fast the core is, as a ratio to parsing the same input as JSON in the same run; how good the
// places of cores and the walk through them are, against chance and the nearest-neighbour tour; and the plan, as a
// ratio to an empty plan and to its data drawn without the application; and the lists of the server at ten thousand
// sites, as a ratio to plain SQL.
import { checkNode, ensurePackages, run } from './tools.mjs';

checkNode();
await ensurePackages();
for (const part of ['bench', 'sampling'])
  run('node', ['--import', 'tsx', `packages/agronomy/bench/${part}.ts`], { show: true });
run('node', ['scripts/test.mjs', 'bench'], { show: true });
