import { context, dryTest, Logbook, lot, readyJob, readingOf, takenIn } from '../../../testing/fixtures';
import type { EntryKind, Payloads } from '../../logbook';
import { handback } from './handback';

type Test = Payloads['test.made'];
const dry = (pressureBar: number, outcome: Test['outcome']): Test => ({ ...dryTest, pressureBar, outcome });
const condensation = (outcome: Test['outcome']): Test => ({
  ...dryTest,
  method: 'condensation',
  pressureBar: null,
  outcome,
});
/** Puts another payload in the place of the fact a ready job has. */
function corrected<K extends EntryKind>(job: Logbook, kind: K, payload: Payloads[K]): void {
  const before = job.entries.find((entry) => entry.kind === kind);
  job.add(kind, payload, { supersedes: before ? [before.id] : [] });
}
const without = (job: Logbook, kind: EntryKind): void => {
  const id = job.entries.find((entry) => entry.kind === kind)?.id ?? null;
  job.add('logbook.withdrawn', { reason: 'not so' }, { withdraws: id });
};
const closed = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false };
const gasket: Payloads['seal.gasket'] = {
  state: 'renewed',
  findings: [],
  ageYears: 2,
  meetsWater: false,
  greased: false,
  greasedBy: 'not noted',
  profile: 'round',
  size: '30.5 × 0.70',
  lotId: null,
  reason: 'flattened',
};

describe('the record, line by line', () => {
  const record = (job: Logbook, over: Partial<typeof context> = {}) =>
    handback(job.state(over), [lot], { ...context, ...over });
  const said = (job: Logbook, over: Partial<typeof context> = {}) => record(job, over).statement;

  it('of a plain change of cell', () => {
    expect(said(readyJob())).toMatchObject({
      found: ['Old cell 364.', 'Its voltage at rest was 1.21 V.', 'The movement draws 0.95 µA.'],
      done: ['Cell changed.', 'Gasket reused and greased.', 'Time set.'],
      fitted: ['SR621SW (silver oxide), Saltmarsh Wholesale, lot S-1.'],
      tested: ['Seen running for 60 seconds.', 'Works: hands, seconds hand, crown in every position.'],
      notDone: ['No water resistance test.', 'The gasket was not renewed.'],
      water: 'Water resistance was not tested. Keep the watch away from water.',
      warranty: '12 months on the work done. Wear, knocks and water damage are not covered.',
      priceMinor: 1400,
    });
  });

  it('of a running seen before the closing says so, until it is seen again', () => {
    const job = readyJob();
    job.add('seal.closed', closed);
    expect(said(job).tested).toContain('Seen running for 60 seconds, before it was closed.');
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(said(job).tested).toContain('Seen running for 60 seconds.');
    const early = new Logbook();
    early.add('open.back', {
      kind: 'snap-on',
      openedWith: 'case knife',
      protection: 'film',
      went: 'freely',
      spotClock: null,
      lipClock: null,
      seenFrom: 'behind',
      toolIds: [],
      separationMm: null,
      rearMm: null,
    });
    early.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(said(early).tested).toEqual(['Seen running for 60 seconds, before it was closed.']);
  });

  it('of a watch of which nothing is recorded says only what was not done', () => {
    expect(said(new Logbook())).toMatchObject({
      found: [],
      done: [],
      fitted: [],
      tested: [],
      notDone: ['No water resistance test.', 'Current not measured.'],
    });
  });

  it('of two cells says which is which', () => {
    const job = takenIn('cell only', 'quillbeck-22-4');
    job.add('cell.found', { marking: null, condition: null }, { well: 'hands' });
    job.add('cell.found', { marking: 'CR1216', condition: 'crust' }, { well: 'display' });
    const fitted = {
      cellCode: 'CR1216',
      lotId: null,
      supplier: '',
      lotCode: '',
      alkalineAgreed: false,
      ownersOwn: false,
    };
    job.add('cell.fitted', fitted, { well: 'display' });
    job.add('cell.put-back', { reason: 'fresh enough' }, { well: 'hands' });
    expect(said(job)).toMatchObject({
      found: ['No cell in the watch (hands).', 'Old cell CR1216 (display), crust.'],
      done: ['Cell changed: display. Not changed: hands.', 'The same cell put back (hands): fresh enough.'],
      fitted: ['CR1216 (lithium) in display.'],
    });
  });

  it('of a renewed accumulator names the kit, its lot and its charge', () => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: 'Saltmarsh Wholesale',
      lotCode: 'K-7',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    job.add('cell.charged', { by: 'light', hours: 5.5, outcome: 'steps normally' });
    expect(said(job)).toMatchObject({
      fitted: ['KT-V21, kit with tabs, Saltmarsh Wholesale, lot K-7.'],
      done: ['Accumulator renewed.', 'Charged by light for 5.5 hours: steps normally.'],
    });
  });

  it('names a cell that no table knows as it was written', () => {
    const job = takenIn('cell only', null);
    job.add('cell.fitted', {
      cellCode: 'XY77',
      lotId: null,
      supplier: '',
      lotCode: 'L 9',
      alkalineAgreed: false,
      ownersOwn: false,
    });
    expect(said(job).fitted).toEqual(['XY77, lot L 9.']);
  });

  it('of seals, tests and what was proved', () => {
    const job = readyJob();
    corrected(job, 'seal.gasket', gasket);
    job.add('seal.other', { crown: 'renewed', pushers: 'not touched', crystal: 'inspected' });
    job.add('test.made', dry(3, 'no leak seen'));
    job.add('test.made', condensation('no leak seen'));
    job.add('set.outside', { proved: { bezel: 'works', pushers: 'does not work' }, handedBackSo: '' });
    corrected(job, 'set.functions', { proved: { hands: 'works' }, handedBackSo: '' });
    expect(said(job)).toMatchObject({
      done: ['Cell changed.', 'Gasket renewed (30.5 × 0.70).', 'Seal of the crown renewed.', 'Time set.'],
      tested: [
        'Seen running for 60 seconds.',
        'Works: hands, bezel.',
        'dry air test at 3 bar: no leak found, 0 to 1.4 µg of air a minute at 2 bar.',
        'condensation test: no leak seen, which is no proof: it was made without pressure.',
      ],
      notDone: ['Pusher seals not touched.', 'Not checked: seconds hand.', 'Does not work: pushers.'],
    });
  });

  it('of a watch that does not run and whose time is not set', () => {
    const job = readyJob();
    corrected(job, 'set.runs', { runs: false, watchedSeconds: 60 });
    corrected(job, 'set.time', { set: false });
    without(job, 'set.functions');
    without(job, 'set.outside');
    expect(said(job)).toMatchObject({
      done: ['Cell changed.', 'Gasket reused and greased.'],
      tested: [],
      notDone: ['No water resistance test.', 'The gasket was not renewed.'],
    });
  });

  it('of a proving run by which it goes wrong says so as tested', () => {
    const job = readyJob();
    job.add(
      'set.run-began',
      { toSee: 'how it keeps time', shows: '09:00' },
      { occurredAt: '2026-03-17T11:00:00.000Z' },
    );
    job.add(
      'set.run-ended',
      { toSee: 'how it keeps time', shows: '17:30', stillRuns: true },
      { occurredAt: '2026-03-17T19:00:00.000Z' },
    );
    const policy = { ...context.policy, provingRunHours: 8 };
    expect(said(job, { policy }).tested[1]).toBe('It gained 1800 s in 8 h: 5400 s a day, 360 s either way.');
    expect(said(job, { policy }).notDone).not.toContain('No proving run at our bench.');
    expect(record(job).working.length).toBeGreaterThan(record(readyJob()).working.length);
  });

  it.each([
    [
      { decision: 'referred', reason: 'no suitable opener', to: 'Isla Tern', told: '' },
      'Referred to Isla Tern: no suitable opener.',
    ],
    [
      { decision: 'referred', reason: 'no suitable opener', to: '', told: '' },
      'Referred: no suitable opener.',
    ],
    [
      { decision: 'declined', reason: 'no suitable opener', to: '', told: '' },
      'Declined: no suitable opener.',
    ],
  ] as const)('of a job ended early: %#', (decision, line) => {
    const job = takenIn('cell only');
    job.add('arrive.decision', decision);
    const { done, notDone } = said(job, { policy: { ...context.policy, provingRunHours: 8 } });
    expect([done, notDone]).toEqual([[line], []]);
  });

  it('of a watch closed for the time being', () => {
    const job = readyJob();
    corrected(job, 'seal.closed', { ...closed, interim: true });
    expect(said(job).done).toContain('Closed temporarily until the part arrives.');
  });

  it('of a finding at one of two cells, which it is', () => {
    const job = takenIn('diagnose', 'quillbeck-22-4');
    for (const [well, cause] of [
      ['hands', 'old oil and dirt'],
      ['display', 'spent cell'],
    ] as const)
      job.add('check.diagnosis', { cause, also: null, next: 'new cell', words: '' }, { well });
    expect(said(job).found).toEqual([
      'Finding at the cell of hands: old oil and dirt. Next: new cell.',
      'Finding at the cell of display: spent cell. Next: new cell.',
    ]);
  });

  it('of marks, leaks, findings and what earlier hands left', () => {
    const job = readyJob();
    job.add('arrive.mark', { view: 'front', kind: 'dent', clock: null, film: null, note: '' });
    job.add('open.as-found', { found: ['nothing unusual'], note: '' });
    job.add('check.diagnosis', {
      cause: 'spent cell',
      also: 'old oil and dirt',
      next: 'clean',
      words: 'fluff',
    });
    expect(said(job).found).toEqual([
      'Old cell 364.',
      'Its voltage at rest was 1.21 V.',
      'The movement draws 0.95 µA.',
      'Finding: spent cell and old oil and dirt, fluff. Next: clean.',
      'On arrival, dent on the front.',
    ]);
  });

  it('of a stage that was skipped, with its reason', () => {
    const job = readyJob();
    without(job, 'set.functions');
    without(job, 'set.time');
    without(job, 'set.runs');
    job.add('logbook.stage-skipped', { stage: 'set', reason: 'the owner sets it' });
    expect(said(job).notDone).toContain('Set and prove not done: the owner sets it.');
  });

  it('of a lost part says whether a new one is on order', () => {
    const job = readyJob();
    const bar = job.add('open.part', { part: 'spring bar', position: '12', count: 1, serves: [], step: '' });
    job.add('open.part-settled', { partEntryId: bar.id, outcome: 'lost', note: '' });
    expect(said(job).notDone).toContain('Lost at our bench: spring bar.');
    expect(record(job).reasons).toEqual(['Lost and not ordered: spring bar. Add it to the parts request.']);
    job.add('arrive.parts-request', {
      lines: [{ what: 'spring bar', count: 1 }],
      supplier: '',
      expectedOn: null,
    });
    expect(said(job).notDone).toContain('Lost at our bench: spring bar; a new one is on order.');
  });
});

describe('what stands in the way of signing', () => {
  const reasons = (job: Logbook) => handback(job.state(), [lot], context).reasons;

  it('is nothing on a ready job', () => {
    expect(reasons(readyJob())).toEqual([]);
  });

  it('is what a stage lacks, by its name, all of it', () => {
    const job = readyJob();
    without(job, 'set.runs');
    without(job, 'set.time');
    expect(reasons(job)).toEqual([expect.stringMatching(/^Set and prove: .+, .+\.$/)]);
  });

  it('is a part on the tray', () => {
    const job = readyJob();
    job.add('open.part', { part: 'spring bar', position: '12', count: 1, serves: [], step: '' });
    expect(reasons(job)).toEqual([expect.stringMatching(/^Still on the tray: .*spring bar/)]);
  });

  it('is two corrections that disagree', () => {
    const job = readyJob();
    const reading = job.entries.find((entry) => entry.kind === 'check.reading')?.id ?? '';
    job.add('check.reading', readingOf('restVoltageV', 1.3), { supersedes: [reading] });
    job.add('check.reading', readingOf('restVoltageV', 1.4), { supersedes: [reading] });
    expect(reasons(job)).toContain('Two corrections disagree. Settle them first.');
  });

  it('is a service nobody chose', () => {
    expect(reasons(new Logbook())).toContain('No service is chosen.');
  });

  it('is a price over what was agreed', () => {
    const job = readyJob();
    job.add('arrive.agreement', { what: 'a cell', upToMinor: 1000, by: 'the owner', how: 'by phone' });
    job.add('handback.price', { priceMinor: 5000, reason: 'more work' });
    const found = reasons(job);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatch(/agreed/);
  });
});
