import type { UnitSystem } from '@glenfold/agronomy';
import type {
  IssuedPlanAnswer,
  LabFileInput,
  LabImportAnswer,
  LabImportChoices,
  LabResultAnswer,
  LabResultInput,
  PlanChoicesInput,
  PracticeAnswer,
  ProductAnswer,
  ProductPriceInput,
  RoundsAnswer,
  SiteAnswer,
  SiteInput,
  SiteStateAnswer,
  ZoneAnswer,
  ZoneInput,
  ZonePlanAnswer,
} from '@glenfold/contract';
import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { ApiProblem, api } from './client.ts';

/** Keys and fetchers, one place per resource. */
export const queries = {
  practice: () =>
    queryOptions({
      queryKey: ['practice'],
      queryFn: () => api<PracticeAnswer>('GET', '/practice'),
      staleTime: Infinity,
    }),
  rounds: () => queryOptions({ queryKey: ['rounds'], queryFn: () => api<RoundsAnswer>('GET', '/rounds') }),
  siteState: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'state'],
      queryFn: () => api<SiteStateAnswer>('GET', `/sites/${siteId}/state`),
    }),
  zones: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'zones'],
      queryFn: () => api<ZoneAnswer[]>('GET', `/sites/${siteId}/zones`),
    }),
  labResults: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-results'],
      queryFn: () => api<LabResultAnswer[]>('GET', `/sites/${siteId}/lab-results`),
    }),
  labImports: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-imports'],
      queryFn: () => api<LabImportAnswer[]>('GET', `/sites/${siteId}/lab-imports`),
    }),
  plan: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['plan', zoneId, units],
      queryFn: () => api<ZonePlanAnswer>('GET', `/zones/${zoneId}/plan?units=${units}`),
      placeholderData: (previous) => (previous?.zoneId === zoneId ? previous : undefined),
      retry: (failures, error) => !(error instanceof ApiProblem && error.status === 404) && failures < 2,
    }),
  products: () => queryOptions({ queryKey: ['products'], queryFn: () => api<ProductAnswer[]>('GET', '/products') }),
};

/** A change; everything on screen is then read anew, since one number bears on many. */
function useChange<V, T>(change: (variables: V) => Promise<T>) {
  const client = useQueryClient();
  return useMutation<T, ApiProblem, V>({ mutationFn: change, onSuccess: () => client.invalidateQueries() });
}

export const useSaveSite = () =>
  useChange(({ id, input }: { id?: string | undefined; input: SiteInput }) =>
    id ? api<SiteAnswer>('PUT', `/sites/${id}`, input) : api<SiteAnswer>('POST', '/sites', input),
  );
export const useSaveZone = (siteId: string) =>
  useChange(({ id, input }: { id?: string | undefined; input: ZoneInput }) =>
    id ? api<ZoneAnswer>('PUT', `/zones/${id}`, input) : api<ZoneAnswer>('POST', `/sites/${siteId}/zones`, input),
  );
export const useSaveLabResult = () =>
  useChange(({ id, input }: { id?: string | undefined; input: LabResultInput }) =>
    id ? api<LabResultAnswer>('PUT', `/lab-results/${id}`, input) : api<LabResultAnswer>('POST', '/lab-results', input),
  );
export const usePreviewLabFile = (siteId: string) =>
  useChange((file: LabFileInput) => api<LabImportAnswer>('POST', `/sites/${siteId}/lab-imports`, file));
export const useCorrectLabFile = () =>
  useChange(({ id, choices }: { id: string; choices: LabImportChoices }) =>
    api<LabImportAnswer>('PUT', `/lab-imports/${id}`, choices),
  );
export const useConfirmLabFile = () =>
  useChange((id: string) => api<LabImportAnswer>('POST', `/lab-imports/${id}/confirm`));
export const useChooseProducts = (zoneId: string, units: UnitSystem) =>
  useChange((choices: PlanChoicesInput) =>
    api<ZonePlanAnswer>('PUT', `/zones/${zoneId}/plan/choices?units=${units}`, choices),
  );
export const useIssuePlan = (zoneId: string, units: UnitSystem) =>
  useChange(() => api<IssuedPlanAnswer>('POST', `/zones/${zoneId}/plans?units=${units}`));
export const useSetPrice = () =>
  useChange(({ id, input }: { id: string; input: ProductPriceInput }) =>
    api<ProductAnswer>('PUT', `/products/${id}`, input),
  );

/** Deletes and restores, by the resource's path. */
export const useRemove = () => useChange((path: string) => api<null>('DELETE', path));
export const useRestore = () => useChange((path: string) => api<unknown>('POST', `${path}/restore`));
