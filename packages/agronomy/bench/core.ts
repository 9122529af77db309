// npm run bench -- core: how fast the calculators are, as ratios to parsing the same input as JSON in the same run.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readFields } from '../src/calculators/fields.ts';
import type { CaseFile } from '../src/registry/publishedCases.ts';
import { calculators } from '../src/registry/registry.ts';
import { line, many, ratio } from './timing.ts';

const folder = join(import.meta.dirname, '../cases');
const cases = readdirSync(folder).flatMap(
  (name) => (JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile).cases,
);
const samplesOf = (name: string): readonly unknown[] =>
  cases.filter((entry) => entry.calculator === name && entry.expect).map(({ input }) => input);
for (const [name, calculator] of calculators) {
  const [sample] = samplesOf(name);
  line(name, () => calculator(sample as never), sample);
}

/** Inputs read once, and a book that keeps nothing: what one more run of a search costs. */
const alone = [...calculators]
  .map(([name, calculator]) => {
    const [sample] = samplesOf(name);
    const read = readFields(calculator.inputs, sample);
    return {
      name,
      times: ratio(
        () => calculator.numbers(read),
        () => calculator(sample as never),
      ),
    };
  })
  .sort((one, other) => one.times - other.times);
const mean = Math.exp(alone.reduce((sum, each) => sum + Math.log(each.times), 0) / alone.length);
process.stdout.write(
  `for the numbers alone a calculator runs ${mean.toFixed(1)} × as often (geometric mean); least: ${alone
    .slice(0, 5)
    .map((each) => `${each.name} ${each.times.toFixed(1)}`)
    .join(', ')}\n`,
);

const ZONES = many(50);
/** What a whole site asks of the core: every calculator for every zone, each zone with another of the cases. */
const everything = [...calculators].flatMap(([name, calculator]) => {
  const samples = samplesOf(name);
  return Array.from({ length: ZONES }, (_, zone) => ({ calculator, input: samples[zone % samples.length] }));
});
line(
  `a site, ${ZONES} zones × ${calculators.size} calculators`,
  () => everything.map(({ calculator, input }) => calculator(input as never)),
  everything.map(({ input }) => input),
);
