import { densityOf } from '../soil/bulkDensity.ts';
import type { SoilGroup } from '../soil/soilGroups.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { phBuffering } from './estimate.ts';

/** g of CaCO₃ to a mole of charge. */
const CARBONATE = 50.04;
/** Where free lime holds a soil. */
const HELD_BY_LIME = 8.2;

/** A soil that is limed every year whatever it wants. */
export interface Limed {
  readonly soilPh: number;
  readonly soilGroup: SoilGroup;
  /** % */
  readonly organicMatter: number | undefined;
  /** cm of the slice. */
  readonly depth: number;
}

/**
 * The pH that lime by habit leads to: what goes down a year against what the feeding acidifies, over the soil's
 * buffering by texture and organic matter. Leaching is left out, so on wet ground it comes out lower.
 *
 * @param pure g/m² CaCO₃ a year; `acidity` g/m² CaCO₃ that the feeding makes a year; `years`.
 * @see {@link phBuffering} for the buffering
 */
export function limeHabit(
  { soilPh, soilGroup, organicMatter, depth }: Limed,
  { pure, acidity, years }: { readonly pure: number; readonly acidity: number; readonly years: number },
): Figure {
  const book = new WorkingBook();
  const organic = organicMatter ?? phBuffering.ordinaryOrganicMatter[soilGroup];
  const buffering = phBuffering.mineral[soilGroup] + phBuffering.perOrganicMatter * organic;
  const density = organicMatter === undefined ? phBuffering.bulkDensity : densityOf(organicMatter);
  const capacity = (buffering * density * depth * 10) / 100;
  book.step({
    label: 'Capacity of the slice',
    formula: 'buffering × bulk density × depth / 10',
    numbers: `${figure(buffering)} cmol/kg × ${figure(density)} g/cm³ × ${figure(depth)} cm / 10`,
    result: capacity,
    unit: 'mol/m2',
    source: phBuffering.source,
  });
  const end = soilPh + (years * (pure - acidity)) / CARBONATE / capacity;
  const value = Math.min(Math.max(soilPh, HELD_BY_LIME), end);
  book.step({
    label: `pH after ${years} years`,
    formula: 'pH + years × (lime − acidity) / 50.04 / capacity',
    numbers: `${soilPh.toFixed(1)} + ${years} × (${figure(pure)} − ${figure(acidity)}) g/m² / ${CARBONATE} / ${figure(capacity)}`,
    result: value,
    unit: 'pH',
  });
  if (end > value) book.cap(`Free lime holds a soil at about ${HELD_BY_LIME}: what goes down beyond it lies there.`);
  book.warn('By texture and organic matter, so within about a third; leaching is left out. A retest tells.');
  return { value, working: book.entries };
}
