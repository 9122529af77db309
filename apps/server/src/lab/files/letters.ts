import { Problem } from '../../platform/problem.ts';

const refused = (title: string, detail: string): Problem => new Problem(422, title, detail);

const starts = (bytes: Uint8Array, ...signs: readonly number[]): boolean =>
  signs.every((sign, index) => bytes[index] === sign);

/** What a file is, by how it begins. */
export type FileKind = 'text' | 'workbook' | 'pages';

const ascii = (text: string): readonly number[] => [...text].map((letter) => letter.charCodeAt(0));

/** Files that people bring instead, and what to do about each. */
const others: ReadonlyArray<readonly [signs: readonly number[], title: string, detail: string]> = [
  [
    [0xd0, 0xcf, 0x11, 0xe0],
    'Locked, or an old workbook',
    'This workbook is locked with a password, or of an Excel before 2007. Open it there, save it as .xlsx without a password, and bring that.',
  ],
  [
    [0xff, 0xd8, 0xff],
    'A picture',
    'This is a photo of a report: its numbers cannot be read from it. Type them into the sheet, with the photo kept with the zone.',
  ],
  [
    [0x89, 0x50, 0x4e, 0x47],
    'A picture',
    'This is a picture of a report: its numbers cannot be read from it. Type them into the sheet.',
  ],
  [[0x1f, 0x8b], 'Packed', 'This file is packed (gzip): unpack it, and bring what is in it.'],
  [ascii('{\\rtf'), 'A text document', 'This is a text document (RTF): save it as PDF or plain text, or paste its text.'],
]; // prettier-ignore

/** @throws a problem in words for what is no report that can be read */
export function kindOf(bytes: Uint8Array): FileKind {
  if (bytes.length === 0)
    throw refused('Empty', 'This file is empty: was it saved whole? Ask the laboratory to send it again.');
  if (Buffer.from(bytes.subarray(0, 1024)).includes('%PDF-')) return 'pages';
  if (starts(bytes, 0x50, 0x4b)) return 'workbook';
  const other = others.find(([signs]) => starts(bytes, ...signs));
  if (other) throw refused(other[1], other[2]);
  return 'text';
}

/** The letters of a text file, whichever way they are written: UTF-8, UTF-16 with or without its mark, Windows' own. */
export function lettersOf(bytes: Uint8Array): string {
  if (starts(bytes, 0xff, 0xfe)) return new TextDecoder('utf-16le').decode(bytes);
  if (starts(bytes, 0xfe, 0xff)) return new TextDecoder('utf-16be').decode(bytes);
  const head = bytes.subarray(0, 512);
  const nothings = (from: number): number => head.filter((byte, index) => index % 2 === from && byte === 0).length;
  // Plain letters in UTF-16 have nothing in every other byte.
  if (head.length > 3 && nothings(1) > head.length * 0.3) return new TextDecoder('utf-16le').decode(bytes);
  if (head.length > 3 && nothings(0) > head.length * 0.3) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
