/** As bands and rates tell soils apart. */
export const soilGroups = ['sand', 'loam', 'clay'] as const;
export type SoilGroup = (typeof soilGroups)[number];
