import { TestEnvironment } from 'jest-environment-node';

/**
 * Node, with the application as it is built: loaded by Node itself, once for all test files of a worker, and not anew by
 * Jest for each. `builtModule.mjs` sends the imports of the tests here.
 */
export default class BuiltEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    this.global.importBuilt = (url) => import(url);
  }
}
