import type { Rating } from '../nutrients/sufficiencyTables.ts';
import { ratings } from '../nutrients/sufficiencyTables.ts';
import type { Reading } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import type { AdviceSettings } from '../settings/settings.ts';

/** Whether the rule of the place calls a rating a shortage. */
export const isShortage = (rating: Rating, { rules }: AdviceSettings): boolean =>
  ratings.indexOf(rating) <= ratings.indexOf(rules?.shortage ?? 'low');

/**
 * Whether a rule keeps phosphorus back, and why; nothing where it may be given. A rule that asks for a shortage is not
 * satisfied by a school that sees none.
 *
 * @param on the day of the program, against which the age of the proof is counted
 */
export function withheldPhosphorus(
  rating: Rating,
  zone: ZoneFacts,
  test: Pick<SoilTest, 'sampledOn'> | undefined,
  settings: AdviceSettings,
  on: string | undefined,
): { readonly words: string } | undefined {
  const { phosphorusRule, rules } = settings;
  const name = rules?.name ?? 'the rule of the place';
  if (phosphorusRule === 'never') return { words: `${name} forbids phosphorus whatever the test says` };
  if (phosphorusRule !== 'shortage') return undefined;
  const establishing = zone.surface === 'seedbed' && (rules?.establishing ?? true);
  const short = isShortage(rating, settings);
  if (!establishing && !short)
    return {
      words: rules
        ? `${name} lets it be given only from ${rules.shortage ?? 'low'} down${zone.surface === 'seedbed' ? ', on a new lawn too' : ''}`
        : '',
    };
  const most = rules?.proofYears;
  const old =
    most != null && test?.sampledOn !== undefined && on !== undefined && test.sampledOn < yearsBefore(on, most);
  return !establishing && old
    ? {
        words: `${name} asks for a test not older than ${most} years, and this one is of ${test.sampledOn}: test again first`,
      }
    : undefined;
}

const yearsBefore = (day: string, count: number): string => `${Number(day.slice(0, 4)) - count}${day.slice(4)}`;

/** What decides whether phosphorus may come by another door than the feeding. */
interface Door {
  readonly zone: ZoneFacts;
  readonly test: SoilTest | undefined;
  readonly reading: Reading;
  readonly settings: AdviceSettings;
  /** First day of the program, against which the age of the proof is counted. */
  readonly from: string;
}

/**
 * Why no phosphorus may come with something else, such as the feed in a tank; nothing where it may. Ground that was not
 * tested counts as medium.
 */
export function phosphorusKeptBack({ zone, test, reading, settings, from }: Door): string | undefined {
  const known = reading.bars.find(({ key }) => key === 'p')?.rating;
  if (!known && test?.nutrients.p) return 'the test’s phosphorus cannot be rated here';
  const rating = known ?? 'medium';
  if (rating === 'high' || rating === 'very high') return `phosphorus is ${rating} here`;
  const withheld = withheldPhosphorus(rating, zone, test, settings, from);
  return withheld && (withheld.words || 'the rule of the place lets it be given on a shown shortage only');
}
