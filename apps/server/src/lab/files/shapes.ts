import { findHeaderRow, isAnalyte, readHeader } from '@glenfold/agronomy';

/** Cells of a file, line by line. */
export type Lines = readonly (readonly string[])[];

const isBlank = (cell: string | undefined): boolean => (cell ?? '').trim() === '';
const isNumber = (cell: string): boolean => /^[<>]?\s*\d/.test(cell.trim());
const fieldsOf = (headings: readonly string[]) => readHeader(headings).columns;
const reads = (cell: string): boolean => {
  const field = fieldsOf([cell])[0]?.field;
  return field != null && isAnalyte(field);
};

const NAMES = /^(analyte|parameter|determinand|determination|test|element|property|component)s?( name)?$/i;
const RESULTS = /^(result|value|reading|measured|amount)s?( value)?$/i;
const UNITS = /^(unit|uom)s?( of measure)?$/i;

/** One line an analyte, as laboratories' own systems give them out: turned into one line a sample; nothing where it is not so. */
export function pivoted(lines: Lines): { readonly lines: Lines; readonly above: Lines } | undefined {
  const headerRow = lines
    .slice(0, 20)
    .findIndex((cells) => cells.some((cell) => NAMES.test(cell.trim())) && cells.some((cell) => RESULTS.test(cell.trim())));
  const headings = lines[headerRow];
  if (!headings) return undefined;
  const at = (pattern: RegExp): number => headings.findIndex((cell) => pattern.test(cell.trim()));
  const [name, result, unit] = [at(NAMES), at(RESULTS), at(UNITS)];
  const others = headings.flatMap((_, index) => ([name, result, unit].includes(index) ? [] : [index]));
  const label = others.find((index) => fieldsOf([headings[index]!])[0]?.field === 'label');
  if (label === undefined) return undefined;
  const columns = new Map<string, number>();
  const samples = new Map<string, Map<string, string>>();
  for (const cells of lines.slice(headerRow + 1)) {
    const sample = cells[label]?.trim() ?? '';
    if (sample === '' || isBlank(cells[name])) continue;
    const known = samples.get(sample) ?? new Map<string, string>();
    samples.set(sample, known);
    const heading = `${cells[name]!.trim()} ${unit < 0 ? '' : (cells[unit]?.trim() ?? '')}`.trim();
    if (!columns.has(heading)) columns.set(heading, columns.size);
    known.set(heading, cells[result]?.trim() ?? '');
    for (const index of others) if (!known.has(headings[index]!)) known.set(headings[index]!, cells[index]?.trim() ?? '');
  }
  const heads = [...others.map((index) => headings[index]!), ...columns.keys()];
  return {
    above: lines.slice(0, headerRow),
    lines: [heads, ...[...samples.values()].map((sample) => heads.map((head) => sample.get(head) ?? ''))],
  };
} // prettier-ignore

/** One column a sample and one line an analyte: turned about; nothing where it is not so. */
export function turned(lines: Lines): Lines | undefined {
  const first = lines.findIndex((cells) => reads(cells[0] ?? ''));
  const block = lines.slice(Math.max(0, first - 3)).filter((cells) => !isBlank(cells[0]) || cells.length > 1);
  if (first < 0 || block.filter((cells) => reads(cells[0] ?? '')).length < 3) return undefined;
  const width = Math.max(...block.map((cells) => cells.length));
  const about = Array.from({ length: width }, (_, column) => block.map((cells) => cells[column] ?? ''));
  const [names = [], ...rest] = about;
  // A column of units belongs to the names; the row of samples' names may have none of its own.
  const units = rest.findIndex((column) => column.filter((cell) => !isBlank(cell)).every((cell) => !isNumber(cell)) && column.some((cell) => /ppm|mg|meq|mol|%|lb|kg/i.test(cell)));
  const labelRow = block.findIndex((cells) => fieldsOf([cells[0] ?? ''])[0]?.field === 'label');
  const aboveFirst = block.findIndex((cells) => reads(cells[0] ?? '')) - 1;
  const headings = names.map((name, index) =>
    labelRow < 0 && index === aboveFirst ? 'Sample' : `${name} ${units < 0 ? '' : (rest[units]![index] ?? '')}`.trim(),
  );
  return [headings, ...rest.filter((_, index) => index !== units)];
} // prettier-ignore

const unitLike =
  /ppm|mg\s*\/|meq|c?mol|%|percent|lbs?\b|kg\b|dS|mmho|\bcm\b|inch|1\s*:\s*[125]|mehlich|bray|olsen|\bm-?[13]\b|buffer|water|sat/i;

/** Units and methods that stand in a line of their own under or over the names: joined to them. */
export function joinedHead(lines: Lines, headerRow: number): { readonly headings: readonly string[]; readonly body: number } {
  const names = lines[headerRow]!;
  const under = lines[headerRow + 1] ?? [];
  const isUnits =
    under.some((cell) => unitLike.test(cell)) &&
    under.every((cell) => isBlank(cell) || !/\d/.test(cell.replace(/1\s*:\s*[125]|100|1,?000|m-?[13]|mehlich-?\s*[13]|p-?1/gi, ''))) &&
    fieldsOf(under).filter(({ field }) => field !== null).length < 2;
  const over = lines[headerRow - 1] ?? [];
  const groups: string[] = [];
  if (isBlank(over[0]) && over.some((cell, index) => index > 0 && unitLike.test(cell)))
    names.forEach((_, index) => (groups[index] = isBlank(over[index]) ? (groups[index - 1] ?? '') : over[index]!.trim()));
  const headings = names.map((name, index) =>
    isBlank(name) ? name : [groups[index] ?? '', name.trim(), isUnits ? (under[index]?.trim() ?? '') : ''].filter(Boolean).join(' '),
  );
  return { headings, body: headerRow + (isUnits ? 2 : 1) };
} // prettier-ignore

/** Between a name and what is told of it: a colon, a tab, dots, or wide space. */
const BETWEEN = /[:\t]|\.\.|\s\s/;

/** "Soil pH: 5.8", "Potassium (K) .... 95 ppm", "Soil pH 5.8": the name and what is told of it. */
function pairOf(line: string): readonly [name: string, told: string] | undefined {
  const text = line.trim();
  const between = text.search(BETWEEN);
  const at = between > 0 ? between : text.search(/\s[<>\d]/);
  if (at <= 0 || at > 50) return undefined;
  const told = text.slice(at).replace(/^[:.\s]+/, '');
  return told === '' ? undefined : [text.slice(0, at).trim(), told];
}

/** "Soil pH: 5.8" and so on: one sample after another, as text beside text; nothing where it is not so. */
export function paired(text: string): Lines | undefined {
  const samples = [new Map<string, string>()];
  for (const line of text.split(/\r?\n/)) {
    const [name = '', told = ''] = pairOf(line) ?? [];
    if (name === '' || /[\d<>]/.test(name.charAt(0))) continue;
    const field = fieldsOf([name])[0]?.field ?? null;
    if (field === null) continue;
    const [number] = /^[<>]?\s?\d[\d.,]*/.exec(told) ?? [];
    const isValue = isAnalyte(field) || field === 'depth';
    if (isValue && !number) continue;
    const after = told.slice(number?.length ?? 0).trim();
    const unit = isValue ? (/^\S+(?:\s?(?:\/|per)\s?\S+)?/.exec(after)?.[0] ?? '') : '';
    const heading = unit !== '' && unitLike.test(unit) ? `${name} ${unit}` : name;
    let sample = samples.at(-1)!;
    if ([...sample.keys()].some((known) => fieldsOf([known])[0]?.field === field)) {
      // Said again: the next sample begins where a label, or the first of its values, comes again.
      if (field !== 'label' && field !== fieldsOf([[...sample.keys()][0]!])[0]?.field) continue;
      samples.push((sample = new Map<string, string>()));
    }
    sample.set(heading, isValue ? number! : told.split(/\s{2,}/)[0]!);
  }
  const read = samples.filter((sample) => [...sample.keys()].filter(reads).length >= 3);
  const headings = [...new Set(read.flatMap((sample) => [...sample.keys()]))];
  return read.length > 0 && findHeaderRow([headings]) === 0
    ? [headings, ...read.map((sample) => headings.map((heading) => sample.get(heading) ?? ''))]
    : undefined;
}
