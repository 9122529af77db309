import { cationTables } from '../soil/cations.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import type { SoilTest } from '../reading/zoneFacts.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type ExchangeRead, exchangeOf } from './exchangeOf.ts';

/** Bulk density where organic matter was not measured, g/cm³: an ordinary mineral soil of 3 %. */
const ORDINARY = densityOf(3);

/**
 * What brings the share of a cation up to the foot of its range in the sampled slice, g/m² of the element.
 *
 * @returns nothing where its share is not below; `why` where shares cannot be said
 */
export function cationNeed(
  cation: 'ca' | 'mg' | 'k',
  test: SoilTest,
  carbonate: boolean,
): { readonly need: Figure | undefined; readonly share: number; readonly foot: number } | { readonly why: string } {
  const exchange = exchangeOf(test, carbonate);
  if (typeof exchange === 'string') return { why: exchange };
  const { share, range } = exchange.shares[cation];
  const [foot] = range;
  return { share, foot, need: share < foot ? toFoot(cation, foot, exchange, test) : undefined };
}

function toFoot(cation: 'ca' | 'mg' | 'k', foot: number, exchange: ExchangeRead, test: SoilTest): Figure {
  const { cec, shares, working } = exchange;
  const perCmol = cationTables.charge.mgPerCmol[cation];
  const density = test.organicMatter === undefined ? ORDINARY : densityOf(test.organicMatter);
  const book = new WorkingBook();
  book.include(working);
  const short = ((foot - shares[cation].share) / 100) * cec * perCmol;
  book.step({
    label: 'Short of the foot of its range',
    formula: '(wanted share − share) × capacity × mg per cmol',
    numbers: `(${foot} % − ${figure(shares[cation].share)} %) × ${figure(cec)} × ${perCmol}`,
    result: short,
    unit: 'mg/kg',
    source: cationTables.balance.source,
  });
  const value = short * density * test.depth * 0.01;
  book.step({
    label: 'In the sampled slice',
    formula: 'mg/kg × bulk density × depth × 0.01',
    numbers: `${figure(short)} × ${figure(density)} × ${figure(test.depth)} × 0.01`,
    result: value,
    unit: 'g/m2',
  });
  book.warn(
    'Field trials have not shown gains in growth or quality from ideal ratios (Kopittke & Menzies 2007).',
    cationTables.balance.source,
  );
  return { value, working: book.entries };
}
