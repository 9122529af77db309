// Loaded into a server before it starts: tells, when asked, for how long its event loop was held up at most since, ms.
import { monitorEventLoopDelay } from 'node:perf_hooks';

const delay = monitorEventLoopDelay({ resolution: 5 });
delay.enable();
process.on('message', () => {
  process.send(delay.max / 1e6);
  delay.reset();
});
