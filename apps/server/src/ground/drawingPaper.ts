import { type UnitSystem, present } from '@glenfold/agronomy';
import { type DrawingAnswer, colours } from '@glenfold/contract';
import type { Content } from 'pdfmake/interfaces.js';
import { bytesOf, cell, drawnPage, head, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';
import { drawingSheet, sheetSize } from './drawingSheet.ts';

/** A site as its papers name it. */
interface Named {
  readonly name: string;
  readonly place: string | null;
  readonly practice: string;
}

/** The drawing as SVG. */
export const drawingSvg = threaded(
  import.meta.url,
  'drawingSvg',
  (site: Named, drawing: DrawingAnswer, by: string, units: UnitSystem): string =>
    drawingSheet(site, drawing, by, units).svg,
);

/** One page to scale; a second with the areas where there are more zones than fit beside the drawing. */
export const drawingPaper = threaded(
  import.meta.url,
  'drawingPaper',
  (site: Named, drawing: DrawingAnswer, by: string, units: UnitSystem): Promise<Uint8Array> => {
    const { svg, shown } = drawingSheet(site, drawing, by, units);
    const { zones } = drawing;
    const { width, height } = sheetSize(units);
    const all: Content[] =
      shown === zones.length
        ? []
        : [
            { text: 'All zones', font: 'Bitter', fontSize: 14, pageBreak: 'before', margin: [36, 36, 36, 6] },
            {
              margin: [36, 0, 36, 36],
              layout: rules,
              table: {
                headerRows: 1,
                widths: [24, '*', 120, 140],
                body: [
                  [head(''), head('Zone'), head('Bag label'), head('Area')],
                  ...zones.map(({ name, label, area }, index) => [
                    cell(`${index + 1}`),
                    cell(name),
                    cell(label),
                    cell(present('area', area, units).text),
                  ]),
                ],
              },
            },
          ];
    return bytesOf({
      title: `${site.name}: plan of the ground`,
      author: site.practice,
      pageSize: { width, height },
      pageMargins: [0, 0, 0, 0],
      defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink },
      content: [drawnPage('Plan of the ground', svg, width), ...all],
    });
  },
);
