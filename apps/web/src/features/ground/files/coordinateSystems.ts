import proj4 from 'proj4';

/** Definitions of the EPSG list, once they were wanted. */
let all: Readonly<Record<string, readonly [name: string, definition: string]>> | undefined;

/** Fetch the EPSG list. @returns whether there is more to know than before */
export async function knowAllSystems(): Promise<boolean> {
  if (all) return false;
  ({ default: all } = await import('proj4-list'));
  return true;
}

/** Tables of shifts that are files of their own, which no definition brings along. */
const NEEDS_A_FILE = /nadgrids=(?!@null)/;

/** Codes that people's files name, and how the numbers become degrees. */
export function definitionOf(code: string): string | undefined {
  const epsg = /(\d{4,6})$/.exec(code.trim())?.[1];
  if (!epsg) return /CRS84$/i.test(code) ? 'EPSG:4326' : undefined;
  if (['4326', '4258', '4269', '4979'].includes(epsg)) return 'EPSG:4326';
  if (['3857', '900913', '3785', '102100'].includes(epsg)) return 'EPSG:3857';
  const zone = Number(epsg.slice(-2));
  const utm = zone >= 1 && zone <= 60;
  if (utm && /^(326|327)/.test(epsg) && epsg.length === 5)
    return `+proj=utm +zone=${zone} ${epsg.startsWith('327') ? '+south ' : ''}+datum=WGS84 +units=m +no_defs`;
  if (epsg.startsWith('258') && zone >= 28 && zone <= 38)
    return `+proj=utm +zone=${zone} +ellps=GRS80 +units=m +no_defs`;
  if (epsg.startsWith('269') && zone >= 1 && zone <= 23)
    return `+proj=utm +zone=${zone} +ellps=GRS80 +units=m +no_defs`;
  const listed = all?.[`EPSG:${epsg}`]?.[1];
  return listed === undefined || NEEDS_A_FILE.test(listed) ? undefined : listed;
}

/** The UTM zone of a place. */
export function utmCodeAt([longitude, latitude]: readonly [number, number]): string {
  const zone = Math.min(60, Math.floor((longitude + 180) / 6) + 1);
  return `EPSG:${latitude < 0 ? 327 : 326}${String(zone).padStart(2, '0')}`;
}

/** Makes degrees of numbers in a coordinate system; nothing for a system that is not known here. */
export function toDegrees(code: string): ((point: readonly number[]) => [number, number]) | undefined {
  const definition = definitionOf(code);
  if (!definition) return undefined;
  if (definition === 'EPSG:4326') return ([x = NaN, y = NaN]) => [x, y];
  const { forward } = proj4(definition, 'EPSG:4326');
  return ([x = NaN, y = NaN]) => {
    const [longitude = NaN, latitude = NaN] = forward([x, y]);
    return [longitude, latitude];
  };
}
