import type { UnitSystem } from '@glenfold/agronomy';
import type { ReadingAnswer, RetestsAnswer, SchoolsAnswer, SiteReadingsAnswer, WorthAnswer } from '@glenfold/contract';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api } from '../../api/client.ts';
import { asked, paged } from '../../api/queries.ts';

/** What is read of a zone or a site. Under `program`: whatever moves the rates moves the reading. */
export const readingQueries = {
  zoneReading: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', zoneId, units, 'reading'],
      queryFn: () => api<ReadingAnswer>('GET', `/zones/${zoneId}/reading?units=${units}`),
      placeholderData: (previous) => (previous?.zoneId === zoneId ? previous : undefined),
    }),
  siteReadings: (siteId: string, units: UnitSystem, against: string | null) =>
    queryOptions({
      queryKey: ['program', siteId, units, 'readings', against],
      queryFn: () => api<SiteReadingsAnswer>('GET', `/sites/${siteId}/readings${asked({ units, against })}`),
      placeholderData: keepPreviousData,
    }),
  schools: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', zoneId, units, 'schools'],
      queryFn: () => api<SchoolsAnswer>('GET', `/zones/${zoneId}/schools?units=${units}`),
    }),
  worth: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', zoneId, units, 'worth'],
      queryFn: () => api<WorthAnswer[]>('GET', `/zones/${zoneId}/worth?units=${units}`),
      staleTime: 60_000,
    }),
  retests: () =>
    infiniteQueryOptions({
      queryKey: ['rounds', 'retests'],
      queryFn: ({ pageParam }) => api<RetestsAnswer>('GET', `/retests${asked({ after: pageParam })}`),
      ...paged,
    }),
};
