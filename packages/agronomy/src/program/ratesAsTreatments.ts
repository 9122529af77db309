import { sulfurTable } from '../acidify/tables.ts';
import { type Product, nitrogenSourceOf, productEffectiveness } from '../materials/product.ts';
import { productBalance } from '../nutrients/productBalance.ts';
import { type ProductAmount, spreaderStep } from '../rates/amount.ts';
import { limeHabit } from '../lime/habit.ts';
import { limeByHand } from '../rates/lime.ts';
import { macroNames } from '../rates/needs.ts';
import { balanceLine } from '../rates/nutrients.ts';
import type { ZonePlan } from '../rates/plan.ts';
import type { Asked, Made } from '../remedies/remedy.ts';
import { remedyEntry } from '../remedies/remedyTable.ts';
import { present } from '../units/present.ts';
import type { Change } from './changes.ts';
import { type FedKey, macroOf } from './fed.ts';
import { byHandOf, changeOf, ownOf, statusOf } from './ownChanges.ts';
import { type Dose, type Fact, NOTHING, type Supply, type Treatment } from '../remedies/treatment.ts';

/** The supply of a product that the rates have reckoned. */
function supplyFrom(amount: ProductAmount): Supply {
  const { productId, productName, mass, bags, bagMass, cost } = amount;
  return { materialId: productId, name: productName, quantity: mass, unit: 'kg', packs: bags, packSize: bagMass, cost };
}

const dosesFrom = ({ applications }: ProductAmount): Dose[] =>
  applications.map(({ rate, mass }) => ({ rate, quantity: mass, from: null, to: null, own: false }));

const HABIT_YEARS = 10;

/** What a rate of one’s own does when it goes down every year; nothing where the pH of the soil is not known. */
function habitOf(
  amount: ProductAmount,
  product: Product,
  fed: readonly ProductAmount[],
  asked: Asked,
  products: readonly Product[],
): Fact[] {
  const { zone, test } = asked;
  if (!test || !product.lime) return [];
  const acidity = fed.reduce((sum, { productId, rate }) => {
    const own = products.find(({ id }) => id === productId);
    return own ? sum + productBalance({ products: [balanceLine(own, rate.value)] }).result.limeEquivalent : sum;
  }, 0);
  const pure = (amount.rate.value * productEffectiveness(product.lime).value) / 100;
  const { soilPh, organicMatter, depth } = test;
  const end = limeHabit(
    { soilPh, soilGroup: zone.soilGroup ?? 'loam', organicMatter, depth },
    { pure, acidity, years: HABIT_YEARS },
  );
  return [{ name: `Every year for ${HABIT_YEARS}: pH`, told: `about ${end.value.toFixed(1)}`, figure: end }];
}

/** The lime of the year: by the test, or at a rate of one’s own within the same caps. */
function limeAmount(lime: ZonePlan['lime'], product: Product | undefined, own: ReturnType<typeof ownOf>, asked: Asked) {
  if (lime.status === 'too high')
    return { amount: null, byHand: true, held: 'Lime would raise a pH that is too high already: no rate.' };
  const rate = own.rate ?? (own.times === undefined ? undefined : lime.amount?.rate.value);
  if (rate === undefined || !product) return { amount: lime.amount, byHand: false, held: null };
  return {
    byHand: true,
    ...limeByHand(asked.zone, product, asked.settings, { rate, atLeast: own.times }, asked.system),
  };
}

const blank = { others: [], facts: [], when: null, surface: 0, price: null } as const;

/** Lime as the rates have it, or at a rate of one’s own. */
export function limeTreatment(
  plan: ZonePlan,
  asked: Asked,
  products: readonly Product[],
  changes: readonly Change[],
): Treatment[] {
  const { lime } = plan;
  const change = changeOf(changes, 'lime');
  const { label, stage, dose } = remedyEntry('lime');
  const due = lime.status === 'due' || lime.status === 'estimate';
  const own = ownOf(changes, 'lime');
  if (!due && own.rate === undefined) return [];
  const product = products.find(({ id }) => id === plan.products.lime);
  const { amount, byHand, held } = limeAmount(lime, product, own, asked);
  const say = (of: number): string => present('limeRate', of, asked.system).text;
  const fed = plan.nutrients.flatMap((advice) => advice.amount ?? []);
  return [
    {
      ...blank,
      key: 'lime',
      remedy: 'lime',
      name: label,
      stage,
      status: statusOf(change, lime.status === 'too high' ? 'refused' : amount ? 'planned' : 'open'),
      words: [
        due
          ? ''
          : asked.test
            ? 'The test asks for none: kept by hand.'
            : 'Without a test, kept by hand: an estimate of habit, not of need.',
        lime.words,
        lime.afterRetest > 0 && !byHand ? `The rest, about ${say(lime.afterRetest)}, after the retest.` : '',
      ]
        .filter(Boolean)
        .join(' '),
      sense: 'limeRate',
      dose,
      rate: amount?.rate ?? null,
      waits: lime.afterRetest > 0 && !byHand ? `About ${say(lime.afterRetest)} of lime waits for the retest.` : held,
      need:
        lime.requirement && due
          ? {
              name: 'by the method',
              told: `${say(lime.requirement.value)} of lime ${Math.round(lime.assumedEffectiveness ?? 100)} % effective`,
              figure: lime.requirement,
            }
          : null,
      doses: amount ? dosesFrom(amount) : [],
      supply: amount ? supplyFrom(amount) : null,
      brings: amount && product ? bringsAt(product, amount.rate.value) : NOTHING,
      acidity: amount && product?.lime ? -(amount.rate.value * productEffectiveness(product.lime).value) / 100 : 0,
      facts: byHand && amount && product ? habitOf(amount, product, fed, asked, products) : [],
      cautions: lime.cautions,
      more: lime.rule ? [lime.rule] : [],
      values: {
        ...own,
        material: plan.products.lime,
        ...(amount ? { rate: amount.rate.value, times: amount.applications.length } : {}),
      },
      byHand: byHandOf(
        change,
        lime.amount ? `${say(lime.amount.rate.value)} of ${lime.amount.productName} by the test` : 'none by the test',
        held,
      ),
    },
  ];
}

const bringsAt = (product: Product, rate: number) =>
  productBalance({ products: [balanceLine(product, rate)] }).result.supplied;

export interface Fed {
  readonly key: FedKey;
  readonly treatment: Treatment | undefined;
}

/** What a nutrient is given for the year. */
export function feedTreatment(
  key: FedKey,
  plan: ZonePlan,
  asked: Asked,
  products: readonly Product[],
  changes: readonly Change[],
): Fed {
  const nutrient = macroOf[key];
  const advice = plan.nutrients.find((entry) => entry.nutrient === nutrient)!;
  const change = changeOf(changes, key);
  const own = ownOf(changes, key);
  // Without a test nothing is proposed; what the advisor sets stands.
  const due = asked.test !== undefined && (advice.status === 'due' || advice.status === 'refused');
  if (!due && own.rate === undefined && !(asked.test === undefined && change)) return { key, treatment: undefined };
  const { label, stage, dose } = remedyEntry(key);
  const { amount, need, cautions } = advice;
  // Brought by the others, or too little to spread: nothing to choose, and told beside.
  if (advice.status === 'due' && !amount && advice.covered && !change) return { key, treatment: undefined };
  const product = products.find(({ id }) => id === (amount?.productId ?? plan.products[key]));
  const say = (rate: number): string => present('productRate', rate, asked.system).text;
  // What a spreader cannot be set to is no cap.
  const settable = spreaderStep('productRate', asked.system) * (amount?.applications.length ?? 0);
  const cut =
    own.rate !== undefined && (amount?.rate.value ?? 0) < own.rate - settable - 1e-9
      ? `${say(own.rate)} was asked for; ${amount ? `the year takes ${say(amount.rate.value)}` : 'the year takes none of it'} by its caps.`
      : null;
  const gas = product !== undefined && key === 'nitrogen' ? acidWords(product, amount, asked) : [];
  const status: Made['status'] = advice.status === 'refused' ? 'refused' : amount ? 'planned' : 'open';
  return {
    key,
    treatment: {
      ...blank,
      key,
      remedy: key,
      name: label,
      stage,
      status: statusOf(change, status),
      words: `${due || !asked.test ? '' : 'The test asks for none: kept by hand. '}${advice.words}`,
      sense: 'productRate',
      dose,
      rate: amount?.rate ?? null,
      need:
        need && need.value > 0
          ? {
              name: `of ${key === 'nitrogen' ? 'N' : macroNames[nutrient]} a year`,
              told: present('nutrientRate', need.value, asked.system).text,
              figure: need,
            }
          : null,
      doses: amount ? dosesFrom(amount) : [],
      supply: amount ? supplyFrom(amount) : null,
      brings: amount && product ? bringsAt(product, amount.rate.value) : NOTHING,
      acidity:
        amount && product
          ? productBalance({ products: [balanceLine(product, amount.rate.value)] }).result.limeEquivalent
          : 0,
      cautions,
      more: gas,
      values: {
        ...own,
        material: amount?.productId ?? plan.products[key],
        ...(amount ? { rate: amount.rate.value, times: amount.applications.length } : {}),
      },
      byHand: byHandOf(change, null, cut),
    },
  };
}

/** What a year of it does to the pH, where the pH is to come down or lime is due. */
function acidWords(product: Product, amount: ProductAmount | null, { ground, system }: Asked): string[] {
  if (!amount || !ground || ground.target.way === 'none') return [];
  const { limeEquivalent } = productBalance({ products: [balanceLine(product, amount.rate.value)] }).result;
  if (Math.abs(limeEquivalent) < 1) return [];
  const told = present('limeRate', Math.abs(limeEquivalent), system).text;
  const sulfurLike = present('nutrientRate', limeEquivalent / sulfurTable.carbonatePerSulfur, system).text;
  const from = nitrogenSourceOf(product);
  return limeEquivalent > 0
    ? [
        `Its ${from} makes acidity that ${told} of lime would neutralise${ground.target.way === 'lower' ? `, as much as ${sulfurLike} of sulfur: it already works toward the aim` : ': counted again at the retest'}.`,
      ]
    : [`Its ${from} is basic, as ${told} of lime is.`];
}
