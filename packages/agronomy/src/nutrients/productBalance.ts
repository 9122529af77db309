import { acidityBases, nitrogenSourceField, sulfurTable } from '../acidify/tables.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, defaulted, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, text } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { nutrientSymbol } from '../analytes/analytes.ts';

export const balanced = ['n', 'p2o5', 'k2o', 'ca', 'mg', 's', 'fe'] as const;
export type Balanced = (typeof balanced)[number];
/** g/m² of each nutrient. */
export type Supplied = Readonly<Record<Balanced, number>>;

const symbols: Readonly<Record<string, string>> = { p2o5: 'P₂O₅', k2o: 'K₂O' };
export const balanceSymbol = (nutrient: Balanced): string => symbols[nutrient] ?? nutrientSymbol(nutrient);

const percent = () => optional(quantity('%', { min: 0, max: 100 }));
const perArea = () => optional(quantity('g/m2', { min: 0, max: 10_000 }));
const each = <T>(field: () => T) => Object.fromEntries(balanced.map((name) => [name, field()])) as Record<Balanced, T>;
const sources = acidityBases.pierre.perNitrogen;
/** Rounding of spreaders and scales. */
const SLACK = 1e-6;

/**
 * All that a set of products brings to a zone, against what it may and must get.
 *
 * @param products `rate` g/m² of product for the period, `analysis` %, `solubleN` % of the nitrogen (all unless told),
 *   `saltIndex`, `nitrogenSource` for the acidity (urea unless told); `need` g/m² by nutrient, `min` and `max`.
 * @returns `supplied` g/m² by nutrient; `solubleN` g/m²; `over` and `under` the nutrients outside their need;
 *   `limeEquivalent` g/m² CaCO₃ of the acidity the nitrogen makes; `saltLoad`, rate × salt index / 100 summed.
 * @throws {InputError} for an analysis that adds to more than 100 %, or a need whose least is above its most.
 */
export const productBalance = defineCalculator({
  name: 'product.balance',
  title: 'What products bring against the need',
  source: `${acidityBases.pierre.source}; every product counts with all that it holds`,
  inputs: {
    products: listOf(
      {
        name: text(),
        rate: quantity('g/m2', { min: 0, max: 10_000 }),
        analysis: group(each(percent)),
        solubleN: defaulted(quantity('%', { min: 0, max: 100 }), 100),
        saltIndex: optional(quantity('', { min: 0, max: 300 })),
        nitrogenSource: defaulted(nitrogenSourceField(), 'urea'),
      },
      'products',
      { min: 0, max: 100 },
    ),
    need: optional(group(each(() => optional(group({ min: perArea(), max: perArea() }))))),
  },
  outputs: {
    supplied: '{n, p2o5, k2o, ca, mg, s, fe} g/m2',
    solubleN: 'g/m2',
    over: '[nutrient]',
    under: '[nutrient]',
    limeEquivalent: 'g/m2',
    saltLoad: 'number',
  },
  compute({ products, need = {} }, book) {
    for (const [index, { name, analysis }] of products.entries()) {
      const sum = balanced.reduce((all, nutrient) => all + (analysis[nutrient] ?? 0), 0);
      if (sum > 100 + 1e-9)
        throw new InputError(`products.${index}.analysis`, `of ${name} adds to ${figure(sum)} %; wanted 100 at most`);
    }
    const supplied = Object.fromEntries(balanced.map((nutrient) => [nutrient, 0])) as Record<Balanced, number>;
    for (const nutrient of balanced) {
      const lines = products.filter(({ analysis, rate }) => rate > 0 && (analysis[nutrient] ?? 0) > 0);
      supplied[nutrient] = lines.reduce((sum, { rate, analysis }) => sum + (rate * analysis[nutrient]!) / 100, 0);
      if (lines.length > 0)
        book.step({
          label: `${balanceSymbol(nutrient)} brought`,
          formula: 'sum of rate × content',
          numbers: lines.map(({ rate, analysis }) => `${figure(rate)} × ${figure(analysis[nutrient]!)} %`).join(' + '),
          result: supplied[nutrient],
          unit: 'g/m2',
        });
    }
    const over: Balanced[] = [];
    const under: Balanced[] = [];
    for (const nutrient of balanced) {
      const { min, max } = need[nutrient] ?? {};
      if (min !== undefined && max !== undefined && min > max * (1 + 1e-9))
        throw new InputError(
          `need.${nutrient}.min`,
          `was given ${figure(min)}; wanted at most its max, ${figure(max)}`,
        );
      if (max !== undefined && supplied[nutrient] > max * (1 + SLACK) + 1e-9) over.push(nutrient);
      if (min !== undefined && supplied[nutrient] < min * (1 - SLACK) - 1e-9) under.push(nutrient);
    }
    if (over.length > 0)
      book.warn(`Over what may be given: ${over.map(balanceSymbol).join(', ')}. Take another product, or less of it.`);
    let limeEquivalent = 0;
    for (const { rate, analysis, nitrogenSource } of products) {
      const { limeEquivalent: factor, sulfurCounts } = sources.find(({ name }) => name === nitrogenSource)!;
      const coating = sulfurCounts ? (analysis.s ?? 0) * sulfurTable.carbonatePerSulfur : 0;
      limeEquivalent += (rate * ((analysis.n ?? 0) * factor + coating)) / 100;
    }
    if (limeEquivalent !== 0)
      book.step({
        label: 'Acidity of the nitrogen, as lime',
        formula: 'sum of nitrogen × CaCO₃ for each N of its source',
        numbers: products
          .filter(({ analysis }) => (analysis.n ?? 0) > 0)
          .map(({ rate, analysis, nitrogenSource }) => `${figure((rate * analysis.n!) / 100)} g N of ${nitrogenSource}`)
          .join(' + '),
        result: limeEquivalent,
        unit: 'g/m2',
        source: acidityBases.pierre.source,
      });
    return {
      supplied,
      solubleN: products.reduce(
        (sum, { rate, analysis, solubleN }) => sum + (rate * (analysis.n ?? 0) * solubleN) / 1e4,
        0,
      ),
      over,
      under,
      limeEquivalent,
      saltLoad: products.reduce((sum, { rate, saltIndex }) => sum + (rate * (saltIndex ?? 0)) / 100, 0),
    };
  },
});
