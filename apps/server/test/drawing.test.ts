import {
  type DrawingAnswer,
  type DrawnThingsAnswer,
  type DrawingChangesInput,
  type ProblemAnswer,
  type ZoneAnswer,
  zoneInput,
} from '@glenfold/contract';
import { type Outline, Plane, areaOf, splitBy } from '@glenfold/agronomy/geometry';
import { demoEmails, signIn } from './harness.ts';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();
const plane = new Plane([-36.0034, 46.5012]);

function box(west: number, south: number, east: number, north: number): Extract<Outline, { type: 'Polygon' }> {
  const ring = (
    [
      [west, south],
      [east, south],
      [east, north],
      [west, north],
      [west, south],
    ] as const
  ).map((corner) => [...plane.toMap(corner)]);
  return { type: 'Polygon', coordinates: [ring] };
}

const facts = (zone: ZoneAnswer, name: string, label: string) => {
  const { grass, surface, intensity, shade, clippings, area } = zone;
  return { name, label, grass, surface, intensity, shade, clippings, area };
};

async function planPath(): Promise<string> {
  return `/sites/${(await siteOf('Gannet')).id}/drawing`;
}
const change = async <T = DrawingAnswer>(changes: object, status = 200): Promise<T> =>
  send<T>('post', await planPath(), changes satisfies Partial<DrawingChangesInput> | object, status);

it('a zone is split in one stroke: both parts or neither, and their areas make the whole', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const [larger, smaller] = splitBy(court.geometry as Outline, [plane.toMap([-5, 4]), plane.toMap([30, 4])]);
  const twin = { ...facts(court, 'South of the court', 'GR-2'), geometry: smaller };
  const outlines = [{ id: court.id, version: court.version, geometry: larger }];
  const refused = await change<ProblemAnswer>({ outlines, newZones: [twin] }, 422);
  expect(refused.errors[0]?.message).toMatch(/already has the bag label GR-2/);
  expect((await zoneOf('Gannet', 'GR-1')).version).toBe(court.version);

  const { zones } = await change({ outlines, newZones: [{ ...twin, label: 'GR-1b' }] });
  const [kept, added] = ['GR-1', 'GR-1b'].map((label) => zones.find((zone) => zone.label === label)!);
  expect(kept!.area + added!.area).toBeCloseTo(court.area, 0);
  expect(added!.area).toBeCloseTo(areaOf(smaller!), 0);

  // Undone: the part goes, the outline comes back.
  const undone = await change({
    outlines: [{ id: court.id, version: kept!.version, geometry: court.geometry }],
    remove: [{ what: 'zone', id: added!.id }],
  });
  expect(undone.zones.find(({ id }) => id === court.id)!.area).toBeCloseTo(court.area, 0);
  const redone = await change({ restore: [{ what: 'zone', id: added!.id }] });
  expect(redone.zones.some(({ id }) => id === added!.id)).toBe(true);
  await change({ remove: [{ what: 'zone', id: added!.id }] });
});

it('a bed that reaches over the border takes off what lies inside, and gives it back when it goes', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const bed = { kind: 'bed', name: 'Roses', geometry: box(-3, 2, 2, 5) };
  const added = await change({ newFeatures: [bed] });
  const areaIn = ({ zones }: DrawingAnswer): number => zones.find(({ id }) => id === court.id)!.area;
  expect(areaIn(added)).toBeCloseTo(court.area - 6, 0);
  const rose = added.features.find(({ name }) => name === 'Roses')!;
  const { siteId: _site, ...own } = rose;
  const grown = await change({ features: [{ ...own, geometry: box(-3, 2, 4, 5) }] });
  expect(areaIn(grown)).toBeCloseTo(court.area - 12, 0);
  const late = await change<ProblemAnswer>({ features: [{ ...own, name: 'Late' }] }, 409);
  expect(late.conflict?.current).toMatchObject({ name: 'Roses' });
  expect(areaIn(await change({ remove: [{ what: 'feature', id: rose.id }] }))).toBeCloseTo(court.area, 0);

  // A line or a tree takes nothing off; only a tree has a canopy.
  const tree = { kind: 'tree', geometry: { type: 'Point', coordinates: plane.toMap([9, 9]) }, canopyRadius: 4 };
  const tap = { ...tree, kind: 'tap' };
  const known = new Set((await get<DrawnThingsAnswer>(await planPath())).features.map(({ id }) => id));
  const { features: all, zones } = await change({ newFeatures: [tree, tap] });
  const features = all.filter(({ id }) => !known.has(id));
  expect(features.map(({ kind, canopyRadius }) => [kind, canopyRadius])).toEqual([
    ['tree', 4],
    ['tap', null],
  ]);
  expect(zones.find(({ id }) => id === court.id)!.area).toBeCloseTo(court.area, 1);
  await change({ remove: features.map(({ id }) => ({ what: 'feature', id })) });
});

it('what cannot be ground is refused in words, and nothing is kept', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const asItIs = async () => [await get<DrawnThingsAnswer>(await planPath()), await zoneOf('Gannet', 'GR-1')];
  const before = await asItIs();
  const told = async (changes: object, status = 422): Promise<string> =>
    JSON.stringify(await change<ProblemAnswer>(changes, status));
  const outline = (geometry: unknown) => ({ outlines: [{ id: court.id, version: court.version, geometry }] });
  const [a, b, c, d] = box(0, 0, 10, 10).coordinates[0]!;
  expect(await told(outline({ type: 'Polygon', coordinates: [[a, c, b, d, a]] }))).toMatch(/crosses or touches itself/);
  expect(await told(outline({ type: 'LineString', coordinates: [a, b] }))).toMatch(/wanted a GeoJSON Polygon/);
  expect(await told(outline({ type: 'Polygon', coordinates: [[[46.5, 136], b, c, a]] }))).toMatch(
    /within ±180 and ±90/,
  );
  expect(await told({ newFeatures: [{ kind: 'fence', geometry: box(0, 0, 1, 1) }] })).toMatch(
    /wanted a GeoJSON LineString/,
  );
  expect(await told({ newFeatures: [{ kind: 'moat', geometry: box(0, 0, 1, 1) }] })).toMatch(/choose one of bed/);
  expect(await told({ newFeatures: [{ kind: 'pond', geometry: box(-90, -90, 90, 90) }] })).toMatch(
    /would be left with 0 m² to treat/,
  );
  const school = await zoneOf('Harbour', 'HS-1');
  await change({ remove: [{ what: 'zone', id: school.id }] }, 404);
  await change({ outlines: [{ id: school.id, version: school.version, geometry: box(0, 0, 9, 9) }] }, 404);
  expect(await asItIs()).toEqual(before);
});

it('the area of a drawn zone is measured, never typed over; a technician only looks', async () => {
  const court = await zoneOf('Gannet', 'GR-1');
  const saved = await send<ZoneAnswer>('put', `/zones/${court.id}`, { ...zoneInput(court), area: 5 });
  expect(saved.area).toBe(court.area);
  const wynn = await signIn(server.current(), demoEmails.technician);
  expect((await wynn.ask('get', await planPath())).status).toBe(200);
  expect((await wynn.ask('post', await planPath(), {})).status).toBe(403);
});
