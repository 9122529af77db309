import { analyteSource, analytes, nutrientSymbol, soilAnalytes } from '../analytes/analytes.ts';
import { surfaces } from '../ground/surfaces.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import { acidityBases, sulfurLimits, sulfurSurfaces, sulfurTable } from '../acidify/tables.ts';
import { adamsEvansTable, mehlichTable, smpTable } from '../lime/buffers.ts';
import { phBuffering } from '../lime/estimate.ts';
import { finenessRules, limeLimits, limeSources } from '../lime/materials.ts';
import { minimumLevels } from '../nutrients/minimumLevel.ts';
import { growthPotentials, nitrogenCredits, shades } from '../nutrients/nitrogenTables.ts';
import {
  conversions,
  extractantNames,
  isWhole,
  printedLimits,
  ratings,
  sufficiencySets,
  yearlyRates,
} from '../nutrients/sufficiencyTables.ts';
import { amendments } from '../organic/amendments.ts';
import { fillMaterials } from '../organic/rebuild.ts';
import { ofReading } from './readingTables.ts';
import { ofOwnTests, ofSampling, ofTrouble, ofWorth } from './fieldTables.ts';
import { ofGrasses } from './grassTables.ts';
import { ofJudgement } from './judgementTables.ts';
import { ofPlaces } from './placeTables.ts';
import { ofProgram } from './programTables.ts';
import { ofSeason } from './seasonTables.ts';
import { type ReferenceTable, known, range, table } from './table.ts';
import { capital } from '../units/capital.ts';
import { cationTables } from '../soil/cations.ts';
import { percolationClasses } from '../soil/percolation.ts';
import { textureClasses, textureTable } from '../soil/textureClasses.ts';
import { cropFactors } from '../water/irrigation.ts';

const ofSoilTests = [
  table(
    'Soil tests',
    'What reports hold',
    analyteSource,
    ['Analyte', 'Reported in', 'Usual on lawns', 'Panel', 'It answers', 'It does not say'],
    soilAnalytes.map((key) => {
      const { name, symbol, units, oxide, plausible, panel, answers, silent } = analytes[key];
      const told = units.map((unit) => (unit === 'pH' || unit === '' ? 'a plain number' : unit));
      return [
        symbol === name ? name : `${name}, ${symbol}`,
        [...told, ...(oxide ? [`also as ${oxide.name} (${oxide.factor})`] : [])].join(', '),
        range(plausible),
        panel ?? '–',
        answers,
        silent,
      ];
    }),
  ),
  ...sufficiencySets.map((set) =>
    table(
      'Soil tests',
      `Sufficiency by ${extractantNames[set.extractant]}`,
      set,
      ['Nutrient, mg/kg', ...ratings.map((rating) => capital(rating))],
      set.rows.map((row) => {
        const [low, medium, high, veryHigh] = printedLimits(row);
        const own = row.veryLowBelow === undefined ? '*' : '';
        // A band printed in whole numbers ends on one.
        const last = (limit: number): string => known(isWhole(row) ? Math.ceil(limit) - 1 : limit);
        const after = known(isWhole(row) ? high + 1 : high);
        return [
          `${nutrientSymbol(row.nutrient)}${row.soilGroup ? `, ${row.soilGroup}` : ''}${row.uncertain ? ' (uncertain)' : ''}`,
          `below ${low}${own}`,
          `${low}–${last(medium)}`,
          `${medium}–${high}`,
          `${after}–${last(veryHigh)}`,
          `${veryHigh}${row.veryHighFrom === undefined ? '*' : ''} and more`,
        ];
      }),
    ),
  ),
  table(
    'Soil tests',
    'Conversions between extractants (only when asked for)',
    conversions,
    ['Name', 'Nutrient', 'From', 'To', 'Factor'],
    conversions.conversions.map(({ name, nutrient, from, to, factor }) => [
      name,
      nutrientSymbol(nutrient),
      extractantNames[from],
      extractantNames[to],
      known(factor),
    ]),
  ),
  table(
    'Soil tests',
    'P₂O₅ and K₂O for the year, lb/1000 ft²',
    yearlyRates,
    ['Oxide', ...ratings.map(capital), 'At once'],
    (['p', 'pEstablishing', 'k'] as const).map((nutrient) => [
      { p: 'P₂O₅, grown turf', pEstablishing: 'P₂O₅, at establishment', k: 'K₂O' }[nutrient],
      ...ratings.map((rating) => known((yearlyRates[nutrient] ?? yearlyRates.p)[rating])),
      known(yearlyRates.perApplication),
    ]),
  ),
  table(
    'Soil tests',
    'Minimum levels',
    minimumLevels,
    ['Nutrient', 'Floor, mg/kg', 'In leaves, %'],
    Object.entries(minimumLevels.leaf).map(([nutrient, share]) => [
      nutrientSymbol(nutrient),
      known((minimumLevels.floor as Readonly<Record<string, number>>)[nutrient]),
      known(share),
    ]),
  ),
  table(
    'Soil tests',
    'Shares of the exchange capacity',
    cationTables.balance,
    ['Cation', 'Wanted, %', 'Still tolerated, %'],
    Object.entries(cationTables.balance.ranges).map(([cation, [low = 0, high = 0, tolerated = 0]]) => [
      cation === 'acidity' ? 'Acidity' : nutrientSymbol(cation),
      range([low, high]),
      known(tolerated),
    ]),
  ),
];

const ofLime = [
  table(
    'Lime',
    'SMP and Sikora buffers, short tons/acre',
    smpTable,
    ['Target pH', 'Lime at lime test index LTI', 'Assumed effectiveness, %'],
    smpTable.lines.map(({ target, intercept, slope }) => [
      target.toFixed(1),
      `${intercept} − ${slope} × LTI`,
      known(smpTable.assumedEffectiveness),
    ]),
  ),
  table(
    'Lime',
    'Mehlich buffer',
    mehlichTable,
    ['Rule', 'Lime', 'Assumed effectiveness, %'],
    [
      ['field lime', 'AC × (target − pH) / (6.6 − pH) short tons/acre', known(mehlichTable.assumedEffectiveness)],
      ['mehlich 1976', 'AC + 0.1 AC² t/ha, 20 cm', '100'],
    ],
  ),
  table(
    'Lime',
    'Adams–Evans buffer',
    adamsEvansTable,
    ['Lime, lb/acre', 'Assumed effectiveness, %'],
    [['8000 × (8.00 − buffer pH) / H now × (H now − H target)', '100 / lime factor']],
  ),
  table(
    'Lime',
    'Without a buffer test: pH buffering',
    phBuffering,
    ['Soil', 'Mineral part', 'For each % of organic matter', 'Ordinary organic matter, %'],
    soilGroups.map((group) => [
      group,
      known(phBuffering.mineral[group]),
      known(phBuffering.perOrganicMatter),
      known(phBuffering.ordinaryOrganicMatter[group]),
    ]),
  ),
  ...Object.entries(finenessRules).map(([rule, factors]) =>
    table(
      'Lime',
      `Fineness, ${capital(rule)} rule`,
      factors,
      ['8–20 mesh', '20–60 mesh', 'Under 60 mesh'],
      [[factors.from8to20, factors.from20to60, factors.under60].map(known)],
    ),
  ),
  table(
    'Lime',
    'Liming materials',
    limeSources,
    ['Material', 'Neutralising value, %', 'Ca, %', 'Mg, %', 'Burns', 'Note'],
    limeSources.materials.map(({ name, cce, calcium, magnesium, caustic, note }) => [
      capital(name),
      range(cce),
      known(calcium),
      known(magnesium),
      caustic ? 'yes' : 'no',
      note ?? '',
    ]),
  ),
  table(
    'Lime',
    `Most at once, at least ${limeLimits.monthsBetween} months apart`,
    limeLimits,
    ['Surface', 'lb/1000 ft²', 'Times a year'],
    surfaces.map((surface) => [
      surface,
      known(limeLimits.capPerThousand[surface]),
      known(limeLimits.timesPerYear?.[surface]),
    ]),
  ),
];

const ofSulfur = [
  table(
    'Sulfur and acidity',
    `Sulfur to pH 6.5, lb/1000 ft², ${sulfurTable.depthIn} in deep`,
    sulfurTable,
    ['From pH', ...soilGroups.map(capital)],
    sulfurTable.ph.map((ph, index) => [
      ph.toFixed(1),
      ...soilGroups.map((group) => known(sulfurTable.toSixFive[group][index])),
    ]),
  ),
  table(
    'Sulfur and acidity',
    'Most sulfur, lb/1000 ft²',
    sulfurLimits,
    ['Surface', 'At once', 'A year'],
    sulfurSurfaces.map((surface) => [
      surface,
      known(sulfurLimits.perApplication[surface]),
      known(sulfurLimits.perYear[surface]),
    ]),
  ),
  ...Object.entries(acidityBases).map(([basis, own]) =>
    table(
      'Sulfur and acidity',
      `Acidity of nitrogen, ${basis === 'pierre' ? 'measured (Pierre)' : basis}`,
      own,
      ['Source', 'CaCO₃ for each N'],
      own.perNitrogen.map(({ name, limeEquivalent, sulfurCounts }) => [
        capital(name),
        `${limeEquivalent}${sulfurCounts ? `, and ${sulfurTable.carbonatePerSulfur} for each S` : ''}`,
      ]),
    ),
  ),
];

const ofNitrogen = [
  table(
    'Nitrogen',
    'What comes off the year’s nitrogen',
    nitrogenCredits,
    ['For', 'Taken off'],
    [
      ...shades.map((shade) => [`Shade: ${shade}`, `${100 - 100 * nitrogenCredits.shade[shade]} %`]),
      ['Clippings returned', `${nitrogenCredits.clippings * 100} %`],
      [
        `Organic matter above ${nitrogenCredits.ordinaryOrganicMatter} %`,
        `${nitrogenCredits.yearlyRelease * 100} % a year of its nitrogen, ${nitrogenCredits.rootZone} cm deep`,
      ],
    ],
  ),
  table(
    'Nitrogen',
    'Growth potential',
    growthPotentials,
    ['Season', 'Best, °C', 'Spread, °C'],
    (['cool', 'warm'] as const).map((season) => [
      capital(season),
      known(growthPotentials[season].best),
      known(growthPotentials[season].spread),
    ]),
  ),
];

const ofMaterials = [
  table(
    'Materials',
    'Composts, soils and amendments',
    amendments,
    [
      'Material',
      'g/cm³',
      'Dry, %',
      'Organic, %',
      'Left after a year, %',
      'For good, %',
      'CEC',
      'N',
      'P₂O₅',
      'K₂O',
      'N in year 1, %',
    ],
    amendments.materials.map((material) => [
      capital(material.name),
      known(material.bulkDensity),
      known(material.dryFraction),
      known(material.organicFraction),
      known(material.retained),
      known(material.lasting),
      known(material.cec),
      known(material.n),
      known(material.p2o5),
      known(material.k2o),
      known(material.nitrogenFirstYear),
    ]),
  ),
];

const ofFill = [
  table(
    'Materials',
    'Fill and topsoil by the load',
    fillMaterials,
    ['Material', 't/m³ loose', 'Settling, % of the loose depth'],
    fillMaterials.materials.map(({ name, bulkDensity, settling }) => [
      capital(name),
      known(bulkDensity),
      known(settling),
    ]),
  ),
];

const ofSoilAndWater = [
  table(
    'Soil and water',
    'USDA texture classes',
    textureTable,
    ['Class', 'Rule'],
    textureClasses.map(({ name, rule }) => [capital(name), rule]),
  ),
  table(
    'Soil and water',
    'Percolation of a test hole, in/h',
    percolationClasses,
    ['Slow', 'Good', 'Fast', 'Too fast'],
    [
      [
        `below ${percolationClasses.slowBelow}`,
        range([percolationClasses.slowBelow, percolationClasses.goodBelow]),
        range([percolationClasses.goodBelow, percolationClasses.fastUpTo]),
        `above ${percolationClasses.fastUpTo}`,
      ],
    ],
  ),
  ...Object.entries(cropFactors).map(([name, factors]) =>
    table(
      'Soil and water',
      `Crop factors, ${name === 'california' ? 'California' : 'FAO-56'}`,
      factors,
      ['Cool season', 'Warm season'],
      [[known(factors.cool), known(factors.warm)]],
    ),
  ),
];

/** Every table that a rate can rest on, in the order of the work. */
export const referenceTables: readonly ReferenceTable[] = [
  ...ofGrasses,
  ...ofSoilTests,
  ...ofLime,
  ...ofSulfur,
  ...ofNitrogen,
  ...ofMaterials,
  ...ofFill,
  ...ofSoilAndWater,
  ...ofSampling,
  ...ofOwnTests,
  ...ofJudgement,
  ...ofWorth,
  ...ofReading,
  ...ofProgram,
  ...ofSeason,
  ...ofTrouble,
  ...ofPlaces,
];

export type { ReferenceTable };
