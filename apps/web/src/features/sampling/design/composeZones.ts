import { type SampledZone, present, type UnitSystem } from '@glenfold/agronomy';
import type { GroundFeatureAnswer, ZoneAnswer } from '@glenfold/contract';
import type { Outline, Position } from '@glenfold/agronomy/geometry';
import { isExclusion } from '@glenfold/agronomy';

/** What of a zone decides whose soil it may be mixed with. */
export function sampledZone(zone: ZoneAnswer, system: UnitSystem): SampledZone {
  const { id, name, grass, surface, intensity, shade, clippings, soilGroup, facts } = zone;
  return {
    ...{ id, name, surface, intensity, shade, clippings },
    grass: facts.mix?.map((part) => `${part.grass} ${part.share} %`).join(', ') || grass,
    watering: facts.irrigation ?? undefined,
    soil: soilGroup ?? undefined,
    layers: (facts.layers ?? []).map(({ material, depth }) => `${present('depth', depth, system).text} ${material}`),
    applied: (facts.applications ?? []).map(({ kind, on }) => `${kind} ${on}`),
    signs: (facts.signs ?? []).map(({ sign }) => sign),
  };
}

/** What of the plan must not be cored, and where the walk begins. */
export function aroundCores(features: readonly GroundFeatureAnswer[]): {
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
