import type {
  NewZone,
  GroundFeatureAnswer,
  GroundFeatureInput,
  DrawingAnswer,
  DrawingChangesInput,
  DrawnRecord,
  ZoneGeometry,
} from '@glenfold/contract';

type Versions = ReadonlyMap<string, number>;

/** A zone's outline before and after; a zone that was not drawn had the area that was typed. */
interface Redrawn {
  readonly id: string;
  readonly from: ZoneGeometry | null;
  readonly to: ZoneGeometry;
  readonly typedArea: number;
}

interface Changed {
  readonly id: string;
  readonly from: GroundFeatureInput;
  readonly to: GroundFeatureInput;
}

/** What one stroke of the pen does, and with it how it is undone. */
export interface Stroke {
  /** "Split North lawn". */
  readonly name: string;
  readonly redrawn?: readonly Redrawn[];
  readonly changed?: readonly Changed[];
  readonly newZones?: readonly NewZone[];
  readonly newFeatures?: readonly GroundFeatureInput[];
  readonly removed?: readonly DrawnRecord[];
}

/** A stroke that was made: what it added has ids now. */
export interface MadeStroke extends Stroke {
  readonly added: readonly DrawnRecord[];
}

/** What of a thing on the ground can be changed. */
export function inputOf(feature: GroundFeatureAnswer): GroundFeatureInput {
  const { kind, name = null, geometry, canopyRadius = null, height = null, properties = null } = feature;
  return { kind, name, geometry, canopyRadius, height, properties };
}

function versionsIn({ zones, features }: DrawingAnswer): Versions {
  return new Map([...zones, ...features].map(({ id, version }) => [id, version]));
}

/** A record that is gone has no version: the server says so. */
const seen = (versions: Versions, id: string) => ({ id, version: versions.get(id) ?? 0 });

/** The stroke as changes of the plan as it stands. */
export function forward(stroke: Stroke, plan: DrawingAnswer): DrawingChangesInput {
  const { redrawn = [], changed = [], newZones = [], newFeatures = [], removed = [] } = stroke;
  const versions = versionsIn(plan);
  return {
    outlines: redrawn.map(({ id, to }) => ({ ...seen(versions, id), geometry: to })),
    features: changed.map(({ id, to }) => ({ ...seen(versions, id), ...to })),
    newZones: [...newZones],
    newFeatures: [...newFeatures],
    remove: [...removed],
  };
}

/** Whether what a stroke changed stands as it left it: somebody else's later change is not undone along with it. */
export function stillAsMade({ redrawn = [], changed = [] }: Stroke, { zones, features }: DrawingAnswer): boolean {
  const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
  const keeps = (feature: GroundFeatureAnswer, to: GroundFeatureInput): boolean =>
    Object.entries(inputOf(feature)).every(([name, value]) =>
      same(value, to[name as keyof GroundFeatureInput] ?? null),
    );
  return (
    redrawn.every(({ id, to }) => zones.some((zone) => zone.id === id && same(zone.geometry, to))) &&
    changed.every(({ id, to }) => features.some((feature) => feature.id === id && keeps(feature, to)))
  );
}

/** What undoes a stroke. */
export function back(
  { redrawn = [], changed = [], removed = [], added }: MadeStroke,
  plan: DrawingAnswer,
): DrawingChangesInput {
  const versions = versionsIn(plan);
  return {
    outlines: redrawn.map(({ id, from, typedArea }) => ({
      ...seen(versions, id),
      geometry: from,
      ...(from ? {} : { area: typedArea }),
    })),
    features: changed.map(({ id, from }) => ({ ...seen(versions, id), ...from })),
    remove: [...added],
    restore: [...removed],
  };
}

/** What makes an undone stroke again: what it had added comes back instead of being added twice. */
export function again(stroke: MadeStroke, plan: DrawingAnswer): DrawingChangesInput {
  return { ...forward({ ...stroke, newZones: [], newFeatures: [] }, plan), restore: [...stroke.added] };
}

/** The stroke with the ids of what it added. */
export function made(stroke: Stroke, before: DrawingAnswer, after: DrawingAnswer): MadeStroke {
  const known = versionsIn(before);
  const fresh = (what: DrawnRecord['what'], records: ReadonlyArray<{ readonly id: string }>): DrawnRecord[] =>
    records.flatMap(({ id }) => (known.has(id) ? [] : [{ what, id }]));
  return { ...stroke, added: [...fresh('zone', after.zones), ...fresh('feature', after.features)] };
}
