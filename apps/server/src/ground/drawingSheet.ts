import { type UnitSystem, convert, exclusionKinds, lineKinds, pointKinds, present } from '@glenfold/agronomy';
import {
  type Outline,
  Plane,
  type PlanePoint,
  type Position,
  cornersOf,
  endsOf,
  innerPlace,
  pathOf,
  perMetreWithin,
  placedIn,
} from '@glenfold/agronomy/geometry';
import {
  type Described,
  type DrawingAnswer,
  HATCH,
  type Look,
  type ZoneAnswer,
  colours,
  describeDrawing,
  evenStep,
  lookOf,
  zoneHatches,
  zoneLook,
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
  readonly at: (position: Position) => readonly [x: number, y: number];
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
const reachOf = (drawn: readonly Described[], plane: Plane): PlanePoint[] =>
  drawn.flatMap(({ geometry, look }) => {
    const radius = look.as === 'tree' ? (look.canopy ?? 0) : 0;
    return cornersOf(geometry)
      .map((corner) => plane.toPlane(corner))
      .flatMap(([east, north]): PlanePoint[] => [
        [east - radius, north - radius],
        [east + radius, north + radius],
      ]);
  });

/** @param zoneIds what the drawing is about; all of it when left out */
function layOut(whole: readonly Described[], units: UnitSystem, zoneIds?: readonly string[]): Sheet | undefined {
  const about = zoneIds ? whole.filter(({ id }) => zoneIds.includes(id)) : whole;
  const [first] = about.flatMap(({ geometry }) => cornersOf(geometry));
  if (!first) return undefined;
  const plane = new Plane(first);
  const ends = endsOf(reachOf(about, plane));
  const { width, height } = sheetSize(units);
  const box = { x: MARGIN, y: TOP, width: width - 2 * MARGIN - COLUMN - 16, height: height - TOP - MARGIN - 34 };
  const room = 8;
  const most = perMetreWithin(ends, { ...box, width: box.width - 2 * room, height: box.height - 2 * room });
  const scale = scales[units].find((each) => POINTS / each <= most) ?? 20_000;
  const perMetre = POINTS / scale;
  const place = placedIn(ends, box, perMetre);
  return { at: (position) => place(plane.toPlane(position)), scale, perMetre, box, units };
}

/** Text of a sheet, for what stands beside a drawing. */
export const sheetWords = words;

function pattern(id: string, strokes: string, ink: string): string {
  return `<pattern id="${id}" width="${HATCH}" height="${HATCH}" patternUnits="userSpaceOnUse"><path d="${strokes}" fill="none" stroke="${ink}" stroke-width="0.6"/></pattern>`;
}

/** Ground and hatching in two coats: a coat of tiles alone would show their seams. */
function hatched(path: string, ground: string, hatching: string, stroke: number): string {
  return `<path d="${path}" fill="${ground}" fill-rule="evenodd"/><path d="${path}" fill="url(#${hatching})" fill-rule="evenodd" stroke="${colours.ink}" stroke-width="${stroke}"/>`;
}

const square = (x: number, y: number, width: number, height: number): string =>
  `M${round(x)} ${round(y)}h${width}v${height}h-${width}z`;

function patterns(): string {
  const grounds = [
    ...zoneHatches.map((_strokes, index) => zoneLook(index)),
    ...exclusionKinds.map((kind) => lookOf(kind)),
  ];
  const each = grounds.map((look) => (look.as === 'ground' ? pattern(look.hatching, look.strokes, look.ink) : ''));
  return `<defs>${each.join('')}</defs>`;
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

/** A thing that stands at one place, without its canopy. */
function mark(look: Look, x: number, y: number, size = 6): string {
  if (look.as === 'tree')
    return `<circle cx="${round(x)}" cy="${round(y)}" r="${size / 2.4}" fill="${colours.lichen}"/>`;
  if (look.as !== 'mark')
    return `<path d="M${round(x - 3)} ${round(y)}h6M${round(x)} ${round(y - 3)}v6" stroke="${colours.ink}" stroke-width="1"/>`;
  const { letter, corners } = look;
  const edge = `fill="${colours.sheet}" stroke="${colours.ink}" stroke-width="0.9"`;
  const around = (count: number): string =>
    Array.from({ length: count }, (_, index) => {
      const angle = (2 * Math.PI * index) / count - Math.PI / 2;
      return `${round(x + 1.3 * size * Math.cos(angle))},${round(y + 1.3 * size * Math.sin(angle))}`;
    }).join(' ');
  const shape =
    corners === 0
      ? `<circle cx="${round(x)}" cy="${round(y)}" r="${size}" ${edge}/>`
      : `<polygon points="${around(corners)}" ${edge}/>`;
  return `${shape}${words(x, y + 2.6, letter, { size: 7, bold: true, anchor: 'middle' })}`;
}

const dashed = (path: string, { ink, dash }: Extract<Look, { as: 'line' }>, by = 1): string =>
  `<path d="${path}" fill="none" stroke="${ink}" stroke-width="1.3" stroke-dasharray="${dash.map((part) => part * by).join(' ')}"/>`;

function thing(sheet: Sheet, { geometry, text, look }: Described): string {
  const path = pathOf(geometry, sheet.at);
  if (look.as === 'ground') {
    const [x, y] = sheet.at(innerPlace(geometry as Outline).at);
    const ground = hatched(path, look.ground, look.hatching, 0.7);
    return text ? `${ground}${words(x, y + 3, text, { size: 7, anchor: 'middle' })}` : ground;
  }
  if (look.as === 'line') return dashed(path, look);
  const [x, y] = sheet.at(cornersOf(geometry)[0]!);
  const canopy =
    look.as === 'tree' && look.canopy
      ? `<circle cx="${round(x)}" cy="${round(y)}" r="${round(look.canopy * sheet.perMetre)}" fill="${colours.lichen}" fill-opacity="0.18" stroke="${colours.lichen}" stroke-width="0.8" stroke-dasharray="4 2.5"/>`
      : '';
  const below = look.as === 'mark' ? 14 : 10;
  return `${canopy}${mark(look, x, y)}${text ? words(x, y + below, text, { size: 6.5, anchor: 'middle' }) : ''}`;
}

const isZone = ({ kind }: Described): boolean => kind === 'zone';

function drawnZones(sheet: Sheet, drawn: readonly Described[]): { readonly grounds: string; readonly labels: string } {
  const grounds: string[] = [];
  const labels: string[] = [];
  for (const { look, geometry, text, position } of drawn.filter(isZone)) {
    if (look.as === 'ground') grounds.push(hatched(pathOf(geometry, sheet.at), look.ground, look.hatching, 1.1));
    const name = text ?? '';
    const { at, width } = innerPlace(geometry as Outline);
    const [x, y] = sheet.at(at);
    const fits = name.length * 4.6 + 22 < width * sheet.perMetre;
    const half = fits ? (name.length * 4.6 + 16) / 2 : 8;
    labels.push(
      `<rect x="${round(x - half)}" y="${round(y - 7)}" width="${round(2 * half)}" height="13" fill="${colours.sheet}" fill-opacity="0.88"/>`,
      words(x, y + 3, fits ? `${position + 1}  ${name}` : `${position + 1}`, {
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
  drawn: readonly Described[],
  x: number,
  bottom: number,
): { readonly drawn: string; readonly top: number } {
  const used = [...exclusionKinds, ...lineKinds, ...pointKinds].filter((kind) =>
    drawn.some((each) => each.kind === kind),
  );
  const rows = Math.ceil(used.length / 2);
  const top = bottom - rows * 15;
  const rowsDrawn = used.map((kind, index) => {
    const [left, y] = [x + (index % 2) * (COLUMN / 2), top + Math.floor(index / 2) * 15 + 8];
    const look = lookOf(kind);
    const symbol =
      look.as === 'ground'
        ? hatched(square(left, y - 5, 16, 9), look.ground, look.hatching, 0.6)
        : look.as === 'line'
          ? dashed(`M${left} ${y}h18`, look, 0.5)
          : mark(look, left + 8, y - 0.5, 5);
    return `${symbol}${words(left + 22, y + 3, capital(kind), { size: 8 })}`;
  });
  return { drawn: rowsDrawn.join(''), top };
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
    const { ground, hatching } = zoneLook(index);
    const swatch = zone.geometry ? hatched(square(x, y - 8, 14, 10), ground, hatching, 0.6) : '';
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
  readonly places: ReadonlyArray<{ readonly at: Position; readonly text: string }>;
  readonly way: readonly Position[];
  /** Stands beside the drawing, in place of areas and legend. */
  readonly beside: (x: number, top: number, bottom: number, width: number) => string;
}

function worked(sheet: Sheet, { places, way }: SheetWork): string {
  const dots = places.map(({ at, text }) => {
    const [x, y] = sheet.at(at);
    return `<circle cx="${round(x)}" cy="${round(y)}" r="3.2" fill="${colours.sheet}" stroke="${colours.ink}" stroke-width="1.2"/>${words(x + 5, y - 3, text, { size: 8.5, bold: true })}`;
  });
  const line = { type: 'LineString', coordinates: way.map((position) => [...position]) } as const;
  const path = way.length > 1 ? pathOf(line, sheet.at) : '';
  return `<path d="${path}" fill="none" stroke="${colours.slate}" stroke-width="0.7" stroke-dasharray="1.5 2"/>${dots.join('')}`;
}

/** Zones without hatching: places on them are to be read. */
function plainZones(sheet: Sheet, drawn: readonly Described[], { zoneIds }: SheetWork): string {
  return drawn
    .filter(isZone)
    .map(({ id, geometry }) => {
      const own = zoneIds.includes(id);
      return `<path d="${pathOf(geometry, sheet.at)}" fill="${own ? colours.lichenWash : 'none'}" fill-rule="evenodd" stroke="${own ? colours.ink : colours.faded}" stroke-width="${own ? 1.2 : 0.6}"/>`;
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
  const drawn = describeDrawing(plan, units);
  const sheet = layOut(drawn, units, work?.zoneIds);
  const column = width - MARGIN - COLUMN;
  const parts = [
    `<rect width="${width}" height="${height}" fill="#FFFFFF"/>`,
    words(MARGIN, 52, `${site.name}: ${work?.title ?? 'plan of the ground'}`, { size: 19, family: 'Bitter' }),
    words(MARGIN, 66, [site.place, by].filter(Boolean).join('. '), { size: 9, colour: colours.slate }),
    `<path d="M${width - MARGIN - 12} 66V36M${width - MARGIN - 12} 32l-5 12 5 -3.5 5 3.5z" fill="${colours.ink}" stroke="${colours.ink}" stroke-width="1.2"/>`,
    words(width - MARGIN - 2, 64, 'N', { size: 10, bold: true }),
  ];
  const bottom = height - MARGIN;
  const key = sheet ? legend(drawn, column, bottom - 22) : { drawn: '', top: bottom - 22 };
  const table = areasTable(plan.zones, column, TOP + 10, key.top - 8, units);
  if (sheet) {
    const { box } = sheet;
    const clip = `<clipPath id="paper"><rect x="${box.x}" y="${box.y}" width="${round(box.width)}" height="${round(box.height)}"/></clipPath>`;
    const { grounds, labels } = drawnZones(sheet, drawn);
    const things = drawn.filter((each) => !isZone(each) && !(work && each.kind === 'spot height'));
    parts.push(
      grid(sheet),
      `${clip}<g clip-path="url(#paper)">`,
      work ? plainZones(sheet, drawn, work) : grounds,
      ...things.map((each) => thing(sheet, each)),
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
