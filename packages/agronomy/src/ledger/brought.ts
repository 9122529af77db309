import { sulfurTable } from '../acidify/tables.ts';
import { forecastTable, type Mesh, meshes } from '../forecast/forecastTable.ts';
import { contentOf, nitrogenSourceOf, productEffectiveness, productOf, saltIndexOf } from '../materials/product.ts';
import type { Material } from '../materials/material.ts';
import { type Balanced, balanced, productBalance } from '../nutrients/productBalance.ts';
import type { Entry, EnteredMaterial } from './entries.ts';

/** What is counted of a zone: g/m², layers cm. */
export const ledgerKeys = [
  ...(['n', 'slowN', 'p2o5', 'k2o', 'ca', 'mg', 's', 'fe'] as const),
  ...(['lime', 'acidity', 'sulfur', 'gypsum', 'compost', 'sand', 'salt'] as const),
] as const;
export type LedgerKey = (typeof ledgerKeys)[number];

/**
 * g/m² of nutrients; `slowN` the slow part of `n`; `lime` pure, as CaCO₃, of what can dissolve; `acidity` as CaCO₃ of
 * nitrogen and sulfur; `sulfur` elemental; `gypsum` as product; `compost` and `sand` cm; `salt` rate × salt index ÷ 100.
 */
export type Sums = Readonly<Record<LedgerKey, number>>;

export const NO_SUMS: Sums = Object.fromEntries(ledgerKeys.map((key) => [key, 0])) as Record<LedgerKey, number>;

export const added = (one: Sums, other: Sums, factor = 1): Sums =>
  Object.fromEntries(ledgerKeys.map((key) => [key, one[key] + factor * other[key]])) as Record<LedgerKey, number>;

/** Of ground limestone whose strength and mesh nobody knows. */
export const ORDINARY_LIME: { readonly cce: number; readonly mesh: Readonly<Record<Mesh, number>> } = {
  cce: 90,
  mesh: { fine: 60, medium: 30, coarse: 10 },
};

/** Strength, dryness counted, and mesh of a lime. */
export function limeOf(material: EnteredMaterial | null, cce: number | null) {
  const { cce: own, moisture = 0, passing8, passing20, passing60 } = material?.analysis ?? {};
  const strength = ((own ?? cce ?? ORDINARY_LIME.cce) * (100 - moisture)) / 100;
  const known = passing8 !== undefined && passing20 !== undefined && passing60 !== undefined;
  const mesh: Readonly<Record<Mesh, number>> = known
    ? { fine: passing60, medium: passing20 - passing60, coarse: passing8 - passing20 }
    : ORDINARY_LIME.mesh;
  return { strength, mesh };
}

/** Share of a lime that has not reacted after so many months at 15 °C; what never dissolves does not count. */
export const limeLeft = (mesh: Readonly<Record<Mesh, number>>, months: number): number =>
  meshes.reduce(
    (sum, name) => sum + (mesh[name] / 100) * 2 ** (-Math.max(0, months) / forecastTable.halfMonths[name]),
    0,
  );

/** Mass of a material in a layer of a centimetre, g/m². */
const densityOf = ({ analysis }: EnteredMaterial): number => (analysis.bulkDensity ?? 0) * 1e4;

/** As a material of the list is; packs do not matter to what it holds. */
const whole = (material: EnteredMaterial): Material => ({ ...material, packSize: 1, packUnit: 'kg' }) as Material;

/** What a rate of a material brings, over the area where it lies. */
export function ofMaterial(material: EnteredMaterial, rate: number, unit: NonNullable<Entry['unit']>): Sums {
  const { kind, analysis } = material;
  const grams = unit === 'g/m2' ? rate : unit === 'cm' ? rate * densityOf(material) : 0;
  const layer = unit === 'cm' ? rate : densityOf(material) > 0 ? grams / densityOf(material) : 0;
  const sums: Record<LedgerKey, number> = { ...NO_SUMS };
  const hold = (held: Readonly<Partial<Record<Balanced, number>>>, of: number): void => {
    for (const key of balanced) sums[key] = (of * (held[key] ?? 0)) / 100;
  };
  if (kind === 'lime' || kind === 'fertilizer') {
    const product = productOf('', whole(material), null);
    if (!product) return sums;
    hold(contentOf(product), grams);
    sums.slowN = (sums.n * product.slowRelease) / 100;
    sums.salt = (grams * (saltIndexOf(product) ?? 0)) / 100;
    if (kind === 'fertilizer')
      sums.acidity = productBalance({
        products: [
          {
            name: product.name,
            rate: grams,
            analysis: contentOf(product),
            nitrogenSource: nitrogenSourceOf(product),
          },
        ],
      }).result.limeEquivalent;
    else {
      const { strength, mesh } = limeOf(material, null);
      sums.lime = (((grams * strength) / 100) * (mesh.fine + mesh.medium + mesh.coarse)) / 100;
    }
    return sums;
  }
  if (kind === 'compost') {
    const dry = (grams * (analysis.dryMatter ?? 0)) / 100;
    hold(analysis, dry);
    sums.n = (sums.n * (analysis.nitrogenFirstYear ?? 0)) / 100;
    // What compost lets go comes slowly.
    sums.slowN = sums.n;
    sums.compost = layer;
    return sums;
  }
  if (kind === 'sand') return { ...sums, sand: layer };
  hold(analysis, grams);
  if (kind === 'sulfur') {
    sums.sulfur = sums.s;
    sums.acidity = sums.s * sulfurTable.carbonatePerSulfur;
  }
  if (kind === 'gypsum') sums.gypsum = grams;
  return sums;
}

/** What an entry has brought to its zone, or why that is not known. */
export interface EntryBrought {
  readonly sums: Sums;
  /** Nothing where all of it is counted. */
  readonly unknown: string | null;
}

/** What nothing is brought by. */
const brings: ReadonlySet<Entry['kind']> = new Set([
  ...(['lime', 'fertilizer', 'sulfur', 'gypsum', 'iron', 'compost', 'peat', 'sand'] as const),
]);

/**
 * What an entry brings to its zone, g/m² over the whole of it.
 *
 * @param zoneArea m²
 */
export function broughtBy(entry: Entry, zoneArea: number): EntryBrought {
  const { kind, rate, unit, area, material, cce, on } = entry;
  const lost = (why: string): EntryBrought => ({ sums: NO_SUMS, unknown: `${entry.words}, ${on}: ${why}` });
  if (!brings.has(kind)) return { sums: NO_SUMS, unknown: null };
  if (rate === null || unit === null) return lost('no amount is told, so it is not counted.');
  const share = area === null ? 1 : Math.min(1, area / zoneArea);
  if (!material && kind === 'lime' && unit === 'g/m2') {
    const { strength, mesh } = limeOf(null, cce);
    const lime = (((rate * strength) / 100) * (mesh.fine + mesh.medium + mesh.coarse)) / 100;
    return { sums: added(NO_SUMS, { ...NO_SUMS, lime }, share), unknown: null };
  }
  if (!material && kind === 'sulfur' && unit === 'g/m2')
    return {
      sums: added(
        NO_SUMS,
        { ...NO_SUMS, s: rate, sulfur: rate, acidity: rate * sulfurTable.carbonatePerSulfur },
        share,
      ),
      unknown: null,
    };
  if (!material && kind === 'gypsum' && unit === 'g/m2')
    return { sums: added(NO_SUMS, { ...NO_SUMS, gypsum: rate }, share), unknown: null };
  if (!material && (kind === 'compost' || kind === 'sand') && unit === 'cm')
    return {
      sums: added(NO_SUMS, { ...NO_SUMS, [kind]: rate }, share),
      unknown: kind === 'compost' ? `${entry.words}, ${on}: its layer is counted; what it brought is not known.` : null,
    };
  if (!material) return lost('what it holds is not told, so its nutrients are not counted.');
  if (unit === 'mL/m2') return lost('a liquid without its analysis by weight: its nutrients are not counted.');
  return { sums: added(NO_SUMS, ofMaterial(material, rate, unit), share), unknown: null };
}

/** How effective a lime of the book is, %. */
export function effectivenessOf(material: EnteredMaterial): number {
  const product = productOf('', whole(material), null);
  return product?.lime ? productEffectiveness(product.lime).value : 0;
}
