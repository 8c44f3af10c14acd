import { idOf, type Logbook, readyJob } from '../../testing/fixtures';
import { pairBack, partsToOrder } from './parts';
import type { Part } from '../craft/parts';

const missing = (job: Logbook): string[] =>
  job
    .state()
    .progress.flatMap((stage) =>
      stage.status === 'not needed' ? [] : stage.missing.map(({ words }) => `${stage.stage}: ${words}`),
    );
describe('two watches open at once', () => {
  const together = { otherJobId: idOf('other'), otherTicket: 'T0002-6', otherSerial: '55-120' };
  const open = (serial: string | null, other = together.otherSerial): Logbook => {
    const job = readyJob();
    if (serial !== null) job.add('open.inside-serial', { serial });
    job.add('open.together', { ...together, otherSerial: other });
    return job;
  };
  const pair = (job: Logbook, inBack: string) => {
    job.add('seal.paired', { inBack });
    return pairBack(job.state().facts);
  };

  it('ask for nothing where neither has a serial in its back', () => {
    expect(pairBack(readyJob().state().facts).verdict).toBe('not asked');
    expect(pairBack(open('', '').state().facts).verdict).toBe('not asked');
    const alone = readyJob();
    alone.add('open.inside-serial', { serial: '4471902' });
    expect(pairBack(alone.state().facts).verdict).toBe('not asked');
  });

  it('each want their back paired before they are signed', () => {
    for (const job of [open('4471902'), open('4471902', ''), open(null)]) {
      expect(pairBack(job.state().facts).verdict).toBe('not yet known');
      expect(missing(job)).toContain('seal: back and case paired by serial');
    }
  });

  it('the same serial pairs, however it is spaced', () => {
    const job = open('44-71 902');
    expect(pair(job, '4471902').verdict).toBe('paired');
    expect(missing(job)).toEqual(['handback: the signature']);
    expect(pair(open(''), '').verdict).toBe('paired');
  });

  it('the other’s serial is an exchange, any other does not match', () => {
    const exchanged = open('4471902');
    expect(pair(exchanged, '55120')).toMatchObject({ verdict: 'exchanged' });
    expect(pairBack(exchanged.state().facts).reasons[0]).toContain('belongs to T0002-6');
    expect(missing(exchanged)).toContain('seal: back and case paired by serial');
    expect(pair(open('4471902'), '999').verdict).toBe('does not match');
    expect(pair(open('4471902'), '').verdict).toBe('does not match');
    expect(pair(open(null), '999').reasons[0]).toContain('No serial was read in this back');
  });

  it('opening again asks anew', () => {
    const job = open('4471902');
    pair(job, '4471902');
    const back = job.entries.find((entry) => entry.kind === 'open.back');
    if (back?.kind !== 'open.back') throw new Error('no back');
    job.add('open.back', back.payload);
    expect(pairBack(job.state().facts).verdict).toBe('not yet known');
  });
});

describe('what is to be ordered', () => {
  const lost = (part: Part, count = 1, requested: readonly (readonly [string, number])[] = []) => {
    const job = readyJob();
    const off = job.add('open.part', { part, position: '', count, serves: [], step: '' });
    job.add('open.part-settled', { partEntryId: off.id, outcome: 'lost', note: '' });
    if (requested.length > 0)
      job.add('arrive.parts-request', {
        lines: requested.map(([what, each]) => ({ what, count: each })),
        supplier: '',
        expectedOn: null,
      });
    return partsToOrder(job.state().facts);
  };

  it.each([
    ['spring', 'spring bar 18 mm'],
    ['movement', 'movement ring'],
    ['cover', 'inner cover'],
    ['spring', 'buzzer spring'],
    ['back', 'gasket for the back'],
  ] as const)('a lost %s is not on order because a %s is', (part, requested) => {
    expect(lost(part, 1, [[requested, 9]])).toEqual([{ what: part, count: 1 }]);
    expect(lost(part, 1, [[part, 1]])).toEqual([]);
  });

  it('counts: of four lost two on order leave two, and more on order than lost leave none', () => {
    expect(lost('screw', 4, [['screws, 1.2 mm', 2]])).toEqual([{ what: 'screw', count: 2 }]);
    expect(
      lost('screw', 4, [
        ['screw', 1],
        ['screw for the plate', 3],
      ]),
    ).toEqual([]);
    expect(lost('screw', 1, [['screw', 10]])).toEqual([]);
    expect(lost('screw', 3)).toEqual([{ what: 'screw', count: 3 }]);
  });
});
