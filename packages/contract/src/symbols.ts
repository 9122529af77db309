import type { FeatureKind } from '@glenfold/agronomy';

/** The colours of the house, on screen and on paper; nothing else is used. */
export const colours = {
  paper: '#F6F3EC',
  sheet: '#FCFAF5',
  ink: '#22302B',
  faded: '#55605A',
  line: '#CFC8B8',
  ochre: '#A85B14',
  ochreWash: '#F0DFC9',
  lichen: '#55733F',
  lichenWash: '#E1E6D3',
  slate: '#3F566B',
  slateWash: '#DCE2E6',
} as const;

/** Side of the square in which a hatching repeats. */
export const HATCH = 10;

/** Strokes of the zones' hatchings, by place in the list; they stay apart in print and for colour-blind readers. */
export const zoneHatches: readonly string[] = [
  'M-2 12L12 -2M-2 2L2 -2M8 12L12 8',
  'M-2 -2L12 12M8 -2L12 2M-2 8L2 12',
  'M0 5H10',
  'M5 0V10',
  'M-2 12L12 -2M-2 -2L12 12',
  'M0 2.5H10M2.5 0V10',
];

interface Filling {
  readonly strokes: string;
  readonly ink: string;
  readonly ground: string;
}

const { ink, faded, line, paper, ochre, slate, slateWash } = colours;
const DOTS = 'M2 2h.9M7 7h.9';

/** Ground that is not treated. */
export const fillings: Readonly<Partial<Record<FeatureKind, Filling>>> = {
  bed: { strokes: DOTS, ink: ochre, ground: paper },
  building: { strokes: 'M-2 12L12 -2M3 12L12 3M-2 7L7 -2', ink, ground: line },
  drive: { strokes: DOTS, ink, ground: '#E4DFD3' },
  path: { strokes: 'M0 0H10M0 5H10M3 0V5M8 5V10', ink: faded, ground: '#EDE8DC' },
  pond: { strokes: 'M0 4q2.5 -2.5 5 0t5 0', ink: slate, ground: slateWash },
};

export const lineDashes: Readonly<Partial<Record<FeatureKind, { readonly ink: string; readonly dash: number[] }>>> = {
  'buried line': { ink: ochre, dash: [12, 5, 2, 5] },
  irrigation: { ink: slate, dash: [8, 5] },
  fence: { ink, dash: [2, 5] },
};

/** Letters and corners of the small things, so that none is told by colour alone; a circle has no corners. */
export const marks: Readonly<Partial<Record<FeatureKind, { readonly letter: string; readonly corners: number }>>> = {
  gate: { letter: 'G', corners: 4 },
  tap: { letter: 'T', corners: 0 },
  downspout: { letter: 'S', corners: 3 },
  drain: { letter: 'D', corners: 0 },
};

/** Steps at which a grid or a scale bar is told: 1, 2 and 5 times a power of ten. */
export function evenStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  return ([1, 2, 5, 10].find((step) => step * power >= least * (1 - 1e-9)) ?? 10) * power;
}
