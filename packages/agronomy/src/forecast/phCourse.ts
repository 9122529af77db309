import { type Mesh, forecastTable, meshes } from './forecastTable.ts';

const { halfMonths, limeEndsAtPh, limeRatePh, limeRateTemperature, limeQ10, monthDays } = forecastTable;
const { sulfurDensity, sulfurRate, sulfurStopsBelow, nitrogenDays, nitrogenFrom, baseLoss } = forecastTable;

/** g CaCO₃, and g S, for each mol of charge. */
export const LIME_PER_MOL = 50.04;
export const SULFUR_PER_MOL = 16.03;

export interface LimeDown {
  readonly day: number;
  /** g/m² as CaCO₃: strength and dryness counted, fineness not. */
  readonly rate: number;
  /** % of each class; what is left is coarser and never dissolves. */
  readonly mesh: Readonly<Record<Mesh, number>>;
}
export interface SulfurDown {
  readonly day: number;
  /** g/m² of S. */
  readonly rate: number;
  /** mm, of the primary particles after the pellet has dispersed. */
  readonly diameter: number;
}
export interface NitrogenDown {
  readonly day: number;
  /** Acidity it makes in all, g/m² as CaCO₃; negative for what is basic. */
  readonly acidity: number;
}

/** What is known of a soil, and what is put down on it. Day 0 is 1 January. */
export interface Course {
  readonly soilPh: number;
  /** mol of charge/m² for each unit of pH. */
  readonly capacity: number;
  readonly days: number;
  readonly lime: readonly LimeDown[];
  readonly sulfur: readonly SulfurDown[];
  readonly nitrogen: readonly NitrogenDown[];
  /** °C of the soil, by month from January. */
  readonly temperature: readonly number[];
  /** mm by month. */
  readonly drainage: readonly number[];
  /** How fast lime and sulfur work beside the table; 1 unless told. */
  readonly reactivity?: number;
  /** Day of the year on which the course begins, 0 on 1 January. */
  readonly startsOn?: number;
}

/** What went into a soil and out of it, g/m²: as CaCO₃, sulfur as S. */
export interface Turnover {
  lime: number;
  sulfur: number;
  nitrogen: number;
  lost: number;
}

/** µg S/cm² a day: log-linear between the temperatures of the table and beyond, none in the cold. */
export function sulfurRateAt(temperature: number): number {
  if (temperature < sulfurStopsBelow) return 0;
  const at = sulfurRate.findIndex((entry, index) => index > 0 && temperature <= entry.temperature);
  const upper = at < 0 ? sulfurRate.length - 1 : at;
  const [low, high] = [sulfurRate[upper - 1]!, sulfurRate[upper]!];
  const share = (temperature - low.temperature) / (high.temperature - low.temperature);
  return low.rate * (high.rate / low.rate) ** share;
}

/** g CaCO₃/m² with each mm of drainage, held at the ends. */
export function baseLossAt(ph: number): number {
  const [first, last] = [baseLoss[0]!, baseLoss.at(-1)!];
  if (ph <= first.ph) return first.loss;
  if (ph >= last.ph) return last.loss;
  const at = baseLoss.findIndex((entry) => ph <= entry.ph);
  const [low, high] = [baseLoss[at - 1]!, baseLoss[at]!];
  return low.loss + ((high.loss - low.loss) * (ph - low.ph)) / (high.ph - low.ph);
}

/** The month of a day, from January, all of one length. */
export const monthOfDay = (day: number): number => Math.floor(day / monthDays) % 12;

/** Share of sulfur left of particles that have lost so much of their radius: the diameter shrinks evenly. */
const sulfurLeft = (shrunk: number, diameter: number): number => Math.max(0, 1 - shrunk / diameter) ** 3;

/**
 * The pH of a soil day by day, and what went in and out.
 *
 * @returns `ph` on day 0 to the last, one more than days; the turnover over all of them, so that the change is
 *   (lime ÷ 50.04 − sulfur ÷ 16.03 − nitrogen ÷ 50.04 − lost ÷ 50.04) ÷ capacity.
 */
export function phCourse(course: Course): { readonly ph: readonly number[]; readonly turnover: Turnover } {
  const { soilPh, capacity, days, temperature, drainage, reactivity = 1, startsOn = 0 } = course;
  const lime = course.lime.map(({ day, rate, mesh }) => ({
    day,
    left: meshes.map((name) => (rate * mesh[name]) / 100),
  }));
  const sulfur = course.sulfur.map((down) => ({ ...down, shrunk: 0, left: down.rate }));
  const nitrogen = course.nitrogen.map(({ day, acidity }) => ({
    day,
    daily: acidity / nitrogenDays,
    open: nitrogenDays,
  }));
  const turnover: Turnover = { lime: 0, sulfur: 0, nitrogen: 0, lost: 0 };
  const ph = [soilPh];
  let now = soilPh;
  for (let day = 0; day < days; day += 1) {
    const month = monthOfDay(day + startsOn);
    const warmth = temperature[month]!;
    const speed =
      (reactivity * Math.max(0, limeEndsAtPh - now) * limeQ10 ** ((warmth - limeRateTemperature) / 10)) /
      (limeEndsAtPh - limeRatePh);
    let dissolved = 0;
    for (const down of lime) {
      if (down.day > day) continue;
      for (const [at, name] of meshes.entries()) {
        const gone = down.left[at]! * (1 - 2 ** (-speed / (halfMonths[name] * monthDays)));
        down.left[at]! -= gone;
        dissolved += gone;
      }
    }
    let oxidised = 0;
    // µg/cm² a day over the density is 10⁻⁵ mm of depth each, off both sides of the diameter.
    const shrinks = (reactivity * 2 * sulfurRateAt(warmth) * 1e-5) / sulfurDensity;
    for (const down of sulfur) {
      if (down.day > day || down.left <= 0) continue;
      down.shrunk += shrinks;
      const left = down.rate * sulfurLeft(down.shrunk, down.diameter);
      oxidised += down.left - left;
      down.left = left;
    }
    let acid = 0;
    if (warmth >= nitrogenFrom)
      for (const down of nitrogen) {
        if (down.day > day || down.open === 0) continue;
        down.open -= 1;
        acid += down.daily;
      }
    const lost = (drainage[month]! / monthDays) * baseLossAt(now);
    turnover.lime += dissolved;
    turnover.sulfur += oxidised;
    turnover.nitrogen += acid;
    turnover.lost += lost;
    now += ((dissolved - acid - lost) / LIME_PER_MOL - oxidised / SULFUR_PER_MOL) / capacity;
    ph.push(now);
  }
  return { ph, turnover };
}
