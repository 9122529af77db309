import {
  type PointDesign,
  type SampledZone,
  apartBecause,
  proposeComposites,
  samplingTables,
  usualCores,
} from '@glenfold/agronomy';
import type { Position } from '@glenfold/agronomy/plan';
import type { BagAnswer, GroundThingsAnswer, ZoneAnswer } from '@glenfold/contract';
import { useMemo } from 'react';
import { useUnits } from '../../../ui/units.tsx';
import { aroundCores, sampledZone, shareOut } from './composeZones.ts';
import type { DesignTask } from './design.worker.ts';

/** How the soil is found. */
export const soils = ['not looked at yet', 'dry', 'moist', 'wet', 'frozen'] as const;
export const designWords: Readonly<Record<PointDesign, string>> = {
  coverage: 'Even cover',
  zigzag: 'Zigzag',
  Z: 'A Z',
  random: 'By chance',
};

/** What is chosen for all bags that are planned together. */
export interface Settings {
  readonly question: string;
  readonly purpose: string;
  /** Name of the laboratory it is to go to; none chosen yet when empty. */
  readonly laboratory: string;
  /** What is to grow, where that is not what grows now. */
  readonly grassWanted: string;
  readonly design: PointDesign;
  readonly depth: number | string | null;
  readonly probe: number | string | null;
  readonly edge: number | string | null;
  readonly clear: number | string | null;
  /** How far the bad part reaches from where trouble is marked, m. */
  readonly reach: number | string | null;
  readonly day: string;
  readonly soil: (typeof soils)[number];
  readonly seed: number;
}

export const first: Settings = {
  question: samplingTables.questions[0]!.name,
  purpose: 'routine',
  laboratory: '',
  grassWanted: '',
  design: 'coverage',
  depth: 10.16,
  probe: 1.905,
  edge: 0.9144,
  clear: 0.9144,
  reach: 3.048,
  day: new Date().toISOString().slice(0, 10),
  soil: 'not looked at yet',
  seed: 1,
};
/** An amount that can be worked with; text that is no number is none. */
export const amount = (value: number | string | null): number | undefined =>
  typeof value === 'number' ? value : undefined;

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

interface DraftedSite {
  readonly zones: readonly ZoneAnswer[];
  readonly things: GroundThingsAnswer | undefined;
  readonly bags: readonly BagAnswer[] | undefined;
}

/** Of each half of a pair: enough to fill a bag. */
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

/** The bags that are proposed for the zones without one, and the task of placing their cores. */
export function useDrafts({ zones, things, bags }: DraftedSite, settings: Settings, choices: DraftChoices) {
  const { system } = useUnits();
  const { design, seed, purpose } = settings;
  const [edge, clear, reach] = [settings.edge, settings.clear, settings.reach].map(amount);
  const openZones = useMemo(() => {
    const busy = new Set((bags ?? []).filter(({ state }) => state === 'planned').flatMap(({ zoneIds }) => zoneIds));
    return zones.filter(({ id }) => !busy.has(id));
  }, [zones, bags]);
  const drafts = useMemo((): Draft[] => {
    const { alone, ownCores, ownPurpose, paired, joined } = choices;
    const sampled = openZones.map((zone) => sampledZone(zone, system));
    const composites = alone
      ? sampled.map((zone) => ({ zones: [zone], why: 'A bag of its own, as you chose.' }))
      : withJoined(proposeComposites(sampled), joined);
    return composites.flatMap(({ zones: own, why }): Draft[] => {
      const key = own.map(({ id }) => id).join();
      const members = openZones.filter(({ id }) => own.some((zone) => zone.id === id));
      const spots = members.flatMap(({ facts }) => (facts.signs ?? []).flatMap(({ at }) => positionOf(at)));
      const usual = usualCores(members.reduce((sum, zone) => sum + zone.area, 0));
      const draft = (part: Draft['part'], words: string, usually: string): Draft => {
        const own2 = part ? `${key} ${part}` : key;
        return {
          ...{ key: own2, zones: own, why: words, spots, ...(part ? { part } : {}) },
          cores: ownCores.get(own2) ?? (part ? PAIRED_CORES : usual),
          purpose: ownPurpose.get(own2) ?? usually,
        };
      };
      if (own.length === 1 && paired.has(own[0]!.id) && spots.length > 0)
        return [
          draft('bad', 'Where the trouble is marked, and just about it.', 'problem'),
          draft('healthy', 'The same lawn well away from it: only the difference tells.', 'healthy'),
        ];
      return [draft(undefined, why, purpose)];
    });
  }, [openZones, choices, purpose, system]);
  const wanted = useMemo(() => drafts.filter(({ key }) => !choices.left.has(key)), [drafts, choices.left]);

  const task = useMemo((): DesignTask => {
    const { exclusions, lines, gate } = aroundCores(things?.features ?? []);
    const byId = new Map(zones.map((zone) => [zone.id, zone]));
    return {
      zones:
        things === undefined || edge === undefined || clear === undefined || reach === undefined
          ? []
          : wanted.flatMap((draft) => {
              const own = draft.zones.map(({ id }) => byId.get(id)!);
              const shares = shareOut(
                draft.cores,
                own.map(({ area }) => area),
              );
              return own.map(({ id, name, geometry }, index) => ({
                id,
                bag: draft.key,
                name,
                outline: geometry,
                cores: shares[index]!,
                ...(draft.part ? { about: { places: draft.spots, reach, part: draft.part } } : {}),
              }));
            }),
      ...{ exclusions, lines, gate, design, seed },
      edge: edge ?? 0,
      clear: clear ?? 0,
    };
  }, [things, zones, wanted, edge, clear, reach, design, seed]);
  return { openZones, drafts, wanted, task };
}
