import { InputError } from '../calculators/fields.ts';
import { nitrogenLimits, passesWithin } from '../nutrients/nitrogenLimits.ts';
import { nitrogenCaps, nitrogenPass } from '../nutrients/nitrogenPass.ts';
import { balanceSymbol, productBalance } from '../nutrients/productBalance.ts';
import type { Limitation } from '../reading/limits.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type ProductAmount, amountFor, spreaderStep } from './amount.ts';
import { type Macro, type Need, macroNames } from './needs.ts';
import { type Product, contentOf, nitrogenSourceOf, saltIndexOf } from '../materials/product.ts';
import type { Carrier, OwnFeeding } from './carrier.ts';
import { granuleCautions, nitrogenCautions, refusalOf, urgentCautions } from './feedCautions.ts';

/** What of the settings bears on products. */
type OwnLimits = Pick<AdviceSettings, 'caps' | 'currency'>;

export interface NutrientAdvice {
  readonly nutrient: Macro;
  readonly name: string;
  /** `refused`: wanted, but not by this product. */
  readonly status: 'due' | 'none' | 'refused' | 'cannot say';
  readonly words: string;
  /** g/m² of N, P₂O₅ or K₂O for the year, before what other products bring. */
  readonly need: Figure | null;
  readonly amount: ProductAmount | null;
  /** Wanted, and brought by the other products already, or too little to spread. */
  readonly covered?: boolean;
  readonly cautions: readonly string[];
}

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const macros = ['n', 'p2o5', 'k2o'] as const;
const purposes = { n: 'nitrogen', p2o5: 'phosphorus', k2o: 'potassium' } as const;

const BY_RULE: OwnFeeding = { own: {}, out: new Set() };

/** A cap of one pass on what a product carries, g/m² of the nutrient; `share` of the product that it binds. */
interface PassCap {
  readonly share: number;
  readonly cap: number;
  readonly words: string;
}

function capsOf(
  { product, content }: Carrier,
  { surface }: ZoneFacts,
  own: AdviceSettings['caps'],
  system: UnitSystem,
): PassCap[] {
  const general = nitrogenCaps(surface, product.slowRelease);
  const total = Math.min(general.total, own.nitrogenPass?.most ?? Infinity);
  const soluble = Math.min(general.soluble, own.solubleNitrogenPass?.most ?? Infinity, total);
  const say = (cap: number): string => present('nutrientRate', cap, system).text;
  const caps: PassCap[] = [
    { share: content.n / 100, cap: total, words: `${say(total)} of N` },
    { share: (content.n / 100) * (1 - product.slowRelease / 100), cap: soluble, words: `${say(soluble)} of soluble N` },
  ];
  // What is tilled into a seedbed goes in at once; only its nitrogen is held.
  if (surface !== 'seedbed') {
    const potash = Math.min(grams(nitrogenLimits.potash[surface]), own.potashPass?.most ?? Infinity);
    const phosphate = grams(nitrogenLimits.phosphate);
    const magnesium = grams(nitrogenLimits.magnesium);
    caps.push(
      { share: content.k2o / 100, cap: potash, words: `${say(potash)} of K₂O` },
      { share: content.p2o5 / 100, cap: phosphate, words: `${say(phosphate)} of P₂O₅` },
      { share: content.mg / 100, cap: magnesium, words: `${say(magnesium)} of Mg` },
    );
  }
  return caps.filter(({ share }) => share > 0);
}

/** The year's rates of the carriers, g/m²: each covers what the others leave open of its own nutrient. */
function yearRates(carriers: readonly Carrier[], needs: Readonly<Record<Macro, Need>>): number[] {
  const rates = carriers.map(() => 0);
  for (let round = 0; round < 24; round += 1)
    carriers.forEach(({ nutrient, content, own }, index) => {
      if (own.rate !== undefined) {
        rates[index] = own.rate;
        return;
      }
      const brought = carriers.reduce(
        (sum, other, at) => (at === index ? sum : sum + (rates[at]! * other.content[nutrient]) / 100),
        0,
      );
      rates[index] = (Math.max(0, (needs[nutrient].need?.value ?? 0) - brought) / content[nutrient]) * 100;
    });
  return rates;
}

interface Passes {
  readonly rate: number;
  readonly count: number;
}

/** In how many passes a product's year goes down, and at what a spreader can be set to; never over a cap, nor over the year. */
function passesOf(
  carrier: Carrier,
  year: number,
  room: number,
  zone: ZoneFacts,
  own: AdviceSettings['caps'],
  system: UnitSystem,
  book: WorkingBook,
): Passes {
  const { product, content } = carrier;
  const caps = capsOf(carrier, zone, own, system);
  let count = Math.max(1, ...caps.map(({ share, cap }) => passesWithin(year * share, cap)));
  const nitrogen = (year * content.n) / 100;
  if (nitrogen > 0) {
    const { result, working } = nitrogenPass({
      product: { nitrogen: content.n, slow: product.slowRelease },
      surface: zone.surface,
      annual: nitrogen,
    });
    if (carrier.nutrient === 'n') book.include(working);
    if (carrier.nutrient === 'n' && count > result.passes)
      book.cap(`${count} passes: ${(own.solubleNitrogenPass ?? own.nitrogenPass)?.by ?? 'what else it carries'}.`);
    count = Math.max(count, result.passes);
  }
  if ((carrier.own.passes ?? 0) > count) {
    count = carrier.own.passes!;
    book.cap(`${count} passes, set by hand.`);
  }
  const bound = caps.filter(({ share, cap }) => passesWithin(year * share, cap) === count && count > 1);
  if (bound.length > 0 && carrier.nutrient !== 'n')
    book.cap(
      `At most ${bound.map(({ words }) => words).join(', ')} in one pass: ${count} passes.`,
      nitrogenLimits.source,
    );
  const step = spreaderStep('productRate', system);
  const each = year / count;
  const slack = 1 + nitrogenLimits.slackPercent / 100;
  const most = Math.min(room / count, ...caps.map(({ share, cap }) => (cap * slack) / share));
  const nearest = Math.round(each / step) * step;
  const rate = nearest > most + 1e-9 ? Math.floor(most / step + 1e-9) * step : nearest;
  if (Math.abs(rate - each) > 1e-9)
    book.rounding(`Each pass set to ${present('productRate', rate, system).text}, what a spreader can be set to.`);
  return { rate, count };
}

interface Laid {
  readonly carrier: Carrier;
  readonly amount: ProductAmount | null;
}

const breadth = ({ content }: Carrier): number => macros.filter((macro) => content[macro] > 0).length;
const lastIsNitrogen = ({ nutrient }: Carrier): number => Number(nutrient === 'n');

/** Amounts of the carriers, and which nutrients they bring too much of. */
function layOut(
  carriers: readonly Carrier[],
  needs: Readonly<Record<Macro, Need>>,
  zone: ZoneFacts,
  settings: OwnLimits,
  system: UnitSystem,
) {
  const rates = yearRates(carriers, needs);
  const left: Record<Macro, number> = {
    n: needs.n.most ?? Infinity,
    p2o5: needs.p2o5.most ?? Infinity,
    k2o: needs.k2o.most ?? Infinity,
  };
  // Those that serve one nutrient only are set last, and take the room that the others leave.
  const order = carriers
    .map((carrier, index) => ({ carrier, index }))
    .sort((a, b) => breadth(b.carrier) - breadth(a.carrier) || lastIsNitrogen(a.carrier) - lastIsNitrogen(b.carrier));
  const laid: Laid[] = [];
  const crowded: Laid[] = [];
  for (const { carrier, index } of order) {
    const { nutrient, product, content } = carrier;
    const need = needs[nutrient].need ?? { value: 0, working: [] };
    // A rate of one’s own is held to what the year may take of anything it carries.
    const most = Math.min(
      ...macros.map((macro) => (content[macro] > 0 ? (left[macro] / content[macro]) * 100 : Infinity)),
    );
    const year = carrier.own.rate === undefined ? rates[index]! : Math.min(rates[index]!, most);
    const book = new WorkingBook();
    book.include(need.working);
    const byHand = carrier.own.rate !== undefined;
    const brought = need.value - (year * content[nutrient]) / 100;
    if (byHand)
      book.step({
        label: 'Set by hand',
        formula: 'the advisor’s own rate',
        numbers: `${product.name}, for ${figure(need.value)} g/m² of ${macroNames[nutrient]} wanted`,
        result: year,
        unit: 'g/m2',
      });
    else if (brought > 1e-9)
      book.step({
        label: 'Less what other products bring',
        formula: 'need − brought',
        numbers: `${figure(need.value)} − ${figure(brought)}`,
        result: need.value - brought,
        unit: 'g/m2',
      });
    if (!byHand)
      book.step({
        label: `As ${product.name}`,
        formula: `need / ${macroNames[nutrient]} content`,
        numbers: `${figure(need.value - brought)} g/m² / ${content[nutrient]} %`,
        result: year,
        unit: 'g/m2',
        source: 'The product’s grade',
      });
    if (year <= 1e-9) {
      laid.push({ carrier, amount: null });
      continue;
    }
    // Its own nutrient decides how much room there is; what else it brings is judged by the balance.
    const room = (left[nutrient] / content[nutrient]) * 100;
    const { rate, count } = passesOf(carrier, year, room, zone, settings.caps, system, book);
    if (count > nitrogenLimits.mostPasses) {
      crowded.push({ carrier, amount: null });
      continue;
    }
    for (const macro of macros) left[macro] = Math.max(0, left[macro] - (rate * count * content[macro]) / 100);
    laid.push({
      carrier,
      amount:
        rate <= 0
          ? null
          : amountFor(
              product,
              zone.area,
              Array.from({ length: count }, () => ({ rate, monthsFromStart: null })),
              book,
              system,
              settings.currency,
            ),
    });
  }
  const { result } = productBalance({
    products: laid.flatMap(({ carrier, amount }) => (amount ? [balanceLine(carrier.product, amount.rate.value)] : [])),
    need: Object.fromEntries(
      macros.flatMap((macro) => (needs[macro].most === undefined ? [] : [[macro, { max: needs[macro].most }]])),
    ),
  });
  return { laid, over: result.over, crowded };
}

/** A product at a rate, as the balance takes it. */
export function balanceLine(product: Product, rate: number) {
  const saltIndex = saltIndexOf(product);
  return {
    name: product.name,
    rate,
    analysis: contentOf(product),
    solubleN: 100 - product.slowRelease,
    nitrogenSource: nitrogenSourceOf(product),
    ...(saltIndex === undefined ? {} : { saltIndex }),
  };
}

/**
 * N, P₂O₅ and K₂O for the year as products. Every product counts with all that it holds; one that would bring what is
 * not wanted, or more than the year may take, is refused with the remedy.
 */
export function adviseNutrients(
  zone: ZoneFacts,
  needs: Readonly<Record<Macro, Need>>,
  products: Readonly<Partial<Record<'nitrogen' | 'phosphorus' | 'potassium', Product | undefined>>>,
  conditions: {
    readonly salted: boolean;
    readonly carbonate: boolean;
    readonly first: Limitation | undefined;
    readonly settings: OwnLimits;
  },
  system: UnitSystem,
  { own, out }: OwnFeeding = BY_RULE,
): readonly NutrientAdvice[] {
  const refused = new Map<Macro, string>();
  let carriers: Carrier[] = [];
  for (const nutrient of macros) {
    const product = products[purposes[nutrient]];
    const wanted = needs[nutrient].status === 'due' || own[nutrient]?.rate !== undefined;
    if (!wanted || !product || out.has(nutrient)) continue;
    const carrier = { nutrient, product, content: contentOf(product), own: own[nutrient] ?? {} };
    const reason = refusalOf(carrier, needs, zone, conditions.salted);
    if (reason === undefined) carriers.push(carrier);
    else refused.set(nutrient, reason);
  }
  let { laid, over, crowded } = layOut(carriers, needs, zone, conditions.settings, system);
  while (over.length > 0 || crowded.length > 0) {
    if (crowded[0]) {
      const { carrier } = crowded[0];
      refused.set(
        carrier.nutrient,
        `${carrier.product.name} would take more than ${nitrogenLimits.mostPasses} passes a year: choose a product with more ${macroNames[carrier.nutrient]} in it.`,
      );
      carriers = carriers.filter((other) => other !== carrier);
      ({ laid, over, crowded } = layOut(carriers, needs, zone, conditions.settings, system));
      continue;
    }
    const nutrient = over[0]!;
    // Whoever brings it beside its own is the one that can be replaced.
    const guilty = laid
      .filter(
        ({ carrier, amount }) => carrier.nutrient !== nutrient && amount !== null && carrier.content[nutrient] > 0,
      )
      .sort(
        (a, b) =>
          b.amount!.rate.value * b.carrier.content[nutrient] - a.amount!.rate.value * a.carrier.content[nutrient],
      )[0];
    if (!guilty) throw new InputError('products', `bring more ${balanceSymbol(nutrient)} than the year may take`);
    const { product, nutrient: own } = guilty.carrier;
    refused.set(
      own,
      `${product.name} would bring ${present('nutrientRate', (guilty.amount!.rate.value * guilty.carrier.content[nutrient]) / 100, system).text} of ${balanceSymbol(nutrient)} with it, more than the year may take: choose a product without ${balanceSymbol(nutrient)}.`,
    );
    carriers = carriers.filter((carrier) => carrier !== guilty.carrier);
    ({ laid, over, crowded } = layOut(carriers, needs, zone, conditions.settings, system));
  }

  return macros.map((nutrient): NutrientAdvice => {
    const { status, words, need, cautions } = needs[nutrient];
    const name = macroNames[nutrient];
    const shared = { nutrient, name, need, words } as const;
    const asked = status === 'due' || own[nutrient]?.rate !== undefined;
    if (!asked || out.has(nutrient)) return { ...shared, status, amount: null, cautions };
    const reason = refused.get(nutrient);
    if (reason !== undefined)
      return { ...shared, status: 'refused', words: `${words} ${reason}`, amount: null, cautions };
    const entry = laid.find(({ carrier }) => carrier.nutrient === nutrient);
    if (!entry) return { ...shared, status, words: `${words} Choose a product.`, amount: null, cautions };
    const { amount, carrier } = entry;
    if (!amount)
      return {
        ...shared,
        status,
        words: `${words} The other products bring it already, or it is too little to spread.`,
        amount: null,
        covered: true,
        cautions,
      };
    const granules = granuleCautions(carrier.product, zone);
    const others = macros.filter(
      (other) => other !== nutrient && carrier.content[other] > 0 && needs[other].status !== 'due' && other !== 'p2o5',
    );
    const besides = others.map(
      (other) =>
        ` It brings ${present('nutrientRate', (amount.rate.value * carrier.content[other]) / 100, system).text} of ${macroNames[other]} besides, which the test does not ask for.`,
    );
    return {
      ...shared,
      status,
      words: `${words}${besides.join('')}`,
      amount,
      cautions:
        nutrient === 'n'
          ? [...urgentCautions(carrier.product, conditions), ...cautions, ...granules, ...nitrogenCautions(amount)]
          : [...cautions, ...granules],
    };
  });
}
