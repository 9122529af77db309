import * as contract from '@glenfold/contract';
import { type ArgumentMetadata, type PipeTransform, type Type, ValidationPipe } from '@nestjs/common';
import { getMetadataStorage } from 'class-validator';
import { Problem } from './problem.ts';
import { threaded } from './threaded.ts';
import type { Threads } from './threads.ts';
import { ManyValues, parsed } from './manyValues.ts';
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

/** A list where one line is expected: what looks into lines finds nothing to say against it. */
function listFault(value: object): contract.ProblemField | undefined {
  const expected = getMetadataStorage().getTargetValidationMetadatas(value.constructor, '', false, false);
  for (const { type, propertyName, each } of expected) {
    if (type !== 'nestedValidation') continue;
    const inner = (value as Readonly<Record<string, unknown>>)[propertyName];
    for (const one of each && Array.isArray(inner) ? (inner as unknown[]) : [inner]) {
      if (typeof one !== 'object' || one === null) continue;
      if (Array.isArray(one)) return { field: propertyName, message: 'A list stands where one thing is expected.' };
      const fault = listFault(one);
      if (fault) return { ...fault, field: `${propertyName}.${fault.field}` };
    }
  }
  return undefined;
}

/** @throws a 422 problem with what cannot be taken */
async function read(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
  const taken: unknown = await reader.transform(value, metadata);
  const fault = metadata.type === 'body' && typeof taken === 'object' && taken !== null ? listFault(taken) : undefined;
  if (fault) throw new Problem(422, 'Some values cannot be taken', fault.message, [fault]);
  return taken;
}

const classOf = (name: string): Type | undefined => (contract as unknown as Readonly<Record<string, Type>>)[name];

/** A body of very many values, read by the contract class of that name. */
export const readBody = threaded(import.meta.url, 'readBody', (name: string, text: Uint8Array): Promise<unknown> => {
  const body = parsed(text);
  refuseUntakeable(body, 'body');
  return read(body, { type: 'body', metatype: classOf(name) });
});

function refuseUntakeable(value: unknown, name: string): void {
  const fault = lookThrough(value, name);
  if (fault) throw new Problem(400, 'A value cannot be kept', fault.message, [fault]);
}

/** Requests are read by their contract class: unknown names are refused, messages come from the contract. */
export class ContractPipe implements PipeTransform {
  constructor(private readonly threads: Threads) {}

  async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const { type, metatype, data } = metadata;
    if (value instanceof ManyValues) {
      if (type === 'body' && metatype && classOf(metatype.name) === metatype)
        return this.threads.run(readBody, metatype.name, value.text);
      throw new Problem(413, 'Too many values', 'More came at once than is taken here: send it in smaller parts.');
    }
    refuseUntakeable(value, data ?? type);
    return read(value, metadata);
  }
}
