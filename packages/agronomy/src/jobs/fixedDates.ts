import { choice, optional, quantity } from '../calculators/fields.ts';
import { flag, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/fixed-dates.json' with { type: 'json' };
import { type RemedyName, remedyNames } from '../remedies/remedyTable.ts';
import { cardOf } from './cardTable.ts';
import { upAfter } from './watering.ts';

/** Kinds of dates that work is to be ready for. */
export const dateKinds = ['match', 'rains begin', 'rains end', 'visit'] as const;
export type DateKind = (typeof dateKinds)[number];

const days = () => quantity('', { min: 0, max: 200, whole: true });

/** What has to be finished how long before a date of each kind. */
export const fixedDateTable = readTable(
  'fixed-dates',
  {
    /** % from which ground counts as a slope. */
    slopeFrom: quantity('%', { min: 0, max: 100 }),
    kinds: listOf(
      {
        name: choice(dateKinds),
        label: text(40),
        about: text(120),
        jobs: listOf(
          {
            remedies: series(choice(remedyNames), 'remedies', { min: 1, max: remedyNames.length }),
            /** The days count from when it is up. */
            up: flag(),
            days: days(),
            onSlope: optional(days()),
            why: text(80),
            risk: text(200),
          },
          'jobs',
          { min: 0, max: 20 },
        ),
      },
      'kinds',
      { min: dateKinds.length, max: dateKinds.length },
    ),
  },
  data,
);

export const dateKindOf = (name: DateKind): (typeof fixedDateTable)['kinds'][number] =>
  fixedDateTable.kinds.find((kind) => kind.name === name)!;

/** What of a job matters before a date beside its days. */
export interface DatedGround {
  /** Days in which what is sown comes up; from the first to the last. */
  readonly emerge?: readonly [number, number] | undefined;
  /** % */
  readonly slope?: number | undefined;
}

/** How long before a date a job is done, and why; nothing where a date of this kind does not touch it. */
export function readyBefore(
  kind: DateKind,
  remedy: RemedyName,
  { emerge, slope }: DatedGround,
): { readonly days: number; readonly why: string; readonly risk: string } | undefined {
  if (kind === 'match') {
    const { settle, risk } = cardOf(remedy);
    return { days: settle, why: 'settled and firm', risk };
  }
  const row = dateKindOf(kind).jobs.find(({ remedies }) => remedies.includes(remedy));
  if (!row) return undefined;
  const steep = slope !== undefined && slope >= fixedDateTable.slopeFrom;
  const after = steep ? (row.onSlope ?? row.days) : row.days;
  return {
    days: after + (row.up ? upAfter(emerge) : 0),
    why: row.why,
    risk: row.risk,
  };
}
