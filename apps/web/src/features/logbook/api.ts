import type { UnitSystem } from '@glenfold/agronomy';
import type { EntryInput, EntryWrittenAnswer, LogbookAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

/** Keys and fetchers of the book. */
export const logbookQueries = {
  book: (siteId: string, year: number | null, units: UnitSystem) =>
    queryOptions({
      queryKey: ['site', siteId, 'logbook', year, units],
      queryFn: () =>
        api<LogbookAnswer>('GET', `/sites/${siteId}/logbook?units=${units}${year === null ? '' : `&year=${year}`}`),
      placeholderData: (last) => last,
    }),
};

export const useWriteEntry = () =>
  useChange('entry', (input: EntryInput) => api<EntryWrittenAnswer>('POST', '/entries', input));
