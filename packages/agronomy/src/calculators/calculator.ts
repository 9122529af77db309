import { type Numbers, numbersOnly } from '../working/numbersOnly.ts';
import { WorkingBook, type Working } from '../working/working.ts';
import { type Fields, type RawInput, type Values, readFields } from './fields.ts';

/** What every calculator answers. */
export interface Outcome<R> {
  readonly result: R;
  readonly working: Working;
}

interface Definition<F extends Fields, R> {
  /** Public name, `subject.method`. */
  readonly name: string;
  readonly title: string;
  readonly source: string;
  readonly inputs: F;
  /** Unit or kind of each output. */
  readonly outputs: Readonly<Record<string, string>>;
  readonly compute: (input: Values<F>, book: WorkingBook) => R;
}

interface Described<F extends Fields, R> {
  readonly calculator: string;
  readonly title: string;
  readonly source: string;
  readonly inputs: F;
  readonly outputs: Readonly<Record<string, string>>;
  /**
   * The result alone of inputs that were read before ({@link readFields}), with a book that keeps nothing: for what-ifs,
   * uncertainty and searching, where one reading serves thousands of runs.
   *
   * @param input every value in the field's own unit; its range is not looked at again
   */
  readonly numbers: (input: Values<F>) => Numbers<R>;
}

/** A calculator is a pure function that also knows its own name, inputs and source. */
export type Calculator<F extends Fields = Fields, R = unknown> = ((input: RawInput<F>) => Outcome<R>) & Described<F, R>;

/** Make a calculator: its inputs are read and checked before, its working kept beside the result. */
export function defineCalculator<F extends Fields, R>({
  name,
  title,
  source,
  inputs,
  outputs,
  compute,
}: Definition<F, R>): Calculator<F, R> {
  const run = (raw: RawInput<F>): Outcome<R> => {
    const book = new WorkingBook();
    const result = compute(readFields(inputs, raw), book);
    return { result, working: book.entries };
  };
  const numbers = (input: Values<F>): Numbers<R> => numbersOnly(() => compute(input, new WorkingBook()));
  return Object.assign(run, { calculator: name, title, source, inputs, outputs, numbers });
}
