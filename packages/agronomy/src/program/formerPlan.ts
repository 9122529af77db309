import type { ProductAmount } from '../rates/amount.ts';
import type { ZonePlan } from '../rates/plan.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Judged, NOTHING, type Supply, type Treatment } from '../remedies/treatment.ts';
import type { ZoneProgram } from './zoneProgram.ts';

/** What plans of before did not have yet is left out of theirs: they are shown as they were handed over. */
export type FormerPlan = Pick<ZonePlan, 'lime' | 'nutrients' | 'cost' | 'unpriced' | 'leftOut'> &
  Partial<Pick<ZonePlan, 'verdicts' | 'comparisons'>>;

const supplyOf = ({ productId, productName, mass, bags, bagMass, cost }: ProductAmount): Supply => ({
  ...{ materialId: productId, name: productName, quantity: mass, unit: 'kg', packs: bags, packSize: bagMass, cost },
});

interface Told {
  readonly remedy: RemedyName;
  readonly amount: ProductAmount | null;
  readonly words: string;
  readonly cautions: readonly string[];
  readonly more?: readonly string[];
  readonly need?: Treatment['need'];
  readonly refused: boolean;
}

function treatmentOf({ remedy, amount, words, cautions, more = [], need = null, refused }: Told): Treatment {
  const { label, stage, dose } = remedyEntry(remedy);
  return {
    ...{ key: remedy, remedy, name: label, stage, words, need, cautions, more, dose },
    status: refused ? 'refused' : amount ? 'planned' : 'open',
    sense: remedy === 'lime' ? 'limeRate' : 'productRate',
    rate: amount?.rate ?? null,
    doses: (amount?.applications ?? []).map(({ rate, mass }) => ({
      rate,
      quantity: mass,
      from: null,
      to: null,
      own: false,
    })),
    when: null,
    supply: amount ? supplyOf(amount) : null,
    ...{ others: [], brings: NOTHING, acidity: 0, surface: 0, price: null, facts: [], values: {}, byHand: null },
  };
}

const remedies = { n: 'nitrogen', p2o5: 'phosphorus', k2o: 'potassium' } as const;

/** A plan that was handed over before there were programs, on the one pattern that everything reads: its words and numbers stay. */
export function programOfPlan(plan: FormerPlan, system: UnitSystem): ZoneProgram {
  const { lime, nutrients, verdicts = [], comparisons = [], cost, unpriced, leftOut } = plan;
  const limed = lime.status === 'due' || lime.status === 'estimate';
  const rule = (lime as Partial<typeof lime>).rule ?? '';
  const fed = nutrients.filter(({ status, amount }) => status === 'due' || status === 'refused' || amount !== null);
  const treatments = [
    ...(limed ? [treatmentOf({ remedy: 'lime', ...lime, more: rule ? [rule] : [], refused: false })] : []),
    ...fed.map(({ nutrient, amount, words, cautions, need, status }) =>
      treatmentOf({
        remedy: remedies[nutrient],
        ...{ amount, words, cautions },
        refused: status === 'refused',
        need: need && {
          name: `of ${nutrient === 'n' ? 'N' : remedyEntry(remedies[nutrient]).label} a year`,
          told: present('nutrientRate', need.value, system).text,
          figure: need,
        },
      }),
    ),
  ].sort((one, other) => one.stage - other.stage);
  const judged: Judged[] = [
    ...(limed
      ? []
      : [
          {
            remedy: 'lime',
            name: 'Lime',
            status: 'none' as const,
            words: [lime.words, rule].filter(Boolean).join(' '),
            cautions: lime.cautions,
          },
        ]),
    ...nutrients
      .filter((entry) => !fed.includes(entry))
      .map(({ nutrient, name, words, cautions, status }) => ({
        remedy: nutrient,
        name,
        status: status === 'cannot say' ? ('cannot say' as const) : ('none' as const),
        words,
        cautions,
      })),
    ...verdicts
      .filter(({ words }) => words !== '')
      .map(({ remedy, name, words, cautions, status }) => ({
        remedy,
        name,
        status: status === 'due' ? ('none' as const) : status,
        words,
        cautions,
      })),
  ];
  return {
    ...{ treatments, judged, comparisons, balance: [], findings: [], cost, unpriced, leftOut, year: null },
    acidity: { value: 0, working: [] },
  };
}
