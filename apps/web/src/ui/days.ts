import { dayOn, monthName } from '@glenfold/agronomy';

const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

const at = (day: string): Date => new Date(`${day}T00:00:00Z`);

/** "Mon 12 Apr 2027" of `2027-04-12`. */
export function dayWords(day: string, withYear = true): string {
  const date = at(day);
  const month = monthName(date.getUTCMonth() + 1).slice(0, 3);
  return `${WEEKDAYS[date.getUTCDay()]} ${date.getUTCDate()} ${month}${withYear ? ` ${date.getUTCFullYear()}` : ''}`;
}

/** "12 Apr to 3 May 2027". */
export function spanWords(from: string, to: string): string {
  const plain = (day: string): string => `${at(day).getUTCDate()} ${monthName(at(day).getUTCMonth() + 1).slice(0, 3)}`;
  const first = from.slice(0, 4) === to.slice(0, 4) ? plain(from) : `${plain(from)} ${from.slice(0, 4)}`;
  return from === to ? `${plain(to)} ${to.slice(0, 4)}` : `${first} to ${plain(to)} ${to.slice(0, 4)}`;
}

/** "today", "tomorrow", "in 9 days", "3 days ago". */
export function fromToday(day: string, today: string): string {
  const days = Math.round((at(day).getTime() - at(today).getTime()) / 86_400_000);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** The seven days of a week from its Monday. */
export const weekDays = (monday: string): string[] => Array.from({ length: 7 }, (_, index) => dayOn(monday, index));
