import { QueryClient, type QueryKey, QueryObserver } from '@tanstack/react-query';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { queries } from '../src/api/queries.ts';
import { type RecordKind, kindAt, shows, touch } from '../src/api/touches.ts';

const kinds: readonly RecordKind[] = [
  ...(['site', 'ground', 'photo', 'underlay', 'result', 'bag', 'program', 'product', 'machine'] as const),
  ...(['laboratory', 'setting', 'practice', 'member', 'mail', 'share', 'run'] as const),
  ...(['way', 'question', 'fieldTest', 'load', 'history'] as const),
  ...(['job', 'entry', 'calendar', 'ownerReport'] as const),
];
const features = join(import.meta.dirname, '../src/features');
/** The queries of every step, wherever it keeps them. */
const own: object[] = [];
for (const path of readdirSync(features).map((name) => join(features, name, 'api.ts')))
  if (existsSync(path))
    for (const [name, part] of Object.entries((await import(path)) as Record<string, object>))
      if (name.endsWith('Queries')) own.push(part);
const every = Object.assign({}, queries, ...own) as Readonly<Record<string, unknown>>;
/** Every key by the name of its query. */
const keys = Object.fromEntries(
  Object.entries(every).map(([name, query]) => [
    name,
    (query as (...values: string[]) => { queryKey: QueryKey })('s', 'us').queryKey,
  ]),
) as Record<string, QueryKey>;
const readAnew = (kind: RecordKind): string[] =>
  Object.entries(keys)
    .filter(([, key]) => shows(kind, key))
    .map(([name]) => name)
    .sort();

describe('after a change', () => {
  it('a result has the state of its site, its plan and the lists read anew, and not the drawing', () => {
    expect(readAnew('result')).toEqual(
      [
        ...[
          'ahead',
          'audit',
          'bagByCode',
          'bags',
          'beginning',
          'board',
          'hiddenSoil',
          'labReports',
          'labResults',
          'program',
          'quote',
        ],
        ...[
          'report',
          'siteProgram',
          'siteStates',
          'siteState',
          'tasks',
          'season',
          'water',
          'proof',
          'hits',
          'zoneRecord',
          ...['zoneReading', 'siteReadings', 'schools', 'worth', 'retests'],
        ],
      ].sort(),
    );
  });

  it('a price has rates and lists of products read anew, and no ground', () => {
    expect(readAnew('product')).toEqual(
      [
        ...['ahead', 'audit', 'generic', 'productNames', 'products', 'program', 'quote', 'siteProgram'],
        ...['zoneReading', 'siteReadings', 'schools', 'worth'],
      ].sort(),
    );
  });

  it('nothing that can be changed here shows as it was before', () => {
    const forgotten = Object.entries(keys)
      .filter(([, key]) => !kinds.some((kind) => shows(kind, key)))
      .map(([name]) => name);
    // What is read once, from a link, and what a day that is only thought of would break.
    expect(forgotten.sort()).toEqual(['breaks', 'invitation', 'reset']);
  });

  it('what was on its way already is asked for again: it may have been read before the change', async () => {
    const client = new QueryClient();
    let told = 'before';
    const answers: Array<() => void> = [];
    const queryFn = (): Promise<string> => {
      const read = told;
      return new Promise((done) => answers.push(() => done(read)));
    };
    const observer = new QueryObserver(client, { queryKey: keys.labReports!, queryFn });
    const leave = observer.subscribe(() => undefined);
    told = 'after';
    const touched = touch(client, 'result');
    await Promise.resolve();
    answers[0]!();
    while (answers.length < 2) await new Promise((next) => setTimeout(next));
    answers[1]!();
    await touched;
    expect(client.getQueryData(keys.labReports!)).toBe('after');
    leave();
  });

  it('what is deleted by its path says of what kind it is, or is found missing at once', () => {
    expect(['/sites/1', '/lab-results/1', '/products/1'].map(kindAt)).toEqual(['site', 'result', 'product']);
    expect(() => kindAt('/quarries/1')).toThrow(/touches\.ts/);
  });
});
