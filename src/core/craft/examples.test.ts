import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';
import ts from 'typescript';

/**
 * Every public formula of the craft shows an example, and the example is true: what stands before `//` gives what stands behind
 * it, to as many digits as are written there.
 */
const CRAFT = join(__dirname);
const NUMERIC = /^(number|number \| null|readonly number\[\])$/;

interface Formula {
  readonly name: string;
  readonly returns: string;
  readonly doc: string;
}

const rooms = readdirSync(CRAFT, { withFileTypes: true }).flatMap((room) =>
  room.isDirectory() ? [room.name] : [],
);

function formulasOf(room: string, face: object): readonly Formula[] {
  const files = readdirSync(join(CRAFT, room)).filter(
    (file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && file !== 'index.ts',
  );
  return files.flatMap((file) => {
    const text = readFileSync(join(CRAFT, room, file), 'utf8');
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
    return source.statements.flatMap((each): readonly Formula[] => {
      if (!ts.isFunctionDeclaration(each) || !each.name || !(each.name.text in face)) return [];
      const doc = text.slice(each.getFullStart(), each.getStart());
      return [{ name: each.name.text, returns: each.type?.getText() ?? '', doc }];
    });
  });
}

/** Each example as an expression and what it is said to give. */
function examplesIn(doc: string): readonly (readonly [expression: string, gives: string])[] {
  const [, block] = /@example\n([\s\S]*?)\*\/\s*$/.exec(doc) ?? [];
  if (block === undefined) return [];
  return block
    .replace(/^ *\* ?/gm, '')
    .split(/(?<=\/\/ .*)\n/)
    .flatMap((each) => {
      const [, expression, gives] = /^([\s\S]*\S)\s*\/\/ (.*)$/.exec(each.trim()) ?? [];
      return expression && gives ? [[expression, gives] as const] : [];
    });
}

/** A result with its figures cut to the digits that are written; of an object only what is written of it. */
function asWritten(result: unknown, written: string): string {
  const sample: unknown = runInNewContext(`(${written})`);
  const digits = [...written.matchAll(/-?\d[\d_]*(?:\.(\d+))?/g)].map(([, after = '']) => after.length);
  let at = 0;
  const cut = (value: unknown, like: unknown): unknown => {
    if (typeof like === 'number') {
      const places = digits[at] ?? 0;
      at += 1;
      return typeof value === 'number' ? Number(value.toFixed(places)) : value;
    }
    if (Array.isArray(like)) return like.map((each, index) => cut((value as unknown[])[index], each));
    if (like !== null && typeof like === 'object')
      return Object.fromEntries(
        Object.entries(like).map(([key, each]) => [key, cut((value as Record<string, unknown>)[key], each)]),
      );
    return value;
  };
  return JSON.stringify(cut(result, sample));
}

const faces: Readonly<Record<string, object>> = Object.fromEntries(
  rooms.map((room) => [room, jest.requireActual<object>(`./${room}`)]),
);
const everything = Object.assign({}, ...Object.values(faces)) as Readonly<Record<string, unknown>>;
const formulas = rooms.flatMap((room) =>
  formulasOf(room, faces[room] ?? {}).map((formula) => ({ room, ...formula })),
);

it.each(formulas.filter(({ doc, returns }) => NUMERIC.test(returns) && /Source:/.test(doc)))(
  '$room: $name gives a figure by a formula, and shows an example',
  ({ doc }) => {
    expect(examplesIn(doc).length).toBeGreaterThan(0);
  },
);

it('no example stands where it is not run', () => {
  const written = readdirSync(CRAFT, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
    .flatMap((file) => readFileSync(join(CRAFT, file), 'utf8').match(/@example/g) ?? []);
  expect(formulas.filter(({ doc }) => examplesIn(doc).length > 0)).toHaveLength(written.length);
});

it.each(
  formulas.flatMap(({ name, doc }) =>
    examplesIn(doc).map(([expression, gives]) => ({ name, expression, gives })),
  ),
)('the example of $name holds: $gives', ({ expression, gives }) => {
  const result: unknown = runInNewContext(`(${expression})`, { ...everything });
  expect(asWritten(result, gives)).toBe(JSON.stringify(runInNewContext(`(${gives})`)));
});
