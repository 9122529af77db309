import type { TreatmentChangeAnswer, TreatmentInput } from '@glenfold/contract';
import { type Changed, saveOver, useChange } from './changes.ts';
import { api } from './client.ts';

/** What was decided of a treatment before, as a change of it takes it over. */
export const keptOf = (before: TreatmentChangeAnswer | undefined): Omit<TreatmentInput, 'remedy' | 'reason'> => {
  const { added = false, values = {}, months, work } = before?.change ?? {};
  return {
    added,
    values: { ...values },
    months: months ? [...months] : null,
    work: work ? work.map((line) => ({ ...line })) : null,
  };
};

/** A treatment as it was when it was opened: nothing was decided of one without a change. */
export const openedOf = (before: TreatmentChangeAnswer | undefined): object =>
  before?.change ?? { added: false, values: {}, months: null, work: null, out: null, reason: null };

export const treatmentPath = (zoneId: string, key: string): string =>
  `/zones/${zoneId}/program/treatments/${encodeURIComponent(key)}`;

/** Keep what was decided by hand of a treatment; `seen` names it by its key. */
export const useChangeTreatment = (zoneId: string) =>
  useChange(
    'program',
    ({ seen, input }: Changed<TreatmentInput>) =>
      saveOver<TreatmentChangeAnswer>(treatmentPath(zoneId, seen.id), input, seen.version),
    `treatments ${zoneId}`,
  );

/** Back to what the test asks for. */
export const useUndoTreatment = (zoneId: string) =>
  useChange('program', (key: string) => api<null>('DELETE', treatmentPath(zoneId, key)), `treatments ${zoneId}`);
