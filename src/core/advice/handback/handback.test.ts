import fc from 'fast-check';
import { context, dryTestAt, Logbook, lot, readyJob, wetTest } from '../../../testing/fixtures';
import { type Handback, handback } from './handback';
import { waterStatement } from '../tightness';
import { money } from '../../craft/money';
const lots = [lot];
const test = (
  pressureBar: number | null,
  outcome: 'no leak seen' | 'leak seen' | 'not clear',
  method: 'dry air' | 'condensation' = 'dry air',
) => ({
  ...(method === 'dry air' ? dryTestAt(pressureBar ?? 3) : { ...wetTest, method, pressureBar }),
  outcome,
});

describe('the record for the owner', () => {
  let result: Handback;
  beforeEach(() => {
    result = handback(readyJob().state(), lots, context);
  });

  it('is ready, and says what was found, done, fitted, tested and not done', () => {
    expect(result.verdict).toBe('ready to sign');
    expect(result.statement).toMatchObject({
      found: expect.arrayContaining(['Old cell 364.', 'The movement draws 0.95 µA.']) as string[],
      done: ['Cell changed.', 'Gasket reused and greased.', 'Time set.'],
      fitted: ['SR621SW (silver oxide), Saltmarsh Wholesale, lot S-1.'],
      notDone: ['No water resistance test.', 'The gasket was not renewed.'],
      priceMinor: 1400,
    });
    expect(result.statement.tested).toContain('Works: hands, seconds hand, crown in every position.');
  });

  it('works the next visit out from the cell, its age and the current measured', () => {
    // 18–23 mAh at 0.95 µA, half a year old: of 80 to 97 % of it usable: early end after 19 to 21 months.
    expect(result.next.onDay).toMatch(/^2027-1[0-2]-17$/);
    expect(result.statement.nextVisit).toContain(result.next.onDay?.slice(0, 4) ?? 'x');
    expect(result.next.forecasts[0]?.life.reasons).toContain('The current was measured on this watch.');
  });

  it('names what was skipped, lost, replaced or does not work', () => {
    const job = readyJob();
    const bar = job.add('open.part', { part: 'spring bar', position: '12', count: 1, serves: [], step: '' });
    const ring = job.add('open.part', { part: 'gasket', position: 'rim', count: 1, serves: [], step: '' });
    job.add('open.part-settled', { partEntryId: bar.id, outcome: 'lost', note: '' });
    job.add('open.part-settled', { partEntryId: ring.id, outcome: 'replaced', note: '' });
    const functions = job.entries.find((entry) => entry.kind === 'set.functions');
    job.add(
      'set.functions',
      { proved: { hands: 'does not work' }, handedBackSo: '' },
      { supersedes: [functions?.id ?? ''] },
    );
    const { statement } = handback(job.state(), lots, context);
    expect(statement.done).toContain('Replaced: gasket.');
    expect(statement.notDone).toEqual(
      expect.arrayContaining([
        'Lost at our bench: spring bar.',
        'Does not work: hands.',
        'Not checked: seconds hand.',
      ]),
    );
  });

  it('says plainly when no next visit can be worked out', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    const { statement, verdict, reasons } = handback(job.state(), lots, context);
    expect(statement.nextVisitOn).toBeNull();
    expect(statement.nextVisit).toContain('cannot be calculated');
    expect(verdict).toBe('not ready');
    expect(reasons.length).toBeGreaterThan(5);
  });

  it('writes money with its currency', () => {
    expect(money(1405, 'EUR')).toBe('14.05 EUR');
  });
});

describe('what is said about water', () => {
  const after = (...tests: ReturnType<typeof test>[]) => {
    const job = readyJob();
    for (const each of tests) job.add('test.made', each);
    return waterStatement(job.state(), 'UTC');
  };

  it('claims nothing untested', () => {
    expect(after()).toMatchObject({
      verdict: 'not tested',
      statement: expect.stringContaining('not tested') as string,
    });
    expect(after(test(null, 'no leak seen', 'condensation')).verdict).toBe('not tested');
    expect(after(test(3, 'not clear')).verdict).toBe('not clear');
  });

  it('claims what was tested and no more', () => {
    const water = after(test(3, 'no leak seen'));
    expect(water.verdict).toBe('tested');
    expect(water.statement).toContain('Tested at 3 bar');
    expect(water.statement).not.toMatch(/metre|swim|dive|resistant to/i);
  });

  it('says not water resistant after a leak, whatever passed before or since', () => {
    expect(after(test(3, 'leak seen')).verdict).toBe('not water resistant');
    expect(after(test(3, 'no leak seen'), test(5, 'leak seen')).verdict).toBe('not water resistant');
    expect(after(test(3, 'leak seen'), test(3, 'no leak seen')).verdict).toBe('not water resistant');
  });
});

describe('never more about water than was tested', () => {
  const outcome = fc.constantFrom('no leak seen' as const, 'leak seen' as const, 'not clear' as const);
  const made = fc.record({
    method: fc.constantFrom('dry air' as const, 'wet' as const, 'condensation' as const),
    bar: fc.integer({ min: 1, max: 20 }),
    outcome,
  });
  it('whatever was tested, in whatever order, however it was closed', () => {
    fc.assert(
      fc.property(
        fc.array(made, { maxLength: 6 }),
        fc.boolean(),
        fc.boolean(),
        (tests, interim, seamEven) => {
          const job = readyJob();
          job.add(
            'seal.closed',
            { how: 'thumbs', seamEven, raisedClocks: [], seenFrom: null, interim },
            { supersedes: [job.entries.find((entry) => entry.kind === 'seal.closed')?.id ?? ''] },
          );
          for (const each of tests)
            job.add('test.made', {
              ...(each.method === 'dry air' ? dryTestAt(each.bar) : wetTest),
              method: each.method,
              pressureBar: each.method === 'condensation' ? null : each.bar,
              outcome: each.outcome,
            });
          const { verdict, statement } = waterStatement(job.state(), 'UTC');
          const passed = tests.filter(
            (each) => each.outcome === 'no leak seen' && each.method !== 'condensation',
          );
          const claimed = Number(/Tested at (\d+) bar/.exec(statement)?.[1] ?? 0);
          if (verdict === 'tested') {
            expect(passed.map((each) => each.bar)).toContain(claimed);
            expect([interim, seamEven]).toEqual([false, true]);
            expect(tests.map((each) => each.outcome)).toEqual(tests.map(() => 'no leak seen'));
          } else expect(claimed).toBe(0);
          if (tests.some((each) => each.outcome === 'leak seen') || !seamEven)
            expect(verdict).toBe('not water resistant');
        },
      ),
    );
  });
});

describe('what the slip says of each fact', () => {
  const said = (add: (job: Logbook) => void): string => {
    const job = readyJob();
    add(job);
    const { statement } = handback(job.state(), lots, context);
    return JSON.stringify(statement);
  };
  it.each<[string, (job: Logbook) => void]>([
    [
      'On arrival, scratch on the back at 4.5 o’clock, seen from behind.',
      (job) => job.add('arrive.mark', { view: 'back', kind: 'scratch', clock: 4.5, film: null, note: '' }),
    ],
    [
      'Leaked: crust at the coil; new circuit.',
      (job) =>
        job.add('check.leakage', {
          place: 'coil',
          severity: 'crust',
          xMm: null,
          yMm: null,
          treated: '',
          decision: 'new circuit',
          supplier: '',
          lotCode: '',
          currentBeforeUA: null,
          currentAfterUA: null,
        }),
    ],
    [
      'Finding: spent cell. Next: new cell.',
      (job) => job.add('check.diagnosis', { cause: 'spent cell', also: null, next: 'new cell', words: '' }),
    ],
    [
      'Pusher seals renewed.',
      (job) => job.add('seal.other', { crown: 'inspected', pushers: 'renewed', crystal: 'inspected' }),
    ],
    [
      'Seal of the crown not touched.',
      (job) => job.add('seal.other', { crown: 'not touched', pushers: 'none there', crystal: 'inspected' }),
    ],
    [
      'Does not work: bezel.',
      (job) => job.add('set.outside', { proved: { bezel: 'does not work' }, handedBackSo: '' }),
    ],
    [
      'Works: hands, seconds hand, bezel.',
      (job) => job.add('set.outside', { proved: { bezel: 'works' }, handedBackSo: '' }),
    ],
    [
      'Charged by charger for 2 hours: steps normally.',
      (job) => job.add('cell.charged', { by: 'charger', hours: 2, outcome: 'steps normally' }),
    ],
    [
      '"priceMinor":2000',
      (job) => job.add('arrive.estimate', { lines: [{ what: 'case gasket', priceMinor: 600 }] }),
    ],
    [
      'Found inside, from earlier repairs: tool marks.',
      (job) => job.add('open.as-found', { found: ['tool marks', 'nothing unusual'], note: '' }),
    ],
  ])('%s', (words, add) => {
    expect(said(add)).toContain(words);
  });

  it('says nothing of a proving run where the shop makes none, and misses it where it does', () => {
    const job = readyJob();
    const lacks = (provingRunHours: number): boolean =>
      handback(job.state(), lots, {
        ...context,
        policy: { ...context.policy, provingRunHours },
      }).statement.notDone.includes('No proving run at our bench.');
    expect([lacks(0), lacks(8)]).toEqual([false, true]);
    job.add(
      'set.run-began',
      { toSee: 'how it keeps time', shows: '09:00' },
      { occurredAt: '2026-03-17T09:00:00.000Z' },
    );
    job.add(
      'set.run-ended',
      { toSee: 'how it keeps time', shows: '17:00', stillRuns: true },
      { occurredAt: '2026-03-17T17:00:00.000Z' },
    );
    expect(lacks(8)).toBe(false);
    expect(handback(job.state(), lots, context).statement.tested.join()).toContain('Ran 8 h');
  });
});

describe('a cell that must not be in it, recorded in whatever order', () => {
  const reasons = (job: Logbook) => handback(job.state(), [lot], context).reasons.join(' ');
  it('is not handed back until somebody says what the watch runs from', () => {
    const job = readyJob();
    expect(reasons(job)).toBe('');
    job.add('open.print', { text: 'RECHARGEABLE CELL ONLY' });
    expect(reasons(job)).toContain('A primary cell is fitted, and the print inside says “rechargeable”.');
    job.add('identify.supply', { runsFrom: 'primary', reason: 'the back is of another watch' });
    expect(reasons(job)).toBe('');
    job.add('cell.accumulator', {
      kitCode: 'KT-1',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    expect(reasons(job)).toContain('An accumulator is fitted, and the book has OR 41.2 with a primary cell');
    expect(reasons(job)).toContain('Both a primary cell and an accumulator');
  });
});
