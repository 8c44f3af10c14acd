import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** The JavaScript a first visit loads before anything is opened, compressed as the server sends it. */
const AIM_KB = 220;
const folder = join('dist', 'web');

interface Chunk {
  readonly file: string;
  readonly isEntry?: boolean;
  readonly imports?: readonly string[];
  readonly dynamicImports?: readonly string[];
}

const manifest = JSON.parse(readFileSync(join(folder, '.vite', 'manifest.json'), 'utf8')) as Record<
  string,
  Chunk
>;
const size = (chunk: Chunk): number => gzipSync(readFileSync(join(folder, chunk.file))).length / 1000;

function withImports(name: string, seen = new Set<string>()): Set<string> {
  if (seen.has(name)) return seen;
  seen.add(name);
  for (const imported of manifest[name]?.imports ?? []) withImports(imported, seen);
  return seen;
}

const entry = Object.keys(manifest).find((name) => manifest[name]?.isEntry) ?? '';
const initial = withImports(entry);
const total = [...initial].reduce((sum, name) => sum + size(manifest[name] as Chunk), 0);
console.log(
  `Initial JavaScript: ${total.toFixed(0)} kB compressed, ${(total / AIM_KB).toFixed(2)} × the aim of ${AIM_KB} kB.`,
);
if (total > AIM_KB) process.exitCode = 1;
const stages = Object.keys(manifest).filter(
  (name) => name.startsWith('stages/') && manifest[name]?.file.includes('Stage-'),
);
const each = stages.map((name) => `${name.split('/')[1]} ${size(manifest[name] as Chunk).toFixed(1)}`);
console.log(`Stages, loaded when opened (kB): ${each.join(', ')}.`);
