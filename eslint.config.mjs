import boundaries from 'eslint-plugin-boundaries';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports point one way: app → ui, server → db, formats → core. */
const elements = [
  { type: 'core', pattern: 'src/core/**', mode: 'full' },
  { type: 'formats', pattern: 'src/formats/**', mode: 'full' },
  { type: 'db', pattern: 'src/db/**', mode: 'full' },
  { type: 'server', pattern: 'src/server/**', mode: 'full' },
  { type: 'workers', pattern: 'src/workers/**', mode: 'full' },
  { type: 'ui', pattern: 'src/ui/**', mode: 'full' },
  { type: 'app', pattern: ['src/app/**', 'src/instrumentation.ts'], mode: 'full' },
  { type: 'cli', pattern: 'cli/**', mode: 'full' },
];
const may = {
  core: ['core'],
  formats: ['formats', 'core'],
  db: ['db', 'core'],
  server: ['server', 'db', 'formats', 'core'],
  workers: ['core'],
  ui: ['ui', 'workers', 'core', 'formats'],
  app: ['app', 'ui', 'server', 'formats', 'core'],
  cli: ['cli', 'formats', 'core'],
};

export default tseslint.config(
  { ignores: ['node_modules/**', '.next/**', 'next-env.d.ts'] },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}', 'cli/**/*.ts'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': elements,
      'import/resolver': { typescript: { project: './tsconfig.json' } },
    },
    rules: {
      'boundaries/element-types': [
        'error',
        { default: 'disallow', rules: Object.entries(may).map(([from, allow]) => ({ from, allow })) },
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
        { object: 'Math', property: 'random', message: 'Core takes a random source as an argument.' },
      ],
    },
  },
  {
    files: ['src/{ui,app}/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { ...reactHooks.configs.recommended.rules },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
);
