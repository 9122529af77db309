import { InputError, choice, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/climates.json' with { type: 'json' };
import { growthPotentials } from '../nutrients/nitrogenTables.ts';

const monthly = (min: number, max: number, unit: string) =>
  series(quantity(unit, { min, max }), 'months', { min: 12, max: 12 });

/** Climate classes that stand in until a site has normals of its own. Made up, and said to be. */
export const climateTable = readTable(
  'climates',
  {
    climates: listOf(
      {
        name: text(),
        what: text(),
        low: monthly(-60, 50, 'C'),
        high: monthly(-60, 60, 'C'),
        rain: monthly(0, 2000, ''),
        lastFrost: text(5),
        firstFrost: text(5),
      },
      'climates',
      { min: 1, max: 30 },
    ),
  },
  data,
);
export const climateNames = climateTable.climates.map(({ name }) => name);
const climateField = choice(climateNames);

/** Normals of a place: means by month, January first. */
export interface Normals {
  /** °C */
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** mm */
  readonly rain: readonly number[];
  /** Month and day of the common last and first frost, `04-20`. */
  readonly lastFrost?: string | null | undefined;
  readonly firstFrost?: string | null | undefined;
}

export interface PlaceClimate extends Normals {
  /** Whose numbers these are, in words. */
  readonly basis: string;
  /** Made up by this application, not of a station. */
  readonly madeUp: boolean;
}

const half = <T>(months: readonly T[]): T[] => [...months.slice(6), ...months.slice(0, 6)];

/** The same day half a year on. */
function halfYearOn(monthDay: string): string {
  const [month = 1, day = 1] = monthDay.split('-').map(Number);
  return `${String(((month + 5) % 12) + 1).padStart(2, '0')}-${String(Math.min(day, 28)).padStart(2, '0')}`;
}

/**
 * The climate of a place: its own normals where there are some, else its class, turned about south of the equator.
 *
 * @param latitude degrees north; the northern year is taken where it is not known.
 * @returns nothing where neither normals nor a class are known: a climate is not assumed.
 * @throws {InputError} for a class that is not in the table, and for a mean low above its high.
 */
export function climateOf(place: {
  readonly climate?: string | null | undefined;
  readonly normals?: (Normals & { readonly source?: string | null | undefined }) | null | undefined;
  readonly latitude?: number | null | undefined;
}): PlaceClimate | undefined {
  const { climate, normals, latitude } = place;
  if (normals) {
    const crossed = normals.low.findIndex((low, month) => low > normals.high[month]!);
    if (crossed >= 0)
      throw new InputError(`normals.low.${crossed}`, 'is above the mean high of its month: change the two about');
    return { ...normals, basis: `Own normals: ${normals.source ?? 'source not told'}`, madeUp: false };
  }
  if (!climate) return undefined;
  const name = climateField.read(climate, 'climate');
  const { low, high, rain, lastFrost, firstFrost, what } = climateTable.climates.find((one) => one.name === name)!;
  const south = (latitude ?? 0) < 0;
  return {
    ...(south ? { low: half(low), high: half(high), rain: half(rain) } : { low, high, rain }),
    lastFrost: south ? halfYearOn(lastFrost) : lastFrost,
    firstFrost: south ? halfYearOn(firstFrost) : firstFrost,
    basis: `Climate class “${name}” (${what}): made-up normals, not of a station`,
    madeUp: true,
  };
}

/**
 * How well a grass can grow in each month, 0 to 1, from the mean air temperature.
 *
 * @param season of the grass. Gelernter & Stowell (2005).
 */
export function growthByMonth({ low, high }: Pick<Normals, 'low' | 'high'>, season: 'cool' | 'warm'): number[] {
  const { best, spread } = growthPotentials[season];
  return low.map((night, month) => {
    const mean = (night + high[month]!) / 2;
    return Math.exp(-0.5 * ((mean - best) / spread) ** 2);
  });
}
