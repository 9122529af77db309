import { problemFields } from '@glenfold/contract';
import { ValidationPipe } from '@nestjs/common';
import { Problem } from './problem.ts';

/** Requests are read by their contract class: unknown names are refused, messages come from the contract. */
export const contractPipe = new ValidationPipe({
  transform: true,
  whitelist: true,
  forbidNonWhitelisted: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  exceptionFactory: (errors) => {
    const fields = problemFields(errors);
    return new Problem(422, 'Some values cannot be taken', fields.map(({ message }) => message).join(' '), fields);
  },
});
