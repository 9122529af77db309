/** By how much a pH in salt or CaCl₂ reads lower than in water, about. */
export const SALT_STEP = 0.6;

export const SALT_SOURCE = 'General difference of soil pH in 0.01 M CaCl₂ or 1 M KCl and in water, about 0.6';

/** A pH in salt or CaCl₂ as it would read in water. */
export function phInWater(saltPh: number): number {
  return Math.min(11, Math.round((saltPh + SALT_STEP) * 100) / 100);
}
