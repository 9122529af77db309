import type { Position } from '../geometry/plane.ts';
import type { UnitSystem } from '../units/present.ts';
import { type ZoneToSample, sampledZone } from './composeZones.ts';
import { type SampledZone, apartBecause, proposeComposites } from './composites.ts';
import { usualCores } from './design.ts';

/** A bag as it is being planned. */
export interface Draft {
  readonly key: string;
  readonly zones: readonly SampledZone[];
  readonly why: string;
  readonly cores: number;
  readonly purpose: string;
  /** Half of a pair. */
  readonly part?: 'bad' | 'healthy';
  /** Where its trouble is marked. */
  readonly spots: readonly Position[];
}

/** What the person decided against the proposal, bag by bag. */
export interface DraftChoices {
  /** Every zone a bag of its own. */
  readonly alone: boolean;
  /** Keys of the drafts that are not sampled now. */
  readonly left: ReadonlySet<string>;
  readonly ownCores: ReadonlyMap<string, number>;
  readonly ownPurpose: ReadonlyMap<string, string>;
  /** Zones of which the bad and the healthy part go into a bag each. */
  readonly paired: ReadonlySet<string>;
  /** Zones to the zone whose bag they are to share. */
  readonly joined: ReadonlyMap<string, string>;
}

export const noChoices: DraftChoices = {
  alone: false,
  left: new Set(),
  ownCores: new Map(),
  ownPurpose: new Map(),
  paired: new Set(),
  joined: new Map(),
};

/** Of each half of a pair, at least. */
const PAIRED_CORES = 12;

interface Together {
  readonly zones: readonly SampledZone[];
  readonly why: string;
}

/** The proposal with what the person joined to it. */
function withJoined(composites: readonly Together[], joined: ReadonlyMap<string, string>): Together[] {
  const groups = composites.map(({ zones, why }) => ({ zones: [...zones], why }));
  for (const [zoneId, toId] of joined) {
    const from = groups.find(({ zones }) => zones.some(({ id }) => id === zoneId));
    const to = groups.find(({ zones }) => zones.some(({ id }) => id === toId));
    if (!from || !to || from === to) continue;
    const moved = from.zones.find(({ id }) => id === zoneId)!;
    from.zones = from.zones.filter(({ id }) => id !== zoneId);
    const because = [...new Set(to.zones.flatMap((zone) => apartBecause(zone, moved)))];
    to.zones.push(moved);
    to.why =
      because.length > 0
        ? `Mixed because you want it so, although they differ by ${because.join(', ')}: the bag tells the mean of both and neither.`
        : to.why;
  }
  return groups.filter(({ zones }) => zones.length > 0);
}

const positionOf = (at: readonly number[] | null | undefined): Position[] => (at ? [[at[0]!, at[1]!]] : []);

/**
 * The bags for these zones: as the core proposes them, with what the person decided otherwise. Every zone is in one of
 * them, or in both halves of a pair.
 *
 * @param usually what a bag is for where nothing else is said; `least` cores that fill the laboratory's bag.
 */
export function draftsOf(
  zones: readonly ZoneToSample[],
  { alone, ownCores, ownPurpose, paired, joined }: DraftChoices,
  usually: string,
  system: UnitSystem,
  least = 0,
): Draft[] {
  const sampled = zones.map((zone) => sampledZone(zone, system));
  const composites = alone
    ? sampled.map((zone) => ({ zones: [zone], why: 'A bag of its own, as you chose.' }))
    : withJoined(proposeComposites(sampled), joined);
  return composites.flatMap(({ zones: own, why }): Draft[] => {
    const together = own.map(({ id }) => id).join();
    const members = zones.filter(({ id }) => own.some((zone) => zone.id === id));
    const spots = members.flatMap(({ facts }) => (facts.signs ?? []).flatMap(({ at }) => positionOf(at)));
    const usual = Math.max(least, usualCores(members.reduce((sum, zone) => sum + zone.area, 0)));
    const draft = (part: Draft['part'], words: string, purpose: string): Draft => {
      const key = part ? `${together} ${part}` : together;
      return {
        ...{ key, zones: own, why: words, spots, ...(part ? { part } : {}) },
        cores: ownCores.get(key) ?? (part ? Math.max(least, PAIRED_CORES) : usual),
        purpose: ownPurpose.get(key) ?? purpose,
      };
    };
    if (own.length === 1 && paired.has(own[0]!.id) && spots.length > 0)
      return [
        draft('bad', 'Where the trouble is marked, and just about it.', 'problem'),
        draft('healthy', 'The same lawn well away from it: only the difference tells.', 'healthy'),
      ];
    return [draft(undefined, why, usually)];
  });
}
