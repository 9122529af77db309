import { optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/sampling.json' with { type: 'json' };

const some = { min: 1, max: 20 } as const;
const words = () => text(300);

/** What a design of sampling rests on. */
export const samplingTables = readTable(
  'sampling',
  {
    variation: listOf({ analyte: text(), cv: quantity('%', { above: 0, max: 300 }) }, 'variations', some),
    /** Weeks that must pass, and those that are better. */
    waits: listOf(
      { kind: text(), weeks: quantity('', { min: 1, max: 60 }), better: optional(quantity('', { min: 1, max: 60 })) },
      'waits',
      some,
    ),
    panels: listOf({ name: text(), analytes: words(), answers: words(), silent: words() }, 'panels', some),
    questions: listOf({ name: text(), panels: series(text(), 'panels', some) }, 'questions', some),
    purposes: listOf({ name: text(), says: words() }, 'purposes', some),
  },
  data,
);

export const panelNames = samplingTables.panels.map(({ name }) => name);
export const samplingPurposes = samplingTables.purposes.map(({ name }) => name);

/** How the places of cores are chosen within a zone. */
export const pointDesigns = ['coverage', 'zigzag', 'Z', 'random'] as const;
export type PointDesign = (typeof pointDesigns)[number];
