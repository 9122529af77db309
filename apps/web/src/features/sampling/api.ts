import type {
  BagAnswer,
  BagLineAnswer,
  BagState,
  BoardAnswer,
  CoreTapInput,
  CoreTapsAnswer,
  CustodyInput,
  HiddenSoilAnswer,
  LaboratoryAnswer,
  LaboratoryInput,
  LaboratoryNewsAnswer,
  SamplingInput,
} from '@glenfold/contract';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { useChange, useSave } from '../../api/changes.ts';
import { api } from '../../api/client.ts';
import { asked, paged } from '../../api/queries.ts';

export const samplingQueries = {
  bags: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'bags'],
      queryFn: () => api<BagAnswer[]>('GET', `/sites/${siteId}/bags`),
    }),
  /** Bags of all sites, a page at a time; without a state, those that are under way. */
  board: (state: BagState | null) =>
    infiniteQueryOptions({
      queryKey: ['bags', 'board', state],
      queryFn: ({ pageParam }) => api<BoardAnswer>('GET', `/bags${asked({ state, after: pageParam })}`),
      ...paged,
      placeholderData: keepPreviousData,
    }),
  laboratories: () =>
    queryOptions({ queryKey: ['laboratories'], queryFn: () => api<LaboratoryAnswer[]>('GET', '/laboratories') }),
  /** The made-up soil behind a simulated laboratory's numbers. */
  hiddenSoil: (bagId: string) =>
    queryOptions({
      queryKey: ['bags', bagId, 'hidden-soil'],
      queryFn: () => api<HiddenSoilAnswer>('GET', `/bags/${bagId}/hidden-soil`),
    }),
  bagByCode: (code: string) =>
    queryOptions({
      queryKey: ['bags', 'by-code', code],
      queryFn: () => api<BagLineAnswer>('GET', `/bags/by-code/${encodeURIComponent(code)}`),
      retry: false,
    }),
};

export const usePlanBags = (siteId: string) =>
  useChange('bag', (input: SamplingInput) => api<BagAnswer[]>('POST', `/sites/${siteId}/bags`, input));
/** Bags go on, or their way ends. */
export const useMoveBags = () =>
  useChange('bag', (input: CustodyInput) => api<BagLineAnswer[]>('POST', '/bags/custody', input));
export const useSaveLaboratory = () => useSave<LaboratoryInput, LaboratoryAnswer>('/laboratories');
/** What is new at the laboratories. */
export const useAskLaboratories = () =>
  useChange(['bag', 'result'], (_now: null) => api<LaboratoryNewsAnswer>('POST', '/laboratories/news'));
/** Bring forward what simulated laboratories have in their calendar, and ask them. */
export const useHurryLaboratories = () =>
  useChange(['bag', 'result'], async (days: number) => {
    await api('POST', '/laboratories/hurry', { days });
    return api<LaboratoryNewsAnswer>('POST', '/laboratories/news');
  });
/** Cores of a sheet of paper, all at once. @returns what the server said of some of them */
export const useBookSheet = () =>
  useChange('bag', async (taps: readonly CoreTapInput[]): Promise<readonly string[]> => {
    const answer = await api<CoreTapsAnswer>('POST', '/core-taps', { sentAt: new Date().toISOString(), taps });
    return answer.taps.flatMap(({ words }) => words ?? []);
  });
export const useTakeAgain = () => useChange('bag', (bagId: string) => api<BagAnswer>('POST', `/bags/${bagId}/again`));
export const useLabNumber = () =>
  useChange('bag', ({ bagId, labNumber }: { bagId: string; labNumber: string | null }) =>
    api<BagLineAnswer>('PUT', `/bags/${bagId}/lab-number`, { labNumber }),
  );
