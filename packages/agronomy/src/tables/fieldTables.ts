import { troubleRules } from '../trouble/trouble.ts';
import { samplingTables } from '../sampling/designTables.ts';
import { capital, known, table } from './table.ts';

export const ofSampling = [
  table(
    'Sampling',
    'How much single cores of one zone vary',
    samplingTables,
    ['Analyte', 'Coefficient of variation, %'],
    samplingTables.variation.map(({ analyte, cv }) => [capital(analyte), known(cv)]),
  ),
  table(
    'Sampling',
    'How long to wait before taking soil',
    samplingTables,
    ['After', 'Weeks at least', 'Better'],
    samplingTables.waits.map(({ kind, weeks, better }) => [capital(kind), known(weeks), known(better)]),
  ),
  table(
    'Sampling',
    'What the laboratory’s panels answer',
    samplingTables,
    ['Panel', 'Analytes', 'Answers', 'Says nothing on'],
    samplingTables.panels.map(({ name, analytes, answers, silent }) => [capital(name), analytes, answers, silent]),
  ),
];

export const ofTrouble = [
  table(
    'Trouble',
    'What points at which cause',
    troubleRules,
    ['Cause', 'Speaks for it', 'Speaks against it', 'Cheapest check'],
    troubleRules.causes.map(({ label, evidence, check }) => {
      const told = (speaks: (weight: number) => boolean): string =>
        evidence.flatMap(({ weight, words }) => (speaks(weight) ? [`${words} (${Math.abs(weight)})`] : [])).join('; ');
      return [label, told((weight) => weight > 0), told((weight) => weight < 0) || '–', check.what];
    }),
  ),
];
