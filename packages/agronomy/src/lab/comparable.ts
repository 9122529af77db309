import { type Analyte, isNutrient } from '../analytes/analytes.ts';
import type { ReportedValue } from '../analytes/reported.ts';
import { type Extractant, extractantNames } from '../nutrients/sufficiencyTables.ts';
import { figure } from '../working/working.ts';
import { bufferNames } from './buffers.ts';
import { doubtLimits } from './doubtLimits.ts';

/** One value with how it was got. */
export interface Taken {
  readonly analyte: Analyte;
  readonly value: ReportedValue;
  /** Of the report, where the value does not name its own. */
  readonly extractant?: Extractant | undefined;
  /** cm; nothing of what is no slice of soil. */
  readonly depthFrom?: number | null | undefined;
  readonly depthTo?: number | null | undefined;
  /** 2026-10-14; nothing where nobody knows. */
  readonly on: string | null;
}

/** How a value was measured, in words: "Mehlich-3", "SMP"; nothing where it makes no difference. */
export function methodName({ analyte, value, extractant }: Taken): string | undefined {
  if (analyte === 'bufferPh')
    return (bufferNames as Readonly<Record<string, string>>)[value.method ?? ''] ?? value.method;
  if (!isNutrient(analyte)) return value.method;
  const used = (value.method as Extractant | undefined) ?? extractant;
  return used && extractantNames[used];
}

const slice = ({ depthFrom, depthTo }: Taken): string => `${figure(depthFrom ?? 0)}–${figure(depthTo!)} cm`;

/** Months between two days of the year, at most six. */
function monthsApart(one: string, other: string): number {
  const day = (text: string): number => (Date.parse(`2001${text.slice(4)}`) - Date.parse('2001-01-01')) / 86_400_000;
  const apart = Math.abs(day(one) - day(other));
  return Math.min(apart, 365 - apart) / 30.44;
}

const seasons = ['winter', 'spring', 'summer', 'autumn'];
/** Of the northern year; south of it the words are turned about, the distance is the same. */
export const seasonName = (on: string): string => seasons[Math.floor((Number(on.slice(5, 7)) % 12) / 3)]!;

/**
 * Why two values of one analyte cannot be laid side by side: another method, another depth, another season.
 *
 * @returns the reason in words; nothing where they can.
 */
export function notComparable(one: Taken, other: Taken): string | undefined {
  const [method, before] = [methodName(one), methodName(other)];
  if (method !== before) return `by ${method ?? 'a method not told'}, not ${before ?? 'one not told'}`;
  const slices = one.depthTo != null && other.depthTo != null;
  if (
    slices &&
    (Math.abs(one.depthTo - other.depthTo) > doubtLimits.depthApart ||
      Math.abs((one.depthFrom ?? 0) - (other.depthFrom ?? 0)) > doubtLimits.depthApart)
  )
    return `of ${slice(one)}, not ${slice(other)}`;
  if (slices && one.on && other.on && monthsApart(one.on, other.on) > doubtLimits.monthsApart)
    return `taken in ${seasonName(one.on)}, not in ${seasonName(other.on)}`;
  return undefined;
}
