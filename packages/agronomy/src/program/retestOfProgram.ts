import type { Applied } from '../ground/applied.ts';
import { type RetestDue, corrects, retestDue } from '../readings/retestDue.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { planned } from './balance.ts';

/** When a zone is tested again once its program is done: what corrects the soil counts on the days it is planned for. */
export function retestOfProgram(
  sampledOn: string | null,
  applied: readonly Applied[],
  treatments: readonly Treatment[],
): RetestDue | null {
  const correcting = planned(treatments).filter(({ remedy }) => corrects(remedy));
  const coming = correcting.flatMap(({ remedy, doses }): Applied[] =>
    doses.flatMap(({ to }) => (to ? [{ kind: remedy, on: to }] : [])),
  );
  return retestDue(sampledOn, [...applied, ...coming], [...new Set(correcting.map(({ remedy }) => remedy))]);
}
