import { type LabRow, arrange, readLabRow } from '@glenfold/agronomy';
import { describe, expect, it } from '@jest/globals';
import { labFile } from '../src/lab/labTable.ts';
import { Problem } from '../src/platform/problem.ts';
import { type WorkbookCell, pages, workbook, zipped } from './labFiles.ts';

type Told = Readonly<Record<string, number | string>>;

/** What a file comes to: its lines, told short, or one sentence. */
async function read(bytes: Uint8Array): Promise<{ rows: Told[]; faults: string[] } | string> {
  try {
    const { table } = await labFile.work(bytes);
    const { columns } = arrange(table.header.columns, { columns: [] });
    const found = table.rows.map(({ cells }) => readLabRow(cells, columns, table));
    return { rows: found.map(({ row }) => told(row)), faults: found.flatMap(({ faults }) => faults.map(({ message }) => message)) }; // prettier-ignore
  } catch (error) {
    if (error instanceof Problem) return error.detail;
    throw error;
  }
}

const told = ({ label, sampledOn, depth, values, advised }: LabRow): Told => ({
  label,
  ...(sampledOn ? { on: sampledOn } : {}),
  ...(depth === undefined ? {} : { depth: Math.round(depth * 100) / 100 }),
  ...Object.fromEntries(
    Object.entries(values).map(([analyte, { value, unit, belowDetection, aboveRange }]) => [
      analyte,
      `${belowDetection ? '<' : aboveRange ? '>' : ''}${value}${unit === 'pH' ? '' : ` ${unit}`}`,
    ]),
  ),
  ...Object.fromEntries((advised ?? []).map(({ what, amount, unit, words }) => [`advised ${what}`, amount === null ? (words ?? '') : `${amount} ${unit}`])),
}); // prettier-ignore

const text = (content: string): Buffer => Buffer.from(content);
const utf16 = (content: string, mark: boolean): Buffer =>
  Buffer.concat([Buffer.from(mark ? [0xff, 0xfe] : []), Buffer.from(content, 'utf16le')]);
const big = (content: string): Buffer => {
  const bytes = Buffer.from(`\ufeff${content}`, 'utf16le');
  return bytes.swap16();
};

const grid: ReadonlyArray<readonly WorkbookCell[]> = [
  ['Sample', 'pH', 'P ppm', 'OM %'],
  ['A1', 6.1, 27, 3.4],
  ['A2', 5.4, 12, 2.1],
];
const asGrid = [
  { label: 'A1', soilPh: '6.1', p: '27 mg/kg', organicMatter: '3.4 %' },
  { label: 'A2', soilPh: '5.4', p: '12 mg/kg', organicMatter: '2.1 %' },
];
const one = (more: object): object[] => [{ label: 'A1', ...more }];
/** A picture of one grey point. */
const POINT = 'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGP4DwABAQEAsTPoDgAAAABJRU5ErkJggg=='; // prettier-ignore

const table = (rows: ReadonlyArray<readonly string[]>) => ({
  table: { body: rows.map((row) => row.map((cell) => cell)) },
});

/** A file, and its lines or the sentence about it; faults where some cell cannot be read. */
const files: ReadonlyArray<readonly [name: string, bytes: () => Buffer | Promise<Buffer>, wanted: object[] | RegExp, faults?: RegExp]> = [
  ['empty', () => text(''), /file is empty/],
  ['blank lines alone', () => text('\n \n\n'), /file is empty/],
  ['a binary named .csv', () => Buffer.from([1, 2, 0, 4, 5, 0, 7, 9, 0, 13, 0, 0, 12]), /binary|No line/],
  ['one line without end', () => text('x'.repeat(3_000_000)), /more than 200,000 letters/],
  ['letters', () => text('Dear Sir, here are the results. Yours, the laboratory'), /No line of this file names columns/],
  ['a header alone', () => text('Sample,pH,P ppm\n'), /no sample under it/],
  ['semicolons and decimal commas', () => text('Sample;pH;P ppm;OM %\nA1;6,1;27,5;3,4\n'), one({ soilPh: '6.1', p: '27.5 mg/kg', organicMatter: '3.4 %' })],
  ['thousands with points', () => text('Sample;pH;Ca mg/kg\nA1;6,1;1.234,5\nA2;6,4;12.345\n'), [{ label: 'A1', soilPh: '6.1', ca: '1234.5 mg/kg' }, { label: 'A2', soilPh: '6.4', ca: '12345 mg/kg' }]],
  ['thousands with commas', () => text('Sample,pH,Ca mg/kg\nA1,6.1,"1,234.5"\n'), one({ soilPh: '6.1', ca: '1234.5 mg/kg' })],
  ['thousands with narrow spaces', () => text('Sample;pH;Ca mg/kg\nA1;6,1;1\u202f234,5\n'), one({ soilPh: '6.1', ca: '1234.5 mg/kg' })],
  ['UTF-8 with its mark', () => text('\ufeffSample,pH,P ppm\nA1,6.1,27\n'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['UTF-16 with its mark', () => utf16('Sample,pH,P ppm\nA1,6.1,27\n', true), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['UTF-16 without a mark', () => utf16('Sample,pH,P ppm\nA1,6.1,27\n', false), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['UTF-16, the large end first', () => big('Sample,pH,P ppm\nA1,6.1,27\n'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['Windows letters', () => Buffer.from('Sample,pH,EC µS/cm 1:5\nA1,6.1,210\n', 'latin1'), one({ soilPh: '6.1', ec15: '210 uS/cm' })],
  ['returns alone', () => text('Sample,pH,P ppm\rA1,6.1,27\r'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['an address above', () => text('The Laboratory,,\n"12, Peat Road",,\nExtracted with Mehlich 3,,\n\nSample,pH,P ppm\nA1,6.1,27\n'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['headers twice', () => text('Sample,pH,P ppm\nA1,6.1,27\nSample,pH,P ppm\nA2,5.4,12\n'), [{ label: 'A1', soilPh: '6.1', p: '27 mg/kg' }, { label: 'A2', soilPh: '5.4', p: '12 mg/kg' }]],
  ['units in a line of their own', () => text('Sample,pH,P,K,OM\n,1:1 water,ppm,lb/acre,%\nA1,6.1,27,180,3.4\n'), one({ soilPh: '6.1', p: '27 mg/kg', k: '180 lb/acre', organicMatter: '3.4 %' })],
  ['two units in one column', () => text('Sample,pH,P ppm\nA1,6.1,27\nA2,6.0,42 lb/ac\n'), [{ label: 'A1', soilPh: '6.1', p: '27 mg/kg' }, { label: 'A2', soilPh: '6', p: '42 lb/acre' }]],
  ['no unit of a mass', () => text('Sample,pH,P\nA1,6.1,27\n'), one({ soilPh: '6.1' }), /choose ppm or lb\/acre/],
  ['dates with the day first', () => text('Sample,Date,pH\nA1,03/04/2026,6.1\nA2,23/04/2026,6.0\n'), [{ label: 'A1', on: '2026-04-03', soilPh: '6.1' }, { label: 'A2', on: '2026-04-23', soilPh: '6' }]],
  ['dates with the month first', () => text('Sample,Date,pH\nA1,03/04/2026,6.1\nA2,04/23/2026,6.0\n'), [{ label: 'A1', on: '2026-03-04', soilPh: '6.1' }, { label: 'A2', on: '2026-04-23', soilPh: '6' }]],
  ['dates in words', () => text('Sample,Date,pH\nA1,4 Mar 2026,6.1\nA2,"April 23, 2026",6.0\nA3,20260401,6\n'), [{ label: 'A1', on: '2026-03-04', soilPh: '6.1' }, { label: 'A2', on: '2026-04-23', soilPh: '6' }, { label: 'A3', on: '2026-04-01', soilPh: '6' }]],
  ['a date that reads two ways', () => text('Sample,Date,pH\nA1,03/04/2026,6.1\n'), one({ soilPh: '6.1' }), /days or months come first/],
  ['a day that is none', () => text('Sample,Date,pH\nA1,31.02.2026,6.1\n'), one({ soilPh: '6.1' }), /is not a date/],
  ['n/a and its like', () => text('Sample,pH,P ppm,K ppm,Ca ppm,Mg ppm\nA1,6.1,n/a,not tested,---,*\n'), one({ soilPh: '6.1' })],
  ['not detected, without a limit', () => text('Sample,pH,P ppm\nA1,6.1,BDL\n'), one({ soilPh: '6.1' }), /set the detection limit/],
  ['below and above', () => text('Sample,pH,P ppm,K ppm\nA1,> 8.2,<0.5,less than 20\n'), one({ soilPh: '>8.2', p: '<0.5 mg/kg', k: '<20 mg/kg' })],
  ['a range', () => text('Sample,pH,P ppm\nA1,6.1,20-30\n'), one({ soilPh: '6.1' }), /"20-30"/],
  ['a negative', () => text('Sample,pH,P ppm\nA1,6.1,-3\n'), one({ soilPh: '6.1' }), /negative/],
  ['a formula', () => text('Sample,pH,P ppm\nA1,6.1,"=HYPERLINK(""x"")"\n'), one({ soilPh: '6.1' }), /not a number/],
  ['a star behind', () => text('Sample,pH,P ppm\nA1,6.1,27*\n'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['salt pH, a Moore–Sikora buffer, advice', () => text('Sample,Salt pH,Moore-Sikora buffer pH,Lime recommendation lb/1000 sq ft,N advised (lb/1000 ft2)\nA1,5.2,7.6,58,3\n'), one({ saltPh: '5.2', bufferPh: '7.6', 'advised lime': '58 lb/1000ft2', 'advised nitrogen': '3 lb/1000ft2' })],
  ['one line an analyte', () => text('Sample ID,Analyte,Result,Units\nA1,Soil pH,6.1,\nA1,Phosphorus,27,mg/kg\nA2,Soil pH,5.4,\nA2,Phosphorus,<5,mg/kg\n'), [{ label: 'A1', soilPh: '6.1', p: '27 mg/kg' }, { label: 'A2', soilPh: '5.4', p: '<5 mg/kg' }]],
  ['one column a sample', () => text('Parameter,Unit,A1,A2\nSoil pH,,6.1,5.4\nPhosphorus,ppm,27,12\nOrganic matter,%,3.4,2.1\n'), asGrid],
  ['JSON, each value with its unit', () => text('{"samples":[{"sample":"A1","pH":6.1,"phosphorus":{"value":27,"unit":"mg/kg"}}]}'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['JSON cut short', () => text('{"samples":[{"sample":"A1","pH":6.1'), /cut short/],
  ['pasted from a page', () => text('Your soil test\nSample: A1\nSoil pH: 6.1 (slightly acid)\nPhosphorus (P): 27 ppm  Medium\nPotassium (K) .... 95 ppm  Low\nOrganic matter: 3.4 %\n'), one({ soilPh: '6.1', p: '27 ppm'.replace('ppm', 'mg/kg'), k: '95 mg/kg', organicMatter: '3.4 %' })],
  ['pasted from a table', () => text('Sample\tpH\tP ppm\nA1\t6.1\t27\n'), one({ soilPh: '6.1', p: '27 mg/kg' })],
  ['a workbook', () => workbook({ Results: grid }), asGrid],
  ['a workbook whose results are not first', () => workbook({ 'Read me': [['Thank you for your samples']], Results: grid }), asGrid],
  ['a workbook with merged heads', () => workbook({ R: [['', '', 'Mehlich-3, ppm', null, ''], ['Sample', 'pH', 'P', 'K', 'OM %'], ['A1', 6.1, 27, 95, 3.4]] }, ['C1:D1']), one({ soilPh: '6.1', p: '27 mg/kg', k: '95 mg/kg', organicMatter: '3.4 %' })],
  ['a workbook with formulas and days', () => workbook({ R: [['Sample', 'Date sampled', 'pH', 'P ppm'], ['A1', new Date('2026-03-14'), { formula: '6+0.1', value: 6.1 }, { formula: 'SUM(D3:D9)', value: 27.000000000000004 }]] }), one({ on: '2026-03-14', soilPh: '6.1', p: '27 mg/kg' })],
  ['an empty workbook', () => workbook({ Sheet1: [[]] }), /No sheet of this workbook holds anything/],
  ['a workbook cut short', () => workbook({ R: grid }).then((bytes) => bytes.subarray(0, 600)), /workbook cannot be opened/],
  ['a locked or an old workbook', () => Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]), /without a password/],
  ['a text document', () => zipped({ 'word/document.xml': '<w/>' }), /save it as PDF, or paste its text/],
  ['a packed folder', () => zipped({ 'report.csv': 'Sample,pH\n' }), /unpack it/],
  ['a workbook that blows up', () => zipped({ 'xl/workbook.xml': ' '.repeat(90_000_000) }), /far more than a report holds/],
  ['a PDF', () => pages(['The Laboratory', 'Extracted with Mehlich 3', table([['Sample', 'Soil pH', 'P ppm', 'OM %'], ['A1', '6.1', '27', '3.4'], ['A2', '5.4', '12', '2.1']]), 'Page 1 of 1']), asGrid],
  ['a PDF of names and values', () => pages(['Sample: A1', { columns: ['Soil pH', '6.1', 'slightly acid'] }, { columns: ['Phosphorus (P)', '27 ppm', 'medium'] }, { columns: ['Organic matter', '3.4 %', 'good'] }]), one({ soilPh: '6.1', p: '27 mg/kg', organicMatter: '3.4 %' })],
  ['a locked PDF', () => pages('x', { userPassword: 'secret' }), /locked with a password/],
  ['a PDF of a scan', () => pages({ image: POINT, width: 300 }), /pictures of pages and no text/],
  ['a PDF cut short', () => pages('x').then((bytes) => bytes.subarray(0, 200)), /PDF cannot be read/],
  ['a photo', () => Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]), /photo of a report/],
  ['a packed file', () => Buffer.from([0x1f, 0x8b, 8, 0]), /packed \(gzip\)/],
]; // prettier-ignore

describe('whatever a laboratory sends', () => {
  // A row without faults is shorter than the others: `each` would take the missing one for a callback.
  it.each(files.map((row) => [row[0], row] as const))('%s', async (_name, [, bytes, wanted, faults]) => {
    const found = await read(await bytes());
    if (wanted instanceof RegExp) {
      expect(found).toMatch(wanted);
      return;
    }
    if (typeof found === 'string') throw new Error(found);
    expect(found.rows).toEqual(wanted);
    if (faults) expect(found.faults.join('; ')).toMatch(faults);
    else expect(found.faults).toEqual([]);
  });
});
