import { InputError } from '../src/calculators/fields.ts';

/** @throws {InputError} saying how the command is used. */
export function parseJson(json: string, usage: string): unknown {
  try {
    return JSON.parse(json);
  } catch (error) {
    throw new InputError('input', `is not JSON: ${(error as Error).message.split('\n')[0]}; ${usage}`);
  }
}
