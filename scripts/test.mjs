// The whole check, from a bare clone: types, lint, format, Jest, then Playwright against the built application.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  checkNode,
  compilePackages,
  ensureChromium,
  fetchPackages,
  packagesInstalled,
  root,
  say,
} from './prepare.mjs';

checkNode();
// What is compiled is needed by nothing that begins at once, and takes one core for two minutes.
const compiled = packagesInstalled();
const [chromium] = await Promise.all([ensureChromium(), compiled || fetchPackages()]);

const bin = (name) => join(root, 'node_modules/.bin', name);
// Hundreds of small databases are made and thrown away: in memory where there is room, whatever the disk is like.
const MEMORY = '/dev/shm';
const ROOM_BYTES = 4e9;
function roomIn(folder) {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return 0;
  }
}
if (!process.env.TMPDIR && roomIn(MEMORY) > ROOM_BYTES) process.env.TMPDIR = MEMORY;

const results = mkdtempSync(join(tmpdir(), 'wax-test-'));
const counts = { passed: 0, failed: 0 };

/** A step that tells what it does as it goes. */
function step(what, file, args, env = {}) {
  say(what);
  const started = Date.now();
  return new Promise((resolve) => {
    const running = spawn(file, args, {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, CHROMIUM: chromium, ...env },
    });
    running.on('error', (error) => say(error.message));
    running.on('close', (status) => {
      say(`${what}: ${status === 0 ? 'fine' : 'FAILED'}, ${Math.round((Date.now() - started) / 1000)} s`);
      resolve(status === 0);
    });
  });
}

function readJson(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

/** A check that runs beside others; what it has to say is printed in one piece when it is done. */
function beside(what, file, args) {
  const started = Date.now();
  return new Promise((resolve) => {
    const running = spawn(file, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    for (const stream of [running.stdout, running.stderr]) stream.on('data', (piece) => said.push(piece));
    running.on('error', (error) => said.push(Buffer.from(`${error.message}\n`)));
    running.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      say(`${what}: ${status === 0 ? 'fine' : 'FAILED'}, ${Math.round((Date.now() - started) / 1000)} s`);
      resolve(status === 0);
    });
  });
}

say('Types, lint, format and the build, beside each other');
const checks = [
  beside('Types', process.execPath, [join(root, 'node_modules/typescript-native/bin/tsc'), '-p', '.']),
  beside('Lint', bin('eslint'), ['.', '--max-warnings', '0']),
  beside('Format', bin('prettier'), ['--check', '--log-level', 'warn', '.']),
];
const databaseReady = compiled ? Promise.resolve() : compilePackages();
// The demo is stored for the server that will serve it: once for all tests.
const demo = join(results, 'demo');
const buildOf = (part) => beside(`Build of the ${part}`, process.execPath, ['scripts/build.mjs', part]);
const built =
  (await buildOf('server')) &&
  (
    await Promise.all([
      buildOf('web'),
      databaseReady.then(() =>
        beside('Demo', process.execPath, ['--import', 'tsx', 'scripts/buildDemo.ts', demo]),
      ),
    ])
  ).every(Boolean);
// What a first visit loads grows unseen: one import that the shell did not have is enough.
const light = built
  ? await beside('Size of the first page', process.execPath, ['--import', 'tsx', 'benchmarks/bundle.ts'])
  : true;
const ready = built ? { WAX_BUILT: 'yes', WAX_READY_DEMO: demo } : {};
// Lint keeps one core for as long again: the other is Jest's.
await databaseReady;
const jestFile = join(results, 'jest.json');
const jestFine = await step(
  'Unit and server tests (Jest)',
  bin('jest'),
  ['--json', `--outputFile=${jestFile}`, '--silent=false'],
  ready,
);
const jest = readJson(jestFile);
counts.passed += jest?.numPassedTests ?? 0;
counts.failed += jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1;

counts.failed += [light, ...(await Promise.all(checks))].filter((fine) => !fine).length;
if (!built) {
  say('The interface cannot be tested: it does not build, see above.');
  rmSync(results, { recursive: true, force: true });
  console.log(`${counts.passed} passed, ${counts.failed + 1} failed`);
  process.exit(1);
}

const playwrightFile = join(results, 'playwright.json');
const playwrightFine = await step('Interface tests (Playwright)', bin('playwright'), ['test'], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: playwrightFile,
  ...ready,
});
const { stats } = readJson(playwrightFile) ?? {};
counts.passed += stats?.expected ?? 0;
counts.failed += stats ? stats.unexpected + stats.flaky : 1;

rmSync(results, { recursive: true, force: true });
// A runner that failed without a failed test to show for it still is a failure.
if (counts.failed === 0 && !(jestFine && playwrightFine)) counts.failed = 1;
console.log(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
