import { type PointDesign, type SampledZone, proposeComposites, samplingTables, usualCores } from '@glenfold/agronomy';
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
  readonly design: PointDesign;
  readonly depth: number | string | null;
  readonly probe: number | string | null;
  readonly edge: number | string | null;
  readonly clear: number | string | null;
  readonly day: string;
  readonly soil: (typeof soils)[number];
  readonly seed: number;
}

export const first: Settings = {
  question: samplingTables.questions[0]!.name,
  purpose: 'routine',
  design: 'coverage',
  depth: 10.16,
  probe: 1.905,
  edge: 0.9144,
  clear: 0.9144,
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
}

interface DraftChoices {
  /** Every zone a bag of its own. */
  readonly alone: boolean;
  /** Keys of the drafts that are not sampled now. */
  readonly left: ReadonlySet<string>;
  readonly ownCores: ReadonlyMap<string, number>;
}

interface DraftedSite {
  readonly zones: readonly ZoneAnswer[];
  readonly things: GroundThingsAnswer | undefined;
  readonly bags: readonly BagAnswer[] | undefined;
}

/** The bags that are proposed for the zones without one, and the task of placing their cores. */
export function useDrafts({ zones, things, bags }: DraftedSite, settings: Settings, choices: DraftChoices) {
  const { system } = useUnits();
  const { alone, left, ownCores } = choices;
  const { design, seed } = settings;
  const edge = amount(settings.edge);
  const clear = amount(settings.clear);
  const openZones = useMemo(() => {
    const busy = new Set((bags ?? []).filter(({ state }) => state === 'planned').flatMap(({ zoneIds }) => zoneIds));
    return zones.filter(({ id }) => !busy.has(id));
  }, [zones, bags]);
  const drafts = useMemo((): Draft[] => {
    const sampled = openZones.map((zone) => sampledZone(zone, system));
    const composites = alone
      ? sampled.map((zone) => ({ zones: [zone], why: 'A bag of its own, as you chose.' }))
      : proposeComposites(sampled);
    return composites.map((composite) => {
      const key = composite.zones.map(({ id }) => id).join();
      const area = openZones.filter(({ id }) => key.includes(id)).reduce((sum, zone) => sum + zone.area, 0);
      return { ...composite, key, cores: ownCores.get(key) ?? usualCores(area) };
    });
  }, [openZones, alone, ownCores, system]);
  const wanted = useMemo(() => drafts.filter(({ key }) => !left.has(key)), [drafts, left]);

  const task = useMemo((): DesignTask => {
    const { exclusions, lines, gate } = aroundCores(things?.features ?? []);
    const byId = new Map(zones.map((zone) => [zone.id, zone]));
    return {
      zones:
        things === undefined || edge === undefined || clear === undefined
          ? []
          : wanted.flatMap((draft) => {
              const own = draft.zones.map(({ id }) => byId.get(id)!);
              const shares = shareOut(
                draft.cores,
                own.map(({ area }) => area),
              );
              return own.map(({ id, name, geometry }, index) => ({
                id,
                name,
                outline: geometry,
                cores: shares[index]!,
              }));
            }),
      ...{ exclusions, lines, gate, design, seed },
      edge: edge ?? 0,
      clear: clear ?? 0,
    };
  }, [things, zones, wanted, edge, clear, design, seed]);
  return { openZones, drafts, wanted, task };
}
