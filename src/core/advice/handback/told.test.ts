import { context, dryTest, Logbook, lot, readyJob, readingOf, takenIn } from '../../../testing/fixtures';
import type { EntryKind, Payloads } from '../../logbook';
import { handback } from './handback';
import { waterStatement } from './waterStatement';

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

describe('what is said about water, word for word', () => {
  const away = 'Keep the watch away from water.';
  const tested = (bar: string) =>
    `Tested at ${bar} bar, dry air, for 60 seconds: no leak was seen. More than that was not tested.`;
  const NOT_TESTED = [
    'not tested',
    `Water resistance was not tested. ${away}`,
    'No pressure test was made in this visit.',
  ];
  const TESTED = 'A pressure test was recorded after closing.';
  const STANDS = 'It stands until a retest, linked to it and made after a repair, passes at that pressure.';
  const leaks = (...told: string[]) => [
    'not water resistant',
    'This watch is not water resistant. Keep it away from water.',
    ...told,
    STANDS,
  ];
  const unclear = (...told: string[]) => [
    'not clear',
    `A test gave no clear result, so nothing can be said about water. ${away}`,
    ...told,
    STANDS,
  ];
  const nothing = (why: string) => ['not tested', `Water resistance was not tested. ${away}`, why];
  const leakAt = (bar: number) => `dry air test at ${bar} bar: a leak was seen.`;
  const unclearAt = (bar: number) => `dry air test at ${bar} bar: the tester gave no clear result.`;
  const read = (test: Test, deflectionStartUm: number, deflectionEndUm: number): Test => ({
    ...test,
    deflectionStartUm,
    deflectionEndUm,
  });
  it.each<readonly [string, readonly Test[], readonly string[]]>([
    ['no test', [], NOT_TESTED],
    ['a test that is not clear', [dry(3, 'not clear')], unclear(unclearAt(3))],
    [
      'condensation alone',
      [condensation('no leak seen')],
      nothing('The condensation test proves nothing: it was made without pressure.'),
    ],
    [
      'nothing pressed',
      [dry(0, 'no leak seen')],
      nothing('The dry air test at 0 bar proves nothing: nothing pressed on the case.'),
    ],
    [
      'too short a watch',
      [{ ...dry(3, 'no leak seen'), seconds: 59 }],
      nothing(
        'The dry air test at 3 bar proves nothing: it was watched for 59 s, and its method needs 60 s.',
      ),
    ],
    ['a test passed', [dry(3, 'no leak seen')], ['tested', tested('3'), TESTED]],
    [
      'a test passed with its deflection kept',
      [read(dry(3, 'no leak seen'), 12, 11.6)],
      ['tested', tested('3'), TESTED],
    ],
    [
      'under vacuum',
      [dry(-0.7, 'no leak seen')],
      [
        'tested',
        'Tested at 0.7 bar below the air outside, dry air, for 60 seconds: no leak was seen. More than that was not tested.',
        TESTED,
      ],
    ],
    [
      'a deflection that fell',
      [read(dry(3, 'no leak seen'), 12, 10)],
      unclear('dry air test at 3 bar: its deflection fell to 83.3 %, a case at the limit keeps 94.5 %.'),
    ],
    [
      'a deflection that rose',
      [read(dry(3, 'no leak seen'), 12, 13)],
      unclear('dry air test at 3 bar: its deflection rose to 108.3 %, which no tight case does.'),
    ],
    [
      'no deflection at all',
      [read(dry(3, 'no leak seen'), 0, 0)],
      unclear(
        'dry air test at 3 bar: its case did not give under the pressure: flooded at once, or the sensor stuck.',
      ),
    ],
    ['two passed', [dry(5, 'no leak seen'), dry(3, 'no leak seen')], ['tested', tested('5'), TESTED]],
    ['a leak', [dry(3, 'leak seen')], leaks(leakAt(3))],
    ['a leak after a pass', [dry(3, 'no leak seen'), dry(5, 'leak seen')], leaks(leakAt(5))],
    ['a leak by condensation', [condensation('leak seen')], leaks('condensation test: a leak was seen.')],
    [
      'a leak, then nothing clear',
      [dry(5, 'leak seen'), dry(5, 'not clear')],
      leaks(leakAt(5), unclearAt(5)),
    ],
    [
      'a leak, then condensation without one',
      [dry(5, 'leak seen'), condensation('no leak seen')],
      leaks(leakAt(5)),
    ],
    [
      'a leak, then a pass that names no repair',
      [dry(5, 'leak seen'), dry(5, 'no leak seen')],
      leaks(leakAt(5)),
    ],
    ['a pass, then nothing clear', [dry(3, 'no leak seen'), dry(5, 'not clear')], unclear(unclearAt(5))],
  ])('%s', (_, tests, [verdict, statement, ...reasons]) => {
    const job = readyJob();
    for (const each of tests) job.add('test.made', each);
    const water = waterStatement(job.state());
    expect([water.verdict, water.statement, water.reasons]).toEqual([verdict, statement, reasons]);
  });

  const retest = (of: string, test: Test): Test => ({ ...test, retestOf: of, note: 'crown seal renewed' });
  it.each<readonly [string, Test, (leak: string) => Test, readonly string[]]>([
    [
      'at its pressure',
      dry(5, 'leak seen'),
      (id) => retest(id, dry(5, 'no leak seen')),
      ['tested', tested('5')],
    ],
    [
      'under less vacuum',
      dry(-0.7, 'leak seen'),
      (id) => retest(id, dry(-0.5, 'no leak seen')),
      leaks().slice(0, 2),
    ],
    [
      'under pressure, of a leak outwards',
      dry(-0.7, 'leak seen'),
      (id) => retest(id, dry(3, 'no leak seen')),
      leaks().slice(0, 2),
    ],
    ['at more', dry(3, 'leak seen'), (id) => retest(id, dry(5, 'no leak seen')), ['tested', tested('5')]],
    ['at less', dry(5, 'leak seen'), (id) => retest(id, dry(3, 'no leak seen')), leaks().slice(0, 2)],
    ['that leaks', dry(5, 'leak seen'), (id) => retest(id, dry(5, 'leak seen')), leaks().slice(0, 2)],
    [
      'too short',
      dry(5, 'leak seen'),
      (id) => retest(id, { ...dry(5, 'no leak seen'), seconds: 10 }),
      leaks().slice(0, 2),
    ],
    [
      'contradicted by its deflection',
      dry(5, 'leak seen'),
      (id) => retest(id, read(dry(5, 'no leak seen'), 12, 9)),
      leaks().slice(0, 2),
    ],
    [
      'of what was not clear',
      dry(5, 'not clear'),
      (id) => retest(id, dry(5, 'no leak seen')),
      ['tested', tested('5')],
    ],
    [
      'of another test',
      dry(5, 'leak seen'),
      () => retest('another', dry(5, 'no leak seen')),
      leaks().slice(0, 2),
    ],
  ])('a leak, and a retest %s', (_, first, second, [verdict, statement]) => {
    const job = readyJob();
    const { id } = job.add('test.made', first);
    job.add('test.made', second(id));
    const water = waterStatement(job.state());
    expect([water.verdict, water.statement]).toEqual([verdict, statement]);
  });

  it('a leak stands through a reopening, and a retest under whichever entry it stands now', () => {
    const job = readyJob();
    const back = readyJob().entries.find(({ kind }) => kind === 'open.back')
      ?.payload as Payloads['open.back'];
    const { id } = job.add('test.made', dry(3, 'leak seen'));
    job.add(
      'test.made',
      { ...dry(3, 'leak seen'), leakClock: 3, leakSeenFrom: 'the dial' },
      { supersedes: [id] },
    );
    job.add('open.back', back);
    expect(waterStatement(job.state()).verdict).toBe('not water resistant');
    // Before it is closed again a retest proves nothing.
    job.add('test.made', retest(id, dry(3, 'no leak seen')));
    job.add('seal.closed', closed);
    expect(waterStatement(job.state()).verdict).toBe('not water resistant');
    job.add('test.made', retest(id, dry(3, 'no leak seen')));
    expect(waterStatement(job.state())).toMatchObject({ verdict: 'tested', statement: tested('3') });
  });

  it('what was tested on another closing proves nothing, and the slip says so', () => {
    const job = readyJob();
    job.add('test.made', dry(5, 'no leak seen'));
    job.add(
      'open.back',
      readyJob().entries.find(({ kind }) => kind === 'open.back')?.payload as Payloads['open.back'],
    );
    job.add('seal.closed', closed);
    const why = 'it was made before the watch was closed';
    expect(waterStatement(job.state()).reasons).toEqual([
      `The dry air test at 5 bar proves nothing: ${why}.`,
    ]);
    const { statement } = handback(job.state(), [lot], context);
    expect(statement.tested).toContain(`dry air test at 5 bar: no leak seen, which proves nothing: ${why}.`);
    expect(statement.notDone).toContain('No water resistance test.');
    // A closing put right stands where it stood.
    const once = readyJob();
    once.add('test.made', dry(5, 'no leak seen'));
    corrected(once, 'seal.closed', { ...closed, how: 'press' });
    expect(waterStatement(once.state()).verdict).toBe('tested');
  });

  it('a missing ring proves nothing, unless one was put in', () => {
    for (const [state, verdict] of [
      ['reused', 'not tested'],
      ['left in place', 'not tested'],
      ['renewed', 'tested'],
    ] as const) {
      const job = readyJob();
      corrected(job, 'seal.gasket', { ...gasket, state, findings: ['missing'] });
      job.add('test.made', dry(3, 'no leak seen'));
      expect([state, waterStatement(job.state()).verdict]).toEqual([state, verdict]);
    }
  });

  it('shows every test in its working', () => {
    const job = readyJob();
    job.add('test.made', dry(3, 'no leak seen'));
    job.add('test.made', condensation('not clear'));
    expect(waterStatement(job.state()).working).toEqual([
      {
        what: 'dry air test',
        rule: 'watched for 60 s at least; a case at the limit loses 3.5 % of its deflection in a minute',
        figures: '3 bar, 60 s: no leak seen',
        source: 'ISO 22810; bench practice',
      },
      {
        what: 'condensation test',
        rule: 'watched for 60 s at least; a case at the limit loses 3.5 % of its deflection in a minute',
        figures: '60 s: not clear',
        source: 'ISO 22810; bench practice',
      },
    ]);
  });

  it('a renewed gasket is no test', () => {
    const job = readyJob();
    corrected(job, 'seal.gasket', gasket);
    expect(waterStatement(job.state()).statement).toBe(
      `Water resistance was not tested, though the gasket was renewed. ${away}`,
    );
  });

  it('nothing is known of a watch nobody closed', () => {
    expect(waterStatement(new Logbook().state()).verdict).toBe('not tested');
  });

  it('closed for the time being claims nothing, whatever was tested', () => {
    const job = readyJob();
    corrected(job, 'seal.closed', { ...closed, interim: true });
    job.add('test.made', dry(3, 'no leak seen'));
    expect(waterStatement(job.state())).toMatchObject({
      verdict: 'not tested',
      statement: `Closed for the time being on its old seal, until the part is here. ${away}`,
      reasons: ['Closed interim: nothing is claimed about water.'],
    });
  });

  it('a seam that is not even is not water resistant, though a test passed', () => {
    const job = readyJob();
    corrected(job, 'seal.closed', { ...closed, seamEven: false });
    job.add('test.made', dry(3, 'no leak seen'));
    expect(waterStatement(job.state())).toMatchObject({
      verdict: 'not water resistant',
      statement: leaks()[1],
      reasons: ['The seam is not even.'],
    });
  });
});

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
      notDone: ['No water resistance test.', 'Gasket not renewed.'],
      water: 'Water resistance was not tested. Keep the watch away from water.',
      warranty: '12 months on the work done, not on wear, knocks or water.',
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
    job.add('set.outside', { proved: { bezel: 'works', pushers: 'does not work' } });
    corrected(job, 'set.functions', { proved: { hands: 'works' } });
    expect(said(job)).toMatchObject({
      done: ['Cell changed.', 'Gasket renewed (30.5 × 0.70).', 'Seal of the crown renewed.', 'Time set.'],
      tested: [
        'Seen running for 60 seconds.',
        'Works: hands, bezel.',
        'dry air test at 3 bar: no leak seen.',
        'condensation test: no leak seen, which proves nothing: it was made without pressure.',
      ],
      notDone: ['Pusher seals not touched.', 'Not proved: seconds hand.', 'Does not work: pushers.'],
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
      notDone: ['No water resistance test.', 'Gasket not renewed.'],
    });
  });

  it('of a proving run by which it goes wrong says so as tested', () => {
    const job = readyJob();
    job.add('set.run-began', { shows: '09:00' }, { occurredAt: '2026-03-17T09:00:00.000Z' });
    job.add('set.run-ended', { shows: '17:30', stillRuns: true }, { occurredAt: '2026-03-17T17:00:00.000Z' });
    const policy = { ...context.policy, provingRunHours: 8 };
    expect(said(job, { policy }).tested[1]).toBe('It gained 1800 s in 8 h.');
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
    expect(said(job).done).toContain('Closed for the time being, until the part is here.');
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
    expect(record(job).reasons).toEqual(['Lost and not ordered: spring bar. Put it on the parts request.']);
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
    expect(reasons(job)).toContain('Two corrections disagree: settle them first.');
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
