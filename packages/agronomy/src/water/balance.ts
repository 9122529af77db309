import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, defaulted, optional, quantity } from '../calculators/fields.ts';
import { listOf } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { cropFactorField } from './irrigation.ts';

/** A day as it falls and dries, mm. */
export interface WaterDay {
  readonly rain: number;
  readonly et0: number;
  readonly irrigation?: number | undefined;
}

/** A bucket of soil: how much it holds, how much of that may be used, mm, and what the grass draws. */
export interface Bucket {
  readonly total: number;
  readonly ready: number;
  readonly cropFactor: number;
}

export interface WaterState {
  /** mm below field capacity at the end of the day. */
  readonly depletion: number;
  readonly used: number;
  readonly drained: number;
  /** Share of its need that the grass finds. */
  readonly stress: number;
}

/**
 * One day of a bucket: what falls and is given fills it, the grass draws from it, and what it cannot hold drains.
 *
 * @param depletion mm at the end of the day before
 */
export function waterDay(depletion: number, day: WaterDay, { total, ready, cropFactor }: Bucket): WaterState {
  const stress = depletion <= ready || total <= ready ? 1 : Math.max(0, (total - depletion) / (total - ready));
  const wanted = depletion - day.rain - (day.irrigation ?? 0);
  const drawn = stress * cropFactor * day.et0;
  const end = Math.min(total, Math.max(0, wanted + drawn));
  const drained = Math.max(0, -(wanted + drawn));
  return { depletion: end, used: Math.min(drawn, total - wanted), drained, stress };
}

/**
 * Water in the root zone, day by day: one bucket.
 *
 * @param days `rain`, `et0` and `irrigation` in mm; `availableWater` m³/m³; `rootDepth` cm; `cropFactor` a number or by
 *   name; `depletion` % that may be used before the grass suffers; `start` mm below field capacity on the morning before.
 * @returns for each day `depletion`, `used`, `drained` mm and `stress`, the share of its need that the grass finds;
 *   `total` mm held (TAW) and `ready` mm (RAW).
 * @throws {InputError} where it starts emptier than it can be.
 */
export const waterBalance = defineCalculator({
  name: 'water.balance',
  title: 'Water in the root zone, day by day',
  source: 'Allen et al. (1998), FAO Irrigation and Drainage Paper 56, equations 82 to 85',
  inputs: {
    days: listOf(
      {
        rain: quantity('mm', { min: 0, max: 1000 }),
        et0: quantity('mm', { min: 0, max: 30 }),
        irrigation: optional(quantity('mm', { min: 0, max: 500 })),
      },
      'days',
      { min: 1, max: 4000 },
    ),
    availableWater: quantity('', { above: 0, max: 0.6 }),
    rootDepth: quantity('cm', { above: 0, max: 300 }),
    cropFactor: cropFactorField,
    depletion: defaulted(quantity('%', { above: 0, max: 100 }), 50),
    start: defaulted(quantity('mm', { min: 0, max: 2000 }), 0),
  },
  outputs: { days: '[{depletion mm, used mm, drained mm, stress number}]', total: 'mm', ready: 'mm' },
  compute({ days, availableWater, rootDepth, cropFactor, depletion, start }, book) {
    const total = 1000 * availableWater * (rootDepth / 100);
    const ready = (total * depletion) / 100;
    book.step({
      label: 'Held in the root zone',
      formula: '1000 × available water × root depth',
      numbers: `1000 × ${figure(availableWater)} × ${figure(rootDepth / 100)} m`,
      result: total,
      unit: 'mm',
    });
    book.step({
      label: 'Of that before the grass suffers',
      formula: 'held × depletion',
      numbers: `${figure(total)} mm × ${figure(depletion)} %`,
      result: ready,
      unit: 'mm',
    });
    if (start > total + 1e-9)
      throw new InputError('start', `was given ${figure(start)} mm; the root zone holds ${figure(total)} mm in all`);
    const states: WaterState[] = [];
    let at = start;
    for (const day of days) {
      const state = waterDay(at, day, { total, ready, cropFactor });
      states.push(state);
      at = state.depletion;
    }
    const dry = states.findIndex(({ stress }) => stress < 1);
    if (dry >= 0) book.warn(`The grass finds less than it needs from day ${dry + 1} on: water before.`);
    return { days: states, total, ready };
  },
});
