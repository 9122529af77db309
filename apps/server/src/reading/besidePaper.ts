import type { BesideCell, BesideRow, UnitSystem } from '@glenfold/agronomy';
import { SHADE, type Shade, type SiteReadingsAnswer, type ZoneGeometry, colours, planShades, shadeOf, shadedPlan } from '@glenfold/contract'; // prettier-ignore
import type { Content, TableCell } from 'pdfmake/interfaces.js';
import { bytesOf, cell, plain } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';

/** All zones of a site as they go on one page. */
export interface BesidePage {
  readonly practice: string;
  readonly site: string;
  readonly place: string | null;
  readonly on: string;
  readonly units: UnitSystem;
  readonly readings: SiteReadingsAnswer;
  readonly outlines: ReadonlyArray<{ readonly zoneId: string; readonly geometry: ZoneGeometry | null }>;
  /** Key of the measure that the drawing is shaded by. */
  readonly shaded: string | undefined;
}

const PLAN = { width: 210, height: 120 } as const;
/** Zones that stand as columns; more stand as rows, so that all are on one page. */
const MOST_COLUMNS = 14;
/** Rows of zones that an A4 or Letter page holds; more take the next larger sheet. */
const MOST_ROWS = 34;

const patternOf = ({ name, strokes, ink }: Shade): string =>
  `<pattern id="${name}" width="${SHADE}" height="${SHADE}" patternUnits="userSpaceOnUse"><path d="${strokes}" fill="none" stroke="${ink}" stroke-width="0.8"/></pattern>`;

/** The drawing shaded by a measure, zones numbered as in the table. */
function planSvg({ outlines }: BesidePage, row: BesideRow | undefined): string | undefined {
  const shapes = shadedPlan(outlines, PLAN);
  if (shapes.length === 0) return undefined;
  const drawn = shapes.map(({ zoneId, path, at: [x, y] }) => {
    const { ground, strokes, name } = shadeOf(row?.cells.find((one) => one?.zoneId === zoneId)?.bar);
    const number = outlines.findIndex((one) => one.zoneId === zoneId) + 1;
    const hatch = strokes === '' ? 'none' : `url(#${name})`;
    return `<path d="${path}" fill="${ground}" fill-rule="evenodd"/><path d="${path}" fill="${hatch}" fill-rule="evenodd" stroke="${colours.ink}" stroke-width="0.8"/><rect x="${x - 5}" y="${y - 5.5}" width="10" height="10" fill="${colours.sheet}"/><text x="${x}" y="${y + 3}" font-family="Atkinson" font-size="8" font-weight="bold" text-anchor="middle" fill="${colours.ink}">${number}</text>`;
  });
  const patterns = Object.values(planShades)
    .filter(({ strokes }) => strokes !== '')
    .map(patternOf);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PLAN.width} ${PLAN.height}" width="${PLAN.width}" height="${PLAN.height}"><defs>${patterns.join('')}</defs><rect width="${PLAN.width}" height="${PLAN.height}" fill="${colours.sheet}" stroke="${colours.line}"/>${drawn.join('')}</svg>`;
}

/** Value, word and difference of a cell; shaded by its word and marked, so that it is read without colour. */
function valueCell(one: BesideCell | null, size: number): TableCell {
  if (!one) return cell('–', { fontSize: size, color: colours.faded });
  const { bar, told, word, difference } = one;
  const shade = shadeOf(bar);
  const mark = bar.acts ? ' !' : '';
  return {
    fillColor: shade === planShades.unknown ? undefined : shade.ground,
    stack: [
      { text: plain(`${told}${mark}`), bold: bar.acts, fontSize: size + 0.5 },
      ...(word !== null || bar.unrated
        ? [{ text: word ?? 'not rated', fontSize: size - 1, color: colours.faded }]
        : []),
      ...(difference
        ? [
            {
              text: plain(`${difference.told}${difference.differs === false ? ', chance' : ''}`),
              fontSize: size - 1,
              bold: difference.differs === true,
            },
          ]
        : []),
    ],
  };
}

type Zones = SiteReadingsAnswer['zones'];
const firstOf = ({ first }: Zones[number]): string =>
  first ? `${first.label}, ${first.standing === 'suspected' ? 'suspected' : first.degree}` : 'nothing limits';
const lineOf = ({ sampledOn }: Zones[number]): string => sampledOn ?? 'no dated test';

/** Zones as columns, measures as rows. */
function asColumns({ zones, rows }: SiteReadingsAnswer): Content {
  const size = zones.length > 9 ? 6.5 : 7.5;
  return {
    layout: thin,
    table: {
      headerRows: 1,
      widths: [96, ...zones.map(() => '*' as const)],
      body: [
        [
          cell('', { fontSize: size }),
          ...zones.map((zone, index) => ({
            stack: [
              { text: plain(`${index + 1} ${zone.name}`), bold: true, fontSize: size + 0.5 },
              { text: plain(zone.grass), fontSize: size - 1, color: colours.faded },
              { text: lineOf(zone), fontSize: size - 1, color: colours.faded },
              {
                text: plain(firstOf(zone)),
                fontSize: size - 0.5,
                bold: true,
                color: zone.first ? colours.ochre : colours.lichen,
              },
            ],
          })),
        ],
        ...rows.map((row) => [cell(row.name, { fontSize: size }), ...row.cells.map((one) => valueCell(one, size))]),
      ],
    },
  };
}

/** Zones as rows, for a site of very many. */
function asRows({ zones, rows }: SiteReadingsAnswer): Content {
  const size = 6.5;
  return {
    layout: thin,
    table: {
      headerRows: 1,
      widths: [14, 92, 74, ...rows.map(() => '*' as const)],
      body: [
        [
          cell(''),
          cell('Zone', { bold: true, fontSize: size }),
          cell('Limits most', { bold: true, fontSize: size }),
          ...rows.map(({ name }) => cell(name, { bold: true, fontSize: size - 0.5 })),
        ],
        ...zones.map((zone, index) => [
          cell(`${index + 1}`, { fontSize: size }),
          cell(zone.name, { fontSize: size, bold: true }),
          cell(firstOf(zone), { fontSize: size }),
          ...rows.map(({ cells }) => {
            const one = cells[index] ?? null;
            return one
              ? cell(`${one.told}${one.bar.acts ? ' !' : ''}`, {
                  fontSize: size,
                  bold: one.bar.acts,
                  fillColor: shadeOf(one.bar).ground,
                })
              : cell('–', { fontSize: size });
          }),
        ]),
      ],
    },
  };
}

const thin = {
  hLineWidth: () => 0.4,
  vLineWidth: () => 0.4,
  hLineColor: () => colours.line,
  vLineColor: () => colours.line,
  paddingLeft: () => 3,
  paddingRight: () => 3,
  paddingTop: () => 1.2,
  paddingBottom: () => 1.2,
};

/** All zones of a site on one page: in walking order, with the drawing shaded by one measure. */
export const besidePaper = threaded(import.meta.url, 'besidePaper', (page: BesidePage): Promise<Uint8Array> => {
  const { practice, site, place, on, units, readings, shaded } = page;
  const { zones, rows } = readings;
  const row = rows.find(({ key }) => key === shaded) ?? rows[0];
  const svg = planSvg(page, row);
  const many = zones.length > MOST_COLUMNS;
  const sheet =
    units === 'us' ? (zones.length > MOST_ROWS ? 'TABLOID' : 'LETTER') : zones.length > MOST_ROWS ? 'A3' : 'A4';
  const head: Content = {
    columns: [
      {
        stack: [
          { text: plain(site), font: 'Bitter', fontSize: 16 },
          {
            text: plain([place, practice, on].filter(Boolean).join(' · ')),
            color: colours.faded,
            margin: [0, 2, 0, 6],
          },
          {
            text: 'All zones in walking order. Warm shading and “!” ask for something, cool shading is more than wanted, plain is as wanted. Values carry the error of sampling and laboratory: a difference “, chance” is no more than two samples of one lawn differ.',
            fontSize: 8,
          },
          ...(row && svg
            ? [
                {
                  text: plain(`The drawing is shaded by: ${row.name}.`),
                  fontSize: 8,
                  margin: [0, 3, 0, 0] as [number, number, number, number],
                },
              ]
            : []),
        ],
      },
      ...(svg ? [{ svg, width: many ? 150 : PLAN.width, alignment: 'right' as const }] : []),
    ],
    columnGap: 12,
    margin: [0, 0, 0, 6],
  };
  return bytesOf({
    title: `${site}: all zones side by side`,
    author: practice,
    pageSize: sheet,
    pageOrientation: 'landscape',
    pageMargins: [28, 24, 28, 24],
    defaultStyle: { font: 'Atkinson', fontSize: 8.5, color: colours.ink },
    footer: {
      margin: [28, 6],
      fontSize: 7,
      text: 'Advice, to be weighed with local extension guidance, codes and licensed practice. The label and local law come first.',
    },
    content: [
      head,
      rows.length === 0 ? 'Nothing was measured here yet.' : many ? asRows(readings) : asColumns(readings),
    ],
  });
});
