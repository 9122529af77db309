import { figure } from '../working/working.ts';
import { type Analyte, analytes } from './analytes.ts';

/** What slip makes a value this many times too big or too small. */
function likelySlip(analyte: Analyte, ratio: number): string {
  const { sense, oxide, symbol, units } = analytes[analyte];
  if (sense === 'concentration') {
    if (ratio > 4 || ratio < 1 / 4) return 'Check the unit and the column it was copied from.';
    if (ratio < 1) return 'Was a value in ppm entered as lb/acre?';
    return `Is the report in lb/acre (twice the ppm)${oxide ? `, or ${oxide.name} instead of ${symbol}` : ''}?`;
  }
  return units.length > 1
    ? `Check the unit (${units.join(' or ')}) and the column it was copied from.`
    : 'Check the column it was copied from.';
}

/**
 * Question a value that is at least twice outside what routine soils show.
 *
 * @param value in the analyte's own unit.
 * @returns one sentence naming the likely slip, or nothing when it is plausible.
 */
export function questionPlausibility(analyte: Analyte, value: number): string | undefined {
  const { plausible, name, symbol, sense, units } = analytes[analyte];
  if (!plausible) return undefined;
  const [low, high] = plausible;
  const ratio = value > high ? value / high : value < low ? value / low : 1;
  if (ratio < 2 && ratio > 0.5) return undefined;
  const told = `${sense === 'concentration' ? symbol : name} ${figure(value)} ${units[0] ?? ''}`.trim();
  return `${told} is far ${value > high ? 'above' : 'below'} what lawn soils usually show (${low}–${high}). ${likelySlip(analyte, ratio)}`;
}
