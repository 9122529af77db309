import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { colours } from '@glenfold/contract';
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

/** The PDF of a definition. */
export function bytesOf(definition: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(definition).getBuffer();
}
