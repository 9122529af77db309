import { choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/work-cards.json' with { type: 'json' };
import { type RemedyName, remedyNames } from '../remedies/remedyTable.ts';
import { windowJobs } from './windowRules.ts';

const lines = () => series(text(200), 'lines', { min: 1, max: 12 });

/** Whose rule of the day a remedy keeps; what depends on the product or the grass is told apart when it is known. */
const windowWords = [...windowJobs, 'fertilizer', 'seed'] as const;

/** What happens with water after a job. */
export const afterWater = ['water in', 'rain', 'keep dry', 'seedbed', 'none'] as const;

/** What each job takes, in the order of the hands. */
export const cardTable = readTable(
  'work-cards',
  {
    cards: listOf(
      {
        remedies: series(choice(remedyNames), 'remedies', { min: 1, max: remedyNames.length }),
        window: optional(choice(windowWords)),
        /** Days from one dose to the next, at least. */
        apart: quantity('', { min: 0, max: 400, whole: true }),
        /** Days before a fixed date by which it is to be done. */
        settle: quantity('', { min: 0, max: 400, whole: true }),
        /** What a shortcut risks. */
        risk: text(300),
        tools: lines(),
        evening: lines(),
        wear: lines(),
        /** What goes into a tank, in order. */
        tank: optional(lines()),
        spread: lines(),
        water: choice(afterWater),
        waterWords: text(200),
        clear: lines(),
        keepOff: text(200),
      },
      'cards',
      { min: 1, max: remedyNames.length },
    ),
  },
  data,
);
export type CardEntry = (typeof cardTable)['cards'][number];

const entries = new Map<RemedyName, CardEntry>(
  cardTable.cards.flatMap((card) => card.remedies.map((remedy) => [remedy, card] as const)),
);
for (const remedy of remedyNames) if (!entries.has(remedy)) throw new Error(`work-cards: ${remedy} has no card`);

export const cardOf = (remedy: RemedyName): CardEntry => entries.get(remedy)!;
