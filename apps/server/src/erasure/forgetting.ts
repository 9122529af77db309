import { remedyNames } from '@glenfold/agronomy';

/** What a text says where something was struck out of it. */
const STRUCK = '…';
/** What stands where somebody wrote freely, and a text has to stand. */
export const ERASED = 'erased';

/** Keys under which people write freely, in documents that they fill in. */
const FREE: ReadonlySet<string> = new Set(['note', 'reason', 'sectionReason', 'proof', 'name', 'source']);
/** Lists whose names are the trade's own: "Labour", "Spreading". */
const TRADE: ReadonlySet<string> = new Set(['prices']);
/** Keys under which a place lies, [longitude, latitude]. */
const PLACES: ReadonlySet<string> = new Set(['at', 'place', 'coordinates']);

/** ° to which a place is told once it is nobody's: some 11 km, so that climate and season still hold. */
const COARSE = 0.1;

export type Place = readonly [longitude: number, latitude: number];
type Json = unknown;

const isPlace = (value: Json): value is number[] =>
  Array.isArray(value) && value.length >= 2 && value.every((one) => typeof one === 'number');

/** The name, address, number or word as it would stand in a text. */
const escaped = (name: string): string => name.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);

/**
 * Strikes names out of texts, whole words only.
 * @param names longest first wins: "Hetty Coppice" before "Hetty"
 */
export function strikingOut(names: readonly string[]): (text: string) => string {
  if (names.length === 0) return (text) => text;
  const longestFirst = [...names].sort((one, other) => other.length - one.length);
  const any = new RegExp(`(?<![\\p{L}\\p{N}])(?:${longestFirst.map(escaped).join('|')})(?![\\p{L}\\p{N}])`, 'gu');
  return (text) => text.replace(any, STRUCK);
}

/**
 * Moves places from where they are to somewhere within some 8 km, all by the same distance on the ground: shapes, areas
 * and distances stay what they are.
 * @param from where the ground lies
 */
export function movingAway(from: Place): { readonly to: Place; readonly move: (place: Place) => Place } {
  const to = [coarse(from[0]), coarse(from[1])] as const;
  const narrower = Math.cos((from[1] * Math.PI) / 180) / Math.cos((to[1] * Math.PI) / 180);
  return {
    to,
    move: ([longitude, latitude]) => [
      exact(to[0] + (longitude - from[0]) * narrower),
      exact(to[1] + (latitude - from[1])),
    ],
  };
}
const coarse = (degrees: number): number => Number((Math.round(degrees / COARSE) * COARSE).toFixed(1));
/** ° with a tenth of a millimetre. */
const exact = (degrees: number): number => Number(degrees.toFixed(9));

/** Places of an outline or a place by itself, moved; what else stands beside stays. */
export function moved(value: Json, move: (place: Place) => Place): Json {
  if (isPlace(value)) return [...move([value[0]!, value[1]!]), ...value.slice(2)];
  if (Array.isArray(value)) return value.map((one) => moved(one, move));
  return value !== null && typeof value === 'object'
    ? mapped(value, (one, key) => (PLACES.has(key) ? moved(one, move) : one))
    : value;
}

/** A document of ours without names. */
export function told(value: Json, strike: (text: string) => string): Json {
  if (typeof value === 'string') return strike(value);
  if (Array.isArray(value)) return value.map((one) => told(one, strike));
  return value !== null && typeof value === 'object' ? mapped(value, (one) => told(one, strike)) : value;
}

/** A document that somebody filled in, without what they wrote freely; names and places as in the others. */
export function withoutWords(
  value: Json,
  strike: (text: string) => string,
  move: (place: Place) => Place,
  key = '',
): Json {
  if (PLACES.has(key)) return moved(value, move);
  if (TRADE.has(key)) return told(value, strike);
  if (typeof value === 'string') return FREE.has(key) ? ERASED : strike(value);
  if (Array.isArray(value)) return value.map((one) => withoutWords(one, strike, move, key));
  return value !== null && typeof value === 'object'
    ? mapped(value, (one, name) => withoutWords(one, strike, move, name))
    : value;
}

/** What somebody wrote freely in such a document: it may stand in copies, too. */
export function freeWords(value: Json, key = ''): string[] {
  if (TRADE.has(key)) return [];
  if (typeof value === 'string') return FREE.has(key) ? [value] : [];
  if (Array.isArray(value)) return value.flatMap((one) => freeWords(one, key));
  return value !== null && typeof value === 'object'
    ? Object.entries(value).flatMap(([name, one]) => freeWords(one, name))
    : [];
}

/** Words of the calendar, of the trade and of grounds, which say something else where they stand in a text of ours. */
const COMMON: ReadonlySet<string> = new Set(
  [...remedyNames, ...'january february march april may june july august september october november december spring summer autumn winter the north south east west front back upper lower green field lawn court park garden house school club church hall'.split(' ')], // prettier-ignore
);

/** Of a name what it is known by: the whole, and each word of it that begins large; nothing too short to strike out. */
export function namesIn(name: string): string[] {
  const words = name
    .split(/[\s,;/]+/u)
    .filter((word) => /^\p{Lu}[\p{L}'’-]{2,}$/u.test(word) && !COMMON.has(word.toLowerCase()));
  return [name.trim(), ...words].filter((one) => one.length > 2);
}

const mapped = (value: object, change: (value: Json, key: string) => Json): Json =>
  Object.fromEntries(Object.entries(value).map(([key, one]) => [key, change(one, key)]));
