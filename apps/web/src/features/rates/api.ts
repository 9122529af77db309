import type { UnitSystem } from '@glenfold/agronomy';
import type { IssuedPlanAnswer, PlanChoicesInput, ShoppingAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { type Changed, saveOver, useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const ratesQueries = {
  /** One list to buy; it follows every plan of the site. */
  shopping: (siteId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['plan', 'shopping', siteId, units],
      queryFn: () => api<ShoppingAnswer>('GET', `/sites/${siteId}/shopping?units=${units}`),
    }),
};

export const useChooseProducts = (zoneId: string, units: UnitSystem) =>
  useChange(
    'plan',
    ({ seen, input }: Changed<PlanChoicesInput>) =>
      saveOver<ZonePlanAnswer>(`/zones/${seen.id}/plan/choices?units=${units}`, input, seen.version),
    `choices ${zoneId}`,
  );
export const useIssuePlan = (zoneId: string, units: UnitSystem) =>
  useChange('plan', () => api<IssuedPlanAnswer>('POST', `/zones/${zoneId}/plans?units=${units}`));
