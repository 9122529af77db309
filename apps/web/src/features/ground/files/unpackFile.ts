import { unzipSync } from 'fflate';
import type { Feature, FeatureCollection } from 'geojson';
import proj4 from 'proj4';
import { parseDbf, parseShp } from 'shpjs';
import { FileError } from './found.ts';
import { LARGEST_FILE } from './limits.ts';

/** What lay in a packed file, as one that is read as text. */
export interface Unpacked {
  /** By its ending it is told what it is. */
  readonly name: string;
  readonly text: string;
  readonly notes: readonly string[];
}

/** Files that can be read when they lie in a ZIP, the likeliest first. */
const READABLE = ['kml', 'geojson', 'gpx', 'json', 'csv'];

const endingOf = (name: string): string => /\.([a-z]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';
const without = (name: string): string => name.replace(/\.[^./]+$/, '');
const lastOf = (path: string): string => path.split('/').at(-1)!;

/** The files of a ZIP that are of use here; what lies in it is never more than can be held. */
function filesIn(name: string, bytes: Uint8Array): ReadonlyMap<string, Uint8Array> {
  let size = 0;
  const wanted = new Set([...READABLE, 'shp', 'dbf', 'prj', 'cpg']);
  try {
    const files = unzipSync(bytes, {
      filter: ({ name: path, originalSize }) => {
        if (path.startsWith('__MACOSX/') || lastOf(path).startsWith('.') || !wanted.has(endingOf(path))) return false;
        size += originalSize;
        if (size > LARGEST_FILE)
          throw new FileError(
            `${name} holds more than ${LARGEST_FILE / 1e6} MB unpacked. Export only this property from where it came, or simplify its outlines.`,
          );
        return true;
      },
    });
    return new Map(Object.entries(files));
  } catch (error) {
    if (error instanceof FileError) throw error;
    throw new FileError(`${name} cannot be unpacked. It may have been cut off on its way, or be locked; get it again.`);
  }
}

/**
 * Take out of a KMZ, or a ZIP of a shapefile or of one file that is read here, what there is to read.
 *
 * @param system the coordinate system that the person has said, where a shapefile does not say it
 * @throws {FileError} for one with nothing to read in it, with what to do
 */
export function unpack(name: string, bytes: Uint8Array, system: string | undefined): Unpacked {
  const files = filesIn(name, bytes);
  const paths = [...files.keys()].sort();
  const shapes = paths.filter((path) => endingOf(path) === 'shp');
  if (shapes.length > 0) return shapefiles(name, files, shapes, system);
  const [first, ...others] = READABLE.flatMap((ending) => paths.filter((path) => endingOf(path) === ending));
  if (first === undefined)
    throw new FileError(
      `${name} holds no shapefile (.shp with its .dbf and .prj), KML, GeoJSON, GPX or CSV file. Pack one of these, or give it unpacked.`,
    );
  const left = others.length > 0 ? [`Of the files in it ${lastOf(first)} is read; ${others.map(lastOf).join(', ')} stay out.`] : [];
  return { name: lastOf(first), text: new TextDecoder().decode(files.get(first)), notes: left };
} // prettier-ignore

/** A part of a shapefile, whose names differ in their ending alone, in whatever case. */
function partOf(files: ReadonlyMap<string, Uint8Array>, shape: string, ending: string): Uint8Array | undefined {
  const path = [...files.keys()].find(
    (other) => without(other) === without(shape) && endingOf(other) === ending && other !== shape,
  );
  return path === undefined ? undefined : files.get(path);
}

/** All layers of a ZIP as one collection; a layer's name is the folder of what lies in it. */
function shapefiles(
  name: string,
  files: ReadonlyMap<string, Uint8Array>,
  shapes: readonly string[],
  system: string | undefined,
): Unpacked {
  const notes: string[] = [];
  const features: Feature[] = [];
  for (const shape of shapes) {
    const told = partOf(files, shape, 'prj');
    const prj = told && system === undefined ? new TextDecoder().decode(told) : undefined;
    const layer = lastOf(without(shape));
    const projection = prj === undefined ? undefined : projectionOf(prj, layer);
    if (projection) notes.push(`${layer}: converted from ${nameOf(prj!)}.`);
    const dbf = partOf(files, shape, 'dbf');
    const encoding = partOf(files, shape, 'cpg');
    features.push(...layerOf(name, layer, files.get(shape)!, projection, dbf, encoding));
  }
  const collection: FeatureCollection = { type: 'FeatureCollection', features };
  return { name: `${without(name)}.geojson`, text: JSON.stringify(collection), notes };
}

const nameOf = (prj: string): string => /^\s*\w+\["([^"]+)"/.exec(prj)?.[1]?.replaceAll('_', ' ') ?? 'its own system';

/** The projection of a layer whose numbers become degrees by it; nothing where they are degrees already. */
function projectionOf(prj: string, layer: string): string | undefined {
  try {
    proj4(prj);
    return /^\s*GEOGCS/i.test(prj) && /WGS_?84|WGS_1984|NAD83|North_American_1983|ETRS/i.test(prj) ? undefined : prj;
  } catch {
    throw new FileError(`The coordinate system of ${layer} (${nameOf(prj)}) is not known here. Export it in WGS84, or say its EPSG number.`, true);
  }
} // prettier-ignore

function layerOf(
  name: string,
  layer: string,
  shp: Uint8Array,
  projection: string | undefined,
  dbf: Uint8Array | undefined,
  encoding: Uint8Array | undefined,
): Feature[] {
  try {
    const shapes = parseShp(shp, projection);
    const rows = dbf ? parseDbf(dbf, encoding) : [];
    return shapes.map((geometry, at) => ({
      type: 'Feature',
      geometry,
      properties: { ...rows[at], folder: layer },
    }));
  } catch {
    throw new FileError(`The shapefile ${layer} in ${name} is damaged or cut off. Export it again.`);
  }
}
