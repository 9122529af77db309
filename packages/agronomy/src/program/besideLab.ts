import { type Advised, type AdvisedKind, advisedRate } from '../lab/advised.ts';
import { limeBufferDepth } from '../lime/buffers.ts';
import { productEffectiveness, productOf } from '../materials/product.ts';
import { unitPrice } from '../materials/unitPrice.ts';
import type { Understood, ZonePlan } from '../rates/plan.ts';
import { limeRequirement } from '../rates/lime.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { Stocked } from '../remedies/remedy.ts';
import type { Treatment } from '../remedies/treatment.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { InputError } from '../calculators/fields.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { planned } from './balance.ts';

/** One line of a laboratory's advice beside what the program puts down. */
export interface BesideLab {
  readonly what: AdvisedKind;
  /** g/m² as the laboratory advises it; nothing where it gives no amount. */
  readonly theirs: number | null;
  /** g/m² that the program puts down in the year; nothing where we have nothing to lay beside it. */
  readonly ours: number | null;
  /** What makes the difference, a sentence each; empty where there is none. */
  readonly why: readonly string[];
  /** Of a difference that the sentences above do not explain: what to do. */
  readonly open: string | null;
  /** Money that need not be spent; nothing where more is put down, or a price is not known. */
  readonly saved: Figure | null;
}

/** What a kind of advice is laid beside: a remedy, or a nutrient of all that is put down. */
const match: Readonly<Partial<Record<AdvisedKind, { readonly remedy: Treatment['remedy'] } | { readonly nutrient: keyof Treatment['brings'] }>>> = {
  lime: { remedy: 'lime' },
  sulfur: { remedy: 'sulfur' },
  gypsum: { remedy: 'gypsum' },
  nitrogen: { nutrient: 'n' },
  phosphate: { nutrient: 'p2o5' },
  potash: { nutrient: 'k2o' },
  magnesium: { nutrient: 'mg' },
}; // prettier-ignore

const words: Readonly<Partial<Record<AdvisedKind, 'n' | 'p2o5' | 'k2o'>>> = {
  nitrogen: 'n',
  phosphate: 'p2o5',
  potash: 'k2o',
};

/** Share of an amount below which a difference is no more than rounding. */
const ALIKE = 0.08;
/** And that is told to be explained. */
const EXPLAINED = 0.15;

interface Beside {
  readonly zone: ZoneFacts;
  readonly understood: Understood;
  readonly plan: ZonePlan;
  readonly treatments: readonly Treatment[];
  readonly materials: readonly Stocked[];
  readonly settings: AdviceSettings;
  readonly system: UnitSystem;
}

function oursOf(what: AdvisedKind, treatments: readonly Treatment[]): number | null {
  const own = match[what];
  if (!own) return null;
  const given = planned(treatments);
  return 'nutrient' in own
    ? given.reduce((sum, { brings }) => sum + brings[own.nutrient], 0)
    : given.filter(({ remedy }) => remedy === own.remedy).reduce((sum, { rate }) => sum + (rate?.value ?? 0), 0);
}

/** Why our lime is another amount: where to, how deep, how strong, how much of it in the first year. */
function whyLime(theirs: number, ours: number, target: string | null | undefined, beside: Beside) {
  const { understood, plan, materials, treatments, system } = beside;
  const { test } = understood;
  const { lime } = plan;
  const say = (rate: number): string => present('limeRate', rate, system).text;
  const why: string[] = [];
  if (!test || lime.requirement === null) {
    why.push(`Here: ${lime.words}`);
    return { why, reached: theirs };
  }
  const aimed = Number(/\d(?:\.\d+)?/.exec(target ?? '')?.[0] ?? NaN);
  let reached = lime.requirement.value;
  const step = (to: number, sentence: (by: string) => string): void => {
    if (Math.abs(to - reached) > ALIKE * Math.max(to, reached))
      why.push(sentence(`${say(reached)} becomes ${say(to)}`));
    reached = to;
  };
  if (Number.isFinite(aimed) && Math.abs(aimed - lime.aim) > 0.05 && test.buffer) {
    try {
      const { result } = limeRequirement(test, aimed);
      step(
        result.requirement,
        (by) => `Target: it limes to pH ${aimed.toFixed(1)}, we to ${lime.aim.toFixed(1)}: ${by}.`,
      );
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      why.push(
        `Target: it limes to pH ${aimed.toFixed(1)}, which its own buffer method does not reckon; we lime to ${lime.aim.toFixed(1)}.`,
      );
    }
  }
  const deep = test.buffer && limeBufferDepth(test.buffer.method);
  if (deep && Math.abs(deep - test.depth) > 1)
    step(
      (reached * deep) / test.depth,
      (by) =>
        `Depth: its method reckons for ${present('depth', deep, system).text}, this bag is of ${present('depth', test.depth, system).text}: ${by}.`,
    );
  const assumed = lime.assumedEffectiveness ?? 100;
  const product = treatments.find(({ remedy }) => remedy === 'lime')?.supply;
  const stocked = materials.find(({ id }) => id === product?.materialId);
  const strength = stocked && strengthOf(stocked);
  if (strength !== undefined && Math.abs(strength - assumed) > 3)
    why.push(
      `Lime strength: it assumes lime of ${figure(assumed)} % effect; ours, ${product!.name}, has ${figure(strength)} %, so ${say((lime.requirement.value * assumed) / strength)} of it does the same.`,
    );
  if (lime.afterRetest > 0)
    why.push(
      `Once and a year: a lawn takes so much at a time; ${say(lime.afterRetest)} waits for the retest, and is not bought now.`,
    );
  if (why.length === 0 && ours > 0) why.push('Rounding to bags and to what a spreader can be set to.');
  return { why, reached };
}

/** % effective of a lime of the list. */
function strengthOf({ id, material, price }: Stocked): number | undefined {
  const lime = productOf(id, material, price)?.lime;
  return lime && productEffectiveness(lime).value;
}

/** Why a nutrient is another amount: the school and its table, a rule, what compost and the logbook bring. */
function whyFed(what: AdvisedKind, ours: number, { plan, settings, system }: Beside): string[] {
  const key = words[what];
  const advice = key && plan.nutrients.find(({ nutrient }) => nutrient === key);
  if (!advice) return [];
  if (what === 'nitrogen')
    return [`Nitrogen is planned here from the grass’s year, and not from a test: ${advice.words}`];
  const school = settings.yearlyRates || settings.bands.length > 0 ? 'the practice’s own table' : settings.school;
  const own = present('nutrientRate', advice.need?.value ?? 0, system).text;
  return [
    `School: it goes by its own table, here ${school} decides: ${own} is wanted. ${advice.words}`,
    ...(advice.need && ours > advice.need.value * (1 + ALIKE)
      ? ['Products and compost bring a little more than is wanted.']
      : []),
  ];
}

/** What the difference would cost, by the cheapest way that the practice can buy it. */
function savedOf(what: AdvisedKind, less: number, { materials, zone, settings }: Beside): Figure | null {
  const of = { phosphate: 'P₂O₅', potash: 'K₂O', nitrogen: 'N', sulfur: 'S', lime: 'effective lime' }[what as 'lime'];
  if (!of) return null;
  const prices = materials.flatMap(({ material, price }) => {
    const unit = unitPrice(material, price);
    return unit?.of === of ? [{ name: material.name, perKg: unit.perKg }] : [];
  });
  const [cheapest] = prices.sort((one, other) => one.perKg - other.perKg);
  if (!cheapest) return null;
  const book = new WorkingBook();
  const kg = (less * zone.area) / 1000;
  const value = kg * cheapest.perKg;
  book.step({
    label: 'Need not be bought',
    formula: 'less a square metre × area × price of a kilogram',
    numbers: `${figure(less)} g/m² × ${figure(zone.area)} m² × ${settings.currency}${figure(cheapest.perKg)}/kg ${of}, as ${cheapest.name}`,
    result: value,
    unit: '$',
  });
  return { value, working: book.entries };
}

/** Every line of the laboratory's advice beside the program, each difference explained. */
export function besideLab(advised: readonly Advised[], beside: Beside): BesideLab[] {
  return advised.map((one): BesideLab => {
    const theirs = advisedRate(one) ?? null;
    const ours = oursOf(one.what, beside.treatments);
    if (theirs === null || ours === null) return { what: one.what, theirs, ours, why: [], open: null, saved: null };
    const apart = Math.abs(theirs - ours);
    if (apart <= ALIKE * Math.max(theirs, ours))
      return { what: one.what, theirs, ours, why: [], open: null, saved: null };
    const lime = one.what === 'lime' ? whyLime(theirs, ours, one.target, beside) : undefined;
    const why = lime?.why ?? whyFed(one.what, ours, beside);
    const left = lime ? Math.abs(theirs - lime.reached) : 0;
    const say = (rate: number): string => present('limeRate', rate, beside.system).text;
    return {
      ...{ what: one.what, theirs, ours, why },
      open:
        why.length === 0
          ? 'Nothing here explains the difference: ask the laboratory what it rests on.'
          : lime && left > EXPLAINED * theirs && lime.reached > 0
            ? `By its own way we come to ${say(lime.reached)}; it says ${say(theirs)}. Ask the laboratory about the rest.`
            : null,
      saved: theirs > ours ? savedOf(one.what, theirs - ours, beside) : null,
    };
  });
}
