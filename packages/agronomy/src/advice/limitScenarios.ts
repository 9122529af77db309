import { readReport } from './report.ts';
import type { Evidence } from '../evidence/facts.ts';
import { type RecordedZone, zoneEvidence } from '../evidence/zoneEvidence.ts';
import { type RankedLimit } from '../readings/ranked.ts';
import { type ZoneReading, zoneReading } from '../readings/zoneReading.ts';

/** A lawn as somebody described it, with what must limit it and in which order. */
export interface LimitScenario {
  readonly name: string;
  /** As for an advice. */
  readonly input: Readonly<Record<string, unknown>>;
  /** Of the zone, that no advice asks for: use, dry spell, layers of fill. */
  readonly facts?: RecordedZone['facts'];
  readonly drawn?: Partial<Pick<Evidence, 'canopy' | 'paved' | 'slope' | 'hollow'>>;
  readonly expect: {
    /** The first of the list, "drainage severe measured": as much of each as is given. */
    readonly order?: readonly string[];
    /** The whole list and nothing more, where that matters. */
    readonly only?: readonly string[];
    readonly never?: readonly string[];
    /** What comes before the cure of a limit. */
    readonly after?: Readonly<Record<string, readonly string[]>>;
    /** What a sign points at and does not stand. */
    readonly setAside?: readonly string[];
    /** Patterns that some sentence of what it is and its evidence fits, and none fits. */
    readonly says?: readonly string[];
    readonly neverSays?: readonly string[];
  };
}

export interface LimitScenarioFile {
  readonly source: string;
  readonly scenarios: readonly LimitScenario[];
}

/** The reading of a scenario. @throws {InputError} for one that cannot be understood */
export function readScenario({ input, facts = {}, drawn = {} }: LimitScenario): ZoneReading {
  const { zone, test, settings, system, on } = readReport(input);
  const { use, sunHours, slope, seaside, irrigation } = { ...zone, ...facts };
  const known = {
    ...zone,
    use: use ?? undefined,
    sunHours: sunHours ?? undefined,
    slope: slope ?? undefined,
    seaside: seaside ?? undefined,
    irrigation: irrigation ?? undefined,
  };
  const { measured = {} } = zone;
  const value = (number: number | undefined) => (number === undefined ? undefined : { value: number });
  const evidence = zoneEvidence(
    {
      ...{ grass: zone.grass, surface: zone.surface, shade: zone.shade, clippings: zone.clippings },
      ...{ soilGroup: zone.soilGroup, thatch: measured.thatch, rootDepth: measured.rootDepth },
      probeStop: measured.probeStop,
      measured: {
        percolationSlowest: value(measured.percolationSlowest),
        percolationOverall: value(measured.percolationOverall),
        waterDrop: value(measured.waterDrop),
      },
      applied: zone.applied ?? [],
      facts: { ...facts, sunHours, slope, seaside, irrigation: facts.irrigation },
    },
    { values: test?.values, drawn, today: on },
  );
  return zoneReading({
    ...{ zone: known, test, settings, system, evidence, values: [], today: on },
    taken: test ? { on: test.sampledOn ?? on, depth: test.depth, cores: 15 } : undefined,
  });
}

const told = ({ key, degree, standing }: RankedLimit): string => `${key} ${degree} ${standing}`;
/** "drainage", "drainage severe" or "drainage severe measured" of a limit. */
const fits = (limit: RankedLimit | undefined, wanted: string): boolean => {
  if (!limit) return false;
  const { key, degree, standing } = limit;
  return [key, `${key} ${degree}`, `${key} ${degree} ${standing}`].includes(wanted);
};

/** What of a scenario does not come out as it must; nothing where all does. */
export function limitFaults(scenario: LimitScenario): string[] {
  const { ranked, reading } = readScenario(scenario);
  const { limits, setAside } = ranked;
  const { order = [], only, never = [], after = {}, setAside: aside = [], says = [], neverSays = [] } = scenario.expect;
  const list = limits.map(told).join(', ') || 'nothing';
  const sentences = [reading.headline, ...limits.flatMap(({ what, evidence }) => [what, evidence])];
  return [
    ...order.flatMap((wanted, index) =>
      fits(limits[index], wanted) ? [] : [`number ${index + 1} is not ${wanted} in: ${list}`],
    ),
    ...(only && (only.length !== limits.length || only.some((wanted, index) => !fits(limits[index], wanted)))
      ? [`the list is ${list}; wanted only ${only.join(', ') || 'nothing'}`]
      : []),
    ...never.flatMap((name) => (limits.some((limit) => fits(limit, name)) ? [`${name} stands in: ${list}`] : [])),
    ...Object.entries(after).flatMap(([key, labels]) => {
      const found = limits.find((limit) => limit.key === key)?.after;
      return JSON.stringify([...(found ?? [])].sort()) === JSON.stringify([...labels].sort())
        ? []
        : [`before ${key} comes ${found?.join(', ') ?? 'what is not listed'}; wanted ${labels.join(', ')}`];
    }),
    ...aside.flatMap((label) => (setAside.some((one) => one.label === label) ? [] : [`${label} is not set aside`])),
    ...says.flatMap((pattern) =>
      sentences.some((words) => new RegExp(pattern, 'i').test(words)) ? [] : [`nothing says ${pattern}`],
    ),
    ...neverSays.flatMap((pattern) => {
      const said = sentences.find((words) => new RegExp(pattern, 'i').test(words));
      return said ? [`says: ${said}`] : [];
    }),
  ];
}
