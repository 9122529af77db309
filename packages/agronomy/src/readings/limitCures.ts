import { capital } from '../units/capital.ts';
import { choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/limit-cures.json' with { type: 'json' };
import { analyteWord, nutrients } from '../analytes/analytes.ts';
import { troubleRules } from '../trouble/trouble.ts';

/** What a remedy of a limit costs, by what is bought and who is wanted. */
export const costClasses = ['little', 'some', 'much'] as const;
export type CostClass = (typeof costClasses)[number];

const points = () => quantity('', { min: 1, max: 20, whole: true });
const cure = () => group({ remedy: text(240), shows: text(120) });

/** What cures a limit, in which order, what it costs and when it shows; and from when on a suspicion counts. */
export const limitCures = readTable(
  'limit-cures',
  {
    suspectFrom: points(),
    clearFrom: points(),
    /** Points of one piece that make a suspicion without a sign that points at it. */
    strong: points(),
    costs: listOf({ name: choice(costClasses), means: text(120) }, 'costs', { min: 3, max: 3 }),
    limits: listOf(
      {
        key: text(40),
        label: text(60),
        remedy: text(240),
        /** What it is in a garden bed, where no grass grows. */
        inBed: optional(text(240)),
        cost: choice(costClasses),
        shows: text(120),
        /** What it is instead, once it is known whether the soil holds free carbonate. */
        byCarbonate: optional(group({ present: cure(), absent: cure() })),
        after: optional(series(text(40), 'limits', { min: 1, max: 8 })),
        /** Causes of trouble whose evidence speaks for it or against it. */
        causes: series(text(40), 'causes', { min: 0, max: 4 }),
      },
      'limits',
      { min: 1, max: 60 },
    ),
  },
  data,
);
export type LimitCure = (typeof limitCures)['limits'][number];

const words: readonly string[] = nutrients.map(analyteWord);
/** Name under which a limit is cured and ordered: any nutrient is one. */
export const curedAs = (key: string): string => (words.includes(key) ? 'nutrient' : key);
/** What cures a limit; any nutrient is cured by feeding. */
export const cureOf = (key: string): LimitCure => limitCures.limits.find((cure) => cure.key === curedAs(key))!;
/** Its name as a limit: "High pH", "Potassium". */
export const limitLabel = (key: string): string => (curedAs(key) === 'nutrient' ? capital(key) : cureOf(key).label);

// Every cause of trouble leads to a limit, and every name is one that there is.
const causeNames = troubleRules.causes.map(({ name }) => name);
for (const { key, causes, after = [] } of limitCures.limits) {
  for (const name of causes)
    if (!causeNames.includes(name)) throw new Error(`limit-cures.${key} names no cause: ${name}`);
  for (const name of after)
    if (!limitCures.limits.some((one) => one.key === name))
      throw new Error(`limit-cures.${key} comes after nothing: ${name}`);
}
for (const name of causeNames)
  if (!limitCures.limits.some(({ causes }) => causes.includes(name))) throw new Error(`no limit for the cause ${name}`);
