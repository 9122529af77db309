// Loaded before a server that is hammered: how long its event loop stands still at most is written into a file.
import { writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

const WRITES_EVERY = 250;
const NANO = 1e6;

// Threads for heavy work may stand still: nobody waits for their loop.
if (isMainThread) {
  const delay = monitorEventLoopDelay({ resolution: 5 });
  delay.enable();
  // What a start takes is nobody's request.
  process.on('SIGWINCH', () => delay.reset());
  setInterval(() => {
    writeFileSync(
      process.env.HAMMER_LOOP,
      JSON.stringify({ longest: delay.max / NANO, usual: delay.percentile(99) / NANO }),
    );
  }, WRITES_EVERY).unref();
}
