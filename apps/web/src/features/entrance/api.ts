import type { InvitationOfferAnswer, ResetOfferAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../../api/client.ts';

export const entranceQueries = {
  invitation: (token: string) =>
    queryOptions({
      queryKey: ['invitation', token],
      queryFn: () => api<InvitationOfferAnswer>('GET', `/invitations/${token}/offer`),
      retry: false,
    }),
  reset: (token: string) =>
    queryOptions({
      queryKey: ['reset', token],
      queryFn: () => api<ResetOfferAnswer>('GET', `/password-resets/${token}`),
      retry: false,
    }),
};
