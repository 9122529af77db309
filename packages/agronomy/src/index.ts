export type { Calculator, Outcome } from './calculators/calculator.ts';
export { InputError, plainRange } from './calculators/fields.ts';
export { calculators, findCalculator } from './calculators/registry.ts';
export { acidityNitrogen } from './acidify/nitrogenAcidity.ts';
export { sulfurProgram, sulfurRequirement } from './acidify/sulfur.ts';
export { areaPolygon } from './ground/areaPolygon.ts';
export { polygonArea, type PolygonRings } from './ground/polygonArea.ts';
export * from './lab/analytes.ts';
export * from './lab/buffers.ts';
export * from './lab/columns.ts';
export * from './lab/plausible.ts';
export * from './lab/rows.ts';
export * from './lab/typed.ts';
export * from './nutrients/grasses.ts';
export {
  extractantNames,
  extractants,
  nutrientSymbol,
  nutrients,
  ratings,
  soilGroups,
  type Extractant,
  type Nutrient,
  type Rating,
  type SoilGroup,
} from './nutrients/sufficiency.ts';
export { limeAdamsEvans } from './lime/adamsEvans.ts';
export { limeEstimate } from './lime/estimate.ts';
export { limeLabel } from './lime/label.ts';
export { limeEffectiveness } from './lime/effectiveness.ts';
export { limeMehlich } from './lime/mehlich.ts';
export { limeProgram } from './lime/program.ts';
export { limeSmp } from './lime/smp.ts';
export { nitrogenAnnual } from './nutrients/nitrogen.ts';
export { requirementMinimumLevel } from './nutrients/minimumLevel.ts';
export { nutrientConvert } from './nutrients/convert.ts';
export { ratingSufficiency, requirementSufficiency } from './nutrients/sufficiency.ts';
export { organicGain } from './organic/gain.ts';
export { mixBlend } from './organic/mix.ts';
export { organicVolume } from './organic/volume.ts';
export { samplingCoreCount, samplingCoreVolume } from './sampling/cores.ts';
export { nitrogenSchedule } from './season/nitrogenSchedule.ts';
export { seedQuantity } from './seed/seed.ts';
export { balanceCations, cationExchange } from './soil/cations.ts';
export { textureJar } from './soil/jar.ts';
export { drainagePercolation, type PercolationLayer } from './soil/percolation.ts';
export { textureClass } from './soil/texture.ts';
export { soilWater } from './soil/water.ts';
export { coringOpening, sprayTank, spreadCalibrate, topdressThickness } from './spread/spread.ts';
export { waterEt0 } from './water/et0.ts';
export { waterCycleSoak, waterReserve } from './water/irrigation.ts';
export * from './reading/reading.ts';
export * from './rates/lime.ts';
export * from './rates/nutrients.ts';
export * from './rates/plan.ts';
export * from './rates/product.ts';
export * from './rates/amount.ts';
export * from './units/present.ts';
export { QuantityError, parseQuantity, splitNumber } from './units/quantity.ts';
export { UnitError, convert, describeDimension } from './units/unit.ts';
export * from './working/working.ts';
