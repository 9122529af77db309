import { samplingTables } from './designTables.ts';

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

export interface SamplingDay {
  /** The day it is to be done, `2026-10-14`. */
  readonly on: string;
  /** Degrees north; which half of the year is autumn follows from it. */
  readonly latitude: number;
  /** What was put down and when, as far as it is known: `2026`, `2026-04` or `2026-04-20`. */
  readonly applied: ReadonlyArray<{ readonly kind: string; readonly on: string }>;
  /** Days of earlier tests. */
  readonly tested: readonly string[];
  /** How the soil is, where somebody looked. */
  readonly soil?: 'dry' | 'moist' | 'wet' | 'frozen' | undefined;
}

export interface TimingAdvice {
  /** `stop`: do not sample; `wait`: another day is better; `note`: worth knowing. */
  readonly weight: 'stop' | 'wait' | 'note';
  readonly words: string;
}

export type SeasonName = 'spring' | 'summer' | 'autumn' | 'winter';
const order: readonly SeasonName[] = ['winter', 'spring', 'summer', 'autumn'];
const DAY = 86_400_000;

/** Season of a day by whole months: December to February is winter in the north. */
export function seasonOf(day: string, latitude: number): SeasonName {
  const month = Number(day.slice(5, 7));
  const north = Math.floor((month % 12) / 3);
  return order[latitude < 0 ? (north + 2) % 4 : north]!;
}

/** The last day that a date as it is remembered can mean. */
function latest(on: string): number {
  const [year = 0, month = 12, day] = on.split('-').map(Number);
  return day === undefined ? Date.UTC(year, month, 0) : Date.UTC(year, month - 1, day);
}

/** Whether a day is right for taking soil: the season, what was put down lately, wet and frost. */
export function samplingTiming({ on, latitude, applied, tested, soil }: SamplingDay): TimingAdvice[] {
  const day = Date.parse(on);
  const season = seasonOf(on, latitude);
  const advice: TimingAdvice[] = [];
  if (soil === 'wet')
    advice.push({
      weight: 'stop',
      words: 'Not while it is wet: cores smear, will not mix, and the bag goes mouldy. Wait until a handful crumbles.',
    });
  if (soil === 'frozen')
    advice.push({
      weight: 'stop',
      words: 'Not while it is frozen: the probe takes uneven slices. Wait for the thaw and for it to drain.',
    });
  for (const { kind, weeks, better } of samplingTables.waits) {
    const last = Math.max(
      ...applied
        .filter((entry) => entry.kind === kind && Date.parse(entry.on.slice(0, 4)) <= day)
        .map((entry) => Math.min(day, latest(entry.on))),
    );
    const since = (day - last) / DAY / 7;
    if (since >= 0 && since < weeks) {
      const from = new Date(last + weeks * 7 * DAY).toISOString().slice(0, 10);
      advice.push({
        weight: 'wait',
        words: `Too soon after ${kind}: ${Math.floor(since)} of ${weeks} weeks. The test would read what was put down, not the soil. From ${from} on.`,
      });
    } else if (better !== undefined && since >= weeks && since < better) {
      advice.push({
        weight: 'note',
        words: `${capital(kind)} was put down ${Math.floor(since)} weeks ago: the test reads part of it. ${better} weeks are better.`,
      });
    }
  }
  const before = [...tested].sort().at(-1);
  const seasonBefore = before && seasonOf(before, latitude);
  if (seasonBefore && seasonBefore !== season)
    advice.push({
      weight: 'wait',
      words: `The last test was taken in ${seasonBefore} (${before}): pH moves with the seasons, so ${season} will not compare. The same season each year matters most.`,
    });
  else if (season === 'summer')
    advice.push({
      weight: 'note',
      words:
        'Autumn leaves the winter for lime to work; late winter reads the soil before anything is put down. Summer is neither: keep to it only if every year is taken in summer.',
    });
  if (before && (day - Date.parse(before)) / DAY < 300)
    advice.push({
      weight: 'note',
      words: `Tested ${Math.round((day - Date.parse(before)) / DAY / 7)} weeks ago: after a correction a year is wanted, otherwise about three.`,
    });
  return advice;
}
