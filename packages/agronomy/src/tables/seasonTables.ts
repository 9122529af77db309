import { analyteWord } from '../analytes/analytes.ts';
import type { Analyte } from '../analytes/analytes.ts';
import { forecastTable, meshes } from '../forecast/forecastTable.ts';
import { remedyEntry } from '../remedies/remedyTable.ts';
import type { Condition } from '../rules/engine.ts';
import { testErrors } from '../reading/testDifference.ts';
import { cardTable } from '../jobs/cardTable.ts';
import { fixedDateTable } from '../jobs/fixedDates.ts';
import { soilTemperatureTable } from '../season/soilTemperature.ts';
import { wateringTable } from '../jobs/watering.ts';
import { dayFactLabel } from '../jobs/window.ts';
import { type DayFact, dayNumbers, windowRules } from '../jobs/windowRules.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import { known, table } from './table.ts';
import { capital } from '../units/capital.ts';

const units: Readonly<Record<string, { readonly unit: string }>> = dayNumbers;

/** "wind below 20 km/h" of a condition. */
function tell({ fact = '', above, below, from, to, is }: Condition): string {
  const name = dayFactLabel(fact as DayFact);
  if (is) return is[0] === 'yes' ? name : is[0] === 'no' ? `not ${name}` : `${name} ${is.join(' or ')}`;
  const word = above === undefined ? (below === undefined ? (from === undefined ? 'to' : 'from') : 'below') : 'above';
  const { unit = '' } = units[fact] ?? {};
  return `${name} ${word} ${above ?? below ?? from ?? to} ${unit === 'C' ? '°C' : unit}`.trim();
}

const all = (conditions: readonly Condition[]): string => conditions.map(tell).join(' and ');
const list = (rules: ReadonlyArray<{ readonly when: readonly Condition[] }> = []): string =>
  rules.map(({ when }) => all(when)).join('; ') || '–';

/** What a season is worked and foretold by. */
export const ofSeason = [
  table(
    'Season',
    'When a job may be done on a day',
    windowRules,
    ['Job', 'Go', 'Wait', 'Never', 'Since'],
    windowRules.jobs.map(({ job, go = [], wait, never, since = [] }) => [
      capital(job),
      go.map(({ any }) => any.map((way) => all(way.all)).join(', or ')).join('; ') || '–',
      list(wait),
      list(never),
      since
        .map(
          ({ jobs, days, verdict }) =>
            `${verdict === 'told' ? 'told within' : `${verdict} for`} ${days} days of ${jobs.join(', ')}`,
        )
        .join('; ') || '–',
    ]),
  ),
  table(
    'Season',
    'What a job takes',
    cardTable,
    ['Job', 'Days from one dose to the next', 'Days before a fixed date', 'The evening before', 'Water', 'Kept off'],
    cardTable.cards.map(({ remedies, apart, settle, evening, waterWords, keepOff }) => [
      remedies.map((name) => remedyEntry(name).label).join(', '),
      known(apart),
      known(settle),
      evening.join('; '),
      waterWords,
      keepOff,
    ]),
  ),
  table(
    'Season',
    'Before a fixed date',
    fixedDateTable,
    ['Date', 'Job', 'Days before', `On a slope from ${fixedDateTable.slopeFrom} %`, 'Done by then'],
    fixedDateTable.kinds.flatMap(({ label, jobs }) =>
      jobs.map(({ remedies, up, days, onSlope, why }) => [
        label,
        remedies.map((name) => remedyEntry(name).label).join(', '),
        `${up ? 'up and ' : ''}${days}`,
        onSlope === undefined ? '–' : known(onSlope),
        why,
      ]),
    ),
  ),
  table(
    'Season',
    'Soil behind the air',
    soilTemperatureTable,
    ['Depth, cm', 'Lag, days'],
    soilTemperatureTable.depths.map(({ depth, days }) => [known(depth), known(days)]),
  ),
  table(
    'Season',
    'Watering where nothing was measured',
    wateringTable,
    ['What', ...soilGroups.map(capital)],
    [
      ['Infiltration on the flat, mm/h', ...soilGroups.map((group) => known(wateringTable.infiltration[group]))],
      ['Available water, m³/m³', ...soilGroups.map((group) => known(wateringTable.availableWater[group]))],
      [
        `Less for each % of slope, to ${wateringTable.leastOfSlope} % at least`,
        ...soilGroups.map(() => `${wateringTable.lessPerSlope} %`),
      ],
      ['In shade', ...soilGroups.map(() => `${wateringTable.inShade} %`)],
    ],
  ),
  table(
    'Season',
    'How fast what is put down works',
    forecastTable,
    ['What', 'Value'],
    [
      ...meshes.map((name) => [`Half of ${name} lime, months`, known(forecastTable.halfMonths[name])]),
      ...forecastTable.sulfurRate.map(({ temperature, rate }) => [
        `Sulfur at ${temperature} °C, µg/cm² a day`,
        known(rate),
      ]),
      ['Acidity of nitrogen, days', known(forecastTable.nitrogenDays)],
      ...forecastTable.baseLoss.map(({ ph, loss }) => [`Lost at pH ${ph}, g CaCO₃/m² a mm`, known(loss)]),
      [
        'Spread of capacity, sd of its logarithm',
        `${forecastTable.spreadByBuffer} by a buffer test, ${forecastTable.spreadByTexture} by texture`,
      ],
    ],
  ),
  table(
    'Season',
    'Errors of a test',
    testErrors,
    ['Analyte', 'Laboratory, sd', 'From core to core, %'],
    testErrors.analytes.map(({ key, absolute, relative, cv }) => [
      capital(analyteWord(key as Analyte)),
      absolute === undefined ? `${known(relative)} %` : known(absolute),
      known(cv),
    ]),
  ),
];
