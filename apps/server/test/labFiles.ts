import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import yazl from 'yazl';
// Its fonts.
import '../src/platform/paper.ts';

/** A cell of a workbook: a number, a text, a day, a formula with what it last came to. */
export type WorkbookCell = number | string | Date | { readonly formula: string; readonly value: number } | null;

const letters = (column: number): string =>
  (column >= 26 ? letters(Math.floor(column / 26) - 1) : '') + String.fromCharCode(65 + (column % 26));
const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
/** Days since 1899-12-30, as workbooks count them. */
const serial = (day: Date): number => day.getTime() / 86_400_000 + 25_569;

function cellXml(cell: WorkbookCell, at: string): string {
  if (cell === null) return '';
  if (typeof cell === 'string') return `<c r="${at}" t="inlineStr"><is><t>${escaped(cell)}</t></is></c>`;
  if (typeof cell === 'number') return `<c r="${at}"><v>${cell}</v></c>`;
  if (cell instanceof Date) return `<c r="${at}" s="1"><v>${serial(cell)}</v></c>`;
  return `<c r="${at}"><f>${escaped(cell.formula)}</f><v>${cell.value}</v></c>`;
}

const collected = (stream: NodeJS.ReadableStream): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    stream.on('data', (part: Buffer) => parts.push(part));
    stream.on('end', () => resolve(Buffer.concat(parts)));
    stream.on('error', reject);
  });

/** Files in a ZIP. */
export function zipped(files: Readonly<Record<string, string>>): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [path, text] of Object.entries(files)) zip.addBuffer(Buffer.from(text), path);
  zip.end();
  return collected(zip.outputStream);
}

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const DOCS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';

/** A workbook as Excel writes one. @param merged ranges such as `C1:E1`, of the first sheet */
export function workbook(
  sheets: Readonly<Record<string, ReadonlyArray<readonly WorkbookCell[]>>>,
  merged: readonly string[] = [],
): Promise<Buffer> {
  const names = Object.keys(sheets);
  const sheetXml = (rows: ReadonlyArray<readonly WorkbookCell[]>, first: boolean): string => {
    const body = rows
      .map((row, y) => `<row r="${y + 1}">${row.map((cell, x) => cellXml(cell, `${letters(x)}${y + 1}`)).join('')}</row>`)
      .join('');
    const cells = first && merged.length > 0 ? `<mergeCells count="${merged.length}">${merged.map((ref) => `<mergeCell ref="${ref}"/>`).join('')}</mergeCells>` : '';
    return `<?xml version="1.0" encoding="UTF-8"?><worksheet xmlns="${MAIN}"><sheetData>${body}</sheetData>${cells}</worksheet>`;
  }; // prettier-ignore
  return zipped({
    '[Content_Types].xml': `<?xml version="1.0" encoding="UTF-8"?><Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>${names.map((_, index) => `<Override PartName="/xl/worksheets/sheet${index + 1}.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>`).join('')}<Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`,
    '_rels/.rels': `<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${DOCS}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<?xml version="1.0" encoding="UTF-8"?><workbook xmlns="${MAIN}" xmlns:r="${DOCS}"><sheets>${names.map((name, index) => `<sheet name="${escaped(name)}" sheetId="${index + 1}" r:id="rId${index + 1}"/>`).join('')}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="${PACKAGE}/relationships">${names.map((_, index) => `<Relationship Id="rId${index + 1}" Type="${DOCS}/worksheet" Target="worksheets/sheet${index + 1}.xml"/>`).join('')}<Relationship Id="rId${names.length + 1}" Type="${DOCS}/styles" Target="styles.xml"/></Relationships>`,
    'xl/styles.xml': `<?xml version="1.0" encoding="UTF-8"?><styleSheet xmlns="${MAIN}"><fonts count="1"><font/></fonts><fills count="1"><fill/></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>`,
    ...Object.fromEntries(names.map((name, index) => [`xl/worksheets/sheet${index + 1}.xml`, sheetXml(sheets[name]!, index === 0)])),
  }); // prettier-ignore
}

/** A PDF as a laboratory prints one. */
export const pages = (content: Content, more: Partial<TDocumentDefinitions> = {}): Promise<Buffer> =>
  pdfmake.createPdf({ content, defaultStyle: { font: 'Atkinson', fontSize: 10 }, ...more }).getBuffer();
