// Threads with small limits, as they are built: what takes too long or too much is stopped, and the next is served.
import { Threads } from '../../dist/platform/threads.js';

const here = import.meta.url;
export const endless = {
  module: here,
  name: 'endless',
  work: () => {
    for (;;);
  },
};
export const hungry = {
  module: here,
  name: 'hungry',
  work: () => {
    const eaten = [];
    for (;;) eaten.push(Array.from({ length: 1000 }, Math.random));
  },
};
export const modest = { module: here, name: 'modest', work: (one, other) => one + other };

class Small extends Threads {
  limits = { time: 10_000, memory: 64 };
}

if (process.argv[1] === new URL(here).pathname) {
  const threads = new Small({ threads: true });
  const said = [];
  for (const task of [endless, hungry])
    said.push(await threads.run(task).catch(({ status, detail }) => `${status} ${detail}`));
  said.push(await threads.run(modest, 3, 4));
  await threads.onApplicationShutdown();
  process.stdout.write(JSON.stringify(said));
}
