import { type Analyte, analyteWord, analytes, soilAnalytes } from '../analytes/analytes.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/sampling.json' with { type: 'json' };

const some = { min: 1, max: 20 } as const;
const words = () => text(300);

const read = readTable(
  'sampling',
  {
    variation: listOf({ analyte: text(), cv: quantity('%', { above: 0, max: 300 }) }, 'variations', some),
    /** Weeks that must pass, and those that are better. */
    waits: listOf(
      { kind: text(), weeks: quantity('', { min: 1, max: 60 }), better: optional(quantity('', { min: 1, max: 60 })) },
      'waits',
      some,
    ),
    panels: listOf({ name: text(), answers: words(), silent: words() }, 'panels', some),
    questions: listOf({ name: text(), panels: series(text(), 'panels', some) }, 'questions', some),
    purposes: listOf({ name: text(), says: words() }, 'purposes', some),
  },
  data,
);

/** Analytes that a panel must bring, pH before its buffer. */
export const analytesOfPanel = (name: string): readonly Analyte[] =>
  soilAnalytes
    .filter((key) => analytes[key].panel === name)
    .sort((a, b) => Number(b === 'soilPh') - Number(a === 'soilPh'));

/** What a design of sampling rests on. */
export const samplingTables = {
  ...read,
  panels: read.panels.map((panel) => ({ ...panel, analytes: analytesOfPanel(panel.name).map(analyteWord).join(', ') })),
};

export const panelNames = samplingTables.panels.map(({ name }) => name);
export const samplingPurposes = samplingTables.purposes.map(({ name }) => name);

/** How the places of cores are chosen within a zone. */
export const pointDesigns = ['coverage', 'zigzag', 'Z', 'random'] as const;
export type PointDesign = (typeof pointDesigns)[number];
