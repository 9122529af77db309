import { limeEffectiveness } from '../lime/effectiveness.ts';
import type { Reading } from '../reading/reading.ts';
import type { Figure } from '../working/working.ts';

/** What a job wants from a product. */
export const purposes = ['lime', 'nitrogen', 'phosphorus', 'potassium'] as const;
export type Purpose = (typeof purposes)[number];

export interface Product {
  readonly id: string;
  readonly name: string;
  readonly purpose: Purpose;
  /** % by mass of N, P₂O₅ and K₂O. */
  readonly grade: { readonly n: number; readonly p2o5: number; readonly k2o: number };
  /** % of the nitrogen that is slow-release. */
  readonly slowRelease: number;
  readonly lime?: LimeStrength | undefined;
  /** kg */
  readonly bagMass: number;
  /** Nothing until the practice has set it. */
  readonly bagPrice: number | null;
}

export interface LimeStrength {
  /** % calcium carbonate equivalent. */
  readonly cce: number;
  /** % through each mesh. */
  readonly passing8: number;
  readonly passing20: number;
  readonly passing60: number;
  /** % */
  readonly moisture: number;
  readonly magnesium: boolean;
  /** Hydrated or quick lime: burns skin and grass. */
  readonly caustic: boolean;
}

/** Effectiveness of a liming product by its label, Ohio fineness rule; %. */
export function productEffectiveness(lime: LimeStrength): Figure {
  const { cce, passing8, passing20, passing60, moisture } = lime;
  const { result, working } = limeEffectiveness({ cce, passing8, passing20, passing60, moisture, rule: 'ohio' });
  return { value: result.effectiveness, working };
}

/** What the zone would be given when the advisor has chosen nothing: straights, and dolomitic lime only where magnesium is short. */
export function suggestProduct(purpose: Purpose, products: readonly Product[], reading: Reading): Product | undefined {
  const candidates = products.filter((product) => product.purpose === purpose && !product.lime?.caustic);
  if (purpose !== 'lime') return candidates[0];
  const magnesium = reading.bars.find((bar) => bar.key === 'mg')?.rating;
  const wantsMagnesium = magnesium === 'low' || magnesium === 'very low';
  return candidates.find((product) => product.lime?.magnesium === wantsMagnesium) ?? candidates[0];
}
