import type { QueryClient, QueryKey } from '@tanstack/react-query';

/** Parts of a site that are read by themselves: the third word of their keys. */
type SitePart =
  | 'state'
  | 'zones'
  | 'ground-things'
  | 'bags'
  | 'photos'
  | 'lab-results'
  | 'lab-reports'
  | 'lab-questions'
  | 'field-tests'
  | 'load-checks'
  | 'report'
  | 'share-links'
  | 'owner-report'
  | 'season'
  | 'logbook'
  | 'messages'
  | 'proof';

interface Shown {
  /** Parts of any site. */
  readonly parts?: readonly SitePart[];
  /** First words of other keys. */
  readonly lists?: readonly string[];
}

/** Where each kind of record shows: a change of it has these read anew, and nothing else. */
const shownIn = {
  site: {
    parts: ['state', 'zones', 'lab-results', 'bags', 'report', 'season', 'proof'],
    lists: ['sites', 'rounds', 'find', 'bags', 'reports', 'program'],
  },
  /** Zones with all that is known of them, and what is drawn: tests follow the ground when it is divided anew. */
  ground: {
    parts: [
      ...(['state', 'zones', 'ground-things', 'photos', 'lab-results', 'lab-reports', 'bags', 'report'] as const),
      ...(['season', 'logbook', 'proof'] as const),
    ],
    lists: ['rounds', 'find', 'bags', 'program', 'week', 'zone-record'],
  },
  photo: { parts: ['photos', 'logbook'] },
  underlay: { parts: ['ground-things'] },
  result: {
    parts: ['state', 'lab-results', 'lab-reports', 'bags', 'report', 'season', 'proof'],
    lists: ['rounds', 'bags', 'program', 'hits', 'zone-record'],
  },
  bag: { parts: ['state', 'bags', 'lab-reports', 'lab-results'], lists: ['rounds', 'find', 'bags'] },
  program: {
    parts: ['state', 'report', 'season', 'logbook', 'proof'],
    lists: ['rounds', 'program', 'price', 'shared', 'week'],
  },
  /** A day, a hold, who does it. */
  job: { parts: ['state', 'season', 'report', 'proof', 'logbook'], lists: ['rounds', 'week', 'cards'] },
  /** What was done moves jobs, rates, waiting times, the store and what is foretold. */
  entry: {
    parts: ['state', 'zones', 'season', 'logbook', 'proof', 'report'],
    lists: ['rounds', 'program', 'price', 'products', 'week', 'cards', 'shared'],
  },
  calendar: { lists: ['calendar-links'] },
  product: { lists: ['products', 'program'] },
  machine: { lists: ['machines', 'program', 'rounds'] },
  laboratory: { lists: ['laboratories', 'rounds'] },
  /** How a laboratory arranges its files. */
  way: { parts: ['lab-reports'], lists: ['lab-profiles'] },
  question: { parts: ['lab-questions'] },
  /** A test with one's own hands is a measurement: it moves the stick, the reading, rates and watering. */
  fieldTest: {
    parts: ['state', 'zones', 'field-tests', 'report', 'season'],
    lists: ['rounds', 'program', 'zone-record', 'tests taken along'],
  },
  load: { parts: ['load-checks'] },
  history: { lists: ['histories'] },
  setting: { parts: ['report', 'season', 'logbook'], lists: ['settings', 'program', 'rounds'] },
  practice: { parts: ['report'], lists: ['session', 'program', 'products', 'rounds'] },
  /** What a practice begins with. */
  beginning: { lists: ['rounds'] },
  member: { lists: ['members', 'invitations', 'outbox', 'session', 'rounds'] },
  mail: { lists: ['outbox'] },
  message: { parts: ['state', 'messages'], lists: ['rounds', 'outbox'] },
  share: { parts: ['share-links'] },
  /** A draft for the owner, its letter, its handing over. */
  ownerReport: { parts: ['owner-report', 'report'], lists: ['shared', 'runs', 'price'] },
  run: { lists: ['runs'] },
} as const satisfies Readonly<Record<string, Shown>>;

export type RecordKind = keyof typeof shownIn;

/** Whether something that was read shows such records; the list of all changes shows every one. */
export function shows(kind: RecordKind, [first, , part]: QueryKey): boolean {
  const { parts = [], lists = [] }: Shown = shownIn[kind];
  return (
    first === 'audit' ||
    (first === 'site' ? (parts as readonly unknown[]).includes(part) : (lists as readonly unknown[]).includes(first))
  );
}

/** Have what shows such records read anew. */
export async function touch(client: QueryClient, ...kinds: readonly RecordKind[]): Promise<void> {
  const shown = { predicate: ({ queryKey }: { queryKey: QueryKey }) => kinds.some((kind) => shows(kind, queryKey)) };
  // What is on its way for the first time may have been read before the change: it is asked for again as well.
  await client.cancelQueries(shown);
  await client.invalidateQueries(shown);
}

/** Of what kind the record of a path is. */
const kindOf: Readonly<Record<string, RecordKind>> = {
  sites: 'site',
  zones: 'ground',
  photos: 'photo',
  underlays: 'underlay',
  'lab-results': 'result',
  'lab-reports': 'result',
  bags: 'bag',
  products: 'product',
  machines: 'machine',
  jobs: 'job',
  'site-dates': 'job',
  entries: 'entry',
  'calendar-links': 'calendar',
  laboratories: 'laboratory',
  'lab-profiles': 'way',
  'lab-questions': 'question',
  'field-tests': 'fieldTest',
  'load-checks': 'load',
  histories: 'history',
  settings: 'setting',
  members: 'member',
};

/** The kind of what a path deletes or brings back. @throws for a path that nobody put in the list above */
export function kindAt(path: string): RecordKind {
  const kind = kindOf[path.split('/')[1] ?? ''];
  if (!kind) throw new Error(`${path}: say in touches.ts where this shows.`);
  return kind;
}
