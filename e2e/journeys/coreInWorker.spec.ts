import { build } from 'esbuild';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from './person.ts';
import type { CaseFile, CaseVerdict } from '../../packages/agronomy/src/registry/publishedCases.ts';

test.use({ as: 'nobody' });

const core = join(import.meta.dirname, '../../packages/agronomy');

/** The core's sources as they are, with three lines that make a worker of them. */
async function workerScript(): Promise<string> {
  const { outputFiles } = await build({
    stdin: {
      contents: `
        import { runCase } from './src/registry/publishedCases.ts';
        onmessage = ({ data }) => postMessage(data.map(runCase));
      `,
      resolveDir: core,
    },
    bundle: true,
    format: 'esm',
    platform: 'browser',
    write: false,
  });
  return outputFiles[0]!.text;
}

test('the core answers every published case in a worker of the browser', async ({ page }) => {
  const script = await workerScript();
  await page.route('**/core/', (route) => route.fulfill({ contentType: 'text/html', body: '<title>Core</title>' }));
  await page.route('**/core/worker.js', (route) => route.fulfill({ contentType: 'text/javascript', body: script }));
  await page.goto('/core/');

  const folder = join(core, 'cases');
  const cases = readdirSync(folder).flatMap(
    (name) => (JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile).cases,
  );
  const verdicts = await page.evaluate(
    (given) =>
      new Promise<CaseVerdict[]>((resolve, reject) => {
        const worker = new Worker('worker.js', { type: 'module' });
        worker.onmessage = ({ data }: MessageEvent<CaseVerdict[]>) => resolve(data);
        worker.onerror = ({ message }) => reject(new Error(message));
        worker.postMessage(given);
      }),
    cases,
  );
  const failed = cases.flatMap(({ name }, index) => (verdicts[index]?.passed ? [] : [[name, verdicts[index]?.detail]]));
  expect(failed).toEqual([]);
  expect(verdicts).toHaveLength(cases.length);
  expect(cases.length).toBeGreaterThan(300);
});
