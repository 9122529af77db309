import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';

/**
 * Run the entries of files and print a line each; exits 1 when one fails.
 *
 * @param key the name of the list in a file; `run` the faults of an entry, none when it passes.
 */
export function runFiles<T>(
  command: string,
  key: string,
  name: (entry: T) => string,
  run: (entry: T) => readonly string[],
): void {
  const files = process.argv.slice(2);
  let passed = 0;
  let failed = 0;
  const fail = (line: string): void => {
    failed += 1;
    process.stdout.write(`FAIL ${line}\n`);
  };
  if (files.length === 0) fail(`no file was given; usage: npm run -s ${command} -- FILE.json [FILE.json ...]`);
  for (const file of files) {
    let entries: readonly T[];
    try {
      // npm runs scripts in the project's folder; the file was named from where the person stood.
      const content = JSON.parse(readFileSync(resolve(process.env.INIT_CWD ?? '.', file), 'utf8')) as Readonly<
        Record<string, readonly T[] | undefined>
      >;
      const list = content[key];
      if (!Array.isArray(list)) throw new Error(`it has no list of ${key}`);
      entries = list;
    } catch (error) {
      fail(`${file}: cannot be read: ${(error as Error).message}`);
      continue;
    }
    for (const entry of entries) {
      const faults = run(entry);
      if (faults.length > 0) {
        fail(`${name(entry)}: ${faults.join('; ')}`);
        continue;
      }
      passed += 1;
      process.stdout.write(`ok   ${name(entry)}\n`);
    }
  }
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  process.exitCode = failed === 0 ? 0 : 1;
}
