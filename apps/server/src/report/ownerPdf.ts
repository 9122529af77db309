import { HATCH, type OwnerReportAnswer, colours, shadedPlan, zoneHatches } from '@glenfold/contract';
import type { Content } from 'pdfmake/interfaces.js';
import { bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';
import { zoneContent } from '../rates/programPdf.ts';
import type { ZonePaper } from '../rates/programZone.entity.ts';

type Report = NonNullable<OwnerReportAnswer['report']>;
type Page = Report['pages'][number];
const COVER = { width: 500, height: 250 } as const;
const section = (text: string): Content => ({ text: plain(text), style: 'section' });
const strong = (text: string): Content => ({ text: plain(text), bold: true });
const faded = (text: string): Content => ({ text: plain(text), color: colours.faded, fontSize: 9 });

/** The drawing of the zones, numbered and hatched. */
function coverDrawing({ outlines }: OwnerReportAnswer): Content[] {
  const shapes = shadedPlan(outlines, COVER);
  if (shapes.length === 0) return [];
  const patterns = zoneHatches.map(
    (strokes, index) =>
      `<pattern id="h${index}" width="${HATCH}" height="${HATCH}" patternUnits="userSpaceOnUse"><path d="${strokes}" fill="none" stroke="${colours.lichen}" stroke-width="0.7"/></pattern>`,
  );
  const drawn = shapes.map(({ zoneId, path, at: [x, y] }) => {
    const index = outlines.findIndex((one) => one.zoneId === zoneId);
    return `<path d="${path}" fill="${colours.lichenWash}" fill-rule="evenodd"/><path d="${path}" fill="url(#h${index % zoneHatches.length})" fill-rule="evenodd" stroke="${colours.ink}" stroke-width="1"/><rect x="${x - 8}" y="${y - 8}" width="16" height="16" fill="${colours.sheet}"/><text x="${x}" y="${y + 4}" font-family="Atkinson" font-size="11" font-weight="bold" text-anchor="middle" fill="${colours.ink}">${index + 1}</text>`;
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${COVER.width} ${COVER.height}" width="${COVER.width}" height="${COVER.height}"><defs>${patterns.join('')}</defs><rect width="${COVER.width}" height="${COVER.height}" fill="${colours.sheet}" stroke="${colours.line}"/>${drawn.join('')}</svg>`;
  return [{ svg, width: COVER.width, margin: [0, 14, 0, 4] }];
}

/** The cover: the drawing, and the things to do first. */
function cover(answer: OwnerReportAnswer, report: Report, day: string): Content[] {
  const { siteName, place, practiceName, outlines, state } = answer;
  return [
    { text: plain(siteName), font: 'Bitter', fontSize: 26 },
    faded([place, practiceName, day].filter(Boolean).join(' · ')),
    ...(state === 'handed over'
      ? []
      : [
          {
            text: 'Draft: not handed over, and it may still change.',
            bold: true,
            color: colours.ochre,
            margin: [0, 4, 0, 0],
          } as Content,
        ]),
    ...coverDrawing(answer),
    faded(outlines.map(({ name }, index) => `${index + 1} ${name}`).join('   ')),
    section(report.first.length > 0 ? 'To do first' : 'Nothing presses'),
    ...(report.first.length > 0
      ? [
          {
            ol: report.first.map(({ what, where, why }) => ({
              stack: [{ text: plain(what), bold: true, fontSize: 12 }, { text: plain(`${where.join(', ')}. ${why}`) }],
              margin: [0, 0, 0, 5] as [number, number, number, number],
            })),
          } as Content,
        ]
      : []),
    ...moneyOf(report),
  ];
}

function moneyOf({ cost, saved, unpriced }: Report): Content[] {
  const lines = [
    ...(cost
      ? [`The year comes to ${cost}${unpriced.length > 0 ? `, without ${unpriced.join(', ')} (no price yet)` : ''}.`]
      : []),
    ...(saved ? [`Of what the laboratory lists, about ${saved} need not be spent.`] : []),
  ];
  return lines.map((text): Content => ({ text: plain(text), bold: true, margin: [0, 4, 0, 0] }));
}

function letter({ letter: text, siteName }: OwnerReportAnswer): Content[] {
  return [
    { text: plain(siteName), font: 'Bitter', fontSize: 16, pageBreak: 'before', margin: [0, 40, 0, 18] },
    ...text.split(/\n\s*\n/).map((part): Content => ({ text: plain(part), fontSize: 11, margin: [0, 0, 0, 9] })),
  ];
}

/** What is done in a zone, when, why and for how much. */
function worksTable({ works }: Page): Content {
  if (works.length === 0) return { text: 'Nothing is put down this year.' };
  const priced = works.some(({ cost }) => cost !== null);
  return {
    layout: rules,
    table: {
      headerRows: 1,
      widths: priced ? [150, 95, '*', 'auto'] : [150, 95, '*'],
      body: [
        [head('What'), head('When'), head('Why'), ...(priced ? [head('Cost')] : [])],
        ...works.map(({ what, when, why, cost }) => [
          cell(what, { bold: true }),
          cell(when ?? 'as the ground allows'),
          cell(why),
          ...(priced ? [cell(cost ?? 'open', { alignment: 'right' })] : []),
        ]),
      ],
    },
  };
}

const lines = (title: string, texts: readonly string[]): Content[] =>
  texts.length === 0 ? [] : [section(title), { ul: texts.map(plain) }];

/** Photos of a zone, small beside what was found. */
function photoColumn(photos: OwnerReportAnswer['photos']): Content[] {
  if (photos.length === 0) return [];
  const stack = photos.map(({ src, caption, takenOn }): Content => ({
    stack: [{ image: src, fit: [150, 78] }, faded([caption, takenOn].filter(Boolean).join(', '))],
    margin: [0, 0, 0, 4],
  }));
  return [{ width: 150, margin: [12, 10, 0, 0], stack } as Content];
}

/** One page a zone. */
function zonePage(page: Page, index: number, { photos }: OwnerReportAnswer): Content {
  const { found, expect, part, cautions, notBought, retest, cost, saved, borrowed } = page;
  const own = photos.filter(({ zoneId }) => zoneId === page.zoneId);
  const unbought = [
    ...(notBought.length > 0 ? [`${notBought.join(', ')}.`] : []),
    ...(saved ? [`Of the laboratory’s own list, about ${saved} is saved.`] : []),
  ];
  const stack: Content[] = [
    {
      columns: [
        { text: plain(`${index + 1}  ${page.name}`), font: 'Bitter', fontSize: 19 },
        { text: plain(cost ?? ''), font: 'Bitter', fontSize: 13, alignment: 'right', margin: [0, 6, 0, 0] },
      ],
    },
    faded(`${page.area} of ${page.grass}`),
    ...(retest ? [{ text: plain(`Test again from ${retest.on}. ${retest.words}`), bold: true }] : []),
    ...(borrowed ? [{ text: plain(borrowed), color: colours.ochre, bold: true }] : []),
    {
      columns: [
        { width: '*', stack: [section('What we found'), ...found.map((text) => ({ text: plain(text) }))] },
        ...photoColumn(own),
      ],
    },
    section('What is done'),
    worksTable(page),
    {
      columnGap: 18,
      columns: [
        {
          width: '*',
          stack: lines(
            'What to expect, and by when',
            expect.map(({ by, words }) => `${by}: ${words}`),
          ),
        },
        { width: 170, stack: lines('Need not be bought', unbought) },
      ],
    },
    section('Your own part, and what cannot be promised without it'),
    { ul: part.map(({ does, without }): Content => ({ text: [strong(does), ` ${plain(without)}`] })) },
    ...(cautions.length > 0
      ? [section('Take care'), { ul: cautions.map(plain), color: colours.ochre, fontSize: 8 } as Content]
      : []),
  ];
  return { pageBreak: 'before', fontSize: 9, stack };
}

/**
 * The report for an owner on paper: a cover, the letter, a page a zone; the workings only as an appendix.
 *
 * @param papers of the zones, with their workings, where the appendix was asked for
 */
export const ownerPaper = threaded(
  import.meta.url,
  'ownerPaper',
  (answer: OwnerReportAnswer, day: string, papers: readonly ZonePaper[]): Promise<Uint8Array> => {
    const { report, siteName, units, state } = answer;
    if (!report) throw new Error('The report is not made yet.');
    const appendix = papers.map((paper, index): Content => ({
      pageBreak: 'before',
      stack: [
        ...(index === 0
          ? [
              {
                text: 'Appendix: how the numbers came about',
                font: 'Bitter',
                fontSize: 16,
                margin: [0, 0, 0, 8],
              } as Content,
            ]
          : []),
        ...zoneContent(paper, state === 'handed over' ? 'program' : 'draft', day, 'work'),
      ],
    }));
    return bytesOf({
      title: `${siteName}: report`,
      author: answer.practiceName,
      pageSize: units === 'us' ? 'LETTER' : 'A4',
      pageMargins: [48, 36, 48, 40],
      defaultStyle: { font: 'Atkinson', fontSize: 9.5, color: colours.ink, lineHeight: 1.15 },
      styles: {
        title: { font: 'Bitter', fontSize: 20 },
        section: { font: 'Bitter', fontSize: 12, margin: [0, 7, 0, 2] },
      },
      footer,
      content: [
        ...cover(answer, report, day),
        ...letter(answer),
        ...report.pages.map((page, index) => zonePage(page, index, answer)),
        ...appendix,
      ],
    });
  },
);
