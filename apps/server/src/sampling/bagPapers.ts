import { type UnitSystem, findGrass, grassWords, present, writeBagCode } from '@glenfold/agronomy';
import {
  type BagAnswer,
  type LabelSheet,
  type ZoneAnswer,
  colours,
  labelSheets,
  newestFirst,
} from '@glenfold/contract';
import papaparse from 'papaparse';
import type { Content } from 'pdfmake/interfaces.js';
import { bytesOf, cell, footer, head, plain, rules } from '../platform/paper.ts';
import { threaded } from '../platform/threaded.ts';

const POINTS = 72 / 25.4;

/** Labels to stick on bags: the code to read and to scan, whose soil it is, how deep. */
function labelsPdf(bags: readonly BagAnswer[], sheet: LabelSheet, units: UnitSystem, by: string): Promise<Buffer> {
  const { page, label, columns, rows, left, top } = labelSheets[sheet];
  const [width, height] = label;
  const perPage = columns * rows;
  const small = height < 30;
  const square = Math.min(height - 6, 24);
  const content = bags.flatMap((bag, index): Content[] => {
    const at = index % perPage;
    const x = (left + (at % columns) * width + 3) * POINTS;
    const y = (top + Math.floor(at / columns) * height + 3) * POINTS;
    const room = (width - square - 9) * POINTS;
    const code = writeBagCode(bag.code);
    const lines: Content[] = [
      { text: code, fontSize: small ? 13 : 16, bold: true, font: 'Bitter', color: colours.ink },
      { text: short(plain(bag.siteName), room, small ? 7.5 : 9), fontSize: small ? 7.5 : 9, bold: true },
      { text: short(plain(bag.zoneNames.join(', ')), 2 * room, small ? 7.5 : 9), fontSize: small ? 7.5 : 9 },
      {
        text: `${present('depth', bag.depth, units).text}, ${bag.cores} cores, ${bag.purpose}`,
        fontSize: small ? 6.5 : 8,
      },
    ];
    return [
      {
        qr: bag.code,
        fit: square * POINTS,
        foreground: colours.ink,
        absolutePosition: { x, y },
        ...(index > 0 && at === 0 ? { pageBreak: 'before' as const } : {}),
      },
      {
        absolutePosition: { x: x + (square + 2.5) * POINTS, y },
        table: { widths: [room], body: lines.map((line) => [line]) },
        layout: {
          hLineWidth: () => 0,
          vLineWidth: () => 0,
          paddingLeft: () => 0,
          paddingRight: () => 0,
          paddingTop: () => 0,
          paddingBottom: () => 0.5,
        },
      },
    ];
  });
  return bytesOf({
    title: `Labels of bags: ${bags.map(({ code }) => code).join(', ')}`,
    author: by,
    pageSize: { width: page[0] * POINTS, height: page[1] * POINTS },
    pageMargins: [0, 0, 0, 0],
    defaultStyle: { font: 'Atkinson', color: colours.ink },
    content,
  });
}

/** As much of a text as fits, by the middling width of a letter. */
function short(text: string, room: number, size: number): string {
  const letters = Math.floor(room / (size * 0.5));
  return text.length <= letters ? text : `${text.slice(0, letters - 1)}…`;
}

/** What a laboratory asks of one bag. */
export interface SubmittedBag {
  readonly code: string;
  readonly labNumber: string | null;
  readonly site: string;
  readonly zones: string;
  /** m² */
  readonly area: number;
  readonly grass: string;
  readonly grassWanted: string;
  readonly lastFertilizer: string | null;
  readonly sampledOn: string | null;
  /** cm */
  readonly depth: number;
  readonly cores: number;
  readonly purpose: string;
  readonly panels: readonly string[];
  readonly laboratory: string | null;
  /** What the laboratory asks for it; nothing where that is not known, or not for the one who asks. */
  readonly fee: number | null;
}

/** When the last core of a bag was taken. */
export function lastOf(places: BagAnswer['places']): Date | null {
  const last = places
    .flatMap(({ at }) => at ?? [])
    .sort()
    .at(-1);
  return last === undefined ? null : new Date(last);
}

/** What is known of a bag, as a submission form asks for it. @param sampledOn the day there on which it was filled */
export function submitted(
  bag: BagAnswer,
  zones: readonly ZoneAnswer[],
  fee: number | null,
  sampledOn: string | null,
): SubmittedBag {
  const own = zones.filter(({ id }) => bag.zoneIds.includes(id));
  const grass = [...new Set(own.map((zone) => grassWords(zone.grass)))].join(', ');
  const fertilizer = newestFirst(own.flatMap(({ applied }) => applied).filter(({ kind }) => kind === 'fertilizer')).at(
    0,
  );
  return {
    code: writeBagCode(bag.code),
    labNumber: bag.labNumber,
    site: bag.siteName,
    zones: bag.zoneNames.join(', '),
    area: own.reduce((sum, { area }) => sum + area, 0),
    grass,
    grassWanted: bag.grassWanted ? findGrass(bag.grassWanted).label : grass,
    lastFertilizer: fertilizer ? `${fertilizer.words}, ${fertilizer.on}` : null,
    sampledOn,
    depth: bag.depth,
    cores: bag.cored,
    purpose: bag.purpose,
    panels: bag.panels,
    laboratory: bag.laboratory,
    fee,
  };
}

/** For laboratories that take JSON; units stand in the names. */
export function submissionJson(bags: readonly SubmittedBag[], from: string): string {
  const samples = bags.map(({ area, depth, fee: _fee, ...bag }) => ({
    ...bag,
    areaSquareMetres: Math.round(area),
    depthCentimetres: depth,
  }));
  return `${JSON.stringify({ from, samples }, null, 2)}\n`;
}

/** For laboratories that take files; units stand in the heads. */
export function submissionCsv(bags: readonly SubmittedBag[]): string {
  return papaparse.unparse(
    bags.map((bag) => ({
      sample: bag.code,
      'lab number': bag.labNumber ?? '',
      laboratory: bag.laboratory ?? '',
      site: bag.site,
      zones: bag.zones,
      'area m2': Math.round(bag.area),
      'grass now': bag.grass,
      'grass wanted': bag.grassWanted,
      'last fertilizer': bag.lastFertilizer ?? '',
      'sampled on': bag.sampledOn ?? '',
      'depth cm': bag.depth,
      cores: bag.cores,
      purpose: bag.purpose,
      panels: bag.panels.join('; '),
    })),
    { escapeFormulae: true },
  );
}

const form = (bags: readonly SubmittedBag[], from: string, laboratory: string | null, units: UnitSystem): Content[] => {
  const row = (bag: SubmittedBag) =>
    [
      bag.code,
      bag.labNumber ?? '',
      `${bag.site}\n${bag.zones}`,
      present('area', bag.area, units).text,
      bag.grass === bag.grassWanted ? bag.grass : `${bag.grass}; to be ${bag.grassWanted}`,
      bag.lastFertilizer ?? 'not known',
      bag.sampledOn ?? 'not known',
      `${present('depth', bag.depth, units).text}, ${bag.cores} cores`,
      `${bag.panels.join(', ')}${bag.fee === null ? '' : `\n${present('money', bag.fee, units).text}`}`,
    ].map((text) => cell(text));
  const fees = bags.flatMap(({ fee }) => fee ?? []);
  const total = fees.reduce((sum, fee) => sum + fee, 0);
  const heads = ['Sample', 'Lab number', 'Site and zone', 'Area', 'Grass', 'Last fertilizer', 'Sampled', 'Depth', 'Panels']; // prettier-ignore
  return [
    {
      text: `From ${plain(from)}${laboratory ? ` to ${plain(laboratory)}` : ''}. ${bags.length} ${bags.length === 1 ? 'bag' : 'bags'}. Air-dried, not heated. The sign on each bag is its sample number: please report by it.`,
      margin: [0, 4, 0, 10],
    },
    {
      layout: rules,
      table: {
        headerRows: 1,
        widths: [52, 58, '*', 62, 72, 92, 56, 74, 92],
        body: [heads.map(head), ...bags.map(row)],
      },
    },
    ...(fees.length === bags.length
      ? [
          {
            text: `Fees for ${bags.length === 1 ? 'this bag' : `these ${bags.length} bags`} together: ${present('money', total, units).text}`,
            bold: true,
            margin: [0, 8, 0, 0] as [number, number, number, number],
          },
        ]
      : []),
  ];
};

/** The form that lies in the parcel, a page for each laboratory. */
function submissionPdf(
  bags: readonly SubmittedBag[],
  from: string,
  units: UnitSystem,
  addresses: ReadonlyMap<string, string | null> = new Map(),
): Promise<Buffer> {
  const laboratories = [...new Set(bags.map(({ laboratory }) => laboratory))];
  return bytesOf({
    title: 'Soil samples for the laboratory',
    author: from,
    pageSize: units === 'us' ? 'LETTER' : 'A4',
    pageOrientation: 'landscape',
    pageMargins: [36, 36, 36, 40],
    defaultStyle: { font: 'Atkinson', fontSize: 9, color: colours.ink },
    footer,
    content: laboratories.flatMap((laboratory, index): Content[] => [
      {
        text: 'Soil samples for the laboratory',
        font: 'Bitter',
        fontSize: 16,
        ...(index > 0 ? { pageBreak: 'before' as const } : {}),
      },
      ...form(
        bags.filter((bag) => bag.laboratory === laboratory),
        from,
        laboratory &&
          [
            laboratory,
            addresses
              .get(laboratory)
              ?.split('\n')
              .map((line) => line.trim())
              .join(', '),
          ]
            .filter(Boolean)
            .join(', '),
        units,
      ),
    ]),
  });
}

export const labelsPaper = threaded(
  import.meta.url,
  'labelsPaper',
  (...given: Parameters<typeof labelsPdf>): Promise<Uint8Array> => labelsPdf(...given),
);

export const submissionPaper = threaded(
  import.meta.url,
  'submissionPaper',
  (...given: Parameters<typeof submissionPdf>): Promise<Uint8Array> => submissionPdf(...given),
);
