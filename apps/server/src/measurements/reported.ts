import { type Rating, type ReportedValue, type ReportedValues, ratings } from '@glenfold/agronomy';
import type { Measurement } from './measurement.entity.ts';

type Stored = Pick<Measurement, 'value' | 'unit' | 'basis' | 'method' | 'qualifier'>;

/** A reported value as it is kept. */
export function stored({ value, unit, basis, method, belowDetection, aboveRange, rated }: ReportedValue): Stored {
  const qualifier = rated ?? (belowDetection ? 'below' : aboveRange ? 'above' : null);
  return { value, unit: unit || null, basis, method: method ?? null, qualifier };
}

/** A kept value as it was reported. */
export function reported({ value, unit, basis, method, qualifier }: Stored): ReportedValue {
  return {
    value,
    unit: unit ?? '',
    basis,
    ...(qualifier === 'below' ? { belowDetection: true } : {}),
    ...(qualifier === 'above' ? { aboveRange: true } : {}),
    ...(isRating(qualifier) ? { rated: qualifier } : {}),
    ...(method === null ? {} : { method }),
  };
}

const isRating = (word: string | null): word is Rating => (ratings as readonly (string | null)[]).includes(word);

/** What measurements of one result say, by analyte. */
export function valuesOf(measurements: readonly Measurement[]): ReportedValues {
  return Object.fromEntries(measurements.map((one) => [one.analyte, reported(one)]));
}

/** Whether a kept value is this one. */
export function isSame(one: Stored, other: Stored): boolean {
  return (['value', 'unit', 'basis', 'method', 'qualifier'] as const).every((key) => one[key] === other[key]);
}
