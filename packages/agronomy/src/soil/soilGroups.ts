/** As bands and rates tell soils apart. */
export const soilGroups = ['sand', 'loam', 'clay'] as const;
export type SoilGroup = (typeof soilGroups)[number];

/**
 * The general term of a texture class: sandy, loamy or clayey.
 *
 * @param name USDA name, lower case
 * @see Soil Survey Manual, USDA Handbook 18, chapter 3: general terms for texture
 */
export function groupOfTexture(name: string): SoilGroup {
  if (name === 'sand' || name === 'loamy sand') return 'sand';
  return name === 'clay' || name === 'sandy clay' || name === 'silty clay' ? 'clay' : 'loam';
}
