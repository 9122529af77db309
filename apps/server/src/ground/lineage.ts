import { grouped } from '../platform/grouped.ts';
import type { Zone } from './zone.entity.ts';

/** What of a zone its descent follows from. */
export type Descended = Pick<Zone, 'id' | 'name' | 'partOf' | 'joinedInto' | 'createdAt' | 'deletedAt'>;

/** A zone that is there, by a zone that was sampled. */
export interface Heir {
  readonly zoneId: string;
  /** Name of the zone that was sampled. */
  readonly of: string;
  readonly how: 'parted' | 'joined';
}

/**
 * Zones that a test of a zone speaks for since the ground was divided anew: the parts that were parted from it after the
 * test, and what it was joined to.
 *
 * @param zones every zone, also those that were taken away.
 * @returns the heirs of a zone at a moment; a zone is no heir of itself.
 */
export function heirsAmong(zones: readonly Descended[]): (sampled: string, at: Date) => readonly Heir[] {
  const byId = new Map(zones.map((zone) => [zone.id, zone]));
  const parts = grouped(
    zones.filter(({ partOf }) => partOf !== null),
    ({ partOf }) => partOf,
  );
  return (sampled, at) => {
    const name = byId.get(sampled)?.name ?? '';
    const found = new Map<string, Heir>();
    const seen = new Set<string>([sampled]);
    const follow = (id: string): void => {
      const zone = byId.get(id);
      const next = (parts.get(id) ?? [])
        .filter(({ createdAt }) => createdAt > at)
        .map((part): readonly [Descended, Heir['how']] => [part, 'parted']);
      const joined = zone?.deletedAt && zone.joinedInto ? byId.get(zone.joinedInto) : undefined;
      if (joined) next.push([joined, 'joined']);
      for (const [heir, how] of next) {
        if (seen.has(heir.id)) continue;
        seen.add(heir.id);
        if (!heir.deletedAt) found.set(heir.id, { zoneId: heir.id, of: name, how });
        follow(heir.id);
      }
    };
    follow(sampled);
    return [...found.values()];
  };
}
