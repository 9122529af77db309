import type { Material } from '../materials/material.ts';

/** pH up to which each chelate holds iron in the soil. */
const holdsTo: Readonly<Record<string, number>> = { EDTA: 6.5, HEDTA: 6.8, DTPA: 7.2, EDDHA: 9 };

/** Whether its iron stays open to roots at a pH. */
export const isChelateFor = ({ chelate }: Material, ph: number): boolean =>
  chelate !== undefined && ph <= (holdsTo[chelate] ?? 0);
