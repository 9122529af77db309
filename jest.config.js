const swc = (tsx) => [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true, tsx },
      transform: {
        react: { runtime: 'automatic' },
        legacyDecorator: true,
        decoratorMetadata: true,
        useDefineForClassFields: false,
      },
      target: 'es2022',
      experimental: { keepImportAttributes: true },
    },
    module: { type: 'es6' },
  },
];

const project = (displayName, tests) => ({
  displayName,
  rootDir: import.meta.dirname,
  testMatch: [`<rootDir>/${tests}/**/*.test.{ts,tsx}`],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.ts$': swc(false), '^.+\\.tsx$': swc(true) },
  moduleNameMapper: {
    '^@glenfold/agronomy/plan$': '<rootDir>/packages/agronomy/src/plan/index.ts',
    '^@glenfold/agronomy/sampling$': '<rootDir>/packages/agronomy/src/sampling/index.ts',
    '^@glenfold/agronomy$': '<rootDir>/packages/agronomy/src/index.ts',
    '^@glenfold/contract$': '<rootDir>/packages/contract/src/index.ts',
  },
});

/** Unit tests of core, contract and web, and integration tests of the server against a real PostgreSQL. */
export default {
  projects: [
    project('core', 'packages/*/test'),
    project('web', 'apps/web/test'),
    project('server', 'apps/server/test'),
  ],
};
