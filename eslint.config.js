import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import { importX } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';
import { words } from './eslint.words.js';

/**
 * The house: rooms and floors, from the ground up. What stands on one floor may import from those below it and from none
 * above, types included. docs/architecture.md draws it; src/importRule.test.ts proves that each rule bites.
 */
const CORE_FLOORS = ['craft', 'logbook', 'advice', 'admission'];
const WEB_FLOORS = ['api', 'kit', 'figures', 'job', 'stages', 'pages', 'shell'];

/** For each floor, that it may not import from those above. */
const upwards = (base, floors) =>
  floors.slice(0, -1).map((floor, at) => ({
    target: `${base}/${floor}`,
    from: floors.slice(at + 1).map((above) => `${base}/${above}`),
    message: `Imports only go down: ${floors.join(' ← ')}.`,
  }));

const ROOMS = 'Imports run one way: web → contract → core, server → contract → core.';
const ZONES = [
  { target: './src/core', from: ['./src/contract', './src/server', './src/web'], message: ROOMS },
  { target: './src/contract', from: ['./src/server', './src/web'], message: ROOMS },
  { target: './src/server', from: './src/web', message: ROOMS },
  { target: './src/web', from: './src/server', message: ROOMS },
  ...upwards('./src/core', CORE_FLOORS),
  ...upwards('./src/web', WEB_FLOORS),
  {
    target: './src/web/workers',
    from: WEB_FLOORS.map((floor) => `./src/web/${floor}`),
    message: 'A worker computes: it imports from the core alone.',
  },
];

/** What only tests, the demo and the benchmarks may use. */
const FOR_TESTS = {
  target: './src',
  from: ['./src/testing', './demo', './e2e', './attack', './benchmarks'],
  message: 'Only tests start from these.',
};

const PURE = ['dayjs', 'dayjs/plugin/timezone.js', 'dayjs/plugin/utc.js', 'fast-equals', 'simple-statistics'];

/** A face (`index.ts` of a room) is the only way in. Patterns of what reaches past one, by where it is imported from. */
const pastAFace = (...forbid) => ['error', { forbid }];

export default tseslint.config(
  {
    ignores: [
      'dist',
      'node_modules',
      'data',
      'demo-data',
      'dev-data',
      'playwright-report',
      'test-results',
      'reports',
      '.stryker-tmp',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
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
    files: ['**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver({ project: './tsconfig.json' })] },
    rules: { 'import-x/no-restricted-paths': ['error', { basePath: import.meta.dirname, zones: ZONES }] },
  },
  {
    // SQL is not read by those who use the program.
    files: ['src/{core,web,contract}/**/*.{ts,tsx}', 'src/server/{routes,documents,devices}/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}'],
    plugins: { words },
    rules: { 'words/plain': 'error' },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', 'src/testing/**'],
    rules: {
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      'import-x/no-restricted-paths': [
        'error',
        { basePath: import.meta.dirname, zones: [...ZONES, FOR_TESTS] },
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    ignores: ['src/core/**'],
    rules: {
      'import-x/no-internal-modules': pastAFace(
        '**/core/{craft,advice}/*/!(index.ts)',
        '**/core/{logbook,admission}/!(index.ts)',
      ),
    },
  },
  {
    files: ['src/core/craft/**/*.ts'],
    rules: { 'import-x/no-internal-modules': pastAFace('@(!(dayjs|testing|demo))/*') },
  },
  {
    files: ['src/core/logbook/**/*.ts'],
    rules: { 'import-x/no-internal-modules': pastAFace('craft/*/*') },
  },
  {
    files: ['src/core/advice/**/*.ts'],
    rules: {
      'import-x/no-internal-modules': pastAFace('craft/*/*', 'logbook/*', '@(!(craft|testing|demo))/*'),
    },
  },
  {
    files: ['src/core/admission/**/*.ts'],
    rules: { 'import-x/no-internal-modules': pastAFace('craft/*/*', 'advice/*/*', 'logbook/*') },
  },
  {
    files: ['src/**/index.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Program > :not(ExportNamedDeclaration[source], ExportAllDeclaration)',
          message: 'A face exports names and computes nothing.',
        },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!\\.)(?!(?:${PURE.join('|')})$)`,
              message: 'The core imports nothing outside itself but small pure libraries.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core reads no clock: pass the instant in.' },
        { object: 'Math', property: 'random', message: 'The core uses seeded chance only.' },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts', 'src/core/**/index.ts'],
    rules: {
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
    files: ['src/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  {
    files: ['src/web/**/*.{ts,tsx}'],
    ignores: ['src/web/**/index.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          // The form stays the same object while what it says of itself changes: a compiled component would not hear of it.
          selector:
            "MemberExpression[property.name='formState'], VariableDeclarator > ObjectPattern > Property[key.name='formState']",
          message: 'What a form says of itself is heard by useFormState.',
        },
      ],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}', 'demo/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: {
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: { 'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['e2e/*.spec.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name='waitForTimeout']",
          message: 'Wait for what must be there: atRest, handSees or an expectation.',
        },
      ],
    },
  },
  { files: ['scripts/**', 'benchmarks/**', 'attack/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  prettier,
);
