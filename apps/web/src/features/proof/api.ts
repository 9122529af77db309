import type { HitsAnswer, ProofAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../../api/client.ts';

/** Keys and fetchers of the proof. */
export const proofQueries = {
  proof: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'proof'],
      queryFn: () => api<ProofAnswer>('GET', `/sites/${siteId}/proof`),
    }),
  hits: () => queryOptions({ queryKey: ['hits'], queryFn: () => api<HitsAnswer>('GET', '/proof') }),
};
