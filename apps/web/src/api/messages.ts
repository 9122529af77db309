import type { MessageAnswer, MessageInput, MessagesAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange } from './changes.ts';
import { api } from './client.ts';

/** What was written about a site. */
export const messagesOf = (siteId: string) =>
  queryOptions({
    queryKey: ['site', siteId, 'messages'],
    queryFn: () => api<MessagesAnswer>('GET', `/sites/${siteId}/messages`),
  });

export const useWriteMessage = (siteId: string) =>
  useChange('message', (input: MessageInput) => api<MessageAnswer>('POST', `/sites/${siteId}/messages`, input));
export const useMessageDone = () => useChange('message', (id: string) => api<null>('POST', `/messages/${id}/done`));
