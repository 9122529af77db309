import { surfaces } from '../ground/surfaces.ts';
import { correction } from '../nutrients/correction.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import { knownStraights } from '../nutrients/straights.ts';
import { yearlyRates } from '../nutrients/sufficiencyTables.ts';
import { limitTable } from '../reading/limitTable.ts';
import { capital, known, range, table } from './table.ts';

const { ph, drainage, probeStop, thatch, waterDrop, esp, sunShort, organicMatter, freeCarbonate } = limitTable;
const { toTheAim, leaveAlone, towardNeutral, organicSoil, mixPartFrom } = correction;

/** Rules of judgement that are neither a formula nor a band of a laboratory. */
export const ofJudgement = [
  table(
    'Judgement',
    'From where something limits a lawn',
    limitTable,
    ['What', 'A little', 'Clearly', 'Severely'],
    [
      [
        'pH outside the grass’s band',
        `up to ${ph.small}`,
        `up to ${ph.clear}`,
        `beyond, and below ${ph.severeBelow} or above ${ph.severeAbove}`,
      ],
      ['Mean drop of a test hole, in/h', '–', `below ${drainage.clearBelow}`, `below ${drainage.severeBelow}`],
      ['Depth at which a probe stops, cm', '–', `above ${probeStop.clearAbove}`, `above ${probeStop.severeAbove}`],
      ...(['turf', 'fine turf'] as const).map((surface) => [
        `Thatch on ${surface}, cm`,
        '–',
        `from ${thatch[surface][0]}`,
        `from ${thatch[surface][1]}`,
      ]),
      ['A drop of water stands, s', '–', `from ${waterDrop[0]}`, `from ${waterDrop[1]}`],
      ['Exchangeable sodium, %', '–', `from ${esp[0]}`, `from ${esp[1]}`],
      ['Hours of sun short', '–', `up to ${sunShort.severeAbove}`, `above ${sunShort.severeAbove}`],
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
