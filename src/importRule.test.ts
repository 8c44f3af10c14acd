import { spawnSync } from 'node:child_process';
import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';

interface Line {
  readonly file: string;
  readonly code: string;
}

/** Rooms, and floors within them: what stands on one may not import from those above, not even a type. */
const UPWARDS: readonly Line[] = [
  { file: 'src/core/craft/cells/x.ts', code: "export { problem } from '../../../contract';" },
  { file: 'src/core/craft/cells/x.ts', code: "export { openStore } from '../../../server/store/store';" },
  { file: 'src/core/craft/cells/x.ts', code: "export { App } from '../../../web/shell/App';" },
  {
    file: 'src/core/craft/cells/x.ts',
    code: "import type { Entry } from '../../logbook'; export type X = Entry;",
  },
  { file: 'src/core/craft/cells/x.ts', code: "export { handback } from '../../advice/handback';" },
  { file: 'src/core/logbook/x.ts', code: "export { handback } from '../advice/handback';" },
  { file: 'src/core/logbook/facts/x.ts', code: "export { judgeEntry } from '../../admission';" },
  { file: 'src/core/advice/life/x.ts', code: "export type { Admission } from '../../admission';" },
  { file: 'src/contract/x.ts', code: "export { openStore } from '../server/store/store';" },
  { file: 'src/contract/entries/x.ts', code: "export { App } from '../../web/shell/App';" },
  { file: 'src/server/routes/x.ts', code: "export { App } from '../../web/shell/App';" },
  { file: 'src/web/api/x.ts', code: "export { theme } from '../kit/theme';" },
  { file: 'src/web/kit/x.tsx', code: "export { CellFigure } from '../figures/CellFigure';" },
  { file: 'src/web/kit/x.tsx', code: "export { useJob } from '../job/JobContext';" },
  { file: 'src/web/figures/x.tsx', code: "export { useJob } from '../job/JobContext';" },
  { file: 'src/web/job/x.tsx', code: "export const load = () => import('../stages/cell/CellStage');" },
  { file: 'src/web/stages/cell/x.tsx', code: "export { NoSuchPage } from '../../pages/NoSuchPage';" },
  { file: 'src/web/pages/x.tsx', code: "export { Shell } from '../shell/Shell';" },
  { file: 'src/web/workers/x.ts', code: "export { useJob } from '../job/JobContext';" },
  { file: 'src/web/shell/x.tsx', code: "export { openStore } from '../../server/store/store';" },
  { file: 'src/server/routes/x.ts', code: "export { book } from '../../testing/fixtures';" },
];

const PAST_A_FACE: readonly Line[] = [
  { file: 'src/core/craft/cells/x.ts', code: "export { figure } from '../judgement/judgement';" },
  { file: 'src/core/logbook/x.ts', code: "export { figure } from '../craft/judgement/judgement';" },
  { file: 'src/core/advice/life/x.ts', code: "export { figure } from '../../craft/judgement/judgement';" },
  { file: 'src/core/advice/life/x.ts', code: "export { foldJob } from '../../logbook/foldJob';" },
  { file: 'src/core/advice/life/x.ts', code: "export { priceOf } from '../price/priceOf';" },
  { file: 'src/core/admission/x.ts', code: "export { handback } from '../advice/handback/handback';" },
  { file: 'src/server/routes/x.ts', code: "export { figure } from '../../core/craft/judgement/judgement';" },
  { file: 'src/web/kit/x.ts', code: "export { foldJob } from '../../core/logbook/foldJob';" },
];

const WITHIN: readonly Line[] = [
  { file: 'src/core/craft/cells/x.ts', code: "export { figure } from '../judgement';" },
  { file: 'src/core/craft/cells/x.ts', code: "export { chemistries } from './chemistry';" },
  { file: 'src/core/craft/time/x.ts', code: "export { default } from 'dayjs/plugin/utc.js';" },
  { file: 'src/core/logbook/x.ts', code: "export { arriveKinds } from './facts/arrive';" },
  { file: 'src/core/advice/life/x.ts', code: "export { foldJob } from '../../logbook';" },
  { file: 'src/core/admission/x.ts', code: "export { handback } from '../advice/handback';" },
  { file: 'src/contract/x.ts', code: "export { figure } from '../core/craft/judgement';" },
  { file: 'src/server/routes/x.ts', code: "export { problem } from '../../contract';" },
  { file: 'src/web/shell/x.tsx', code: "export { default } from '../pages/JobPage';" },
  { file: 'src/web/stages/cell/x.tsx', code: "export { useJob } from '../../job/JobContext';" },
];

const REFUSED: readonly (Line & { readonly what: string; readonly rule: string })[] = [
  { what: 'a Node API', code: "export { readFileSync } from 'node:fs';", rule: 'no-restricted-imports' },
  { what: 'Zod', code: "export { z } from 'zod';", rule: 'no-restricted-imports' },
  { what: 'React', code: "export { useState } from 'react';", rule: 'no-restricted-imports' },
  { what: 'the clock', code: 'export const now = Date.now();', rule: 'no-restricted-properties' },
  { what: 'today', code: 'export const now = new Date();', rule: 'no-restricted-syntax' },
  { what: 'chance', code: 'export const chance = Math.random();', rule: 'no-restricted-properties' },
].map((each) => ({ ...each, file: 'src/core/craft/cells/x.ts' }));

const COMPUTING: readonly Line[] = [
  { file: 'src/core/craft/cells/index.ts', code: 'export const two = 2;' },
  { file: 'src/core/craft/cells/index.ts', code: "import { figure } from '../judgement'; figure(1);" },
  { file: 'src/web/kit/index.ts', code: 'export function f() { return 1; }' },
];

const text = (words: string): Line => ({
  file: 'src/core/craft/cells/x.ts',
  code: `export const said = ${JSON.stringify(words)};`,
});

/** Texts that are not plain: a word that we do not say, or a sentence that is too long. */
const UNPLAIN: readonly Line[] = [
  text('The cell found probably errs.'),
  text('Nothing here wants it.'),
  text('The owner was told yesterday.'),
  text('None of this size is in the house.'),
  text('The print speaks for another cell.'),
  text(`Measure ${'the well '.repeat(10)}first.`),
  {
    file: 'src/web/kit/x.tsx',
    code: `export const Said = () => <p>Let it go, or measure ${'the well '.repeat(10)}first.</p>;`,
  },
  {
    file: 'src/core/craft/cells/x.ts',
    code: `export const said = (code: string) => \`The cell \${code} is ${'very '.repeat(20)}small.\`;`,
  },
];

/** Texts that are, and what is none. */
const PLAIN: readonly Line[] = [
  text('The cell found is probably wrong.'),
  text(`${'Measure the well first. '.repeat(9)}`),
  text('not-a-text'),
  text(
    'SELECT id, said, wants, so, it, was, told FROM entry WHERE errs AND a AND b AND c AND d AND e AND f AND g',
  ),
];

/** Lints every line as if it stood in its file, in one process: starting ESLint takes longer than all of them. */
const LINTER = `
  import { ESLint } from 'eslint';
  import { readFileSync } from 'node:fs';
  import tseslint from 'typescript-eslint';
  // These files are not there, so that nothing is known of their types.
  const eslint = new ESLint({
    overrideConfig: [tseslint.configs.disableTypeChecked, { languageOptions: { parserOptions: { projectService: false } } }],
  });
  const rules = [];
  for (const { file, code } of JSON.parse(readFileSync(0, 'utf8'))) {
    const [{ messages }] = await eslint.lintText(code, { filePath: file });
    rules.push(messages.filter(({ severity }) => severity === 2).map(({ ruleId }) => ruleId));
  }
  console.log(JSON.stringify(rules));
`;

describe('the import rules bite', () => {
  const lines: readonly Line[] = [
    ...UPWARDS,
    ...PAST_A_FACE,
    ...WITHIN,
    ...REFUSED,
    ...COMPUTING,
    ...UNPLAIN,
    ...PLAIN,
  ];
  let broken: ReadonlyMap<Line, readonly string[]>;
  beforeAll(() => {
    const { stdout } = spawnSync(process.execPath, ['--input-type=module', '--eval', LINTER], {
      input: JSON.stringify(lines),
      encoding: 'utf8',
    });
    const rules = JSON.parse(stdout) as string[][];
    broken = new Map(lines.map((line, index) => [line, rules[index] ?? ['not linted']]));
  }, 200_000);

  it.each(UPWARDS)('$file may not say $code', (line) => {
    expect(broken.get(line)).toContain('import-x/no-restricted-paths');
  });

  it.each(PAST_A_FACE)('$file may not reach past a face: $code', (line) => {
    expect(broken.get(line)).toEqual(['import-x/no-internal-modules']);
  });

  it.each(WITHIN)('$file may say $code', (line) => {
    expect(broken.get(line)).toEqual([]);
  });

  it.each(REFUSED)('the core may not read $what', (line) => {
    expect(broken.get(line)).toContain(line.rule);
  });

  it.each(UNPLAIN)('a text is plain, which is not $code', (line) => {
    expect(new Set(broken.get(line))).toEqual(new Set(['words/plain']));
  });

  it.each(PLAIN)('a text may be $code', (line) => {
    expect(broken.get(line)).toEqual([]);
  });

  it.each(COMPUTING)('a face computes nothing: $code', (line) => {
    expect(broken.get(line)).toContain('no-restricted-syntax');
  });
});

describe('circles', () => {
  const cruise = (folder: string) =>
    spawnSync(
      process.execPath,
      [
        join(process.cwd(), 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs'),
        folder,
        '--config',
        join(process.cwd(), '.dependency-cruiser.cjs'),
      ],
      { encoding: 'utf8' },
    );

  it('there are none, types counted', () => {
    const { status, stdout } = cruise('src');
    expect([status, stdout.match(/error .*/g)]).toEqual([0, null]);
  }, 200_000);

  it('one that closes through types alone is found', () => {
    const folder = mkdtempSync(join(tmpdir(), 'wax-circle-'));
    try {
      for (const [file, text] of [
        ['a.ts', "import type { B } from './b';\nexport interface A { b: B }\n"],
        ['b.ts', "import type { A } from './a';\nexport interface B { a: A }\n"],
      ] as const) {
        mkdirSync(dirname(join(folder, file)), { recursive: true });
        writeFileSync(join(folder, file), text);
      }
      const { status, stdout } = cruise(folder);
      expect(stdout).toContain('no-circle');
      expect(status).not.toBe(0);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }, 200_000);
});
