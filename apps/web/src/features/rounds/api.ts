import type { SiteStatesAnswer, TasksAnswer } from '@glenfold/contract';
import { infiniteQueryOptions, keepPreviousData } from '@tanstack/react-query';
import { api } from '../../api/client.ts';
import { asked, paged } from '../../api/queries.ts';

export const roundsQueries = {
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
