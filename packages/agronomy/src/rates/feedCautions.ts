import { type Product, isChloride, isTooCoarse, nitrogenSourceOf } from '../materials/product.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import type { Limitation } from '../reading/limits.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { ProductAmount } from './amount.ts';
import { type Macro, type Need, macroNames } from './needs.ts';
import type { Carrier } from './carrier.ts';

/** A reason why a product is not for this zone at all, with the remedy. */
export function refusalOf(
  { product, content, nutrient }: Carrier,
  needs: Readonly<Record<Macro, Need>>,
  zone: ZoneFacts,
  salted: boolean,
): string | undefined {
  if (content[nutrient] <= 0) return `${product.name} holds no ${macroNames[nutrient]}: choose another product.`;
  if (nutrient !== 'p2o5' && content.p2o5 > 0 && needs.p2o5.status !== 'due')
    return `${product.name} brings phosphorus, which is ${needs.p2o5.status === 'none' ? 'not wanted here' : 'not shown to be wanted'}: choose a product without it (its middle number 0).`;
  if (product.noSeedingWeeks && zone.surface === 'seedbed')
    return `${product.name} keeps seed from rooting for ${product.noSeedingWeeks} weeks: nothing of it near a seeding. Choose another product.`;
  if (isChloride(product) && zone.surface === 'fine turf')
    return `${product.name} is a chloride, too salty for fine turf: choose potassium sulfate.`;
  if (isChloride(product) && salted)
    return `${product.name} is a chloride, and the ground is salted already: choose potassium sulfate.`;
  return undefined;
}

/** What comes before any rule and any season. */
export function urgentCautions(
  product: Product,
  { carbonate, first }: { readonly carbonate: boolean; readonly first: Limitation | undefined },
): string[] {
  return [
    ...(first ? [`See to the ${first.key} first: feed on ground like this is wasted.`] : []),
    ...(carbonate && nitrogenSourceOf(product) === 'ammonium sulfate'
      ? ['Water it in at once: on free carbonate ammonium gases off.']
      : []),
  ];
}

/** What granules do on turf that is mown so short that the mower picks them up. */
export function granuleCautions(product: Product, { surface }: ZoneFacts): string[] {
  if (surface !== 'fine turf') return [];
  const most = nitrogenLimits.closeMownSgn;
  if (product.sgn === undefined)
    return [
      `How coarse its granules are is not on record: turf mown this short wants SGN ${most} or less, or spray it.`,
    ];
  return isTooCoarse(product)
    ? [
        `Granules of SGN ${product.sgn} lie on turf mown this short, burn in spots and leave with the mower: take SGN ${most} or less, or spray it.`,
      ]
    : [];
}

/** What is minded at every pass. */
export function nitrogenCautions({ applications }: ProductAmount): string[] {
  return [
    'Dry leaves, no heavy rain ahead, sweep granules off paving; the label and local nutrient rules come first.',
    ...(applications.length > 1
      ? ['Four weeks or more between passes that carry nitrogen, and only while the grass grows.']
      : []),
  ];
}
