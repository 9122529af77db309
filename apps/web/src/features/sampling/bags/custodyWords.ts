import type { BagState } from '@glenfold/contract';

/** Where a bag stands, and what its next step is called. */
export const custodyLooks: Readonly<
  Record<BagState, { readonly label: string; readonly next: readonly [state: BagState, does: string] | null }>
> = {
  planned: { label: 'Planned', next: null },
  cored: { label: 'Cored', next: ['drying', 'Laid out to dry'] },
  drying: { label: 'Drying', next: ['sent', 'Send…'] },
  sent: { label: 'Sent', next: ['at the lab', 'Arrived'] },
  'at the lab': { label: 'At the lab', next: ['reported', 'Report came'] },
  reported: { label: 'Reported', next: ['read', 'Read'] },
  read: { label: 'Read', next: null },
  lost: { label: 'Lost', next: null },
  spoiled: { label: 'Spoiled', next: null },
};

/** "3 days", "today". */
export function standing(days: number): string {
  return days === 0 ? 'since today' : days === 1 ? '1 day' : `${days} days`;
}
