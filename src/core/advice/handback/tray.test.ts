import { context, dryTest, type Logbook, lot, readingOf, readyJob } from '../../../testing/fixtures';
import { openParts, partProofs, partsToOrder, proofsOf } from '../../logbook';
import { handback } from './handback';
import { type Part, serves } from '../../craft/parts';
const LATER = '2026-03-17T10:30:00.000Z';

const STILL_LATER = '2026-03-17T10:40:00.000Z';

function withPart(
  job: Logbook,
  part: Part,
  outcome: 'back in place' | 'replaced' | 'lost',
  count = 1,
): string {
  const off = job.add('open.part', { part, position: '', count, serves: serves(part), step: '' });
  job.add('open.part-settled', { partEntryId: off.id, outcome, note: '' }, { occurredAt: LATER });
  return off.id;
}

const missing = (job: Logbook): string[] =>
  job
    .state()
    .progress.flatMap((stage) =>
      stage.status === 'not needed' ? [] : stage.missing.map(({ words }) => `${stage.stage}: ${words}`),
    );

describe('a part lost or replaced', () => {
  it('asks for nothing while it is back in place', () => {
    const job = readyJob();
    withPart(job, 'spacer', 'back in place');
    expect(partProofs(job.state().facts)).toEqual([]);
    expect(handback(job.state(), [lot], context).verdict).toBe('ready to sign');
  });

  it.each<[Part, string]>([
    ['light module', 'set: light tried, since the light module was out'],
    ['buzzer spring', 'set: alarm heard, since the buzzer spring was out'],
  ])('a %s that was out is proved, though it is back in place', (part, words) => {
    const job = readyJob();
    withPart(job, part, 'back in place');
    expect(missing(job)).toContain(words);
    expect(handback(job.state(), [lot], context).verdict).toBe('not ready');
    const what = part === 'light module' ? 'light' : 'alarm';
    expect(proofsOf(job.state().facts, null).map((step) => step.what)).toContain(what);
    const works = { hands: 'works', 'seconds hand': 'works', [what]: 'works' } as const;
    job.add('set.functions', { proved: works, handedBackSo: '' }, { occurredAt: STILL_LATER });
    expect(handback(job.state(), [lot], context).verdict).toBe('ready to sign');
  });

  it('a light module seen above the cell that was changed is proved, whether a guide was ticked or not', () => {
    const job = readyJob();
    job.add('cell.above', { above: ['light module'] });
    expect(missing(job)).toContain('set: light tried, since the light module was out');
  });

  it('a ring on the tray is accounted for by what was done to the gasket', () => {
    const job = readyJob();
    const ring = {
      part: 'gasket',
      position: 'rim of the back',
      count: 1,
      serves: serves('gasket'),
      step: 'lift',
    } as const;
    const cover = { ...ring, position: 'on the inner cover' };
    job.add('open.part', ring);
    job.add('open.part', cover);
    const gasket = job.entries.find((entry) => entry.kind === 'seal.gasket');
    if (gasket?.kind !== 'seal.gasket') throw new Error('no gasket');
    const said = (state: 'renewed' | 'reused' | 'none there') => {
      const again = readyJob();
      again.add('open.part', ring);
      again.add('open.part', cover);
      again.add('seal.gasket', { ...gasket.payload, state, greased: state !== 'none there' });
      return openParts(again.state().facts).map(({ words }) => words);
    };
    expect(openParts(job.state().facts)).toHaveLength(2);
    for (const state of ['renewed', 'reused', 'none there'] as const)
      expect(said(state)).toEqual(['gasket, on the inner cover']);
  });

  it.each<[Part, string]>([
    ['buzzer spring', 'set: alarm heard, since the buzzer spring was replaced'],
    ['spring bar', 'set: bracelet seated, gentle pull, since the spring bar was replaced'],
    ['insulator', 'check: current measured, since the insulator was replaced'],
    ['pusher', 'test: pressure test, since the pusher was replaced'],
    ['movement ring', 'set: crown in every position, since the movement ring was replaced'],
    ['spacer', 'set: seen running, since the spacer was replaced'],
  ])('a %s asks for its proof anew, and nothing is signed before', (part, words) => {
    const job = readyJob();
    expect(missing(job)).toEqual(['handback: the signature']);
    withPart(job, part, 'replaced');
    expect(missing(job)).toContain(words);
    expect(handback(job.state(), [lot], context).verdict).toBe('not ready');
  });

  it('is proved by what was recorded since, not by what was recorded before', () => {
    const job = readyJob();
    withPart(job, 'insulator', 'replaced');
    withPart(job, 'spring', 'replaced');
    expect(partProofs(job.state().facts).map(({ served, met }) => [served, met])).toEqual([
      ['current', false],
      ['running', false],
      ['pushers', false],
    ]);
    job.add('check.reading', readingOf('currentUA', 0.96), { occurredAt: STILL_LATER });
    job.add('set.runs', { runs: true, watchedSeconds: 60 }, { occurredAt: STILL_LATER });
    job.add(
      'set.outside',
      { proved: { 'crown in every position': 'works', pushers: 'works' }, handedBackSo: '' },
      { occurredAt: STILL_LATER },
    );
    expect(partProofs(job.state().facts).every(({ met }) => met)).toBe(true);
    const { verdict, statement } = handback(job.state(), [lot], context);
    expect(verdict).toBe('ready to sign');
    expect(statement.done).toEqual(expect.arrayContaining(['Replaced: insulator.', 'Replaced: spring.']));
  });

  it('a ring is proved by the new ring, anything else that keeps water out by a test', () => {
    const job = readyJob();
    withPart(job, 'gasket', 'replaced');
    withPart(job, 'back', 'replaced');
    const unmet = () =>
      partProofs(job.state().facts)
        .filter(({ met }) => !met)
        .map(({ words }) => words);
    expect(unmet()).toEqual(['new ring, or pressure test, since the gasket was replaced']);
    const gasket = job.entries.find(({ kind }) => kind === 'seal.gasket');
    job.add(
      'seal.gasket',
      {
        state: 'renewed',
        findings: [],
        ageYears: null,
        meetsWater: false,
        greased: true,
        greasedBy: 'not noted',
        profile: 'round',
        size: '',
        lotId: null,
        reason: 'old one lost',
      },
      { occurredAt: STILL_LATER, supersedes: [gasket?.id ?? ''] },
    );
    expect(unmet()).toEqual(['pressure test, since the back was replaced']);
    job.add('test.made', dryTest, { occurredAt: STILL_LATER });
    expect(unmet()).toEqual([]);
  });

  it('lost, it wants an order, and the slip says so', () => {
    const job = readyJob();
    withPart(job, 'spring bar', 'lost', 2);
    job.add(
      'set.outside',
      { proved: { 'bracelet seated, gentle pull': 'works' }, handedBackSo: '' },
      { occurredAt: STILL_LATER },
    );
    expect(partsToOrder(job.state().facts)).toEqual([{ what: 'spring bar', count: 2 }]);
    expect(missing(job)).toContain('handback: the order for the lost part: 2 × spring bar');
    const before = handback(job.state(), [lot], context);
    expect(before.reasons).toContain('Lost and not ordered: spring bar. Add it to the parts request.');
    job.add('arrive.parts-request', {
      lines: [{ what: 'Spring bar, 18 mm', count: 2 }],
      supplier: '',
      expectedOn: null,
    });
    expect(partsToOrder(job.state().facts)).toEqual([]);
    expect(handback(job.state(), [lot], context).statement.notDone).toContain(
      'Lost at our bench: spring bar; a new one is on order.',
    );
  });

  it('stays settled when its place is corrected afterwards', () => {
    const job = readyJob();
    const off = withPart(job, 'spring bar', 'back in place');
    job.add(
      'open.part',
      { part: 'spring bar', position: 'third hole', count: 1, serves: ['bracelet'], step: '' },
      { supersedes: [off] },
    );
    const [part] = [...job.state().facts.parts.values()];
    expect([part?.off.payload.position, part?.settled?.payload.outcome]).toEqual([
      'third hole',
      'back in place',
    ]);
    expect(handback(job.state(), [lot], context).verdict).toBe('ready to sign');
  });

  it('asks no test of a watch closed for the time being', () => {
    const job = readyJob();
    const closed = job.entries.find(({ kind }) => kind === 'seal.closed');
    withPart(job, 'pusher', 'lost');
    job.add(
      'seal.closed',
      { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: true },
      { supersedes: [closed?.id ?? ''] },
    );
    expect(partProofs(job.state().facts).map(({ served }) => served)).toEqual(['pushers']);
  });
});
