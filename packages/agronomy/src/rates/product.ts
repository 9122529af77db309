import { limeEffectiveness } from '../lime/effectiveness.ts';
import { limeSources } from '../lime/materials.ts';
import type { Balanced } from '../nutrients/productBalance.ts';
import { type Straight, straightOf } from '../nutrients/straights.ts';
import type { Figure } from '../working/working.ts';

/** What a job wants from a product. */
export const purposes = ['lime', 'nitrogen', 'phosphorus', 'potassium'] as const;
export type Purpose = (typeof purposes)[number];

export interface Product {
  readonly id: string;
  readonly name: string;
  readonly purpose: Purpose;
  /** % by mass of N, P₂O₅ and K₂O, and of what else the label tells. */
  readonly grade: Readonly<Record<'n' | 'p2o5' | 'k2o', number>> & Readonly<Partial<Record<Balanced, number>>>;
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

/** The straight that a product is by its grade; a slow product is another material of the grade. */
function asStraight({ grade, slowRelease }: Product): Straight | undefined {
  return slowRelease > 0 ? undefined : straightOf(grade);
}

/** All that a product holds, %: the label, completed by what a straight of that grade is known to hold. */
export function contentOf(product: Product): Readonly<Record<Balanced, number>> {
  const known = asStraight(product);
  if (product.lime) {
    const source = limeSources.materials.find(
      ({ name }) => name === (product.lime!.magnesium ? 'dolomitic lime' : 'calcitic lime'),
    )!;
    return { n: 0, p2o5: 0, k2o: 0, ca: source.calcium, mg: source.magnesium, s: 0, fe: 0 };
  }
  const { n, p2o5, k2o, ca, mg, s, fe } = product.grade;
  return {
    n,
    p2o5,
    k2o,
    ca: ca ?? known?.ca ?? 0,
    mg: mg ?? known?.mg ?? 0,
    s: s ?? known?.s ?? 0,
    fe: fe ?? known?.fe ?? 0,
  };
}

/** What the nitrogen of a product comes as, for its acidity; a slow or unknown one counts as urea does. */
export function nitrogenSourceOf(product: Product): string {
  return asStraight(product)?.nitrogenSource ?? 'urea';
}

export function saltIndexOf(product: Product): number | undefined {
  return asStraight(product)?.saltIndex;
}

/** Potash as chloride: salty, and not for fine turf. */
export function isChloride(product: Product): boolean {
  return (asStraight(product)?.chloride ?? 0) > 0;
}

/** Caps of its own that a liming material has, such as wood ash, lb/1000 ft². */
export function ownLimeCap({ name }: Product): { readonly once: number; readonly year: number } | undefined {
  const plain = name.toLowerCase();
  return limeSources.materials.find((material) => material.cap && plain.includes(material.name))?.cap;
}

/** What of a zone bears on which product suits it. */
export interface ProductWish {
  /** Dolomitic lime, or a potash with magnesium. */
  readonly magnesium: boolean;
  /** Ammonium sulfate, on ground above its band. */
  readonly acidifying: boolean;
  /** No chloride: fine turf and salted ground. */
  readonly lowSalt: boolean;
}

/** What the zone would be given when the advisor has chosen nothing. */
export function suggestProduct(purpose: Purpose, products: readonly Product[], wish: ProductWish): Product | undefined {
  const candidates = products.filter((product) => product.purpose === purpose && !product.lime?.caustic);
  switch (purpose) {
    case 'lime':
      return candidates.find(({ lime }) => lime?.magnesium === wish.magnesium) ?? candidates[0];
    case 'nitrogen':
      return (
        (wish.acidifying && candidates.find((product) => nitrogenSourceOf(product) === 'ammonium sulfate')) ||
        candidates[0]
      );
    case 'potassium':
      return (
        (wish.magnesium && candidates.find((product) => contentOf(product).mg > 0)) ||
        (wish.lowSalt && candidates.find((product) => !isChloride(product))) ||
        candidates[0]
      );
    case 'phosphorus':
      return candidates[0];
  }
}
