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

export const grassField = (): Field<string, false> =>
  choice(grassNames, Object.fromEntries(grasses.flatMap(({ name, aliases }) => aliases.map((alias) => [alias, name]))));

/** The grass of that name or alias. @throws {InputError} */
export function findGrass(name: string): Grass {
  const found = grassField().read(name, 'grass');
  return grasses.find((grass) => grass.name === found)!;
}
