import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/amendments.json' with { type: 'json' };

const percent = () => quantity('%', { min: 0, max: 100 });
const fields = {
  name: text(),
  aliases: series(text(), 'names', { min: 0, max: 10 }),
  /** g/cm³ as delivered. */
  bulkDensity: quantity('g/cm3', { above: 0, max: 2.7 }),
  /** % of the mass as delivered. */
  dryFraction: percent(),
  /** % of the dry matter. */
  organicFraction: percent(),
  /** % of the organic matter still there after a year; nothing where no number is known. */
  retained: optional(percent()),
  /** % of it still there after years, for programs. */
  lasting: optional(percent()),
  cec: quantity('cmol/kg', { min: 0, max: 400 }),
  n: optional(percent()),
  p2o5: optional(percent()),
  k2o: optional(percent()),
  nitrogenFirstYear: optional(percent()),
};

/** What is spread on a lawn or mixed into its soil, with typical values. */
export const amendments = readTable(
  'amendments',
  { materials: listOf(fields, 'materials', { min: 1, max: 50 }) },
  data,
);
export type Amendment = (typeof amendments)['materials'][number];

const byName = new Map(amendments.materials.map((material) => [material.name, material]));

/** One of the materials, by name or alias. */
export const amendmentField = () =>
  choice(
    [...byName.keys()],
    Object.fromEntries(amendments.materials.flatMap(({ name, aliases }) => aliases.map((alias) => [alias, name]))),
  );

/** The material of that name, when one was given. */
export function findAmendment(name: string | undefined): Amendment | undefined {
  return name === undefined ? undefined : byName.get(name);
}

/**
 * What was measured, else what is typical of the material.
 *
 * @throws {InputError} naming the field when there is neither.
 */
export function valueOr(field: string, unit: string, measured: number | undefined, typical: number | undefined) {
  const value = measured ?? typical;
  if (value === undefined)
    throw new InputError(field, `was given nothing; wanted it in ${unit}, or a material that has a typical value`);
  return value;
}
