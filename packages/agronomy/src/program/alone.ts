import { InputError } from '../calculators/fields.ts';
import { refusalWords } from '../calculators/refusal.ts';
import { type Asked, type Made, type Proposal, cannot } from '../remedies/remedy.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import { remedyOf } from '../remedies/remedies.ts';
import { deliveriesOf, isLoose } from '../remedies/supply.ts';
import { NOTHING, type Supply, type Treatment } from '../remedies/treatment.ts';
import { present } from '../units/present.ts';
import type { Figure } from '../working/working.ts';
import type { Change } from './changes.ts';
import { byHandOf, statusOf } from './ownChanges.ts';
import { visitsOf } from './usualYear.ts';

/** A treatment of a remedy that stands by itself. */
function treatmentOf(
  name: RemedyName,
  key: string,
  proposal: Proposal | undefined,
  change: Change | undefined,
  asked: Asked,
): Treatment {
  const { label, stage, dose } = remedyEntry(name);
  const remedy = remedyOf(name)!;
  const by = (values: Readonly<Record<string, unknown>>): Made => {
    try {
      return remedy.make(values, asked);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return cannot(refusalWords(error), values);
    }
  };
  const usual = usualValues(name, asked);
  const made = by({ ...usual, ...change?.values });
  const changed = change !== undefined && Object.keys(change.values).length > 0;
  const plain = changed && proposal?.status === 'due' ? by(usual) : undefined;
  const told = plain?.rate ? present(plain.sense, plain.rate.value, asked.system).text : null;
  const kept =
    change && !change.added && proposal?.status !== 'due'
      ? ['The test does not ask for it any more: kept by hand.']
      : [];
  return {
    key,
    remedy: name,
    name: label,
    stage,
    status: statusOf(change, made.status),
    words: [...kept, proposal?.status === 'due' ? proposal.words : '', made.words ?? ''].filter(Boolean).join(' '),
    sense: made.sense,
    dose,
    rate: made.rate,
    need: proposal?.need ?? null,
    doses: made.doses.map((rate) => ({
      rate,
      quantity: share(made.supply, rate, made.rate),
      from: null,
      to: null,
      own: false,
    })),
    when: null,
    supply: made.supply ?? null,
    others: made.others ?? [],
    brings: made.brings ?? NOTHING,
    acidity: made.acidity ?? 0,
    surface: made.surface ?? 0,
    price: made.price ?? null,
    loads: made.loads ?? looseLoads(made.supply),
    job: made.job,
    waits: made.waits ?? null,
    facts: made.facts ?? [],
    cautions: [...new Set([...(proposal?.cautions ?? []), ...(made.cautions ?? [])])],
    more: made.more ?? [],
    values: made.values,
    byHand: byHandOf(change, told ? `${told} without the change` : null, made.held ?? null),
  };
}

/** m³ of a load of compost or sand, where nobody has said what the truck holds. */
const USUAL_LOAD = 9;

/** Loads in which what comes loose is brought; nothing for bags, and for what is delivered at a price of its own. */
const looseLoads = (supply: Supply | null | undefined): number | undefined =>
  supply && isLoose(supply) && !supply.delivery
    ? deliveriesOf(supply.quantity.value, { price: 0, load: USUAL_LOAD })
    : undefined;

/** Care that no test of the soil decides: a usual year puts it in by itself. */
const CARE: readonly RemedyName[] = ['core', 'sand', 'clay', 'wetting', 'iron', 'seed', 'weeds', 'work'];

/** What the usual year sets of a remedy: a material that the list still holds, and how often. */
function usualValues(name: RemedyName, { settings, materials }: Asked): Readonly<Record<string, unknown>> {
  const visits = visitsOf(settings.usualYear, name);
  const material = visits.find((visit) => materials.some(({ id }) => id === visit.material))?.material;
  const often = CARE.includes(name) && 'times' in (remedyOf(name)?.fields ?? {}) && visits.length > 0;
  return { ...(material ? { material } : {}), ...(often ? { times: visits.length } : {}) };
}

/** What is proposed by the test, else as care of the usual year. */
export function proposedOrUsual(
  name: RemedyName,
  proposal: Proposal | undefined,
  { settings, test }: Asked,
): Proposal | undefined {
  const { usualYear } = settings;
  if (proposal?.status === 'due' || !usualYear || !test || !CARE.includes(name)) return proposal;
  return visitsOf(usualYear, name).length > 0
    ? { status: 'due', words: `Of the usual year, “${usualYear.name}”.` }
    : proposal;
}

/** What a dose takes of a supply. */
const share = (supply: Supply | null | undefined, rate: number, total: Figure | null): number | null =>
  supply && total && total.value > 0 ? (supply.quantity.value * rate) / total.value : (supply?.quantity.value ?? null);

/** The treatments of one remedy: what is proposed, and what was added by hand. */
export function treatmentsOf(
  name: RemedyName,
  proposal: Proposal | undefined,
  asked: Asked,
  changes: readonly Change[],
): Treatment[] {
  const own = changes.filter(({ remedy, added }) => remedy === name && added);
  const change = changes.find(({ key, added }) => key === name && !added);
  const kept =
    change !== undefined &&
    (change.out === undefined || change.out === 'down') &&
    Object.keys(change.values).length > 0;
  return [
    ...(proposal?.status === 'due' || kept ? [treatmentOf(name, name, proposal, change, asked)] : []),
    ...own.map((added) => treatmentOf(name, added.key, undefined, added, asked)),
  ];
}
