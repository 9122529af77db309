import type { Verdict } from '../rates/verdicts.ts';
import { type ZonePlan, planZone } from '../rates/plan.ts';
import { type Product, contentOf } from '../materials/product.ts';
import type { Degree } from '../reading/degrees.ts';
import type { LimitKey } from '../reading/limits.ts';
import type { Reading } from '../reading/reading.ts';
import { type Report, readReport } from './report.ts';

/** What a remedy comes to; those that do not exist yet are left out. */
export type Status = 'due' | 'none' | 'refused' | 'cannot say' | 'estimate';

/** The advice for one zone, as scripts and scenarios read it. Rates are g/m². */
export interface Advice {
  readonly limits: ReadonlyArray<{ readonly key: LimitKey; readonly degree: Degree; readonly words: string }>;
  readonly asks: readonly string[];
  readonly status: Readonly<Record<string, Status>>;
  /** What all products bring in the first year; lime as product; sulfur and gypsum of the pure material, compost cm. */
  readonly totals: Readonly<
    Record<'lime' | 'sulfur' | 'gypsum' | 'compost' | 'n' | 'p2o5' | 'k2o' | 'ca' | 'mg' | 's' | 'fe', number>
  >;
  readonly passes: Readonly<Record<'lime' | 'sulfur' | 'gypsum' | 'n' | 'p2o5' | 'k2o', number>>;
  readonly largestPass: Readonly<Record<'lime' | 'sulfur' | 'gypsum' | 'n' | 'solubleN' | 'p2o5' | 'k2o', number>>;
  /** Nothing while a product has no price. */
  readonly cost: number | null;
  /** Every sentence that would be shown or printed. */
  readonly sentences: readonly string[];
}

function sentencesOf(reading: Reading, plan: ZonePlan): string[] {
  const { lime } = plan;
  const all = [
    reading.headline,
    ...reading.limitations.flatMap(({ what, evidence }) => [what, evidence]),
    ...reading.bars.map(({ name, words }) => `${name}: ${words}`),
    ...reading.notes,
    ...reading.others,
    reading.buffer,
    ...(reading.notMeasured.length > 0 ? [`Not measured: ${reading.notMeasured.join('; ')}.`] : []),
    reading.open,
    ...reading.questions,
    lime.words,
    lime.rule,
    ...lime.cautions,
    ...plan.nutrients.flatMap(({ name, words, cautions }) => [`${name}: ${words}`, ...cautions]),
    ...plan.verdicts.flatMap(({ words, cautions }) => [words, ...cautions]),
    ...(plan.leftOut.length > 0 ? [`Need not be bought: ${plan.leftOut.join(', ')}.`] : []),
  ];
  return [...new Set(all.filter((sentence): sentence is string => !!sentence))];
}

const statusOfLime = ({ status }: ZonePlan['lime']): Status => (status === 'too high' ? 'none' : status);
const nutrientKeys = { n: 'nitrogen', p2o5: 'phosphate', k2o: 'potash' } as const;

/** The advice of a report with a catalogue, through the very functions that the server calls. */
export function adviceOf(report: Report, catalogue: readonly Product[]): Advice {
  const products = report.products ?? catalogue;
  const { reading, plan } = planZone({ ...report, products });
  const used = plan.nutrients.flatMap(({ nutrient, amount }) => {
    const product = amount && products.find(({ id }) => id === amount.productId);
    return amount && product ? [{ nutrient, amount, product, content: contentOf(product) }] : [];
  });
  const largest = (of: (entry: (typeof used)[number]) => number): number =>
    Math.max(
      0,
      ...used.map((entry) => (Math.max(...entry.amount.applications.map(({ rate }) => rate)) * of(entry)) / 100),
    );
  const passes = (nutrient: string): number =>
    used.find((entry) => entry.nutrient === nutrient)?.amount.applications.length ?? 0;
  const year = (remedy: Verdict['remedy']): NonNullable<Verdict['year']> =>
    plan.verdicts.find((verdict) => verdict.remedy === remedy)?.year ?? { total: 0, each: 0, times: 0 };
  const [sulfur, gypsum, compost] = [year('sulfur'), year('gypsum'), year('compost')];
  const limeRates = plan.lime.amount?.applications.map(({ rate }) => rate) ?? [];
  return {
    limits: reading.limitations.map(({ key, degree, what, evidence }) => ({
      key,
      degree,
      words: `${what} ${evidence}`,
    })),
    asks: reading.asks,
    status: {
      lime: statusOfLime(plan.lime),
      ...Object.fromEntries(plan.nutrients.map(({ nutrient, status }) => [nutrientKeys[nutrient], status])),
      ...Object.fromEntries(plan.verdicts.map(({ remedy, status }) => [remedy, status])),
      ...(report.test ? {} : { sulfur: 'cannot say', compost: 'cannot say' }),
    },
    totals: {
      lime: plan.lime.amount?.rate.value ?? 0,
      sulfur: sulfur.total,
      gypsum: gypsum.total,
      compost: compost.total,
      ...plan.supplied,
    },
    passes: {
      lime: limeRates.length,
      sulfur: sulfur.times,
      gypsum: gypsum.times,
      n: passes('n'),
      p2o5: passes('p2o5'),
      k2o: passes('k2o'),
    },
    largestPass: {
      lime: Math.max(0, ...limeRates),
      sulfur: sulfur.each,
      gypsum: gypsum.each,
      n: largest(({ content }) => content.n),
      solubleN: largest(({ content, product }) => (content.n * (100 - product.slowRelease)) / 100),
      p2o5: largest(({ content }) => content.p2o5),
      k2o: largest(({ content }) => content.k2o),
    },
    cost: plan.cost?.value ?? null,
    sentences: sentencesOf(reading, plan),
  };
}

/** The same from a report as it was written. @throws {InputError} */
export function advise(raw: unknown, catalogue: readonly Product[]): Advice {
  return adviceOf(readReport(raw), catalogue);
}
