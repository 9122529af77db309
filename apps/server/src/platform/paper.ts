import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { colours, withReadableDays } from '@glenfold/contract';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions, TableCell } from 'pdfmake/interfaces.js';

const require = createRequire(import.meta.url);
const fontFile = (family: string, weight: number): string =>
  join(
    dirname(require.resolve(`@fontsource/${family}/package.json`)),
    'files',
    `${family}-latin-${weight}-normal.woff`,
  );
const fontsFolder = dirname(dirname(dirname(fontFile('bitter', 700))));

pdfmake.setFonts({
  Atkinson: {
    normal: fontFile('atkinson-hyperlegible', 400),
    bold: fontFile('atkinson-hyperlegible', 700),
    italics: fontFile('atkinson-hyperlegible', 400),
    bolditalics: fontFile('atkinson-hyperlegible', 700),
  },
  Bitter: { normal: fontFile('bitter', 700), bold: fontFile('bitter', 700) },
});
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fontsFolder));

/** The bundled fonts have no subscript digits, arrows or roots: say them with what there is. */
export function plain(text: string): string {
  return text
    .replace(/[₀-₉]/g, (digit) => String(digit.charCodeAt(0) - 0x2080))
    .replace(/⅔/g, ' 2/3')
    .replace(/≤/g, '<=')
    .replace(/≥/g, '>=')
    .replace(/√/g, 'sqrt')
    .replace(/θ/g, 'theta ');
}

export const cell = (text: string, more: object = {}): TableCell => ({ text: plain(text), ...more });
export const head = (text: string): TableCell => cell(text, { bold: true, fontSize: 8.5 });

export const rules = {
  hLineWidth: (row: number, node: { table: { body: unknown[] } }) =>
    row === 0 || row === node.table.body.length ? 0 : 0.5,
  vLineWidth: () => 0,
  hLineColor: () => colours.line,
  paddingLeft: () => 0,
  paddingRight: () => 8,
  paddingTop: () => 2.5,
  paddingBottom: () => 2.5,
};

/** What stands under every page. */
export function footer(page: number, pages: number): Content {
  return {
    margin: [48, 8],
    fontSize: 8,
    columns: [
      {
        text: 'Advice, to be weighed with local extension guidance, codes and licensed practice. The label and local law come first.',
      },
      { text: `${page} / ${pages}`, alignment: 'right', width: 40 },
    ],
  };
}

/** Points from which a heading begins a part of its own; smaller ones stand under it. */
const LARGE = 14;

type Node = Readonly<Record<string, unknown>>;
const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * The headings of a page as bookmarks, so that who cannot see it at a glance goes from part to part. A heading is what
 * stands in the face of headings and is not a sum at the right.
 */
export function withBookmarks(content: unknown, styles: Readonly<Record<string, object>>): Content {
  let parts = 0;
  const mark = (node: Node): Node => {
    const style: Node = { ...(typeof node.style === 'string' ? styles[node.style] : {}), ...node };
    const isHeading = style.font === 'Bitter' && typeof node.text === 'string' && node.text !== '' && style.alignment !== 'right';
    if (!isHeading) return node;
    const large = Number(style.fontSize ?? 0) >= LARGE;
    if (large) parts += 1;
    const place = large ? { id: `part ${parts}`, outlineExpanded: true } : parts > 0 ? { outlineParentId: `part ${parts}` } : {};
    return { ...node, outline: true, ...place };
  };
  const walk = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(walk);
    if (typeof value === 'string') return withReadableDays(value);
    if (!isNode(value)) return value;
    const inner = Object.fromEntries(
      ['stack', 'columns', 'ul', 'ol', 'text'].filter((key) => Array.isArray(value[key])).map((key) => [key, walk(value[key])]),
    );
    const table = isNode(value.table) ? { table: { ...value.table, body: walk(value.table.body) } } : {};
    const read = typeof value.text === 'string' ? { text: withReadableDays(value.text) } : {};
    return { ...mark(value), ...read, ...inner, ...table };
  };
  return walk(content) as Content;
} // prettier-ignore

/** A page that is a drawing, and is found by its name: a drawing has no headings of its own. */
export const drawnPage = (name: string, svg: string, width: number, more: object = {}): Content => ({
  stack: [{ text: plain(name), outline: true, opacity: 0, fontSize: 1, absolutePosition: { x: 1, y: 1 } }, { svg, width }],
  ...more,
}); // prettier-ignore

/** A page that is to be printed. */
export interface Paper extends Omit<TDocumentDefinitions, 'info' | 'language' | 'displayTitle'> {
  /** What it is, and of which place; it stands in the window's title. */
  readonly title: string;
  /** The practice that answers for it. */
  readonly author?: string | undefined;
}

/**
 * The PDF of a page, with title, author, language and bookmarks; what is read goes the order in which it stands. The
 * library writes no structure tags, so none are claimed: the page on screen is the accessible one.
 */
export function bytesOf({ title, author = 'Glenfold', content, styles = {}, ...definition }: Paper): Promise<Buffer> {
  return pdfmake
    .createPdf({
      ...definition,
      styles,
      content: withBookmarks(content, styles),
      info: { title: plain(title), author: plain(author), creator: 'Glenfold' },
      language: 'en',
    })
    .getBuffer();
}
