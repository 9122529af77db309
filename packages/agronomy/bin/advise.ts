import { text } from 'node:stream/consumers';
import { advise } from '../src/advice/advise.ts';
import { InputError } from '../src/calculators/fields.ts';
import { genericCatalogue } from './catalogue.ts';
import { parseJson } from './parseJson.ts';

try {
  const report = parseJson(await text(process.stdin), 'usage: npm run -s advise < report.json');
  process.stdout.write(`${JSON.stringify(advise(report, genericCatalogue()))}\n`);
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
}
