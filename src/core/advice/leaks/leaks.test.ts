import { dryTestAt, Logbook, readyJob, takenIn, wetTest } from '../../../testing/fixtures';
import { recordOf } from '../../../testing/leakRecords';
import type { Payloads } from '../../logbook';
import { leakPlace, notToBeRun, stepPassed, testPlanOf } from '../tightness';
import { DEFAULT_POLICY } from '../../craft/policy';
import { watchHistory } from '../watches';
import { freeVolumeOf, leakOfTest } from './leakOfTest';
import { judgeTests } from './judgeTests';
import { leakCaseOf, type LeakCaseSeen, leakReport, usualOfCase } from './leakReport';
import { leakTrend } from './leakTrend';
import { usualStiffness } from './usualStiffness';

const leaking: Payloads['test.made'] = { ...dryTestAt(3), record: recordOf(3, { leakUgPerMin: 900 }) };
const tested = (...tests: readonly Payloads['test.made'][]) => {
  const job = readyJob();
  for (const each of tests) job.add('test.made', each);
  return job;
};

describe('what a test of a job shows', () => {
  it('goes by the volume that is on record: measured, by size, or hardly known', () => {
    const job = tested();
    expect(freeVolumeOf(new Logbook().state().facts).how).toBe('guessed');
    job.add('test.case', { freeVolumeCm3: null, withinPercent: null, diameterMm: 36, thicknessMm: 9 });
    expect(freeVolumeOf(job.state().facts).how).toBe('from the case’s size');
    job.add('test.case', { freeVolumeCm3: 1.3, withinPercent: 5, diameterMm: 36, thicknessMm: 9 });
    expect(freeVolumeOf(job.state().facts)).toEqual({ cm3: 1.3, factor: 1.05, how: 'measured' });
    const { flow } = leakOfTest(leaking, job.state().facts) ?? {};
    expect(flow?.from ?? 0).toBeLessThan(900);
    expect(flow?.to ?? 0).toBeGreaterThan(900);
  });

  it('without recovery it takes the tester’s blank run, typed or recorded', () => {
    const { record } = dryTestAt(3);
    const cut = record && {
      ...record,
      atS: record.atS.slice(0, 320),
      overBar: record.overBar.slice(0, 320),
      deflectionUm: record.deflectionUm.slice(0, 320),
    };
    const job = tested({ ...dryTestAt(3), record: cut });
    const verdict = () => judgeTests(job.state())[0]?.shows.verdict;
    expect(verdict()).toBe('not yet known');
    job.add('test.blank', { record: null, typed: { startUm: 0, endUm: 0, seconds: 600 } });
    expect(verdict()).toBe('tight');
    job.add('test.blank', { record: recordOf(0, {}, 300), typed: null });
    expect(verdict()).toBe('tight');
  });

  it('is nothing of a wet test, or where nothing was measured', () => {
    const { facts } = tested().state();
    expect(leakOfTest(wetTest, facts)).toBeNull();
    expect(leakOfTest({ ...dryTestAt(3), record: null, outcome: 'not clear' }, facts)).toBeNull();
  });
});

describe('what the case gave before', () => {
  it('is that of this watch, else of its type from three watches on', () => {
    const tests = judgeTests(tested(dryTestAt(3)).state());
    expect(usualStiffness(tests, null, null)).toBeCloseTo(5, 1);
    const earlier = { tests: [{ stiffnessUmPerBar: 8 }, { stiffnessUmPerBar: null }] };
    expect(usualStiffness([], earlier, { stiffnessUmPerBar: 3, watches: 9 })).toBe(8);
    expect(usualStiffness([], null, { stiffnessUmPerBar: 3, watches: 9 })).toBe(3);
    // A case so stiff that it hardly gave is not one that gives nothing.
    expect(usualStiffness([], null, { stiffnessUmPerBar: 0.002, watches: 9 })).toBe(0.01);
    expect(usualStiffness([], null, { stiffnessUmPerBar: 3, watches: 2 })).toBeNull();
    expect(usualStiffness([], null, null)).toBeNull();
    expect(usualOfCase([])).toBeNull();
    expect(usualOfCase([-4, 5, 6])).toEqual({ stiffnessUmPerBar: 5, watches: 3 });
  });

  it('and its leaks stand over the visits, the oldest first', () => {
    const job = tested(leaking, wetTest);
    const { tests } = watchHistory([
      { jobId: 'j', ticket: 'T1', receivedAt: '2025-01-01T00:00:00.000Z', state: job.state() },
    ]);
    expect(tests.map(({ outcome }) => outcome).sort()).toEqual(['leaks', 'tight']);
    const points = leakTrend(tests, tested(dryTestAt(3)).state());
    expect(points.map(({ outcome }) => outcome)).toEqual(['leaks', 'tight']);
    expect(points[0]?.flow.likeliest ?? 0).toBeGreaterThan(50);
    expect(leakTrend([], null)).toEqual([]);
  });
});

describe('where it leaks', () => {
  it('is held against crown and pushers, from whichever side it was seen', () => {
    const state = takenIn('reseal and test').state();
    expect(leakPlace({ side: 'front', clock: 3 }, state)).toMatchObject({ likely: 'crown' });
    expect(leakPlace({ side: 'back', clock: 9 }, state)).toMatchObject({ likely: 'crown' });
    expect(leakPlace({ side: 'side', clock: 3.5 }, state)).toMatchObject({ likely: 'crown' });
    expect(leakPlace({ side: 'front', clock: 7 }, state)).toMatchObject({ likely: 'crystal' });
    expect(leakPlace({ side: 'back', clock: 3 }, state)).toMatchObject({
      likely: 'back',
      where: '3 o’clock, seen from behind',
    });
    expect(leakPlace({ side: 'side', clock: 7 }, new Logbook().state())).toMatchObject({ likely: null });
  });
});

describe('how a watch of a job is to be tested', () => {
  it('goes by what is on record of it, and presses nothing that is cracked or not even', () => {
    const job = takenIn('reseal and test');
    const plan = () => testPlanOf(job.state(), DEFAULT_POLICY, null);
    expect(plan().verdict).toBe('test gently');
    expect(plan().reasons.join(' ')).toContain('ring of the back, seal of the crown');
    job.add('arrive.mark', { view: 'front', kind: 'cracked crystal', clock: null, film: null, note: '' });
    expect(plan()).toMatchObject({ verdict: 'do not test', steps: [] });
  });
});

describe('a step of the plan', () => {
  it('is passed by a tight test of its method at its pressure or more, and condensation by no fog', () => {
    const fogless = { ...wetTest, method: 'condensation', pressureBar: null } as const;
    const tests = judgeTests(tested(dryTestAt(3), { ...wetTest, outcome: 'not clear' }, fogless).state());
    const passed = (method: 'dry air' | 'wet' | 'condensation', overBar: number | null) =>
      stepPassed({ method, overBar }, tests);
    expect([passed('dry air', 2), passed('dry air', 3), passed('dry air', 5)]).toEqual([true, true, false]);
    expect([passed('wet', 3), passed('condensation', null)]).toEqual([false, true]);
    expect(stepPassed({ method: 'condensation', overBar: null }, [])).toBe(false);
  });
});

describe('a test about to be run', () => {
  it('is refused beyond tester or shop whatever the reason, and beyond the watch without one', () => {
    const state = takenIn('reseal and test').state();
    const run = (pressureBar: number, excessReason = '') =>
      notToBeRun({ method: 'dry air', pressureBar, excessReason }, state, DEFAULT_POLICY).join(' ');
    expect(run(3)).toBe('');
    expect(run(25, 'the owner asks for it')).toContain('more than its tester is made for');
    expect(run(-0.8, 'why not')).toContain('below outside air');
    const rating = state.facts.watch?.payload.ratingBar ?? 0;
    expect(rating).toBeLessThan(8);
    expect(run(8)).toContain('more than this watch is rated for');
    expect(run(8, 'the owner asks for it')).toBe('');
  });
});

describe('what leaks, by case type and year', () => {
  const seen = (more: Partial<LeakCaseSeen>): LeakCaseSeen => ({
    caseCode: 'K77/15',
    backKind: 'screwed, notched',
    testedAt: '2025-05-01T00:00:00.000Z',
    leaked: false,
    mended: false,
    seats: [],
    ringRenewed: true,
    ringAgeYears: null,
    stiffnessUmPerBar: null,
    ...more,
  });

  it('is told over all years and year by year, the most tested type first', () => {
    const report = leakReport([
      seen({ caseCode: 'A' }),
      seen({ leaked: true, mended: true, seats: ['crown'], ringAgeYears: 6, ringRenewed: false }),
      seen({ leaked: true, seats: ['crown', 'back'], ringAgeYears: 4, testedAt: '2024-01-01T00:00:00.000Z' }),
    ]);
    expect(report.map(({ caseCode, year }) => `${caseCode} ${year}`)).toEqual([
      'K77/15 all',
      'K77/15 2025',
      'K77/15 2024',
      'A all',
      'A 2025',
    ]);
    expect(report[0]).toMatchObject({
      leaked: { of: 2, among: 2 },
      mended: { of: 1, among: 2 },
      seats: [
        { seat: 'crown', jobs: 2 },
        { seat: 'back', jobs: 1 },
      ],
      medianRingAgeYears: 5,
    });
    expect(report[0]?.renewal).toContain('Too few to tell');
    expect(report[3]?.renewal).toBe('Nothing to compare with.');
    expect(leakReport([])).toEqual([]);
  });

  it('says what a new ring changed only where the intervals stand apart', () => {
    const many = (count: number, more: Partial<LeakCaseSeen>) =>
      Array.from({ length: count }, () => seen(more));
    const [all] = leakReport([
      ...many(2, { leaked: true }),
      ...many(38, {}),
      ...many(20, { ringRenewed: false, leaked: true }),
      ...many(20, { ringRenewed: false }),
    ]);
    expect(all?.renewal).toMatch(/^It matters: with a new ring 2 of 40 leaked/);
  });

  it('counts a job once, and only where a test was conclusive', () => {
    expect(leakCaseOf(tested().state())).toBeNull();
    expect(leakCaseOf(tested({ ...dryTestAt(3), record: null, outcome: 'no leak seen' }).state())).toBeNull();
    const job = tested(leaking);
    const [first] = job.state().facts.tests;
    job.add('test.finding', { seat: 'crown', foundBy: [first?.id ?? ''], done: 'seal renewed', note: '' });
    expect(leakCaseOf(job.state())).toMatchObject({ leaked: true, mended: false, seats: ['crown'] });
    job.add('test.made', { ...dryTestAt(3), retestOf: [first?.id ?? ''] });
    expect(leakCaseOf(job.state())).toMatchObject({ leaked: true, mended: true });
    expect(leakCaseOf(job.state())?.stiffnessUmPerBar ?? 0).toBeCloseTo(5, 0);
  });
});
