import { book, context, Logbook, lot, takenIn } from '../../../testing/fixtures';
import type { Lot } from '../../craft/stock';
import { availability, needsOf, requestFor } from './needsOf';
import { promiseAfterParts } from './promiseAfterParts';
import { readyToOpen } from './readyToOpen';

const ring: Lot = { ...lot, id: 'ring', item: 'gasket', code: '30.5 × 0.70', bestBefore: null };
const kit: Lot = { ...lot, id: 'kit', item: 'kit', code: 'KT-V21' };
const needs = (job: Logbook, lots: readonly Lot[], more: Partial<Parameters<typeof needsOf>[0]> = {}) =>
  needsOf({
    state: job.state(),
    history: null,
    book,
    lots,
    records: [],
    policy: context.policy,
    day: '2026-03-17',
    ...more,
  });
const said = (job: Logbook, lots: readonly Lot[]) =>
  Object.fromEntries(needs(job, lots).map(({ of, status }) => [of, status]));

describe('what a watch will need', () => {
  it('is worked out from case, movement and service against stock and tools', () => {
    expect(said(takenIn('cell only'), [lot, ring])).toEqual({
      opener: 'available',
      cell: 'available',
      ring: 'available',
      'closing tool': 'available',
    });
    const lacking = needs(takenIn('cell only'), []);
    expect(requestFor(lacking)).toEqual([
      { what: 'SR621SW', count: 1 },
      { what: 'gasket 30.5 × 0.70', count: 1 },
    ]);
    expect(availability(lacking, 'cell')).toBe('not available');
  });

  it('counts what can be used, and only that', () => {
    const pair = takenIn('cell only', 'quillbeck-22-8');
    const one: Lot = { ...lot, code: 'SR626SW', balance: 1 };
    // A set comes from one lot: a single one of it serves neither place.
    expect(requestFor(needs(pair, [one, ring]))).toContainEqual({ what: 'SR626SW', count: 2 });
    expect(said(pair, [{ ...one, balance: 2 }, ring]).cell).toBe('available');
    expect(said(takenIn('cell only'), [{ ...lot, quarantined: 'doubtful' }, ring]).cell).toBe(
      'not available',
    );
    expect(said(takenIn('cell only'), [lot, { ...ring, quarantined: 'doubtful' }]).ring).toBe(
      'not available',
    );
  });

  it('of a watch that charges wants the kit of its calibre, and no primary cell', () => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    expect(said(job, [kit]).cell).toBe('available');
    expect(requestFor(needs(job, [lot])).map(({ what }) => what)).toContain('kit KT-V21');
  });

  it('offers no cell where it may run from an accumulator, and says where one leaks that nobody ordered', () => {
    const found: Lot = { ...lot, code: 'SR927W' };
    const job = takenIn('recharge or new accumulator', null);
    job.add('cell.found', { marking: 'SR927W', condition: 'clean' });
    job.add('open.print', { text: 'SOLAR' });
    expect(needs(job, [found]).find(({ of }) => of === 'cell')).toMatchObject({
      status: 'not known yet',
      words: 'the evidence disagrees whether it runs on a cell or an accumulator',
      order: null,
    });
    const leaking = takenIn('reseal and test', null);
    leaking.add('cell.found', { marking: 'SR621SW', condition: 'crust' });
    expect(said(leaking, [lot]).cell).toBe('not known yet');
    const clean = takenIn('reseal and test', null);
    clean.add('cell.found', { marking: 'SR621SW', condition: 'clean' });
    expect(said(clean, [lot]).cell).toBe('not needed');
  });

  it('says what nobody can know before it is open, and orders nothing of it', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    expect(said(job, [])).toEqual({
      opener: 'not known yet',
      cell: 'not known yet',
      ring: 'not known yet',
      'closing tool': 'not known yet',
    });
    expect(requestFor(needs(job, []))).toEqual([]);
  });

  it('names the opener that lacks, and nothing once the watch is closed or goes elsewhere', () => {
    const bare = { ...book, blades: [] };
    expect(requestFor(needs(takenIn('cell only'), [lot, ring], { book: bare }))).toEqual([
      { what: 'case knife', count: 1 },
    ]);
    const gone = takenIn('cell only');
    gone.add('arrive.decision', {
      decision: 'referred',
      reason: 'not possible at this bench',
      to: 'x',
      told: '',
    });
    expect(needs(gone, [])).toEqual([]);
  });

  it('stands in the way of opening, until the parts have come or the owner accepts it', () => {
    const job = takenIn('cell only');
    const now = () => readyToOpen(job.state(), needs(job, [lot]));
    expect(now()).toMatchObject({
      verdict: 'not yet',
      reasons: [expect.stringContaining('ring, 30.5 × 0.70')],
    });
    expect(readyToOpen(job.state(), needs(job, [lot, ring])).verdict).toBe('ready');
    job.add('arrive.ready', {
      cell: 'available',
      seal: 'not available',
      closingTool: 'available',
      parts: 'available',
      riskAccepted: true,
    });
    expect(now().verdict).toBe('ready');
  });
});

describe('the promise after the parts', () => {
  const waiting = (expectedOn: string | null, promisedAt = '2026-03-17T16:00:00.000Z') => {
    const job = takenIn('cell only');
    job.add('arrive.promise', { promisedAt });
    job.add('arrive.parts-request', { lines: [{ what: 'SR621SW', count: 1 }], supplier: '', expectedOn });
    return job;
  };
  it('is the end of the first day the counter is open after they are expected', () => {
    // Friday 20 Mar 2026: the next day it is open follows.
    const later = promiseAfterParts(waiting('2026-03-20').state(), context);
    expect((later ?? '') > '2026-03-20T23:59').toBe(true);
    expect((later ?? '') < '2026-03-24').toBe(true);
  });
  it('stays where it is late enough, no day is named, or they are here', () => {
    expect(promiseAfterParts(waiting('2026-03-20', '2026-03-25T16:00:00.000Z').state(), context)).toBeNull();
    expect(promiseAfterParts(waiting(null).state(), context)).toBeNull();
    const come = waiting('2026-03-20');
    come.add('arrive.parts-arrived', { note: '' });
    expect(promiseAfterParts(come.state(), context)).toBeNull();
    expect(promiseAfterParts(takenIn('cell only').state(), context)).toBeNull();
  });
});
