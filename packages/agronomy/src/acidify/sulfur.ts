import { defineCalculator } from '../calculators/calculator.ts';
import { choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { sulfurTable as sulfur, readSulfurLimits, sulfurLimits, sulfurSurfaces } from './tables.ts';

const toGrams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
/** Share of 1 % by mass of a slice 1 cm deep at the bulk density of the furrow slice, g/m². */
const CARBONATE_PER_PERCENT_CM = convert((0.01 * 2_000_000) / convert(20 / 3, 'in', 'cm'), 'lb/acre', 'g/m2');

/** lb S/1000 ft² (6 in) from 6.5 up to a pH; below 6.5, down from it, by the horticultural slope. */
function cumulative(ph: number, amounts: readonly number[], below: number): number {
  if (ph < 6.5) return (ph - 6.5) * below;
  const rows = sulfur.ph.map((at, index): readonly [number, number] => [at, amounts[index] ?? 0]);
  const points: ReadonlyArray<readonly [number, number]> = [[6.5, 0], ...rows];
  const upper = points.findIndex(([at]) => ph <= at);
  const [from, to] = upper <= 0 ? [points[0]!, points[1]!] : [points[upper - 1]!, points[upper]!];
  return from[1] + ((ph - from[0]) / (to[0] - from[0])) * (to[1] - from[1]);
}

/**
 * Elemental sulfur to lower the pH of a slice.
 *
 * @param soilPh up to 8.5; `targetPh`; `soilGroup`; `depth` cm; `freeCarbonate` % of the soil by mass, when measured;
 *   `surface`, which sets what is feasible.
 * @returns `requirement` g/m² of S, none at or below the target; `feasible` when it can be put down within ten years.
 * @throws {InputError} above 8.5, where the table ends.
 */
export const sulfurRequirement = defineCalculator({
  name: 'sulfur.requirement',
  title: 'Sulfur to lower the pH',
  source: sulfur.source,
  inputs: {
    soilPh: quantity('pH', {
      min: 2.5,
      max: 8.5,
      why: 'the table ends at 8.5; above it free lime or sodium rules, and sulfur is not the answer',
    }),
    targetPh: quantity('pH', { min: 4.5, max: 8.5 }),
    soilGroup: choice(['sand', 'loam', 'clay']),
    depth: quantity('cm', { above: 0, max: 60 }),
    freeCarbonate: optional(quantity('%', { min: 0, max: 100 })),
    surface: defaulted(choice(sulfurSurfaces), 'turf'),
  },
  outputs: { requirement: 'g/m2', feasible: 'true or false' },
  compute({ soilPh, targetPh, soilGroup, depth, freeCarbonate, surface }, book) {
    if (soilPh <= targetPh) {
      book.step({
        label: 'Already at the target',
        formula: 'soil pH ≤ target pH',
        numbers: `${figure(soilPh)} ≤ ${figure(targetPh)}`,
        result: 0,
        unit: 'g/m2',
      });
      return { requirement: 0, feasible: true };
    }
    const amounts = sulfur.toSixFive[soilGroup];
    const scale = depth / convert(sulfur.depthIn, 'in', 'cm');
    const slope = (amounts[0] ?? 0) / ((sulfur.ph[0] ?? 7) - 6.5);
    const below = sulfur.belowSixFive[soilGroup];
    const [from, to] =
      freeCarbonate === undefined
        ? [cumulative(soilPh, amounts, below), cumulative(targetPh, amounts, below)]
        : [soilPh, targetPh].map((ph) => (ph - 6.5) * (ph < 6.5 ? below : slope));
    const perThousand = (from ?? 0) - (to ?? 0);
    const forPh = toGrams(perThousand) * scale;
    book.step({
      label: 'Sulfur for the pH',
      formula:
        freeCarbonate === undefined
          ? '(table at soil pH − table at target) × depth / 6 in'
          : '(soil pH − 6.5) × slope of the 7.0 row, less the same at the target, × depth / 6 in',
      numbers:
        freeCarbonate === undefined
          ? `(${figure(from ?? 0)} − (${figure(to ?? 0)})) lb/1000 ft² × ${figure(scale)}`
          : `(${figure(from ?? 0)} − (${figure(to ?? 0)})) lb/1000 ft² × ${figure(scale)}`,
      result: forPh,
      unit: 'g/m2',
      source: sulfur.source,
    });
    const forCarbonate = ((freeCarbonate ?? 0) * depth * CARBONATE_PER_PERCENT_CM) / sulfur.carbonatePerSulfur;
    if (freeCarbonate)
      book.step({
        label: 'Sulfur for the free carbonate',
        formula: 'carbonate in the slice / 3.12',
        numbers: `${figure(freeCarbonate)} % of ${figure(depth)} cm: ${figure(freeCarbonate * depth * CARBONATE_PER_PERCENT_CM)} g/m² / 3.12`,
        result: forCarbonate,
        unit: 'g/m2',
        source: sulfur.source,
      });
    const requirement = forPh + forCarbonate;
    if (targetPh < 6.5)
      book.warn(
        `Below 6.5 two sources disagree: the horticultural slope is used here, ${below} lb a unit of pH on ${soilGroup}; the turf table's step would say ${figure(slope)}. Go in small steps and retest.`,
        sulfur.source,
      );
    const feasible =
      surface === 'fine turf'
        ? requirement < toGrams(sulfur.feasibleOnFineTurf) * (1 - 1e-9)
        : requirement <= toGrams(sulfur.feasibleUpTo) * (1 + 1e-9);
    if (!feasible)
      book.warn(
        `${surface === 'fine turf' ? `${sulfur.feasibleOnFineTurf} lb/1000 ft² and more, ten years at the cap for fine turf` : `More than ${sulfur.feasibleUpTo} lb/1000 ft², ten years at the cap for turf`}: not feasible. Choose a grass for this pH and feed what it locks up.`,
        sulfurLimits.source,
      );
    if (freeCarbonate === undefined && soilPh > 7.5)
      book.warn(
        'Above 7.5 free lime decides: a drop of vinegar or acid that fizzes shows it. Have it measured before buying sulfur.',
      );
    return { requirement, feasible };
  },
});

/**
 * Sulfur split into what turf can take: full caps first, the rest last.
 *
 * @param requirement g/m² of S; `surface`; `table` caps of one's own, lb/1000 ft² unless they carry a unit.
 * @returns `applications` of S in g/m² with the months they start after the first; `total`; `years` that they take.
 */
export const sulfurProgram = defineCalculator({
  name: 'sulfur.program',
  title: 'Sulfur split into applications',
  source: sulfurLimits.source,
  inputs: {
    requirement: quantity('g/m2', { min: 0, max: 100_000 }),
    surface: choice(sulfurSurfaces),
    table: optional({
      description: 'own caps: source, basis, region, date, perApplication and perYear as the limits of sulfur.json',
      optional: false,
      shape: { kind: 'json' },
      read: readSulfurLimits,
    }),
  },
  outputs: { applications: '[{rate g/m2, monthsFromStart}]', total: 'g/m2', years: 'years' },
  compute({ requirement, surface, table: limits = sulfurLimits }, book) {
    const cap = toGrams(limits.perApplication[surface]);
    const perYear = Math.floor(limits.perYear[surface] / limits.perApplication[surface] + 1e-9);
    const count = Math.ceil(requirement / cap - 1e-9);
    const applications = Array.from({ length: count }, (_, index) => ({
      rate: index < count - 1 ? cap : requirement - cap * (count - 1),
      // Eight weeks apart within a year; the next year's wait for its retest.
      monthsFromStart: Math.floor(index / perYear) * 12 + (index % perYear) * 2,
    }));
    const years = Math.ceil(count / perYear);
    book.step({
      label: 'Applications',
      formula: 'requirement / cap of one application, rounded up',
      numbers: `${figure(requirement)} / ${figure(cap)} g/m²`,
      result: count,
      unit: 'applications',
      source: limits.source,
    });
    if (count > 1)
      book.cap(
        `At most ${limits.perApplication[surface]} lb/1000 ft² at once and ${limits.perYear[surface]} a year on ${surface}: ${count} applications over ${years} ${years === 1 ? 'year' : 'years'}.`,
        limits.source,
      );
    if (count > 0)
      book.warn(
        'Water it off the leaves, in warm moist soil, out of summer heat; steps of a year 8 weeks apart, a retest before the next year’s: sulfur burns, and works for months.',
        limits.source,
      );
    return { applications, total: requirement, years };
  },
});

/** Half-steps in which the pH to be expected is looked for: 4 pH units ÷ 2²⁰. */
const HALVINGS = 20;

/**
 * The pH to which an amount of elemental sulfur brings a slice, by the same table read the other way.
 *
 * @param sulfur g/m² of S, all of it oxidised; the other inputs as of `sulfurRequirement`
 * @returns pH, between 4.5 and that of today; nothing above 8.5, where the table ends
 */
export function phAfterSulfur(
  sulfur: number,
  soil: Omit<Parameters<typeof sulfurRequirement>[0], 'targetPh'> & { readonly soilPh: number },
): number | undefined {
  const { soilPh } = soil;
  if (soilPh > 8.5 || soilPh < 4.5) return undefined;
  let [low, high] = [4.5, soilPh];
  for (let halving = 0; halving < HALVINGS; halving += 1) {
    const targetPh = (low + high) / 2;
    if (sulfurRequirement({ ...soil, targetPh }).result.requirement > sulfur) low = targetPh;
    else high = targetPh;
  }
  return high;
}
