import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { areaOf } from '@glenfold/agronomy/geometry';
import type { DrawingAnswer } from '@glenfold/contract';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { readPlanFile } from '../src/features/ground/files/readFile.ts';
import { type Format, writePlan } from '../src/features/ground/files/writeFile.ts';
import { zonesOf } from '../src/features/ground/zoneList.ts';
import { complaints, gpx11, kml22 } from './xmlSchemas.ts';

interface Drawn {
  readonly properties: Readonly<Record<string, unknown>>;
  readonly geometry: { readonly type: string; readonly coordinates: unknown };
}

const folder = join(import.meta.dirname, '../../../demo');
/** Each site of the demo as the plan has it, with a bed cut out of its first zone. */
const plans = readdirSync(folder)
  .filter((name) => name.endsWith('.geojson'))
  .map((name) => {
    const { features } = JSON.parse(readFileSync(join(folder, name), 'utf8')) as { readonly features: readonly Drawn[] };
    const [zones, things] = [true, false].map((wanted) => features.filter(({ properties }) => (properties.kind === undefined) === wanted)); // prettier-ignore
    return [
      name,
      {
        zones: zones!.map(({ properties, geometry }, at) => ({
          ...{ id: `z${at}`, area: 100, facts: {}, properties: null, ...properties },
          geometry: at === 0 ? withHole(geometry) : geometry,
        })),
        features: things!.map(({ properties, geometry }, at) => ({ id: `f${at}`, name: null, properties: null, ...properties, geometry })),
      } as unknown as DrawingAnswer,
    ] as const;
  }); // prettier-ignore

/** A small hole about the middle of an outline. */
function withHole(geometry: Drawn['geometry']): Drawn['geometry'] {
  const [outer] = geometry.coordinates as ReadonlyArray<ReadonlyArray<readonly [number, number]>>;
  const middle = [0, 1].map((axis) => outer!.reduce((sum, corner) => sum + corner[axis]!, 0) / outer!.length);
  const hole = [[0, 0], [1, 0], [1, 1], [0, 1], [0, 0]].map(([x, y]) => [middle[0]! + x! * 5e-6, middle[1]! + y! * 5e-6]); // prettier-ignore
  return { ...geometry, coordinates: [outer, hole] };
}

const sizes = (geometries: ReadonlyArray<Drawn['geometry'] | null | undefined>): number[] =>
  geometries
    .flatMap((geometry) => (geometry?.type === 'Polygon' ? [areaOf(geometry as Parameters<typeof areaOf>[0])] : []))
    .sort((one, other) => one - other);
const lefts = (rings: ReadonlyArray<ReadonlyArray<readonly number[]>>): number[] =>
  rings.map((ring) =>
    Math.sign(ring.slice(1).reduce((sum, [x, y], at) => sum + (ring[at]![0]! * y! - x! * ring[at]![1]!), 0)),
  );

/** RFC 7946, as far as a plan goes. */
const position = { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 };
const rings = { type: 'array', items: { type: 'array', items: position, minItems: 4 }, minItems: 1 };
const geometryOf = (type: string, coordinates: object) => ({ type: 'object', required: ['type', 'coordinates'], properties: { type: { const: type }, coordinates } }); // prettier-ignore
const fitsRfc7946 = new Ajv2020({ strict: false }).compile({
  type: 'object',
  required: ['type', 'features'],
  properties: {
    type: { const: 'FeatureCollection' },
    features: {
      type: 'array',
      items: {
        type: 'object',
        required: ['type', 'geometry', 'properties'],
        properties: {
          type: { const: 'Feature' },
          properties: { type: 'object' },
          geometry: {
            oneOf: [
              geometryOf('Point', position),
              geometryOf('LineString', { type: 'array', items: position, minItems: 2 }),
              geometryOf('Polygon', rings),
              geometryOf('MultiPolygon', { type: 'array', items: rings, minItems: 1 }),
            ],
          },
        },
      },
    },
  },
});

const hasGdal = spawnSync('ogrinfo', ['--version']).status === 0;

/** How many features GDAL reads in a file; everything that it complains of is a fault. */
function countedByGdal(format: Format, text: string): number {
  const folder = mkdtempSync(join(tmpdir(), 'glenfold-plan-'));
  try {
    writeFileSync(join(folder, `plan.${format}`), text);
    const { stdout, stderr, status } = spawnSync('ogrinfo', ['-al', '-so', `plan.${format}`], { cwd: folder, encoding: 'utf8' }); // prettier-ignore
    expect([format, status, stderr]).toEqual([format, 0, '']);
    return [...stdout.matchAll(/^Feature Count: (\d+)/gm)].reduce((sum, [, count]) => sum + Number(count), 0);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

describe.each(plans)('the plan of %s', (_name, plan) => {
  const all = [...plan.zones, ...plan.features];
  const [longitude, latitude] = (plan.zones[0]!.geometry!.coordinates as number[][][])[0]![0]!;
  const back = (format: Format) =>
    readPlanFile(`plan.${format}`, writePlan(plan, format, 'metric'), { near: [longitude!, latitude!] }).items;

  it.each(['geojson', 'kml', 'gpx'] as const)(
    'comes back out of %s with every outline, hole, line and place',
    (format) => {
      const items = back(format);
      const told = sizes(all.map(({ geometry }) => geometry as Drawn['geometry']));
      const read = sizes(items.map(({ geometry }) => geometry as Drawn['geometry'] | null));
      expect(read).toHaveLength(told.length);
      for (const [at, size] of told.entries()) expect(Math.abs(read[at]! - size) / size).toBeLessThan(0.002);
      expect(items.flatMap(({ fault }) => fault ?? [])).toEqual([]);
      const points = items.filter(({ geometry }) => geometry?.type === 'Point');
      expect(points).toHaveLength(plan.features.filter(({ geometry }) => geometry.type === 'Point').length);
      // What it is comes back too, by its own word.
      if (format !== 'gpx') expect(items.map(({ kind }) => kind).sort()).toEqual([...plan.zones.map(() => 'zone'), ...plan.features.map(({ kind }) => kind)].sort()); // prettier-ignore
    },
  );

  it('says in GeoJSON what is known of its ground, and comes back with it', () => {
    const told = back('geojson').flatMap(({ kind, properties }) => (kind === 'zone' ? [properties.facts ?? {}] : []));
    expect(told).toEqual(plan.zones.map(({ facts }) => facts));
  });

  it('is written as the schemas of GPX 1.1 and KML 2.2 have it', () => {
    for (const [format, schema] of [['gpx', gpx11], ['kml', kml22]] as const)
      expect([format, complaints(writePlan(plan, format, 'metric'), schema)]).toEqual([format, []]);
  }); // prettier-ignore

  it('is written as others read it: by RFC 7946, and without a complaint of GDAL where that is installed', () => {
    expect([fitsRfc7946(JSON.parse(writePlan(plan, 'geojson', 'metric'))), fitsRfc7946.errors]).toEqual([true, null]);
    if (!hasGdal) return;
    for (const format of ['geojson', 'kml'] as const)
      expect(countedByGdal(format, writePlan(plan, format, 'metric'))).toBe(all.length);
    // A receiver's way round an outline is counted as its track, and as the points of it.
    expect(countedByGdal('gpx', writePlan(plan, 'gpx', 'metric'))).toBeGreaterThanOrEqual(all.length);
  });

  it('is written with its rings as RFC 7946 has them', () => {
    const { features } = JSON.parse(writePlan(plan, 'geojson', 'metric')) as { readonly features: readonly Drawn[] };
    for (const { geometry } of features)
      if (geometry.type === 'Polygon') {
        const [outer, ...holes] = lefts(geometry.coordinates as number[][][]);
        expect([outer, ...holes]).toEqual([1, ...holes.map(() => -1)]);
      }
  });
});

it('the schemas find what is out of its order, out of its place, or out of its range', () => {
  const gpx = (inside: string): string => `<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x">${inside}</gpx>`; // prettier-ignore
  expect(complaints(gpx('<wpt lat="46.5" lon="-36"><name>Tap</name></wpt>'), gpx11)).toEqual([]);
  expect(complaints(gpx('<trk/><wpt lat="46.5" lon="-36"/>'), gpx11)).toEqual(['wpt stands in gpx where it may not']);
  expect(complaints(gpx('<wpt lat="-136" lon="46.5"/>'), gpx11)).toEqual(['wpt has lat="-136"']);
  const hole = '<Polygon><innerBoundaryIs/><outerBoundaryIs/></Polygon>';
  expect(complaints(`<kml><Placemark>${hole}</Placemark></kml>`, kml22)).toEqual(['outerBoundaryIs stands in Polygon where it may not']); // prettier-ignore
});

describe('a foreign file', () => {
  const kml = (inside: string): string => `<kml xmlns="http://www.opengis.net/kml/2.2"><Document>${inside}</Document></kml>`; // prettier-ignore
  const place = (name: string, at = '-36,46.5'): string => `<Placemark>${name && `<name>${name}</name>`}<Point><coordinates>${at}</coordinates></Point></Placemark>`; // prettier-ignore

  it('says what things are by its folders, and brings no tree for what has no word', () => {
    const { items } = readPlanFile('a.kml', kml(`<Folder><name>Taps</name>${place('By the door')}</Folder>${place('')}`), { near: null }); // prettier-ignore
    expect(items.map(({ kind, doubtful }) => [kind, doubtful])).toEqual([['tap', undefined], ['tree', true]]); // prettier-ignore
  });

  it('says where on earth it lies, and is read the other way about when asked to', () => {
    const text = kml(place('Gate', '46.5,-36'));
    expect(readPlanFile('a.kml', text, { near: null }).notes.at(-1)).toBe('It lies at 36.00° S, 46.50° E.');
    const turned = readPlanFile('a.kml', text, { near: null, exchanged: true });
    expect([turned.notes.at(-1), turned.items[0]!.geometry]).toEqual([
      'It lies at 46.50° N, 36.00° W.',
      { type: 'Point', coordinates: [-36, 46.5] },
    ]);
  });

  it.each([
    ['Zone;Area (m2)\nLawn;369,900\n', 369.9],
    ['Zone,Area (m2)\nLawn,"369,900"\nCourt,"12,5"\n', 369.9],
    ['Zone,Area (m2)\nLawn,"1,369,900"\n', 'outside'],
    ['Zone,Area (m2)\nLawn,"369,900"\n', 'may be 369.900 or 369900'],
    ['Zone,Area (ft2)\nLawn,"12,500"\n', 1161.29],
    ['Zone,Area (m2)\nLawn,"1,250.5"\n', 1250.5],
  ])('of areas is read by how it writes its numbers, and never guessed: %j', (text, wanted) => {
    const [lawn] = readPlanFile('a.csv', text, { near: null }).items;
    if (typeof wanted === 'number') expect(lawn!.area).toBeCloseTo(wanted, 1);
    else expect(lawn!.fault).toMatch(wanted === 'outside' ? /1 to 1,000,000/ : new RegExp(wanted));
  });

  it('nor in a list that is pasted', () => {
    const told = { siteName: 'Quarry Lane', labels: [], areaUnit: 'm2', grass: 'tall fescue' } as const;
    const of = (area: string) => zonesOf([{ name: 'Lawn', area, grass: '' }], told);
    expect([...of('369,900').problems.values()]).toEqual([expect.stringContaining('369.900 or 369900')]);
    expect(of('12,500 ft2').zones[0]!.area).toBeCloseTo(1161.29, 1);
    expect(of('369,9').zones[0]!.area).toBeCloseTo(369.9, 6);
  });
});
