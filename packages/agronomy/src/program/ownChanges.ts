import type { OwnFeed } from '../rates/carrier.ts';
import type { Macro } from '../rates/needs.ts';
import type { Made } from '../remedies/remedy.ts';
import type { Change } from './changes.ts';
import { type FedKey, macroOf } from './fed.ts';
import type { Treatment } from '../remedies/treatment.ts';

interface Own {
  readonly material?: string;
  readonly rate?: number;
  readonly times?: number;
}

export const changeOf = (changes: readonly Change[], key: string): Change | undefined =>
  changes.find((change) => change.key === key);
export const outOf = (changes: readonly Change[], key: string): boolean => changeOf(changes, key)?.out !== undefined;
export const ownOf = (changes: readonly Change[], key: string): Own => changeOf(changes, key)?.values ?? {};

/** A feed of one’s own; phosphorus that nobody has shown to be wanted has none. */
export function ownFeed(changes: readonly Change[], key: FedKey, garden: boolean | undefined): Array<[Macro, OwnFeed]> {
  const { rate, times } = ownOf(changes, key);
  if (garden || (rate === undefined && times === undefined)) return [];
  return [[macroOf[key], { rate, passes: times }]];
}

/** Whether something of it was changed by hand, and how it is told. */
export function byHandOf(change: Change | undefined, instead: string | null, held: string | null): Treatment['byHand'] {
  if (!change) return null;
  const { reason, by = null, added, out, told } = change;
  const more = [told, out === 'down' ? null : held].filter(Boolean).join(' ');
  return { reason, by, instead: added ? null : instead, held: more || null };
}

export const statusOf = (change: Change | undefined, made: Made['status']): Treatment['status'] => change?.out ?? made;
