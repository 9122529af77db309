import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      'apps/web/vite.config.ts',
      '**/dist/**',
      '**/node_modules/**',
      '.glenfold/**',
      '**/test-results/**',
      '**/playwright-report/**',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.strictTypeChecked, tseslint.configs.stylisticTypeChecked],
    plugins: { regexp },
    languageOptions: {
      // One program for all of it, as the type check has.
      parserOptions: { project: './tsconfig.checks.json', tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/array-type': 'off',
      // Contract classes are checked by shape; plain objects of that shape cross the wire.
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-misused-spread': 'off',
      // An empty text means "none" in what people type.
      '@typescript-eslint/prefer-nullish-coalescing': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/explicit-module-boundary-types': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // An expression that goes over its text again and again lets a long line stop the server.
      'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }],
      'regexp/no-super-linear-move': ['error', { report: 'certain' }],
      'max-lines': ['error', 400],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    // The database is reached through the practice's scope or through the door, and nowhere else.
    files: ['apps/server/src/**/*.ts'],
    ignores: [
      'apps/server/src/database.ts',
      'apps/server/src/platform/{records,door,scope,work}.ts',
      'apps/server/src/migrations/**',
      // What they are handed is scoped already, or is the door's.
      'apps/server/src/{people,exchange}/**',
    ],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: 'typeorm',
              importNames: ['DataSource', 'EntityManager', 'Repository'],
              message: 'Use Records, which scopes every query to the practice.',
            },
          ],
        },
      ],
    },
  },
  {
    // The core has no clock and no unseeded chance.
    files: ['packages/agronomy/src/**/*.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
      'no-restricted-globals': ['error', 'process', 'window', 'document', 'fetch', 'localStorage'],
    },
  },
  {
    // A day is asked of the clock: cut out of a moment in UTC it is yesterday's or tomorrow's for half the world.
    files: ['apps/*/src/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.property.name="slice"][callee.object.callee.property.name="toISOString"][arguments.1.value=10]',
          message: 'Use dayOf of platform/clock or ui/today.',
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.property.name="slice"][arguments.0.value=0][arguments.1.value=10]',
          message: 'A moment is no day: use dayOf of ui/today.',
        },
      ],
    },
  },
  { files: ['apps/web/src/**/*.{ts,tsx}'], extends: [reactHooks.configs.flat.recommended] },
  {
    files: ['**/*.mjs', '**/*.js', '**/*.cjs'],
    languageOptions: {
      globals: {
        Buffer: 'readonly',
        process: 'readonly',
        module: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        AbortSignal: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        URL: 'readonly',
        TextEncoder: 'readonly',
        TextDecoder: 'readonly',
        structuredClone: 'readonly',
      },
    },
  },
  prettier,
);
