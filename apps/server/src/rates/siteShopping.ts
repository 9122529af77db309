import { type PlanInput, type ShoppingList, planZone, shoppingList } from '@glenfold/agronomy';
import { threaded } from '../platform/threaded.ts';

/** A zone as its plan is worked out. */
export interface ZoneToPlan {
  readonly zoneId: string;
  readonly input: Omit<PlanInput, 'products' | 'system'>;
}

/** Everything that is the same for all zones of a list. */
export interface Shop {
  readonly products: PlanInput['products'];
  /** Bags that are there already, by product. */
  readonly stock: ReadonlyMap<string, number>;
  readonly system: PlanInput['system'];
  readonly currency: string;
}

/** The plans of a site's zones, and one list to buy for them. */
export const siteShopping = threaded(
  import.meta.url,
  'siteShopping',
  (zones: readonly ZoneToPlan[], { products, stock, system, currency }: Shop): ShoppingList => {
    const prices = new Map(products.map(({ id, bagPrice }) => [id, bagPrice]));
    const planned = zones.map(({ zoneId, input }) => ({
      zoneId,
      zone: input.zone.name,
      plan: planZone({ ...input, products, system }).plan,
    }));
    return shoppingList(
      planned,
      (id) => stock.get(id) ?? 0,
      (id) => prices.get(id) ?? null,
      system,
      currency,
    );
  },
);
