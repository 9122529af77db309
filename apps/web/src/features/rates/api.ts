import type { UnitSystem } from '@glenfold/agronomy';
import type { IssuedPlanAnswer, PlanChoicesInput, ZonePlanAnswer } from '@glenfold/contract';
import { type Changed, saveOver, useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const useChooseProducts = (zoneId: string, units: UnitSystem) =>
  useChange(
    'plan',
    ({ seen, input }: Changed<PlanChoicesInput>) =>
      saveOver<ZonePlanAnswer>(`/zones/${seen.id}/plan/choices?units=${units}`, input, seen.version),
    `choices ${zoneId}`,
  );
export const useIssuePlan = (zoneId: string, units: UnitSystem) =>
  useChange('plan', () => api<IssuedPlanAnswer>('POST', `/zones/${zoneId}/plans?units=${units}`));
