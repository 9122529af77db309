// npm run bench: how fast the core is, as a ratio to parsing the same input as JSON in the same run.
import { checkNode, ensurePackages, run } from './tools.mjs';

checkNode();
ensurePackages();
run('node', ['--import', 'tsx', 'packages/agronomy/bench/bench.ts'], { show: true });
