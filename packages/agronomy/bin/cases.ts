import { type CaseFile, runCase } from '../src/registry/publishedCases.ts';
import { runFiles } from './files.ts';

runFiles<CaseFile['cases'][number]>(
  'cases',
  'cases',
  ({ calculator, name }) => `${calculator}: ${name}`,
  (entry) => {
    const { passed, detail } = runCase(entry);
    return passed ? [] : [detail];
  },
);
