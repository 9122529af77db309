import { dayIn } from '@glenfold/contract';
import { useQuery } from '@tanstack/react-query';
import { queries } from '../api/queries.ts';
import { useTimeZone } from './session.tsx';

/** The time zone of the device, where no place is known. */
export const deviceZone = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The day of a moment as the person's own clock shows it, `2026-10-14`. */
export const dayOf = (at: Date): string => dayIn(at, deviceZone());

/** Today as the person's own clock shows it. */
export const deviceToday = (): string => dayOf(new Date());

/** A moment of the server's as the person's own clock shows it, `2026-10-14 09:05`. */
export function localTime(moment: string): string {
  const at = new Date(moment);
  const time = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  return `${dayOf(at)} ${time}`;
}

/** The day where a place lies: what is done on the ground has the day of its place, whatever the device says. */
export const todayIn = (timeZone: string): string => dayIn(new Date(), timeZone);

/** Today on a site, by its own time zone or the practice's. */
export function useToday(siteId: string): string {
  const { data } = useQuery({ ...queries.siteState(siteId), notifyOnChangeProps: ['data'] });
  return todayIn(useTimeZone(data?.site));
}
