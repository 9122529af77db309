import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { bufferMethods, bufferRange, grasses } from '../src/index.ts';

const folder = join(import.meta.dirname, '../src/data');
const files = readdirSync(folder).map(
  (name) => [name, JSON.parse(readFileSync(join(folder, name), 'utf8')) as object] as const,
);

/** Every table of a data file: an object that holds numbers, with what its file says of all of them. */
function tables(content: object): object[] {
  return 'source' in content || 'basis' in content ? [content] : (Object.values(content) as object[]).flatMap(tables);
}

describe.each(files)('%s', (_name, content) => {
  it('says of every table where it comes from, on what basis, for where and when', () => {
    for (const table of tables(content)) {
      expect(table).toMatchObject({
        basis: expect.any(String) as string,
        region: expect.any(String) as string,
        date: expect.any(Number) as number,
      });
      expect(JSON.stringify(table)).toContain('"source"');
    }
  });
});

describe('the grasses', () => {
  it.each(grasses.map((grass) => [grass.name, grass] as const))(
    '%s: the aim lies in the band, the ranges rise',
    (_name, { ph, aim, nitrogen }) => {
      expect(ph[0]).toBeLessThan(ph[1]);
      expect(aim).toBeGreaterThanOrEqual(ph[0]);
      expect(aim).toBeLessThanOrEqual(ph[1]);
      expect(nitrogen[0]).toBeLessThan(nitrogen[1]);
    },
  );
});

it.each(bufferMethods)('the span of the %s buffer rises', (method) => {
  const [low, high] = bufferRange(method);
  expect(low).toBeLessThan(high);
});
