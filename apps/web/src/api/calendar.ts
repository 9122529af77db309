import type { CalendarLinkAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange } from './changes.ts';
import { api } from './client.ts';

/** One’s own calendar addresses. */
export const calendarLinks = () =>
  queryOptions({
    queryKey: ['calendar-links'],
    queryFn: () => api<CalendarLinkAnswer[]>('GET', '/calendar-links'),
  });
export const useMakeCalendarLink = () =>
  useChange('calendar', () => api<CalendarLinkAnswer>('POST', '/calendar-links'));
export const useRevokeCalendarLink = () =>
  useChange('calendar', (id: string) => api<null>('DELETE', `/calendar-links/${id}`));
