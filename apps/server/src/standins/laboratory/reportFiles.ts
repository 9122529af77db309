import papaparse from 'papaparse';

/** One line of a report: heads with their cells. Empty cells were not found out. */
export interface PrintedSample {
  readonly code: string;
  readonly labNumber: string;
  readonly sampledOn: string;
  /** cm */
  readonly depth: number;
  readonly cells: ReadonlyArray<{
    readonly name: string;
    readonly unit: string;
    readonly text: string;
    /** The laboratory's word for it. */
    readonly word?: string;
  }>;
}

export interface PrintedReport {
  readonly laboratory: string;
  readonly number: string;
  readonly day: string;
  readonly client: string;
  readonly extractant: string;
  readonly buffer: string;
  /** Number of the report whose place it takes. */
  readonly amends: string | null;
  readonly samples: readonly PrintedSample[];
}

interface ReportFile {
  readonly fileName: string;
  readonly content: string;
}

type PrintedCell = PrintedSample['cells'][number];

/** What stands over the columns: bags of one report can be of different panels. */
const heads = ({ samples }: PrintedReport): PrintedCell[] => [
  ...new Map(samples.flatMap(({ cells }) => cells).map((cell) => [cell.name, cell])).values(),
];
/** The report as a table: heads over samples, each word in a column behind its number. @param none what stands for nothing */
function tableOf(report: PrintedReport, first: readonly [string, string, string, string], none: string): string[][] {
  const head = heads(report);
  return [
    [
      ...first,
      ...head.flatMap(({ name: analyte, unit, word }) => [
        `${analyte} ${unit}`.trim(),
        ...(word === undefined ? [] : [`${analyte} rating`]),
      ]),
    ],
    ...report.samples.map(({ code, labNumber, sampledOn, depth, cells }) => [
      code,
      labNumber,
      sampledOn,
      depth.toFixed(1),
      ...head.flatMap(({ name: analyte, word }) => {
        const cell = cells.find((own) => own.name === analyte);
        return [cell?.text || none, ...(word === undefined ? [] : [cell?.word ?? ''])];
      }),
    ]),
  ];
}
const slug = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '-');
const name = ({ laboratory, number, amends }: PrintedReport, ending: string): string =>
  `${slug(laboratory.split(' ').slice(0, 2).join(' '))}-${slug(number)}${amends ? '-amended' : ''}.${ending}`;

/** A table of semicolons under lines of its own; the words stand in columns behind their numbers. */
export function asCsv(report: PrintedReport): ReportFile {
  const { laboratory, number, day, client, extractant, buffer, amends } = report;
  const table = tableOf(report, ['Bag', 'Lab no', 'Taken', 'Depth cm'], 'not tested');
  const above = [
    [laboratory],
    [`Report ${number} of ${day}`],
    ...(amends ? [[`AMENDED: takes the place of report ${amends}`]] : []),
    [`Client: ${client}`],
    [`Extractant ${extractant}, ${buffer} buffer. Results by weight of dry soil.`],
    [''],
  ];
  return {
    fileName: name(report, 'csv'),
    content: papaparse.unparse([...above, ...table], { delimiter: ';', escapeFormulae: true }),
  };
}

/** Numbers with their unit and word beside them. */
export function asJson(report: PrintedReport): ReportFile {
  const { laboratory, number, day, client, extractant, buffer, amends, samples } = report;
  const content = {
    laboratory,
    report: { number, issued: day, ...(amends ? { amends } : {}) },
    customer: client,
    methods: { extraction: extractant, buffer },
    samples: samples.map(({ code, labNumber, sampledOn, depth, cells }) => ({
      sample: code,
      'lab number': labNumber,
      'date taken': sampledOn,
      depth: { value: Number(depth.toFixed(1)), unit: 'cm' },
      ...Object.fromEntries(
        cells.map(({ name: analyte, unit, text, word }) => {
          const value = /^-?[\d.]+$/.test(text) ? Number(text) : text || null;
          return [
            analyte,
            unit || word ? { value, ...(unit ? { unit } : {}), ...(word ? { rating: word } : {}) } : value,
          ];
        }),
      ),
    })),
  };
  return { fileName: name(report, 'json'), content: `${JSON.stringify(content, null, 2)}\n` };
}

/** Columns as wide as what stands in them, under a rule. */
export function asFixedWidth(report: PrintedReport): ReportFile {
  const { laboratory, number, day, client, extractant, buffer, amends } = report;
  const [head = [], ...samples] = tableOf(report, ['Sample', 'Lab no', 'Taken', 'Depth cm'], '-');
  const rows = [head.map((text) => text.toUpperCase()), ...samples];
  const widths = rows[0]!.map((_, column) => Math.max(...rows.map((row) => row[column]!.length)));
  const line = (cells: readonly string[]): string =>
    cells
      .map((text, column) => text.padEnd(widths[column]!))
      .join('  ')
      .trimEnd();
  const lines = [
    `${laboratory.toUpperCase()}     REPORT ${number}     ${day}`,
    ...(amends ? [`THIS REPORT REPLACES ${amends}`] : []),
    `CLIENT   ${client}`,
    `METHODS  ${extractant}; ${buffer} buffer`,
    '',
    line(rows[0]!),
    line(widths.map((width) => '-'.repeat(width))),
    ...samples.map(line),
  ];
  return { fileName: name(report, 'txt'), content: `${lines.join('\n')}\n` };
}
