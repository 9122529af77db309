import { type Field, choice, optional, quantity } from '../calculators/fields.ts';
import { band, group, listOf, record, series, text } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/grasses.json' with { type: 'json' };

const ph = () => quantity('pH', { min: 3, max: 10 });
const perThousand = (max: number) => band(quantity('lb/1000ft2', { min: 0, max }));
const seasons = ['cool', 'warm'] as const;

const seedFields = {
  /** lb/1000 ft² on bare ground. */
  new: perThousand(20),
  /** lb/1000 ft² into standing grass; half of new where none is given. */
  overseed: optional(perThousand(20)),
  /** lb/1000 ft² sown into bermudagrass for the winter. */
  winterOverBermuda: optional(perThousand(20)),
  /** cm; not over ¼ in, buffalograss ½. */
  depth: band(quantity('cm', { min: 0, max: 1.3 })),
  /** Days to emerge in a warm, moist bed. */
  emerge: band(quantity('', { above: 0, max: 60 })),
  /** Purity × germination of ordinary seed; that of the table where none is given. */
  liveShare: optional(quantity('', { above: 0, max: 1 })),
};

const grassFields = {
  name: text(),
  /** The name as written inside a sentence. */
  label: text(),
  aliases: series(text(), 'names', { min: 0, max: 10 }),
  season: choice(seasons),
  /** Soil pH that needs no correction. */
  ph: band(ph()),
  /** Where a correction aims. */
  aim: ph(),
  /** lb N/1000 ft² a year, low and high intensity, clippings removed. */
  nitrogen: perThousand(12),
  /** lb N/1000 ft² a year that only an override may reach. */
  nitrogenOverride: optional(quantity('lb/1000ft2', { min: 0, max: 12 })),
  shade: choice(['very poor', 'poor', 'fair', 'good']),
  /** Hours of direct sun a day below which it thins out. */
  leastSun: quantity('', { min: 0, max: 12 }),
  /** dS/m of the saturated paste at which growth begins to suffer, by its class. */
  salt: band(quantity('dS/m', { min: 0, max: 30 })),
  establish: series(choice(['seed', 'sod', 'sprigs', 'plugs']), 'ways', { min: 1, max: 4 }),
  spreads: text(),
  seed: optional(group(seedFields)),
  notSeeded: optional(text(200)),
  caution: optional(text(200)),
};

/** The grasses as the data file has them, with its source. */
export const grassTable = readTable(
  'grasses',
  {
    /** Purity × germination of seed of ordinary quality, which the rates are of. */
    ordinaryLiveShare: quantity('', { above: 0, max: 1 }),
    /** °C of the soil in which seed comes up. */
    soilTemperature: record(
      seasons,
      group({
        range: band(quantity('C', { min: 0, max: 40 })),
        trend: choice(['rising', 'falling']),
        window: text(),
      }),
    ),
    grasses: listOf(grassFields, 'grasses', { min: 1, max: 100 }),
  },
  data,
);
for (const {
  name,
  ph: [low, high],
  aim,
  nitrogen,
  seed,
  notSeeded,
} of grassTable.grasses) {
  mustRise(`grasses.${name}.ph`, [low - 1e-9, aim, high + 1e-9]);
  mustRise(`grasses.${name}.nitrogen`, nitrogen);
  if ((seed === undefined) === (notSeeded === undefined)) throw new Error(`grasses.${name}: seed or notSeeded`);
}

export type Grass = (typeof grassTable)['grasses'][number];
export const grasses: readonly Grass[] = grassTable.grasses;
export const grassSource = grassTable.source;
export const grassNames = grasses.map(({ name }) => name);
/** When and in what soil the grasses of a season come up from seed. */
export const seedingWindows = grassTable.soilTemperature;

/** Salinity class by the lower end of {@link Grass.salt}, in the four words of the classification. */
export function saltTolerance({ salt: [from] }: Grass): string {
  return from < 3 ? 'sensitive' : from < 6 ? 'moderately sensitive' : from < 10 ? 'moderately tolerant' : 'tolerant';
}

const field = choice(
  grassNames,
  Object.fromEntries(grasses.flatMap(({ name, aliases }) => aliases.map((alias) => [alias, name]))),
);
const byName = new Map(grasses.map((grass) => [grass.name, grass]));

export const grassField = (): Field<string, false> => field;

/** The grass of that name or alias. @throws {InputError} */
export function findGrass(name: string): Grass {
  return byName.get(field.read(name, 'grass'))!;
}

/** Days that a grass, or all of a mix, takes to come up: the first of the quickest to the last of the slowest. */
export function emergenceOf(names: readonly string[]): readonly [number, number] | undefined {
  const ranges = names.map((name) => findGrass(name).seed?.emerge).filter((range) => range !== undefined);
  if (ranges.length === 0) return undefined;
  return [Math.min(...ranges.map(([from]) => from)), Math.max(...ranges.map(([, to]) => to))];
}

/** Where salt begins to harm a grass and where it is harmful, dS/m; a sensitive grass takes half of the harmful one as begin. */
export function saltLimits({ salt: [from, to] }: Pick<Grass, 'salt'>): readonly [number, number] {
  return [from === 0 ? to / 2 : from, to];
}
