import { randomUUID } from 'node:crypto';
import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf6, today as fromVersion6 } from './version6.ts';

/** Files that an export of format 5 did not have: nothing was worked off or foretold. */
const since6: readonly string[] = ['jobs.json', 'entries.json', 'predictions.json', 'site-dates.json'];

export const tablesOf5: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf6
  .filter(({ file }) => !since6.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

interface Applied {
  readonly kind: string;
  readonly on: string;
  readonly words?: string;
  readonly rate?: number | null;
  readonly cce?: number | null;
}

const appliedIn = ({ facts }: Row): readonly Applied[] =>
  ((facts as { readonly applications?: readonly Applied[] } | null)?.applications ?? []).filter(
    ({ kind, on }) => typeof kind === 'string' && typeof on === 'string',
  );

const fresh = ({ practiceId }: Row): Row => ({
  ...{ id: randomUUID(), practiceId, createdAt: new Date().toISOString(), deletedAt: null, version: 1 },
});

/** What was put down before, of a zone, as entries of the book. */
function entriesOf(zone: Row): Row[] {
  const written = typeof zone.createdAt === 'string' ? Date.parse(zone.createdAt) : Date.now();
  return appliedIn(zone).map(({ kind, on, words, rate = null, cce = null }, index) => ({
    ...fresh(zone),
    ...{ siteId: zone.siteId, zoneId: zone.id, jobId: null, on, kind, state: 'done', words: words ?? kind },
    ...{ productId: null, material: null, quantity: null, quantityUnit: null, rate },
    ...{ unit: rate === null ? null : 'g/m2', area: null, cce, reason: null, doneBy: null, writtenBy: null, day: null },
    ...{ correctsId: null, notes: [], recordedAt: new Date(written + index).toISOString() },
  }));
}

const senses: Readonly<Record<string, string>> = {
  cm: 'layer',
  'mL/m2': 'liquidRate',
  mm: 'rainfall',
  'g/m2': 'productRate',
};

/** Jobs of what an owner has in hand, still to be dated. */
function jobsOf(tables: Tables): Row[] {
  const rows = (file: string): readonly Row[] => (tables.get(file) ?? []).filter(({ deletedAt }) => deletedAt === null);
  const programs = new Map(
    rows('programs.json')
      .filter(({ state }) => state === 'handed over')
      .map((one) => [one.id, one]),
  );
  const newest = new Map<unknown, Row>();
  for (const zone of rows('program-zones.json'))
    if ((zone.issuedAt as string) > ((newest.get(zone.zoneId)?.issuedAt as string | undefined) ?? ''))
      newest.set(zone.zoneId, zone);
  const areas = new Map((tables.get('zones.geojson') ?? []).map(({ id, area }) => [id, Number(area)]));
  const treatments = new Map(rows('treatments.json').map((one) => [one.id, one]));
  return rows('doses.json').flatMap((dose): Row[] => {
    const treatment = treatments.get(dose.treatmentId);
    const program = treatment && programs.get(treatment.programId);
    if (!treatment || !program || newest.get(treatment.zoneId)?.programId !== program.id) return [];
    const { zoneId, key, remedy, productId, unit } = treatment;
    const [rate, area] = [Number(dose.rate), areas.get(zoneId) ?? 0];
    const mass = unit === 'cm' ? (rate * area) / 100 : (rate * area) / 1000;
    const held = { cm: 'm3', 'mL/m2': 'L', 'g/m2': 'kg' }[String(unit)] ?? null;
    return [
      {
        ...fresh(dose),
        ...{ siteId: program.siteId, zoneId, programId: program.id, doseId: dose.id, key, remedy, name: remedy },
        ...{
          dose: 'application',
          position: dose.position,
          productId,
          rate: dose.rate,
          sense: senses[String(unit)] ?? 'count',
        },
        ...{ quantity: held ? mass : null, unit: held, cautions: [], from: dose.earliest, to: dose.latest, own: false },
        ...{ dated: false, earliest: null, latest: null, day: null, words: [], moved: false, movedBecause: null },
        ...{ hold: null, personId: null, machineId: null, state: 'open' },
      },
    ];
  });
}

/** Tables of format 5, in those of today. */
export const today = (tables: Tables): Tables => fromVersion6(asVersion6(tables));

/** What was put down moves from the zones into the book. */
function asVersion6(tables: Tables): Tables {
  const zones = tables.get('zones.geojson') ?? [];
  const without = ({ facts, ...zone }: Row): Row => {
    if (typeof facts !== 'object' || facts === null) return { ...zone, facts };
    const { applications: _applications, ...kept } = facts as Record<string, unknown>;
    return { ...zone, facts: kept };
  };
  return new Map([
    ...tables,
    ['zones.geojson', zones.map(without)],
    ['photos.json', (tables.get('photos.json') ?? []).map((row) => ({ entryId: null, ...row }))],
    ['jobs.json', jobsOf(tables)],
    ['entries.json', zones.flatMap(entriesOf)],
    ...since6.filter((file) => file !== 'jobs.json' && file !== 'entries.json').map((file) => [file, []] as const),
  ]);
}

/** An export of format 5, in the tables of today. */
export const readVersion5 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf5));
