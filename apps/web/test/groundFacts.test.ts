import { type Outline, Plane, type PlanePoint, areaOf, spotHeightsOf } from '@glenfold/agronomy/geometry';
import type { GroundFeatureAnswer, DrawingAnswer, ZoneAnswer } from '@glenfold/contract';
import fc from 'fast-check';
import { readPlanFile } from '../src/features/ground/files/readFile.ts';
import { writePlan } from '../src/features/ground/files/writeFile.ts';
import { sectionDress } from '../src/features/ground/sections/Sections.tsx';
import { evidenceOn } from '../src/features/ground/trouble/evidenceOn.ts';
import { printed, resultWith } from './scene.ts';
import { apartBy } from '../src/ui/apartBy.ts';

const near = [-36, 46.5] as const;
const plane = new Plane(near);
const ringOf = (corners: readonly PlanePoint[]): number[][] =>
  [...corners, corners[0]!].map((corner) => [...plane.toMap(corner)]);
const lawn = ringOf([
  [0, 0],
  [30, 0],
  [30, 20],
  [0, 20],
]);

const zone: ZoneAnswer = {
  id: 'z',
  version: 1,
  siteId: 's',
  name: 'Lawn',
  label: 'L-1',
  area: 600,
  geometry: { type: 'Polygon', coordinates: [lawn] },
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'low',
  shade: 'part',
  clippings: 'returned',
  facts: {},
  applied: [],
  measured: {},
  properties: { survey: 7 },
};
let count = 0;
const thing = (kind: GroundFeatureAnswer['kind'], at: PlanePoint, more: object = {}): GroundFeatureAnswer => ({
  id: `f${(count += 1)}`,
  version: 1,
  siteId: 's',
  kind,
  name: null,
  geometry: { type: 'Point', coordinates: [...plane.toMap(at)] },
  ...more,
});
const planOf = (...features: GroundFeatureAnswer[]): DrawingAnswer => ({ zones: [zone], features, underlay: null });
const today = '2026-11-23';

describe('what speaks for or against a cause', () => {
  it('is told of what is known, and of nothing else', () => {
    const bare = evidenceOn({ ...zone, geometry: null }, undefined, planOf(), today);
    // What is undefined is not told.
    const known = Object.keys(JSON.parse(JSON.stringify(bare)) as object);
    expect(known.sort()).toEqual(['clippings', 'shade', 'surface']);
  });

  it('comes from the plan, the test, the heights and the history of the zone', () => {
    // A plane that falls 2 % to the south, with a dent of 10 cm in its middle.
    const grid = [0, 15, 30].flatMap((east) => [0, 10, 20].map((north): PlanePoint => [east, north]));
    const spots = grid.map(([east, north]) =>
      thing('spot height', [east, north], { height: 5 + 0.02 * north - (east === 15 && north === 10 ? 0.5 : 0) }),
    );
    const far = thing('spot height', [90, 90], { height: 99 });
    const tree = thing('tree', [15, 10], { canopyRadius: 4 });
    const facts: ZoneAnswer['facts'] = {
      sunHours: 3,
      aspect: 'south-west',
      layers: [
        { material: 'fill soil', depth: 12 },
        { material: 'subsoil', depth: 8 },
        { material: 'sand', depth: 2 },
      ],
    };
    const applied = [
      { kind: 'fertilizer', on: '2026-05', words: 'some' },
      { kind: 'lime', on: '2026-10', words: 'some' },
    ];
    const told = evidenceOn(
      { ...zone, facts, applied },
      resultWith({ values: { soilPh: printed(5.1), organicMatter: printed(2.2, '%') } }),
      planOf(...spots, far, tree),
      today,
    );
    expect(spotHeightsOf(zone.geometry as Outline | null, planOf(...spots, far).features)).toHaveLength(9);
    expect(told).toMatchObject({
      slope: expect.closeTo(2, 0) as number,
      canopy: expect.closeTo((100 * Math.PI * 16) / 600, 0) as number,
      paved: 0,
      ph: 5.1,
      phBelow: expect.closeTo(0.4, 6) as number,
      fillDepth: 20,
      sandDepth: 2,
      aspect: 'toward the sun',
      lastFedMonths: expect.closeTo(6.3, 1) as number,
    });
    expect(told.hollow).toBeGreaterThan(20);
    expect(told.sunShort).toBeGreaterThan(0);
    const south = {
      ...zone,
      facts,
      geometry: { type: 'Polygon' as const, coordinates: [lawn.map(([x = 0]) => [x, -30])] },
    };
    expect(evidenceOn(south, undefined, planOf(), today).aspect).toBe('away from the sun');
  });
});

it('a plan that is written is the plan that is read again, with what foreign files said', () => {
  const gate = thing('gate', [3, 3], { name: 'Main gate', properties: { lock: 'none' } });
  const text = writePlan(planOf(gate), 'geojson', 'metric');
  const { items } = readPlanFile('plan.geojson', text, { near });
  expect(items.map(({ name, kind }) => [name, kind])).toEqual([
    ['Lawn', 'zone'],
    ['Main gate', 'gate'],
  ]);
  expect(areaOf(items[0]!.geometry as Parameters<typeof areaOf>[0])).toBeCloseTo(600, 0);
  expect([items[0]!.properties.survey, items[1]!.properties.lock]).toEqual([7, 'none']);
  const risky = { ...planOf(), zones: [{ ...zone, name: '=SUM(A1)', geometry: null }] };
  const table = writePlan(risky, 'csv', 'us');
  expect(table).toContain("'=SUM(A1)");
  const [back] = readPlanFile('zones.csv', table.replace("'=", ''), { near }).items;
  expect(back!.area).toBeCloseTo(600, 0);
});

it('sections dress every zone, and labels never stand on one another', () => {
  const zones = [zone, { ...zone, id: 'n', facts: { section: 'now' as const } }];
  const dress = sectionDress(zones);
  expect([dress.get('z')!.label, dress.get('n')!.label]).toEqual(['L-1', 'L-1: now']);
  expect(dress.get('z')!.ground).not.toBe(dress.get('n')!.ground);
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 12 }), (heights) => {
      const placed = apartBy(
        17,
        heights.map((y) => ({ y })),
      );
      expect(placed).toHaveLength(heights.length);
      for (const [index, { y }] of placed.entries())
        if (index > 0) expect(y - placed[index - 1]!.y).toBeGreaterThanOrEqual(17);
    }),
  );
});
