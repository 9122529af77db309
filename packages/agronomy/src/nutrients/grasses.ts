import { type Field, choice } from '../calculators/fields.ts';
import data from '../data/grasses.json' with { type: 'json' };

export interface Grass {
  readonly name: string;
  /** The name as written inside a sentence. */
  readonly label: string;
  readonly aliases: readonly string[];
  readonly season: string;
  /** Soil pH that needs no correction, low and high. */
  readonly ph: readonly [number, number];
  /** Where a correction aims. */
  readonly aim: number;
  /** lb N/1000 ft² a year, low and high intensity, clippings removed. */
  readonly nitrogen: readonly [number, number];
  readonly caution?: string;
}

export const grasses = data.grasses.map((grass) => ({ label: grass.name, ...grass })) as unknown as readonly Grass[];
export const grassSource = data.source;
export const grassNames = grasses.map(({ name }) => name);

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
