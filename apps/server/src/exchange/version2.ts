import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf3, today as programsToday } from './version3.ts';

type FileOf2 = Pick<ExportedTable, 'file' | 'spread'>;

/** Files that an export of format 2 did not have, and what stood there instead. */
const since3: readonly string[] = ['machines.json', 'settings.json', 'sites.json', 'products.json'];
const until2: readonly FileOf2[] = [{ file: 'sites.csv' }, { file: 'products.csv', spread: ['grade', 'lime'] }];

export const tablesOf2: readonly FileOf2[] = [
  ...tablesOf3.filter(({ file }) => !since3.includes(file)).map(({ file, spread }) => ({ file, spread: spread ?? [] })),
  ...until2,
];

const numbers = (record: unknown): Record<string, number> =>
  Object.fromEntries(
    Object.entries((record ?? {}) as Row).flatMap(([key, value]) =>
      value === null || value === '' || !Number.isFinite(Number(value)) ? [] : [[key, Number(value)]],
    ),
  );
const isYes = (value: unknown): boolean => value === true || value === 'true';

/** A product by purpose, in the words of today: a material by its analysis. */
function materialToday({ purpose, grade, slowRelease, lime, bagMass, bagPrice, ...product }: Row): Row {
  const { magnesium, caustic, ...strength } = (lime ?? {}) as Row;
  const slow = Number(slowRelease);
  return {
    ...product,
    kind: purpose === 'lime' ? 'lime' : 'fertilizer',
    analysis:
      purpose === 'lime' ? numbers(strength) : { ...numbers(grade), ...(slow > 0 ? { slowRelease: slow } : {}) },
    ...{ nitrogenSource: null, chelate: null, seeds: null, caution: null, stock: null, natural: false },
    ...{ dolomitic: isYes(magnesium), caustic: isYes(caustic) },
    ...{ packSize: Number(bagMass), packUnit: 'kg', packPrice: numbers({ bagPrice }).bagPrice ?? null },
  };
}

/** Tables of format 2, in those of today: places, people and settings were not kept yet, and products had a purpose. */
export function today(tables: Tables): Tables {
  const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
  const rows = (file: string): readonly Row[] => tables.get(file) ?? [];
  const nothing = { position: null, timeZone: null, climate: null, normals: null, contacts: null, access: null };
  return programsToday(
    new Map([
      ...[...tables].filter(([file]) => !until2.some((old) => old.file === file)),
      ['practice.json', rows('practice.json').map((practice) => ({ timeZone, currency: '$', ...practice }))],
      ['people.csv', rows('people.csv').map((person) => ({ units: null, ...person }))],
      ['sites.json', rows('sites.csv').map((site) => ({ ...nothing, ...site }))],
      ['lab-results.csv', rows('lab-results.csv').map((result) => ({ advice: null, ...result }))],
      ['products.json', rows('products.csv').map(materialToday)],
      ['machines.json', []],
      ['settings.json', []],
    ]),
  );
}

/** An export of format 2, in the tables of today. */
export const readVersion2 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf2));
