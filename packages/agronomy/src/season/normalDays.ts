import { waterEt0 } from '../water/et0.ts';
import { growthPotentials } from '../nutrients/nitrogenTables.ts';
import type { PlaceClimate } from './climate.ts';
import { soilFromAir } from './soilTemperature.ts';

/** One day of an ordinary year at a place. */
export interface NormalDay {
  /** `04-20` */
  readonly monthDay: string;
  /** °C */
  readonly low: number;
  readonly high: number;
  readonly mean: number;
  /** mm */
  readonly rain: number;
  /** °C at 5 cm. */
  readonly soil: number;
  readonly trend: 'rising' | 'falling' | 'steady';
  /** Growth potential, 0 to 1. */
  readonly growth: number;
  /** Days in a row, from this one on, on which the grass grows. */
  readonly growthDays: number;
  readonly daysToFrost: number;
  /** mm; nothing where the latitude is not known. */
  readonly et0: number | undefined;
}

/** The 365 days of an ordinary year. */
export interface NormalYear {
  readonly days: readonly NormalDay[];
  readonly season: 'cool' | 'warm';
}

const DAYS = 365;
const DAY = 86_400_000;
/** A year without 29 February. */
const dates = Array.from({ length: DAYS }, (_, index) =>
  new Date(Date.UTC(2027, 0, 1) + index * DAY).toISOString().slice(5, 10),
);
const indexOf = new Map(dates.map((date, index) => [date, index]));
/** Place of a day in the year; 29 February is the 28th. */
const placeOf = (day: string): number => indexOf.get(day.length > 5 ? day.slice(5) : day) ?? indexOf.get('02-28')!;

/** Growth from which the grass counts as growing, and the change of the soil in two weeks that is a trend, °C. */
const GROWS = 0.2;
const TREND = 0.5;
const WEEK = 7;

/** Means of months, drawn through the middles of the months. */
function daily(months: readonly number[]): number[] {
  return dates.map((date) => {
    const month = Number(date.slice(0, 2)) - 1;
    const length = new Date(Date.UTC(2027, month + 1, 0)).getUTCDate();
    const at = (Number(date.slice(3)) - 0.5) / length - 0.5;
    const other = (month + (at < 0 ? 11 : 1)) % 12;
    return months[month]! + (months[other]! - months[month]!) * Math.abs(at);
  });
}

function untilFrost({ firstFrost, lastFrost }: PlaceClimate): number[] {
  if (!firstFrost) return dates.map(() => 366);
  const first = placeOf(firstFrost);
  const last = lastFrost ? placeOf(lastFrost) : undefined;
  return dates.map((_, index) => {
    const inSeason =
      last !== undefined && (first > last ? index >= first || index < last : index >= first && index < last);
    return inSeason ? 0 : (first - index + DAYS) % DAYS;
  });
}

/** The ordinary year of a place, day by day, as a grass of that season lives it. @param latitude degrees north */
export function normalYear(climate: PlaceClimate, season: 'cool' | 'warm', latitude?: number): NormalYear {
  const [low, high] = [daily(climate.low), daily(climate.high)];
  const mean = low.map((one, index) => (one + high[index]!) / 2);
  // The third time round the soil has forgotten where it began.
  const soil = soilFromAir([...mean, ...mean, ...mean], 5).slice(2 * DAYS);
  const { best, spread } = growthPotentials[season];
  const growth = mean.map((one) => Math.exp(-0.5 * ((one - best) / spread) ** 2));
  const frost = untilFrost(climate);
  const growthDays = growth.map((_, index) => {
    let days = 0;
    while (days < DAYS && growth[(index + days) % DAYS]! >= GROWS) days += 1;
    return days;
  });
  return {
    season,
    days: dates.map((monthDay, index) => {
      const month = Number(monthDay.slice(0, 2));
      const change = soil[(index + WEEK) % DAYS]! - soil[(index - WEEK + DAYS) % DAYS]!;
      return {
        ...{ monthDay, low: low[index]!, high: high[index]!, mean: mean[index]!, soil: soil[index]! },
        rain: climate.rain[month - 1]! / new Date(Date.UTC(2027, month, 0)).getUTCDate(),
        trend: change > TREND ? 'rising' : change < -TREND ? 'falling' : 'steady',
        growth: growth[index]!,
        growthDays: growthDays[index]!,
        daysToFrost: frost[index]!,
        et0:
          latitude === undefined
            ? undefined
            : waterEt0({ latitude, dayOfYear: index + 1, tMin: low[index]!, tMax: high[index]! }).result.et0,
      };
    }),
  };
}

/** The ordinary day of a date. @param day `2027-04-20` */
export const normalDay = ({ days }: NormalYear, day: string): NormalDay => days[placeOf(day)]!;

/** A day so many after another. @param by whole days */
export const dayOn = (day: string, by: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + by * DAY).toISOString().slice(0, 10);

/** Whole days from one to another. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY);
