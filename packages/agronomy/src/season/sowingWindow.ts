import { quantity } from '../calculators/fields.ts';
import { text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/sowing-window.json' with { type: 'json' };
import type { NormalYear } from './normalDays.ts';
import { type UnitSystem, present } from '../units/present.ts';

const days = () => quantity('', { min: 0, max: 180, whole: true });
const celsius = () => quantity('C', { min: -10, max: 40 });

/** When cool-season grass is sown in late summer and autumn. */
export const sowingTable = readTable(
  'sowing-window',
  {
    opensBelow: celsius(),
    bestBelow: celsius(),
    beforeFrost: days(),
    least: days(),
    opensAnyway: text(5),
    /** Of the mean air: where no frost comes, sowing ends with growth. */
    closesBelow: celsius(),
    warmSoil: celsius(),
  },
  data,
);

/** Days of an ordinary year in which cool-season grass is sown, both ends in it; months and days, `08-20`. */
export interface SowingWindow {
  readonly from: string;
  readonly to: string;
  /** First day of the best of it; nothing where no day of it is so cool. */
  readonly best: string | null;
  /** Fewer days than are wanted lie between the heat and the frost: the last of them before the close. */
  readonly short: boolean;
}

const known = new WeakMap<NormalYear, { readonly window: SowingWindow | undefined }>();

/**
 * The window of autumn sowing of cool-season grass at a place: the one answer for Rates, Season and the days that are
 * found. It opens as the heat goes and closes well before frost.
 *
 * @returns nothing for warm-season grass
 */
export function sowingWindow(year: NormalYear): SowingWindow | undefined {
  const before = known.get(year);
  if (before) return before.window;
  const window = year.season === 'cool' ? found(year) : undefined;
  known.set(year, { window });
  return window;
}

function found({ days: all }: NormalYear): SowingWindow {
  const count = all.length;
  const at = (index: number) => all[((index % count) + count) % count]!;
  const { opensBelow, bestBelow, beforeFrost, least, opensAnyway, closesBelow } = sowingTable;
  const hottest = all.reduce((best, { mean }, index) => (mean > all[best]!.mean ? index : best), 0);
  /** Days after the hottest one on which something first holds. */
  const first = (holds: (index: number) => boolean): number | undefined => {
    for (let by = 0; by < count / 2; by += 1) if (holds(hottest + by)) return by;
    return undefined;
  };
  const anyway = all.findIndex(({ monthDay }) => monthDay === opensAnyway);
  // South of the equator the same day half a year on.
  const south = Math.abs(hottest - anyway) > count / 4 && Math.abs(hottest - anyway) < (3 * count) / 4;
  const usual = (((anyway + (south ? Math.round(count / 2) : 0) - hottest) % count) + count) % count;
  // Never before the usual day: a summer that barely reaches the heat sows when its neighbours do.
  const opens = Math.max(usual, first((index) => at(index).mean < opensBelow) ?? usual);
  const frost = at(hottest).daysToFrost;
  const closes =
    frost <= count
      ? Math.max(0, frost - beforeFrost)
      : (first((index) => at(index).mean < closesBelow) ?? Math.round(count / 2));
  const short = closes - opens < least;
  const from = short ? Math.max(0, closes - least) : opens;
  const best = first((index) => at(index).mean < bestBelow);
  return {
    from: at(hottest + from).monthDay,
    to: at(hottest + closes).monthDay,
    best: best === undefined || best > closes ? null : at(hottest + Math.max(best, from)).monthDay,
    short,
  };
}

/** Whether a day lies in it. @param day `2027-09-01` */
export function isInSowingWindow({ from, to }: SowingWindow, day: string): boolean {
  const at = day.slice(5);
  return from <= to ? at >= from && at <= to : at >= from || at <= to;
}

/** What is to be minded on days of the window whose soil is warmer than seed likes best. */
export const warmSoilWords = (system: UnitSystem): string =>
  `The soil is still warmer than the ${present('temperature', 10, system).number}–${present('temperature', sowingTable.warmSoil, system).text} that seed likes best: water it so that it never dries out.`;

/** What is to be said of a window that is shorter than is wanted. */
export const shortWindowWords = `Fewer than ${sowingTable.least} days lie between the heat and the last ${sowingTable.beforeFrost} days before frost here: these are the last ${sowingTable.least} before it is too late. Water without fail.`;
