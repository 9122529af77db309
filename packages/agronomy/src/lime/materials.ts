import { surfaces } from '../ground/surfaces.ts';
import { choice, optional, quantity } from '../calculators/fields.ts';
import { band, flag, group, listOf, record, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import finenessData from '../data/lime-fineness.json' with { type: 'json' };
import limitData from '../data/lime-limits.json' with { type: 'json' };
import sourceData from '../data/lime-sources.json' with { type: 'json' };

const share = () => quantity('', { min: 0, max: 1 });
const finenessFields = { from8to20: share(), from20to60: share(), under60: share() };

/** How much of each mesh size acts, by the rule of a state. */
export const finenessRules = {
  ohio: readTable('lime-fineness.ohio', finenessFields, finenessData.ohio),
  kansas: readTable('lime-fineness.kansas', finenessFields, finenessData.kansas),
} as const;

const percent = (max: number) => quantity('%', { min: 0, max });
const materialFields = {
  name: text(),
  aliases: series(text(), 'names', { min: 0, max: 10 }),
  /** % calcium carbonate equivalent, dry. */
  cce: band(percent(180)),
  calcium: percent(72),
  magnesium: percent(60),
  /** Burns skin and grass. */
  caustic: flag(),
  /** Own caps, lb/1000 ft² of product at once and a year. */
  cap: optional(
    group({
      once: quantity('lb/1000ft2', { above: 0, max: 100 }),
      year: quantity('lb/1000ft2', { above: 0, max: 200 }),
    }),
  ),
  note: optional(text(200)),
};

/** What lime can be made of. */
export const limeSources = readTable(
  'lime-sources',
  { materials: listOf(materialFields, 'materials', { min: 1, max: 50 }) },
  sourceData,
);

/** One of the liming materials, by name or alias. */
export const limeMaterialField = () =>
  choice(
    limeSources.materials.map(({ name }) => name),
    Object.fromEntries(limeSources.materials.flatMap(({ name, aliases }) => aliases.map((alias) => [alias, name]))),
  );

const limitFields = {
  monthsBetween: quantity('', { above: 0, max: 36 }),
  capPerThousand: record(surfaces, quantity('lb/1000ft2', { min: 1, max: 500 })),
  /** Applications in a year; the rest waits for the retest. */
  timesPerYear: optional(record(surfaces, quantity('', { min: 1, max: 12, whole: true }))),
};

/** Read limits of lime applications, general or a practice's own. @throws {InputError} */
export function readLimeLimits(raw: unknown, name = 'table') {
  return readTable(name, limitFields, raw);
}

export const limeLimits = readLimeLimits(limitData, 'lime-limits');
