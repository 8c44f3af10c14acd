import { spawnSync } from 'node:child_process';

interface Line {
  readonly file: string;
  readonly code: string;
}

const BEYOND: readonly Line[] = [
  { file: 'src/core/cells/x.ts', code: "export { a } from '../../contract';" },
  { file: 'src/core/cells/x.ts', code: "export { a } from '../../server/store';" },
  { file: 'src/core/cells/x.ts', code: "export { a } from '../../web/app/App';" },
  { file: 'src/core/cells/x.ts', code: "export { readFileSync } from 'node:fs';" },
  { file: 'src/core/cells/x.ts', code: "export { z } from 'zod';" },
  { file: 'src/core/cells/x.ts', code: "export { useState } from 'react';" },
  { file: 'src/contract/x.ts', code: "export { a } from '../server/store';" },
  { file: 'src/contract/entries/x.ts', code: "export { a } from '../../web/app/App';" },
  { file: 'src/server/routes/x.ts', code: "export { a } from '../../web/app/App';" },
  { file: 'src/web/app/x.tsx', code: "export { a } from '../../server/store';" },
];

const WITHIN: readonly Line[] = [
  { file: 'src/core/cells/x.ts', code: "export { figure } from '../judgement';" },
  { file: 'src/contract/x.ts', code: "export { figure } from '../core/judgement';" },
  { file: 'src/server/routes/x.ts', code: "export { problem } from '../../contract';" },
  { file: 'src/web/app/x.tsx', code: "export { problem } from '../../contract';" },
];

const UNSURE: readonly (Line & { readonly what: string; readonly rule: string })[] = [
  { what: 'the clock', code: 'export const now = Date.now();', rule: 'no-restricted-properties' },
  { what: 'today', code: 'export const now = new Date();', rule: 'no-restricted-syntax' },
  { what: 'chance', code: 'export const chance = Math.random();', rule: 'no-restricted-properties' },
].map((each) => ({ ...each, file: 'src/core/cells/x.ts' }));

/** Lints every line as if it stood in its file, in one process: starting ESLint takes longer than all of them. */
const LINTER = `
  import { ESLint } from 'eslint';
  import { readFileSync } from 'node:fs';
  const eslint = new ESLint();
  const rules = [];
  for (const { file, code } of JSON.parse(readFileSync(0, 'utf8'))) {
    const [{ messages }] = await eslint.lintText(code, { filePath: file });
    rules.push(messages.filter(({ severity }) => severity === 2).map(({ ruleId }) => ruleId));
  }
  console.log(JSON.stringify(rules));
`;

describe('the import rule bites', () => {
  const lines: readonly Line[] = [...BEYOND, ...WITHIN, ...UNSURE];
  let broken: ReadonlyMap<Line, readonly string[]>;
  beforeAll(() => {
    const { stdout } = spawnSync(process.execPath, ['--input-type=module', '--eval', LINTER], {
      input: JSON.stringify(lines),
      encoding: 'utf8',
    });
    const rules = JSON.parse(stdout) as string[][];
    broken = new Map(lines.map((line, index) => [line, rules[index] ?? ['not linted']]));
  });

  it.each(BEYOND)('$file may not say $code', (line) => {
    expect(broken.get(line)).toContain('no-restricted-imports');
  });

  it.each(WITHIN)('$file may say $code', (line) => {
    expect(broken.get(line)).toEqual([]);
  });

  it.each(UNSURE)('the core may not read $what', (line) => {
    expect(broken.get(line)).toContain(line.rule);
  });
});
