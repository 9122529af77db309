const shared = {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
          target: 'es2022',
          experimental: { keepImportAttributes: true },
        },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: {
    '^@glenfold/agronomy$': '<rootDir>/packages/agronomy/src/index.ts',
    '^@glenfold/contract$': '<rootDir>/packages/contract/src/index.ts',
  },
};

/** Unit tests, and integration tests of the server against a real PostgreSQL. */
export default {
  projects: [
    {
      ...shared,
      displayName: 'core',
      rootDir: import.meta.dirname,
      testMatch: ['<rootDir>/packages/*/test/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'server',
      rootDir: import.meta.dirname,
      testMatch: ['<rootDir>/apps/server/test/**/*.test.ts'],
    },
  ],
};
