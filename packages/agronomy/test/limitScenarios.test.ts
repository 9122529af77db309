import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { type LimitScenarioFile, limitFaults } from '../src/advice/limitScenarios.ts';

const folder = join(import.meta.dirname, '../limit-scenarios');
const scenarios = readdirSync(folder).flatMap(
  (name) => (JSON.parse(readFileSync(join(folder, name), 'utf8')) as LimitScenarioFile).scenarios,
);

describe('what limits a lawn most', () => {
  it('is written down in at least thirty scenarios', () => {
    expect(scenarios.length).toBeGreaterThanOrEqual(30);
    expect(new Set(scenarios.map(({ name }) => name)).size).toBe(scenarios.length);
  });

  it.each(scenarios.map((scenario) => [scenario.name, scenario] as const))('%s', (_name, scenario) => {
    expect(limitFaults(scenario)).toEqual([]);
  });

  it('is told by a scenario that expects what is not so', () => {
    const [first] = scenarios;
    expect(limitFaults({ ...first!, expect: { order: ['acid severe'] } })).toHaveLength(1);
  });
});
