import { nitrogenAnnual } from '../nutrients/nitrogen.ts';
import { requirementSufficiency } from '../nutrients/sufficiency.ts';
import { type Rating, extractantNames } from '../nutrients/sufficiencyTables.ts';
import type { Reading, SoilTest, ZoneFacts } from '../reading/reading.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type ProductAmount, amountFor, spreaderStep } from './amount.ts';
import type { Product } from './product.ts';

export interface NutrientAdvice {
  readonly nutrient: 'n' | 'p2o5' | 'k2o';
  readonly name: string;
  readonly status: 'due' | 'none' | 'cannot say';
  readonly words: string;
  /** g/m² of N, P₂O₅ or K₂O for the year, before what other products bring. */
  readonly need: Figure | null;
  readonly amount: ProductAmount | null;
  readonly cautions: readonly string[];
}

type Key = NutrientAdvice['nutrient'];

const names: Readonly<Record<Key, string>> = { n: 'Nitrogen', p2o5: 'P₂O₅', k2o: 'K₂O' };
const PER_THOUSAND = convert(1, 'lb/1000ft2', 'g/m2');

/** Most that may go down at once, g/m² of the nutrient: soluble N, and half of it on fine turf. */
function capFor(nutrient: Key, zone: ZoneFacts): number {
  return nutrient === 'n' && zone.surface === 'fine turf' ? PER_THOUSAND / 2 : PER_THOUSAND;
}

/** Product for a need: its rate, split so that no application passes the cap on what acts at once. */
function amountOf(
  nutrient: Key,
  need: Figure,
  zone: ZoneFacts,
  product: Product,
  brought: number,
  system: UnitSystem,
): ProductAmount | null {
  const content = product.grade[nutrient];
  if (content <= 0) return null;
  const book = new WorkingBook();
  book.include(need.working);
  const open = Math.max(0, need.value - brought);
  if (brought > 0)
    book.step({
      label: `Less what other products bring`,
      formula: 'need − brought',
      numbers: `${figure(need.value)} − ${figure(brought)}`,
      result: open,
      unit: 'g/m2',
    });
  const year = (open / content) * 100;
  book.step({
    label: `As ${product.name}`,
    formula: `need / ${names[nutrient]} content`,
    numbers: `${figure(open)} g/m² / ${content} %`,
    result: year,
    unit: 'g/m2',
    source: 'The product’s grade',
  });
  if (year === 0) return null;

  const quick = nutrient === 'n' ? 1 - product.slowRelease / 100 : 1;
  const cap = capFor(nutrient, zone);
  const count = Math.max(1, Math.ceil((open * quick) / cap - 1e-9));
  if (nutrient === 'n' && count > 1)
    book.cap(`At most ${present('nutrientRate', cap, system).text} of soluble N at once: ${count} applications.`);
  const step = spreaderStep('productRate', system);
  const each = year / count;
  const most = quick > 0 ? ((cap / quick) * 100) / content : Infinity;
  const nearest = Math.max(1, Math.round(each / step)) * step;
  const rate = nearest > most + 1e-9 ? Math.floor(most / step + 1e-9) * step : nearest;
  if (Math.abs(rate - each) > 1e-9)
    book.rounding(
      `Each application set to ${present('productRate', rate, system).text}, what a spreader can be set to.`,
    );
  return amountFor(
    product,
    zone.area,
    Array.from({ length: count }, () => ({ rate, monthsFromStart: null })),
    book,
    system,
  );
}

/** Phosphorus is gated by law in many places; what the test says decides which way. */
function phosphorusCaution(rating: Rating): string {
  const gate =
    rating === 'medium'
      ? 'A medium test is no shortage under many local phosphorus rules: check the rule before spreading any.'
      : 'The test shows the shortage that most phosphorus rules ask for; the local rule still decides.';
  return `${gate} Keep it off paving and back from water and drains.`;
}

function adviseFromTest(
  nutrient: 'p2o5' | 'k2o',
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  product: Product | undefined,
  system: UnitSystem,
): NutrientAdvice {
  const element = nutrient === 'p2o5' ? 'p' : 'k';
  const name = names[nutrient];
  const bar = reading.bars.find(({ key }) => key === element);
  const nothing = { nutrient, name, need: null, amount: null, cautions: [] };
  if (!bar)
    return {
      ...nothing,
      status: 'cannot say',
      words: `${element.toUpperCase()} was not tested: no ${name} without a test.`,
    };
  if (!bar.rating) return { ...nothing, status: 'cannot say', words: bar.words };
  const { result, working } = requirementSufficiency({ nutrient: element, rating: bar.rating });
  const need: Figure = { value: result.requirement, working: [...bar.figure.working, ...working] };
  const told = `${element.toUpperCase()} ${present('concentration', bar.figure.value, system).text} by ${extractantNames[test.extractant]} is ${bar.rating}`;
  if (need.value === 0) return { ...nothing, need, status: 'none', words: `No ${name}. ${told}.` };
  const cautions = nutrient === 'p2o5' ? [phosphorusCaution(bar.rating)] : [];
  if (!product) return { ...nothing, need, status: 'due', words: `${told}. Choose a product.`, cautions };
  return {
    nutrient,
    name,
    status: 'due',
    words: `${told}.`,
    need,
    amount: amountOf(nutrient, need, zone, product, 0, system),
    cautions,
  };
}

function adviseNitrogen(
  zone: ZoneFacts,
  test: SoilTest,
  product: Product | undefined,
  brought: number,
  system: UnitSystem,
): NutrientAdvice {
  const { result, working } = nitrogenAnnual({
    grass: zone.grass,
    intensity: zone.intensity,
    shade: zone.shade,
    clippings: zone.clippings,
    organicMatter: test.organicMatter,
  });
  const need: Figure = { value: result.annual, working };
  const credited =
    result.credits.total > 0
      ? ` ${present('nutrientRate', result.credits.total, system).text} saved by ${Object.entries({
          shade: 'shade',
          clippings: 'clippings left',
          organicMatter: 'organic matter',
        })
          .filter(([key]) => result.credits[key as 'shade'] > 0)
          .map(([, words]) => words)
          .join(', ')}.`
      : '';
  const words = `Planned from the grass’s year, ${zone.intensity} intensity, not from the test.${credited}`;
  const shared = { nutrient: 'n', name: names.n, need, words } as const;
  if (need.value === 0) return { ...shared, status: 'none', amount: null, cautions: [] };
  if (!product) return { ...shared, status: 'due', words: `${words} Choose a product.`, amount: null, cautions: [] };
  const amount = amountOf('n', need, zone, product, brought, system);
  return {
    ...shared,
    status: 'due',
    amount,
    cautions: [
      'Dry leaves, no heavy rain ahead, sweep granules off paving; the label and local nutrient rules come first.',
    ],
  };
}

/** N, P₂O₅ and K₂O for the year; what the P and K products bring of N is taken off the nitrogen. */
export function adviseNutrients(
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  products: {
    readonly nitrogen?: Product | undefined;
    readonly phosphorus?: Product | undefined;
    readonly potassium?: Product | undefined;
  },
  system: UnitSystem,
): readonly NutrientAdvice[] {
  const p2o5 = adviseFromTest('p2o5', zone, test, reading, products.phosphorus, system);
  const k2o = adviseFromTest('k2o', zone, test, reading, products.potassium, system);
  const bring = (advice: NutrientAdvice, product: Product | undefined): number =>
    ((advice.amount?.rate.value ?? 0) * (product?.grade.n ?? 0)) / 100;
  const nitrogen = adviseNitrogen(
    zone,
    test,
    products.nitrogen,
    bring(p2o5, products.phosphorus) + bring(k2o, products.potassium),
    system,
  );
  return [nitrogen, p2o5, k2o];
}
