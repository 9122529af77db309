import { createHash } from 'node:crypto';
import type { UnitSystem, Working } from '@glenfold/agronomy';
import { applyDecorators } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import { IsIn, IsOptional, IsString } from 'class-validator';
import { Breath } from './breath.ts';
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

/** An answer in parts that are small one by one: its lists entry by entry. */
function* partsOf(answer: object): Generator<string> {
  for (const [key, value] of Object.entries(answer) as Array<[string, unknown]>)
    if (Array.isArray(value)) for (const item of value as unknown[]) yield `${key}/${JSON.stringify(item)}`;
    else yield `${key}=${JSON.stringify(value)}`;
}

/** Changes when any number or sentence of the answer does. */
async function markOf(answer: object): Promise<string> {
  const hash = createHash('sha256');
  const breath = new Breath();
  for (const part of partsOf(answer)) {
    hash.update(`${part}\n`);
    await breath.drawn();
  }
  return hash.digest('base64url').slice(0, 16);
}

/**
 * The same answer with its workings left where they are: in place of each stands where it is fetched when someone opens
 * the number.
 * @param from address that answers one working; `at` and `of` are added to its query
 */
export async function workingsAside<T extends object>(answer: T, from: string): Promise<T> {
  const asked = `${from}${from.includes('?') ? '&' : '?'}of=${await markOf(answer)}&at=`;
  const breath = new Breath();
  const stepTo = (pointer: string, key: string): string =>
    `${pointer}/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`;
  const inside = (key: string, value: unknown, here: string): unknown => {
    if (!isWorking(key, value)) return aside(value, here);
    return value.length > 0 ? [{ kind: 'elsewhere', at: asked + encodeURIComponent(here) }] : value;
  };
  const aside = (value: unknown, pointer: string): unknown => {
    if (Array.isArray(value)) return value.map((item: unknown, index) => aside(item, `${pointer}/${index}`));
    if (typeof value !== 'object' || value === null || value instanceof Date) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, inner]: [string, unknown]) => [key, inside(key, inner, stepTo(pointer, key))]),
    );
  };
  const told: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(answer) as Array<[string, unknown]>) {
    const here = stepTo('', key);
    if (!Array.isArray(value) || isWorking(key, value)) told[key] = inside(key, value, here);
    else {
      const items: unknown[] = [];
      for (const [index, item] of (value as unknown[]).entries()) {
        items.push(aside(item, `${here}/${index}`));
        await breath.drawn();
      }
      told[key] = items;
    }
  }
  return told as T;
}

/**
 * One working of an answer.
 * @throws {Problem} 409 where the answer is no longer the one that the number stood in, 404 where nothing is worked out
 */
export async function workingOf(answer: object, { at, of }: WorkingQuery): Promise<Working> {
  if ((await markOf(answer)) !== of)
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
