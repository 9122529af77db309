import * as contract from '@glenfold/contract';
import { type ArgumentMetadata, type PipeTransform, type Type, ValidationPipe } from '@nestjs/common';
import { Problem } from './problem.ts';
import { threaded } from './threaded.ts';
import type { Threads } from './threads.ts';
import { lookThrough } from './untakeable.ts';

const reader = new ValidationPipe({
  transform: true,
  whitelist: true,
  forbidNonWhitelisted: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  exceptionFactory: (errors) => {
    const fields = contract.problemFields(errors);
    return new Problem(422, 'Some values cannot be taken', fields.map(({ message }) => message).join(' '), fields);
  },
});

const classOf = (name: string): Type | undefined => (contract as unknown as Readonly<Record<string, Type>>)[name];

/** A body of very many values, read by the contract class of that name. */
export const readBody = threaded(
  import.meta.url,
  'readBody',
  (name: string, body: unknown): Promise<unknown> =>
    reader.transform(body, { type: 'body', metatype: classOf(name) }) as Promise<unknown>,
);

/** More values than these take longer to look through than to send to a thread and back. */
const MANY = 2_000;

/** Requests are read by their contract class: unknown names are refused, messages come from the contract. */
export class ContractPipe implements PipeTransform {
  constructor(private readonly threads: Threads) {}

  async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const { type, metatype, data } = metadata;
    const { count, fault } = lookThrough(value, data ?? type);
    if (fault) throw new Problem(400, 'A value cannot be kept', fault.message, [fault]);
    return type === 'body' && metatype && classOf(metatype.name) === metatype && count > MANY
      ? this.threads.run(readBody, metatype.name, value)
      : (reader.transform(value, metadata) as Promise<unknown>);
  }
}
