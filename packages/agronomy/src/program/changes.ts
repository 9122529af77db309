import { type Fields, InputError, type Values, choice, optional, quantity, readFields } from '../calculators/fields.ts';
import { flag, series, text } from '../calculators/structures.ts';
import type { Gone } from '../ledger/gone.ts';
import { fieldsOf, remedyOf } from '../remedies/remedies.ts';
import { type RemedyName, remedyNames } from '../remedies/remedyTable.ts';
import { ownWorkField } from './work.ts';

const month = quantity('', { min: 1, max: 12, whole: true });

const changeFields = {
  /** The remedy’s name for what the test asks for; a name of its own for what is added. */
  key: text(60),
  remedy: choice(remedyNames),
  added: optional(flag()),
  out: optional(choice(['left out', 'next year'])),
  /** By the fields of the remedy. */
  values: optional({
    description: 'what is set by hand, by the fields of the remedy',
    optional: false,
    shape: { kind: 'json' },
    read: (raw: unknown) => raw as Readonly<Record<string, unknown>>,
  }),
  /** Month of each dose, 1 to 12. */
  months: optional(series(month, 'months', { min: 1, max: 12 })),
  /** Labour, hire and haulage, by the practice’s prices of work. */
  work: ownWorkField(),
  reason: text(300),
  by: optional(text(120)),
};

type Read = Values<typeof changeFields>;

/** What an advisor has decided by hand of one treatment. */
export interface Change {
  /** The remedy’s name for what the test asks for; a name of its own for what is added. */
  readonly key: string;
  readonly remedy: RemedyName;
  readonly reason: string;
  readonly added?: Read['added'];
  /** `down`: all that was set of it went down since; never set by anybody. */
  readonly out?: Read['out'] | 'down';
  readonly months?: readonly number[] | undefined;
  readonly work?: Read['work'];
  readonly by?: string | undefined;
  /** What went down since it was set; nothing where nothing did. */
  readonly gone?: Gone | undefined;
  /** What of it is down, in a sentence. */
  readonly told?: string;
  /** What is set by hand, by the fields of the remedy. */
  readonly values: Readonly<Record<string, unknown>>;
}

/**
 * Read a change: a product, rate, number or months of one’s own, or that it is left out, with its reason.
 *
 * @throws {InputError} naming the field, also where a remedy that stands once is added twice.
 */
export function readChange(raw: unknown): Change {
  const { values, ...change } = readFields(changeFields, raw);
  if (change.reason.trim() === '')
    throw new InputError('reason', 'is missing; wanted why, for whoever reads it next year');
  if (change.added && !remedyOf(change.remedy))
    throw new InputError('remedy', 'stands once in a program; set a rate of your own on it instead');
  if (!change.added && change.key !== change.remedy) throw new InputError('key', 'names no treatment of the program');
  return { ...change, values: valuesOf(change.remedy, values ?? {}) };
}

/** The values that were set by hand, those that were not left out. @throws {InputError} */
export function valuesOf(
  remedy: RemedyName,
  raw: Readonly<Record<string, unknown>>,
): Readonly<Record<string, unknown>> {
  const read: Readonly<Record<string, unknown>> = readFields(fieldsOf(remedy) as Fields, raw, 'values.');
  return Object.fromEntries(Object.entries(read).filter(([, value]) => value !== undefined));
}
