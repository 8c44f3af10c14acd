// Compiles components as the build does. Reads [name, source] pairs as JSON, writes [name, code, errors] triples: a module
// of its own, because Jest cannot load the compiler.
import { text } from 'node:stream/consumers';
import { transform } from 'oxc-transform-react';

const compiled = JSON.parse(await text(process.stdin)).map(async ([name, source]) => {
  const { code, errors } = await transform(name, source, {
    jsx: { runtime: 'automatic' },
    reactCompiler: {},
  });
  return [name, code, errors.map(({ message }) => message)];
});
process.stdout.write(JSON.stringify(await Promise.all(compiled)));
