import type { Material } from './material.ts';
import { productEffectiveness, productOf, purposeOf } from './product.ts';

const held = { nitrogen: ['N', 'n'], phosphorus: ['P₂O₅', 'p2o5'], potassium: ['K₂O', 'k2o'] } as const;
const named = { sulfur: ['S', 's'], iron: ['Fe', 'fe'] } as const;

/**
 * What a material costs for what it is bought for: money per kg of its main nutrient, or of lime at full effect.
 *
 * @returns nothing without a price, and for what is bought by its volume.
 */
export function unitPrice(
  material: Material,
  packPrice: number | null,
): { readonly of: string; readonly perKg: number } | null {
  const { kind, analysis, packSize, packUnit } = material;
  if (packPrice === null || packUnit !== 'kg') return null;
  const per = (of: string, percent: number | undefined) =>
    percent ? { of, perKg: packPrice / ((packSize * percent) / 100) } : null;
  if (kind === 'sulfur' || kind === 'iron') return per(...([named[kind][0], analysis[named[kind][1]]] as const));
  const product = productOf('', material, packPrice);
  if (!product) return null;
  if (product.lime) return per('effective lime', productEffectiveness(product.lime).value);
  const purpose = purposeOf(product);
  if (!purpose || purpose === 'lime') return null;
  const [of, key] = held[purpose];
  return per(of, analysis[key]);
}
