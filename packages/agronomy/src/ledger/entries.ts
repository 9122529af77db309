import type { Material } from '../materials/material.ts';

/** What is done on a lawn, as the logbook calls it. */
export const entryKinds = [
  ...(['lime', 'fertilizer', 'sulfur', 'gypsum', 'iron', 'compost', 'peat', 'sand', 'calcined clay', 'fill'] as const),
  ...(['wetting agent', 'weedkiller', 'seed', 'sod', 'sprayed mulch', 'coring', 'dethatching'] as const),
  ...(['loosening', 'watering', 'mowing', 'other'] as const),
] as const;
export type EntryKind = (typeof entryKinds)[number];

/** Units in which a rate is kept: mass, a layer, a liquid, water. */
export const rateUnits = ['g/m2', 'cm', 'mL/m2', 'mm'] as const;
export type RateUnit = (typeof rateUnits)[number];

export const entryStates = ['done', 'partly done', 'not done', 'withdrawn'] as const;
export type EntryState = (typeof entryStates)[number];

/** What the book needs to know of a material; it stays as it was on the day. */
export type EnteredMaterial = Pick<Material, 'name' | 'kind' | 'analysis'> &
  Partial<Pick<Material, 'nitrogenSource' | 'natural' | 'dolomitic' | 'packSize' | 'packUnit'>>;

/** One of several things that went down mixed in one going. */
export interface EntryPart {
  readonly words: string;
  readonly productId: string | null;
  /** kg, L or m³ of it, as it is packed. */
  readonly quantity: number | null;
  readonly quantityUnit: 'kg' | 'L' | 'm3' | null;
  /** In `unit`, over the area that was treated; nothing where nobody knows. */
  readonly rate: number | null;
  readonly unit: RateUnit | null;
  readonly material: EnteredMaterial | null;
}

/** What was done in a zone. It never changes; a later one that names it stands in its place. */
export interface Entry {
  readonly id: string;
  readonly zoneId: string;
  /** `2026`, `2026-04` or `2026-04-20`. */
  readonly on: string;
  readonly kind: EntryKind;
  readonly state: EntryState;
  /** As it is told: "pelletised lime, 12 bags". */
  readonly words: string;
  /** In `unit`, over the area that was treated; nothing where nobody knows. */
  readonly rate: number | null;
  readonly unit: RateUnit | null;
  /** m² that were treated; the whole zone where it is not told. */
  readonly area: number | null;
  readonly material: EnteredMaterial | null;
  /** Strength of a lime that is not in the list, % calcium carbonate equivalent. */
  readonly cce: number | null;
  readonly correctsId: string | null;
  /** What else was in the mix, such as the peat with the sand. */
  readonly mixed?: readonly EntryPart[];
  /** When it was written down, ISO 8601. */
  readonly recordedAt: string;
}

/** The last day that a date as it is remembered can mean, ISO. */
export function lastDayOf(on: string): string {
  const [year = '', month, day] = on.split('-');
  if (day !== undefined) return on;
  const last = new Date(Date.UTC(Number(year), month === undefined ? 12 : Number(month), 0));
  return last.toISOString().slice(0, 10);
}

/** Whether only a month or a year is remembered. */
export const isRough = ({ on }: Pick<Entry, 'on'>): boolean => on.length < 10;

/**
 * The entries that stand: of those that correct one another, the one that was written last; nothing of what was
 * withdrawn. One that names an entry which is not there stands for itself.
 */
export function standing<T extends Pick<Entry, 'id' | 'correctsId' | 'recordedAt' | 'state'>>(
  entries: readonly T[],
): T[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const rootOf = (entry: T): string => {
    const seen = new Set<string>();
    let at = entry;
    while (at.correctsId !== null && byId.has(at.correctsId) && !seen.has(at.id)) {
      seen.add(at.id);
      at = byId.get(at.correctsId)!;
    }
    return at.id;
  };
  const last = new Map<string, T>();
  for (const entry of entries) {
    const root = rootOf(entry);
    const known = last.get(root);
    const isLater =
      !known ||
      entry.recordedAt > known.recordedAt ||
      (entry.recordedAt === known.recordedAt && entry.correctsId === known.id);
    if (isLater) last.set(root, entry);
  }
  const stand = new Set(last.values());
  return entries.filter((entry) => stand.has(entry) && entry.state !== 'withdrawn');
}

/** Those that put something down. */
export const carriedOut = <T extends Pick<Entry, 'state'>>(entries: readonly T[]): T[] =>
  entries.filter(({ state }) => state === 'done' || state === 'partly done');

const kindOfPart: Readonly<Partial<Record<Material['kind'], EntryKind>>> = {
  ...{ lime: 'lime', fertilizer: 'fertilizer', sulfur: 'sulfur', gypsum: 'gypsum', iron: 'iron', compost: 'compost' },
  ...{ peat: 'peat', sand: 'sand', 'calcined clay': 'calcined clay', topsoil: 'fill', seed: 'seed' },
  'wetting agent': 'wetting agent',
};

/** All that was put down, those that stand and were carried out: each thing of a mix by itself, beside the one it came with. */
export const wentDown = (entries: readonly Entry[]): Entry[] =>
  carriedOut(standing(entries)).flatMap((entry) => [
    entry,
    ...(entry.mixed ?? []).map((part, index) => ({
      ...entry,
      ...{
        id: `${entry.id} ${index + 1}`,
        kind: (part.material && kindOfPart[part.material.kind]) ?? ('other' as const),
      },
      ...{ words: part.words, rate: part.rate, unit: part.unit, material: part.material, cce: null, mixed: [] },
    })),
  ]);
