import { book, Logbook, readyJob, takenIn } from '../../testing/fixtures';
import type { Payloads } from './entry';
import { NOT_LOOKED } from './facts/check';
import { failedProofs, proofsOf, ranBeforeClosing, runOf, seenRunning, unproved } from './proofs';

const closed = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false };
const at = (minutes: number) => ({
  occurredAt: new Date(Date.parse('2026-03-17T10:00:00.000Z') + minutes * 60_000).toISOString(),
});
const works = (...what: string[]): Payloads['set.functions'] => ({
  proved: Object.fromEntries(what.map((each) => [each, 'works' as const])),
  handedBackSo: '',
});
const missing = (job: Logbook): string[] =>
  job.state().progress.flatMap((stage) => stage.missing.map((each) => `${stage.stage}: ${each.words}`));
const stageOf = (job: Logbook, stage: string) =>
  job.state().progress.find((each) => each.stage === stage)?.status;

describe('the order of proofs', () => {
  it('keeps what was proved before the closing apart, and asks it again', () => {
    const job = readyJob();
    expect(missing(job)).toEqual(['handback: the signature']);
    job.add('seal.closed', closed);
    const { facts } = job.state();
    expect([facts.runs, facts.timeSet, facts.functions, facts.outside]).toEqual([null, null, null, null]);
    expect(facts.beforeClosing).toMatchObject({ runs: {}, timeSet: {}, functions: {}, outside: {} });
    expect(seenRunning(facts)).toBeNull();
    expect(ranBeforeClosing(facts)).toMatchObject({ runs: true, watchedSeconds: 60 });
    expect(missing(job)).toEqual([
      'set: that it runs',
      'set: the time set',
      'set: functions checked',
      'set: the crown in every position, after closing',
      'handback: the signature',
    ]);
  });

  it('keeps the older proof through a second closing', () => {
    const job = readyJob();
    job.add('seal.closed', closed);
    job.add('seal.closed', closed);
    expect(ranBeforeClosing(job.state().facts)).toMatchObject({ runs: true });
  });

  it('asks nothing again where the closing was only corrected, or the job was signed so', () => {
    const job = readyJob();
    const closing = job.entries.find(({ kind }) => kind === 'seal.closed');
    job.add('seal.closed', { ...closed, how: 'press' }, { supersedes: [closing?.id ?? ''] });
    expect(missing(job)).toEqual(['handback: the signature']);
    const signed = readyJob();
    const early = signed.entries.splice(
      signed.entries.findIndex(({ kind }) => kind === 'seal.closed'),
      1,
    );
    const renumbered = new Logbook();
    for (const each of [...signed.entries, ...early]) renumbered.add(each.kind, each.payload);
    expect(missing(renumbered)).toContain('set: that it runs');
    renumbered.add('handback.signed', {
      initials: 'EV',
      statement: {
        found: [],
        done: [],
        fitted: [],
        tested: [],
        notDone: [],
        water: '',
        nextVisitOn: null,
        nextVisit: '',
        warranty: '',
        priceMinor: null,
      },
    } as never);
    expect(missing(renumbered)).toEqual([]);
  });
});

describe('whether it was seen running', () => {
  it('does not, where a look finds it standing still after it ran', () => {
    const job = readyJob();
    const look = job.add('check.looked', { ...NOT_LOOKED, shows: 'stands still' });
    expect(seenRunning(job.state().facts)?.runs).toBe(false);
    expect(missing(job)).toContain('set: that it runs');
    // Which stands where it stood, whatever of the proof is put right later.
    const ran = job.entries.find(({ kind }) => kind === 'set.runs');
    job.add('set.runs', { runs: true, watchedSeconds: 90 }, { supersedes: [ran?.id ?? ''] });
    expect(seenRunning(job.state().facts)?.runs).toBe(false);
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(missing(job)).toEqual(['handback: the signature']);
    // A look of before it ran says nothing of now.
    job.add(
      'check.looked',
      { ...NOT_LOOKED, shows: 'stands still', crown: 'home' },
      { supersedes: [look.id] },
    );
    expect(missing(job)).toEqual(['handback: the signature']);
    job.add('seal.closed', closed);
    expect(ranBeforeClosing(job.state().facts)?.runs).toBe(true);
    job.add('check.looked', { ...NOT_LOOKED, shows: 'stands still' });
    expect(ranBeforeClosing(job.state().facts)?.runs).toBe(true);
    expect(seenRunning(job.state().facts)).toBeNull();
  });

  it('goes by what was seen last', () => {
    const job = readyJob();
    job.add('set.runs', { runs: false, watchedSeconds: 60 }, at(5));
    expect(seenRunning(job.state().facts)?.runs).toBe(false);
    job.add('set.run-began', { toSee: 'that it runs', shows: '' }, at(6));
    job.add('set.run-ended', { toSee: 'that it runs', shows: '', stillRuns: true }, at(8));
    expect(seenRunning(job.state().facts)).toMatchObject({ runs: true, watchedSeconds: 120 });
    expect(missing(job)).toEqual(['handback: the signature']);
    job.add('set.run-began', { toSee: 'how it keeps time', shows: '10:10' }, at(10));
    expect(seenRunning(job.state().facts)?.runs).toBe(true);
    job.add('set.run-ended', { toSee: 'how it keeps time', shows: '', stillRuns: false }, at(500));
    expect(seenRunning(job.state().facts)?.runs).toBe(false);
    expect(missing(job)).toContain('set: that it runs');
  });

  it('is not taken for granted where it was watched more briefly than its own step asks', () => {
    const job = takenIn('cell only', 'orrelin-47-1');
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(missing(job)).toContain('set: that it runs');
    job.add('set.runs', { runs: true, watchedSeconds: 120 });
    expect(missing(job)).not.toContain('set: that it runs');
  });

  it('is not taken for granted of a movement nobody knows from a glance', () => {
    const job = takenIn('cell only', null);
    job.add('set.runs', { runs: true, watchedSeconds: 3 });
    expect(missing(job)).toContain('set: that it runs');
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(missing(job)).not.toContain('set: that it runs');
  });

  it('is no where the hands stand where they stood', () => {
    const job = readyJob();
    job.add('set.run-began', { toSee: 'that it runs', shows: '10:06' }, at(6));
    job.add('set.run-ended', { toSee: 'that it runs', shows: '10:06', stillRuns: true }, at(16));
    expect(seenRunning(job.state().facts)?.runs).toBe(false);
  });

  it('tells no rate where the time was set or the crown pulled in between', () => {
    for (const disturb of [
      (job: Logbook) => job.add('set.time', { set: true }, at(60)),
      (job: Logbook) =>
        job.add('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' }, at(60)),
    ]) {
      const job = readyJob();
      job.add('set.run-began', { toSee: 'how it keeps time', shows: '10:10:00' }, at(10));
      disturb(job);
      job.add('set.run-ended', { toSee: 'how it keeps time', shows: '22:40:00', stillRuns: true }, at(730));
      // Setting it once more afterwards makes that run no better.
      job.add('set.time', { set: true }, at(740));
      const run = runOf(job.state().facts, 'how it keeps time');
      expect([run.verdict, run.secondsPerDay]).toEqual(['runs', null]);
      expect(run.reasons[0]).toContain('in between');
    }
  });

  it('forgets an end whose beginning was withdrawn', () => {
    const job = readyJob();
    const began = job.add('set.run-began', { toSee: 'how it keeps time', shows: '10:10' }, at(10));
    job.add('set.run-ended', { toSee: 'how it keeps time', shows: '18:10', stillRuns: true }, at(490));
    job.add('logbook.withdrawn', { reason: 'another watch' }, { withdraws: began.id });
    expect(job.state().facts.proving).toBeNull();
  });
});

describe('what is to be proved of this watch', () => {
  const complained = (calibreId: string, picked: Payloads['arrive.complaint']['picked'][number]): Logbook => {
    const job = takenIn('cell only', calibreId);
    const before = job.entries.find(({ kind }) => kind === 'arrive.complaint');
    job.add('arrive.complaint', { picked: [picked], words: '' }, { supersedes: before ? [before.id] : [] });
    return job;
  };
  const asked = (job: Logbook): string[] => {
    const { facts, calibre } = job.state();
    return proofsOf(facts, calibre).map(({ what, because }) =>
      because === null ? what : `${what}: ${because}`,
    );
  };

  it('is what its owner complained of, too', () => {
    expect(asked(complained('orrelin-41-2', 'hand steps in twos or fours'))).toEqual([
      'hands',
      'seconds hand',
      'low-supply signal: the owner: hand steps in twos or fours',
    ]);
    // Of light and alarm the one the book knows.
    expect(asked(complained('pellorane-3302', 'light or alarm fails first'))).toEqual([
      'hands',
      'seconds hand',
      'alarm: the owner: light or alarm fails first',
    ]);
    expect(asked(complained('orrelin-41-2', 'light or alarm fails first'))).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^light: /),
        expect.stringMatching(/^alarm: /),
      ]) as string[],
    );
    expect(asked(complained('orrelin-41-2', 'stopped'))).toEqual(['hands', 'seconds hand']);
  });

  it('is what a lost part serves, until it is tried: that it is not there is no proof', () => {
    const job = readyJob();
    const part = job.add('open.part', {
      part: 'buzzer spring',
      position: 'under the plate',
      count: 1,
      serves: ['alarm'],
      step: '',
    });
    job.add('open.part-settled', { partEntryId: part.id, outcome: 'lost', note: '' }, at(20));
    expect(asked(job)).toContain('alarm: the buzzer spring was lost');
    expect(unproved(job.state().facts, job.state().calibre)).toEqual(['alarm']);
    job.add(
      'set.functions',
      {
        ...works('hands', 'seconds hand'),
        proved: { ...works('hands', 'seconds hand').proved, alarm: 'not applicable' },
      },
      at(30),
    );
    expect(missing(job).join()).toContain('alarm heard');
    job.add('set.functions', works('hands', 'seconds hand', 'alarm'), at(40));
    expect(missing(job).join()).not.toContain('alarm');
  });

  it('is not proved by an empty list where nobody knows the movement, either', () => {
    const job = takenIn('reseal and test', null);
    job.add('set.functions', works());
    expect(missing(job)).toContain('set: functions checked');
    job.add('set.functions', works('hands'));
    expect(missing(job)).not.toContain('set: functions checked');
  });

  it('is not proved by an empty list, nor by half of it', () => {
    const job = readyJob();
    const before = job.entries.find(({ kind }) => kind === 'set.functions');
    job.add('set.functions', works(), { supersedes: [before?.id ?? ''] });
    expect(missing(job)).toContain('set: functions checked');
    expect(book.calibre('orrelin-41-2')?.functions).toEqual(['hands', 'seconds hand']);
  });
});

describe('what does not work', () => {
  const failing = (handedBackSo: string): Logbook => {
    const job = readyJob();
    job.add('set.functions', {
      proved: { hands: 'works', 'seconds hand': 'works', light: 'does not work' },
      handedBackSo,
    });
    return job;
  };

  it('goes back to where it is looked at: a failed light to the cell, until it works', () => {
    const job = failing('');
    expect(failedProofs(job.state().facts)).toMatchObject([{ what: 'light', stage: 'cell' }]);
    expect(job.state().current).toBe('cell');
    expect([stageOf(job, 'cell'), stageOf(job, 'handback')]).toEqual(['current', 'coming']);
    expect(missing(job).join()).toContain('cell: light does not work');
    job.add('set.functions', works('hands', 'seconds hand', 'light'));
    expect(stageOf(job, 'cell')).toBe('done');
    expect(job.state().current).toBe('handback');
  });

  it('goes out so only with its reason', () => {
    const job = failing('the owner wants no repair');
    expect(job.state().current).toBe('handback');
    expect(failedProofs(job.state().facts)).toMatchObject([{ handedBackSo: 'the owner wants no repair' }]);
  });

  it('of the crown goes back to the opening, and one that is said to be none is no proof', () => {
    const job = readyJob();
    job.add('set.outside', { proved: { 'crown in every position': 'does not work' }, handedBackSo: '' });
    expect(job.state().current).toBe('open');
    job.add('set.outside', { proved: { 'crown in every position': 'not applicable' }, handedBackSo: '' });
    expect(missing(job)).toContain('set: the crown in every position, after closing');
  });
});
