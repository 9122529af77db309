import { Type } from './metadata.ts';
import { IsInt, IsObject, IsOptional, IsString, type ValidationError, ValidateNested } from 'class-validator';

export class ProblemField {
  /** Full dotted path. */
  @IsString() field: string;
  @IsString() message: string;
}

/** What somebody else saved meanwhile. */
export class ConflictAnswer {
  @IsObject() current: { readonly version: number };
  @IsString() changedBy: string;
  @IsString() changedAt: string;
}

/** A refusal, as problem details (RFC 9457). */
export class ProblemAnswer {
  @IsString() type: string;
  @IsString() title: string;
  @IsInt() status: number;
  @IsString() detail: string;
  @ValidateNested({ each: true }) @Type(() => ProblemField) errors: ProblemField[];
  /** The record as it stands now, when a save was refused because another came first. */
  @IsOptional() @ValidateNested() @Type(() => ConflictAnswer) conflict?: ConflictAnswer;
}

/** What is asked for where a field has no words of its own, such as one that only a program sends; by the check. */
const kinds: Readonly<Record<string, string>> = {
  isArray: 'Give a list.',
  isBoolean: 'Give true or false.',
  isInt: 'Give a whole number.',
  isNumber: 'Give a number.',
  isObject: 'Give an object with its fields.',
  isString: 'Give a text.',
  isUuid: 'Give the id of a record.',
};
const asked: Readonly<Record<string, string>> = {
  ...kinds,
  nestedValidation: 'Give an object with its fields, or a list of them.',
  whitelistValidation: 'It is not known here: leave it out.',
  arrayMaxSize: 'The list is too long.',
  arrayMinSize: 'The list is too short.',
  maxLength: 'The text is too long.',
  max: 'The number is too large.',
  min: 'The number is too small.',
};

/** Whether it is what the library says of itself, such as "siteId must be a UUID". */
const isLibrarys = (message: string, property: string): boolean =>
  /^(?:each value in|nested property|property) /.test(message) ||
  message.startsWith(`${property} must `) ||
  message.startsWith(`${property} should `);

const SPLIT = '\u001f';

/** A refusal that belongs to another field of the record than the one that is checked. */
export const atField = (field: string, message: string): string => `${field}${SPLIT}${message}`;

/** Flatten the validator's tree to one message a field, in full dotted paths. */
export function problemFields(errors: readonly ValidationError[], parent = ''): ProblemField[] {
  return errors.flatMap((error) => {
    const [elsewhere, told] = error.constraints?.held?.split(SPLIT) ?? [];
    const field = `${parent}${error.property}`;
    if (elsewhere !== undefined && told !== undefined && Object.keys(error.constraints!).length === 1)
      return [{ field: `${parent}${elsewhere}`, message: told }, ...problemFields(error.children ?? [], `${field}.`)];
    const constraints = Object.entries(error.constraints ?? {});
    const [first] = constraints;
    const own = constraints.find(([name, message]) => name !== 'held' && !isLibrarys(message, error.property));
    // Of a field that was left out every check fails: what it is asked for says more than how large it may be.
    const missing = error.value === undefined || error.value === null;
    const kind = missing ? constraints.find(([name]) => name in kinds) : undefined;
    const message =
      own?.[1] ??
      (kind
        ? `Something is missing here. ${kinds[kind[0]]!}`
        : first && (asked[first[0]] ?? 'This cannot be taken as it is: correct it.'));
    return [
      ...(message === undefined ? [] : [{ field, message }]),
      ...problemFields(error.children ?? [], `${field}.`),
    ];
  });
}
