import { type UnitSystem, present } from '@glenfold/agronomy';
import { type QuoteAnswer, type QuoteLineAnswer, colours } from '@glenfold/contract';
import type { Content } from 'pdfmake/interfaces.js';
import { type Paper, bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';

/** Where a quote belongs, and when it was made. */
interface Letterhead {
  readonly siteName: string;
  readonly practiceName: string;
  /** `2026-11-27` */
  readonly day: string;
  readonly units: UnitSystem;
}

/** A box to tick, or what was said already. */
const answerOf = ({ answer }: QuoteLineAnswer): string => answer ?? '[  ] yes   [  ] no';

function zoneTable(zone: string, quote: QuoteAnswer, units: UnitSystem): Content[] {
  const lines = quote.lines.filter((line) => line.zone === zone);
  const money = (value: number | null): string =>
    value === null ? (quote.total === null ? '' : 'open') : present('money', value, units, quote.currency).text;
  return [
    {
      layout: rules,
      table: {
        // A zone never stands on a page without its first line.
        headerRows: 2,
        keepWithHeaderRows: 1,
        dontBreakRows: true,
        widths: ['*', 95, 60, 82],
        body: [
          [{ text: plain(zone), style: 'section', colSpan: 4 }, {}, {}, {}],
          ['What and why', 'When', 'Price', 'Answer'].map(head),
          ...lines.map((line) => [
            {
              stack: [
                { text: plain([line.name, line.amount].filter(Boolean).join(': ')), bold: true },
                { text: plain(line.words), fontSize: 9 },
                ...(line.caution ? [{ text: plain(line.caution), fontSize: 9, color: colours.ochre }] : []),
              ],
            },
            cell(line.when),
            cell(money(line.price)),
            cell(answerOf(line)),
          ]),
        ],
      },
    },
  ];
}

/** A quote on paper: what is offered, zone by zone, with room for yes and no. @returns the PDF’s bytes */
async function quotePdf(quote: QuoteAnswer, { siteName, practiceName, day, units }: Letterhead): Promise<Buffer> {
  const money = (value: number): string => present('money', value, units, quote.currency).text;
  const sums = [
    ...(quote.visits === null ? [] : [`Visits, with whatever is accepted: ${money(quote.visits)}`]),
    ...(quote.total === null
      ? []
      : [
          quote.unpriced > 0
            ? `What has a price: ${money(quote.total)}; ${quote.unpriced === 1 ? 'one line has' : `${quote.unpriced} lines have`} none yet`
            : `All of it: ${money(quote.total)}`,
        ]),
    ...(quote.accepted === null ? [] : [`Accepted so far: ${money(quote.accepted)}`]),
  ];
  const definition: Paper = {
    title: `${siteName}: quote`,
    author: practiceName,
    pageSize: units === 'us' ? 'LETTER' : 'A4',
    pageMargins: [48, 38, 48, 46],
    defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink, lineHeight: 1.15 },
    styles: {
      title: { font: 'Bitter', fontSize: 20 },
      section: { font: 'Bitter', fontSize: 13, margin: [0, 9, 0, 3] },
    },
    footer,
    content: [
      { text: plain(`${siteName}: quote`), style: 'title' },
      { text: plain(`${practiceName}, ${day}. It stands until ${quote.validUntil}.`), color: colours.slate },
      ...(quote.note ? [{ text: plain(quote.note), margin: [0, 6, 0, 0] } as Content] : []),
      ...[...new Set(quote.lines.map(({ zone }) => zone))].flatMap((zone) => zoneTable(zone, quote, units)),
      { stack: sums.map((text) => ({ text: plain(text), bold: true })), margin: [0, 10, 0, 0] },
      {
        text: plain(
          quote.answeredBy
            ? `Answered by ${quote.answeredBy}.${quote.answerWords ? ` ${quote.answerWords}` : ''}`
            : 'Each line can be taken or left by itself. Name and day:  ______________________________',
        ),
        margin: [0, 12, 0, 0],
      },
    ],
  };
  return bytesOf(definition);
}

/** The same on a thread. */
export const quotePaper = threaded(
  import.meta.url,
  'quotePaper',
  (...given: Parameters<typeof quotePdf>): Promise<Uint8Array> => quotePdf(...given),
);
