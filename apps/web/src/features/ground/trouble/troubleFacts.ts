import { drawnOf } from '../../../ui/results.ts';
import { type TroubleFacts, findGrass, swardOf } from '@glenfold/agronomy';
import {
  type Outline,
  GeometryError,
  type SpotHeight,
  contains,
  fallOf,
  surroundings,
} from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, LabResultAnswer, ZoneAnswer } from '@glenfold/contract';

/** m about a zone that still count as of it: levels are taken at its edge. */
const ABOUT = 2;

/** Spot heights in or just about a zone. */
export function spotsOf(zone: ZoneAnswer, { features }: Pick<DrawingAnswer, 'features'>): SpotHeight[] {
  const outline = zone.geometry as Outline | null;
  return features.flatMap(({ kind, geometry, height }) => {
    if (kind !== 'spot height' || height == null || geometry.type !== 'Point' || !outline) return [];
    const [longitude = 0, latitude = 0] = geometry.coordinates;
    const position = [longitude, latitude] as const;
    return contains(outline, position, ABOUT) ? [{ position, height }] : [];
  });
}

/** What the plan says; nothing where it cannot be read. */
function ofPlan(zone: ZoneAnswer, plan: DrawingAnswer): TroubleFacts {
  const outline = zone.geometry as Outline | null;
  if (!outline) return {};
  try {
    const spots = spotsOf(zone, plan);
    const fall = spots.length >= 3 ? fallOf(spots) : undefined;
    return {
      ...surroundings(outline, plan.features),
      ...(fall ? { slope: fall.slope } : {}),
      ...(fall?.tellsHollows ? { hollow: fall.hollows[0]?.depth ?? 0 } : {}),
    };
  } catch (error) {
    if (error instanceof GeometryError) return {};
    throw error;
  }
}

const MONTH = 30.4 * 86_400_000;

/** Months since a zone was last fed, as far as it is remembered. */
function monthsSinceFed({ applications }: ZoneAnswer['facts'], today: Date): number | undefined {
  const fed = (applications ?? []).filter(({ kind }) => kind === 'fertilizer').map(({ on }) => on);
  const last = fed.sort().at(-1);
  // A bare year counts from its middle, a month from its middle.
  const day = last && `${last}${last.length === 4 ? '-07-01' : last.length === 7 ? '-15' : ''}`;
  return day ? Math.max(0, (today.getTime() - Date.parse(day)) / MONTH) : undefined;
}

/** Whether a slope faces the sun, by the side of the equator that the zone lies on. */
function towardSun(zone: ZoneAnswer): TroubleFacts['aspect'] {
  const { aspect } = zone.facts;
  if (!aspect) return undefined;
  const [, latitude = 45] = zone.geometry?.coordinates.flat(3) ?? [];
  const [sunny, shady] = latitude < 0 ? ['north', 'south'] : ['south', 'north'];
  return aspect.startsWith(sunny) ? 'toward the sun' : aspect.startsWith(shady) ? 'away from the sun' : 'across';
}

const depthOf = ({ layers }: ZoneAnswer['facts'], materials: readonly string[]): number | undefined =>
  layers?.reduce((sum, { material, depth }) => sum + (materials.includes(material) ? depth : 0), 0);

/** All that is known of a zone that speaks for or against a cause of trouble. */
export function troubleFacts(
  zone: ZoneAnswer,
  result: LabResultAnswer | undefined,
  plan: DrawingAnswer,
  today: Date,
): TroubleFacts {
  const { facts } = zone;
  const grass = findGrass(zone.grass);
  const tested = result && drawnOf(result);
  const ph = tested?.ph;
  const [low, high] = swardOf({ grass: zone.grass, mix: facts.mix ?? undefined }, tested?.organicMatter).ph;
  const known: TroubleFacts = {
    ...ofPlan(zone, plan),
    ...(facts.slope == null ? {} : { slope: facts.slope }),
    sunShort: facts.sunHours == null ? undefined : grass.leastSun - facts.sunHours,
    thatch: zone.thatch ?? undefined,
    rootDepth: zone.rootDepth ?? undefined,
    probeStop: zone.probeStop ?? undefined,
    ph,
    phBelow: ph === undefined ? undefined : low - ph,
    phAbove: ph === undefined ? undefined : ph - high,
    organicMatter: tested?.organicMatter,
    fillDepth: depthOf(facts, ['fill soil', 'subsoil', 'gravel']),
    sandDepth: depthOf(facts, ['sand', 'sand and compost rootzone']),
    lastFedMonths: monthsSinceFed(facts, today),
    shade: zone.shade,
    irrigation: facts.irrigation ?? undefined,
    use: facts.use ?? undefined,
    air: facts.air ?? undefined,
    surface: zone.surface,
    soilGroup: zone.soilGroup ?? undefined,
    drySpell: facts.drySpell ?? undefined,
    aspect: towardSun(zone),
    clippings: zone.clippings,
    seaside: facts.seaside == null ? undefined : facts.seaside ? 'yes' : 'no',
  };
  return known;
}
