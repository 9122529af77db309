import { createHash } from 'node:crypto';
import type { UnitSystem, Working } from '@glenfold/agronomy';
import { applyDecorators } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import { IsIn, IsOptional, IsString } from 'class-validator';
import { Problem } from './problem.ts';
import { systems } from './units.ts';

/** One working of an answer, as it is asked for. */
export class WorkingQuery {
  /** JSON Pointer (RFC 6901) into the answer. */
  @IsString({ message: 'Say which number: open it on its page.' })
  at: string;

  /** Mark of the answer that the number stood in. */
  @IsString({ message: 'Say of which answer: open the number on its page.' })
  of: string;

  /** In which the answer was told, where it can be told in either. */
  @IsOptional()
  @IsIn(Object.values(systems))
  units?: UnitSystem;
}

/** A list of steps and notes, in the order a person would check them. */
export const AnswersWorking = (): MethodDecorator =>
  applyDecorators(
    ApiQuery({ name: 'at', description: 'JSON Pointer into the answer' }),
    ApiQuery({ name: 'of', description: 'mark of the answer that the number stood in' }),
    ApiOkResponse({ schema: { $ref: '#/components/schemas/Working' } }),
  );

const isWorking = (key: string, value: unknown): value is Working => key === 'working' && Array.isArray(value);

/** Changes when any number or sentence of the answer does. */
const markOf = (answer: unknown): string =>
  createHash('sha256').update(JSON.stringify(answer)).digest('base64url').slice(0, 16);

/**
 * The same answer with its workings left where they are: in place of each stands where it is fetched when someone opens
 * the number.
 * @param from address that answers one working; `at` and `of` are added to its query
 */
export function workingsAside<T>(answer: T, from: string): T {
  const asked = `${from}${from.includes('?') ? '&' : '?'}of=${markOf(answer)}&at=`;
  const aside = (value: unknown, pointer: string): unknown => {
    if (Array.isArray(value)) return value.map((item: unknown, index) => aside(item, `${pointer}/${index}`));
    if (typeof value !== 'object' || value === null || value instanceof Date) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, inner]: [string, unknown]) => {
        const here = `${pointer}/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`;
        if (!isWorking(key, inner)) return [key, aside(inner, here)];
        return [key, inner.length ? [{ kind: 'elsewhere', at: asked + encodeURIComponent(here) }] : inner];
      }),
    );
  };
  return aside(answer, '') as T;
}

/**
 * One working of an answer.
 * @throws {Problem} 409 where the answer is no longer the one that the number stood in, 404 where nothing is worked out
 */
export function workingOf(answer: unknown, { at, of }: WorkingQuery): Working {
  if (markOf(answer) !== of)
    throw new Problem(
      409,
      'Changed since',
      'This number has been worked out anew since the page was opened: close its working, look at the new number, and open that.',
    );
  const steps = at.split('/').slice(1);
  const found = steps.reduce<unknown>((value, step) => {
    const key = step.replaceAll('~1', '/').replaceAll('~0', '~');
    return typeof value === 'object' && value !== null && Object.hasOwn(value, key)
      ? (value as Record<string, unknown>)[key]
      : undefined;
  }, answer);
  if (!isWorking(steps.at(-1) ?? '', found))
    throw new Problem(404, 'No working there', 'There is no working at that address: open the number on its page.');
  return found;
}
