import {
  type DraftChoices,
  type LastTest,
  type PointDesign,
  aroundCores,
  coresToFill,
  draftsOf,
  inOwnUnit,
  isNumber,
  sampledZone,
  samplingTables,
  soilOf,
  toAsk,
  shareOut,
} from '@glenfold/agronomy';
import type { DesignTask } from '@glenfold/agronomy/sampling';
import type { BagAnswer, DrawnThingsAnswer, LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { useMemo } from 'react';
import { useUnits } from '../../../ui/units.tsx';

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

const first: Settings = {
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
  day: '',
  soil: 'not looked at yet',
  seed: 1,
};
/** What a site begins with: its own today, at the depth of the last test. */
export const firstSettings = (depth: number | undefined, today: string): Settings => ({
  ...first,
  day: today,
  depth: depth ?? first.depth,
});
/** An amount that can be worked with; text that is no number is none. */
export const amount = (value: number | string | null): number | undefined =>
  typeof value === 'number' ? value : undefined;

/** What is to be corrected in an amount that cannot be worked with. @param such how it is written */
export function wrongWith(value: number | string | null, such: string): string | undefined {
  if (typeof value === 'number') return undefined;
  return value ? `“${value}” is no length: write ${such}.` : `Give it, such as ${such}.`;
}

interface DraftedSite {
  readonly zones: readonly ZoneAnswer[];
  readonly things: DrawnThingsAnswer | undefined;
  readonly bags: readonly BagAnswer[] | undefined;
  /** Results of the site, the newest first. */
  readonly results: readonly LabResultAnswer[];
}

/** The newest result of each zone. */
const lastOf = (results: readonly LabResultAnswer[], zoneId: string): LabResultAnswer | undefined =>
  results.find(({ zoneIds, supersededById }) => supersededById === null && zoneIds.includes(zoneId));

/** The depth at which most lawns were sampled last: a bed’s own is not taken for all. Nothing without a test. */
export function usualDepth(zones: readonly ZoneAnswer[], results: readonly LabResultAnswer[]): number | undefined {
  const lawns = zones.filter(({ surface }) => surface !== 'garden bed');
  const depths = (lawns.length > 0 ? lawns : zones).flatMap(({ id }) => lastOf(results, id)?.depth ?? []);
  const times = (depth: number): number => depths.filter((other) => other === depth).length;
  return [...depths].sort((one, other) => times(other) - times(one))[0];
}

/** What the last test of a zone says of whom it may share a bag with. */
function lastTest(result: LabResultAnswer | undefined): LastTest | undefined {
  if (!result) return undefined;
  const { soilPh, p, k } = result.values;
  const mg = (analyte: 'p' | 'k', value: typeof p): number | undefined =>
    value && isNumber(value) ? inOwnUnit(analyte, value).value : undefined;
  return { soilPh: soilPh?.value, extractant: result.extractant, p: mg('p', p), k: mg('k', k) };
}

/** The bags that are proposed for the zones without one, and the task of placing their cores. */
/** @param bagVolume mL that the laboratory's bag wants: no fewer cores are proposed than fill it. */
export function useDrafts(
  { zones, things, bags, results }: DraftedSite,
  settings: Settings,
  choices: DraftChoices,
  bagVolume: number,
) {
  const { system } = useUnits();
  const { design, seed, purpose } = settings;
  const [edge, clear, reach] = [settings.edge, settings.clear, settings.reach].map(amount);
  const openZones = useMemo(() => {
    const busy = new Set((bags ?? []).filter(({ state }) => state === 'planned').flatMap(({ zoneIds }) => zoneIds));
    return zones.filter(({ id }) => !busy.has(id));
  }, [zones, bags]);
  const [probe, depth] = [settings.probe, settings.depth].map(amount);
  const least = probe && depth ? coresToFill(bagVolume, probe, depth) : 0;
  const sampled = useMemo(
    () =>
      openZones.map((zone) => ({
        ...zone,
        soilGroup: soilOf(zone)?.group ?? null,
        last: lastTest(lastOf(results, zone.id)),
      })),
    [openZones, results],
  );
  const asks = useMemo(() => toAsk(sampled.map((zone) => sampledZone(zone, system))), [sampled, system]);
  const drafts = useMemo(
    () => draftsOf(sampled, choices, purpose, system, least),
    [sampled, choices, purpose, system, least],
  );
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
  return { openZones, asks, drafts, wanted, task };
}
