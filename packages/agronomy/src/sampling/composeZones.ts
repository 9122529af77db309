import type { Outline } from '../geometry/outline.ts';
import type { Position } from '../geometry/plane.ts';
import { type DrawnGeometry, type FeatureKind, isExclusion } from '../ground/features.ts';
import { type UnitSystem, present } from '../units/present.ts';
import type { LastTest, SampledZone } from './composites.ts';

type Maybe<T> = T | null | undefined;

/** A zone as it is recorded: what of it decides how it is sampled. */
export interface ZoneToSample extends Omit<
  SampledZone,
  'grass' | 'watering' | 'soil' | 'layers' | 'applied' | 'signs'
> {
  /** m² */
  readonly area: number;
  readonly grass?: Maybe<string>;
  readonly soilGroup?: Maybe<string>;
  /** By the logbook. */
  readonly applied: ReadonlyArray<{ readonly kind: string; readonly on: string }>;
  readonly last?: LastTest | undefined;
  readonly facts: {
    readonly mix?: Maybe<ReadonlyArray<{ readonly grass: string; readonly share: number }>>;
    readonly irrigation?: Maybe<string>;
    readonly layers?: Maybe<ReadonlyArray<{ readonly material: string; readonly depth: number }>>;
    /** With the place where each was marked. */
    readonly signs?: Maybe<ReadonlyArray<{ readonly sign: string; readonly at?: Maybe<readonly number[]> }>>;
  };
}

/** What of a zone decides whose soil it may be mixed with. */
export function sampledZone(zone: ZoneToSample, system: UnitSystem): SampledZone {
  const { id, name, grass, surface, intensity, shade, clippings, soilGroup, facts, applied, last } = zone;
  return {
    ...{ id, name, surface, intensity, shade, clippings },
    grass: facts.mix?.map((part) => `${part.grass} ${part.share} %`).join(', ') || (grass ?? 'garden bed'),
    watering: facts.irrigation ?? undefined,
    soil: soilGroup ?? undefined,
    layers: (facts.layers ?? []).map(({ material, depth }) => `${present('depth', depth, system).text} ${material}`),
    applied: applied.map(({ kind, on }) => `${kind} ${on}`),
    signs: (facts.signs ?? []).map(({ sign }) => sign),
    last,
  };
}

/** What of the plan must not be cored, and where the walk begins. */
export function aroundCores(
  features: ReadonlyArray<{ readonly kind: FeatureKind; readonly geometry: DrawnGeometry }>,
): {
  readonly exclusions: readonly Outline[];
  readonly lines: ReadonlyArray<readonly Position[]>;
  readonly gate: Position | null;
} {
  const gate = features.find(({ kind }) => kind === 'gate')?.geometry;
  return {
    exclusions: features.filter(({ kind }) => isExclusion(kind)).map(({ geometry }) => geometry as Outline),
    lines: features
      .filter(({ kind }) => kind === 'buried line' || kind === 'irrigation')
      .map(({ geometry }) => geometry.coordinates as unknown as readonly Position[]),
    gate: gate?.type === 'Point' ? [gate.coordinates[0]!, gate.coordinates[1]!] : null,
  };
}

/** Cores of a bag shared out over its zones by their areas, at least three to each. */
export function shareOut(cores: number, areas: readonly number[]): number[] {
  const whole = areas.reduce((sum, area) => sum + area, 0);
  const least = Math.min(3, Math.floor(cores / areas.length));
  const shares = areas.map((area) => Math.max(least, Math.floor((cores * area) / whole)));
  for (let index = 0; shares.reduce((sum, share) => sum + share, 0) < cores; index = (index + 1) % shares.length)
    shares[index]! += 1;
  while (shares.reduce((sum, share) => sum + share, 0) > cores) shares[shares.indexOf(Math.max(...shares))]! -= 1;
  return shares;
}
