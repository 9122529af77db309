import { findHeaderRow } from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { Problem } from '../../platform/problem.ts';

/** Words that stand together, with where they begin and end on the line. */
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

type Line = readonly Piece[];

const MOST_PAGES = 200;
/** Words this far apart, in heights of their letters, stand in cells of their own. */
const GAP = 0.75;

interface Placed extends Piece {
  readonly y: number;
  readonly height: number;
}

/** Words of a page on their lines, from the top. */
function linesOf(words: readonly Placed[]): Line[] {
  const lines: Placed[][] = [];
  for (const word of [...words].sort((a, b) => b.y - a.y || a.from - b.from)) {
    const line = lines.at(-1);
    if (line && Math.abs(line[0]!.y - word.y) <= 0.45 * Math.max(line[0]!.height, word.height)) line.push(word);
    else lines.push([word]);
  }
  return lines.map((line) => {
    const pieces: Piece[] = [];
    for (const word of line.sort((a, b) => a.from - b.from)) {
      const last = pieces.at(-1);
      const gap = last ? word.from - last.to : Infinity;
      if (last && gap <= GAP * word.height)
        pieces[pieces.length - 1] = {
          from: last.from,
          to: word.to,
          text: `${last.text}${gap > 0.12 * word.height ? ' ' : ''}${word.text}`.replace(/\s+/g, ' '),
        };
      else pieces.push({ from: word.from, to: word.to, text: word.text.trim() });
    }
    return pieces.filter(({ text }) => text !== '');
  });
}

const overlap = (one: Piece, other: Piece): number => Math.min(one.to, other.to) - Math.max(one.from, other.from);
const middle = ({ from, to }: Piece): number => (from + to) / 2;

/** Which column a piece stands in: the one that it overlaps most, else the nearest. */
function columnOf(piece: Piece, columns: Line): number {
  const best = columns
    .map((column, index) => ({ index, over: overlap(piece, column), far: Math.abs(middle(column) - middle(piece)) }))
    .sort((a, b) => Math.max(b.over, 0) - Math.max(a.over, 0) || a.far - b.far);
  return best[0]!.index;
}

const wordsOf = (line: Line): string[] => line.map(({ text }) => text);

/** Lines under a header, each piece in the column that it stands under. */
function asTable(lines: readonly Line[], headerRow: number): string {
  const columns = lines[headerRow]!;
  const heading = wordsOf(columns).join('|');
  const body = lines.slice(headerRow + 1).flatMap((line) => {
    // The head again, at the top of the next page; a note or a page number.
    if (wordsOf(line).join('|') === heading || line.length < 2) return [];
    const cells = columns.map(() => '');
    for (const piece of line) {
      const at = columnOf(piece, columns);
      cells[at] = `${cells[at]} ${piece.text}`.trim();
    }
    return [cells];
  });
  const notes = lines.filter((line, index) => index < headerRow || (index > headerRow && line.length === 1));
  return papaparse.unparse([...notes.map((line) => [wordsOf(line).join('  ')]), wordsOf(columns), ...body]);
}

/**
 * The text layer of a PDF: its table where it has one, else its lines.
 *
 * @throws a problem in words for a scan, for what is locked, and for what is not whole
 */
export async function readPages(bytes: Uint8Array): Promise<{ readonly content: string; readonly pages: number }> {
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = getDocument({
    data: Uint8Array.from(bytes),
    // Nothing is drawn: no fonts, no pictures, no scripts of the file.
    ...{ disableFontFace: true, useSystemFonts: false, isEvalSupported: false, useWorkerFetch: false },
    ...{ stopAtErrors: false, verbosity: VerbosityLevel.ERRORS },
  });
  try {
    const document = await task.promise;
    if (document.numPages > MOST_PAGES)
      throw new Problem(
        422,
        'Too many pages',
        `This PDF has ${document.numPages} pages; at most ${MOST_PAGES} are read. Bring the pages with the results.`,
      );
    const lines: Line[] = [];
    for (let number = 1; number <= document.numPages; number += 1) {
      const page = await document.getPage(number);
      const { items } = await page.getTextContent();
      const words = items.flatMap((item): Placed[] => {
        if (!('str' in item) || item.str.trim() === '') return [];
        const [, , c = 0, d = 0, x = 0, y = 0] = item.transform as number[];
        const height = Math.hypot(c, d) || item.height || 1;
        return [{ from: x, to: x + item.width, y, height, text: item.str }];
      });
      lines.push(...linesOf(words));
      page.cleanup();
    }
    const { numPages } = document;
    if (lines.length === 0)
      throw new Problem(
        422,
        'A scan',
        'This PDF holds pictures of pages and no text: its numbers cannot be read. Ask the laboratory for the file, or type the numbers into the sheet.',
      );
    const headerRow = findHeaderRow(lines.map(wordsOf), lines.length);
    const content =
      headerRow < 0 ? lines.map((line) => wordsOf(line).join('  ')).join('\n') : asTable(lines, headerRow);
    return { content, pages: numPages };
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw (error as Error).name === 'PasswordException'
      ? new Problem(
          422,
          'Locked',
          'This PDF is locked with a password. Open it with the password, print it to a new PDF, and bring that.',
        )
      : new Problem(
          422,
          'Not whole',
          'This PDF cannot be read: a part of it is missing or broken. Download it again, or paste its text.',
        );
  } finally {
    await task.destroy();
  }
}
