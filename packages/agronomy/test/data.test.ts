import fc from 'fast-check';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readSulfurLimits } from '../src/acidify/tables.ts';
import { InputError, bufferMethods, bufferRange, limeProgram, ratingSufficiency } from '../src/index.ts';
import { readLimeLimits } from '../src/lime/materials.ts';
import { readSufficiencySet, readYearlyRates, sufficiencySets } from '../src/nutrients/sufficiencyTables.ts';
import { findTextureClass, textureClasses } from '../src/soil/textureClasses.ts';

const folder = join(import.meta.dirname, '../src/data');
const load = (name: string): object => JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as object;

/** Every table of a data file: an object that says where it comes from. */
function tables(content: object): object[] {
  return 'source' in content ? [content] : (Object.values(content) as object[]).flatMap(tables);
}

it('every number of every data file stands under a source, a basis, a region and a date', () => {
  for (const name of readdirSync(folder)) {
    const found = tables(load(name.replace('.json', '')));
    expect([name, found.length > 0]).toEqual([name, true]);
    for (const table of found)
      expect([name, Object.keys(table)]).toEqual([
        name,
        expect.arrayContaining(['source', 'basis', 'region', 'date']) as string[],
      ]);
  }
});

it.each(bufferMethods)('the span of the %s buffer rises', (method) => {
  const [low, high] = bufferRange(method);
  expect(low).toBeLessThan(high);
});

describe('a table of one’s own', () => {
  const { sets } = load('sufficiency') as { readonly sets: readonly object[] };
  const { limits } = load('sulfur') as { readonly limits: object };
  const readers: ReadonlyArray<readonly [string, object, (raw: unknown) => unknown]> = [
    ['sufficiency', sets[0]!, readSufficiencySet],
    ['yearly rates', load('yearly-rates'), readYearlyRates],
    ['lime limits', load('lime-limits'), readLimeLimits],
    ['sulfur limits', limits, readSulfurLimits],
  ];

  /** The same content with one part of it, chosen by the numbers, turned into another kind. */
  function spoil(content: unknown, [first, ...rest]: readonly number[]): unknown {
    if (typeof content === 'number') return Number.NaN;
    if (typeof content === 'string') return 5;
    if (typeof content !== 'object' || content === null || first === undefined) return 'many';
    const keys = Object.keys(content);
    const chosen = keys[first % keys.length]!;
    const changed = (key: string, value: unknown): unknown => (key === chosen ? spoil(value, rest) : value);
    return Array.isArray(content)
      ? content.map((entry: unknown, index) => changed(String(index), entry))
      : Object.fromEntries(Object.entries(content).map(([key, value]) => [key, changed(key, value)]));
  }

  it.each(readers)(
    '%s: the general one passes its reader; with any part spoilt it is refused',
    (_name, content, read) => {
      expect(read(content)).toBeDefined();
      fc.assert(
        fc.property(fc.array(fc.nat(30), { maxLength: 4 }), (path) => {
          let refusal: unknown;
          try {
            read(spoil(content, path));
          } catch (error) {
            refusal = error;
          }
          expect(refusal).toBeInstanceOf(InputError);
          expect((refusal as InputError).field).toMatch(/^table/);
        }),
      );
    },
  );

  it('that repeats the general one rates and splits the same', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 900, noNaN: true }), fc.constantFrom('sand', 'loam'), (value, soilGroup) => {
        const test = { nutrient: 'k', extractant: 'mehlich-3', value, soilGroup };
        expect(ratingSufficiency({ ...test, table: sets[0] }).result).toEqual(ratingSufficiency(test).result);
        const need = { requirement: value, effectiveness: 90, surface: 'turf' };
        expect(limeProgram({ ...need, table: load('lime-limits') }).result).toEqual(limeProgram(need).result);
      }),
    );
  });
});

it('a higher test is never rated lower, in any extractant', () => {
  for (const { extractant, rows } of sufficiencySets)
    for (const { nutrient, soilGroup } of rows) {
      const level = (value: number): number =>
        ['very low', 'low', 'medium', 'high', 'very high'].indexOf(
          ratingSufficiency({ nutrient, extractant, value, soilGroup: soilGroup ?? 'clay' }).result.rating,
        );
      const values = [0, ...Array.from({ length: 60 }, (_, index) => 0.1 * 1.2 ** index)];
      const levels = values.map(level);
      expect(levels).toEqual([...levels].sort((a, b) => a - b));
      expect([levels[0], levels.at(-1)]).toEqual([0, 4]);
    }
});

describe('the texture triangle', () => {
  type Corner = readonly number[];
  const twice = (corners: readonly Corner[]): number =>
    corners.reduce((sum, [x = 0, y = 0], index) => {
      const [nextX = 0, nextY = 0] = corners[(index + 1) % corners.length]!;
      return sum + x * nextY - nextX * y;
    }, 0);
  function inside([x, y]: readonly [number, number], corners: readonly Corner[]): boolean {
    return corners.reduce((within, [ax = 0, ay = 0], index) => {
      const [bx = 0, by = 0] = corners[(index + 1) % corners.length]!;
      return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !within : within;
    }, false);
  }

  it('is filled by the outlines of the twelve classes without gap or overlap', () => {
    expect(textureClasses.reduce((sum, { corners }) => sum + Math.abs(twice(corners)) / 2, 0)).toBeCloseTo(5000, 9);
  });

  it('gives every point exactly one class, the one in whose outline it lies', () => {
    const part = fc.double({ min: 0.001, max: 1, noNaN: true });
    const fractions = fc
      .tuple(part, part, part)
      .map(([sand, clay, silt]) => [sand, clay].map((own) => (100 * own) / (sand + clay + silt)) as [number, number]);
    fc.assert(
      fc.property(fractions, ([sand, clay]) => {
        const outlines = (x: number, y: number): string[] =>
          textureClasses.filter(({ corners }) => inside([x, y], corners)).map(({ name }) => name);
        const near = [-1e-6, 1e-6].flatMap((dx) => [-1e-6, 1e-6].map((dy) => outlines(sand + dx, clay + dy)));
        // On a border the rules decide, as the cases have it.
        fc.pre(near.every((names) => names.join() === near[0]!.join()));
        const own = findTextureClass({ sand, clay, silt: 100 - sand - clay });
        expect(outlines(sand, clay)).toEqual([own.name]);
      }),
      { numRuns: 2000 },
    );
  });
});
