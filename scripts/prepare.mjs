import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildPart, partWords } from './build.mjs';

/** What every command needs first, from a bare clone on a fresh machine. Plain Node, nothing installed yet. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

export function say(text) {
  console.log(`▸ ${text}`);
}

export function fail(text) {
  console.error(`■ ${text}`);
  process.exit(1);
}

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  const works = (major === 20 && minor >= 19) || (major === 22 && minor >= 12) || major === 24;
  if (!works)
    fail(
      `Node ${process.versions.node} is running; Wax Lantern works with Node 20.19 or a later 20, with 22.12 or a later 22, and with 24.`,
    );
}

const stamp = join(root, 'node_modules', '.wax-lantern-lock');
const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');

/** Whether just the packages of the lock file are installed, and compiled where they must be. */
export const packagesInstalled = () => existsSync(stamp) && readFileSync(stamp, 'utf8') === lockHash();

const NEEDS = 'npm needs its registry, and python3, make and g++ to compile the database module.';

function npm(...args) {
  return new Promise((resolve) => {
    const running = spawn('npm', args, { cwd: root, stdio: 'inherit' });
    running.on('error', () => resolve(false));
    running.on('close', (status) => resolve(status === 0));
  });
}

/** Fetches the packages of the lock file. What must be compiled is not yet: `compilePackages` does that. */
export async function fetchPackages() {
  say('Installing packages with npm ci. This takes a few minutes once.');
  if (!(await npm('ci', '--no-progress', '--ignore-scripts')))
    fail(`npm ci did not succeed: see above. ${NEEDS}`);
}

/** Compiles the database module, which takes one core for two minutes. */
export async function compilePackages() {
  const started = Date.now();
  if (!(await npm('rebuild'))) fail(`npm rebuild did not succeed: see above. ${NEEDS}`);
  writeFileSync(stamp, lockHash());
  say(`Database module: compiled, ${Math.round((Date.now() - started) / 1000)} s`);
}

/** Installs the packages of the lock file, unless just these are installed. */
export async function installPackages() {
  if (packagesInstalled()) return;
  await fetchPackages();
  say('Compiling the database module.');
  await compilePackages();
}

/** Builds the web application and the server; what runs already goes on with what it was started with. */
export function buildAll() {
  for (const part of ['web', 'server']) {
    say(`Building ${partWords(part)}.`);
    const failed = buildPart(part);
    if (failed) fail(failed);
  }
}

// The headless shell draws no window, which spares the interface tests a fifth of their time.
const HEADLESS_SHELL = '/usr/bin/chromium-headless-shell';
const WHOLE_BROWSER = '/usr/bin/chromium';
const APT_MS = 300_000;

const isFile = (path) => existsSync(path) && statSync(path).isFile();

/** Debian’s headless Chromium, installed through apt-get where it is missing and may be; else the whole browser. */
export async function ensureChromium() {
  const asked = process.env.CHROMIUM;
  if (asked) {
    if (!isFile(asked)) fail(`No Chromium at ${asked}, which CHROMIUM names.`);
    return asked;
  }
  if (isFile(HEADLESS_SHELL) || (await installChromium())) return HEADLESS_SHELL;
  if (isFile(WHOLE_BROWSER)) return WHOLE_BROWSER;
  return fail(
    `No Chromium at ${HEADLESS_SHELL}. Install it (Debian: apt-get install chromium-headless-shell), or set CHROMIUM to its path.`,
  );
}

async function installChromium() {
  if (process.getuid?.() !== 0 || !isFile('/usr/bin/apt-get')) return false;
  say('Installing Debian’s headless Chromium for the interface tests.');
  const aptGet = (...args) =>
    new Promise((resolve) => {
      const running = spawn('apt-get', args, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
        timeout: APT_MS,
      });
      running.on('error', () => resolve(false));
      running.on('close', (status) => resolve(status === 0));
    });
  const done =
    (await aptGet('update', '-qq')) &&
    (await aptGet('install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'));
  if (!done) say('apt-get could not install it: see above.');
  return isFile(HEADLESS_SHELL);
}

export function run(what, file, args, options = {}) {
  const done = spawnSync(file, args, { cwd: root, stdio: 'inherit', ...options });
  return done.status === 0 ? null : `${what} did not succeed.`;
}

/** Builds the made-up counter's data in a folder; what stood there is replaced. */
export function loadDemo(dataDir) {
  const failed = run('Loading the demo data', process.execPath, [
    '--import',
    'tsx',
    'scripts/buildDemo.ts',
    dataDir,
  ]);
  if (failed) fail(failed);
}

const NPM_LOOKED_FOR_MS = 250;
const SIGNALS = ['SIGTERM', 'SIGINT', 'SIGHUP'];

/** Runs the server until it ends: passes signals on to it, and ends as it ended. */
export function serve(environment) {
  const server = spawn(process.execPath, ['dist/server/main.js'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...environment },
  });
  for (const signal of SIGNALS) process.on(signal, () => server.kill(signal));
  // npm does not pass every signal on, and may be gone without one: then the server ends as by a signal.
  if (process.env.npm_lifecycle_event) {
    const npm = process.ppid;
    setInterval(() => {
      if (process.ppid !== npm) server.kill('SIGTERM');
    }, NPM_LOOKED_FOR_MS).unref();
  }
  server.on('error', (error) => fail(error.message));
  server.on('exit', (code, signal) => {
    if (signal === null) process.exit(code ?? 0);
    // Ended by a signal it did not answer: so does this, and whoever waits for it sees the same.
    for (const each of SIGNALS) process.removeAllListeners(each);
    process.kill(process.pid, signal);
  });
}
