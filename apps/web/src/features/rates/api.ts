import type { UnitSystem } from '@glenfold/agronomy';
import type { IssuedPlanAnswer, PlanChoicesInput, ZonePlanAnswer } from '@glenfold/contract';
import { saveOver, useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const useChooseProducts = (zoneId: string, units: UnitSystem) =>
  useChange(
    'plan',
    ({ version, input }: { version: number; input: PlanChoicesInput }) =>
      saveOver<ZonePlanAnswer>(`/zones/${zoneId}/plan/choices?units=${units}`, input, version),
    `choices ${zoneId}`,
  );
export const useIssuePlan = (zoneId: string, units: UnitSystem) =>
  useChange('plan', () => api<IssuedPlanAnswer>('POST', `/zones/${zoneId}/plans?units=${units}`));
