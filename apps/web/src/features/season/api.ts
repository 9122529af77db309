import type { UnitSystem } from '@glenfold/agronomy';
import type {
  BreaksAnswer,
  JobAnswer,
  JobCrewInput,
  JobDayInput,
  JobHoldInput,
  SeasonAnswer,
  SiteDateAnswer,
  SiteDateInput,
  WeekAnswer,
  ZoneWaterAnswer,
} from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { type Changed, useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';
import { useUnits } from '../../ui/units.tsx';

/** Keys and fetchers of the season. */
export const seasonQueries = {
  season: (siteId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['site', siteId, 'season', units],
      queryFn: () => api<SeasonAnswer>('GET', `/sites/${siteId}/season?units=${units}`),
    }),
  /** The week of a day across sites; this one where none is named. */
  week: (day: string | null, units: UnitSystem) =>
    queryOptions({
      queryKey: ['week', day, units],
      queryFn: () => api<WeekAnswer>('GET', `/season/week?units=${units}${day ? `&day=${day}` : ''}`),
    }),
  water: (siteId: string, zoneId: string, day: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['site', siteId, 'season', 'water', zoneId, day, units],
      queryFn: () => api<ZoneWaterAnswer>('GET', `/zones/${zoneId}/water?units=${units}&day=${day}`),
      enabled: /^\d{4}-\d\d-\d\d$/.test(day),
      placeholderData: (last) => last,
    }),
  breaks: (jobId: string, day: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['breaks', jobId, day, units],
      queryFn: () => api<BreaksAnswer>('GET', `/jobs/${jobId}/breaks?units=${units}&day=${day}`),
      enabled: /^\d{4}-\d\d-\d\d$/.test(day),
      staleTime: 0,
    }),
};

/** What is decided of a job. */
export function useJobChanges() {
  const { system } = useUnits();
  const at = (id: string, what: string): string => `/jobs/${id}/${what}?units=${system}`;
  return {
    day: useChange('job', ({ seen, input }: Changed<JobDayInput>) =>
      api<JobAnswer>('PUT', at(seen.id, 'day'), input, seen.version),
    ),
    hold: useChange('job', ({ seen, input }: Changed<JobHoldInput>) =>
      api<JobAnswer>('PUT', at(seen.id, 'hold'), input, seen.version),
    ),
    letGo: useChange('job', ({ seen }: Pick<Changed<object>, 'seen'>) =>
      api<JobAnswer>('DELETE', at(seen.id, 'hold'), undefined, seen.version),
    ),
    crew: useChange('job', ({ seen, input }: Changed<JobCrewInput>) =>
      api<JobAnswer>('PUT', at(seen.id, 'crew'), input, seen.version),
    ),
  };
}

export const useDateJobs = (siteId: string) => {
  const { system } = useUnits();
  return useChange('job', () => api<SeasonAnswer>('POST', `/sites/${siteId}/season/days?units=${system}`));
};

export const useAddDate = (siteId: string) =>
  useChange('job', (input: SiteDateInput) => api<SiteDateAnswer>('POST', `/sites/${siteId}/dates`, input));
