// Loaded before a server that is hammered: how long its event loop stands still at most is written into a file. Where
// the system tells how long a thread waited for a processor (Linux, schedstat), that is told apart: on a machine that is
// busy with all that hammers and is hammered it is no request's doing.
import { readFileSync, writeFileSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';

const WRITES_EVERY = 250;
/** ms between two looks at the clock. */
const LOOKS_EVERY = 5;
const NANO = 1e6;
const OWN = `/proc/self/task/${process.pid}/schedstat`;

/** ms that this thread was ready to run, and was not running. */
function waited() {
  try {
    return Number(readFileSync(OWN, 'utf8').split(' ')[1]) / NANO;
  } catch {
    return 0;
  }
}

// Threads for heavy work may stand still: nobody waits for their loop.
if (isMainThread) {
  let before = { at: performance.now(), waited: waited() };
  let longest = { block: 0, atWork: 0 };
  setInterval(() => {
    const now = { at: performance.now(), waited: waited() };
    const block = now.at - before.at - LOOKS_EVERY;
    const atWork = block - (now.waited - before.waited);
    before = now;
    longest = { block: Math.max(longest.block, block), atWork: Math.max(longest.atWork, atWork) };
  }, LOOKS_EVERY).unref();
  // What a start takes is nobody's request.
  process.on('SIGWINCH', () => {
    longest = { block: 0, atWork: 0 };
  });
  setInterval(() => writeFileSync(process.env.HAMMER_LOOP, JSON.stringify(longest)), WRITES_EVERY).unref();
}
