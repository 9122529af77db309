import { type Analyte } from '../analytes/analytes.ts';
import { inOwnUnit, isNumber } from '../analytes/reported.ts';
import type { SoilTest } from '../reading/zoneFacts.ts';
import { balanceCations, cationTables } from '../soil/cations.ts';
import type { Working } from '../working/working.ts';

type Shares = ReturnType<typeof balanceCations>['result'];

/** What a soil holds on its exchange, and how each share is judged. */
export interface ExchangeRead {
  /** cmol(+)/kg, by summation */
  readonly cec: number;
  readonly shares: Shares;
  readonly working: Working;
}

const bases = ['ca', 'mg', 'k'] as const;

/**
 * Shares of the exchange capacity of a test: the acidity as reported, by the Mehlich buffer, as what the reported capacity
 * leaves beside the bases, or none from pH 7 on.
 *
 * @param carbonate whether free carbonate is dissolved into the extract, which makes the sum no capacity
 * @returns why it cannot be said, as text, where it cannot
 */
export function exchangeOf(test: SoilTest, carbonate: boolean): ExchangeRead | string {
  const { values = {}, nutrients } = test;
  const own = (key: Analyte): number | undefined => {
    const value = values[key] ?? (key in nutrients ? nutrients[key as 'ca'] : undefined);
    return value && isNumber(value) ? inOwnUnit(key, value).value : undefined;
  };
  const [ca, mg, k] = bases.map(own);
  if (ca === undefined || mg === undefined || k === undefined)
    return 'Shares of the exchange want calcium, magnesium and potassium, all three, on one report.';
  if (carbonate)
    return 'There is free carbonate in the ground: it dissolves into the extract, and shares of the sum mean nothing.';
  const na = own('na') ?? 0;
  const held = [ca, mg, k, na].reduce((sum, value, index) => {
    const base = (['ca', 'mg', 'k', 'na'] as const)[index]!;
    return sum + value / cationTables.charge.mgPerCmol[base];
  }, 0);
  const reported = own('acidity');
  const capacity = test.cec ?? own('cec');
  const acidity = { ca, mg, k, na };
  const asked =
    reported !== undefined
      ? { ...acidity, acidity: reported }
      : test.soilPh >= 7 - 1e-9
        ? { ...acidity, acidity: 0 }
        : test.buffer?.method === 'mehlich'
          ? { ...acidity, bufferPh: test.buffer.ph }
          : capacity !== undefined && capacity >= held
            ? { ...acidity, acidity: capacity - held }
            : undefined;
  if (!asked)
    return 'Shares of the exchange want its acidity: ask for exchangeable acidity, or for the exchange capacity (CEC).';
  const { result, working } = balanceCations(asked);
  const [share] = [result.ca.share];
  return { cec: share > 0 ? (100 * ca) / cationTables.charge.mgPerCmol.ca / share : held, shares: result, working };
}
