import type { ReportedValues } from '../analytes/reported.ts';
import { findGrass } from '../nutrients/grasses.ts';
import { type Part, swardOf } from '../nutrients/sward.ts';
import { pasteEc } from '../reading/salt.ts';
import { organicMatterIn, saltIn, waterPh } from '../reading/soilTest.ts';
import { dropOf } from '../soil/percolation.ts';
import type { SoilGroup } from '../soil/soilGroups.ts';
import { soilOf } from '../soil/soilOf.ts';
import type { Evidence } from './facts.ts';

type Maybe<T> = T | null | undefined;

/** A zone as it is recorded: what of it is evidence. Lengths cm, slope %, sun in hours. */
export interface RecordedZone {
  readonly grass?: Maybe<string>;
  readonly surface: 'turf' | 'fine turf' | 'seedbed' | 'garden bed';
  readonly shade: NonNullable<Evidence['shade']>;
  readonly clippings: NonNullable<Evidence['clippings']>;
  readonly soilGroup?: Maybe<SoilGroup>;
  readonly thatch?: Maybe<number>;
  readonly rootDepth?: Maybe<number>;
  readonly probeStop?: Maybe<number>;
  /** mm/h and s, by a test hole and a drop of water. */
  readonly measured?: Maybe<
    Readonly<
      Partial<
        Record<
          'percolationSlowest' | 'percolationOverall' | 'waterDrop' | 'sand' | 'silt' | 'clay',
          Maybe<{ readonly value: number }>
        >
      >
    >
  >;
  /** By the logbook, with a day, a month or a year. */
  readonly applied: ReadonlyArray<{ readonly kind: string; readonly on: string }>;
  readonly facts: {
    readonly mix?: Maybe<readonly Part[]>;
    readonly sunHours?: Maybe<number>;
    readonly slope?: Maybe<number>;
    /** Compass point it faces, such as `south-east`. */
    readonly aspect?: Maybe<string>;
    readonly irrigation?: Maybe<NonNullable<Evidence['irrigation']>>;
    readonly use?: Maybe<NonNullable<Evidence['use']>>;
    readonly air?: Maybe<NonNullable<Evidence['air']>>;
    readonly drySpell?: Maybe<NonNullable<Evidence['drySpell']>>;
    readonly seaside?: Maybe<boolean>;
    readonly layers?: Maybe<ReadonlyArray<{ readonly material: string; readonly depth: number }>>;
  };
}

/** What else a zone is judged by. */
export interface EvidenceSources {
  /** Of the test that its rates rest on. */
  readonly values?: ReportedValues | undefined;
  /** What the drawing says of it. */
  readonly drawn?: Pick<Evidence, 'canopy' | 'paved' | 'slope' | 'hollow'>;
  /** Where it lies, degrees north; the northern side of the equator where nobody knows. */
  readonly latitude?: number | undefined;
  /** The day there, ISO 8601. */
  readonly today: string;
}

const MONTH = 30.4 * 86_400_000;

/** Months since a zone was last fed, as far as it is remembered. */
function monthsSinceFed({ applied }: RecordedZone, today: string): number | undefined {
  const fed = applied.filter(({ kind }) => kind === 'fertilizer').map(({ on }) => on);
  const last = fed.sort().at(-1);
  // A bare year counts from its middle, a month from its middle.
  const day = last && `${last}${last.length === 4 ? '-07-01' : last.length === 7 ? '-15' : ''}`;
  return day ? Math.max(0, (Date.parse(today) - Date.parse(day)) / MONTH) : undefined;
}

/** Whether a slope faces the sun, by the side of the equator that the zone lies on. */
function towardSun({ aspect }: RecordedZone['facts'], latitude: number): Evidence['aspect'] {
  if (!aspect) return undefined;
  const [sunny, shady] = latitude < 0 ? ['north', 'south'] : ['south', 'north'];
  return aspect.startsWith(sunny) ? 'toward the sun' : aspect.startsWith(shady) ? 'away from the sun' : 'across';
}

const depthOf = ({ layers }: RecordedZone['facts'], materials: readonly string[]): number | undefined =>
  layers?.reduce((sum, { material, depth }) => sum + (materials.includes(material) ? depth : 0), 0);

/** What counts as fill: gravel under a root zone of sand is a drain that was built, and none. */
const fills = ({ layers }: RecordedZone['facts']): readonly string[] =>
  layers?.some(({ material }) => material === 'sand' || material === 'sand and compost rootzone')
    ? ['fill soil', 'subsoil']
    : ['fill soil', 'subsoil', 'gravel'];

/** All that is known of a zone, for every rule that asks; nothing that is not known. */
export function zoneEvidence(zone: RecordedZone, sources: EvidenceSources): Evidence {
  const { facts } = zone;
  const { values, drawn = {}, latitude = 45, today } = sources;
  const soilGroup = soilOf({ soilGroup: zone.soilGroup, measured: zone.measured ?? {} })?.group;
  const grass = zone.grass ? findGrass(zone.grass) : undefined;
  const ph = values && waterPh(values);
  const organicMatter = values && organicMatterIn(values);
  const sward = swardOf({ grass: zone.grass, mix: facts.mix ?? undefined }, organicMatter);
  const [low, high] = sward.ph;
  const { percolationSlowest: slowest, percolationOverall: overall, waterDrop } = zone.measured ?? {};
  const paste = values && pasteEc(saltIn(values), soilGroup);
  return {
    ...drawn,
    ...(facts.slope == null ? {} : { slope: facts.slope }),
    sunShort: facts.sunHours == null || !grass ? undefined : grass.leastSun - facts.sunHours,
    thatch: zone.thatch ?? undefined,
    rootDepth: zone.rootDepth ?? undefined,
    probeStop: zone.probeStop ?? undefined,
    drop: slowest ? dropOf(slowest.value) : overall?.value,
    waterDrop: waterDrop?.value,
    ph,
    phBelow: ph === undefined ? undefined : low - ph,
    phAbove: ph === undefined ? undefined : ph - high,
    organicMatter,
    saltiness: paste && sward.main ? paste.value - sward.salt[0] : undefined,
    fillDepth: depthOf(facts, fills(facts)),
    sandDepth: depthOf(facts, ['sand', 'sand and compost rootzone']),
    lastFedMonths: monthsSinceFed(zone, today),
    shade: zone.shade,
    irrigation: facts.irrigation ?? undefined,
    use: facts.use ?? undefined,
    air: facts.air ?? undefined,
    surface: zone.surface === 'garden bed' ? 'seedbed' : zone.surface,
    soilGroup,
    drySpell: facts.drySpell ?? undefined,
    aspect: towardSun(facts, latitude),
    clippings: zone.clippings,
    seaside: facts.seaside == null ? undefined : facts.seaside ? 'yes' : 'no',
  };
}
