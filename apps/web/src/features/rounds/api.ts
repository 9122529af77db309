import type { BeginningAnswer, BeginningKey, SiteStatesAnswer, TasksAnswer } from '@glenfold/contract';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';
import { asked, paged } from '../../api/queries.ts';

export const roundsQueries = {
  /** What a practice begins with. */
  beginning: () =>
    queryOptions({
      queryKey: ['rounds', 'beginning'],
      queryFn: () => api<BeginningAnswer>('GET', '/beginning'),
    }),
  /** What wants doing, a page at a time. */
  tasks: () =>
    infiniteQueryOptions({
      queryKey: ['rounds', 'tasks'],
      queryFn: ({ pageParam }) => api<TasksAnswer>('GET', `/rounds${asked({ after: pageParam })}`),
      ...paged,
    }),
  /** Sites with their states, a page at a time. */
  siteStates: (text: string) =>
    infiniteQueryOptions({
      queryKey: ['rounds', 'sites', text],
      queryFn: ({ pageParam }) => api<SiteStatesAnswer>('GET', `/rounds/sites${asked({ text, after: pageParam })}`),
      ...paged,
      placeholderData: keepPreviousData,
    }),
};

/** Leave something of the beginning for later, or take it up again. */
export const useLeave = () =>
  useChange('beginning', ({ key, later }: { readonly key: BeginningKey; readonly later: boolean }) =>
    api<BeginningAnswer>('PUT', `/beginning/${key}`, { later }),
  );
