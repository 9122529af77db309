import { quantity } from '../calculators/fields.ts';
import { band, record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import ranges from '../data/plausible.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

const plausibleFields = ['p', 'k', 'ca', 'mg', 'organicMatter', 'depth'] as const;
export type PlausibleField = (typeof plausibleFields)[number];

const data = readTable(
  'plausible',
  { ranges: record(plausibleFields, band(quantity('', { above: 0, max: 100_000 }))) },
  ranges,
);

const names: Readonly<Record<PlausibleField, string>> = {
  p: 'P',
  k: 'K',
  ca: 'Ca',
  mg: 'Mg',
  organicMatter: 'Organic matter',
  depth: 'Sampled depth',
};
const nutrients: readonly PlausibleField[] = ['p', 'k', 'ca', 'mg'];

/** What slip makes a value this many times too big or too small. */
function likelySlip(field: PlausibleField, ratio: number): string {
  if (field === 'depth') return 'Was it given in inches instead of centimetres, or the other way round?';
  if (!nutrients.includes(field)) return 'Check the column it was copied from.';
  if (ratio > 4 || ratio < 1 / 4) return 'Check the unit and the column it was copied from.';
  const oxide = field === 'p' ? ', or P₂O₅ instead of P' : field === 'k' ? ', or K₂O instead of K' : '';
  return ratio > 1 ? `Is the report in lb/acre (twice the ppm)${oxide}?` : 'Was a value in ppm entered as lb/acre?';
}

/**
 * Question a value that is at least twice outside what routine soils show.
 *
 * @param value mg/kg of the element, % of organic matter, or cm of depth.
 * @returns one sentence naming the likely slip, or nothing when it is plausible.
 */
export function questionPlausibility(field: PlausibleField, value: number): string | undefined {
  const [low, high] = data.ranges[field];
  const ratio = value > high ? value / high : value < low ? value / low : 1;
  if (ratio < 2 && ratio > 0.5) return undefined;
  const told =
    field === 'depth'
      ? `${figure(value)} cm (${figure(convert(value, 'cm', 'in'))} in)`
      : `${figure(value)} ${field === 'organicMatter' ? '%' : 'mg/kg'}`;
  return `${names[field]} ${told} is far ${value > high ? 'above' : 'below'} what lawn soils usually show (${low}–${high}). ${likelySlip(field, ratio)}`;
}
