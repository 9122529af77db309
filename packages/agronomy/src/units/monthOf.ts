const months = ['January', 'February', 'March', 'April', 'May', 'June'].concat([
  ...['July', 'August', 'September', 'October', 'November', 'December'],
]);

export const monthName = (month: number): string => months[month - 1] ?? '';

/** "March 2023" of `2023-03-14` or `2023-03`, "2023" of a bare year. */
export function monthOf(on: string | null): string {
  if (on === null) return 'a day not told';
  const [year = '', month] = on.split('-');
  return month === undefined ? year : `${monthName(Number(month))} ${year}`;
}
