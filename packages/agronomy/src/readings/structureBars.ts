import { choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/structure-words.json' with { type: 'json' };
import { dropOf, percolationClasses } from '../soil/percolation.ts';
import { WorkingBook, figure } from '../working/working.ts';
import type { Bar } from '../reading/bars.ts';
import type { FieldMeasurements, ZoneFacts } from '../reading/zoneFacts.ts';

const limits = () => series(quantity('', { above: 0, max: 5000 }), 'limits', { min: 2, max: 3 });

/** What was measured of structure and water, in words. */
export const structureWords = readTable(
  'structure-words',
  {
    bars: listOf(
      {
        key: choice(['percolationSlowest', 'infiltration', 'probeStop', 'rootDepth', 'thatch', 'waterDrop']),
        name: text(60),
        sense: choice(['rate', 'depth', 'time']),
        limits: limits(),
        fineTurf: optional(limits()),
        words: series(text(40), 'words', { min: 3, max: 4 }),
        wanted: quantity('', { min: 0, max: 3, whole: true }),
        /** Words under which something is to be done. */
        acts: series(text(40), 'words', { min: 1, max: 4 }),
      },
      'bars',
      { min: 1, max: 20 },
    ),
  },
  data,
);
const units = { rate: 'mm/h', depth: 'cm', time: 's' } as const;

/** The drop of a hole of the slowest layer, or the mean drop where no layers were told apart. */
function drainage({ percolationSlowest: slowest, percolationOverall: overall }: FieldMeasurements, book: WorkingBook) {
  if (slowest === undefined) return overall;
  const drop = dropOf(slowest);
  book.step({
    label: 'The slowest layer, as the drop of a whole hole of it',
    formula: `permeability × ${percolationClasses.dropOfHole}`,
    numbers: `${figure(slowest)} × ${percolationClasses.dropOfHole}`,
    result: drop,
    unit: 'mm/h',
    source: percolationClasses.source,
  });
  return drop;
}

/** Bars of what was measured on the ground itself; nothing of what was not. */
export function structureBars({ measured = {}, surface }: Pick<ZoneFacts, 'measured' | 'surface'>): Bar[] {
  return structureWords.bars.flatMap((row): Bar[] => {
    const { key, name, sense, words, wanted } = row;
    const own = surface === 'fine turf' && row.fineTurf ? row.fineTurf : row.limits;
    const book = new WorkingBook();
    const value = key === 'percolationSlowest' ? drainage(measured, book) : measured[key];
    if (value === undefined) return [];
    const at = own.filter((limit) => value >= limit - 1e-9).length;
    book.step({
      label: name,
      formula: `${words.join(' | ')}, each from its lower limit`,
      numbers: `${own.map((limit) => figure(limit)).join(' | ')} ${units[sense]}; measured ${figure(value)}`,
      result: words[at]!,
      unit: '',
      source: structureWords.source,
    });
    return [
      {
        ...{ key, name, sense, limits: own, rating: null, wanted: null, belowDetection: false },
        figure: { value, working: book.entries },
        scale: { words, wanted, at },
        words: '',
        acts: row.acts.includes(words[at]!),
      },
    ];
  });
}
