import { type Scenario, runScenario } from '../src/advice/scenarios.ts';
import { genericCatalogue, genericShelf } from './catalogue.ts';
import { runFiles } from './files.ts';

const catalogue = genericCatalogue();
const shelf = genericShelf();
runFiles<Scenario>(
  'scenarios',
  'scenarios',
  ({ name }) => name,
  (scenario) => runScenario(scenario, catalogue, shelf),
);
