import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import boundaries from 'eslint-plugin-boundaries';
import importX from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The storeys of the core from the ground up; each may import those before it and itself. */
const STOREYS = [
  'maths',
  'shell',
  'survey',
  'structure',
  'round/observe',
  'round/net',
  'round/align',
  'round/judge',
  'walk',
  'findings',
  'plan',
  'practice',
  'days',
  'report',
];
const storey = (name) => `core/${name}`;
const CORE = STOREYS.map(storey);

/** Imports point one way: app → ui, server → db, formats → core, and down the storeys of the core. */
const elements = [
  ...STOREYS.map((name) => ({ type: storey(name), pattern: `src/core/${name}/**`, partialMatch: false })),
  { type: 'formats', pattern: 'src/formats/**', partialMatch: false },
  { type: 'db', pattern: 'src/db/**', partialMatch: false },
  { type: 'server', pattern: 'src/server/**', partialMatch: false },
  { type: 'workers', pattern: 'src/workers/**', partialMatch: false },
  { type: 'ui', pattern: 'src/ui/**', partialMatch: false },
  { type: 'app', pattern: 'src/app/**', partialMatch: false },
  { type: 'cli', pattern: 'cli/**', partialMatch: false },
];
const may = {
  ...Object.fromEntries(CORE.map((name, i) => [name, CORE.slice(0, i + 1)])),
  formats: ['formats', ...CORE],
  db: ['db', ...CORE],
  server: ['server', 'db', 'workers', 'formats', ...CORE],
  workers: ['workers', 'formats', ...CORE],
  ui: ['ui', 'workers', 'formats', ...CORE],
  app: ['app', 'ui', 'server', 'formats', ...CORE],
  cli: ['cli', 'formats', ...CORE],
};
const TESTS = ['**/*.test.ts'];

export default tseslint.config(
  { ignores: ['node_modules/**', 'dist/**', '.next/**', 'next-env.d.ts', 'public/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}', 'cli/**/*.ts'],
    // A test may stand on any storey: simulated shells come from above what they try.
    ignores: TESTS,
    plugins: { boundaries, 'import-x': importX },
    settings: {
      'boundaries/elements': elements,
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [createTypeScriptImportResolver({ project: './tsconfig.json' })],
    },
    rules: {
      'import-x/no-cycle': 'error',
    },
  },
  // Each with what it may import alone: all of them weighed for every import took half of the linter's time.
  ...elements.map(({ type, pattern }) => ({
    files: [pattern],
    ignores: TESTS,
    rules: {
      'boundaries/dependencies': [
        'error',
        { default: 'disallow', policies: [{ allow: [{ to: { element: { type: may[type] } } }] }] },
      ],
    },
  })),
  {
    files: ['src/core/**/*.ts'],
    ignores: TESTS,
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
    files: ['src/{ui,app}/**/*.{ts,tsx}'],
    ignores: ['src/ui/kit/link.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        { name: 'next/link', message: 'Links are ui/kit/link: they fetch nothing ahead.' },
      ],
    },
  },
  {
    files: ['src/{ui,app}/**/*.tsx'],
    rules: {
      // A component that has grown beyond this does two things.
      'max-lines-per-function': ['error', { max: 105, skipBlankLines: true, skipComments: true }],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'FunctionDeclaration[id.name=/^[A-Z]/] > ObjectPattern.params[properties.length>7]',
          message: 'More than seven props: some of them are one thing.',
        },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
);
