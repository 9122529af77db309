import { Plane, areaOf, noisyWalk } from '@glenfold/agronomy/geometry';
import fc from 'fast-check';
import proj4 from 'proj4';
import { definitionOf, utmCodeAt } from '../src/features/ground/files/coordinateSystems.ts';
import { FileError, type FoundFile } from '../src/features/ground/files/found.ts';
import { LARGEST_FILE } from '../src/features/ground/files/limits.ts';
import { readPlanFile } from '../src/features/ground/files/readFile.ts';

const near = [-36.004, 46.5008] as const;
const plane = new Plane(near);
const metres = [
  [0, 0],
  [40, 0],
  [40, 25],
  [0, 25],
  [0, 0],
] as const;
const ring = metres.map(([east, north]) => [...plane.toMap([east, north])]);
const collection = (coordinates: unknown, more: object = {}, properties: object = { name: 'Lawn' }): string =>
  JSON.stringify({
    type: 'FeatureCollection',
    ...more,
    features: [{ type: 'Feature', properties, geometry: { type: 'Polygon', coordinates: [coordinates] } }],
  });
const read = (name: string, text: string, system?: string): FoundFile => readPlanFile(name, text, { near, system });
const areaIn = (file: FoundFile): number => areaOf(file.items[0]!.geometry as Parameters<typeof areaOf>[0]);
const refusal = (work: () => unknown): FileError => {
  try {
    work();
  } catch (error) {
    if (error instanceof FileError) return error;
    throw error;
  }
  throw new Error('It was read.');
};

describe('a foreign GeoJSON file', () => {
  it('is read as it is, with latitude first, without its last corner, and in metres of its own system', () => {
    const plain = read('a.geojson', collection(ring));
    expect([areaIn(plain), plain.items[0]!.repairs, plain.notes]).toEqual([
      expect.closeTo(1000, 0),
      [],
      ['It lies at 46.50° N, 36.00° W.'],
    ]);
    const swapped = read('a.geojson', collection(ring.map(([x, y]) => [y, x])));
    expect(areaIn(swapped)).toBeCloseTo(1000, 0);
    expect(swapped.notes[0]).toMatch(/latitude before longitude/);
    const open = read('a.geojson', collection([...ring.slice(0, 4), ring[3]]));
    expect(areaIn(open)).toBeCloseTo(1000, 0);
    expect(open.items[0]!.repairs.join(' ')).toMatch(/said twice.*was open/);
    for (const code of [utmCodeAt(near), 'EPSG:3857']) {
      const there = ring.map((corner) => proj4('EPSG:4326', definitionOf(code)!, corner));
      const crs = { crs: { type: 'name', properties: { name: `urn:ogc:def:crs:${code.replace(':', '::')}` } } };
      expect(areaIn(read('a.geojson', collection(there, crs)))).toBeCloseTo(1000, 0);
      // Without its name the numbers are no place: the person is asked.
      const { message, needsSystem } = refusal(() => read('a.geojson', collection(there)));
      expect([needsSystem, message]).toEqual([true, expect.stringMatching(/look like metres/)]);
      expect(areaIn(read('a.geojson', collection(there), code))).toBeCloseTo(1000, 0);
    }
    const strange = { crs: { type: 'name', properties: { name: 'EPSG:31370' } } };
    expect(refusal(() => read('a.geojson', collection(ring, strange))).needsSystem).toBe(true);
  });

  it('keeps its own properties, tells what cannot come, and takes collections apart', () => {
    const properties = { OBJECTID: 3, owner: 'parish', name: 'Rose bed' };
    const [bed] = read('a.json', collection(ring, {}, properties)).items;
    expect([bed!.kind, bed!.properties]).toEqual(['bed', properties]);
    const bow = [ring[0], ring[2], ring[1], ring[3], ring[0]];
    expect(read('a.json', collection(bow)).items[0]!.fault).toMatch(/crosses or touches itself/);
    const mixed = {
      type: 'Feature',
      properties: {},
      geometry: {
        type: 'GeometryCollection',
        geometries: [
          { type: 'MultiPoint', coordinates: ring.slice(0, 2) },
          { type: 'LineString', coordinates: ring.slice(0, 2) },
          { type: 'Polygon', coordinates: [ring] },
        ],
      },
    };
    const { items } = read('a.json', JSON.stringify(mixed));
    expect(items.map(({ kind }) => kind)).toEqual(['tree', 'tree', 'fence', 'zone']);
  });

  it('that is cut off, too large or something else altogether says what to do', () => {
    const text = collection(ring);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: text.length - 1 }), (end) => {
        expect(refusal(() => read('a.geojson', text.slice(0, end))).message).toMatch(/get it again/);
      }),
    );
    expect(refusal(() => read('a.geojson', ' '.repeat(LARGEST_FILE + 1))).message).toMatch(/20\.0 MB/);
    expect(refusal(() => read('a.kmz', 'PK\u0003')).message).toMatch(/does not begin as one/);
    expect(refusal(() => read('a.json', '{"type":"Topology"}')).message).toMatch(/FeatureCollection/);
    fc.assert(
      fc.property(
        fc.string({ maxLength: 200 }),
        fc.constantFrom('a.kml', 'a.gpx', 'a.csv', 'a.json', 'a'),
        (any, name) => {
          expect(refusal(() => read(name, any)).message.length).toBeGreaterThan(10);
        },
      ),
    );
  });
});

describe('other files', () => {
  it('are KML with outlines and places', () => {
    const corners = ring.map(([x, y]) => `${x},${y},12`).join(' ');
    const kml = `<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document><Placemark><name>Court</name><Polygon><outerBoundaryIs><LinearRing><coordinates>${corners}</coordinates></LinearRing></outerBoundaryIs></Polygon></Placemark><Placemark><name>Main gate</name><Point><coordinates>${ring[0]!.join()}</coordinates></Point></Placemark></Document></kml>`;
    const file = read('a.kml', kml);
    expect(file.items.map(({ name, kind }) => [name, kind])).toEqual([
      ['Court', 'zone'],
      ['Main gate', 'gate'],
    ]);
    expect(areaIn(file)).toBeCloseTo(1000, 0);
    expect(refusal(() => read('a.kml', kml.slice(0, 300))).message).toMatch(/get it again/);
  });

  it('are GPX: a walk becomes a zone with its uncertainty, half a walk a line', () => {
    const fixes = noisyWalk(
      ring.slice(0, 4).map(([x = 0, y = 0]) => [x, y]),
      { seed: 3, error: 1 },
    );
    const gpx = (part: typeof fixes): string =>
      `<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><name>Walk</name><trkseg>${part
        .map(
          ({ position: [x, y], time }) =>
            `<trkpt lat="${y}" lon="${x}"><time>${new Date(1e12 + time * 1000).toISOString()}</time></trkpt>`,
        )
        .join('')}</trkseg></trk></gpx>`;
    const [walk] = read('a.gpx', gpx(fixes)).items;
    expect(walk!.kind).toBe('zone');
    expect(Math.abs(areaOf(walk!.geometry as Parameters<typeof areaOf>[0]) - 1000)).toBeLessThan(walk!.uncertainty!);
    const [half] = read('a.gpx', gpx(fixes.slice(0, fixes.length / 2))).items;
    expect([half!.kind, half!.geometry!.type]).toEqual(['fence', 'LineString']);
    expect(half!.repairs[0]).toMatch(/Walk on to the start/);
  });

  it('are tables of zones, with the unit in the header or with each area', () => {
    const zones = (text: string) => read('z.csv', text).items.map(({ name, area, fault }) => [name, area, fault]);
    expect(zones('Zone,Area (ft2),Grass\nNorth,"10,764",tall fescue\nSouth,none,\n')).toEqual([
      ['North', expect.closeTo(1000, 0), undefined],
      ['South', undefined, expect.stringMatching(/“none”/)],
    ]);
    expect(zones('name;area\nA;0.1 ha\nB;500\n').map(([, area]) => area)).toEqual([1000, 500]);
    expect(refusal(() => read('z.csv', 'a,b\n1,2\n')).message).toMatch(/Its columns are: a, b/);
  });
});
