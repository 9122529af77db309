import { nitrogenSourceField } from '../acidify/tables.ts';
import { type Field, InputError, type Values, choice, optional, quantity, readFields } from '../calculators/fields.ts';
import { flag, listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/materials.json' with { type: 'json' };
import { grassField } from '../nutrients/grasses.ts';
import { straightOf } from '../nutrients/straights.ts';
import {
  type Analysis,
  type AnalysisKey,
  analysisEntries,
  analysisKeys,
  analysisOf,
  materialKinds,
} from './analysis.ts';

export const packUnits = ['kg', 'L', 'm3'] as const;
export const chelates = ['EDTA', 'DTPA', 'EDDHA', 'HEDTA'] as const;

/** Numbers of an analysis, each within its range. */
const analysisField: Field<Analysis, false> = {
  description: '{key: number} as the label has it',
  optional: false,
  shape: { kind: 'json' },
  read: (raw, path) =>
    readFields(
      Object.fromEntries(
        analysisKeys.map((key) => {
          const { unit, min, max } = analysisEntries[key];
          return [key, optional(quantity(unit, { min, max }))];
        }),
      ) as Record<AnalysisKey, Field<number | undefined>>,
      raw,
      `${path}.`,
    ),
};

const materialFields = {
  name: text(),
  kind: choice(materialKinds),
  analysis: analysisField,
  nitrogenSource: optional(nitrogenSourceField()),
  chelate: optional(choice(chelates)),
  /** Species and their shares, %. */
  seeds: optional(
    listOf({ grass: grassField(), share: quantity('%', { above: 0, max: 100 }) }, 'species', { min: 1, max: 12 }),
  ),
  /** Of natural origin. */
  natural: optional(flag()),
  dolomitic: optional(flag()),
  /** Hydrated or quick lime: burns skin and grass. */
  caustic: optional(flag()),
  caution: optional(text(400)),
  /** What one bag, can or load holds. */
  packSize: quantity('', { above: 0, max: 100_000 }),
  packUnit: choice(packUnits),
};

/** A material as the trade sells it, by its analysis: no brand, and no price. */
export type Material = Values<typeof materialFields>;

/**
 * Read a material and hold its parts together.
 *
 * @throws {InputError} for numbers that do not belong to the kind, cannot stand together, or are missing.
 */
export function readMaterial(raw: unknown, path = ''): Material {
  const material = readFields(materialFields, raw, path);
  checkMaterial(material, path);
  return material;
}

/** What a bag is made of besides its carrier, %. */
const held = ['n', 'p2o5', 'k2o', 'ca', 'mg', 's', 'fe', 'mn', 'zn', 'cu', 'b', 'na'] as const;

/** @throws {InputError} naming the field, with what is wanted instead. */
export function checkMaterial(material: Material, path = ''): void {
  const { kind, analysis, seeds, packUnit } = material;
  const own = analysisOf(kind);
  for (const key of analysisKeys) {
    const { label, required } = analysisEntries[key];
    if (analysis[key] !== undefined && !own.includes(key))
      throw new InputError(`${path}analysis.${key}`, `(${label}) does not belong to ${kind}: leave it empty`);
    if (analysis[key] === undefined && required && own.includes(key))
      throw new InputError(
        `${path}analysis.${key}`,
        `(${label}) is missing: the label has it, and no rate comes without`,
      );
  }
  const { n = 0, p2o5 = 0, k2o = 0 } = analysis;
  // What the label leaves out of a straight is completed, and counts.
  const known = kind === 'fertilizer' && !analysis.slowRelease ? straightOf({ n, p2o5, k2o }) : undefined;
  const parts = held.reduce((sum, key) => sum + (analysis[key] ?? (known as Analysis | undefined)?.[key] ?? 0), 0);
  if (parts > 100)
    throw new InputError(
      `${path}analysis.n`,
      `and the other contents make ${Math.round(parts)} % together: check the label`,
    );
  if (kind === 'fertilizer' && parts <= 0)
    throw new InputError(`${path}analysis.n`, 'and all other contents are empty: a fertilizer holds something');
  const { passing8, passing20, passing60 } = analysis;
  if (kind === 'lime' && !(passing8! >= passing20! && passing20! >= passing60!))
    throw new InputError(
      `${path}analysis.passing20`,
      'is out of order: what passes a finer mesh has passed the coarser ones',
    );
  if (kind === 'seed') {
    if (!seeds) throw new InputError(`${path}seeds`, 'are missing: give each species with its share');
    const sum = seeds.reduce((total, { share }) => total + share, 0);
    if (Math.abs(sum - 100) > 1)
      throw new InputError(`${path}seeds`, `make ${Math.round(sum)} % together: they are to make 100 %`);
  } else if (seeds) throw new InputError(`${path}seeds`, `do not belong to ${kind}: leave them out`);
  const weighed = kind === 'lime' || kind === 'fertilizer' || kind === 'sulfur' || kind === 'gypsum' || kind === 'seed';
  if (weighed && packUnit !== 'kg')
    throw new InputError(`${path}packUnit`, `is ${packUnit}: ${kind} is reckoned by weight, so give what a bag weighs`);
}

export const materialTable = readTable(
  'materials',
  { materials: listOf(materialFields, 'materials', { min: 1, max: 200 }) },
  data,
);
/** The generic catalogue: what any practice may start from. */
export const genericMaterials: readonly Material[] = materialTable.materials;
for (const [index, material] of genericMaterials.entries()) checkMaterial(material, `materials.${index}.`);
