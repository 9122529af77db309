import { text } from 'node:stream/consumers';
import { describeCalculators, describeTables } from '../src/registry/describe.ts';
import { InputError } from '../src/calculators/fields.ts';
import { calculators, findCalculator } from '../src/registry/registry.ts';
import { referenceTables } from '../src/tables/tables.ts';
import { parseJson } from './parseJson.ts';

const USAGE = 'usage: npm run -s calc -- CALCULATOR < input.json, or npm run -s calc -- --list';

function list(): string {
  return [...calculators.values()]
    .map(({ calculator, title, inputs, outputs, source }) =>
      [
        `${calculator}: ${title}`,
        ...Object.entries(inputs).map(([name, field]) => `  in   ${name}: ${field.description}`),
        ...Object.entries(outputs).map(([name, unit]) => `  out  ${name}: ${unit}`),
        `  from ${source}`,
      ].join('\n'),
    )
    .join('\n\n');
}

const [name] = process.argv.slice(2);
try {
  if (name === '--list') {
    process.stdout.write(`${list()}\n`);
  } else if (name === '--markdown') {
    process.stdout.write(describeCalculators(calculators.values()));
  } else if (name === '--tables') {
    process.stdout.write(describeTables(referenceTables));
  } else {
    if (name === undefined) throw new InputError('calculator', `was given nothing; ${USAGE}`);
    const run = findCalculator(name);
    process.stdout.write(`${JSON.stringify(run(parseJson(await text(process.stdin), USAGE) as never))}\n`);
  }
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
}
