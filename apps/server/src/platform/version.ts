import { type ExecutionContext, createParamDecorator } from '@nestjs/common';
import type { Request } from 'express';
import { Problem } from './problem.ts';

/** The version of the record that the person saw, from the If-Match header (RFC 9110). */
export const SeenVersion = createParamDecorator((_data: unknown, context: ExecutionContext): number => {
  const header = context.switchToHttp().getRequest<Request>().header('if-match');
  const version = /^"(\d{1,9})"$/.exec(header ?? '')?.[1];
  if (version === undefined)
    throw new Problem(
      428,
      'Which version?',
      'A change must say which version of the record it rests on: send the version that was read as If-Match: "3".',
    );
  return Number(version);
});
