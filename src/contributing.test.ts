import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Reads the fact of the example as a program does that knows it. */
const USES_IT = `
  import { fieldLabel, kindDefinition, makeEntry } from './src/contract';
  import { entryInWords } from './src/core/logbook';
  import { samples } from './src/testing/samples';
  const { schema } = kindDefinition('check.magnetism');
  const entry = makeEntry('check.magnetism', samples['check.magnetism'], {
    id: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f', occurredAt: '2026-03-17T10:00:00.000Z',
    technicianId: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f', bench: 'window bench',
  });
  console.log(JSON.stringify([
    fieldLabel('check.magnetism', 'fieldMt'),
    schema.safeParse({ fieldMt: -1 }).error?.issues[0]?.message,
    entryInWords(entry),
  ]));
`;

it('the example of a new fact in CONTRIBUTING applies, compiles and works, in as many files as it says', () => {
  const patches = [...readFileSync('CONTRIBUTING.md', 'utf8').matchAll(/```diff\n([^]*?)```/g)].map(
    ([, patch = '']) => patch,
  );
  // Three, and the sample.
  expect(patches).toHaveLength(4);
  const copy = mkdtempSync(join(tmpdir(), 'wax-contributing-'));
  try {
    for (const part of ['src', 'demo', 'package.json', 'tsconfig.json'])
      cpSync(part, join(copy, part), { recursive: true });
    symlinkSync(join(process.cwd(), 'node_modules'), join(copy, 'node_modules'));
    writeFileSync(join(copy, 'example.patch'), patches.join(''));
    const run = (file: string, ...args: readonly string[]): string =>
      execFileSync(file, args, { cwd: copy, encoding: 'utf8' });
    run('git', 'apply', 'example.patch');
    run(process.execPath, 'node_modules/typescript-native/bin/tsc', '-p', '.');
    writeFileSync(join(copy, 'uses.ts'), USES_IT);
    expect(JSON.parse(run(process.execPath, '--import', 'tsx', 'uses.ts'))).toEqual([
      'Magnetism',
      'Magnetism: between 0 and 500 mT. A good value: 2.5.',
      expect.stringContaining('magnetism 2.5 mT'),
    ]);
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}, 200_000);
