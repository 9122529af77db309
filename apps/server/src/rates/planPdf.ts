import {
  type NutrientAdvice,
  type ProductAmount,
  type Reading,
  type Working,
  type ZonePlan,
  present,
  presentStep,
} from '@glenfold/agronomy';
import { type ZonePlanAnswer, colours } from '@glenfold/contract';
import type { Content, TDocumentDefinitions, TableCell } from 'pdfmake/interfaces.js';
import { bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';
import type { IssuedPlan } from './plan.entity.ts';

/** What plans of before did not have yet is left out of theirs: they are shown as they were handed over. */
type Early<T> = { readonly [K in keyof T]?: T[K] };

/** Plans of before there were roles carry no mark: they show their costs. */
const isPriced = ({ priced }: Partial<ZonePlanAnswer>): boolean => priced !== false;

function amountRows(amount: ProductAmount, units: IssuedPlan['units'], sense: 'limeRate' | 'productRate'): string[] {
  return amount.applications.map(({ rate, mass, monthsFromStart }, index) => {
    const when =
      monthsFromStart === null
        ? `application ${index + 1}`
        : monthsFromStart === 0
          ? 'now'
          : `after ${monthsFromStart} months or more`;
    return `${when}: ${present(sense, rate, units).text}, ${present('mass', mass, units).text}`;
  });
}

function limeSection(issued: IssuedPlan): Content[] {
  const { answer, units } = issued;
  const { lime } = answer.plan;
  const { amount } = lime;
  const content: Content[] = [{ text: 'Lime', style: 'section' }, { text: plain(lime.words) }];
  if (amount) {
    content.push({
      margin: [0, 4, 0, 0],
      layout: rules,
      table: {
        widths: ['*', 'auto', 'auto', 'auto'],
        body: [
          ['Product', 'Rate', 'For the zone', 'Buy'].map(head),
          [
            cell(amount.productName),
            cell(present('limeRate', amount.rate.value, units).text, { bold: true }),
            cell(present('mass', amount.mass.value, units).text),
            cell(buy(amount, issued)),
          ],
        ],
      },
    });
    content.push({ ul: amountRows(amount, units, 'limeRate').map(plain), margin: [0, 2, 0, 0] });
  }
  for (const { words, reasons } of answer.plan.comparisons)
    content.push({ text: plain(`${words} ${reasons.join(' ')}`), margin: [0, 4, 0, 0], color: colours.slate });
  const { rule } = lime as Early<typeof lime>;
  if (rule) content.push({ text: plain(rule), margin: [0, 4, 0, 0], fontSize: 9, color: colours.slate });
  return [...content, ...cautions(lime.cautions)];
}

function buy({ bags, bagMass, cost }: ProductAmount, { units, answer, currency }: IssuedPlan): string {
  const count = `${bags.value} ${bags.value === 1 ? 'bag' : 'bags'} of ${present('mass', bagMass, units).text}`;
  if (!isPriced(answer)) return count;
  return cost ? `${count}, ${present('money', cost.value, units, currency).text}` : `${count}, no price set`;
}

function cautions(texts: readonly string[]): Content[] {
  return texts.length === 0 ? [] : [{ ul: texts.map(plain), color: colours.ochre, fontSize: 9, margin: [0, 4, 0, 0] }];
}

/** What was judged and has no product yet: sulfur, compost, gypsum, magnesium. */
function verdictSection({ verdicts = [] }: Early<ZonePlan>): Content[] {
  const told = verdicts.filter(({ words }) => words !== '');
  if (told.length === 0) return [];
  return [
    { text: 'Also looked at', style: 'section' },
    { ul: told.map(({ words }) => plain(words)) },
    ...cautions(told.flatMap((verdict) => verdict.cautions)),
  ];
}

/** As many as somebody keeps in mind. */
const MOST_LIMITS = 4;

/** What comes before any rate, most first. */
function firstSection({ limitations }: Reading): Content[] {
  if (limitations.length === 0) return [];
  return [
    { text: 'What limits this lawn, most first', style: 'section' },
    { ol: limitations.slice(0, MOST_LIMITS).map(({ what, evidence }) => plain(`${what} ${evidence}`)) },
    ...(limitations.length > MOST_LIMITS
      ? [
          {
            text: plain(
              `Then: ${limitations
                .slice(MOST_LIMITS)
                .map(({ what }) => what)
                .join(' ')}`,
            ),
            fontSize: 9,
            margin: [0, 2, 0, 0],
          } as Content,
        ]
      : []),
  ];
}

function nutrientSection(advice: readonly NutrientAdvice[], issued: IssuedPlan): Content[] {
  const { units } = issued;
  const body: TableCell[][] = [
    ['Nutrient', 'Need for the year', 'Product', 'Rate for the year', 'For the zone', 'Buy'].map(head),
  ];
  for (const { name, need, amount } of advice) {
    const needed = need ? present('nutrientRate', need.value, units).text : 'not known';
    body.push([
      cell(name),
      cell(needed),
      cell(amount?.productName ?? 'none'),
      cell(amount ? present('productRate', amount.rate.value, units).text : ''),
      cell(amount ? present('mass', amount.mass.value, units).text : ''),
      cell(amount ? buy(amount, issued) : ''),
    ]);
  }
  const lines = advice.map(
    ({ name, words, amount }) =>
      `${name}: ${words}${amount && amount.applications.length > 1 ? ` In ${amount.applications.length} applications of ${present('productRate', amount.applications[0]!.rate, units).text}.` : ''}`,
  );
  return [
    { text: 'Fertilizer for the year', style: 'section' },
    { layout: rules, table: { widths: ['auto', 'auto', '*', 'auto', 'auto', 'auto'], body } },
    { ul: lines.map(plain), margin: [0, 4, 0, 0] },
    ...cautions([...new Set(advice.flatMap((entry) => entry.cautions))]),
  ];
}

function workingSection(title: string, working: Working, { units, currency }: IssuedPlan): Content[] {
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

/** The same on a thread. */
export const planPaper = threaded(
  import.meta.url,
  'planPaper',
  (...given: Parameters<typeof planPdf>): Promise<Uint8Array> => planPdf(...given),
);

/**
 * A zone's plan on paper.
 *
 * @param kind a plan that was handed over, or a draft, which says so.
 * @param day when it was handed over, or printed.
 * @returns the PDF's bytes
 */
async function planPdf(issued: IssuedPlan, kind: 'plan' | 'draft', day: string): Promise<Buffer> {
  const { answer, units } = issued;
  const { result, reading, plan } = answer;
  const workings = [
    ...(plan.lime.amount ? [['Lime', (plan.lime.amount.cost ?? plan.lime.amount.bags).working] as const] : []),
    ...plan.nutrients.flatMap(({ name, amount, need }) =>
      amount ? [[name, (amount.cost ?? amount.bags).working] as const] : need ? [[name, need.working] as const] : [],
    ),
  ];
  const definition: TDocumentDefinitions = {
    info: { title: `${issued.siteName}, ${issued.zoneName}: ${kind === 'plan' ? 'plan' : 'draft of a plan'}` },
    pageSize: units === 'us' ? 'LETTER' : 'A4',
    pageMargins: [48, 38, 48, 46],
    defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink, lineHeight: 1.15 },
    styles: {
      title: { font: 'Bitter', fontSize: 20 },
      section: { font: 'Bitter', fontSize: 13, margin: [0, 9, 0, 3] },
    },
    footer,
    content: [
      {
        columns: [
          { text: plain(issued.zoneName), style: 'title' },
          {
            text: !isPriced(answer)
              ? ''
              : plan.cost
                ? `Products for this zone: ${present('money', plan.cost.value, units, issued.currency).text}`
                : `Cost open: no price is set for ${plan.unpriced.join(', ')}.`,
            font: 'Bitter',
            fontSize: 12,
            alignment: 'right',
            margin: [0, 7, 0, 0],
          },
        ],
      },
      {
        text: plain(`${issued.siteName}. ${issued.practiceName}, ${day}.`),
        color: colours.slate,
      },
      ...(kind === 'plan'
        ? []
        : [
            {
              text: 'Draft: not handed over, and it may still change.',
              bold: true,
              color: colours.ochre,
              margin: [0, 3, 0, 0],
            } as Content,
          ]),
      {
        margin: [0, 8, 0, 0],
        columns: [
          { text: plain(`${present('area', issued.area, units).text} of ${issued.grass}`), bold: true },
          {
            text: plain(
              `Bag ${result.label}${result.sampledOn ? `, sampled ${result.sampledOn}` : ''}, ${present('depth', result.depth, units).text} deep`,
            ),
            alignment: 'right',
          },
        ],
      },
      ...firstSection(reading),
      ...limeSection(issued),
      ...nutrientSection(plan.nutrients, issued),
      ...verdictSection(plan),
      ...(plan.leftOut.length > 0
        ? [{ text: plain(`Not needed, and so not to be bought: ${plan.leftOut.join(', ')}.`) }]
        : []),
      { text: 'What the test says', style: 'section', pageBreak: 'before' },
      {
        layout: rules,
        table: {
          widths: [110, 80, 70, '*'],
          body: reading.bars.map(({ name, sense, figure, rating, words, belowDetection, scale }) => [
            cell(name),
            cell(`${belowDetection ? '<' : ''}${present(sense, figure.value, units).text}`),
            cell(scale?.words[scale.at] ?? rating ?? 'not rated'),
            cell(words),
          ]),
        },
      },
      {
        text: plain(
          [
            reading.buffer,
            ...((reading as Early<Reading>).notes ?? []),
            ...((reading as Early<Reading>).others ?? []),
            (reading as Early<Reading>).open ?? '',
          ]
            .join(' ')
            .trim(),
        ),
        margin: [0, 4, 0, 0],
      },
      ...(workings.length > 0 ? [{ text: 'How the numbers came about', style: 'section' } as Content] : []),
      ...workings.flatMap(([title, working]) => workingSection(title, working, issued)),
    ],
  };
  return bytesOf(definition);
}
