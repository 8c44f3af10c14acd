import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Linter } from 'eslint';
import hooks from 'eslint-plugin-react-hooks';

const rule: unknown = hooks.rules['rules-of-hooks'];

/** Components once the React Compiler has been over them. */
function compile(
  components: readonly (readonly [name: string, source: string])[],
): readonly (readonly [name: string, code: string, errors: readonly string[]])[] {
  const output = execFileSync(process.execPath, ['src/testing/compile.mjs'], {
    input: JSON.stringify(components),
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  return JSON.parse(output) as ReturnType<typeof compile>;
}

/** What the rule of hooks finds in a component. */
const found = (code: string): readonly string[] =>
  new Linter()
    .verify(code, {
      linterOptions: { noInlineConfig: true, reportUnusedDisableDirectives: 'off' },
      languageOptions: { parserOptions: { ecmaFeatures: { jsx: true } } },
      plugins: { hooks: { rules: { 'rules-of-hooks': rule as never } } },
      rules: { 'hooks/rules-of-hooks': 'error' },
    })
    .filter(({ ruleId }) => ruleId !== null)
    .map(({ message }) => message);

// The compiler's port is young: an earlier one put hooks behind an early return, and three views broke.
test('compiled components call their hooks in the same order at every render', () => {
  const files = execFileSync('git', ['ls-files', 'src/web/*.tsx'], { encoding: 'utf8' }).trim().split('\n');
  const compiled = compile(files.map((file) => [file, readFileSync(file, 'utf8')]));
  expect(compiled.filter(([, code]) => code.includes('react/compiler-runtime')).length).toBeGreaterThan(150);
  expect(
    compiled.flatMap(([name, code, errors]) => [...errors, ...found(code)].map((each) => `${name}: ${each}`)),
  ).toEqual([]);
});

test('a hook behind an early return would be found', () => {
  const late = `import { useState } from 'react';
    export function Late({ on }) { if (!on) return null; const [n] = useState(0); return <p>{n}</p>; }`;
  expect(found(late)).toEqual([expect.stringContaining('called conditionally')]);
});
