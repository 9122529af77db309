import { analytes } from '../analytes/analytes.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, type Values, defaulted, optional, quantity } from '../calculators/fields.ts';
import { record, series } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import tables from '../data/cations.json' with { type: 'json' };
import { type WorkingBook, figure } from '../working/working.ts';

const bases = ['ca', 'mg', 'k', 'na'] as const;
/** Charge, wanted shares and sodium limit of the exchangeable cations. */
export const cationTables = {
  charge: {
    source: 'Equivalent masses of the cations (atomic mass / valence)',
    mgPerCmol: Object.fromEntries(bases.map((base) => [base, analytes[base].mgPerCmol!])) as Readonly<
      Record<(typeof bases)[number], number>
    >,
  },
  balance: readTable(
    'cations.balance',
    {
      ranges: record(
        ['ca', 'mg', 'k', 'acidity'],
        series(quantity('%', { min: 0, max: 100 }), 'shares: low, high, still tolerated', { min: 3, max: 3 }),
      ),
    },
    tables.balance,
  ),
  sodium: readTable('cations.sodium', { sodicFrom: quantity('%', { above: 0, max: 100 }) }, tables.sodium),
};

const MEHLICH =
  'Mehlich (1976), Communications in Soil Science and Plant Analysis 7:637–652: acidity = (6.6 − buffer pH) / 0.25 cmol/dm³';

const inputs = {
  ca: quantity('mg/kg', { min: 0, max: 100_000 }),
  mg: quantity('mg/kg', { min: 0, max: 50_000 }),
  k: quantity('mg/kg', { min: 0, max: 50_000 }),
  na: defaulted(quantity('mg/kg', { min: 0, max: 50_000 }), 0),
  acidity: optional(quantity('cmol/kg', { min: 0, max: 100 })),
  bufferPh: optional(quantity('pH', { min: 3, max: 7.5, why: 'a Mehlich buffer reads 6.6 in water' })),
  scoopDensity: defaulted(quantity('g/cm3', { min: 0.05, max: 2.2 }), 1),
};

type Cation = 'ca' | 'mg' | 'k' | 'na' | 'acidity';
const names = { ca: 'Calcium', mg: 'Magnesium', k: 'Potassium', na: 'Sodium' } as const;

interface Exchange {
  readonly cec: number;
  /** % of the CEC */
  readonly saturation: Readonly<Record<Cation, number>>;
  /** % */
  readonly esp: number;
}

function readAcidity({ acidity, bufferPh, scoopDensity }: Values<typeof inputs>, book: WorkingBook): number {
  if (acidity !== undefined && bufferPh !== undefined)
    throw new InputError(
      'acidity',
      'was given together with bufferPh; wanted one of them, since each sets the acidity',
    );
  if (acidity !== undefined) return acidity;
  if (bufferPh === undefined)
    throw new InputError('acidity', 'was given nothing; wanted acidity in cmol/kg, or the Mehlich bufferPh');
  const perVolume = Math.max(0, (6.6 - bufferPh) / 0.25);
  const result = perVolume / scoopDensity;
  book.step({
    label: 'Acidity from the buffer',
    formula: '(6.6 − buffer pH) / 0.25 / scoop density',
    numbers: `(6.6 − ${figure(bufferPh)}) / 0.25 / ${figure(scoopDensity)}`,
    result,
    unit: 'cmol/kg',
    source: MEHLICH,
  });
  return result;
}

function exchange(given: Values<typeof inputs>, book: WorkingBook): Exchange {
  const acidity = readAcidity(given, book);
  const charge = { acidity } as Record<Cation, number>;
  for (const cation of bases) {
    const perCmol = cationTables.charge.mgPerCmol[cation];
    charge[cation] = given[cation] / perCmol;
    if (given[cation] > 0)
      book.step({
        label: names[cation],
        formula: `mg/kg / ${perCmol}`,
        numbers: `${figure(given[cation])} / ${perCmol}`,
        result: charge[cation],
        unit: 'cmol/kg',
        source: cationTables.charge.source,
      });
  }
  const cec = Object.values(charge).reduce((sum, value) => sum + value, 0);
  if (cec <= 0) throw new InputError('ca, mg, k and acidity', 'are all 0; a soil holds some: give what was measured');
  book.step({
    label: 'Cation exchange capacity, by summation',
    formula: 'bases + acidity',
    numbers: `${figure(cec - acidity)} + ${figure(acidity)}`,
    result: cec,
    unit: 'cmol/kg',
  });
  const saturation = Object.fromEntries(
    Object.entries(charge).map(([cation, value]) => [cation, (100 * value) / cec]),
  ) as Record<Cation, number>;
  if (saturation.na >= cationTables.sodium.sodicFrom)
    book.warn(
      'Sodic: sodium breaks the structure. Gypsum and leaching come before anything else.',
      cationTables.sodium.source,
    );
  if (acidity === 0 && charge.ca > 15)
    book.warn(
      'No acidity and much calcium: where the soil holds free lime, part of the calcium was dissolved from it and the sum overstates the capacity.',
    );
  return { cec, saturation, esp: saturation.na };
}

/**
 * Cation exchange capacity by summation, and what it holds.
 *
 * @param ca, mg, k, na mg/kg; one of `acidity` cmol/kg or the Mehlich `bufferPh`, with `scoopDensity` g/cm³.
 * @returns `cec` cmol/kg; `saturation` of each cation and `esp`, % of it. The shares add to 100.
 * @throws {InputError} without acidity, or with it twice.
 */
export const cationExchange = defineCalculator({
  name: 'cation.exchange',
  title: 'Cation exchange capacity and saturation',
  source: `${cationTables.charge.source}; ${MEHLICH}; ${cationTables.sodium.source}`,
  inputs,
  outputs: { cec: 'cmol/kg', saturation: '{ca, mg, k, na, acidity} %', esp: '%' },
  compute: exchange,
});

interface Balance {
  readonly share: number;
  readonly range: readonly [number, number];
  readonly judgement: 'low' | 'in range' | 'high side' | 'high';
}

/**
 * Shares of the exchange capacity beside the ranges of the cation balance school.
 *
 * @param as for {@link cationExchange}.
 * @returns per cation its `share` %, the `range` % and a `judgement`: low, in range, high side, high.
 */
export const balanceCations = defineCalculator({
  name: 'balance.cations',
  title: 'Cation balance',
  source: cationTables.balance.source,
  inputs,
  outputs: Object.fromEntries(
    Object.keys(cationTables.balance.ranges).map((cation) => [cation, '{share %, range %, judgement}']),
  ),
  compute(given, book) {
    const { saturation } = exchange(given, book);
    const judged = Object.entries(cationTables.balance.ranges).map(
      ([cation, [low = 0, high = 100, tolerated = 100]]) => {
        const share = saturation[cation as Cation];
        const judgement = share < low ? 'low' : share <= high ? 'in range' : share <= tolerated ? 'high side' : 'high';
        book.step({
          label: cation === 'acidity' ? 'Acidity' : names[cation as keyof typeof names],
          formula: `wanted ${low}–${high} %${tolerated > high ? `, to ${tolerated}` : ''}`,
          numbers: `${figure(share)} %`,
          result: judgement,
          unit: '',
          source: cationTables.balance.source,
        });
        return [cation, { share, range: [low, high], judgement }] as const;
      },
    );
    book.warn(
      'Field trials have not shown gains in growth or quality from ideal ratios (Kopittke & Menzies 2007): correct shortages by sufficiency first.',
      cationTables.balance.source,
    );
    return Object.fromEntries(judged) as Readonly<Record<'ca' | 'mg' | 'k' | 'acidity', Balance>>;
  },
});
