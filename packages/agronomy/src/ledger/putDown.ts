import type { Material } from '../materials/material.ts';
import type { EnteredMaterial, EntryKind, EntryState, RateUnit } from './entries.ts';

/** What is laid as a layer where it comes by volume. */
const LAID: ReadonlySet<string> = new Set(['compost', 'peat', 'sand', 'topsoil', 'calcined clay']);

/** How what was put down is told: by what was used, or by the area. */
export interface PutDown {
  readonly state: EntryState;
  /** kg, L or m³, as the material is packed. */
  readonly quantity?: number | null | undefined;
  readonly rate?: number | null | undefined;
  readonly unit?: RateUnit | null | undefined;
  /** m² that were treated; the whole zone where it is not told. */
  readonly area?: number | null | undefined;
}

/**
 * How much went down by area, from what was used or as it was told.
 *
 * @param zoneArea m²
 * @returns the rate in its unit; nothing where nobody knows, or nothing was done
 */
export function putDown(
  { state, quantity = null, rate = null, unit = null, area = null }: PutDown,
  zoneArea: number,
  material: Pick<Material, 'kind' | 'packUnit'> | undefined,
): { readonly rate: number | null; readonly unit: RateUnit | null; readonly quantityUnit: 'kg' | 'L' | 'm3' | null } {
  const quantityUnit = quantity === null ? null : (material?.packUnit ?? 'kg');
  if (state === 'not done' || state === 'withdrawn') return { rate: null, unit: null, quantityUnit };
  if (quantity === null || quantityUnit === null)
    return { rate, unit: rate === null ? null : (unit ?? 'g/m2'), quantityUnit };
  const over = area ?? zoneArea;
  if (quantityUnit === 'kg') return { rate: (quantity * 1000) / over, unit: 'g/m2', quantityUnit };
  const cubic = quantityUnit === 'm3' ? quantity : quantity / 1000;
  return material && LAID.has(material.kind)
    ? { rate: (cubic / over) * 100, unit: 'cm', quantityUnit }
    : { rate: (cubic * 1e6) / over, unit: 'mL/m2', quantityUnit };
}

/** What the book keeps of a material. */
export const entered = ({ name, kind, analysis, nitrogenSource, natural, dolomitic, packSize, packUnit }: Material): EnteredMaterial => ({ name, kind, analysis, nitrogenSource, natural, dolomitic, packSize, packUnit }); // prettier-ignore

const units: Readonly<Partial<Record<EntryKind, RateUnit>>> = {
  ...{ compost: 'cm', sand: 'cm', 'calcined clay': 'cm', fill: 'cm', 'wetting agent': 'mL/m2', watering: 'mm' },
};

const SALTY: ReadonlySet<EntryKind> = new Set(['fertilizer', 'sulfur', 'iron', 'lime', 'gypsum'] as const);

/** What to do where more went down than the card asked for. */
export function overWords(kind: EntryKind): string {
  if (SALTY.has(kind)) return 'water it in well, and look for burn';
  if (rateUnitOf(kind) === 'cm') return 'brush it in until the leaf stands through it, or take some off';
  return kind === 'seed' ? 'seedlings that stand too thick rot: water less often and watch them' : 'see the label';
}

/** The unit in which a kind of work is told by area. */
export const rateUnitOf = (kind: EntryKind): RateUnit => units[kind] ?? 'g/m2';
