import { productBalance, type Supplied } from '../nutrients/productBalance.ts';
import { type Sward, swardOf } from '../nutrients/sward.ts';
import { groundFirst } from '../reading/limits.ts';
import { type Ground, type Reading, groundOf, inWater, readTested, readUntested } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { type AdviceSettings, defaultSettings } from '../settings/settings.ts';
import { magnesiumNeed } from '../schools/magnesiumNeed.ts';
import { type UnitSystem, money } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { ALIKE_PH, type LimeComparison, compareLime } from './compareLime.ts';
import { type LimeAdvice, adviseLime } from './lime.ts';
import { type Brought, type Macro, type Need, lessBrought, lessDown, nitrogenNeed, testedNeed } from './needs.ts';
import type { OwnFeeding } from './carrier.ts';
import { type NutrientAdvice, adviseNutrients, balanceLine } from './nutrients.ts';
import { type Product, type Purpose, purposes, serves, suggestProduct } from '../materials/product.ts';
import {
  type Verdict,
  compostVerdict,
  gypsumVerdict,
  leachingVerdict,
  magnesiumVerdict,
  sulfurVerdict,
} from './verdicts.ts';

/** A product chosen by the advisor for a purpose, by id; nothing means the suggestion. */
export type ProductChoices = Readonly<Partial<Record<Purpose, string>>>;

/** All that a zone should be given, and why. */
export interface ZonePlan {
  readonly lime: LimeAdvice;
  readonly nutrients: readonly NutrientAdvice[];
  /** What else was judged: sulfur, compost, gypsum, magnesium. */
  readonly verdicts: readonly Verdict[];
  readonly comparisons: readonly LimeComparison[];
  /** Which product stands in for each purpose. */
  readonly products: Readonly<Partial<Record<Purpose, string>>>;
  /** g/m² of each nutrient that all products of the first year bring together. */
  readonly supplied: Supplied;
  /** g/m² wanted and at most allowed in the year, whatever brings it; nothing where it is not known or does no harm. */
  readonly whole?: Readonly<Record<Macro, { readonly need: number | null; readonly most: number | null }>>;
  /** Nothing while a product that is due has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** What need not be bought. */
  readonly leftOut: readonly string[];
}

export interface TestedZone {
  readonly zone: ZoneFacts;
  readonly test: SoilTest;
}

/** What a plan rests on. */
export interface PlanInput {
  readonly zone: ZoneFacts;
  /** Nothing while there is no test: then only what does not rest on one is said. */
  readonly test?: SoilTest | undefined;
  readonly products: readonly Product[];
  readonly choices?: ProductChoices;
  /** Tested zones of the site, to explain lime that differs at the same pH. */
  readonly others?: readonly TestedZone[];
  /** Sets the increments that rates are rounded to, and the units inside sentences. */
  readonly system: UnitSystem;
  readonly settings?: AdviceSettings;
  /** The day of it, against which the age of a proof is counted. */
  readonly on?: string | undefined;
}

function totalCost(
  lime: LimeAdvice,
  nutrients: readonly NutrientAdvice[],
  currency: string,
): Pick<ZonePlan, 'cost' | 'unpriced'> {
  const amounts = [lime.amount, ...nutrients.map(({ amount }) => amount)].filter((amount) => amount !== null);
  const unpriced = amounts.filter(({ cost }) => cost === null).map(({ productName }) => productName);
  if (unpriced.length > 0) return { cost: null, unpriced };
  const book = new WorkingBook();
  const value = amounts.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0);
  const lines = amounts.map(({ productName, cost }) => `${productName} ${money(cost?.value ?? 0, currency)}`);
  book.step({
    label: 'Products for the zone',
    formula: 'sum of whole bags at their price',
    numbers: lines.join(' + ') || 'nothing to buy',
    result: value,
    unit: '$',
  });
  book.warn('Each zone buys its own whole bags here; the list for all zones shares them, and counts what is in stock.');
  return { cost: { value, working: book.entries }, unpriced };
}

const UNTESTED: LimeAdvice = {
  status: 'cannot say',
  words: 'No soil test yet: lime by habit wastes money or harms. Take a sample first.',
  rule: '',
  aim: 0,
  requirement: null,
  assumedEffectiveness: null,
  amount: null,
  afterRetest: 0,
  cautions: [],
};

/** Nobody reads more comparisons than these, and a zone of three hundred costs little more than one alone. */
const MOST_COMPARED = 4;

/** Zones of about the same pH, in their order; the nearest where there are very many. */
function comparable(others: readonly TestedZone[], soilPh: number) {
  const near = others.flatMap((other, order) => {
    const { test } = inWater(other.test);
    const apart = Math.abs(test.soilPh - soilPh);
    return apart > ALIKE_PH ? [] : [{ other, test, apart, order }];
  });
  if (near.length <= MOST_COMPARED) return near;
  return near
    .sort((one, two) => one.apart - two.apart || one.order - two.order)
    .slice(0, MOST_COMPARED)
    .sort((one, two) => one.order - two.order);
}

/** A zone as its test is understood: what both its plan and its other remedies go on from. */
export interface Understood {
  readonly reading: Reading;
  readonly sward: Sward;
  readonly test: SoilTest | undefined;
  readonly ground: Ground | undefined;
}

/** The reading of a zone, with or without a test. */
export function understand({ zone, test, system, settings = defaultSettings }: PlanInput): Understood {
  const read = test && readTested(zone, test, settings, system);
  return {
    reading: read?.reading ?? readUntested(zone, system),
    sward: read?.ground.sward ?? swardOf(zone),
    test: read?.test,
    ground: read?.ground,
  };
}

/** The reading and the plan of one zone from its newest test. */
export function planZone(input: PlanInput): { readonly reading: Reading; readonly plan: ZonePlan } {
  const understood = understand(input);
  return { reading: understood.reading, plan: ratesOf(understood, input) };
}

/** What is decided or brought beside what the test asks for. */
export interface Beside {
  readonly brought?: readonly Brought[] | undefined;
  readonly feeding?: OwnFeeding | undefined;
}

const wholeOf = ({ need, most, range }: Need) => ({ need: need?.value ?? null, most: range ?? most ?? null });

/** Lime, feeding and verdicts of a zone that was understood. */
export function ratesOf(
  { reading, sward, test, ground }: Understood,
  { zone, products, choices = {}, others = [], system, settings = defaultSettings, on }: PlanInput,
  { brought = [], feeding }: Beside = {},
): ZonePlan {
  const salted = reading.limitations.some(({ key }) => key === 'salt');
  const above = ground !== undefined && test !== undefined && test.soilPh > ground.sward.ph[1] + 0.3 + 1e-9;
  const nitrogen = nitrogenNeed(zone, sward, test?.organicMatter, settings, system);
  const carbonate = ground?.carbonate.state === 'present';
  const magnesium = magnesiumNeed(settings.school, reading, test, {
    nitrogen: nitrogen.need?.value ?? 0,
    carbonate,
  });
  const short = magnesium !== undefined;
  const tested = (nutrient: 'p2o5' | 'k2o') =>
    testedNeed(nutrient, zone, sward, test, reading, nitrogen.need?.value ?? 0, settings, system, { carbonate, on });
  const less = (need: Need): Need => lessDown(need, zone, system);
  const before = { n: less(nitrogen), p2o5: less(tested('p2o5')), k2o: less(tested('k2o')) };
  const without = (need: Need): Need => brought.reduce((left, one) => lessBrought(left, one, system), need);
  const needs = { n: without(before.n), p2o5: without(before.p2o5), k2o: without(before.k2o) };
  const wish = {
    magnesium: short,
    potash:
      short && ground?.target.way !== 'raise'
        ? { need: needs.k2o.need?.value ?? 0, magnesium: magnesium.value }
        : undefined,
    acidifying: above,
    lowSalt: salted || zone.surface === 'fine turf',
    closeMown: zone.surface === 'fine turf',
  };
  const chosen = Object.fromEntries(
    purposes.map((purpose) => [
      purpose,
      products.find((product) => product.id === choices[purpose] && serves(product, purpose)) ??
        suggestProduct(purpose, products, wish),
    ]),
  ) as Record<Purpose, Product | undefined>;

  const lime = test && ground ? adviseLime(zone, test, ground, chosen.lime, system) : UNTESTED;
  const limeDue = lime.status === 'due' || lime.status === 'estimate';
  const nutrients = adviseNutrients(
    zone,
    needs,
    chosen,
    {
      salted,
      carbonate,
      first: groundFirst(reading.limitations),
      settings,
    },
    system,
    feeding,
  );
  const verdicts =
    test && ground
      ? [
          sulfurVerdict(zone, test, ground, system),
          compostVerdict(zone, test, reading, settings, system),
          gypsumVerdict(zone, test, reading, system),
          leachingVerdict(zone, test, reading, ground.sward, system),
          magnesiumVerdict(magnesium, limeDue, system),
        ].flatMap((verdict) => verdict ?? [])
      : [];
  const comparisons =
    test && ground
      ? comparable(others, test.soilPh).flatMap(({ other, test: there }) => {
          const its = groundOf(other.zone, there, settings);
          const advice = adviseLime(other.zone, there, its, undefined, system);
          return (
            compareLime(
              { zone, test, ground, advice: lime },
              { zone: other.zone, test: there, ground: its, advice },
              chosen.lime,
              system,
            ) ?? []
          );
        })
      : [];
  const leftOut = [
    ...(lime.status === 'none' || lime.status === 'too high' ? ['Lime'] : []),
    ...(zone.garden ? [] : nutrients.filter(({ status }) => status === 'none').map(({ name }) => name)),
  ];
  const used = [lime.amount, ...nutrients.map(({ amount }) => amount)].flatMap((amount) => {
    const product = amount && products.find(({ id }) => id === amount.productId);
    return amount && product ? [balanceLine(product, amount.rate.value)] : [];
  });
  return {
    lime,
    nutrients,
    verdicts,
    comparisons,
    products: Object.fromEntries(
      purposes.flatMap((purpose) => (chosen[purpose] ? [[purpose, chosen[purpose].id]] : [])),
    ),
    supplied: productBalance({ products: used }).result.supplied,
    whole: { n: wholeOf(before.n), p2o5: wholeOf(before.p2o5), k2o: wholeOf(before.k2o) },
    ...totalCost(lime, nutrients, settings.currency),
    leftOut,
  };
}
