import { grouped } from '../platform/grouped.ts';
import type { Row } from './formats.ts';
import type { Tables } from './readTables.ts';

const alive = ({ deletedAt }: Row): boolean => deletedAt === null;
const isApart = ({ apart }: Row): boolean => apart === true || apart === 'true';
const byAge = (one: Row, other: Row): number =>
  String(one.createdAt).localeCompare(String(other.createdAt)) || String(one.id).localeCompare(String(other.id));

/**
 * Tables as the database takes them now: a bag has one sample, a sample one line of results, a laboratory's number one
 * bag. Exports from before two could come at the same moment are put in line, as their database was when it was brought
 * up to date.
 */
export function oneOfEach(tables: Tables): Tables {
  const samples = tables.get('samples.csv') ?? [];
  const shared = grouped((tables.get('sample-zones.csv') ?? []).filter(alive), ({ sampleId }) => sampleId);
  const zonesOf = (id: unknown): unknown[] => (shared.get(id) ?? []).map(({ zoneId }) => zoneId);
  const kept = new Map<unknown, unknown>();
  const apart = new Set<unknown>();
  for (const [bagId, own] of grouped(samples.filter((row) => alive(row) && !isApart(row)), ({ bagId }) => bagId)) {
    const [first, ...others] = [...own].sort(byAge);
    if (bagId === null) continue;
    const zones = zonesOf(first!.id);
    for (const { id } of others) {
      const its = zonesOf(id);
      // Copies for other zones of the bag, which somebody corrected apart, stay apart.
      if (its.length > 0 && !its.some((zoneId) => zones.includes(zoneId))) apart.add(id);
      else kept.set(id, first!.id);
    }
  }
  const moved = (row: Row): Row => (kept.has(row.sampleId) ? { ...row, sampleId: kept.get(row.sampleId) } : row);
  const gone = (row: Row): Row => ({ ...row, deletedAt: row.deletedAt ?? row.createdAt });
  return new Map([
    ...tables,
    ['samples.csv', samples.map((row) => (kept.has(row.id) ? gone(row) : apart.has(row.id) ? { ...row, apart: true } : row))],
    ['sample-zones.csv', (tables.get('sample-zones.csv') ?? []).map((row) => (kept.has(row.sampleId) ? gone(row) : row))],
    ['measurements.csv', (tables.get('measurements.csv') ?? []).map(moved)],
    ['lab-results.csv', inLine((tables.get('lab-results.csv') ?? []).map(moved))],
    ['bags.json', numbered(tables.get('bags.json') ?? [])],
  ]);
} // prettier-ignore

/** Results of which each takes the place of the one before it, and no two of the same. */
function inLine(results: readonly Row[]): Row[] {
  const before = new Map<unknown, unknown>(results.map(({ id, supersedesId }) => [id, supersedesId]));
  const living = results.filter(alive).sort(byAge);
  const nextOf = (id: unknown): Row | undefined => living.find((row) => before.get(row.id) === id);
  const lastOf = (id: unknown): unknown => {
    const next = nextOf(id);
    return next ? lastOf(next.id) : id;
  };
  const follow = (twins: readonly Row[]): void => {
    for (const extra of twins.slice(1)) before.set(extra.id, lastOf(twins[0]!.id));
  };
  for (const [id, twins] of grouped(living, (row) => before.get(row.id))) if (id !== null) follow(twins);
  for (const [, twins] of grouped(living.filter((row) => before.get(row.id) === null), ({ sampleId }) => sampleId)) follow(twins);
  return results.map((row) => ({ ...row, supersedesId: before.get(row.id) }));
} // prettier-ignore

/** Bags of which no two have the same number: the later ones keep it with a mark. */
function numbered(bags: readonly Row[]): Row[] {
  const told = new Map<unknown, string>();
  const own = bags.filter((bag) => alive(bag) && bag.labNumber !== null && bag.labNumber !== undefined);
  for (const [number, twins] of grouped(own, ({ labNumber }) => labNumber))
    for (const [index, { id }] of [...twins].sort(byAge).slice(1).entries())
      told.set(id, `${String(number)} (${index + 2})`);
  return bags.map((bag) => (told.has(bag.id) ? { ...bag, labNumber: told.get(bag.id) } : bag));
}
