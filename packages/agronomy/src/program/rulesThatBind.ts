import { dayOfYear } from '../rates/needs.ts';
import { isShortage } from '../rates/phosphorusRule.ts';
import type { Understood, ZonePlan } from '../rates/plan.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { Treatment } from '../remedies/treatment.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { planned } from './balance.ts';

/** A rule of the place that bears on a zone's year. */
export interface RuleThatBinds {
  readonly key: 'phosphorus' | 'proof' | 'nitrogen year' | 'nitrogen pass' | 'blackout' | 'water strip';
  readonly words: string;
}

/** % of a cap from which it is near enough to be told. */
const NEAR = 0.95;

/**
 * The rules of the place that bind in a program: what they hold back, and what they ask for where something is spread.
 * They are what the practice has written down, and claim to be no law.
 */
export function rulesThatBind(
  treatments: readonly Treatment[],
  plan: ZonePlan,
  { reading, test }: Understood,
  {
    zone,
    settings,
    system,
  }: { readonly zone: ZoneFacts; readonly settings: AdviceSettings; readonly system: UnitSystem },
): RuleThatBinds[] {
  const { rules, phosphorusRule } = settings;
  const given = planned(treatments);
  const say = (rate: number): string => present('nutrientRate', rate, system).text;
  const name = rules?.name ?? 'Most phosphorus rules';
  const bound: RuleThatBinds[] = [];
  const phosphorus = given.filter(({ brings }) => brings.p2o5 > 0.05);
  const rating = reading.bars.find(({ key }) => key === 'p')?.rating;
  const need = plan.nutrients.find(({ nutrient }) => nutrient === 'p2o5');
  const short = rating != null && isShortage(rating, settings);
  if (phosphorusRule !== 'none' && rating && need?.status === 'none' && (phosphorusRule === 'never' || !short))
    bound.push({
      key: 'phosphorus',
      words:
        phosphorusRule === 'never'
          ? `${name}: no phosphorus, whatever the test says.`
          : `${name}: phosphorus only on a shown shortage (${rules?.shortage ?? 'low'} or less)${(rules?.establishing ?? true) ? ' or on a new lawn' : ''}. P is ${rating} here: ${phosphorus.length > 0 ? 'none is bought for its own sake' : 'none is bought'}.`,
    });
  if (phosphorusRule === 'shortage' && phosphorus.length > 0)
    bound.push({
      key: 'proof',
      words: `${name}: ${phosphorusOn(phosphorus, { seedbed: zone.surface === 'seedbed' && !zone.garden, short, on: test?.sampledOn })} Keep ${rules?.proof ?? 'the report and what was spread, with day and amount'}.`,
    });
  const fed = given.filter(({ brings }) => brings.n > 0);
  const nitrogen = fed.reduce((sum, { brings }) => sum + brings.n, 0) + (zone.down?.year.n ?? 0);
  if (rules?.nitrogenYear != null && nitrogen >= rules.nitrogenYear * NEAR)
    bound.push({
      key: 'nitrogen year',
      words: `${rules.name}: at most ${say(rules.nitrogenYear)} of N a year; the program stands at ${say(nitrogen)}.`,
    });
  if (
    rules?.nitrogenPass != null &&
    fed.some(({ brings, doses }) => brings.n / Math.max(1, doses.length) >= rules.nitrogenPass! * NEAR)
  )
    bound.push({
      key: 'nitrogen pass',
      words: `${rules.name}: at most ${say(rules.nitrogenPass)} of N in one pass; the year is cut into passes to hold it.`,
    });
  if (rules && rules.blackouts.length > 0 && fed.length + phosphorus.length > 0)
    bound.push({
      key: 'blackout',
      words: `${rules.name}: ${rules.blackouts.map(({ what, from, to }) => `no ${what} from ${dayOfYear(from)} to ${dayOfYear(to)}`).join('; ')}. No dose is put there.`,
    });
  if (rules?.waterStrip && fed.length + phosphorus.length > 0)
    bound.push({
      key: 'water strip',
      words: `${rules.name}: stay ${present('length', rules.waterStrip, system).text} back from water and drains.`,
    });
  return bound;
}

/** On what ground phosphorus goes down, and whether it comes along with something that the rule may not mean. */
function phosphorusOn(
  given: readonly Treatment[],
  { seedbed, short, on }: { readonly seedbed: boolean; readonly short: boolean; readonly on: string | undefined },
): string {
  if (seedbed) return 'phosphorus goes down here for the new lawn.';
  if (short) return `phosphorus goes down here on ${on ? `the test of ${on}` : 'this test'}.`;
  const names = [...new Set(given.map(({ name }) => name))].join(' and ');
  return `${names} brings phosphorus along, with no shortage on the test: check whether the rule counts it.`;
}
