import { type Fix, GeometryError, Plane, type Position, walkedArea } from '@glenfold/agronomy/geometry';
import { type DrawnGeometry, exclusionKinds, lineKinds, pointKinds } from '@glenfold/agronomy';
import { gpx as gpxToGeoJson, kmlWithFolders } from '@tmcw/togeojson';
import { DOMParser } from '@xmldom/xmldom';
import type { Feature, Geometry } from 'geojson';
import { toDegrees } from './coordinateSystems.ts';
import { FileError, type FoundFile, type FoundItem, type ItemKind } from './found.ts';
import { LARGEST_FILE, MOST_ITEMS } from './limits.ts';
import { readZonesCsv } from './readZonesCsv.ts';
import { Straightener } from './straighten.ts';

/** What may help where a file leaves something open. */
export interface ReadOptions {
  /** A place of the site, to tell swapped coordinates by. */
  readonly near: Position | null;
  /** The coordinate system, where the person had to say it. */
  readonly system?: string | undefined;
  /** Latitude and longitude the other way about, where the person has seen that it lies elsewhere. */
  readonly exchanged?: boolean | undefined;
}

interface GeoJsonFile {
  readonly type?: unknown;
  readonly features?: unknown;
  readonly geometry?: unknown;
  readonly geometries?: unknown;
  readonly coordinates?: unknown;
  readonly crs?: { readonly properties?: { readonly name?: unknown } };
}

const megabytes = (bytes: number): string => (bytes / 1e6).toFixed(1);

/**
 * Read a file of outlines, lines, places or walks. Nothing is drawn yet: what is found, what was repaired and what
 * cannot come is for the person to look through first.
 *
 * @throws {FileError} for a file of which nothing can be taken, with what to do
 */
export function readPlanFile(name: string, text: string, options: ReadOptions): FoundFile {
  const found = readAny(name, text, options);
  return { ...found, notes: [...found.notes, ...farFrom(found, options.near)] };
}

/** m; what lies further from the site than this is hardly of it. */
const FAR = 50_000;

/** A sentence where a file lies far from the site. */
function farFrom({ items }: FoundFile, near: Position | null): string[] {
  const first = items.find(({ geometry }) => geometry)?.geometry;
  if (!near || !first) return [];
  let place: unknown = first.coordinates;
  while (Array.isArray(place) && Array.isArray(place[0])) [place] = place as unknown[];
  const [east, north] = new Plane(near).toPlane(place as Position);
  const far = Math.hypot(east, north);
  return far > FAR
    ? [
        `That is ${Math.round(far / 1000)} km from the site: look whether it is the right file, and the right coordinate system.`,
      ]
    : [];
}

function readAny(name: string, text: string, options: ReadOptions): FoundFile {
  if (text.length > LARGEST_FILE)
    throw new FileError(
      `The file has ${megabytes(text.length)} MB; ${megabytes(LARGEST_FILE)} MB are read at most. Export only this property from where it came, or simplify its outlines.`,
    );
  if (text.trim() === '') throw new FileError('The file is empty.');
  const ending = /\.([a-z]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';
  const start = text.trimStart().slice(0, 400);
  if (ending === 'csv' || ending === 'txt' || ending === 'tsv') return readZonesCsv(name, text);
  if (start.startsWith('{') || start.startsWith('[')) return readGeoJson(name, text, options);
  if (/<gpx[\s>]/i.test(start)) return readGpx(name, text, options);
  if (/<kml[\s>]/i.test(start)) return readKml(name, text, options);
  if (ending === 'shp' || ending === 'dbf' || ending === 'shx' || ending === 'prj')
    throw new FileError(
      'This is one part of a shapefile. Pack its parts (.shp, .dbf, .prj) into one ZIP, and give that.',
    );
  if (ending === 'kmz' || ending === 'zip')
    throw new FileError(
      `This ${ending.toUpperCase()} file is cut off or damaged: it does not begin as one. Get it again.`,
    );
  throw new FileError(
    'This is no GeoJSON, KML, KMZ, GPX, CSV or zipped shapefile that can be read here. Export it as one of these.',
  );
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Guess by its own words what an item is; the person can say otherwise. @param told the plainest word first */
function kindOf(type: DrawnGeometry['type'], told: readonly string[]): ItemKind {
  const kinds = [...exclusionKinds, ...lineKinds, ...pointKinds];
  const [said = ''] = told;
  if (said === 'zone' && type !== 'Point' && type !== 'LineString') return 'zone';
  // A word that is a kind by itself counts before what stands in a name: "Sycamore by the gate" is a tree.
  const words = told.join(' ').toLowerCase();
  const known = kinds.find((kind) => kind === said.toLowerCase()) ?? kinds.find((kind) => words.includes(kind));
  const suits = (kinds: readonly string[]): boolean => known !== undefined && kinds.includes(known);
  if (type === 'Point') return suits(pointKinds) ? known! : 'tree';
  if (type === 'LineString') return suits(lineKinds) ? known! : 'fence';
  return suits(exclusionKinds) ? known! : 'zone';
}

const textOf = (value: unknown): string | null => {
  const text = typeof value === 'string' ? value.trim() : typeof value === 'number' ? String(value) : '';
  return text === '' ? null : text.slice(0, 80);
};

/** Single geometries of what may be a collection of several. */
function singles(geometry: Geometry): Array<Exclude<Geometry, { type: 'GeometryCollection' }>> {
  if (geometry.type === 'GeometryCollection') return geometry.geometries.flatMap(singles);
  if (geometry.type === 'MultiPoint')
    return geometry.coordinates.map((coordinates) => ({ type: 'Point', coordinates }));
  if (geometry.type === 'MultiLineString')
    return geometry.coordinates.map((coordinates) => ({ type: 'LineString', coordinates }));
  return [geometry];
}

const isGeometry = (value: unknown): value is Geometry =>
  isObject(value) &&
  (Array.isArray(value.coordinates) || (value.type === 'GeometryCollection' && Array.isArray(value.geometries)));

function collect(features: readonly unknown[], straightener: Straightener): FoundItem[] {
  const items: FoundItem[] = [];
  for (const raw of features) {
    const feature = isObject(raw) ? raw : {};
    const properties = isObject(feature.properties) ? feature.properties : {};
    const name = textOf(properties.name ?? properties.Name ?? properties.NAME ?? properties.title ?? properties.label);
    const told = [properties.kind, properties.type, properties.class, name, properties.folder].filter(
      (word) => typeof word === 'string',
    );
    if (!isGeometry(feature.geometry)) {
      const fault = 'It has no geometry: nothing can be drawn of it.';
      items.push({ place: items.length + 1, name, geometry: null, kind: 'zone', properties, repairs: [], fault });
      continue;
    }
    for (const single of singles(feature.geometry)) {
      const { geometry, repairs, fault } = straightener.straighten(single);
      items.push({
        place: items.length + 1,
        name,
        geometry,
        kind: kindOf(geometry?.type ?? (single.type as DrawnGeometry['type']), told),
        // A place without a word may be anything: nobody plants a tree by it.
        ...(single.type === 'Point' && told.length === 0 ? { doubtful: true as const } : {}),
        properties,
        repairs,
        ...(fault === undefined ? {} : { fault }),
      });
    }
  }
  if (items.length === 0) throw new FileError('The file holds nothing that can be drawn.');
  if (items.length > MOST_ITEMS)
    throw new FileError(
      `The file holds ${items.length} items; ${MOST_ITEMS} come at once at most. Export only this property from where it came.`,
    );
  return items;
}

function readGeoJson(name: string, text: string, { near, system, exchanged }: ReadOptions): FoundFile {
  let raw: GeoJsonFile;
  try {
    raw = JSON.parse(text) as GeoJsonFile;
  } catch (error) {
    throw new FileError(
      `The file begins like GeoJSON but cannot be read: ${(error as Error).message}. It may have been cut off on its way; get it again.`,
    );
  }
  const features =
    raw.type === 'FeatureCollection' && Array.isArray(raw.features)
      ? (raw.features as unknown[])
      : raw.type === 'Feature'
        ? [raw]
        : isGeometry(raw)
          ? [{ type: 'Feature', geometry: raw, properties: {} }]
          : null;
  if (!features)
    throw new FileError('This is JSON, but no GeoJSON: a FeatureCollection, a Feature or a geometry is wanted.');
  const named = textOf(raw.crs?.properties?.name);
  const code = system ?? named ?? 'EPSG:4326';
  const degrees = toDegrees(code);
  if (!degrees)
    throw new FileError(
      `The file is in the coordinate system ${code}, which is not known here. Export it in WGS84 (EPSG:4326), or say its EPSG number.`,
      true,
    );
  const straightener = new Straightener(degrees, system || named ? null : near, exchanged);
  const items = collect(features, straightener);
  if (straightener.inMetres)
    throw new FileError(
      'The coordinates are no degrees: they look like metres or feet of a national, state or UTM system, and the file does not say which.',
      true,
    );
  const converted = !['EPSG:4326', 'CRS84'].some((usual) => code.includes(usual))
    ? [`Converted from ${/^\d+$/.test(code) ? `EPSG:${code}` : code}.`]
    : [];
  return { name, items, notes: [...converted, ...straightener.notes] };
}

function parseXml(text: string, what: string) {
  const troubles: string[] = [];
  try {
    const document = new DOMParser({
      onError: (level, message) => {
        if (level !== 'warning') troubles.push(message);
      },
    }).parseFromString(text, 'text/xml');
    if (troubles.length > 0) throw new Error(troubles[0]);
    return document as unknown as Document;
  } catch (error) {
    const [words = ''] = (error as Error).message.split('\n');
    throw new FileError(
      `The ${what} file cannot be read: ${words}. It may have been cut off on its way; get it again.`,
    );
  }
}

function readKml(name: string, text: string, { near, exchanged }: ReadOptions): FoundFile {
  const document = parseXml(text, 'KML');
  // Whoever writes what is left out before the outline means the outline still.
  for (const outer of Array.from(document.getElementsByTagName('outerBoundaryIs')))
    if (outer.parentNode && outer.parentNode.firstChild !== outer) {
      const polygon = outer.parentNode;
      polygon.removeChild(outer);
      polygon.insertBefore(outer, polygon.firstChild);
    }
  const straightener = new Straightener(toDegrees('EPSG:4326')!, near, exchanged);
  return { name, items: collect(inFolders(kmlWithFolders(document)).map(tidied), straightener), notes: straightener.notes };
} // prettier-ignore

type Foldered = ReturnType<typeof kmlWithFolders>;

/** What lies in a folder carries its name: "Trees", "Beds". */
function inFolders({ children, ...node }: Foldered | Extract<Foldered['children'][number], { type: 'folder' }>): Array<Feature<Geometry | null>> {
  const meta = 'meta' in node ? node.meta : {};
  return children.flatMap((child) =>
    child.type === 'folder'
      ? inFolders(child)
      : [{ ...child, properties: { ...child.properties, ...(typeof meta.name === 'string' ? { folder: meta.name } : {}) } }],
  );
} // prettier-ignore

/** Without the drawing styles that the conversion adds. */
function tidied(feature: Feature<Geometry | null>): object {
  const own = Object.entries(feature.properties ?? {}).filter(([key]) => !/^(style|stroke|fill|icon|label)/i.test(key));
  return { ...feature, properties: Object.fromEntries(own) };
}

/** s; a track without times was walked at an even pace, a second a point. */
function timesOf(times: unknown, count: number): number[] {
  const read = Array.isArray(times) ? times.map((time) => Date.parse(String(time)) / 1000) : [];
  const known = read.length === count && read.every((time) => Number.isFinite(time));
  return Array.from({ length: count }, (_, index) => (known ? read[index]! - read[0]! : index * 1.5));
}

/** m; what a receiver in the hand is good for, where a file does not say. */
const USUAL_ACCURACY = 8;

/** Tracks are walks round a lawn; waypoints are places. */
function readGpx(name: string, text: string, { near, exchanged }: ReadOptions): FoundFile {
  const { features } = gpxToGeoJson(parseXml(text, 'GPX'));
  const walks: FoundItem[] = [];
  const others: unknown[] = [];
  for (const feature of features) {
    const { geometry, properties } = feature as Feature<Geometry | null>;
    const parts =
      geometry?.type === 'LineString'
        ? [geometry.coordinates]
        : geometry?.type === 'MultiLineString'
          ? geometry.coordinates
          : null;
    if (!parts) {
      others.push(feature);
      continue;
    }
    const { coordinateProperties, ...own } = properties ?? {};
    // What is closed to the last digit and has no times was drawn, and nobody walked it; a line is one by its own word.
    const drawn = drawnOf(parts, coordinateProperties, own);
    if (drawn) {
      others.push({ type: 'Feature', properties: own, geometry: drawn });
      continue;
    }
    const times = (coordinateProperties as { readonly times?: unknown } | undefined)?.times;
    const segments = parts.length > 1 && Array.isArray(times) ? (times as unknown[]) : [times];
    for (const [index, line] of parts.entries())
      walks.push(walkItem(line, segments[index], textOf(own.name), own, walks.length + 1));
  }
  const straightener = new Straightener(toDegrees('EPSG:4326')!, near, exchanged);
  const places = others.length > 0 ? collect(others, straightener) : [];
  const items = [...walks, ...places].map((item, index) => ({ ...item, place: index + 1 }));
  if (items.length === 0) throw new FileError('The GPX file holds no track, route or waypoint.');
  return { name, items, notes: straightener.notes };
}

/** An outline, or a line, that was drawn and written as a track; nothing of a walk. */
function drawnOf(parts: ReadonlyArray<ReadonlyArray<readonly number[]>>, timed: unknown, { type }: Record<string, unknown>): Geometry | null {
  if (isObject(timed) && 'times' in timed) return null;
  const lines = parts.map((part) => part.map(([x = NaN, y = NaN]) => [x, y]));
  if (lineKinds.some((kind) => kind === type))
    return lines.length === 1 ? { type: 'LineString', coordinates: lines[0]! } : { type: 'MultiLineString', coordinates: lines };
  const closed = lines.every((line) => line.length >= 4 && line[0]![0] === line.at(-1)![0] && line[0]![1] === line.at(-1)![1]);
  return closed ? { type: 'Polygon', coordinates: lines } : null;
} // prettier-ignore

function walkItem(
  line: ReadonlyArray<readonly number[]>,
  times: unknown,
  name: string | null,
  properties: Record<string, unknown>,
  place: number,
): FoundItem {
  const seconds = timesOf(times, line.length);
  const fixes = line.map(([longitude = NaN, latitude = NaN], index): Fix => ({
    position: [longitude, latitude],
    accuracy: USUAL_ACCURACY,
    time: seconds[index]!,
  }));
  const base = { place, name, properties } as const;
  try {
    const { outline, uncertainty, used, dropped } = walkedArea(fixes);
    const repairs = [
      `A walk of ${used} positions, smoothed and closed.`,
      ...(dropped > 0 ? [`${dropped} positions left out as too far off.`] : []),
    ];
    return { ...base, kind: 'zone', geometry: outline as DrawnGeometry, uncertainty, repairs };
  } catch (error) {
    if (!(error instanceof GeometryError)) throw error;
    const geometry: DrawnGeometry = { type: 'LineString', coordinates: line.map(([x = 0, y = 0]) => [x, y]) };
    // What makes no area may still be a line.
    return line.length >= 2
      ? { ...base, kind: 'fence', geometry, repairs: [`No outline: ${error.message} It can come as a line.`] }
      : { ...base, kind: 'zone', geometry: null, repairs: [], fault: error.message };
  }
}
