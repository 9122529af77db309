import type { UnitSystem } from '@glenfold/agronomy';
import type {
  HandOverInput,
  IssuedProgramAnswer,
  SiteProgramAnswer,
  TreatmentChangeAnswer,
  TreatmentInput,
} from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { type Changed, saveOver, useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const ratesQueries = {
  /** The whole site; it follows every program of its zones. */
  siteProgram: (siteId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', 'site', siteId, units],
      queryFn: () => api<SiteProgramAnswer>('GET', `/sites/${siteId}/program?units=${units}`),
    }),
};

const treatmentPath = (zoneId: string, key: string): string =>
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

export const useHandOver = (siteId: string, units: UnitSystem) =>
  useChange('program', (input: HandOverInput) =>
    api<IssuedProgramAnswer>('POST', `/sites/${siteId}/programs?units=${units}`, input),
  );
