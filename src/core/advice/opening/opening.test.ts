import fc from 'fast-check';
import { caseTypes } from '../../../../demo/book';
import { tools } from '../../../../demo/tools';
import { context, idOf, Logbook, readyJob } from '../../../testing/fixtures';
import { samples } from '../../../testing/samples';
import { judgeEntry } from '../../admission';
import { openedBeside } from '../../logbook';
import { type WatchHistory, watchHistory } from '../watches';
import { asAdvised, expectedBack, openingOf, partsComingOff } from './openingOf';
const ask = (job: Logbook, more: Partial<Parameters<typeof openingOf>[0]> = {}) =>
  openingOf({
    state: job.state(),
    history: null,
    tools,
    schools: context.policy.schools,
    typed: null,
    ...more,
  });
const arrived = (reference: string): Logbook => {
  const job = new Logbook();
  job.add('arrive.watch', { ...samples['arrive.watch'], reference });
  return job;
};

describe('how a watch is opened', () => {
  it('goes by the book, then by the last visit, then by what was measured, then by what is typed', () => {
    const job = arrived('K61/08');
    expect(ask(job)).toMatchObject({ kindKnown: true, back: { notchCount: 8, pitchMm: 32.2 } });
    const measured = {
      ...expectedBack(caseTypes.find(({ code }) => code === 'K61/08') ?? null),
      pitchMm: 31,
    };
    const history: WatchHistory = { ...watchHistory([]), measured };
    expect(ask(job, { history }).back.pitchMm).toBe(31);
    job.add('open.measured', { ...measured, pitchMm: 30.5 });
    expect(ask(job, { history }).back.pitchMm).toBe(30.5);
    const typed = { back: { ...measured, pitchMm: 30 }, kindChosen: false };
    expect(ask(job, { history, typed }).back.pitchMm).toBe(30);
  });

  it('says that the kind is guessed, until somebody chooses it', () => {
    const job = arrived('unmarked');
    expect(ask(job)).toMatchObject({ kindKnown: false, back: { kind: 'snap-on' } });
    const back = expectedBack(null);
    expect(ask(job, { typed: { back, kindChosen: false } }).kindKnown).toBe(false);
    expect(ask(job, { typed: { back, kindChosen: true } }).kindKnown).toBe(true);
  });

  it('keeps to the kind on record once the watch is open, and to the measures of that kind', () => {
    const job = arrived('K61/08');
    job.add('open.back', { ...samples['open.back'], kind: 'snap-on' });
    expect(ask(job).back).toMatchObject({
      kind: 'snap-on',
      notchCount: null,
      pitchMm: null,
      coating: 'coated',
    });
  });

  it('is recorded as advised: the tool, and the setting only where that tool is set', () => {
    expect(asAdvised(ask(arrived('K61/08')))).toMatchObject({
      kind: 'screwed, notched',
      toolIds: ['hand-wrench'],
      separationMm: 22.77,
      rearMm: 27.48,
      spotClock: null,
    });
    const odd = {
      ...expectedBack(null),
      kind: 'screwed, notched',
      notchCount: 5,
      pitchMm: 30,
      notchWidthMm: 2.6,
    } as const;
    const two = { ...tools, wrenches: tools.wrenches.filter(({ jaws }) => jaws === 2) };
    const ball = ask(arrived('unmarked'), { tools: two, typed: { back: odd, kindChosen: true } });
    expect(asAdvised(ball)).toMatchObject({ toolIds: ['ball'], separationMm: null, rearMm: null });
    const wrong = { ...odd, notchCount: 1 };
    const stopped = ask(arrived('unmarked'), { typed: { back: wrong, kindChosen: true } });
    expect([asAdvised(stopped).openedWith, stopped.plan.stops]).toEqual(['', true]);
  });

  it('lays what comes off on the tray once, however often its step is ticked', () => {
    const job = arrived('418D-20');
    const { plan } = ask(job);
    const coming = partsComingOff(plan.steps, job.state().facts);
    expect(coming.map(({ part, step }) => [part, step])).toContainEqual(['screw', 'screws']);
    for (const part of coming) job.add('open.part', part);
    expect(partsComingOff(plan.steps, job.state().facts)).toEqual([]);
  });
});

describe('a part corrected again and again', () => {
  const bar = { part: 'spring bar', count: 1, serves: ['bracelet'], step: '' } as const;
  it('stays settled, and is settled under whichever entry a bench knew it by', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5 }), fc.nat(5), fc.boolean(), (corrections, named, before) => {
        const job = readyJob();
        const ids = [job.add('open.part', { ...bar, position: 'at 12' }).id];
        const settle = () =>
          job.add('open.part-settled', {
            partEntryId: ids[Math.min(named, ids.length - 1)] ?? '',
            outcome: 'back in place',
            note: '',
          });
        if (before) settle();
        for (let round = 0; round < corrections; round += 1)
          ids.push(
            job.add('open.part', { ...bar, position: `hole ${round}` }, { supersedes: [ids.at(-1) ?? ''] })
              .id,
          );
        if (!before) {
          const late = settle();
          job.entries.pop();
          const admitted = judgeEntry(late, job.state(), job.entries, () => [], context);
          expect(admitted.verdict).toBe('admitted');
          job.entries.push(late);
        }
        const parts = [...job.state().facts.parts.values()];
        expect(parts.map(({ off, settled }) => [off.id, settled?.payload.outcome])).toEqual([
          [ids.at(-1), 'back in place'],
        ]);
      }),
    );
  });

  it('is on the tray no longer once it is withdrawn', () => {
    const job = readyJob();
    const { id } = job.add('open.part', { ...bar, position: '' });
    job.add('logbook.withdrawn', { reason: 'not of this watch' }, { withdraws: id });
    const late = job.add(
      'open.part-settled',
      { partEntryId: id, outcome: 'lost', note: '' },
      { id: idOf('late') },
    );
    job.entries.pop();
    expect(judgeEntry(late, job.state(), job.entries, () => [], context).verdict).toBe('refused');
  });
});

describe('two that lie open', () => {
  const [early, late] = ['2026-03-17T09:00:00.000Z', '2026-03-17T09:30:00.000Z'];
  it.each([
    ['55120', '', true],
    ['', '55120', false],
    ['', '', false],
    ['55120', '70333', true],
  ])('the first with “%s” inside, the second with “%s”: %s', (first, second, beside) => {
    const one = { sinceUtc: early, insideSerial: first };
    const other = { sinceUtc: late, insideSerial: second };
    expect(openedBeside(one, other)).toBe(beside);
    expect(openedBeside(other, one)).toBe(beside);
  });
});
