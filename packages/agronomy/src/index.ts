export type { Calculator, Outcome } from './calculators/calculator.ts';
export { InputError, plainRange } from './calculators/fields.ts';
export { calculators, findCalculator } from './calculators/registry.ts';
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
export { limeEffectiveness } from './lime/effectiveness.ts';
export { limeMehlich } from './lime/mehlich.ts';
export { limeProgram } from './lime/program.ts';
export { limeSmp } from './lime/smp.ts';
export { nitrogenAnnual } from './nutrients/nitrogen.ts';
export { nutrientConvert } from './nutrients/convert.ts';
export { ratingSufficiency, requirementSufficiency } from './nutrients/sufficiency.ts';
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
