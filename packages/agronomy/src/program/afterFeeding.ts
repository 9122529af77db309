import { magnesiumVerdict } from '../rates/verdicts.ts';
import type { Asked, Proposal } from '../remedies/remedy.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import { magnesiumOf } from '../remedies/schoolNeeds.ts';
import { sulfateProposal, sulfateWanted } from '../remedies/shortages.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { treatmentsOf } from './alone.ts';
import { planned } from './balance.ts';
import type { Change } from './changes.ts';

/** What is wanted beside N, P and K, and comes with them where it can: of its own only where it does not. */
export function afterFeeding(treatments: readonly Treatment[], asked: Asked, changes: readonly Change[]): Treatment[] {
  const comes = (key: 'mg' | 's'): number => planned(treatments).reduce((sum, { brings }) => sum + brings[key], 0);
  const add = (name: RemedyName, proposal: Proposal | undefined): Treatment[] =>
    !proposal || treatments.some(({ remedy }) => remedy === name)
      ? []
      : treatmentsOf(
          name,
          proposal,
          asked,
          changes.filter(({ added }) => !added),
        );
  const wanted = wantedBeside(asked);
  const sulfur = sulfateProposal(asked);
  return [
    ...add('magnesium', magnesiumProposal(treatments, comes('mg'), asked)),
    ...add('sulfate', sulfur?.status === 'due' && comes('s') < wanted.s * ENOUGH ? sulfur : undefined),
  ];
}

/** Share of a need that makes a product of its own needless. */
const ENOUGH = 0.5;

const ratingOf = ({ reading }: Pick<Asked, 'reading'>, nutrient: string) =>
  reading.bars.find(({ key }) => key === nutrient)?.rating;

/** g/m² of magnesium and sulfur for the year. */
export const wantedBeside = (asked: Asked) => ({
  mg: magnesiumOf(asked)?.value ?? 0,
  s: sulfateProposal(asked)?.status === 'due' ? sulfateWanted(ratingOf(asked, 's')) : 0,
});

function magnesiumProposal(treatments: readonly Treatment[], comes: number, asked: Asked): Proposal | undefined {
  const limed = treatments.some(({ remedy, status }) => remedy === 'lime' && status === 'planned');
  const verdict = magnesiumVerdict(magnesiumOf(asked), limed, asked.system);
  const wanted = magnesiumOf(asked)?.value ?? 0;
  const due =
    verdict !== undefined &&
    wanted > 0 &&
    comes < wanted * ENOUGH &&
    !limed &&
    !asked.zone.garden &&
    asked.ground?.target.way !== 'raise';
  const { need } = verdict ?? {};
  return due
    ? {
        ...{ status: 'due', words: verdict.reason ?? verdict.words, cautions: verdict.cautions },
        ...(need ? { need: { name: 'for the year', told: verdict.told ?? '', figure: need } } : {}),
      }
    : undefined;
}
