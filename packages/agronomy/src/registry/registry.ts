import { acidityNitrogen } from '../acidify/nitrogenAcidity.ts';
import { sulfurProgram, sulfurRequirement } from '../acidify/sulfur.ts';
import { areaPolygon } from '../ground/areaPolygon.ts';
import { paceLength } from '../ground/pace.ts';
import { areaShape } from '../ground/shapes.ts';
import { troubleCauses } from '../trouble/trouble.ts';
import { limeAdamsEvans } from '../lime/adamsEvans.ts';
import { limeEffectiveness } from '../lime/effectiveness.ts';
import { limeEstimate } from '../lime/estimate.ts';
import { limeLabel } from '../lime/label.ts';
import { limeMehlich } from '../lime/mehlich.ts';
import { limeProgram } from '../lime/program.ts';
import { limeSmp } from '../lime/smp.ts';
import { nutrientConvert } from '../nutrients/convert.ts';
import { requirementMinimumLevel } from '../nutrients/minimumLevel.ts';
import { nitrogenAnnual } from '../nutrients/nitrogen.ts';
import { nitrogenPass } from '../nutrients/nitrogenPass.ts';
import { productBalance } from '../nutrients/productBalance.ts';
import { ratingSufficiency, requirementSufficiency } from '../nutrients/sufficiency.ts';
import { organicGain } from '../organic/gain.ts';
import { mixBlend } from '../organic/mix.ts';
import { rebuildVolume } from '../organic/rebuild.ts';
import { compostProgram } from '../organic/program.ts';
import { organicVolume } from '../organic/volume.ts';
import { samplingCoreCount, samplingCoreVolume } from '../sampling/cores.ts';
import { nitrogenSchedule } from '../season/nitrogenSchedule.ts';
import { soilTemperature } from '../season/soilTemperature.ts';
import { seasonWindow } from '../jobs/window.ts';
import { seedQuantity } from '../seed/seed.ts';
import { balanceCations, cationExchange } from '../soil/cations.ts';
import { forecastPh } from '../forecast/forecastPh.ts';
import { testDifference } from '../reading/testDifference.ts';
import { saltRating } from '../reading/salt.ts';
import { textureJar } from '../soil/jar.ts';
import { gypsumRequirement, saltLeaching } from '../soil/sodium.ts';
import { soilBulkDensity } from '../soil/bulkDensity.ts';
import { drainagePercolation } from '../soil/percolation.ts';
import { textureClass } from '../soil/texture.ts';
import { soilWater } from '../soil/water.ts';
import { sprayMulch } from '../spread/mulch.ts';
import { sprayNozzles } from '../spread/nozzles.ts';
import { spreadSwath } from '../spread/swath.ts';
import { coringOpening, sprayTank, spreadCalibrate, topdressThickness } from '../spread/spread.ts';
import { waterBalance } from '../water/balance.ts';
import { waterCatchCups } from '../water/catchCups.ts';
import { waterRing } from '../water/ring.ts';
import { waterEt0 } from '../water/et0.ts';
import { waterCycleSoak, waterReserve } from '../water/irrigation.ts';
import type { Calculator } from '../calculators/calculator.ts';
import { InputError } from '../calculators/fields.ts';

const all = [
  areaPolygon,
  areaShape,
  paceLength,
  troubleCauses,
  samplingCoreCount,
  samplingCoreVolume,
  textureClass,
  textureJar,
  soilWater,
  soilBulkDensity,
  drainagePercolation,
  nutrientConvert,
  cationExchange,
  ratingSufficiency,
  requirementSufficiency,
  requirementMinimumLevel,
  balanceCations,
  saltRating,
  gypsumRequirement,
  saltLeaching,
  limeSmp,
  limeAdamsEvans,
  limeMehlich,
  limeEstimate,
  limeLabel,
  limeEffectiveness,
  limeProgram,
  acidityNitrogen,
  sulfurRequirement,
  sulfurProgram,
  organicVolume,
  rebuildVolume,
  organicGain,
  compostProgram,
  mixBlend,
  nitrogenAnnual,
  nitrogenPass,
  productBalance,
  nitrogenSchedule,
  waterEt0,
  waterCycleSoak,
  waterReserve,
  waterBalance,
  waterCatchCups,
  waterRing,
  soilTemperature,
  seasonWindow,
  spreadCalibrate,
  spreadSwath,
  sprayNozzles,
  sprayTank,
  sprayMulch,
  coringOpening,
  topdressThickness,
  seedQuantity,
  testDifference,
  forecastPh,
] as unknown as readonly Calculator[];

/** Every public calculator, by name. */
export const calculators: ReadonlyMap<string, Calculator> = new Map(all.map((entry) => [entry.calculator, entry]));

/** The calculator of that name. @throws {InputError} listing the names there are. */
export function findCalculator(name: string): Calculator {
  const found = calculators.get(name);
  if (!found)
    throw new InputError('calculator', `was given "${name}"; known are ${[...calculators.keys()].join(', ')}`);
  return found;
}
