import {
  type FeatureKind,
  type UnitSystem,
  convert,
  exclusionKinds,
  isExclusion,
  lineKinds,
  pointKinds,
  present,
} from '@glenfold/agronomy';
import { type Outline, Plane, type PlanePoint, innerPlace } from '@glenfold/agronomy/geometry';
import {
  type GroundFeatureAnswer,
  type DrawingAnswer,
  HATCH,
  type ZoneAnswer,
  colours,
  evenStep,
  fillings,
  lineDashes,
  marks,
  zoneHatches,
} from '@glenfold/contract';

/** The sheet in points of 1/72 in: landscape A4, or Letter where feet are read. */
export const sheetSize = (units: UnitSystem): { readonly width: number; readonly height: number } =>
  units === 'us' ? { width: 792, height: 612 } : { width: 842, height: 595 };

const MARGIN = 36;
const COLUMN = 196;
const TOP = 74;
/** Points to a metre on paper. */
const POINTS = 72 / 0.0254;
/** What a rule or an architect's scale has. */
const scales: Readonly<Record<UnitSystem, readonly number[]>> = {
  metric: [25, 50, 100, 200, 250, 500, 1000, 1250, 2000, 2500, 5000, 10_000],
  us: [24, 60, 120, 240, 360, 480, 600, 720, 1200, 2400, 4800, 9600],
};

interface Sheet {
  readonly at: (position: readonly number[]) => readonly [x: number, y: number];
  /** 1 : scale. */
  readonly scale: number;
  /** Points to a metre of ground. */
  readonly perMetre: number;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly units: UnitSystem;
}

const escape = (text: string): string =>
  text
    .replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`)
    .replace(/[₀-₉]/g, (digit) => String(digit.charCodeAt(0) - 0x2080));
const round = (value: number): number => Math.round(value * 100) / 100;

interface TextLook {
  readonly size?: number;
  readonly bold?: boolean;
  readonly anchor?: 'start' | 'middle' | 'end';
  readonly colour?: string;
  readonly family?: 'Atkinson' | 'Bitter';
}

function words(x: number, y: number, text: string, look: TextLook = {}): string {
  const { size = 9, bold = false, anchor = 'start', colour = colours.ink, family = 'Atkinson' } = look;
  return `<text x="${round(x)}" y="${round(y)}" font-family="${family}" font-size="${size}" font-weight="${bold ? 'bold' : 'normal'}" text-anchor="${anchor}" fill="${colour}">${escape(text)}</text>`;
}

/** Every place that is drawn, with a tree's canopy. */
function extentOf(
  plan: Pick<DrawingAnswer, 'zones' | 'features'>,
  plane: Plane,
): readonly [west: number, south: number, east: number, north: number] {
  const reach: PlanePoint[] = [...plan.zones, ...plan.features].flatMap((record) => {
    const { geometry } = record;
    if (!geometry) return [];
    const flat = geometry.coordinates.flat(3);
    const radius = 'canopyRadius' in record ? (record.canopyRadius ?? 0) : 0;
    return Array.from({ length: flat.length / 2 }, (_, index) =>
      plane.toPlane([flat[2 * index]!, flat[2 * index + 1]!]),
    ).flatMap(([east, north]): PlanePoint[] => [
      [east - radius, north - radius],
      [east + radius, north + radius],
    ]);
  });
  const ends = (axis: 0 | 1): readonly [number, number] => {
    const values = reach.map((point) => point[axis]);
    return [Math.min(...values), Math.max(...values)];
  };
  const [[west, east], [south, north]] = [ends(0), ends(1)];
  return [west, south, east, north];
}

/** @param zoneIds what the drawing is about; all of it when left out */
function layOut(whole: DrawingAnswer, units: UnitSystem, zoneIds?: readonly string[]): Sheet | undefined {
  const plan = zoneIds ? { zones: whole.zones.filter(({ id }) => zoneIds.includes(id)), features: [] } : whole;
  const first = [...plan.zones, ...plan.features].find(({ geometry }) => geometry)?.geometry;
  if (!first) return undefined;
  const [longitude = 0, latitude = 0] = first.coordinates.flat(3);
  const plane = new Plane([longitude, latitude]);
  const [west, south, east, north] = extentOf(plan, plane);
  const { width, height } = sheetSize(units);
  const box = { x: MARGIN, y: TOP, width: width - 2 * MARGIN - COLUMN - 16, height: height - TOP - MARGIN - 34 };
  const room = 8;
  const fits = (scale: number): boolean =>
    ((east - west) * POINTS) / scale <= box.width - 2 * room &&
    ((north - south) * POINTS) / scale <= box.height - 2 * room;
  const scale = scales[units].find(fits) ?? 20_000;
  const perMetre = POINTS / scale;
  const [middleEast, middleNorth] = [(west + east) / 2, (south + north) / 2];
  const at = ([lon = 0, lat = 0]: readonly number[]): readonly [number, number] => {
    const [x, y] = plane.toPlane([lon, lat]);
    return [box.x + box.width / 2 + (x - middleEast) * perMetre, box.y + box.height / 2 - (y - middleNorth) * perMetre];
  };
  return { at, scale, perMetre, box, units };
}

const pathOf = ({ at }: Sheet, rings: ReadonlyArray<ReadonlyArray<readonly number[]>>, closed: boolean): string =>
  rings
    .map((ring) => `M${ring.map((corner) => at(corner).map(round).join(' ')).join('L')}${closed ? 'Z' : ''}`)
    .join('');

/** Text of a sheet, for what stands beside a drawing. */
export const sheetWords = words;

const ringsOf = ({ geometry }: { readonly geometry?: ZoneAnswer['geometry'] | GroundFeatureAnswer['geometry'] }) =>
  geometry?.type === 'Polygon'
    ? geometry.coordinates
    : geometry?.type === 'MultiPolygon'
      ? geometry.coordinates.flat()
      : [];

function pattern(id: string, strokes: string, ink: string): string {
  return `<pattern id="${id}" width="${HATCH}" height="${HATCH}" patternUnits="userSpaceOnUse"><path d="${strokes}" fill="none" stroke="${ink}" stroke-width="0.6"/></pattern>`;
}

/** Ground and hatching in two coats: a coat of tiles alone would show their seams. */
function hatched(path: string, ground: string, hatching: string, stroke: number): string {
  return `<path d="${path}" fill="${ground}" fill-rule="evenodd"/><path d="${path}" fill="url(#${hatching})" fill-rule="evenodd" stroke="${colours.ink}" stroke-width="${stroke}"/>`;
}

const square = (x: number, y: number, width: number, height: number): string =>
  `M${round(x)} ${round(y)}h${width}v${height}h-${width}z`;

const zonePattern = (index: number): string => `zone-${index % zoneHatches.length}`;

function patterns(): string {
  const zones = zoneHatches.map((strokes, index) => pattern(zonePattern(index), strokes, colours.faded));
  const things = Object.entries(fillings).map(([kind, { strokes, ink }]) => pattern(kind, strokes, ink));
  return `<defs>${zones.join('')}${things.join('')}</defs>`;
}

/** Metres of ground between the lines of the grid: whole metres or feet, a finger's breadth apart. */
const gridOf = ({ perMetre, units }: Sheet): number => {
  const unit = units === 'us' ? convert(1, 'ft', 'm') : 1;
  return evenStep(34 / perMetre / unit) * unit;
};

function grid(sheet: Sheet): string {
  const { box, perMetre } = sheet;
  const step = gridOf(sheet) * perMetre;
  const lines: string[] = [];
  for (let x = box.x + step; x < box.x + box.width; x += step) lines.push(`M${round(x)} ${box.y}v${round(box.height)}`);
  for (let y = box.y + box.height - step; y > box.y; y -= step) lines.push(`M${box.x} ${round(y)}h${round(box.width)}`);
  return `<path d="${lines.join('')}" stroke="#E9E4D8" stroke-width="0.5" fill="none"/>`;
}

function mark(kind: FeatureKind, x: number, y: number, size = 6): string {
  if (kind === 'tree') return `<circle cx="${round(x)}" cy="${round(y)}" r="${size / 2.4}" fill="${colours.lichen}"/>`;
  if (kind === 'spot height')
    return `<path d="M${round(x - 3)} ${round(y)}h6M${round(x)} ${round(y - 3)}v6" stroke="${colours.ink}" stroke-width="1"/>`;
  const { letter, corners } = marks[kind]!;
  const look = `fill="${colours.sheet}" stroke="${colours.ink}" stroke-width="0.9"`;
  const around = (count: number): string =>
    Array.from({ length: count }, (_, index) => {
      const angle = (2 * Math.PI * index) / count - Math.PI / 2;
      return `${round(x + 1.3 * size * Math.cos(angle))},${round(y + 1.3 * size * Math.sin(angle))}`;
    }).join(' ');
  const shape =
    corners === 0
      ? `<circle cx="${round(x)}" cy="${round(y)}" r="${size}" ${look}/>`
      : `<polygon points="${around(corners)}" ${look}/>`;
  return `${shape}${words(x, y + 2.6, letter, { size: 7, bold: true, anchor: 'middle' })}`;
}

function thing(sheet: Sheet, feature: GroundFeatureAnswer): string {
  const { kind, geometry, name, canopyRadius, height } = feature;
  if (isExclusion(kind)) {
    const [x, y] = sheet.at(innerPlace(geometry as Outline).at);
    const path = hatched(pathOf(sheet, ringsOf(feature), true), fillings[kind]!.ground, kind, 0.7);
    return name ? `${path}${words(x, y + 3, name, { size: 7, anchor: 'middle' })}` : path;
  }
  if (geometry.type === 'LineString') {
    const { ink, dash } = lineDashes[kind]!;
    return `<path d="${pathOf(sheet, [geometry.coordinates], false)}" fill="none" stroke="${ink}" stroke-width="1.3" stroke-dasharray="${dash.join(' ')}"/>`;
  }
  if (geometry.type !== 'Point') return '';
  const [x, y] = sheet.at(geometry.coordinates);
  const canopy =
    kind === 'tree' && canopyRadius
      ? `<circle cx="${round(x)}" cy="${round(y)}" r="${round(canopyRadius * sheet.perMetre)}" fill="${colours.lichen}" fill-opacity="0.18" stroke="${colours.lichen}" stroke-width="0.8" stroke-dasharray="4 2.5"/>`
      : '';
  const spot = kind === 'spot height' && height != null ? present('spotHeight', height, sheet.units).text : name;
  const below = kind === 'tree' || kind === 'spot height' ? 10 : 14;
  return `${canopy}${mark(kind, x, y)}${spot ? words(x, y + below, spot, { size: 6.5, anchor: 'middle' }) : ''}`;
}

function drawnZones(sheet: Sheet, zones: readonly ZoneAnswer[]): { readonly grounds: string; readonly labels: string } {
  const grounds: string[] = [];
  const labels: string[] = [];
  for (const [index, zone] of zones.entries()) {
    if (!zone.geometry) continue;
    grounds.push(hatched(pathOf(sheet, ringsOf(zone), true), colours.lichenWash, zonePattern(index), 1.1));
    const { at, width } = innerPlace(zone.geometry);
    const [x, y] = sheet.at(at);
    const fits = zone.name.length * 4.6 + 22 < width * sheet.perMetre;
    const half = fits ? (zone.name.length * 4.6 + 16) / 2 : 8;
    labels.push(
      `<rect x="${round(x - half)}" y="${round(y - 7)}" width="${round(2 * half)}" height="13" fill="${colours.sheet}" fill-opacity="0.88"/>`,
      words(x, y + 3, fits ? `${index + 1}  ${zone.name}` : `${index + 1}`, {
        size: 8.5,
        bold: true,
        anchor: 'middle',
      }),
    );
  }
  return { grounds: grounds.join(''), labels: labels.join('') };
}

function scaleBar(sheet: Sheet): string {
  const { box, perMetre, scale, units } = sheet;
  const unit = units === 'us' ? convert(1, 'ft', 'm') : 1;
  const step = evenStep(55 / perMetre / unit);
  const length = step * unit * perMetre;
  const y = box.y + box.height + 20;
  const part = (index: number): string =>
    `<rect x="${round(box.x + index * length)}" y="${y - 5}" width="${round(length)}" height="5" fill="${index % 2 ? colours.sheet : colours.ink}" stroke="${colours.ink}" stroke-width="0.7"/>${words(box.x + index * length, y + 9, `${index * step}`, { size: 7.5, anchor: 'middle' })}`;
  const ratio =
    units === 'us' && scale % 12 === 0
      ? `1 in = ${scale / 12} ft (1 : ${scale}) when printed at full size`
      : `1 : ${scale} when printed at full size`;
  const step2 = present('length', gridOf(sheet), units).text;
  return `${part(0)}${part(1)}${words(box.x + 2 * length, y + 9, `${2 * step} ${units === 'us' ? 'ft' : 'm'}`, { size: 7.5, anchor: 'middle' })}${words(box.x + 2 * length + 26, y, ratio, { size: 8.5 })}${words(box.x + 2 * length + 26, y + 10, `Grid ${step2}. North is up.`, { size: 8, colour: colours.faded })}`;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function legend(
  features: readonly GroundFeatureAnswer[],
  x: number,
  bottom: number,
): { readonly drawn: string; readonly top: number } {
  const used = [...exclusionKinds, ...lineKinds, ...pointKinds].filter((kind) =>
    features.some((feature) => feature.kind === kind),
  );
  const rows = Math.ceil(used.length / 2);
  const top = bottom - rows * 15;
  const drawn = used.map((kind, index) => {
    const [left, y] = [x + (index % 2) * (COLUMN / 2), top + Math.floor(index / 2) * 15 + 8];
    const symbol = isExclusion(kind)
      ? hatched(square(left, y - 5, 16, 9), fillings[kind]!.ground, kind, 0.6)
      : lineDashes[kind]
        ? `<path d="M${left} ${y}h18" stroke="${lineDashes[kind].ink}" stroke-width="1.3" stroke-dasharray="${lineDashes[kind].dash.map((dash) => dash / 2).join(' ')}"/>`
        : mark(kind, left + 8, y - 0.5, 5);
    return `${symbol}${words(left + 22, y + 3, capital(kind), { size: 8 })}`;
  });
  return { drawn: drawn.join(''), top };
}

/** The table of zones that stands beside the drawing; what does not fit goes to a page of its own. */
function areasTable(
  zones: readonly ZoneAnswer[],
  x: number,
  top: number,
  bottom: number,
  units: UnitSystem,
): { readonly drawn: string; readonly shown: number } {
  const room = Math.floor((bottom - top - 30) / 15);
  const shown = zones.length <= room ? zones.length : room - 1;
  const right = x + COLUMN;
  const area = (value: number): string => present('area', value, units).text;
  const rows = zones.slice(0, shown).map((zone, index) => {
    const y = top + 12 + index * 15;
    const name = zone.name.length > 24 ? `${zone.name.slice(0, 23)}…` : zone.name;
    const swatch = zone.geometry ? hatched(square(x, y - 8, 14, 10), colours.lichenWash, zonePattern(index), 0.6) : '';
    return `${swatch}${words(x + 19, y, `${index + 1}`, { size: 8, bold: true })}${words(x + 32, y, name, { size: 8 })}${words(right, y, area(zone.area), { size: 8, anchor: 'end' })}<path d="M${x} ${y + 4}H${right}" stroke="${colours.line}" stroke-width="0.5"/>`;
  });
  const total = zones.reduce((sum, zone) => sum + zone.area, 0);
  const y = top + 12 + shown * 15;
  const more =
    shown < zones.length ? words(x + 32, y, `and ${zones.length - shown} more zones overleaf`, { size: 8 }) : '';
  const last = y + (more ? 15 : 0) + 1;
  return {
    drawn: `${rows.join('')}${more}${words(x, last, 'To treat, together', { size: 8.5, bold: true })}${words(right, last, area(total), { size: 8.5, bold: true, anchor: 'end' })}`,
    shown,
  };
}

/** A day's work on a part of the plan, in place of the plan as a whole. */
export interface SheetWork {
  readonly title: string;
  /** Zones that the sheet is about; it is drawn as large as they allow. */
  readonly zoneIds: readonly string[];
  /** Places with what is written beside them, and the way through them. */
  readonly places: ReadonlyArray<{ readonly at: readonly number[]; readonly text: string }>;
  readonly way: ReadonlyArray<readonly number[]>;
  /** Stands beside the drawing, in place of areas and legend. */
  readonly beside: (x: number, top: number, bottom: number, width: number) => string;
}

function worked(sheet: Sheet, { places, way }: SheetWork): string {
  const dots = places.map(({ at, text }) => {
    const [x, y] = sheet.at(at);
    return `<circle cx="${round(x)}" cy="${round(y)}" r="3.2" fill="${colours.sheet}" stroke="${colours.ink}" stroke-width="1.2"/>${words(x + 5, y - 3, text, { size: 8.5, bold: true })}`;
  });
  const path = way.length > 1 ? pathOf(sheet, [way], false) : '';
  return `<path d="${path}" fill="none" stroke="${colours.slate}" stroke-width="0.7" stroke-dasharray="1.5 2"/>${dots.join('')}`;
}

/** Zones without hatching: places on them are to be read. */
function plainZones(sheet: Sheet, zones: readonly ZoneAnswer[], { zoneIds }: SheetWork): string {
  return zones
    .filter(({ geometry }) => geometry)
    .map((zone) => {
      const own = zoneIds.includes(zone.id);
      return `<path d="${pathOf(sheet, ringsOf(zone), true)}" fill="${own ? colours.lichenWash : 'none'}" fill-rule="evenodd" stroke="${own ? colours.ink : colours.faded}" stroke-width="${own ? 1.2 : 0.6}"/>`;
    })
    .join('');
}

export interface DrawingSheet {
  readonly svg: string;
  /** How many zones the table beside the drawing holds. */
  readonly shown: number;
}

/**
 * The plan of a site on one sheet, to scale: drawing, scale bar, areas and legend.
 *
 * @returns an SVG whose user unit is a point of 1/72 in, with the fonts "Atkinson" and "Bitter"
 */
export function drawingSheet(
  site: { readonly name: string; readonly place: string | null },
  plan: DrawingAnswer,
  by: string,
  units: UnitSystem,
  work?: SheetWork,
): DrawingSheet {
  const { width, height } = sheetSize(units);
  const sheet = layOut(plan, units, work?.zoneIds);
  const column = width - MARGIN - COLUMN;
  const parts = [
    `<rect width="${width}" height="${height}" fill="#FFFFFF"/>`,
    words(MARGIN, 52, `${site.name}: ${work?.title ?? 'plan of the ground'}`, { size: 19, family: 'Bitter' }),
    words(MARGIN, 66, [site.place, by].filter(Boolean).join('. '), { size: 9, colour: colours.slate }),
    `<path d="M${width - MARGIN - 12} 66V36M${width - MARGIN - 12} 32l-5 12 5 -3.5 5 3.5z" fill="${colours.ink}" stroke="${colours.ink}" stroke-width="1.2"/>`,
    words(width - MARGIN - 2, 64, 'N', { size: 10, bold: true }),
  ];
  const bottom = height - MARGIN;
  const key = sheet ? legend(plan.features, column, bottom - 22) : { drawn: '', top: bottom - 22 };
  const table = areasTable(plan.zones, column, TOP + 10, key.top - 8, units);
  if (sheet) {
    const { box } = sheet;
    const clip = `<clipPath id="paper"><rect x="${box.x}" y="${box.y}" width="${round(box.width)}" height="${round(box.height)}"/></clipPath>`;
    const { grounds, labels } = drawnZones(sheet, plan.zones);
    const under = plan.features.filter(({ kind }) => isExclusion(kind)).map((feature) => thing(sheet, feature));
    const over = plan.features
      .filter(({ kind }) => !isExclusion(kind) && !(work && kind === 'spot height'))
      .map((feature) => thing(sheet, feature));
    parts.push(
      grid(sheet),
      `${clip}<g clip-path="url(#paper)">`,
      work ? plainZones(sheet, plan.zones, work) : grounds,
      ...under,
      ...over,
      work ? worked(sheet, work) : labels,
      '</g>',
      `<rect x="${box.x}" y="${box.y}" width="${round(box.width)}" height="${round(box.height)}" fill="none" stroke="${colours.ink}" stroke-width="0.8"/>`,
      scaleBar(sheet),
    );
  } else
    parts.push(
      words(MARGIN, TOP + 40, 'Nothing is drawn yet; the zones beside are known by their areas.', { size: 10 }),
    );
  if (work) parts.push(work.beside(column, TOP, bottom, COLUMN));
  else
    parts.push(
      words(column, TOP + 6, 'Zones', { size: 11, family: 'Bitter' }),
      table.drawn,
      key.drawn,
      words(column, bottom - 8, 'Areas are less what is not treated, on the', { size: 7, colour: colours.faded }),
      words(column, bottom + 1, 'ellipsoid. No survey: call before you dig.', { size: 7, colour: colours.faded }),
    );
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${patterns()}${parts.join('')}</svg>`,
    shown: table.shown,
  };
}
