import { choice, optional, quantity } from '../calculators/fields.ts';
import { flag, listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/remedies.json' with { type: 'json' };
import { monthJobs } from './months.ts';

/** Kinds of cure. */
export const remedyNames = [
  ...([
    'drain',
    'work',
    'weeds',
    'clear',
    'fill',
    'core',
    'loosen',
    'compost',
    'sand',
    'clay',
    'gypsum',
    'leaching',
    'lime',
    'sulfur',
  ] as const),
  ...([
    'wetting',
    'phosphorus',
    'potassium',
    'nitrogen',
    'magnesium',
    'sulfate',
    'manganese',
    'zinc',
    'copper',
    'boron',
  ] as const),
  ...(['iron', 'seed', 'sod', 'mulch'] as const),
] as const;
export type RemedyName = (typeof remedyNames)[number];

export interface RemedyEntry {
  readonly name: RemedyName;
  /** As a heading: "Coring". */
  readonly label: string;
  /** Place in the order of work. */
  readonly stage: number;
  /** What one dose of it is called: "application", "pass". */
  readonly dose: string;
  /** Whose months it keeps. */
  readonly job: string;
  /** Done by hand, machine or firm, and nothing is bought for it: it costs what its work costs. */
  readonly work?: boolean | undefined;
}

/** The remedies in the order of work. */
export const remedyTable = readTable(
  'remedies',
  {
    remedies: listOf(
      {
        name: choice(remedyNames),
        label: text(40),
        stage: quantity('', { min: 1, max: 99, whole: true }),
        dose: text(20),
        job: choice(monthJobs),
        work: optional(flag()),
      },
      'remedies',
      { min: remedyNames.length, max: remedyNames.length },
    ),
  },
  data,
);

const entries = new Map<RemedyName, RemedyEntry>(remedyTable.remedies.map((entry) => [entry.name, entry]));
for (const name of remedyNames) if (!entries.has(name)) throw new Error(`remedies: ${name} is missing`);

export const remedyEntry = (name: RemedyName): RemedyEntry => entries.get(name)!;
