import type { ZonePlan } from '../rates/plan.ts';
import type { Verdict } from '../rates/verdicts.ts';
import type { Proposal } from '../remedies/remedy.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { macroOf } from './fed.ts';
import type { Fed } from './ratesAsTreatments.ts';
import type { Judged, Treatment } from '../remedies/treatment.ts';

/** What is seen that hunger does not explain, in words of those who mark signs. */
const NOT_HUNGER = /ring|thread|spot|carpet|grub|birds? dig|pull(s|ed)? up/i;

/** Disease and pests imitate hunger, drought and salt: they are named to be ruled out, and nothing is given for them. */
function toRuleOut(signs: readonly string[]): Judged[] {
  const seen = signs.filter((sign) => NOT_HUNGER.test(sign));
  return seen.length === 0
    ? []
    : [
        {
          remedy: 'rule out',
          name: 'To rule out',
          status: 'cannot say',
          words: `Seen: ${seen.join(', ')}. That can be disease, grubs or a spill, which no feed mends: look at the edge of a patch in the morning, pull a handful and count what eats below, and show it to a diagnostic laboratory or the extension office before it is fed.`,
          cautions: [],
        },
      ];
}

/** What is told as looked at: all that is not given, with its reason. */
export function judgedOf(
  plan: ZonePlan,
  before: ReadonlyArray<{ readonly remedy: { readonly name: RemedyName }; readonly proposal: Proposal | undefined }>,
  lime: readonly Treatment[],
  treatments: readonly Treatment[],
  feeding: readonly Fed[],
  signs: readonly string[],
  system: UnitSystem,
): readonly Judged[] {
  const judged: Judged[] = toRuleOut(signs);
  if (lime.length === 0)
    judged.push({
      remedy: 'lime',
      name: remedyEntry('lime').label,
      status: plan.lime.status === 'cannot say' ? 'cannot say' : 'none',
      words: [plan.lime.words, plan.lime.rule].filter(Boolean).join(' '),
      cautions: plan.lime.cautions,
    });
  const quiet = feeding
    .filter(({ treatment }) => treatment === undefined)
    .map(({ key }) => plan.nutrients.find(({ nutrient }) => nutrient === macroOf[key])!);
  const [one] = quiet;
  const alike = one !== undefined && quiet.length > 1 && quiet.every(({ words }) => words === one.words);
  for (const { nutrient, name, status, words, cautions, need, covered = false } of alike
    ? [{ ...one, name: quiet.map(({ name }) => name).join(', ') }]
    : quiet)
    judged.push(
      status === 'due' && need && !covered
        ? {
            ...{ remedy: nutrient, name, status: 'cannot say', cautions: [] },
            words: `Nitrogen follows the grass, not the test: ${present('nutrientRate', need.value, system).text} a year here. Where the test has to wait, add it by hand.`,
          }
        : { remedy: nutrient, name, status: status === 'cannot say' ? 'cannot say' : 'none', words, cautions },
    );
  for (const { remedy, proposal } of before)
    if (
      proposal &&
      proposal.status !== 'due' &&
      proposal.words !== '' &&
      !treatments.some((treatment) => treatment.remedy === remedy.name)
    )
      judged.push({
        remedy: remedy.name,
        name: remedyEntry(remedy.name).label,
        status: proposal.status,
        words: proposal.words,
        cautions: proposal.cautions ?? [],
      });
  const magnesium: Verdict | undefined = plan.verdicts.find(({ remedy }) => remedy === 'magnesium');
  if (magnesium && magnesium.words !== '' && !treatments.some(({ remedy }) => remedy === 'magnesium'))
    judged.push({
      remedy: 'magnesium',
      name: magnesium.name,
      status: magnesium.status === 'due' ? 'none' : magnesium.status,
      words: magnesium.words,
      cautions: magnesium.cautions,
    });
  return judged;
}
