import { limeEffectiveness } from '../lime/effectiveness.ts';
import { limeSources } from '../lime/materials.ts';
import type { Balanced } from '../nutrients/productBalance.ts';
import type { Material } from './material.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import { type Straight, straightOf } from '../nutrients/straights.ts';
import type { Figure } from '../working/working.ts';

/** What a job wants from a product. */
export const purposes = ['lime', 'nitrogen', 'phosphorus', 'potassium'] as const;
export type Purpose = (typeof purposes)[number];

export interface Product {
  readonly id: string;
  readonly name: string;
  /** What it is suggested for, where that is not the nutrient it holds most of. */
  readonly purpose?: Purpose | undefined;
  /** % by mass of N, P₂O₅ and K₂O, and of what else the label tells. */
  readonly grade: Readonly<Record<'n' | 'p2o5' | 'k2o', number>> & Readonly<Partial<Record<Balanced, number>>>;
  /** % of the nitrogen that is slow-release. */
  readonly slowRelease: number;
  /** What its nitrogen comes as and how salty it is, where the grade does not tell. */
  readonly nitrogenSource?: string | undefined;
  readonly saltIndex?: number | undefined;
  /** Size guide number of its granules: 100 × mm of the middle one. */
  readonly sgn?: number | undefined;
  /** Weeks in which it keeps seed from rooting. */
  readonly noSeedingWeeks?: number | undefined;
  readonly lime?: LimeStrength | undefined;
  /** kg */
  readonly bagMass: number;
  /** Nothing until the practice has set it. */
  readonly bagPrice: number | null;
}

/** What a product is suggested for: what it holds most of. */
export function purposeOf({ purpose, lime, grade: { n, p2o5, k2o } }: Product): Purpose | undefined {
  if (purpose) return purpose;
  if (lime) return 'lime';
  if (n + p2o5 + k2o === 0) return undefined;
  return n >= p2o5 && n >= k2o ? 'nitrogen' : p2o5 >= k2o ? 'phosphorus' : 'potassium';
}

const nutrientOf = { nitrogen: 'n', phosphorus: 'p2o5', potassium: 'k2o' } as const;

/** Whether a product can be chosen for a purpose: it holds what is wanted. */
export function serves(product: Product, purpose: Purpose): boolean {
  return purpose === 'lime' ? product.lime !== undefined : !product.lime && product.grade[nutrientOf[purpose]] > 0;
}

/**
 * A material as rates are reckoned with it.
 *
 * @returns nothing for what is not spread by its lime or its nutrients, or not weighed.
 */
export function productOf(id: string, material: Material, bagPrice: number | null): Product | undefined {
  const { name, kind, analysis, packSize, packUnit, natural, dolomitic = false, caustic = false } = material;
  if (packUnit !== 'kg') return undefined;
  const base = { id, name, bagMass: packSize, bagPrice };
  const { n = 0, p2o5 = 0, k2o = 0, ca, mg, s, fe, slowRelease = 0, saltIndex, sgn, noSeedingWeeks } = analysis;
  if (kind === 'lime') {
    const { cce, passing8, passing20, passing60, moisture = 0 } = analysis;
    if (cce === undefined || passing8 === undefined || passing20 === undefined || passing60 === undefined)
      return undefined;
    const lime = { cce, passing8, passing20, passing60, moisture, magnesium: dolomitic, caustic };
    return { ...base, grade: { n: 0, p2o5: 0, k2o: 0 }, slowRelease: 0, lime };
  }
  if (kind !== 'fertilizer') return undefined;
  const others = Object.fromEntries(Object.entries({ ca, mg, s, fe }).filter(([, percent]) => percent !== undefined));
  const nitrogenSource = material.nitrogenSource ?? (natural ? 'natural organic' : undefined);
  return { ...base, grade: { n, p2o5, k2o, ...others }, slowRelease, nitrogenSource, saltIndex, sgn, noSeedingWeeks };
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
  return product.nitrogenSource ?? asStraight(product)?.nitrogenSource ?? 'urea';
}

export function saltIndexOf(product: Product): number | undefined {
  return product.saltIndex ?? asStraight(product)?.saltIndex;
}

/** Potash as chloride: salty, and not for fine turf. */
export function isChloride(product: Product): boolean {
  return (asStraight(product)?.chloride ?? 0) > 0;
}

/** Whether its granules are known to be too coarse for close-mown turf. */
export const isTooCoarse = ({ sgn }: Product): boolean => sgn !== undefined && sgn > nitrogenLimits.closeMownSgn;

/** Caps of its own that a liming material has, such as wood ash, lb/1000 ft². */
export function ownLimeCap({ name }: Product): { readonly once: number; readonly year: number } | undefined {
  const plain = name.toLowerCase();
  return limeSources.materials.find((material) => material.cap && plain.includes(material.name))?.cap;
}

/** What of a zone bears on which product suits it. */
export interface ProductWish {
  /** Dolomitic lime. */
  readonly magnesium: boolean;
  /** A potash with magnesium, where it brings no more of it than is wanted: g/m² of K₂O to give, and of Mg wanted. */
  readonly potash?: { readonly need: number; readonly magnesium: number } | undefined;
  /** Ammonium sulfate, on ground above its band. */
  readonly acidifying: boolean;
  /** No chloride: fine turf and salted ground. */
  readonly lowSalt: boolean;
  /** Granules as fine as turf mown so short takes. */
  readonly closeMown: boolean;
}

function bringsMagnesium(product: Product, { potash }: ProductWish): boolean {
  const { mg, k2o } = contentOf(product);
  return potash !== undefined && mg > 0 && (potash.need * mg) / k2o <= potash.magnesium * (1 + 1e-9);
}

/** What the zone would be given when the advisor has chosen nothing. */
export function suggestProduct(purpose: Purpose, products: readonly Product[], wish: ProductWish): Product | undefined {
  const all = products.filter((product) => purposeOf(product) === purpose && !product.lime?.caustic);
  const fine = wish.closeMown ? all.filter((product) => !isTooCoarse(product)) : all;
  const candidates = fine.length > 0 ? fine : all;
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
        candidates.find((product) => bringsMagnesium(product, wish)) ||
        (wish.lowSalt && candidates.find((product) => !isChloride(product))) ||
        candidates[0]
      );
    case 'phosphorus':
      return candidates[0];
  }
}
