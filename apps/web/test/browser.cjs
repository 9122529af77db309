const { TestEnvironment } = require('jest-environment-jsdom');

/** jsdom with what every browser has and jsdom leaves out. */
module.exports = class Browser extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    Object.assign(this.global, { TextEncoder, TextDecoder, structuredClone });
    this.global.matchMedia ??= () => ({
      matches: false,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    });
  }
};
