import type { ProductAmount, ShoppingList } from '@glenfold/agronomy';
import type { ZonePlanAnswer } from '@glenfold/contract';

const uncosted = <T extends ProductAmount | null>(amount: T): T => (amount ? { ...amount, cost: null } : amount);

/** A plan for somebody who sees no prices: what to spread, and not what it costs. */
export function withoutCosts(answer: ZonePlanAnswer): ZonePlanAnswer {
  const { plan } = answer;
  return {
    ...answer,
    priced: false,
    plan: {
      ...plan,
      cost: null,
      unpriced: [],
      lime: { ...plan.lime, amount: uncosted(plan.lime.amount) },
      nutrients: plan.nutrients.map((advice) => ({ ...advice, amount: uncosted(advice.amount) })),
    },
  };
}

/** A list to buy without what it costs. */
export function listWithoutCosts(list: ShoppingList): ShoppingList {
  return {
    ...list,
    cost: null,
    unpriced: [],
    saved: null,
    purchases: list.purchases.map((purchase) => ({
      ...purchase,
      cost: null,
      zones: purchase.zones.map((zone) => ({ ...zone, cost: null })),
    })),
  };
}
