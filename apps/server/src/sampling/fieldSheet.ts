import { type UnitSystem, present, writeBagCode } from '@glenfold/agronomy';
import { type BagAnswer, type DrawingAnswer, colours } from '@glenfold/contract';
import type { Content } from 'pdfmake/interfaces.js';
import { drawingSheet, sheetSize, sheetWords } from '../ground/drawingSheet.ts';
import { bytesOf, cell, drawnPage, head, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';

const checks = [
  'clean plastic bucket',
  'buried lines marked',
  'soil not wet, not frozen',
  'thatch, mulch, stones pushed aside',
] as const;
const ROW = 14.6;
/** Rows that stand beside a drawing on either paper; more go overleaf. */
const ROWS_BESIDE = 26;

/** Lines to write on beside the drawing: number in the walk, depth pushed, length that came up, what was seen. */
function list(bag: BagAnswer, units: UnitSystem) {
  return (x: number, top: number, bottom: number, width: number): string => {
    const line = (y: number): string =>
      `<path d="M${x} ${y}H${x + width}" stroke="${colours.line}" stroke-width="0.5"/>`;
    const unit = units === 'us' ? 'in' : 'cm';
    const columns = [x, x + 28, x + 80, x + 138];
    const boxes = checks.map(
      (check, index) =>
        `<rect x="${x}" y="${top + 2 + index * 13}" width="8" height="8" fill="none" stroke="${colours.ink}" stroke-width="0.8"/>${sheetWords(x + 13, top + 9 + index * 13, check, { size: 8 })}`,
    );
    const begin = top + checks.length * 13 + 18;
    const heads = ['Core', `Pushed, ${unit}`, `Came up, ${unit}`, 'Moisture, note'].map((text, index) =>
      sheetWords(columns[index]!, begin, text, { size: 7.5, bold: true }),
    );
    const rows = bag.places
      .slice(0, ROWS_BESIDE)
      .map(({ turn }, index) => `${sheetWords(x, begin + 12 + index * ROW, `${turn}`, { size: 8.5, bold: true })}${line(begin + 16 + index * ROW)}`); // prettier-ignore
    const more = bag.places.length > ROWS_BESIDE ? sheetWords(x, bottom + 8, 'more overleaf', { size: 7.5 }) : '';
    return `${boxes.join('')}${heads.join('')}${line(begin + 3)}${rows.join('')}${more}`;
  };
}

/** A page for each bag: its planned cores on the plan, to scale, and a list to write on. A walk without a device. */
function fieldSheetPdf(
  site: { readonly name: string; readonly place: string | null },
  plan: DrawingAnswer,
  bags: readonly BagAnswer[],
  by: string,
  units: UnitSystem,
): Promise<Buffer> {
  const { width, height } = sheetSize(units);
  const pages = bags.flatMap((bag, index): Content[] => {
    const inTurn = { ...bag, places: [...bag.places].sort((one, other) => one.turn - other.turn) };
    const placed = inTurn.places.flatMap(({ place, turn }) => (place ? [{ at: place, text: `${turn}` }] : []));
    const told = `${bag.zoneNames.join(', ')}: ${bag.cores} cores to ${present('depth', bag.depth, units).text}, ${bag.purpose}. ${by}.`;
    const { svg } = drawingSheet({ ...site, place: null }, plan, told, units, {
      title: `bag ${writeBagCode(bag.code)}`,
      zoneIds: bag.zoneIds,
      places: placed,
      way: placed.map(({ at }) => at),
      beside: list(inTurn, units),
    });
    const title = `Bag ${writeBagCode(bag.code)}`;
    const page = drawnPage(title, svg, width, index > 0 ? { pageBreak: 'before' } : {});
    const rest = inTurn.places.slice(ROWS_BESIDE);
    return rest.length === 0
      ? [page]
      : [
          page,
          {
            text: `${title}, more cores`,
            font: 'Bitter',
            fontSize: 14,
            margin: [36, 36, 36, 6],
            pageBreak: 'before',
          },
          {
            margin: [36, 0],
            layout: { ...rules, paddingTop: () => 5, paddingBottom: () => 5 },
            table: {
              headerRows: 1,
              widths: [40, 100, 100, '*'],
              body: [
                ['Core', 'Pushed', 'Came up', 'Moisture, note'].map(head),
                ...rest.map(({ turn }) => [cell(`${turn}`), cell(''), cell(''), cell('')]),
              ],
            },
          },
        ];
  });
  return bytesOf({
    title: `${site.name}: field sheet`,
    author: by,
    pageSize: { width, height },
    pageMargins: [0, 0, 0, 0],
    defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink },
    content: pages,
  });
}

export const fieldSheetPaper = threaded(
  import.meta.url,
  'fieldSheetPaper',
  (...given: Parameters<typeof fieldSheetPdf>): Promise<Uint8Array> => fieldSheetPdf(...given),
);
