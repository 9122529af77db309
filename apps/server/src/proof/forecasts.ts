import { type ZoneForecast, zoneForecast } from '@glenfold/agronomy';
import { threaded } from '../platform/threaded.ts';
import { type YearPlace, yearsOf } from '../season/ordinaryYears.ts';

/** What the pH of a zone is foretold from; the year is that of its place. */
export type ForecastZone = Omit<Parameters<typeof zoneForecast>[0], 'year'> & { readonly season: 'cool' | 'warm' };

/** The pH of zones of a place, day by day; nothing of those that have no test with a day. */
export const forecasts = threaded(
  import.meta.url,
  'forecasts',
  (place: YearPlace, zones: ReadonlyArray<ForecastZone | undefined>): Array<ZoneForecast | undefined> => {
    const yearOf = yearsOf(place);
    return zones.map((zone) => zone && zoneForecast({ ...zone, year: yearOf(zone.season) }));
  },
);
