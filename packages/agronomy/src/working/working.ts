import { isWritten } from './numbersOnly.ts';

/**
 * The working: the derivation that stands behind every number, in the order a
 * person would check it.
 */
export interface WorkingStep {
  readonly kind: 'step';
  readonly label: string;
  /** The formula in symbols. */
  readonly formula: string;
  /** The same with numbers put in. */
  readonly numbers: string;
  readonly result: number | string;
  /** Unit of `result`; empty for a plain number or a word. */
  readonly unit: string;
  readonly source?: string;
}

/** A cap that bound, a rounding that was made, or a caution about the result. */
export interface WorkingNote {
  readonly kind: 'cap' | 'rounding' | 'warning';
  readonly text: string;
  readonly source?: string;
}

/** In an answer of the server: the working is fetched from there when somebody opens the number. */
export interface WorkingElsewhere {
  readonly kind: 'elsewhere';
  readonly at: string;
}

export type Working = ReadonlyArray<WorkingStep | WorkingNote | WorkingElsewhere>;

/** Collects a working while a calculation runs. */
export class WorkingBook {
  readonly #entries: Array<Working[number]> = [];

  step(step: Omit<WorkingStep, 'kind'>): void {
    if (isWritten()) this.#entries.push({ kind: 'step', ...step });
  }

  cap(text: string, source?: string): void {
    this.#note('cap', text, source);
  }

  rounding(text: string, source?: string): void {
    this.#note('rounding', text, source);
  }

  warn(text: string, source?: string): void {
    this.#note('warning', text, source);
  }

  /** Take over the entries of a calculation this one rests on. */
  include(working: Working): void {
    if (isWritten()) this.#entries.push(...working);
  }

  get entries(): Working {
    return [...this.#entries];
  }

  #note(kind: WorkingNote['kind'], text: string, source?: string): void {
    if (isWritten()) this.#entries.push(source === undefined ? { kind, text } : { kind, text, source });
  }
}

/** A number for the working's own lines: four significant figures, no exponent for everyday sizes. */
export function figure(value: number): string {
  if (!isWritten()) return '';
  if (value === 0) return '0';
  const text = Number(value.toPrecision(4));
  return Math.abs(text) >= 1e9 || Math.abs(text) < 1e-6 ? text.toExponential(3) : String(text).replace('-', '−');
}

/** A number of the core that a person may open: the value in the core's unit, and how it came about. */
export interface Figure {
  readonly value: number;
  readonly working: Working;
}
