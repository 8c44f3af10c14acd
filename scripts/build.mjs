// Builds the web application and the server, each into a folder of its own that is swapped in whole when it is done:
// a counter that runs goes on serving the build it was started with.
import { spawnSync } from 'node:child_process';
import {
  lstatSync,
  mkdirSync,
  readdirSync,
  readlinkSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const dist = join(root, 'dist');
const VITE = join(root, 'node_modules/vite/bin/vite.js');

/** What is built, and how. */
const PARTS = {
  web: { words: 'the web application', args: [] },
  server: { words: 'the server', args: ['--config', 'vite.server.config.ts'] },
};
/** So many earlier builds stay, for counters that were started with them. */
const BUILDS_KEPT = 3;
/** An unfinished build so old is nobody's any more, ms. */
const GIVEN_UP_AFTER_MS = 3_600_000;

const stat = (path) => lstatSync(path, { throwIfNoEntry: false });

/** Puts a finished build in the place of the one before, in one step. */
function swapIn(part, folder) {
  const place = join(dist, part);
  // Builds of an older program lie where the link belongs.
  if (stat(place)?.isDirectory()) renameSync(place, join(dist, `${part}-0-before`));
  const link = join(dist, `${part}-link-${process.pid}`);
  symlinkSync(basename(folder), link);
  renameSync(link, place);
}

/** Whether a server that runs was started with a build: it says so in the folder. */
function isInUse(name) {
  return readdirSync(join(dist, name))
    .flatMap((file) => /^in-use-(\d+)$/.exec(file)?.[1] ?? [])
    .some((pid) => {
      try {
        process.kill(Number(pid), 0);
        return true;
      } catch (error) {
        return error.code === 'EPERM';
      }
    });
}

/** Removes builds that nobody can be serving any more, and what was left of some that broke off. */
function prune(part) {
  const current = readlinkSync(join(dist, part));
  const at = (name) => statSync(join(dist, name)).mtimeMs;
  const builds = readdirSync(dist)
    .filter((name) => new RegExp(`^${part}-\\d`).test(name) && name !== current)
    .sort((a, b) => at(b) - at(a));
  const unfinished = readdirSync(dist).filter(
    (name) => name.startsWith(`${part}-next-`) && Date.now() - at(name) > GIVEN_UP_AFTER_MS,
  );
  const idle = builds.slice(BUILDS_KEPT).filter((name) => !isInUse(name));
  for (const name of [...idle, ...unfinished]) rmSync(join(dist, name), { recursive: true, force: true });
}

/** Builds one part; null, or why it did not build. */
export function buildPart(part) {
  const { words, args } = PARTS[part];
  const next = join(dist, `${part}-next-${process.pid}`);
  mkdirSync(dist, { recursive: true });
  const done = spawnSync(
    process.execPath,
    [VITE, 'build', '--logLevel', 'warn', '--outDir', next, '--emptyOutDir', ...args],
    { cwd: root, stdio: 'inherit' },
  );
  if (done.status !== 0) {
    rmSync(next, { recursive: true, force: true });
    return `It did not build, ${words}: see above. What was built before stays in place.`;
  }
  const folder = join(dist, `${part}-${Date.now()}-${process.pid}`);
  renameSync(next, folder);
  swapIn(part, folder);
  prune(part);
  return null;
}

export const partWords = (part) => PARTS[part].words;

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  for (const part of process.argv.slice(2)) {
    const failed = part in PARTS ? buildPart(part) : `Nothing is called ${part}: web or server.`;
    if (failed) {
      console.error(failed);
      process.exit(1);
    }
  }
}
