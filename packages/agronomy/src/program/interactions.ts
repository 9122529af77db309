import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { flag, group, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/interactions.json' with { type: 'json' };
import { remedyNames } from '../remedies/remedyTable.ts';

const remedyList = () => series(choice(remedyNames), 'remedies', { min: 1, max: remedyNames.length });
const sides = ['one', 'other'] as const;

/** What works against what in one program. */
export const interactionTable = readTable(
  'interactions',
  {
    /** cm laid on the surface in a year. */
    surfaceYear: quantity('cm', { above: 0, max: 10 }),
    /** What stands once in a zone. */
    once: remedyList(),
    /** What is nothing without one of the others. */
    needs: listOf({ one: remedyList(), needs: remedyList(), words: text(240) }, 'needs', { min: 1, max: 20 }),
    /** Where a feed burns: its salt index, °C of the month, and the growth of months that it moves to. */
    saltOnDry: group({
      indexFrom: quantity('', { above: 0, max: 200 }),
      meanFrom: quantity('C', { min: 0, max: 40 }),
      growthFrom: quantity('', { min: 0, max: 1 }),
    }),
    pairs: listOf(
      {
        key: text(60),
        one: remedyList(),
        other: remedyList(),
        /** Only where the product of one of the feeds is of this kind. */
        carries: optional(choice(['ammonium', 'keeps seed from rooting', 'a wait before seeding', 'peat'])),
        /** Days from one to the other, at least. */
        apartDays: optional(quantity('', { min: 0, max: 366, whole: true })),
        /** Told, and left to the advisor. */
        told: optional(flag()),
        /** The first before the other. */
        order: optional(flag()),
        /** Never both in one program: which of them goes. */
        never: optional(choice(sides)),
        /** Which of them moves. */
        move: optional(choice(sides)),
        words: text(240),
      },
      'pairs',
      { min: 1, max: 60 },
    ),
  },
  data,
);
for (const { key, apartDays, order, never, told } of interactionTable.pairs)
  if (apartDays === undefined && !order && never === undefined && !told)
    throw new InputError(key, 'does not say what is wrong');
