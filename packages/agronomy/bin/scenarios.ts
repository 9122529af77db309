import { type Scenario, runScenario } from '../src/advice/scenarios.ts';
import { genericCatalogue } from './catalogue.ts';
import { runFiles } from './files.ts';

const catalogue = genericCatalogue();
runFiles<Scenario>(
  'scenarios',
  'scenarios',
  ({ name }) => name,
  (scenario) => runScenario(scenario, catalogue),
);
