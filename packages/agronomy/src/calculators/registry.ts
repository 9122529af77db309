import { limeAdamsEvans } from '../lime/adamsEvans.ts';
import { limeEffectiveness } from '../lime/effectiveness.ts';
import { limeMehlich } from '../lime/mehlich.ts';
import { limeProgram } from '../lime/program.ts';
import { limeSmp } from '../lime/smp.ts';
import { nutrientConvert } from '../nutrients/convert.ts';
import { nitrogenAnnual } from '../nutrients/nitrogen.ts';
import { ratingSufficiency, requirementSufficiency } from '../nutrients/sufficiency.ts';
import { organicVolume } from '../organic/volume.ts';
import { textureClass } from '../soil/texture.ts';
import { soilWater } from '../soil/water.ts';
import type { Calculator } from './calculator.ts';
import { InputError } from './fields.ts';

const all = [
  textureClass,
  soilWater,
  nutrientConvert,
  ratingSufficiency,
  requirementSufficiency,
  limeSmp,
  limeAdamsEvans,
  limeMehlich,
  limeEffectiveness,
  limeProgram,
  organicVolume,
  nitrogenAnnual,
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
