import { Stryker } from '@stryker-mutator/core';
import jestConfig from '../jest.config.mjs';

/**
 * Changes the core on purpose, one change at a time, and counts which changes a test notices. A room is judged by the
 * tests that stand in it: one room a run, since a mutant is only as quick as the tests it has to face.
 */
const ROOMS = {
  'cross-reference': { mutate: ['craft/cells/crossReference.ts'], tests: ['craft/cells'] },
  'markings and witnesses': {
    mutate: ['craft/cells/{readCellMarking,lookAlikes,witnesses,finder}.ts'],
    tests: ['craft/cells'],
  },
  admission: { mutate: ['admission/*.ts'], tests: ['admission'] },
  fold: { mutate: ['logbook/{foldJob,settle}.ts'], tests: ['logbook'] },
  'water statement': { mutate: ['advice/handback/*.ts'], tests: ['advice/handback'] },
  'jaw setting': { mutate: ['craft/opening/jawSetting.ts'], tests: ['craft/opening'] },
};

const LEAST_KILLED_PERCENT = 85;
const wanted = process.argv.slice(2);
const unknown = wanted.filter((name) => !(name in ROOMS));
if (unknown.length > 0) {
  console.error(`No such room: ${unknown.join(', ')}. There are: ${Object.keys(ROOMS).join(', ')}.`);
  process.exit(2);
}

const shares = [];
for (const [name, room] of Object.entries(ROOMS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const mutants = await new Stryker({
    testRunner: 'jest',
    jest: {
      projectType: 'custom',
      config: {
        ...jestConfig,
        testMatch: room.tests.map((each) => `<rootDir>/src/core/${each}/**/*.test.ts`),
      },
      enableFindRelatedTests: false,
    },
    coverageAnalysis: 'perTest',
    // Tables made when a file is loaded cannot be changed without starting Jest anew for each.
    ignoreStatic: true,
    mutate: [...room.mutate.map((each) => `src/core/${each}`), '!src/**/*.test.ts', '!src/**/index.ts'],
    // Jest keeps what every run loads: a runner grows by some megabytes a mutant.
    maxTestRunnerReuse: 60,
    concurrency: Number(process.env.MUTANTS_AT_ONCE ?? 2),
    timeoutMS: 30_000,
    tempDirName: '.stryker-tmp',
    reporters: ['clear-text', 'json'],
    jsonReporter: { fileName: `reports/mutants-${name.replaceAll(' ', '-')}.json` },
    clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
  }).runMutationTest();
  const counted = mutants.filter(({ status }) => status !== 'Ignored' && status !== 'CompileError');
  const killed = counted.filter(({ status }) => status === 'Killed' || status === 'Timeout');
  shares.push({ name, killed: killed.length, of: counted.length });
}

for (const { name, killed, of } of shares)
  console.log(`${name}: ${killed} of ${of} changes noticed, ${((100 * killed) / of).toFixed(1)} %`);
process.exitCode = shares.every(({ killed, of }) => 100 * killed >= LEAST_KILLED_PERCENT * of) ? 0 : 1;
