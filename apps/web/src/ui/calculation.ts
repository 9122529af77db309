import {
  type Calculator,
  InputError,
  problemWords,
  type Outcome,
  type Typed,
  type UnitSystem,
  checkTyped,
  inputFrom,
  stillWanted,
} from '@glenfold/agronomy';
import { inUnits } from './inUnits.ts';

/** What is typed into the form of a calculator. */
export type TypedForm = Readonly<Record<string, Typed>>;

export interface Calculated {
  readonly outcome?: Outcome<Readonly<Record<string, unknown>>>;
  /** Inputs that are still missing. */
  readonly wanted?: readonly string[];
  readonly problem?: { readonly path: string; readonly words: string };
}

/** Any calculator, whatever it takes. */
export type Calculable = Pick<Calculator, 'inputs'> & ((input: never) => Outcome<unknown>);

/** The result of a form, what is still wanted for it, or what is wrong in it. */
export function calculate(calculator: Calculable, form: TypedForm, system: UnitSystem): Calculated {
  const { inputs } = calculator;
  const input = Object.fromEntries(
    Object.entries(inputs).flatMap(([name, { shape }]) => {
      const value = inputFrom(form[name], shape, system);
      return value === undefined ? [] : [[name, value]];
    }),
  );
  // A line that was added and is still empty is no mistake yet.
  const empty = Object.entries(form).flatMap(([name, typed]) =>
    Array.isArray(typed) && typed.includes('') ? [name] : [],
  );
  const wanted = [...new Set([...stillWanted(inputs, input), ...empty])];
  if (empty.length > 0) return { wanted };
  try {
    checkTyped(inputs, input);
    if (wanted.length > 0) return { wanted };
    return { outcome: calculator(input as never) as Outcome<Readonly<Record<string, unknown>>> };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    // The field is named beside the words already.
    const words = problemWords(error);
    return { problem: { path: error.field, words: inUnits(words.charAt(0).toUpperCase() + words.slice(1), system) } };
  }
}
