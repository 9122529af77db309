const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June'].concat([
  ...['July', 'August', 'September', 'October', 'November', 'December'],
]);

/** "15 November" of `11-15`; nothing of what is no day. */
export function dayWords(monthDay: string): string {
  const [, month, day] = /^(\d\d)-(\d\d)$/.exec(monthDay) ?? [];
  const name = MONTHS[Number(month) - 1];
  return name && Number(day) >= 1 && Number(day) <= 31 ? `${Number(day)} ${name}` : '';
}
