const { TestEnvironment } = require('jest-environment-jsdom');

/** jsdom with what every browser has and jsdom leaves out, of somebody who wants nothing to move. */
module.exports = class Browser extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    Object.assign(this.global, { TextEncoder, TextDecoder, structuredClone });
    this.global.matchMedia ??= (query) => ({
      matches: query.includes('prefers-reduced-motion'),
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    });
  }
};
