import { problemFields } from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { useState } from 'react';
import type { ApiProblem } from '../api/client.ts';

/** Numbers may still be texts while they are typed: the contract refuses them with words. */
export type Typing<T> = { [K in keyof T]: T[K] extends (infer U)[] | null | undefined ? Typing<U>[] | Exclude<T[K], U[]> : T[K] extends number | null | undefined ? T[K] | string : T[K] extends object | null | undefined ? Typing<NonNullable<T[K]>> | Extract<T[K], null | undefined> : T[K] }; // prettier-ignore

/** A record that is being typed, checked by the class that the server checks it with. */
export function useTyped<T extends object>(kind: new () => T, start: Typing<T>, error: ApiProblem | null, prefix = '') {
  const [typed, setTyped] = useState<Typing<T>>(start);
  const [tried, setTried] = useState(false);
  const input = plainToInstance(kind, JSON.parse(JSON.stringify(typed)) as object);
  const faults = problemFields(validateSync(input));
  const told = [
    ...(tried ? faults : []),
    ...(error?.fields.map(({ field, message }) => ({ field: field.replace(prefix, ''), message })) ?? []),
  ];
  return {
    typed,
    set: (change: Partial<Typing<T>>): void => setTyped((last) => ({ ...last, ...change })),
    /** What is wrong with a field, once somebody has tried to save. */
    problem: (field: string): string | undefined => told.find((one) => one.field === field)?.message,
    /** What is wrong with something below a field. */
    below: (field: string): string | undefined => told.find((one) => one.field.startsWith(`${field}.`))?.message,
    /** Check, and go on only with what can be taken. */
    check: (send: (input: T) => void): void => {
      setTried(true);
      if (faults.length === 0) send(input);
    },
  };
}
