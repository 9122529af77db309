import { costWords } from './costWords.ts';
import {
  type Dose,
  type Reading,
  type Supply,
  type Treatment,
  type Working,
  isLoose,
  monthName,
  planned,
  present,
  presentStep,
  tellBar,
  tellSupply,
  tellWork,
} from '@glenfold/agronomy';
import { colours } from '@glenfold/contract';
import type { Content, TableCell } from 'pdfmake/interfaces.js';
import { type Paper, bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';
import type { ZonePaper } from './programZone.entity.ts';

/** The owner’s paper has amounts, months and cautions; the one for the work has the workings too. */
export const copies = { owner: 'owner', work: 'work' } as const;
export type Copy = keyof typeof copies;

/** What papers of before did not have yet is left out of theirs: they are shown as they were handed over. */
type Early<T> = { readonly [K in keyof T]?: T[K] };

const isPriced = ({ answer }: ZonePaper): boolean => answer.priced !== false;

/** "March 2027", or "1 to 10 March 2027" where a part of it is meant. */
function whenOf({ from, to }: Dose): string | undefined {
  if (!from || !to) return undefined;
  const [year = '', month = '1', first = '1'] = from.split('-');
  const last = Number(to.slice(8));
  const whole = first === '01' && last >= 28;
  return `${whole ? '' : `${Number(first)} to ${last} `}${monthName(Number(month))} ${year}`;
}

/** What is put down each time, in the hand’s own amounts. */
function doseLines({ doses, sense, supply, rate, dose }: Treatment, { units }: ZonePaper): string[] {
  if (doses.length === 0) return [];
  return doses.map((one, index) => {
    const amounts = [
      ...(rate ? [present(sense, one.rate, units).text] : []),
      ...(supply && one.quantity !== null ? [tellSupply(one.quantity, supply.unit, units)] : []),
    ];
    const name = doses.length === 1 ? dose : `${dose} ${index + 1}`;
    return [name, ...amounts, ...(whenOf(one) ?? [])].length > 1
      ? `${name}: ${[...amounts, whenOf(one)].filter(Boolean).join(', ')}`
      : name;
  });
}

function buy(supply: Supply, paper: ZonePaper): string {
  const { packs, packSize, unit, cost } = supply;
  const count = isLoose(supply)
    ? `${tellSupply(packs.value, unit, paper.units)} loose`
    : `${packs.value} × ${tellSupply(packSize, unit, paper.units)}`;
  if (!isPriced(paper)) return count;
  return cost
    ? `${count}, ${present('money', cost.value, paper.units, paper.currency).text}`
    : `${count}, no price set`;
}

function cautions(texts: readonly string[]): Content[] {
  return texts.length === 0 ? [] : [{ ul: texts.map(plain), color: colours.ochre, fontSize: 9, margin: [0, 3, 0, 0] }];
}

/** Labour, hire and haulage: how much, and what it costs for those who see it. */
function workContent({ work = [], price }: Treatment, paper: ZonePaper): Content[] {
  const money = (value: number): string => present('money', value, paper.units, paper.currency).text;
  const lines = [
    ...work.map(
      ({ name, per, amount, cost }) =>
        `${name}: ${tellWork(amount, per)}${isPriced(paper) && cost ? `, ${money(cost.value)}` : ''}`,
    ),
    ...(price && isPriced(paper) ? [`Price: ${money(price.value)}`] : []),
  ];
  return lines.length > 0 ? [{ text: plain(lines.join('. ')), margin: [0, 2, 0, 0] }] : [];
}

/** One treatment: what, how much, when, of what, and why. */
function treatmentSection(treatment: Treatment, paper: ZonePaper): Content[] {
  const { name, words, supply, others, rate, sense, byHand, status, when, facts } = treatment;
  const amounts = supply
    ? [
        {
          layout: rules,
          margin: [0, 3, 0, 0] as [number, number, number, number],
          table: {
            widths: ['*', 'auto', 'auto', 'auto'],
            body: [
              ['Product', 'Rate for the year', 'For the zone', 'Buy'].map(head),
              ...[supply, ...others].map((each, index) => [
                cell(each.name),
                cell(index === 0 && rate ? present(sense, rate.value, paper.units).text : '', { bold: true }),
                cell(tellSupply(each.quantity.value, each.unit, paper.units)),
                cell(buy(each, paper)),
              ]),
            ],
          },
        },
      ]
    : [];
  const lines = doseLines(treatment, paper);
  return [
    { text: plain(status === 'planned' ? name : `${name}: ${status}`), style: 'section' },
    { text: plain(words) },
    ...(byHand
      ? [
          {
            text: plain(`Set by hand: ${byHand.reason}${byHand.held ? ` ${byHand.held}` : ''}`),
            italics: true,
          } as Content,
        ]
      : []),
    ...amounts,
    ...workContent(treatment, paper),
    ...(lines.length > 0 ? [{ ul: lines.map(plain), margin: [0, 2, 0, 0] } as Content] : []),
    ...(facts.length > 0
      ? [{ text: plain(facts.map(({ name: label, told }) => `${label} ${told}`).join('. ')), fontSize: 9 } as Content]
      : []),
    ...(when ? [{ text: plain(when), fontSize: 9 } as Content] : []),
    ...cautions(treatment.cautions),
  ];
}

/** What is other than in the year that is sold to everybody. */
function usualSection(paper: ZonePaper): Content[] {
  const { usual } = paper.answer.program;
  if (!usual || usual.differences.length === 0) return [];
  return [
    { text: plain(`Other than in “${usual.name}”`), style: 'section' },
    {
      ul: usual.differences.map(({ name, usual: was, here, why }) => plain(`${name}: ${here}, usually ${was}. ${why}`)),
    },
    ...(usual.saved && isPriced(paper)
      ? [
          `What need not be bought of it saves ${present('money', usual.saved.value, paper.units, paper.currency).text}.`,
        ]
      : []),
  ];
}

/** The rules of the place that bind, as the practice has written them down. */
function rulesSection({ answer }: ZonePaper): Content[] {
  const { rules = [] } = answer.program;
  return rules.length === 0
    ? []
    : [
        { text: 'Rules of the place that bind here', style: 'section' },
        { ul: rules.map(({ words }) => plain(words)) },
        {
          text: 'Check your local rule: this is what the practice has written down; the law comes first.',
          fontSize: 9,
        },
      ];
}

/** What was looked at and is not given. */
function judgedSection({ answer }: ZonePaper): Content[] {
  const { judged, leftOut, comparisons } = answer.program;
  return [
    ...(judged.length > 0
      ? [
          { text: 'Also looked at', style: 'section' } as Content,
          {
            ul: judged.map(({ name, words }) => plain(words.startsWith(name) ? words : `${name}: ${words}`)),
          } as Content,
          ...cautions(judged.flatMap((one) => one.cautions)),
        ]
      : []),
    ...comparisons.map(({ words, reasons }): Content => ({
      text: plain(`${words} ${reasons.join(' ')}`),
      margin: [0, 4, 0, 0],
      color: colours.slate,
    })),
    ...(leftOut.length > 0
      ? [
          {
            text: plain(`Not needed, and so not to be bought: ${leftOut.join(', ')}.`),
            margin: [0, 4, 0, 0],
          } as Content,
        ]
      : []),
  ];
}

/** As many as somebody keeps in mind. */
const MOST_LIMITS = 4;

/** What comes before any rate, most first. */
function firstSection({ limitations }: Reading): Content[] {
  if (limitations.length === 0) return [];
  const [first, rest] = [limitations.slice(0, MOST_LIMITS), limitations.slice(MOST_LIMITS)];
  return [
    { text: 'What limits this lawn, most first', style: 'section' },
    { ol: first.map(({ what, evidence }) => plain(`${what} ${evidence}`)) },
    ...(rest.length > 0
      ? [
          {
            text: plain(`Then: ${rest.map(({ what }) => what).join(' ')}`),
            fontSize: 9,
            margin: [0, 2, 0, 0],
          } as Content,
        ]
      : []),
  ];
}

/** What works against what, and is not mended. */
function findingSection({ answer }: ZonePaper): Content[] {
  const { findings } = answer.program;
  return findings.length > 0
    ? [{ text: 'To be minded', style: 'section' }, ...cautions(findings.map(({ words }) => words))]
    : [];
}

function workingSection(title: string, working: Working, { units, currency }: ZonePaper): Content[] {
  const body: TableCell[][] = working.flatMap((entry): TableCell[][] => {
    if (entry.kind === 'elsewhere') return [];
    return entry.kind === 'step'
      ? [
          [
            cell(entry.label),
            cell(`${entry.formula}\n${entry.numbers}`),
            cell(presentStep(entry.result, entry.unit, units, currency), { alignment: 'right' }),
          ],
        ]
      : [[cell(entry.kind), cell(entry.text, { colSpan: 2 }), {}]];
  });
  const heading = { text: plain(title), bold: true, margin: [0, 8, 0, 2] as [number, number, number, number] };
  const table = { fontSize: 8, layout: rules, table: { widths: [120, '*', 110], body } };
  // A heading never stands alone at the foot of a page.
  return [{ unbreakable: true, stack: [heading, table] }];
}

function workingsOf(paper: ZonePaper): Content[] {
  const of = planned(paper.answer.program.treatments).flatMap(({ name, supply, rate, need }) => {
    const figure = supply ? (supply.cost ?? supply.packs) : (rate ?? need?.figure);
    return figure && figure.working.length > 0 ? [[name, figure.working] as const] : [];
  });
  return of.length === 0
    ? []
    : [
        { text: 'How the numbers came about', style: 'section' },
        ...of.flatMap(([title, working]) => workingSection(title, working, paper)),
      ];
}

/** What the laboratory found, value by value. */
function testSection({ answer, units }: ZonePaper): Content[] {
  const { reading, result } = answer;
  if (!result) return [];
  const early = reading as Early<Reading>;
  return [
    {
      layout: rules,
      table: {
        // Its heading goes with its rows, onto a page of their own only where none is left on this one.
        headerRows: 1,
        keepWithHeaderRows: 3,
        widths: [110, 80, 70, '*'],
        body: [
          [{ text: 'What the test says', style: 'section', colSpan: 4 }, '', '', ''],
          ...reading.bars.map((bar) => [
            cell(bar.name),
            cell(tellBar(bar, units)),
            cell(bar.scale?.words[bar.scale.at] ?? bar.rating ?? 'not rated'),
            cell(bar.words),
          ]),
        ],
      },
    },
    {
      text: plain([reading.buffer, ...(early.notes ?? []), ...(early.others ?? []), early.open ?? ''].join(' ').trim()),
      margin: [0, 4, 0, 0],
    },
  ];
}

/** The same on a thread. */
export const programPaper = threaded(
  import.meta.url,
  'programPaper',
  (...given: Parameters<typeof programPdf>): Promise<Uint8Array> => programPdf(...given),
);

/** One zone of a program. */
export function zoneContent(paper: ZonePaper, kind: 'program' | 'draft', day: string, copy: Copy): Content[] {
  const { answer, units } = paper;
  const { result, reading, program } = answer;
  const cost = !isPriced(paper)
    ? ''
    : program.cost
      ? costWords(paper, program.cost.value)
      : `Cost open: no price is set for ${program.unpriced.join(', ')}.`;
  const draft: Content[] =
    kind === 'program'
      ? []
      : [
          {
            text: 'Draft: not handed over, and it may still change.',
            bold: true,
            color: colours.ochre,
            margin: [0, 3, 0, 0],
          },
        ];
  return [
    {
      columns: [
        { text: plain(paper.zoneName), style: 'title' },
        { text: plain(cost), font: 'Bitter', fontSize: 12, alignment: 'right', margin: [0, 7, 0, 0] },
      ],
    },
    { text: plain(`${paper.siteName}. ${paper.practiceName}, ${day}.`), color: colours.slate },
    ...draft,
    {
      margin: [0, 8, 0, 0],
      columns: [
        { text: plain(`${present('area', paper.area, units).text} of ${paper.grass}`), bold: true },
        {
          text: plain(
            result
              ? `Bag ${result.label}${result.sampledOn ? `, sampled ${result.sampledOn}` : ''}, ${present('depth', result.depth, units).text} deep`
              : 'No soil test yet: only what was added by hand.',
          ),
          alignment: 'right',
        },
      ],
    },
    ...(answer.borrowed ? [{ text: plain(answer.borrowed), color: colours.ochre, bold: true } as Content] : []),
    ...firstSection(reading),
    ...rulesSection(paper),
    ...program.treatments.flatMap((treatment) => treatmentSection(treatment, paper)),
    ...findingSection(paper),
    ...usualSection(paper),
    ...judgedSection(paper),
    ...(program.year?.madeUp !== false
      ? [
          {
            text: plain(
              program.year ? `Months: ${program.year.basis}.` : 'No months: the climate of the place is not set.',
            ),
            fontSize: 9,
            margin: [0, 4, 0, 0],
          } as Content,
        ]
      : []),
    ...(answer.retest
      ? [
          {
            text: plain(`Test again from ${answer.retest.on}. ${answer.retest.words}`),
            bold: true,
            margin: [0, 6, 0, 0],
          } as Content,
        ]
      : []),
    ...testSection(paper),
    ...(copy === 'work' ? workingsOf(paper) : []),
  ];
}

/**
 * A program on paper, each zone beginning a page.
 *
 * @param kind one that was handed over, or a draft, which says so.
 * @param day when it was handed over, or printed.
 * @returns the PDF's bytes
 */
async function programPdf(
  papers: readonly ZonePaper[],
  kind: 'program' | 'draft',
  day: string,
  copy: Copy,
): Promise<Buffer> {
  const [first] = papers;
  const name = papers.length === 1 ? `${first!.siteName}, ${first!.zoneName}` : first!.siteName;
  const definition: Paper = {
    title: `${name}: ${kind === 'program' ? 'program' : 'draft of a program'}`,
    author: first!.practiceName,
    pageSize: first!.units === 'us' ? 'LETTER' : 'A4',
    pageMargins: [48, 38, 48, 46],
    defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink, lineHeight: 1.15 },
    styles: {
      title: { font: 'Bitter', fontSize: 20 },
      section: { font: 'Bitter', fontSize: 13, margin: [0, 9, 0, 3] },
    },
    footer,
    content: papers.map((paper, index) => ({
      stack: zoneContent(paper, kind, day, copy),
      ...(index > 0 ? { pageBreak: 'before' as const } : {}),
    })),
  };
  return bytesOf(definition);
}
