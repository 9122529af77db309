import type { ZonePlan } from '../rates/plan.ts';
import type { Verdict } from '../rates/verdicts.ts';
import type { Proposal } from '../remedies/remedy.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { macroOf } from './fed.ts';
import type { Fed } from './ratesAsTreatments.ts';
import type { Judged, Treatment } from '../remedies/treatment.ts';

/** What is told as looked at: all that is not given, with its reason. */
export function judgedOf(
  plan: ZonePlan,
  before: ReadonlyArray<{ readonly remedy: { readonly name: RemedyName }; readonly proposal: Proposal | undefined }>,
  lime: readonly Treatment[],
  treatments: readonly Treatment[],
  feeding: readonly Fed[],
  system: UnitSystem,
): readonly Judged[] {
  const judged: Judged[] = [];
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
  for (const { nutrient, name, status, words, cautions, need } of alike
    ? [{ ...one, name: quiet.map(({ name }) => name).join(', ') }]
    : quiet)
    judged.push(
      status === 'due' && need
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
