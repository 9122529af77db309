import { dayOn } from '@glenfold/agronomy';

/** First and last day of the week of a day, Monday first. */
export function weekOf(day: string): { readonly from: string; readonly to: string } {
  const weekday = (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
  const from = dayOn(day, -weekday);
  return { from, to: dayOn(from, 6) };
}
