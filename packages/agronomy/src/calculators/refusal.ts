import { plainLabel } from './plainLabel.ts';
import type { InputError } from './fields.ts';

/** Where a value came from in a request, which nobody reads. */
const FRAMES: ReadonlySet<string> = new Set(['values', 'record', 'input']);

/** "holes.0.drop" as a person says it: "Hole 1, drop". */
export function fieldWords(path: string): string {
  const parts: string[] = [];
  for (const part of path.split('.')) {
    if (FRAMES.has(part)) continue;
    if (/^\d+$/.test(part) && parts.length > 0) {
      const last = parts.pop()!;
      parts.push(`${last.replace(/s$/, '')} ${Number(part) + 1}`);
    } else
      parts.push(
        parts.length === 0
          ? plainLabel(part)
          : plainLabel(part).replace(/^[A-Z](?=[a-z])/, (first) => first.toLowerCase()),
      );
  }
  return parts.join(', ');
}

/** What was refused and what is wanted, without the name of the field. */
export function problemWords({ field, message }: InputError): string {
  const own = message.startsWith(`${field} `) ? message.slice(field.length + 1) : message;
  return own
    .replace(/^was given nothing; wanted /, 'is missing: give ')
    .replace(/^was given "(.*?)", which is not a number(.*?); wanted /, '“$1” is not a number$2: give ');
}

/** A refusal of the core as a sentence for who typed it. */
export function refusalWords(error: InputError): string {
  const words = problemWords(error);
  const name = fieldWords(error.field);
  return `${name}${words.startsWith('“') ? ':' : ''} ${words}${/[.!?]$/.test(words) ? '' : '.'}`;
}
