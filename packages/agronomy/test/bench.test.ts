import { execFileSync } from 'node:child_process';
import { join, resolve } from 'node:path';

const folder = resolve(import.meta.dirname, '../bench');

/** Tried at a tiny size: whether it still runs, and not how fast. */
it.each(['core', 'programs', 'sampling'])('the bench of the core still runs: %s', (part) => {
  const said = execFileSync(process.execPath, ['--import', 'tsx', join(folder, `${part}.ts`)], {
    encoding: 'utf8',
    cwd: resolve(folder, '../../..'),
    env: { ...process.env, NODE_OPTIONS: '', BENCH_TINY: '1' },
  });
  expect(said).toMatch(/\d ×/);
  expect(said).not.toMatch(/NaN|undefined/);
});
