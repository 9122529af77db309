import { inLine, present } from '@glenfold/agronomy';
import type { ZonePaper } from './programZone.entity.ts';

/** What is not in the sum. */
const without = (unpriced: readonly string[] = []): string =>
  unpriced.length > 0 ? `, without ${unpriced.map(inLine).join(', ')} (no price yet)` : '';

/** The zone’s share of what is bought for the site, as the site’s page has it; and what it costs alone where that is more. */
export function costWords({ share, units, currency, answer }: ZonePaper, alone: number): string {
  const money = (value: number): string => present('money', value, units, currency).text;
  const open = without(answer.program.unpricedWork);
  if (!share) return `For this zone: ${money(alone)}${open}`;
  const more = alone - share >= 0.5 ? ` as its share of what is bought for the site (${money(alone)} alone)` : '';
  return `For this zone: ${money(share)}${more}${open}`;
}
