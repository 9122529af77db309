import { areaOf } from '@glenfold/agronomy/geometry';
import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import type { FoundFile } from '../src/features/ground/files/found.ts';
import { LARGEST_FILE } from '../src/features/ground/files/limits.ts';
import { readOutcome } from '../src/features/ground/files/readOutcome.ts';

type Ring = ReadonlyArray<readonly [number, number]>;

/** A .shp of one polygon, as the ESRI description (1998) lays out its bytes. */
function shp(ring: Ring): Uint8Array {
  const content = 44 + 4 + 16 * ring.length;
  const view = new DataView(new ArrayBuffer(100 + 8 + content));
  const box = [0, 1].flatMap((axis) => [Math.min(...ring.map((at) => at[axis]!)), Math.max(...ring.map((at) => at[axis]!))]);
  const bounds = [box[0]!, box[2]!, box[1]!, box[3]!];
  view.setInt32(0, 9994);
  view.setInt32(24, view.byteLength / 2);
  view.setInt32(28, 1000, true);
  view.setInt32(32, 5, true);
  bounds.forEach((value, at) => view.setFloat64(36 + 8 * at, value, true));
  view.setInt32(100, 1);
  view.setInt32(104, content / 2);
  view.setInt32(108, 5, true);
  bounds.forEach((value, at) => view.setFloat64(112 + 8 * at, value, true));
  view.setInt32(144, 1, true);
  view.setInt32(148, ring.length, true);
  ring.forEach(([x, y], at) => {
    view.setFloat64(156 + 16 * at, x, true);
    view.setFloat64(164 + 16 * at, y, true);
  });
  return new Uint8Array(view.buffer);
} // prettier-ignore

/** A .dbf of one row with a name. */
function dbf(name: string): Uint8Array {
  const view = new DataView(new ArrayBuffer(65 + 21 + 1));
  const bytes = new Uint8Array(view.buffer);
  bytes.set([3, 126, 11, 28]);
  view.setInt32(4, 1, true);
  view.setInt16(8, 65, true);
  view.setInt16(10, 21, true);
  bytes.set(strToU8('NAME'), 32);
  bytes.set([0x43], 43);
  bytes.set([20], 48);
  bytes.set([0x0d], 64);
  bytes.set(strToU8(` ${name.padEnd(20)}`), 65);
  bytes.set([0x1a], 86);
  return bytes;
}

const LONG_ISLAND =
  'PROJCS["NAD83 / New York Long Island (ftUS)",GEOGCS["NAD83",DATUM["North_American_Datum_1983",SPHEROID["GRS 1980",6378137,298.257222101]],PRIMEM["Greenwich",0],UNIT["degree",0.0174532925199433]],PROJECTION["Lambert_Conformal_Conic_2SP"],PARAMETER["standard_parallel_1",41.03333333333333],PARAMETER["standard_parallel_2",40.66666666666666],PARAMETER["latitude_of_origin",40.16666666666666],PARAMETER["central_meridian",-74],PARAMETER["false_easting",984250.0000000002],PARAMETER["false_northing",0],UNIT["US survey foot",0.3048006096012192]]';

/** 100 ft by 50 ft in the middle of the map sheet: 5000 ft² = 464.5 m². */
const feet: Ring = [
  [1_000_000, 200_000],
  [1_000_000, 200_050],
  [1_000_100, 200_050],
  [1_000_100, 200_000],
  [1_000_000, 200_000],
];
const parts = { 'lots/Lawns.SHP': shp(feet), 'lots/Lawns.dbf': dbf('Front lawn') };

async function read(
  name: string,
  bytes: Uint8Array,
  system?: string,
  near: readonly [number, number] | null = null,
): Promise<FoundFile> {
  const outcome = await readOutcome(name, bytes, { near, system });
  if ('trouble' in outcome) throw new Error(outcome.trouble);
  return outcome.file;
}
const trouble = async (name: string, bytes: Uint8Array, system?: string) => {
  const outcome = await readOutcome(name, bytes, { near: null, system });
  return 'trouble' in outcome ? outcome : { trouble: 'It was read.', needsSystem: false };
};
const areaIn = ({ items }: FoundFile): number => areaOf(items[0]!.geometry as Parameters<typeof areaOf>[0]);

describe('a zipped shapefile', () => {
  it('in feet of a state plane lies where it is, as large as it is, and by its name', async () => {
    const file = await read('lots.zip', zipSync({ ...parts, 'lots/Lawns.prj': strToU8(LONG_ISLAND) }));
    expect(file.name).toBe('lots.zip');
    expect(file.items).toMatchObject([{ name: 'Front lawn', kind: 'zone' }]);
    expect(areaIn(file)).toBeCloseTo(464.5, 0);
    expect(file.notes).toEqual([
      'Lawns: converted from NAD83 / New York Long Island (ftUS).',
      'It lies at 40.72° N, 73.94° W.',
    ]);
  });

  it('without its .prj asks which system it is in, and takes any number of the EPSG list', async () => {
    const zip = zipSync(parts);
    expect(await trouble('lots.zip', zip)).toMatchObject({ needsSystem: true });
    expect(await trouble('lots.zip', zip, 'EPSG:99999')).toMatchObject({ needsSystem: true });
    const file = await read('lots.zip', zip, '2263');
    expect(areaIn(file)).toBeCloseTo(464.5, 0);
    // One degree of latitude is 111 km: a site a degree to the south would be told so.
    const far = await read('lots.zip', zip, '2263', [-73.94, 39.72]);
    expect(far.notes.at(-1)).toMatch(/^That is 111 km from the site: look whether/);
    expect(file.notes).toContain('Converted from EPSG:2263.');
  });

  it('in pieces, cut off or of something else says what to do', async () => {
    expect((await trouble('Lawns.shp', shp(feet))).trouble).toContain('Pack its parts');
    const torn = zipSync({ 'Lawns.shp': shp(feet).slice(0, 130) });
    expect((await trouble('lots.zip', torn)).trouble).toMatch(/damaged|nothing that can be drawn/);
    expect((await trouble('a.zip', zipSync({ 'photo.jpg': strToU8('x') }))).trouble).toContain('holds no shapefile');
    const much = zipSync({ 'doc.kml': new Uint8Array(LARGEST_FILE + 1) });
    expect((await trouble('a.kmz', much)).trouble).toContain('more than 20 MB unpacked');
    expect((await trouble('a.kmz', strToU8('no zip'))).trouble).toContain('does not begin as one');
  });
});

describe('a KMZ', () => {
  const kml = (name: string) =>
    strToU8(`<kml><Document><Folder><name>Trees</name><Placemark><name>${name}</name><Point><coordinates>46.5,-36</coordinates></Point></Placemark></Folder></Document></kml>`); // prettier-ignore

  it('is read as the KML in it, beside its pictures', async () => {
    const file = await read('park.kmz', zipSync({ 'doc.kml': kml('Old oak'), 'files/a.png': strToU8('x') }));
    expect(file).toMatchObject({ name: 'park.kmz', items: [{ name: 'Old oak', kind: 'tree' }] });
  });

  it('with several says which one was read', async () => {
    const file = await read('park.kmz', zipSync({ 'doc.kml': kml('Oak'), 'more.kml': kml('Ash') }));
    expect(file.notes[0]).toBe('Of the files in it doc.kml is read; more.kml stay out.');
  });

  it('of any bytes after its first two is told in one sentence, never a fault', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 300 }), async (bytes) => {
        const outcome = await trouble('a.kmz', Uint8Array.from([0x50, 0x4b, ...bytes]));
        expect(outcome.trouble).toMatch(/cannot be unpacked|holds no shapefile/);
      }),
      { numRuns: 60 },
    );
  });
});
