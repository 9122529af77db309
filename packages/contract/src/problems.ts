import type { ValidationError } from 'class-validator';
import type { ProblemField } from './answers.ts';

/** Flatten the validator's tree to one message a field, in full dotted paths. */
export function problemFields(errors: readonly ValidationError[], parent = ''): ProblemField[] {
  return errors.flatMap((error) => {
    const field = `${parent}${error.property}`;
    const [message] = Object.values(error.constraints ?? {});
    const own =
      message === undefined
        ? []
        : [{ field, message: message.startsWith('property ') ? `${field} is not known here: leave it out.` : message }];
    return [...own, ...problemFields(error.children ?? [], `${field}.`)];
  });
}
