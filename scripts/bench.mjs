// npm run bench: how fast the core is, as a ratio to parsing the same input as JSON in the same run, and the plan, as a
// ratio to an empty plan and to its data drawn without the application.
import { checkNode, ensurePackages, run } from './tools.mjs';

checkNode();
ensurePackages();
run('node', ['--import', 'tsx', 'packages/agronomy/bench/bench.ts'], { show: true });
run('node', ['scripts/test.mjs', 'bench'], { show: true });
