import type { ReferenceTable } from '../tables/tables.ts';
import type { Calculator } from '../calculators/calculator.ts';

const cell = (text: string): string => text.replaceAll('|', '\\|');

/** The page on every public calculator, made from what each says of itself. */
export function describeCalculators(calculators: Iterable<Calculator>): string {
  const sections = [...calculators].map(({ calculator, title, inputs, outputs, source }) =>
    [
      `## ${calculator}`,
      '',
      `${title}. Source: ${source}.`,
      '',
      '| input | |',
      '| --- | --- |',
      ...Object.entries(inputs).map(([name, { description }]) => `| \`${name}\` | ${cell(description)} |`),
      '',
      '| result | |',
      '| --- | --- |',
      ...Object.entries(outputs).map(([name, unit]) => `| \`${name}\` | ${cell(unit)} |`),
    ].join('\n'),
  );
  return [
    '# Calculators',
    '',
    'Every public calculator of the core, as it describes itself. Made by `npm run calc -- --markdown`; a test keeps this page fresh. An amount may be a number in the unit named, or a text with its own unit, such as `"8 in"`.',
    '',
    sections.join('\n\n'),
    '',
  ].join('\n');
}

/** The page on every table of coefficients, with where each comes from. */
export function describeTables(tables: readonly ReferenceTable[]): string {
  const line = (cells: readonly string[]): string => `| ${cells.map(cell).join(' | ')} |`;
  const sections = tables.map(({ title, source, basis, region, date, columns, rows }, index) =>
    [
      ...(tables[index - 1]?.subject === tables[index]?.subject ? [] : [`## ${tables[index]?.subject}`, '']),
      `### ${title}`,
      '',
      `${source}. Basis: ${basis}. Region: ${region}; ${date}.`,
      '',
      line(columns),
      line(columns.map(() => '---')),
      ...rows.map(line),
    ].join('\n'),
  );
  return [
    '# Tables',
    '',
    'Every table of coefficients that the core calculates with. Made by `npm run -s calc -- --tables`; a test keeps this page fresh. Bands printed in whole numbers hold what rounds to their ends; with decimals the lower end belongs to them, the upper does not. A limit with * is not of the source: very low is then half of the bottom of medium, very high twice its top.',
    '',
    sections.join('\n\n'),
    '',
  ].join('\n');
}
