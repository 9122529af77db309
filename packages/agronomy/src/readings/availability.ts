import { quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/ph-availability.json' with { type: 'json' };

/** How much of each nutrient is within reach at a pH, for a drawing: published curves read by eye. */
export const phAvailability = readTable(
  'ph-availability',
  {
    from: quantity('pH', { min: 3, max: 6 }),
    step: quantity('', { above: 0, max: 2 }),
    nutrients: listOf(
      {
        key: text(20),
        name: text(40),
        shares: series(quantity('%', { min: 0, max: 100 }), 'shares', { min: 11, max: 11 }),
      },
      'nutrients',
      { min: 1, max: 20 },
    ),
  },
  data,
);

/** % of the greatest availability at a pH, between two points of the curve by straight line; held at its ends. */
export function shareAt({ shares }: { readonly shares: readonly number[] }, ph: number): number {
  const at = Math.min(shares.length - 1, Math.max(0, (ph - phAvailability.from) / phAvailability.step));
  const low = Math.floor(at);
  const [one, other] = [shares[low]!, shares[Math.min(shares.length - 1, low + 1)]!];
  return one + (at - low) * (other - one);
}
