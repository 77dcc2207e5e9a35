import boundaries from 'eslint-plugin-boundaries';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports point one way: app → ui, server → db, formats → core. */
const elements = [
  { type: 'core', pattern: 'src/core/**', partialMatch: false },
  { type: 'formats', pattern: 'src/formats/**', partialMatch: false },
  { type: 'db', pattern: 'src/db/**', partialMatch: false },
  { type: 'server', pattern: 'src/server/**', partialMatch: false },
  { type: 'workers', pattern: 'src/workers/**', partialMatch: false },
  { type: 'ui', pattern: 'src/ui/**', partialMatch: false },
  { type: 'app', pattern: 'src/app/**', partialMatch: false },
  { type: 'cli', pattern: 'cli/**', partialMatch: false },
];
const may = {
  core: ['core'],
  formats: ['formats', 'core'],
  db: ['db', 'core'],
  server: ['server', 'db', 'formats', 'core'],
  workers: ['core', 'formats'],
  ui: ['ui', 'workers', 'core', 'formats'],
  app: ['app', 'ui', 'server', 'formats', 'core'],
  cli: ['cli', 'formats', 'core'],
};

export default tseslint.config(
  { ignores: ['node_modules/**', '.next/**', 'next-env.d.ts', 'public/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}', 'cli/**/*.ts'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': elements,
      'import/resolver': { typescript: { project: './tsconfig.json' } },
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: Object.entries(may).map(([from, to]) => ({
            from: { element: { type: from } },
            allow: [{ to: { element: { type: to } } }],
          })),
        },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.bench.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: ['react*', 'next*', 'node:*', '@electric-sql/*', 'echarts*', 'radix-ui*'] },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Core takes the time as an argument.' },
        {
          object: 'Math',
          property: 'random',
          message: 'Core takes a random source as an argument.',
        },
      ],
    },
  },
  {
    files: ['src/{ui,app}/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      // The table library hands out functions on purpose; the table component holds nothing memoised.
      'react-hooks/incompatible-library': 'off',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
);
