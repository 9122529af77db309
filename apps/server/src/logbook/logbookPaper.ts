import { type LedgerLine, type UnitSystem, present, tellSupply } from '@glenfold/agronomy';
import { type EntryAnswer, colours } from '@glenfold/contract';
import papaparse from 'papaparse';
import type { Content } from 'pdfmake/interfaces.js';
import { bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';

/** A page of the book of one site. */
export interface BookPage {
  readonly practice: string;
  readonly site: string;
  readonly from: string;
  readonly to: string;
  readonly entries: readonly EntryAnswer[];
  readonly units: UnitSystem;
  /** Sums of each zone over these days: "N 1.0 lb/1000 ft²". */
  readonly sums: ReadonlyArray<{
    readonly zone: string;
    readonly told: readonly string[];
    readonly unknown: readonly string[];
  }>;
}

const senses = { 'g/m2': 'productRate', cm: 'layer', 'mL/m2': 'liquidRate', mm: 'rainfall' } as const;

/** "49 g/m²" of an entry; empty where nobody knows. */
export const toldRate = ({ rate, unit }: Pick<EntryAnswer, 'rate' | 'unit'>, units: UnitSystem): string =>
  rate === null || unit === null ? '' : present(senses[unit], rate, units).text;

const toldUsed = (
  { quantity, quantityUnit }: Pick<EntryAnswer, 'quantity' | 'quantityUnit'>,
  units: UnitSystem,
): string => (quantity === null || quantityUnit === null ? '' : tellSupply(quantity, quantityUnit, units));

/** A line for what an entry names, and one for each thing of its mix. */
const lines = (own: string, entry: EntryAnswer, told: (part: EntryAnswer['mixed'][number]) => string): string =>
  [own, ...entry.mixed.map(told)].join('\n');

/** "N 1.8 lb/1000 ft² (planned 0.9, year's most 4, still allowed 1.3)"; nothing of what is neither down nor planned. */
export function toldLine(line: LedgerLine, units: UnitSystem): string[] {
  const { label, sense, done, planned, most, allowed } = line;
  if (done === 0 && planned === 0) return [];
  const say = (value: number): string => present(sense, value, units).text;
  const beside = [
    planned === 0 ? '' : `planned ${say(planned)}`,
    most === null ? '' : `year’s most ${say(most)}`,
    most === null || allowed === null ? '' : `still allowed ${say(allowed)}`,
  ].filter(Boolean);
  return [`${label} ${say(done)}${beside.length > 0 ? ` (${beside.join(', ')})` : ''}`];
}

/** The page on paper: what stands, what was mended below it. */
async function bookPdf({ practice, site, from, to, entries, units, sums }: BookPage): Promise<Buffer> {
  const stand = entries.filter(({ stands }) => stands);
  const mended = entries.filter(({ stands }) => !stands);
  const row = (entry: EntryAnswer) => [
    cell(entry.on),
    cell(entry.zone),
    cell(entry.state === 'done' ? entry.words : `${entry.words} (${entry.state})`),
    cell(
      lines(
        toldUsed(entry, units) || (entry.state === 'not done' ? '' : 'not told'),
        entry,
        (part) => `${part.words}: ${toldUsed(part, units)}`,
      ),
    ),
    cell(lines(toldRate(entry, units), entry, (part) => toldRate(part, units))),
    cell(entry.area === null ? 'whole zone' : present('area', entry.area, units).text),
    cell([entry.doneBy ?? entry.writtenBy, entry.reason].filter(Boolean).join('; ')),
  ];
  const table = (rows: readonly EntryAnswer[]): Content => ({
    layout: rules,
    fontSize: 8.5,
    table: {
      headerRows: 1,
      widths: ['auto', 'auto', '*', 'auto', 'auto', 'auto', 'auto'],
      body: [['Day', 'Zone', 'What', 'Used', 'Rate', 'Area', 'By, why'].map(head), ...rows.map(row)],
    },
  });
  return bytesOf({
    title: `${site}: logbook ${from} to ${to}`,
    author: practice,
    pageSize: units === 'us' ? 'LETTER' : 'A4',
    pageOrientation: 'landscape',
    pageMargins: [48, 44, 48, 44],
    defaultStyle: { font: 'Atkinson', fontSize: 9.5, color: colours.ink },
    footer,
    content: [
      { text: plain(`Logbook, ${site}`), font: 'Bitter', fontSize: 17 },
      {
        text: plain(
          `${practice}. ${from} to ${to}. As it was written; entries are never changed, only mended by later ones.`,
        ),
        margin: [0, 2, 0, 10],
        color: colours.faded,
      },
      stand.length > 0 ? table(stand) : { text: 'Nothing was written down in these days.' },
      ...(sums.some(({ told }) => told.length > 0)
        ? [
            { text: 'By zone', font: 'Bitter', fontSize: 12, margin: [0, 14, 0, 4] } as Content,
            ...sums
              .filter(({ told, unknown }) => told.length + unknown.length > 0)
              .map(({ zone, told, unknown }): Content => ({
                margin: [0, 2],
                text: [
                  { text: plain(`${zone}: `), bold: true },
                  plain(
                    [told.join('; '), ...unknown.map((words) => `not counted: ${words}`)].filter(Boolean).join('. '),
                  ),
                ],
              })),
          ]
        : []),
      ...(mended.length > 0
        ? [
            { text: 'Mended or withdrawn', font: 'Bitter', fontSize: 12, margin: [0, 14, 0, 4] } as Content,
            table(mended),
          ]
        : []),
    ],
  });
}

export const bookPaper = threaded(import.meta.url, 'bookPaper', bookPdf);

/** An entry, and a row for each thing of its mix. */
const withParts = (entry: EntryAnswer): EntryAnswer[] => [
  entry,
  ...entry.mixed.map((part) => ({ ...entry, ...part, mixed: [] })),
];

/** The same for a spreadsheet: SI units in the names of columns, every entry, those that were mended too. */
export function bookCsv(entries: readonly EntryAnswer[]): string {
  const rows = entries.flatMap(withParts).map((entry) => ({
    ...{ day: entry.on, zone: entry.zone, kind: entry.kind, state: entry.state, what: entry.words },
    ...{
      used: entry.quantity ?? '',
      used_unit: entry.quantityUnit ?? '',
      rate: entry.rate === null ? '' : Number(entry.rate.toPrecision(4)),
      rate_unit: entry.unit ?? '',
    },
    ...{ area_m2: entry.area ?? '', done_by: entry.doneBy ?? '', written_by: entry.writtenBy ?? '' },
    ...{ written_at: entry.recordedAt, reason: entry.reason ?? '', stands: entry.stands ? 'yes' : 'no' },
    ...{ id: entry.id, corrects: entry.correctsId ?? '' },
  }));
  return `${papaparse.unparse(rows, { newline: '\n', escapeFormulae: true })}\n`;
}
