import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Imports run one way: web → contract → core, server → contract → core; web and server never meet. */
const forbid = (...patterns) => ['error', { patterns }];
const room = (name) => ({
  regex: `^(\\.\\./)+${name}(/|$)`,
  message: `Imports run one way: web → contract → core, server → contract → core. This room may not import ${name}.`,
});
const PURE = ['dayjs', 'dayjs/plugin/timezone.js', 'dayjs/plugin/utc.js'];

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'data', 'demo-data', 'playwright-report', 'test-results'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-invalid-void-type': 'off',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': forbid(room('contract'), room('server'), room('web'), {
        regex: `^(?!\\.)(?!(?:${PURE.join('|')})$)`,
        message: 'The core imports nothing outside itself but small pure libraries.',
      }),
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core reads no clock: pass the instant in.' },
        { object: 'Math', property: 'random', message: 'The core uses seeded chance only.' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core reads no clock: pass the instant in.',
        },
        {
          selector: "CallExpression[callee.name='dayjs'][arguments.length=0]",
          message: 'The core reads no clock: pass the instant in.',
        },
      ],
    },
  },
  {
    files: ['src/contract/**/*.ts'],
    ignores: ['src/contract/**/*.test.ts'],
    rules: { 'no-restricted-imports': forbid(room('server'), room('web')) },
  },
  {
    files: ['src/server/**/*.ts'],
    ignores: ['src/server/**/*.test.ts'],
    rules: { 'no-restricted-imports': forbid(room('web')) },
  },
  {
    files: ['src/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { ...reactHooks.configs.recommended.rules, 'no-restricted-imports': forbid(room('server')) },
  },
  { files: ['scripts/**', 'benchmarks/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  prettier,
);
