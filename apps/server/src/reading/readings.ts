import {
  type BesideRow,
  type RecordedZone,
  type UnitSystem,
  type ZoneReading,
  type ZoneToRead,
  besideOf,
  zoneEvidence,
  zoneReading,
} from '@glenfold/agronomy';
import { type GroundThing, type Outline, drawnFacts } from '@glenfold/agronomy/geometry';
import { threaded } from '../platform/threaded.ts';

/** A zone as it is read: what was recorded, measured and drawn of it. */
export interface ZoneGround {
  readonly zoneId: string;
  readonly outline: Outline | null;
  readonly recorded: RecordedZone;
  readonly read: Omit<ZoneToRead, 'evidence' | 'system' | 'today'>;
}

/** What is the same for all zones of a site. */
export interface SiteGround {
  readonly things: readonly GroundThing[];
  /** Degrees north; nothing where nobody knows. */
  readonly latitude: number | undefined;
  readonly system: UnitSystem;
  /** The day there, ISO 8601. */
  readonly today: string;
}

/** cm of standing water from which the ground is a hollow, and % of fall below which it is flat. */
const HOLLOW = 2;
const FLAT = 1;

/** The whole reading of a zone. */
export function readGround({ outline, recorded, read }: ZoneGround, site: SiteGround): ZoneReading {
  const { things, latitude, system, today } = site;
  const drawn = drawnFacts(outline, things);
  const slope = read.zone.slope ?? drawn.slope;
  const lie =
    (drawn.hollow ?? 0) > HOLLOW ? 'hollow' : slope !== undefined && slope < FLAT ? ('flat' as const) : undefined;
  const evidence = zoneEvidence(recorded, { values: read.test?.values, drawn, latitude, today });
  const zone = { ...read.zone, slope, lie: read.zone.lie ?? lie };
  return zoneReading({ ...read, zone, evidence, system, today });
}

/** What of a zone is shown beside the others. */
export interface BesideReading {
  readonly zoneId: string;
  readonly limits: ZoneReading['ranked']['limits'];
  readonly doubts: readonly string[];
}

/** All zones of a site read and laid side by side. */
export const siteReadings = threaded(
  import.meta.url,
  'siteReadings',
  (
    zones: readonly ZoneGround[],
    site: SiteGround,
    against: string | undefined,
  ): { readonly zones: BesideReading[]; readonly rows: BesideRow[] } => {
    const read = zones.map((zone) => ({ zone, reading: readGround(zone, site) }));
    const rows = besideOf(
      read.map(({ zone, reading }) => ({
        ...{ zoneId: zone.zoneId, lines: reading.lines, cores: zone.read.taken?.cores },
      })),
      site.system,
      against,
    );
    return {
      zones: read.map(({ zone: { zoneId }, reading: { ranked, weight } }) => ({
        ...{ zoneId, limits: ranked.limits, doubts: weight.why },
      })),
      rows,
    };
  },
);
