import type {
  HoldingsAnswer,
  PasswordLinkAnswer,
  AuditPageAnswer,
  HistoryAnswer,
  HistoryInput,
  InvitationAnswer,
  InvitationInput,
  MemberAnswer,
  MemberInput,
  OutboxAnswer,
  PracticeAnswer,
  PracticeInput,
} from '@glenfold/contract';
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { type Changed, useChange, useSave } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const practiceQueries = {
  /** What somebody holds, asked anew each time. */
  holdings: (memberId: string) =>
    queryOptions({
      queryKey: ['members', memberId, 'holdings'],
      queryFn: () => api<HoldingsAnswer>('GET', `/members/${memberId}/holdings`),
      staleTime: 0,
    }),
  members: () => queryOptions({ queryKey: ['members'], queryFn: () => api<MemberAnswer[]>('GET', '/members') }),
  invitations: () =>
    queryOptions({ queryKey: ['invitations'], queryFn: () => api<InvitationAnswer[]>('GET', '/invitations') }),
  histories: () =>
    queryOptions({
      queryKey: ['histories'],
      queryFn: () => api<HistoryAnswer[]>('GET', '/histories'),
      // What is on its way ends by itself.
      refetchInterval: ({ state }) => (state.data?.some((one) => one.state === 'waiting') ? 3000 : false),
    }),
  outbox: () => queryOptions({ queryKey: ['outbox'], queryFn: () => api<OutboxAnswer>('GET', '/outbox') }),
  audit: () =>
    infiniteQueryOptions({
      queryKey: ['audit'],
      queryFn: ({ pageParam }) => api<AuditPageAnswer>('GET', `/audit${pageParam ? `?before=${pageParam}` : ''}`),
      initialPageParam: null as string | null,
      getNextPageParam: ({ next }) => next,
    }),
};

export const useSavePractice = () =>
  useChange('practice', ({ seen, input }: Changed<PracticeInput>) =>
    api<PracticeAnswer>('PUT', '/practice', input, seen.version),
  );
export const useSaveMember = () => useSave<MemberInput, MemberAnswer>('/members');
export const useSendReset = () =>
  useChange('mail', (memberId: string) => api<PasswordLinkAnswer>('POST', `/members/${memberId}/password-reset`));
export const useEndAddresses = () =>
  useChange(['member', 'calendar'], (memberId: string) => api<null>('DELETE', `/members/${memberId}/addresses`));
export const useInvite = () =>
  useChange('member', (input: InvitationInput) => api<InvitationAnswer>('POST', '/invitations', input));
export const useRevokeInvitation = () => useChange('member', (id: string) => api<null>('DELETE', `/invitations/${id}`));
export const useSendAgain = () => useChange('mail', (id: string) => api<OutboxAnswer>('POST', `/outbox/${id}/send`));
export const useAddHistory = () =>
  useChange(['history', 'run'], (input: HistoryInput) => api<HistoryAnswer>('POST', '/histories', input));
