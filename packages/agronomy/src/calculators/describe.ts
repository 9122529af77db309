import type { Calculator } from './calculator.ts';

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
