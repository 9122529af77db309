import { choice, optional } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/owner-part.json' with { type: 'json' };
import { wordFacts } from '../evidence/facts.ts';
import { limitCures } from '../readings/limitCures.ts';
import { remedyNames } from '../remedies/remedyTable.ts';

/** What an owner does himself, and what limits a lawn in his words. */
export const ownerTable = readTable(
  'owner-part',
  {
    parts: listOf(
      {
        remedies: optional(series(choice(remedyNames), 'remedies', { min: 1, max: 20 })),
        uses: optional(series(choice(wordFacts.use), 'uses', { min: 1, max: 8 })),
        does: text(240),
        without: text(240),
      },
      'parts',
      { min: 1, max: 40 },
    ),
    plain: listOf({ key: text(40), words: text(240) }, 'limits', { min: 1, max: 60 }),
  },
  data,
);

for (const { key } of limitCures.limits)
  if (!ownerTable.plain.some((one) => one.key === key)) throw new Error(`owner-part has no words for ${key}`);
