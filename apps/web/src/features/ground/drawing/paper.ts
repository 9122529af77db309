import { type UnitSystem, convert } from '@glenfold/agronomy';
import { type Described, HATCH, evenStep, zoneLook } from '@glenfold/contract';
import { Circle, Fill, RegularShape, Stroke, Style, Text } from 'ol/style.js';
import type { Options as TextOptions } from 'ol/style/Text.js';
import { colours } from '../../../ui/theme.ts';

const patterns = new Map<string, CanvasPattern | string>();

/** A hatching as a canvas paints it, drawn once for each device. */
function hatching(strokes: string, ink: string, ground: string): CanvasPattern | string {
  const key = `${strokes} ${ink} ${ground}`;
  const known = patterns.get(key);
  if (known !== undefined) return known;
  const scale = window.devicePixelRatio;
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = Math.round(HATCH * scale);
  const context = canvas.getContext('2d');
  if (!context) return ground;
  context.scale(scale, scale);
  context.fillStyle = ground;
  context.fillRect(0, 0, HATCH, HATCH);
  context.strokeStyle = ink;
  context.lineWidth = 0.8;
  context.stroke(new Path2D(strokes));
  const pattern = context.createPattern(canvas, 'repeat') ?? ground;
  patterns.set(key, pattern);
  return pattern;
}

/** Words on the sheet; where they would lie on one another, the later give way. */
const label = (text: string, bold: boolean, more: TextOptions = {}): Text =>
  new Text({
    text,
    font: `${bold ? 700 : 400} 13px "Atkinson Hyperlegible", sans-serif`,
    fill: new Fill({ color: colours.ink }),
    stroke: new Stroke({ color: colours.sheet, width: 4 }),
    ...more,
  });

/**
 * A zone: hatched by its place in the list, the chosen one warm and heavy.
 * @param dress ground of its own, such as by section; `clear` lets what lies under it be seen
 */
export function zoneStyle(position: number, chosen: boolean, dress?: string, clear = false): Style {
  const look = zoneLook(position);
  const wash = dress ?? (chosen ? colours.ochreWash : look.ground);
  return new Style({
    fill: new Fill({ color: hatching(look.strokes, look.ink, clear ? `${wash}66` : wash) }),
    stroke: new Stroke({ color: colours.ink, width: chosen ? 3 : 1.4 }),
    zIndex: chosen ? 2 : 1,
  });
}

/** A zone's name, over everything else that is drawn. */
export function zoneLabelStyle(name: string, chosen: boolean): Style {
  return new Style({ text: label(name, chosen, { overflow: true }), zIndex: chosen ? 2 : 1 });
}

/** A thing on the ground. `metresPerPixel` sizes a canopy. */
export function featureStyle({ kind, text, look }: Described, chosen: boolean, metresPerPixel: number): Style[] {
  const edge = chosen ? colours.ochre : colours.ink;
  const zIndex = chosen ? 5 : 3;
  if (look.as === 'ground')
    return [
      new Style({
        fill: new Fill({ color: hatching(look.strokes, look.ink, look.ground) }),
        stroke: new Stroke({ color: edge, width: chosen ? 2.6 : 1 }),
        text: label(text ?? kind, chosen, { overflow: chosen }),
        zIndex,
      }),
    ];
  if (look.as === 'line')
    return [
      new Style({
        stroke: new Stroke({ color: look.ink, width: chosen ? 4 : 2.2, lineDash: [...look.dash] }),
        text: new Text({
          text: text ?? kind,
          placement: 'line',
          font: '400 12px "Atkinson Hyperlegible", sans-serif',
          fill: new Fill({ color: look.ink }),
          stroke: new Stroke({ color: colours.sheet, width: 3 }),
          textBaseline: 'bottom',
        }),
        zIndex,
      }),
    ];
  if (look.as === 'tree') {
    const radius = Math.max(4, (look.canopy ?? 2) / metresPerPixel);
    return [
      new Style({
        image: new Circle({
          declutterMode: 'none',
          radius,
          fill: new Fill({ color: 'rgba(85, 111, 63, 0.22)' }),
          stroke: new Stroke({
            color: chosen ? colours.ochre : colours.lichen,
            width: chosen ? 2.6 : 1.4,
            lineDash: [5, 3],
          }),
        }),
        zIndex,
      }),
      new Style({
        image: new RegularShape({
          declutterMode: 'none',
          points: 5,
          radius: 6,
          radius2: 3,
          fill: new Fill({ color: colours.lichen }),
        }),
        ...(text ? { text: label(text, chosen, { offsetY: 15 }) } : {}),
        zIndex: zIndex + 1,
      }),
    ];
  }
  const fill = new Fill({ color: colours.sheet });
  const stroke = new Stroke({ color: edge, width: chosen ? 2.6 : 1.5 });
  if (look.as === 'height')
    return [
      new Style({
        image: new RegularShape({
          declutterMode: 'none',
          points: 4,
          radius: 6,
          radius2: 0,
          angle: Math.PI / 4,
          stroke,
        }),
        text: label(text ?? '', chosen, { offsetY: -12 }),
        zIndex: zIndex + 1,
      }),
    ];
  const { letter, corners: points } = look;
  return [
    new Style({
      image:
        points === 0
          ? new Circle({ declutterMode: 'none', radius: 9, fill, stroke })
          : new RegularShape({ declutterMode: 'none', points, radius: 12, fill, stroke }),
      text: new Text({
        text: letter,
        declutterMode: 'none',
        font: '700 11px "Atkinson Hyperlegible", sans-serif',
        fill: new Fill({ color: colours.ink }),
        offsetY: points === 3 ? 2 : 1,
      }),
      zIndex: zIndex + 1,
    }),
  ];
}

/** A place that is pointed out: a flag with its word. */
export function markStyle(text: string, strong: boolean): Style {
  return new Style({
    image: new RegularShape({
      points: 3,
      radius: 8,
      rotation: Math.PI,
      displacement: [0, 7],
      fill: new Fill({ color: colours.ochre }),
      stroke: new Stroke({ color: colours.sheet, width: 1.5 }),
    }),
    text: label(text, strong, { offsetY: -17 }),
    zIndex: strong ? 2 : 1,
  });
}

/** Ground that two zones claim, or that none does. */
export const faultStyle = new Style({
  fill: new Fill({ color: 'rgba(168, 91, 20, 0.45)' }),
  stroke: new Stroke({ color: colours.ochre, width: 2 }),
  zIndex: 8,
});

/** What is being drawn. */
export const penStyle = [
  new Style({
    fill: new Fill({ color: 'rgba(240, 223, 201, 0.5)' }),
    stroke: new Stroke({ color: colours.ochre, width: 2.4 }),
    image: new Circle({
      radius: 5,
      fill: new Fill({ color: colours.sheet }),
      stroke: new Stroke({ color: colours.ochre, width: 2 }),
    }),
    zIndex: 10,
  }),
];

/** Steps of the grid in metres: whole metres or whole feet, lines at least 44 pixels apart. */
export function gridStep(metresPerPixel: number, system: UnitSystem): number {
  const foot = convert(1, 'ft', 'm');
  const unit = system === 'us' ? foot : 1;
  return evenStep((44 * metresPerPixel) / unit) * unit;
}

export const gridStyle = [
  new Style({ stroke: new Stroke({ color: '#E4DECF', width: 1 }) }),
  new Style({ stroke: new Stroke({ color: colours.line, width: 1.2 }) }),
] as const;
