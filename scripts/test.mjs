// The whole check, from a bare clone: types, lint, format, Jest, then Playwright against the built application.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb, checkNode, ensureChromium, installPackages, root, say } from './prepare.mjs';

checkNode();
installPackages();
const chromium = ensureChromium();

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

function step(what, file, args, env = {}) {
  say(what);
  const started = Date.now();
  const done = spawnSync(file, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, CHROMIUM: chromium, ...env },
  });
  say(`${what}: ${done.status === 0 ? 'fine' : 'FAILED'}, ${Math.round((Date.now() - started) / 1000)} s`);
  return done.status === 0;
}

function readJson(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

const checks = [
  step('Types', bin('tsc'), ['-p', '.']),
  step('Lint', bin('eslint'), ['.', '--max-warnings', '0']),
  step('Format', bin('prettier'), ['--check', '--log-level', 'warn', '.']),
];
counts.failed += checks.filter((fine) => !fine).length;

const jestFile = join(results, 'jest.json');
const jestFine = step('Unit and server tests (Jest)', bin('jest'), [
  '--json',
  `--outputFile=${jestFile}`,
  '--silent=false',
]);
const jest = readJson(jestFile);
counts.passed += jest?.numPassedTests ?? 0;
counts.failed += jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1;

buildWeb();
const playwrightFile = join(results, 'playwright.json');
const playwrightFine = step('Interface tests (Playwright)', bin('playwright'), ['test'], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: playwrightFile,
});
const { stats } = readJson(playwrightFile) ?? {};
counts.passed += stats?.expected ?? 0;
counts.failed += stats ? stats.unexpected + stats.flaky : 1;

rmSync(results, { recursive: true, force: true });
// A runner that failed without a failed test to show for it still is a failure.
if (counts.failed === 0 && !(jestFine && playwrightFine)) counts.failed = 1;
console.log(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
