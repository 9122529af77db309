import { limitTable as table } from './limitTable.ts';

export const degrees = ['small', 'clear', 'severe'] as const;
/** How much something limits a lawn. */
export type Degree = (typeof degrees)[number];

export const grade = (severe: boolean): Degree => (severe ? 'severe' : 'clear');

const EPS = 1e-9;

/** How far a pH lies outside the band, by degree; nothing inside it. */
export function phDegree(ph: number, [low, high]: readonly [number, number]): Degree | null {
  const out = ph < low ? low - ph : ph - high;
  if (out <= EPS) return null;
  if (out <= table.ph.small + EPS) return 'small';
  const extreme = ph < table.ph.severeBelow - EPS || ph > table.ph.severeAbove + EPS;
  return grade(out > table.ph.clear + EPS || extreme);
}
