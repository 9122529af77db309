import type { UnitSystem } from '@glenfold/agronomy';
import { convert } from '@glenfold/agronomy';
import type { DrawingAnswer } from '@glenfold/contract';
import Feature from 'ol/Feature.js';
import GPX from 'ol/format/GPX.js';
import GeoJSON from 'ol/format/GeoJSON.js';
import KML from 'ol/format/KML.js';
import { LineString, MultiLineString, MultiPolygon, Point, Polygon } from 'ol/geom.js';
import papaparse from 'papaparse';

export const formats = {
  geojson: { label: 'GeoJSON, everything', type: 'application/geo+json' },
  kml: { label: 'KML, for maps', type: 'application/vnd.google-earth.kml+xml' },
  gpx: { label: 'GPX, for a receiver', type: 'application/gpx+xml' },
  csv: { label: 'CSV, zones with areas', type: 'text/csv' },
} as const;
export type Format = keyof typeof formats;

const geojson = new GeoJSON();

/** How a zone is kept, under the names that it comes back by. */
const careOf = ({ grass, surface, intensity, shade, clippings, soilGroup }: Care): Care => ({
  ...{ grass, surface, intensity, shade, clippings },
  ...(soilGroup == null ? {} : { soilGroup }),
});
type Care = Pick<
  DrawingAnswer['zones'][number],
  'grass' | 'surface' | 'intensity' | 'shade' | 'clippings' | 'soilGroup'
>;

/**
 * All that is drawn, and what is written of it; what a foreign file said goes out again.
 * @param withFacts what is known of the ground too, where the format takes more than words and numbers
 */
function featuresOf({ zones, features }: DrawingAnswer, withFacts = false): Feature[] {
  const made = (geometry: unknown, properties: object): Feature =>
    new Feature({ ...properties, geometry: geojson.readGeometry(geometry) ?? undefined });
  const drawn = zones.filter(({ geometry }) => geometry);
  return [
    ...drawn.map(({ geometry, name, label, area, properties, facts, ...zone }) =>
      made(geometry, {
        ...{ ...properties, ...careOf(zone), name, label, kind: 'zone', area_m2: area },
        ...(withFacts && Object.keys(facts).length > 0 ? { facts } : {}),
      }),
    ),
    ...features.map(({ geometry, name, kind, canopyRadius, height, properties }) =>
      made(geometry, {
        ...properties,
        name: name ?? kind,
        kind,
        ...(canopyRadius == null ? {} : { canopy_radius_m: canopyRadius }),
        ...(height == null ? {} : { height_m: height }),
      }),
    ),
  ];
}

/** A receiver knows tracks and waypoints, no areas: an outline is the way round it. */
function forReceiver(feature: Feature): Feature {
  const geometry = feature.getGeometry();
  const lines =
    geometry instanceof Polygon
      ? geometry.getCoordinates()
      : geometry instanceof MultiPolygon
        ? geometry.getCoordinates().flat()
        : geometry instanceof LineString
          ? [geometry.getCoordinates()]
          : null;
  const name: unknown = feature.get('name');
  const kind: unknown = feature.get('kind');
  return new Feature({ name, type: kind, geometry: lines ? new MultiLineString(lines) : geometry });
}

function table({ zones }: DrawingAnswer, units: UnitSystem): string {
  const unit = units === 'us' ? 'ft2' : 'm2';
  const rows = zones.map(({ name, label, area, grass, soilGroup, shade, facts, geometry, properties }) => ({
    ...properties,
    Zone: name,
    Label: label,
    [`Area (${unit})`]: Math.round(convert(area, 'm2', unit) * 10) / 10,
    Measured: geometry ? 'on the plan' : 'as typed',
    Grass: grass,
    Soil: soilGroup ?? '',
    Shade: shade,
    Section: facts.section ?? '',
  }));
  const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  const known = ['Zone', 'Label', `Area (${unit})`, 'Measured', 'Grass', 'Soil', 'Shade', 'Section'];
  return papaparse.unparse(
    { fields: [...known, ...columns.filter((name) => !known.includes(name))], data: rows },
    // Spreadsheets take a cell that begins so for a formula.
    { escapeFormulae: /^[=+\-@\t\r]/ },
  );
}

/** The schema wants an outline before what is left out of it. */
function outlinesFirst(kml: string): string {
  const document = new DOMParser().parseFromString(kml, 'text/xml');
  for (const outer of document.getElementsByTagName('outerBoundaryIs')) outer.parentElement?.prepend(outer);
  return new XMLSerializer().serializeToString(document);
}

/** The plan in an open format, WGS84. */
export function writePlan(plan: DrawingAnswer, format: Format, units: UnitSystem): string {
  switch (format) {
    case 'geojson':
      // Rings as RFC 7946 has them: what lies within an outline is on the left of its way.
      return JSON.stringify(geojson.writeFeaturesObject(featuresOf(plan, true), { rightHanded: true }), null, 1);
    case 'kml':
      return outlinesFirst(new KML().writeFeatures(featuresOf(plan)));
    case 'gpx': {
      // The schema wants waypoints before tracks.
      const made = featuresOf(plan).map(forReceiver);
      const isPoint = (feature: Feature): boolean => feature.getGeometry() instanceof Point;
      return new GPX().writeFeatures([...made.filter(isPoint), ...made.filter((feature) => !isPoint(feature))]);
    }
    case 'csv':
      return table(plan, units);
  }
}
