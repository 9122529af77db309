import type { Material } from '../materials/material.ts';
import { type Purpose, productOf, serves } from '../materials/product.ts';
import { compost } from './compost.ts';
import { fill } from './fill.ts';
import { core, drain, loosen, work } from './ground.ts';
import type { Remedy } from './remedy.ts';
import type { RemedyName } from './remedyTable.ts';
import { clear, sod, weeds } from './renovation.ts';
import { mulch } from './mulch.ts';
import { seed } from './seed.ts';
import { gypsum, iron, leaching, magnesium, sulfur } from './soil.ts';
import { sulfate, traces } from './shortages.ts';
import { clay, sand } from './topdress.ts';
import { wetting } from './wetting.ts';
import { perAreaFields } from './fed.ts';

/** Remedies that are made by themselves; lime and the feeding are reckoned together, by what each product holds. */
const remedies: ReadonlyArray<Remedy> = [
  ...[drain, work, weeds, clear, fill, core, loosen, compost, sand, clay, gypsum, leaching],
  ...[sulfur, wetting, magnesium, sulfate, ...traces, iron, seed, sod, mulch],
];
const byName = new Map<RemedyName, Remedy>(remedies.map((remedy) => [remedy.name, remedy]));

/** The remedy of that name; nothing for lime and the feeding. */
export const remedyOf = (name: RemedyName): Remedy | undefined => byName.get(name);

const purposes: Readonly<Partial<Record<RemedyName, Purpose>>> = {
  ...{ lime: 'lime', nitrogen: 'nitrogen', phosphorus: 'phosphorus', potassium: 'potassium' },
};

/** Whether a remedy can be made with a material: it holds what is wanted. */
export function suitsRemedy(material: Material, name: RemedyName): boolean {
  const purpose = purposes[name];
  if (!purpose) return byName.get(name)?.kinds.includes(material.kind) ?? false;
  const product = productOf('', material, null);
  return product !== undefined && serves(product, purpose);
}

/** What may be set by hand of any remedy. */
export const fieldsOf = (name: RemedyName) => byName.get(name)?.fields ?? perAreaFields;
/** Materials that further fields of a remedy name, by field. */
export const alsoMixedOf = (name: RemedyName): NonNullable<Remedy['beside']> => byName.get(name)?.beside ?? {};
export { remedies };
