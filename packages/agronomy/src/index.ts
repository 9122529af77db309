export type { Calculator, Outcome } from './calculators/calculator.ts';
export { type Field, type FieldShape, type Fields, InputError, plainRange } from './calculators/fields.ts';
export { calculators, findCalculator } from './registry/registry.ts';
export {
  type Typed,
  checkTyped,
  exampleOf,
  inputFrom,
  plainLabel,
  printedUnit,
  readIn,
  spelledOut,
  stillWanted,
  tellResult,
  typedFrom,
  unitOfOutput,
} from './registry/pocket.ts';
export { acidityNitrogen } from './acidify/nitrogenAcidity.ts';
export { sulfurProgram, sulfurRequirement } from './acidify/sulfur.ts';
export { areaPolygon } from './ground/areaPolygon.ts';
export * from './ground/features.ts';
export { paceLength } from './ground/pace.ts';
export * from './ground/applied.ts';
export * from './ground/shapes.ts';
export * from './ground/surfaces.ts';
export * from './trouble/trouble.ts';
export type { Testimony } from './rules/engine.ts';
export { type Evidence, wordFacts } from './evidence/facts.ts';
export * from './evidence/zoneEvidence.ts';
export { measureRing, polygonArea, type PolygonRings } from './ground/polygonArea.ts';
export * from './analytes/analytes.ts';
export * from './analytes/plausible.ts';
export * from './analytes/reported.ts';
export * from './lab/advised.ts';
export * from './lab/arrangement.ts';
export * from './lab/buffers.ts';
export { type DateOrder, type Writing, dateOrderOf, dateOrders } from './lab/cells.ts';
export * from './lab/columns.ts';
export * from './lab/comparable.ts';
export * from './lab/doubts.ts';
export * from './lab/plausible.ts';
export * from './lab/rows.ts';
export { SALT_STEP, phInWater } from './lab/saltPh.ts';
export * from './lab/typed.ts';
export * from './nutrients/grasses.ts';
export * from './nutrients/sufficiencyTables.ts';
export { limeAdamsEvans } from './lime/adamsEvans.ts';
export { limeEstimate, phBuffering } from './lime/estimate.ts';
export { limeLabel } from './lime/label.ts';
export { limeEffectiveness } from './lime/effectiveness.ts';
export { limeMehlich } from './lime/mehlich.ts';
export { limeProgram } from './lime/program.ts';
export { limeSmp } from './lime/smp.ts';
export { correctionRules, type CorrectionRule } from './nutrients/correction.ts';
export { nitrogenAnnual } from './nutrients/nitrogen.ts';
export { nitrogenPass } from './nutrients/nitrogenPass.ts';
export { productBalance, type Balanced } from './nutrients/productBalance.ts';
export * from './nutrients/sward.ts';
export * from './nutrients/target.ts';
export { requirementMinimumLevel } from './nutrients/minimumLevel.ts';
export { nutrientConvert } from './nutrients/convert.ts';
export { ratingSufficiency, requirementSufficiency } from './nutrients/sufficiency.ts';
export { organicGain } from './organic/gain.ts';
export { mixBlend } from './organic/mix.ts';
export * from './organic/rebuild.ts';
export { organicVolume } from './organic/volume.ts';
export * from './sampling/bagCode.ts';
export * from './sampling/composeZones.ts';
export * from './sampling/composites.ts';
export * from './sampling/corePush.ts';
export { samplingCoreCount, samplingCoreVolume } from './sampling/cores.ts';
export * from './sampling/design.ts';
export * from './sampling/designTables.ts';
export * from './sampling/drafts.ts';
export * from './sampling/timing.ts';
export * from './sampling/touch.ts';
export { nitrogenSchedule } from './season/nitrogenSchedule.ts';
export { seedQuantity } from './seed/seed.ts';
export { balanceCations, cationExchange } from './soil/cations.ts';
export * from './soil/soilGroups.ts';
export { textureJar } from './soil/jar.ts';
export { soilBulkDensity } from './soil/bulkDensity.ts';
export * from './soil/percolation.ts';
export { textureClass } from './soil/texture.ts';
export { textureClasses } from './soil/textureClasses.ts';
export { soilWater } from './soil/water.ts';
export * from './spread/machineSettings.ts';
export { sprayNozzles } from './spread/nozzles.ts';
export { spreading } from './spread/spreading.ts';
export { spreadSwath } from './spread/swath.ts';
export { coringOpening, sprayTank, spreadCalibrate, topdressThickness } from './spread/spread.ts';
export { waterEt0 } from './water/et0.ts';
export { waterCycleSoak, waterReserve } from './water/irrigation.ts';
export { waterRing } from './water/ring.ts';
export * from './reading/bars.ts';
export * from './reading/degrees.ts';
export * from './reading/limits.ts';
export * from './reading/reading.ts';
export * from './reading/salt.ts';
export * from './reading/soilTest.ts';
export * from './reading/zoneFacts.ts';
export * from './season/climate.ts';
export * from './jobs/normalDays.ts';
export * from './jobs/windowRules.ts';
export * from './jobs/window.ts';
export * from './jobs/cardTable.ts';
export * from './jobs/jobs.ts';
export * from './jobs/backward.ts';
export * from './jobs/since.ts';
export * from './jobs/card.ts';
export * from './jobs/watering.ts';
export * from './jobs/mowingAdvice.ts';
export { soilTemperature } from './season/soilTemperature.ts';
export * from './ledger/entries.ts';
export * from './ledger/putDown.ts';
export * from './jobs/entryKindOf.ts';
export * from './jobs/plannedEntry.ts';
export * from './ledger/brought.ts';
export * from './ledger/ledger.ts';
export * from './jobs/allowed.ts';
export * from './forecast/forecastPh.ts';
export * from './jobs/zoneForecast.ts';
export { forecastTable } from './forecast/forecastTable.ts';
export { compareTests, testDifference } from './reading/testDifference.ts';
export * from './spread/tally.ts';
export { waterBalance } from './water/balance.ts';
export { waterCatchCups } from './water/catchCups.ts';
export { type YearAhead, type MonthAhead, yearAhead } from './remedies/months.ts';
export * from './settings/settings.ts';
export * from './settings/decided.ts';
export * from './rates/lime.ts';
export * from './rates/compareLime.ts';
export * from './rates/needs.ts';
export * from './rates/nutrients.ts';
export * from './rates/plan.ts';
export * from './program/shopping.ts';
export * from './remedies/treatment.ts';
export { isLoose, tellSupply } from './remedies/supply.ts';
export * from './program/balance.ts';
export * from './program/changes.ts';
export * from './program/findings.ts';
export * from './program/interactions.ts';
export * from './program/zoneProgram.ts';
export * from './program/formerPlan.ts';
export * from './program/differences.ts';
export * from './program/work.ts';
export * from './program/sections.ts';
export * from './program/rollover.ts';
export * from './program/offer.ts';
export type { Stocked } from './remedies/remedy.ts';
export * from './remedies/remedyTable.ts';
export { fieldsOf, remedyOf, suitsRemedy } from './remedies/remedies.ts';
export * from './materials/product.ts';
export * from './rates/amount.ts';
export { nitrogenSourceNames } from './acidify/tables.ts';
export * from './materials/analysis.ts';
export * from './materials/material.ts';
export * from './materials/row.ts';
export * from './materials/unitPrice.ts';
export * from './rates/verdicts.ts';
export { advise, adviceOf, type Advice } from './advice/advise.ts';
export { readReport } from './advice/report.ts';
export { runScenario, type Scenario, type ScenarioFile } from './advice/scenarios.ts';
export { referenceTables, type ReferenceTable } from './tables/tables.ts';
export * from './units/present.ts';
export { QuantityError, parseQuantity, splitNumber } from './units/quantity.ts';
export { UnitError, convert, describeDimension } from './units/unit.ts';
export { type Numbers, isWritten, numbersOnly } from './working/numbersOnly.ts';
export * from './working/working.ts';
export { type DrainageNext, type DrainageRecord, drainageNext } from './measure/drainage.ts';
export {
  type FieldTestJudged,
  type FieldTestKind,
  type FieldValue,
  type TestedGround,
  fieldTestKinds,
} from './measure/fieldTest.ts';
export * from './measure/fieldTests.ts';
export { fizzes, layerSoils, smells } from './measure/handTests.ts';
export { type JarShares, jarNext, jarSpread } from './measure/jarTest.ts';
export { countedShare, coverMethods, greenShare } from './measure/probeTests.ts';
export * from './measure/loads.ts';
export { type Moved, type Worth, worthOfMeasuring } from './worth/worth.ts';
export { worthTable } from './worth/worthTable.ts';
