import { samples } from '../../testing/samples';
import { takenIn } from '../../testing/fixtures';
import { context, dryTest, Logbook, movementOf, readyJob } from '../../testing/fixtures';
import { DEFAULT_POLICY, STAGES } from '../craft/policy';
import type { Entry, Payloads } from './entry';
import { foldJob } from './foldJob';
import { openParts } from './progress';
const opened: Payloads['open.back'] = {
  kind: 'snap-on',
  openedWith: 'case knife',
  protection: 'film',
  went: 'freely',
  spotClock: 7,
  lipClock: null,
  seenFrom: 'behind',
  toolIds: [],
  separationMm: null,
  rearMm: null,
};

describe('progress', () => {
  it('asks first for the watch, and moves stage by stage through the service', () => {
    expect(new Logbook().state().current).toBe('arrive');
    const full = readyJob().entries;
    const seen = full.map((_, count) => foldJob(full.slice(0, count + 1), context).current);
    const order = seen.map((stage) => STAGES.indexOf(stage ?? 'handback'));
    // From the moment the service is known the current stage never goes back.
    expect(order.slice(4)).toEqual([...order.slice(4)].sort((a, b) => a - b));
    expect(seen.at(-1)).toBe('handback');
  });

  it('leaves out the test for a cell only, and shows a skipped stage with its reason', () => {
    const job = readyJob();
    expect(job.state().progress.find((stage) => stage.stage === 'test')?.status).toBe('not needed');
    const short = new Logbook();
    short.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    short.add('logbook.stage-skipped', { stage: 'check', reason: 'meter away' });
    expect(short.state().progress.find((stage) => stage.stage === 'check')).toMatchObject({
      status: 'skipped',
      reason: 'meter away',
    });
  });

  it('asks for the current where the service does', () => {
    expect(DEFAULT_POLICY.services['cell and reseal'].requires).toContain('check.currentUA');
  });

  it('needs no old voltage and no disposal where there was no cell', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    job.add('cell.found', { marking: null, condition: null });
    const missing = job.state().progress.flatMap((stage) => stage.missing.map((each) => each.requirement));
    expect(missing).not.toContain('check.restVoltageV');
    expect(missing).not.toContain('cell.old-settled');
  });

  it('asks for both cells of a movement with two', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    job.add('identify.movement', movementOf('quillbeck-22-4', 'QB 22-4'));
    job.add('cell.found', { marking: '395', condition: 'clean' }, { well: 'hands' });
    expect(job.state().wells.map((well) => [well.name, well.wanted?.code, well.found !== null])).toEqual([
      ['hands', 'SR927SW', true],
      ['display', 'CR1216', false],
    ]);
  });

  it('voids what was proved on the closed watch when it is opened again, but not when the opening is corrected', () => {
    const again = readyJob();
    again.add('open.back', {
      kind: 'snap-on',
      openedWith: 'case knife',
      protection: 'film',
      went: 'freely',
      spotClock: 7,
      lipClock: null,
      seenFrom: 'behind',
      toolIds: [],
      separationMm: null,
      rearMm: null,
    });
    expect(again.state().facts.closed).toBeNull();
    expect(again.state().facts.runs).toBeNull();
    expect(again.state().current).toBe('seal');
    const corrected = readyJob();
    const opening = corrected.entries.find((entry) => entry.kind === 'open.back') as Entry;
    corrected.add(
      'open.back',
      {
        kind: 'snap-on',
        openedWith: 'other knife',
        protection: 'film',
        went: 'freely',
        spotClock: 7,
        lipClock: null,
        seenFrom: 'behind',
        toolIds: [],
        separationMm: null,
        rearMm: null,
      },
      { supersedes: [opening.id] },
    );
    expect(corrected.state().facts.closed).not.toBeNull();
    expect(corrected.state().facts.back?.payload.openedWith).toBe('other knife');
  });
});

describe('opening again in the same visit', () => {
  it('voids every proof made on the closed watch', () => {
    const job = readyJob();
    job.add('set.outside', { proved: { bezel: 'works' }, handedBackSo: '' });
    job.add('set.run-began', { toSee: 'how it keeps time', shows: '09:00' });
    job.add('test.made', dryTest);
    job.add('open.back', opened);
    const { facts } = job.state();
    const { closed, runs, timeSet, functions, outside, watched, proving, beforeClosing } = facts;
    expect([closed, runs, timeSet, functions, outside, watched, proving, beforeClosing]).toEqual(
      Array.from({ length: 8 }, () => null),
    );
    expect(facts.tests.filter(({ id }) => !facts.testsBeforeClosing.has(id))).toEqual([]);
    expect(openParts(facts)).toEqual([]);
  });
});

describe('the proving run', () => {
  it('is met once it lasted as long as policy asks and the watch still ran', () => {
    const policy = {
      ...DEFAULT_POLICY,
      provingRunHours: 8,
      services: {
        ...DEFAULT_POLICY.services,
        'cell only': { requires: ['set.proving-run'] as const, priceMinor: 0 },
      },
    };
    const run = (hours: number, stillRuns: boolean) => {
      const job = takenIn('cell only');
      job.add(
        'set.run-began',
        { toSee: 'how it keeps time', shows: '09:00' },
        { occurredAt: '2026-03-17T09:00:00.000Z' },
      );
      job.add(
        'set.run-ended',
        { toSee: 'how it keeps time', shows: '17:00', stillRuns },
        { occurredAt: new Date(Date.parse('2026-03-17T09:00:00.000Z') + hours * 3_600_000).toISOString() },
      );
      return job.state({ policy }).progress.find((stage) => stage.stage === 'set')?.status;
    };
    expect([run(8, true), run(7.9, true), run(9, false)]).toEqual(['done', 'current', 'current']);
  });
});

describe('a crown that screws down', () => {
  const missing = (job: Logbook): string[] =>
    job.state().progress.flatMap((stage) => stage.missing.map(({ requirement }) => requirement));

  it('is seen down after the last setting, and after it was tried last', () => {
    const job = readyJob();
    expect(missing(job)).not.toContain('set.crown-down');
    job.add('arrive.crown', { crown: 'screwed down' });
    expect(missing(job)).toContain('set.crown-down');
    job.add('set.crown-down', { down: false });
    expect(missing(job)).toContain('set.crown-down');
    job.add('set.crown-down', { down: true });
    expect(missing(job)).not.toContain('set.crown-down');
    for (const again of ['set.time', 'set.outside'] as const) {
      if (again === 'set.time') job.add('set.time', { set: true });
      else job.add('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
      expect(missing(job)).toContain('set.crown-down');
      job.add('set.crown-down', { down: true });
      expect(missing(job)).not.toContain('set.crown-down');
    }
  });

  it('keeps what was signed by an earlier program whole', () => {
    const job = readyJob();
    job.add('arrive.crown', { crown: 'screwed down' });
    job.add('handback.signed', samples['handback.signed']);
    expect(missing(job)).not.toContain('set.crown-down');
  });
});
