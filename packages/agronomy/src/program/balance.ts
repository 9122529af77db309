import { type Balanced, balanceSymbol, balanced } from '../nutrients/productBalance.ts';
import type { ZonePlan } from '../rates/plan.ts';
import type { Treatment } from '../remedies/treatment.ts';

/** What one treatment brings of a nutrient, g/m². */
export interface Layer {
  readonly key: string;
  readonly name: string;
  readonly value: number;
}

/** One nutrient of a zone’s year: what is wanted, what may come, what each treatment brings. */
export interface BalanceLine {
  readonly nutrient: Balanced;
  readonly symbol: string;
  /** g/m²; nothing where nobody knows. */
  readonly need: number | null;
  readonly most: number | null;
  readonly layers: readonly Layer[];
  readonly total: number;
  readonly verdict: 'over' | 'short' | 'met' | 'not asked';
}

/** Rounding of spreaders and scales, as a share of what is wanted and in g/m². */
const SLACK = 0.05;

/** Treatments that are in this year’s program. */
export const planned = (treatments: readonly Treatment[]): Treatment[] =>
  treatments.filter(({ status }) => status === 'planned');

/**
 * The balance of a zone over all that its treatments bring.
 *
 * @param wanted g/m² of what no school of N, P and K asks for, such as magnesium.
 */
export function balanceOf(
  treatments: readonly Treatment[],
  { whole }: Pick<ZonePlan, 'whole'>,
  wanted: Readonly<Partial<Record<Balanced, number>>>,
): readonly BalanceLine[] {
  const asked: Readonly<Partial<Record<Balanced, { readonly need: number | null; readonly most: number | null }>>> =
    whole ?? {};
  return balanced.flatMap((nutrient): BalanceLine[] => {
    const layers = planned(treatments).flatMap(({ key, name, supply, brings }) =>
      brings[nutrient] > 1e-9 ? [{ key, name: supply?.name ?? name, value: brings[nutrient] }] : [],
    );
    const { need = wanted[nutrient] ?? null, most = null } = asked[nutrient] ?? {};
    if (layers.length === 0 && !need) return [];
    const total = layers.reduce((sum, { value }) => sum + value, 0);
    // Compost’s phosphorus is counted and said; the cap binds products.
    const capped = nutrient === 'p2o5' ? total - brought(treatments, 'compost', nutrient) : total;
    const verdict =
      most !== null && capped > most * (1 + 1e-6) + 1e-6
        ? 'over'
        : need === null || need === 0
          ? 'not asked'
          : total < need * (1 - SLACK) - SLACK
            ? 'short'
            : 'met';
    return [{ nutrient, symbol: balanceSymbol(nutrient), need, most, layers, total, verdict }];
  });
}

/** g/m² that treatments of a remedy bring. */
export const brought = (treatments: readonly Treatment[], remedy: Treatment['remedy'], nutrient: Balanced): number =>
  planned(treatments)
    .filter((treatment) => treatment.remedy === remedy)
    .reduce((sum, { brings }) => sum + brings[nutrient], 0);
