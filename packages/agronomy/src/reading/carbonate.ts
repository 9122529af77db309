import { limitTable } from './limitTable.ts';

/** What is known of free carbonate, and how. */
export interface CarbonateKnown {
  readonly state: 'present' | 'absent' | 'little' | 'unknown';
  readonly evidence: string;
  /** Told by pH and calcium alone: a drop of acid settles it. */
  readonly presumed?: true;
  /** % where it was measured. */
  readonly measured?: number;
}

/**
 * Whether a soil holds free carbonate: measured, by a drop of acid, or told by a high pH with very high calcium.
 *
 * @param calcium rating of the soil's calcium, where there is one.
 */
export function freeCarbonate(
  ph: number,
  measured: { readonly carbonate?: number | undefined; readonly fizz?: 'none' | 'weak' | 'strong' | undefined } = {},
  calcium?: string | null,
): CarbonateKnown {
  const { measuredFrom, phFrom, wonderFrom } = limitTable.freeCarbonate;
  if (measured.carbonate !== undefined)
    return {
      state: measured.carbonate >= measuredFrom - 1e-9 ? 'present' : measured.carbonate > 0 ? 'little' : 'absent',
      evidence: `${Number(measured.carbonate.toPrecision(2))} % free carbonate measured`,
      measured: measured.carbonate,
    };
  if (measured.fizz === 'weak' || measured.fizz === 'strong')
    return { state: 'present', evidence: 'the soil fizzes under a drop of acid' };
  if (measured.fizz === 'none') return { state: 'absent', evidence: 'the soil does not fizz under a drop of acid' };
  if (ph >= phFrom - 1e-9 && calcium === 'very high')
    return { state: 'present', evidence: `pH ${ph.toFixed(1)} with very high calcium`, presumed: true };
  return { state: ph >= wonderFrom - 1e-9 ? 'unknown' : 'absent', evidence: `pH ${ph.toFixed(1)}` };
}
