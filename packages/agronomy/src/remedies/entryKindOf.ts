import type { EntryKind } from '../ledger/entries.ts';
import type { RemedyName } from './remedyTable.ts';

/** What a remedy is called in the logbook. */
const kindOf: Readonly<Partial<Record<RemedyName, EntryKind>>> = {
  ...{ lime: 'lime', sulfur: 'sulfur', gypsum: 'gypsum', iron: 'iron', compost: 'compost', sand: 'sand' },
  ...{ clay: 'calcined clay', fill: 'fill', wetting: 'wetting agent', weeds: 'weedkiller', seed: 'seed', sod: 'sod' },
  ...{ mulch: 'sprayed mulch', core: 'coring', loosen: 'loosening', leaching: 'watering' },
  ...{ phosphorus: 'fertilizer', potassium: 'fertilizer', nitrogen: 'fertilizer', magnesium: 'fertilizer' },
  ...{ sulfate: 'fertilizer', manganese: 'fertilizer', zinc: 'fertilizer', copper: 'fertilizer', boron: 'fertilizer' },
};
export const entryKindOf = (remedy: RemedyName): EntryKind => kindOf[remedy] ?? 'other';
