import { type NormalYear, type PlaceClimate, normalYear } from '@glenfold/agronomy';

/** Where a year is lived. */
export interface YearPlace {
  readonly climate: PlaceClimate | undefined;
  /** Degrees north. */
  readonly latitude: number | undefined;
}

/** The ordinary years of a place as cool and warm grass lives them, each worked out once; nothing without a climate. */
export function yearsOf({ climate, latitude }: YearPlace): (season: 'cool' | 'warm') => NormalYear | undefined {
  const known = new Map<string, NormalYear>();
  return (season) => {
    if (!climate) return undefined;
    const year = known.get(season) ?? normalYear(climate, season, latitude);
    known.set(season, year);
    return year;
  };
}
