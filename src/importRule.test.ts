import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

/** What ESLint says of a line of code as if it stood in a file. */
function lint(file: string, code: string): string[] {
  const done = spawnSync(
    process.execPath,
    [
      join('node_modules', 'eslint', 'bin', 'eslint.js'),
      '--stdin',
      '--stdin-filename',
      file,
      '--format',
      'json',
    ],
    {
      input: code,
      encoding: 'utf8',
    },
  );
  const [result] = JSON.parse(done.stdout) as { messages: { ruleId: string; severity: number }[] }[];
  return (result?.messages ?? [])
    .filter((message) => message.severity === 2)
    .map((message) => message.ruleId);
}

describe('the import rule bites', () => {
  it.each([
    ['src/core/cells/x.ts', "export { a } from '../../contract';"],
    ['src/core/cells/x.ts', "export { a } from '../../server/store';"],
    ['src/core/cells/x.ts', "export { a } from '../../web/app/App';"],
    ['src/core/cells/x.ts', "export { readFileSync } from 'node:fs';"],
    ['src/core/cells/x.ts', "export { z } from 'zod';"],
    ['src/core/cells/x.ts', "export { useState } from 'react';"],
    ['src/contract/x.ts', "export { a } from '../server/store';"],
    ['src/contract/entries/x.ts', "export { a } from '../../web/app/App';"],
    ['src/server/routes/x.ts', "export { a } from '../../web/app/App';"],
    ['src/web/app/x.tsx', "export { a } from '../../server/store';"],
  ])('%s may not say %s', (file, code) => {
    expect(lint(file, code)).toContain('no-restricted-imports');
  });

  it.each([
    ['src/core/cells/x.ts', "export { figure } from '../judgement';"],
    ['src/contract/x.ts', "export { figure } from '../core/judgement';"],
    ['src/server/routes/x.ts', "export { problem } from '../../contract';"],
    ['src/web/app/x.tsx', "export { problem } from '../../contract';"],
  ])('%s may say %s', (file, code) => {
    expect(lint(file, code)).toEqual([]);
  });

  it.each([
    ['the clock', 'export const now = Date.now();', 'no-restricted-properties'],
    ['today', 'export const now = new Date();', 'no-restricted-syntax'],
    ['chance', 'export const chance = Math.random();', 'no-restricted-properties'],
  ])('the core may not read %s', (_, code, rule) => {
    expect(lint('src/core/cells/x.ts', code)).toContain(rule);
  });
});
