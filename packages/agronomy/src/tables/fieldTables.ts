import { troubleRules } from '../trouble/trouble.ts';
import { samplingTables } from '../sampling/designTables.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import { testLimits } from '../water/testLimits.ts';
import { worthTable } from '../worth/worthTable.ts';
import { known, table } from './table.ts';
import { capital } from '../units/capital.ts';

export const ofSampling = [
  table(
    'Sampling',
    'How much single cores of one zone vary',
    samplingTables,
    ['Analyte', 'Coefficient of variation, %'],
    samplingTables.variation.map(({ analyte, cv }) => [capital(analyte), known(cv)]),
  ),
  table(
    'Sampling',
    'How long to wait before taking soil',
    samplingTables,
    ['After', 'Weeks at least', 'Better'],
    samplingTables.waits.map(({ kind, weeks, better }) => [capital(kind), known(weeks), known(better)]),
  ),
  table(
    'Sampling',
    'What the laboratory’s panels answer',
    samplingTables,
    ['Panel', 'Analytes', 'Answers', 'Says nothing on'],
    samplingTables.panels.map(({ name, analytes, answers, silent }) => [capital(name), analytes, answers, silent]),
  ),
];

const { drainage, jar, waterDrop, catchCups, watering, cover, mottles, worms, probe, ring, moisture, warmth, loads } =
  testLimits;

export const ofOwnTests = [
  table(
    'Own tests',
    'What tests with one’s own hands are judged by',
    testLimits,
    ['Test', 'What', 'Limit'],
    [
      ['Drainage hole', 'Walls soak at least, and dry again after', `${drainage.soakLeast} and ${drainage.soakMost} h`],
      ['Drainage hole', 'A reading each, and enough after', `${drainage.readEvery} min, ${drainage.longest} h`],
      ['Drainage hole', 'A pan: a layer drains this many times as fast as the one under it', `${drainage.panRatio}`],
      ['Drainage hole', 'Water leaves sideways from a slope of', `${drainage.slopeLeaves} %`],
      ['Jar', 'Sand, silt and clay are read after', `${jar.sandAfter}, ${jar.siltAfter} and ${jar.clayAfter} min`],
      ['Jar', 'Wet clay may stand this many times too high', `${jar.clayMay}`],
      ['Core', 'Rust spots tell of standing water above', `${mottles.wetAbove} cm`],
      ['Core', 'Worms of a spade’s block core the ground from', `${worms.manyFrom}`],
      ['Probe', 'Pushes at least; uneven from', `${probe.least}; ${probe.uneven} cm apart`],
      ['Ring', 'Takes in water slowly below', `${ring.slowBelow} mm/h`],
      ['Water drop', 'Slightly, strongly, severely, extremely repellent from', `${waterDrop.slight}, ${waterDrop.strong}, ${waterDrop.severe}, ${waterDrop.extreme} s`],
      ['Catch cups', 'Evenness of the driest quarter: poor below, good from', `${catchCups.poorBelow}, ${catchCups.goodFrom} %`],
      ['Depth of a watering', 'The next run within; uneven where the driest is below', `${watering.least} to ${watering.most} times the last; ${watering.uneven} of the mean`],
      ...soilGroups.map((group) => ['Soil moisture', `${capital(group)}: grass wilts at, and it holds`, `${moisture[group].dry}, ${moisture[group].full} % by volume`]),
      ['Soil moisture', 'Water below', `${moisture.waterBelow} % left of what lies between`],
      ['Soil temperature', 'Cool-season seed; only dormant seed below', `${warmth.coolFrom} to ${warmth.coolTo} °C; ${warmth.dormantBelow} °C`],
      ['Soil temperature', 'Warm-season seed from', `${warmth.warmFrom} °C`],
      ['Cover', 'Overseed above, core or slit and seed from', `${cover.overseedAbove}, ${cover.slitFrom} % living`],
      ['Cover', 'Weeds go first above; a look may be out by', `${cover.weedsAbove}, ${cover.byEye} %`],
    ],
  ),
  table(
    'Own tests',
    'What loads and seed are taken by',
    testLimits,
    ['What', 'Limit'],
    [
      ['Compost: warm, and still hot, above', `${loads.warmAbove}, ${loads.hotAbove} °C`],
      ['Largest piece for topdressing, for a seedbed', `${loads.screenTopdress}, ${loads.screenSeedbed} mm`],
      ['C:N above which it ties up nitrogen', `${loads.cnTies}`],
      ['Salts on turf, and at most', `${loads.ecTopdress}, ${loads.ecMost} dS/m`],
      ['Seed: purity and germination at least', `${loads.purityLeast}, ${loads.germinationLeast} %`],
      ['Seed: weed seed at most; tested within', `${loads.weedMost} %; ${loads.testMonths} months`],
    ],
  ),
]; // prettier-ignore

export const ofWorth = [
  table(
    'Judgement',
    'What one more measurement costs',
    worthTable,
    ['Measurement', 'Fee', 'Minutes'],
    worthTable.measurements.map(({ name, fee, minutes }) => [name, known(fee), known(minutes)]),
  ),
  table(
    'Judgement',
    'How what nobody measured may turn out',
    worthTable,
    ['What', 'Chance or range'],
    [
      ...soilGroups.map((group) => [
        `A drainage hole in ${group}`,
        `slow ${worthTable.holes[group].slow} %, stands ${worthTable.holes[group].stands} %`,
      ]),
      ['The same where it looks wet', `${worthTable.holes.wetTimes} times as likely`],
      ...worthTable.fizz.map(({ from, none, weak, strong }) => [
        `A fizz from pH ${from}`,
        `none ${none} %, weak ${weak} %, strong ${strong} %`,
      ]),
      ...worthTable.nutrients.map(({ key, middle, spread }) => [
        capital(key),
        `middle ${middle} ppm, log spread ${spread}`,
      ]),
      ['Salts of the paste', `middle ${worthTable.salt.middle} dS/m, log spread ${worthTable.salt.spread}`],
      ['Organic matter', `middle of an ordinary soil, log spread ${worthTable.organicSpread}`],
    ],
  ),
];

export const ofTrouble = [
  table(
    'Trouble',
    'What points at which cause',
    troubleRules,
    ['Cause', 'Speaks for it', 'Speaks against it', 'Cheapest check'],
    troubleRules.causes.map(({ label, evidence, check }) => {
      const told = (speaks: (weight: number) => boolean): string =>
        evidence.flatMap(({ weight, words }) => (speaks(weight) ? [`${words} (${Math.abs(weight)})`] : [])).join('; ');
      return [label, told((weight) => weight > 0), told((weight) => weight < 0) || '–', check.what];
    }),
  ),
];
