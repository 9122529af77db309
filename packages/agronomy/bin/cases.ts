import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { type CaseFile, runCase } from '../src/calculators/publishedCases.ts';

const files = process.argv.slice(2);
let passed = 0;
let failed = 0;
const fail = (line: string): void => {
  failed += 1;
  process.stdout.write(`FAIL ${line}\n`);
};

if (files.length === 0) fail('no file was given; usage: npm run -s cases -- FILE.json [FILE.json ...]');
for (const file of files) {
  let cases: CaseFile['cases'];
  try {
    // npm runs scripts in the project's folder; the file was named from where the person stood.
    const content = JSON.parse(readFileSync(resolve(process.env.INIT_CWD ?? '.', file), 'utf8')) as Partial<CaseFile>;
    if (!content.cases) throw new Error('it has no list of cases');
    cases = content.cases;
  } catch (error) {
    fail(`${file}: cannot be read: ${(error as Error).message}`);
    continue;
  }
  for (const entry of cases) {
    const { passed: ok, detail } = runCase(entry);
    const line = `${entry.calculator}: ${entry.name}`;
    if (!ok) {
      fail(`${line}: ${detail}`);
      continue;
    }
    passed += 1;
    process.stdout.write(`ok   ${line}\n`);
  }
}
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
