import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { root, withDemoDatabase } from './harness.ts';

/** Tried at a tiny size: whether it still runs, and not how fast. */
it.each(['scale.mjs', 'history.mjs'])('the bench of the server still runs: %s', (script) =>
  withDemoDatabase((url) => {
    const said = execFileSync(process.execPath, [join(root, 'apps/server/bench', script)], {
      encoding: 'utf8',
      env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: url, BENCH_TINY: '1' },
    });
    expect(said).toMatch(/× plain SQL|Ratio \d/);
  }),
);
