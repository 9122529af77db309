import { InputError } from '../calculators/fields.ts';
import { productOf } from '../materials/product.ts';
import type { LimeComparison } from '../rates/compareLime.ts';
import type { Macro } from '../rates/needs.ts';
import { type PlanInput, type ProductChoices, type TestedZone, ratesOf, understand } from '../rates/plan.ts';
import { magnesiumVerdict, magnesiumWanted } from '../rates/verdicts.ts';
import type { Reading } from '../reading/reading.ts';
import { type Asked, type Made, type Proposal, type Stocked, cannot } from '../remedies/remedy.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import { remedies, remedyOf } from '../remedies/remedies.ts';
import type { PlaceClimate } from '../season/climate.ts';
import { type YearAhead, yearAhead } from '../remedies/months.ts';
import { defaultSettings } from '../settings/settings.ts';
import { money, present } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { type BalanceLine, balanceOf, planned } from './balance.ts';
import type { Change } from './changes.ts';
import { byHandOf, outOf, ownFeed, ownOf, statusOf } from './ownChanges.ts';
import { type Finding, findingsOf } from './interactions.ts';
import { judgedOf } from './judged.ts';
import { fed, macroOf } from './fed.ts';
import { feedTreatment, limeTreatment } from './ratesAsTreatments.ts';
import { placed } from './placing.ts';
import { type AgainstUsual, againstUsual, visitsOf } from './usualYear.ts';
import { type Judged, NOTHING, type Supply, type Treatment } from '../remedies/treatment.ts';

/** What a zone gets in a year, in the order of work, and what was looked at beside. */
export interface ZoneProgram {
  readonly treatments: readonly Treatment[];
  readonly judged: readonly Judged[];
  readonly comparisons: readonly LimeComparison[];
  readonly balance: readonly BalanceLine[];
  readonly findings: readonly Finding[];
  /** Net acidity of the year’s feeding, sulfur and lime, g/m² as CaCO₃; more than nothing acidifies. */
  readonly acidity: Figure;
  /** Nothing while something that is due has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** What need not be bought. */
  readonly leftOut: readonly string[];
  /** Where it is other than the usual year; nothing where there is none, as before there could be. */
  readonly usual?: AgainstUsual | null;
  /** The months it is for; nothing where the place has no climate. */
  readonly year:
    | (Pick<YearAhead, 'from' | 'basis' | 'madeUp'> & {
        readonly months: ReadonlyArray<{ readonly month: string; readonly mean: number; readonly growth: number }>;
      })
    | null;
}

/** What a program rests on beside the test. */
export interface ProgramInput extends Omit<PlanInput, 'products' | 'choices'> {
  readonly materials: readonly Stocked[];
  readonly changes?: readonly Change[];
  readonly others?: readonly TestedZone[];
  /** First day of the program, `2026-11-27`. */
  readonly from: string;
  readonly climate?: PlaceClimate | undefined;
}

/** The program of one zone. */
export function programZone(input: ProgramInput): { readonly reading: Reading; readonly program: ZoneProgram } {
  const { zone, system, changes = [], materials, from, climate, settings = defaultSettings } = input;
  const products = materials.flatMap(({ id, material, price }) => productOf(id, material, price) ?? []);
  const chosen: ProductChoices = Object.fromEntries(
    (['lime', ...fed] as const).flatMap((key) => {
      const own = ownOf(changes, key).material ?? visitsOf(settings.usualYear, key)[0]?.material ?? undefined;
      return own === undefined ? [] : [[key, own]];
    }),
  );
  const understood = understand({ ...input, products });
  const year = yearAhead(from, climate, understood.sward.main?.season ?? 'cool', settings.rules?.blackouts);
  const asked: Asked = { ...understood, zone, settings, system, materials, year };

  // What is laid and mended first: its nutrients come off the feeding.
  const before = remedies.map((remedy) => ({
    remedy,
    proposal: proposedOrUsual(remedy.name, remedy.propose(asked), asked),
  }));
  const alone = before.flatMap(({ remedy, proposal }) => treatmentsOf(remedy.name, proposal, asked, changes));
  const compost = alone.filter(({ remedy, status }) => remedy === 'compost' && status === 'planned');
  const sum = (key: Macro): number => compost.reduce((all, { brings }) => all + brings[key], 0);
  const plan = ratesOf(
    understood,
    { ...input, products, choices: chosen },
    {
      brought: compost.length > 0 ? { n: sum('n'), p2o5: sum('p2o5'), k2o: sum('k2o'), by: 'compost' } : undefined,
      feeding: {
        own: Object.fromEntries(fed.flatMap((key) => ownFeed(changes, key, zone.garden))),
        out: new Set(fed.filter((key) => outOf(changes, key)).map((key) => macroOf[key])),
      },
    },
  );
  const lime = limeTreatment(plan, asked, products, changes);
  const feeding = fed.map((key) => feedTreatment(key, plan, asked, products, changes));
  const rest = magnesiumTreatments(
    [...alone, ...lime, ...feeding.flatMap(({ treatment }) => treatment ?? [])],
    asked,
    changes,
  );
  const unplaced = [...alone, ...lime, ...feeding.flatMap(({ treatment }) => treatment ?? []), ...rest].sort(
    (one, other) => one.stage - other.stage,
  );
  const treatments = placed(unplaced, zone.surface === 'seedbed', { from, year, changes, usual: settings.usualYear });
  const wanted = magnesiumWanted(understood.reading.bars.find(({ key }) => key === 'mg')?.rating);
  const judged = judgedOf(plan, before, lime, treatments, feeding, zone.signs ?? [], system);
  const balance = balanceOf(treatments, plan, wanted > 0 ? { mg: wanted } : {});
  return {
    reading: understood.reading,
    program: {
      treatments,
      judged,
      usual: againstUsual(settings.usualYear, treatments, judged, system),
      comparisons: plan.comparisons,
      balance,
      findings: findingsOf(treatments, balance, products, system),
      acidity: acidityOf(treatments),
      ...costOf(treatments, settings.currency),
      leftOut: plan.leftOut.filter((name) => !planned(treatments).some((treatment) => treatment.name === name)),
      year: year
        ? {
            from: year.from,
            basis: year.basis,
            madeUp: year.madeUp,
            months: year.months.map(({ month, mean, growth }) => ({ month, mean, growth })),
          }
        : null,
    },
  };
}

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
      return cannot(`${error.message.charAt(0).toUpperCase()}${error.message.slice(1)}.`, values);
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
    facts: made.facts ?? [],
    cautions: [...(proposal?.cautions ?? []), ...(made.cautions ?? [])],
    more: made.more ?? [],
    values: made.values,
    byHand: byHandOf(change, told ? `${told} without the change` : null, made.held ?? null),
  };
}

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
function proposedOrUsual(
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
function treatmentsOf(
  name: RemedyName,
  proposal: Proposal | undefined,
  asked: Asked,
  changes: readonly Change[],
): Treatment[] {
  const own = changes.filter(({ remedy, added }) => remedy === name && added);
  const change = changes.find(({ key, added }) => key === name && !added);
  const kept = change !== undefined && change.out === undefined && Object.keys(change.values).length > 0;
  return [
    ...(proposal?.status === 'due' || kept ? [treatmentOf(name, name, proposal, change, asked)] : []),
    ...own.map((added) => treatmentOf(name, added.key, undefined, added, asked)),
  ];
}

/** Magnesium of its own, where neither lime nor potash brings it. */
function magnesiumTreatments(treatments: readonly Treatment[], asked: Asked, changes: readonly Change[]): Treatment[] {
  const limed = treatments.some(({ remedy, status }) => remedy === 'lime' && status === 'planned');
  const verdict = magnesiumVerdict(asked.reading, limed, asked.system);
  const wanted = magnesiumWanted(asked.reading.bars.find(({ key }) => key === 'mg')?.rating);
  const comes = planned(treatments).reduce((sum, { brings }) => sum + brings.mg, 0);
  const due =
    verdict !== undefined &&
    wanted > 0 &&
    comes < wanted * 0.5 &&
    !limed &&
    !asked.zone.garden &&
    asked.ground?.target.way !== 'raise';
  const proposal: Proposal | undefined = due
    ? { status: 'due', words: verdict.reason ?? verdict.words, cautions: verdict.cautions }
    : undefined;
  const found = treatments.filter(({ remedy }) => remedy === 'magnesium');
  return found.length > 0 || !proposal
    ? []
    : treatmentsOf(
        'magnesium',
        proposal,
        asked,
        changes.filter(({ added }) => !added),
      );
}

/** Acidity of the year, what makes it less what limes. */
function acidityOf(treatments: readonly Treatment[]): Figure {
  const book = new WorkingBook();
  const lines = planned(treatments).filter(({ acidity }) => Math.abs(acidity) > 1e-9);
  const value = lines.reduce((sum, { acidity }) => sum + acidity, 0);
  book.step({
    label: 'Acidity of the year',
    formula: 'sum of what acidifies − what limes, as CaCO₃',
    numbers: lines.map(({ name, acidity }) => `${name} ${acidity.toFixed(1)}`).join(' + ') || 'nothing',
    result: value,
    unit: 'g/m2',
  });
  return { value, working: book.entries };
}

function costOf(treatments: readonly Treatment[], currency: string): Pick<ZoneProgram, 'cost' | 'unpriced'> {
  const now = planned(treatments);
  const supplies = now.flatMap(({ supply, others }) => [...(supply ? [supply] : []), ...others]);
  const unpriced = [...new Set(supplies.filter(({ cost }) => cost === null).map(({ name }) => name))];
  if (unpriced.length > 0) return { cost: null, unpriced };
  const work = now.flatMap(({ name, price }) => (price ? [{ name, price: price.value }] : []));
  const book = new WorkingBook();
  const value =
    supplies.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0) + work.reduce((sum, { price }) => sum + price, 0);
  book.step({
    label: 'The program of the zone',
    formula: 'sum of packs and of work for others at their price',
    numbers:
      [
        ...supplies.map(({ name, cost }) => `${name} ${money(cost?.value ?? 0, currency)}`),
        ...work.map(({ name, price }) => `${name} ${money(price, currency)}`),
      ].join(' + ') || 'nothing to buy',
    result: value,
    unit: '$',
  });
  book.warn(
    'Each zone buys its own whole packs here; the list for all zones shares them, and counts what is in stock.',
  );
  return { cost: { value, working: book.entries }, unpriced };
}
