import { acidityNitrogen } from '../acidify/nitrogenAcidity.ts';
import { nitrogenSourceNames } from '../acidify/tables.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity, soilPhField } from '../calculators/fields.ts';
import { group, listOf, series } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { forecastTable } from './forecastTable.ts';
import { type Course, LIME_PER_MOL, SULFUR_PER_MOL, phCourse } from './phCourse.ts';

const { reactivitySpread, startError, bandDeviations, spreadByBuffer } = forecastTable;

export interface ForecastDay {
  readonly day: number;
  readonly ph: number;
  /** 80 % of such soils lie between. */
  readonly low: number;
  readonly high: number;
}

/**
 * The course with its band: how much the soil resists, how fast what is put down works, and where it starts, each turned
 * by its spread and added in quadrature.
 *
 * @param spread sd of the logarithm of the capacity; `error` sd of the starting pH
 * @param every days between two that are told; the last is told too
 */
export function phBand(course: Course, spread: number, error = startError, every = 30): ForecastDay[] {
  const run = (changes: Partial<Course>): readonly number[] => phCourse({ ...course, ...changes }).ph;
  const middle = run({});
  const turned = [
    [{ capacity: course.capacity * Math.exp(spread) }, { capacity: course.capacity * Math.exp(-spread) }],
    [{ reactivity: 1 + reactivitySpread }, { reactivity: 1 - reactivitySpread }],
    [{ soilPh: course.soilPh + error }, { soilPh: course.soilPh - error }],
  ].map(([one, other]) => [run(one!), run(other!)] as const);
  const told = middle.map((_, day) => day).filter((day) => day % every === 0 || day === middle.length - 1);
  return told.map((day) => {
    const half = bandDeviations * Math.hypot(...turned.map(([one, other]) => (one[day]! - other[day]!) / 2));
    const ph = middle[day]!;
    return { day, ph, low: ph - half, high: ph + half };
  });
}

/** mol of charge/m² for each unit of pH. @param buffering cmol/kg; density g/cm³; depth cm */
export const capacityOf = (buffering: number, bulkDensity: number, depth: number): number =>
  (buffering * bulkDensity * depth * 10) / 100;

const day = () => quantity('', { min: 0, max: 20_000, whole: true });
const byMonth = (unit: string, min: number, max: number) =>
  optional(series(quantity(unit, { min, max }), 'months', { min: 12, max: 12 }));
const share = () => quantity('%', { min: 0, max: 100 });

/**
 * The pH of a soil over time under what is put down, with its band.
 *
 * @param soilPh on 1 January, day 0; `buffering` cmol/kg for each unit; `depth` cm; `bulkDensity` g/cm³; `spread` sd of
 *   the logarithm of the buffering; `error` sd of the starting pH; `lime` g/m² as CaCO₃ by day with the `mesh` of it, %;
 *   `sulfur` g/m² with the diameter of its particles, mm; `nitrogen` g/m² by source; `temperature` of the soil and
 *   `drainage`, mm, by month.
 * @returns `days` with `ph`, `low` and `high` (80 %) on day 0, each 30th and the last.
 * @throws {InputError} for a mesh of more than 100 %.
 */
export const forecastPh = defineCalculator({
  name: 'forecast.ph',
  title: 'pH over time',
  source: forecastTable.source,
  inputs: {
    soilPh: soilPhField(),
    buffering: quantity('cmol/kg', { above: 0, max: 100 }),
    depth: quantity('cm', { above: 0, max: 60 }),
    bulkDensity: defaulted(quantity('g/cm3', { above: 0, max: 2.5 }), 1.33),
    spread: defaulted(quantity('', { min: 0, max: 2 }), spreadByBuffer),
    error: defaulted(quantity('pH', { min: 0, max: 2 }), startError),
    days: quantity('', { min: 1, max: 20_000, whole: true }),
    lime: optional(
      listOf(
        {
          day: day(),
          rate: quantity('g/m2', { min: 0, max: 10_000 }),
          mesh: group({ fine: share(), medium: share(), coarse: share() }),
        },
        'applications',
        { min: 0, max: 500 },
      ),
    ),
    sulfur: optional(
      listOf(
        {
          day: day(),
          rate: quantity('g/m2', { min: 0, max: 2000 }),
          diameter: quantity('mm', { above: 0, max: 20 }),
        },
        'applications',
        { min: 0, max: 500 },
      ),
    ),
    nitrogen: optional(
      listOf(
        {
          day: day(),
          rate: quantity('g/m2', { min: 0, max: 500 }),
          source: choice(nitrogenSourceNames),
          /** Of a coating, g/m² of S. */
          sulfur: optional(quantity('g/m2', { min: 0, max: 500 })),
        },
        'applications',
        { min: 0, max: 2000 },
      ),
    ),
    temperature: byMonth('C', -40, 60),
    drainage: byMonth('mm', 0, 2000),
  },
  outputs: { days: '[{day, ph pH, low pH, high pH}]' },
  compute(input, book) {
    const { soilPh, buffering, depth, bulkDensity, spread, error, days, lime = [], sulfur = [], nitrogen = [] } = input;
    for (const [index, { mesh }] of lime.entries())
      if (mesh.fine + mesh.medium + mesh.coarse > 100 + 1e-6)
        throw new InputError(
          `lime.${index}.mesh`,
          'adds up to more than 100 %; what is coarser than 8 mesh is left out',
        );
    const capacity = capacityOf(buffering, bulkDensity, depth);
    book.step({
      label: 'Capacity of the slice',
      formula: 'buffering × bulk density × depth × 10 / 100',
      numbers: `${figure(buffering)} cmol/kg × ${figure(bulkDensity)} × ${figure(depth)} cm × 10 / 100`,
      result: capacity,
      unit: 'mol/m²',
    });
    const course: Course = {
      ...{ soilPh, capacity, days, lime, sulfur },
      nitrogen: nitrogen.map(({ day: on, rate, source, sulfur: coating }) => ({
        day: on,
        acidity: acidityNitrogen({ nitrogen: rate, source, ...(coating === undefined ? {} : { sulfur: coating }) })
          .result.limeEquivalent,
      })),
      temperature: input.temperature ?? Array.from({ length: 12 }, () => forecastTable.limeRateTemperature),
      drainage: input.drainage ?? Array.from({ length: 12 }, () => 0),
    };
    const { turnover, ph } = phCourse(course);
    book.step({
      label: `Change in ${days} days`,
      formula: `(lime − nitrogen acidity − base loss) / ${LIME_PER_MOL} − sulfur / ${SULFUR_PER_MOL}, over the capacity`,
      numbers: `((${figure(turnover.lime)} − ${figure(turnover.nitrogen)} − ${figure(turnover.lost)}) / ${LIME_PER_MOL} − ${figure(turnover.sulfur)} / ${SULFUR_PER_MOL}) / ${figure(capacity)}`,
      result: ph.at(-1)! - soilPh,
      unit: 'pH',
      source: forecastTable.source,
    });
    const told = phBand(course, spread, error);
    book.warn(
      `The band holds 80 % of such soils: capacity (sd of its logarithm ${figure(spread)}), how fast it works (${figure(reactivitySpread * 100)} %) and the pH it starts from (${figure(error)}).`,
    );
    return { days: told };
  },
});
