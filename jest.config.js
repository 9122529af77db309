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

const project = (
  displayName,
  tests,
  { files = 'test.{ts,tsx}', environment = 'node', instead = {}, transform = {} } = {},
) => ({
  displayName,
  rootDir: import.meta.dirname,
  testMatch: [`<rootDir>/${tests}/**/*.${files}`],
  testEnvironment: environment,
  setupFiles: ['<rootDir>/scripts/seed.mjs'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { ...transform, '^.+\\.ts$': swc(false), '^.+\\.tsx$': swc(true) },
  moduleNameMapper: {
    '^@glenfold/agronomy/geometry$': '<rootDir>/packages/agronomy/src/geometry/index.ts',
    '^@glenfold/agronomy/sampling$': '<rootDir>/packages/agronomy/src/sampling/index.ts',
    '^@glenfold/agronomy$': '<rootDir>/packages/agronomy/src/index.ts',
    '^@glenfold/contract$': '<rootDir>/packages/contract/src/index.ts',
    ...instead,
  },
});

/** Unit tests of core, contract and web, its components in a simulated browser, and integration tests of the server against a real PostgreSQL. */
export default {
  // Against what hangs, on the slowest machine: no test is held to a time.
  testTimeout: 300_000,
  projects: [
    project('core', 'packages/*/test'),
    project('web', 'apps/web/test', { files: 'test.ts' }),
    project('screens', 'apps/web/test', {
      files: 'test.tsx',
      environment: '<rootDir>/apps/web/test/browser.cjs',
      // The simulated browser draws nothing: a chart's numbers stand in the page.
      instead: {
        '^react-chartjs-2$': '<rootDir>/apps/web/test/chart.tsx',
        '\\.css$': '<rootDir>/apps/web/test/style.cjs',
      },
    }),
    // The application itself is the built one: run "npm run build" first, as "npm test" does.
    project('server', 'apps/server/test', {
      environment: '<rootDir>/apps/server/test/builtEnvironment.mjs',
      transform: {
        '/(apps|packages)/[a-z]+/src/.+\\.ts$|/test/libraries/': '<rootDir>/apps/server/test/builtModule.mjs',
      },
      // What is one thing for the application has to be the same for the tests.
      instead: {
        '^(typeorm|class-validator|class-transformer|pdfmake|@nestjs/(common|core|testing))$':
          '<rootDir>/apps/server/test/libraries/$1.mjs',
      },
    }),
  ],
};
