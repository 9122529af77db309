import { surfaces } from '../ground/surfaces.ts';
import { correction } from '../nutrients/correction.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import { knownStraights } from '../nutrients/straights.ts';
import { yearlyRates } from '../nutrients/sufficiencyTables.ts';
import { compostLayers } from '../organic/program.ts';
import { limitRule, limitRules } from '../reading/limitRules.ts';
import { limitTable } from '../reading/limitTable.ts';
import { sodiumTable } from '../soil/sodium.ts';
import { convert } from '../units/unit.ts';
import { known, range, table } from './table.ts';
import { capital } from '../units/capital.ts';

const { ph, esp, organicMatter, freeCarbonate } = limitTable;
const { toTheAim, leaveAlone, towardNeutral, organicSoil, mixPartFrom } = correction;

const own = (value: number): number => value;
const inchesPerHour = (value: number): number => Number(convert(value, 'mm/h', 'in/h').toFixed(2));

/**
 * From where a fact limits clearly and severely, as the rule of a limit has it.
 * @param fine of the cases for fine turf alone, or of those for the rest; all of them where left out
 */
function ends(key: string, name: string, told = own, fine?: boolean): readonly string[] {
  return (['clear', 'severe'] as const).map((degree) => {
    const found = limitRule(key).cases.find(
      (entry) =>
        entry.degree === degree &&
        entry.when.some(({ fact }) => fact === name) &&
        (fine === undefined || entry.when.some(({ fact }) => fact === 'surface') === fine),
    );
    const { above, below, from } = found!.when.find(({ fact }) => fact === name)!;
    return below !== undefined
      ? `below ${told(below)}`
      : from !== undefined
        ? `from ${told(from)}`
        : `above ${told(above!)}`;
  });
}

/** Rules of judgement that are neither a formula nor a band of a laboratory. */
export const ofJudgement = [
  table(
    'Judgement',
    'From where something limits a lawn',
    limitRules,
    ['What', 'A little', 'Clearly', 'Severely'],
    [
      [
        'pH outside the grass’s band',
        `up to ${ph.small}`,
        `up to ${ph.clear}`,
        `beyond, and below ${ph.severeBelow} or above ${ph.severeAbove}`,
      ],
      ['Mean drop of a test hole, in/h', '–', ...ends('drainage', 'percolation', inchesPerHour)],
      ['Depth at which a probe stops, cm', '–', ...ends('compaction', 'probeStop')],
      ['Thatch on turf, cm', '–', ...ends('thatch', 'thatch', own, false)],
      ['Thatch on fine turf, cm', '–', ...ends('thatch', 'thatch', own, true)],
      ['A drop of water stands, s', '–', ...ends('repellent', 'waterDrop')],
      ['Exchangeable sodium, %', '–', `from ${esp[0]}`, `from ${esp[1]}`],
      ['Hours of sun short', '–', ...ends('shade', 'sunShort')],
      ['Organic matter', '–', 'low', 'very low'],
      ['A nutrient', 'low', 'very low', '–'],
    ],
  ),
  table(
    'Judgement',
    'Organic matter by what the ground is, %',
    limitTable,
    ['Ground', 'Very low', 'Low', 'Wanted', 'High', 'Very high'],
    (['lawn', 'sand', 'fine turf'] as const).map((kind) => {
      const [low = 0, medium = 0, high = 0, veryHigh = 0] = organicMatter[kind];
      return [
        capital(kind),
        `below ${low}`,
        range([low, medium]),
        range([medium, high]),
        range([high, veryHigh]),
        `above ${veryHigh}${kind === 'lawn' ? `; an organic soil from ${organicMatter.organicSoilFrom}` : ''}`,
      ];
    }),
  ),
  table(
    'Judgement',
    'When a pH is corrected',
    correction,
    ['Rule', 'Corrects'],
    [
      ['Outside the band (the default)', 'only outside the grass’s band, then to the aim'],
      ['To the aim', `whenever the pH is ${toTheAim.least} or more from the aim`],
      ['Leave alone', `nothing between ${leaveAlone.between.join(' and ')}, nor anything inside the band`],
      [
        'Toward neutral',
        `lime whatever lies below ${towardNeutral.below}, to the lower of that and the band’s top; ${towardNeutral.onlyBelowBand.join(' and ')} only below their bands`,
      ],
      [
        `From ${organicSoil.from} % organic matter`,
        `aim and foot of the band ${organicSoil.lower} lower, the foot not below ${organicSoil.leastFoot}; from ${organicSoil.soilFrom} % the aim at most ${organicSoil.highestAim}`,
      ],
      ['A mix', `the band that its parts of ${mixPartFrom} % and more share, else that of the largest`],
      [
        'Free carbonate, which rules out sulfur',
        `a fizz, ${freeCarbonate.measuredFrom} % or more measured, or pH ${freeCarbonate.phFrom} and more with very high calcium`,
      ],
    ],
  ),
  table(
    'Judgement',
    'How much compost at once, cm',
    compostLayers,
    ['Where', 'At most'],
    [
      ['One pass on turf', known(compostLayers.turfPass)],
      ['A year on turf, each pass after coring', known(compostLayers.turfYearCored)],
      ['Tilled into a seedbed', known(compostLayers.seedbed)],
      ['The same, of a compost poor in nutrients', known(compostLayers.seedbedPoor)],
      ['Years of a program', known(compostLayers.mostYears)],
    ],
  ),
  table(
    'Judgement',
    'Gypsum and leaching',
    sodiumTable,
    ['What', 'Figure'],
    [
      ['Gypsum to a mol of charge, g', known(sodiumTable.gramsPerMol)],
      ['Target of exchangeable sodium, %', known(sodiumTable.targetEsp)],
      ['Efficiency, %', known(sodiumTable.efficiency)],
      [
        'Gypsum on turf at once, lb/1000 ft²',
        `${sodiumTable.most.turf} at most, ${sodiumTable.timesAYear} times a year`,
      ],
      ['Water to a mm of soil, times EC over its target, mm', known(sodiumTable.leaching)],
    ],
  ),
  table(
    'Nitrogen',
    'What one pass may carry, lb N/1000 ft²',
    nitrogenLimits,
    ['Surface', 'Soluble', 'All', `All, ${nitrogenLimits.slowFrom} % or more of it slow`],
    surfaces.map((surface) => [
      capital(surface),
      known(nitrogenLimits.soluble[surface]),
      known(nitrogenLimits.total[surface]),
      known(nitrogenLimits.mostlySlow[surface]),
    ]),
  ),
  table(
    'Nitrogen',
    'Passes of a year, and other caps of a pass',
    nitrogenLimits,
    ['What', 'At least or at most'],
    [
      ...nitrogenLimits.leastPasses.map(({ yearAbove, passes }) => [
        `A year above ${yearAbove} lb N`,
        `${passes} passes at least`,
      ]),
      ['K₂O on turf', `${nitrogenLimits.potash.turf} lb/1000 ft² at most`],
      ['K₂O on fine turf, as sulfate', `${nitrogenLimits.potash['fine turf']} lb/1000 ft² at most`],
      ['P₂O₅ on grown turf', `${nitrogenLimits.phosphate} lb/1000 ft² at most`],
      ['Magnesium', `${nitrogenLimits.magnesium} lb/1000 ft² at most`],
      [
        'P₂O₅ and K₂O by grass',
        `rates × middle of its nitrogen range / ${known(yearlyRates.middlingNitrogen)}, within ${yearlyRates.grassFactor?.join(' and ') ?? ''}`,
      ],
    ],
  ),
  table(
    'Materials',
    'Straight fertilizers, all that they hold',
    knownStraights,
    ['Material', 'N-P₂O₅-K₂O', 'Ca', 'Mg', 'S', 'Salt index'],
    knownStraights.materials.map(({ name, n, p2o5, k2o, ca, mg, s, saltIndex }) => [
      capital(name),
      `${n}-${p2o5}-${k2o}`,
      known(ca),
      known(mg),
      known(s),
      known(saltIndex),
    ]),
  ),
  table(
    'Materials',
    'Magnesium on turf, lb Mg/1000 ft² a year',
    otherNutrients,
    ['Rating', 'Magnesium', `As ${otherNutrients.magnesium.carrier}, ${otherNutrients.magnesium.content} % Mg`],
    (['very low', 'low'] as const).map((rating) => {
      const rate = otherNutrients.magnesium[rating];
      return [capital(rating), known(rate), ((rate * 100) / otherNutrients.magnesium.content).toFixed(1)];
    }),
  ),
];
