import { writeBagCode } from '@glenfold/agronomy';
import type { BagAnswer } from '@glenfold/contract';
import Feature from 'ol/Feature.js';
import GPX from 'ol/format/GPX.js';
import GeoJSON from 'ol/format/GeoJSON.js';
import { LineString, Point } from 'ol/geom.js';
import { download } from '../../../ui/download.ts';

type PointFormat = 'gpx' | 'geojson';

/** Cores as waypoints and the walk through them as a route, WGS84. */
export function writePoints(bags: readonly BagAnswer[], format: PointFormat): string {
  const cores = bags
    .flatMap(({ code, depth, places }) => places.map((core) => ({ ...core, code: writeBagCode(code), depth })))
    .filter(({ place }) => place !== null)
    .sort((one, other) => one.turn - other.turn);
  const points = cores.map(
    ({ place, number, turn, code, depth, state }) =>
      new Feature({
        geometry: new Point([...place!]),
        name: `${code} ${number}`,
        ...(format === 'geojson' ? { bag: code, core: number, turn, depth_cm: depth, state } : {}),
      }),
  );
  const way =
    cores.length > 1
      ? [new Feature({ geometry: new LineString(cores.map(({ place }) => [...place!])), name: 'the walk' })]
      : [];
  return format === 'gpx'
    ? new GPX().writeFeatures([...points, ...way])
    : JSON.stringify(new GeoJSON().writeFeaturesObject([...points, ...way]), null, 1);
}

/** Hand the planned cores of a site to the person as a file. */
export function savePoints(site: string, bags: readonly BagAnswer[], format: PointFormat): void {
  const type = format === 'gpx' ? 'application/gpx+xml' : 'application/geo+json';
  const name = site.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  download(`${name}-cores.${format}`, writePoints(bags, format), type);
}
