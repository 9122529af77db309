/** The day of a moment where the person is, `2026-10-14`: what is done on the ground has the day of its place. */
export function dayOf(at: Date): string {
  const two = (part: number): string => String(part).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

export const today = (): string => dayOf(new Date());

/** A moment of the server's as the person's own clock shows it, `2026-10-14 09:05`. */
export function localTime(moment: string): string {
  const at = new Date(moment);
  const two = (part: number): string => String(part).padStart(2, '0');
  return `${dayOf(at)} ${two(at.getHours())}:${two(at.getMinutes())}`;
}
