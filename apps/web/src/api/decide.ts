import type { SettingAnswer, SettingKind } from '@glenfold/contract';
import { type Saved, useChange } from './changes.ts';
import { ApiProblem, api } from './client.ts';

/** Where a decision stands: for the practice, a site or a zone. */
interface DecidedFor {
  readonly siteId?: string | undefined;
  readonly zoneId?: string | undefined;
}
/** Decide something; the conflict tells what the other decided, field by field. */
export const useDecide = (kind: SettingKind, { siteId, zoneId }: DecidedFor) =>
  useChange(
    'setting',
    async ({ seen, input }: Saved<object>) => {
      try {
        const body = { siteId: siteId ?? null, zoneId: zoneId ?? null, value: input };
        return await api<SettingAnswer>('PUT', `/settings/${kind}`, body, seen?.version ?? 0);
      } catch (error) {
        if (!(error instanceof ApiProblem) || !error.conflict) throw error;
        const current = error.conflict.current as SettingAnswer;
        throw error.with({ ...error.conflict, current: { ...current.value, version: current.version } });
      }
    },
    `settings ${kind}`,
  );
