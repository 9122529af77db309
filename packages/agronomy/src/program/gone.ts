import { type LedgerKey, ofMaterial } from '../ledger/brought.ts';
import type { Gone } from '../ledger/gone.ts';
import { entryKindOf } from '../remedies/entryKindOf.ts';
import type { Stocked } from '../remedies/remedy.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { type UnitSystem, present } from '../units/present.ts';
import type { Change } from './changes.ts';

/** What a remedy is given for: by it another product of the same use counts. */
const activeOf: Readonly<Partial<Record<RemedyName, LedgerKey>>> = {
  ...{ lime: 'lime', nitrogen: 'n', phosphorus: 'p2o5', potassium: 'k2o', magnesium: 'mg', sulfate: 's' },
  ...{ sulfur: 'sulfur', gypsum: 'gypsum', iron: 'fe', compost: 'compost', sand: 'sand' },
};

/** What of a kind went down, as so much of the product that the rate is of. */
function asProduct({ remedy }: Change, gone: Gone, product: Stocked | undefined): number {
  const key = activeOf[remedy];
  const ofKind = gone.ofKind[entryKindOf(remedy)]?.rate ?? 0;
  if (key === undefined) return ofKind;
  if (key === 'compost' || key === 'sand') return gone.sums[key];
  const held = product ? ofMaterial(product.material, 1, 'g/m2')[key] : 0;
  return held > 0 ? gone.sums[key] / held : ofKind;
}

/** Nobody goes over a lawn again for less than this share of a rate. */
const NOT_WORTH = 0.02;

/**
 * What of rates set by hand is still to go down. Of several treatments of one remedy the first is taken as done first:
 * what went down counts once.
 *
 * @param treatments as the whole rates would have them
 */
export function lessGone(
  changes: readonly Change[],
  treatments: readonly Treatment[],
  materials: readonly Stocked[],
  system: UnitSystem,
): Change[] {
  const taken = new Map<RemedyName, number>();
  return changes.map((change) => {
    const treatment = treatments.find(({ key }) => key === change.key);
    return treatment ? lessOf(change, treatment, taken, materials, system) : change;
  });
}

function lessOf(
  change: Change,
  treatment: Treatment,
  taken: Map<RemedyName, number>,
  materials: readonly Stocked[],
  system: UnitSystem,
): Change {
  const { gone, values, out, remedy } = change;
  const field = typeof values.rate === 'number' ? 'rate' : typeof values.layer === 'number' ? 'layer' : undefined;
  if (!gone || field === undefined || out !== undefined) return change;
  const each = values[field] as number;
  // Sand and wetting agent are set for one going-over, all others for the year.
  const perTime = treatment.doses.length > 1 && (treatment.rate?.value ?? 0) > each * 1.01;
  const set = perTime ? each * treatment.doses.length : each;
  const product = materials.find(({ id }) => id === treatment.values.material);
  const before = taken.get(remedy) ?? 0;
  const down = Math.max(0, asProduct(change, gone, product) - before);
  if (down <= set * NOT_WORTH) return change;
  taken.set(remedy, before + Math.min(down, set));
  const say = (of: number): string => present(treatment.sense, of, system).text;
  const left = set - down;
  if (left <= set * NOT_WORTH)
    return {
      ...change,
      out: 'down',
      told: `The ${say(set)} set by hand is down, ${say(down)} by ${gone.last}: nothing more goes down until another rate is set.`,
    };
  const times = gone.ofKind[entryKindOf(remedy)]?.times ?? 0;
  const fewer = typeof values.times === 'number' ? { times: Math.max(1, values.times - times) } : {};
  return {
    ...change,
    values: { ...values, ...(perTime ? { times: Math.ceil(left / each - NOT_WORTH) } : { [field]: left, ...fewer }) },
    told: `Of the ${say(set)} set by hand ${say(down)} is down by ${gone.last}: ${say(left)} is left.`,
  };
}
