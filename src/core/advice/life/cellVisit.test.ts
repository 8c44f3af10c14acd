import { signatureOf } from '../../../testing/admitted';
import { context, Logbook, lot, readingOf, takenIn } from '../../../testing/fixtures';
import type { Payloads } from '../../logbook';
import { cellVisitOf, withForecastsKept } from './cellVisit';

const fitted: Payloads['cell.fitted'] = {
  cellCode: 'SR621SW',
  lotId: lot.id,
  supplier: '',
  lotCode: 'S-1',
  alkalineAgreed: false,
  ownersOwn: false,
};
const received = (job: Logbook): void =>
  void job.add('arrive.received', { customerId: 'c', watchId: 'w', visitId: 'v' });
const stopped = (): Logbook => {
  const job = takenIn('cell only');
  received(job);
  job.add('arrive.complaint', { picked: ['stopped'], words: '' });
  job.add('cell.found', { marking: '364', condition: 'clean' });
  return job;
};
const visitOf = (job: Logbook) => {
  const visit = cellVisitOf(job.state(), [lot], context);
  if (!visit) throw new Error('a visit wanted');
  return { ...visit, place: visit.places[0] };
};

describe('what a visit tells of the life of a cell', () => {
  it('is nothing before the watch is taken in', () => {
    expect(cellVisitOf(new Logbook().state(), [], context)).toBeNull();
  });

  it('what went in, whose it is, and its forecast', () => {
    const job = stopped();
    job.add('check.reading', readingOf('currentUA', 1));
    job.add('cell.fitted', fitted);
    expect(visitOf(job).place?.fitted).toMatchObject({
      code: 'SR621SW',
      supplier: 'Saltmarsh Wholesale',
      on: '2026-03-17',
      forecast: { medianMonths: expect.any(Number) as number },
    });
    job.add('cell.fitted', { ...fitted, lotId: null, supplier: 'Elsewhere', ownersOwn: true });
    expect(visitOf(job).place?.fitted).toMatchObject({ supplier: 'Elsewhere', forecast: null });
  });

  it('a stopped watch whose cell was changed had a spent one', () => {
    const job = stopped();
    expect(visitOf(job).place).toMatchObject({ shows: 'not known', foundCode: 'SR621SW', cameOut: false });
    job.add('cell.fitted', fitted);
    expect(visitOf(job).place).toMatchObject({ shows: 'spent', cameOut: true });
  });

  it('not where its voltage was good, or something else was found to ail it', () => {
    const good = stopped();
    good.add('check.reading', readingOf('restVoltageV', 1.56));
    good.add('cell.fitted', fitted, { occurredAt: '2026-03-17T10:30:00.000Z' });
    expect(visitOf(good).place?.shows).toBe('runs');
    const found = stopped();
    found.add('check.diagnosis', {
      cause: 'mechanical',
      also: null,
      next: 'service of the movement',
      words: '',
    });
    found.add('cell.fitted', fitted);
    expect(visitOf(found).place?.shows).toBe('not known');
  });

  it('a spent voltage is of the old cell; a good one read once the new one lies in it tells nothing', () => {
    const late = { occurredAt: '2026-03-17T11:00:00.000Z' };
    const spent = stopped();
    spent.add('cell.fitted', fitted);
    spent.add('check.reading', readingOf('restVoltageV', 1.1), late);
    expect(visitOf(spent).place?.shows).toBe('spent');
    const good = stopped();
    good.add('arrive.complaint', { picked: ['loses time'], words: '' });
    good.add('cell.fitted', fitted);
    good.add('check.reading', readingOf('restVoltageV', 1.56), late);
    expect(visitOf(good).place?.shows).toBe('not known');
  });

  it('what was seen with a fresh cell in it says nothing of the old one', () => {
    const job = stopped();
    job.add('cell.fitted', fitted);
    const looked: Payloads['check.looked'] = {
      crown: null,
      shows: 'runs as it should',
      watchedSeconds: 10,
      atFitting: null,
      freshCell: false,
      resetUsed: null,
      signs: null,
    };
    job.add('check.looked', looked);
    expect(visitOf(job).place?.shows).toBe('runs');
    job.add('check.looked', { ...looked, freshCell: true });
    expect(visitOf(job).place?.shows).toBe('spent');
  });

  it('a watch seen running once the new cell lay in it says nothing of the old one', () => {
    const late = { occurredAt: '2026-03-17T11:00:00.000Z' };
    const job = stopped();
    job.add('cell.fitted', fitted);
    job.add('check.pulses', { there: true, through: 'the open watch', everyS: null }, late);
    expect(visitOf(job).place?.shows).toBe('spent');
    const before = stopped();
    before.add('check.pulses', { there: true, through: 'the closed watch', everyS: null });
    before.add('cell.fitted', fitted, late);
    expect(visitOf(before).place?.shows).toBe('runs');
  });

  it('an empty place had none, and a cell put back did not leave', () => {
    const empty = stopped();
    empty.add('cell.found', { marking: null, condition: null });
    expect(visitOf(empty).place?.shows).toBe('none');
    const back = stopped();
    back.add('cell.put-back', { reason: 'good' });
    expect(visitOf(back).place).toMatchObject({ shows: 'not known', cameOut: false, fitted: null });
  });

  it.each([
    ['2025', { from: '2025-01-01', to: '2025-12-31' }],
    ['2026-02', { from: '2026-02-01', to: '2026-02-28' }],
    ['2026-02-10', { from: '2026-02-03', to: '2026-02-17' }],
    [null, null],
  ])('stopped on %p is a stretch of days', (stoppedOn, days) => {
    const job = stopped();
    job.add('arrive.stopped', { stoppedOn });
    expect(visitOf(job).stopped).toEqual(days);
  });

  it.each([
    ['this shop', 'this shop'],
    ['another shop', 'somebody else'],
    ['the owner', 'somebody else'],
    ['nobody knows', 'not said'],
  ] as const)('changed last by %s', (changedBy, as) => {
    const job = stopped();
    job.add('arrive.cell-history', { changedBy, changedOn: null });
    expect(visitOf(job).changedBy).toBe(as);
  });

  it('of two cells a stopped watch does not say which was spent; a voltage of its own does', () => {
    const job = takenIn('cell only', 'quillbeck-22-4');
    received(job);
    job.add('arrive.complaint', { picked: ['stopped'], words: '' });
    const wells = job.state().wells.map(({ name }) => name);
    expect(wells.length).toBeGreaterThan(1);
    for (const well of wells) job.add('cell.found', { marking: 'SR920W', condition: 'clean' }, { well });
    for (const well of wells)
      job.add('cell.fitted', { ...fitted, cellCode: 'SR920W', lotId: null }, { well });
    expect(visitOf(job).places.map(({ shows }) => shows)).toEqual(wells.map(() => 'not known'));
    job.add('check.reading', readingOf('restVoltageV', 1.0), { well: wells[1] ?? '' });
    expect(visitOf(job).places.map(({ shows }) => shows)).toEqual(['not known', 'spent']);
  });
});

describe('what was forecast when a job was signed', () => {
  const signedJob = (): Logbook => {
    const job = stopped();
    job.add('check.reading', readingOf('currentUA', 1));
    job.add('cell.fitted', fitted);
    job.add('handback.signed', signatureOf(job));
    return job;
  };
  /** As it was worked out when the book said something else. */
  const then = (job: Logbook, changed: object = {}) => {
    const visit = cellVisitOf(job.state(), [lot], context);
    const [place] = visit?.places ?? [];
    if (!visit || !place?.fitted) throw new Error('a cell fitted wanted');
    const was = { ...place.fitted, forecast: { medianMonths: 11, spread: 0.3 }, ...changed };
    return { visit, before: { ...visit, places: [{ ...place, fitted: was }] } };
  };
  const medianOf = (job: Logbook, { visit, before }: ReturnType<typeof then>) =>
    withForecastsKept(visit, before, job.state()).places[0]?.fitted?.forecast?.medianMonths;

  it('stays, whatever the book says since', () => {
    const job = signedJob();
    expect(medianOf(job, then(job))).toBe(11);
  });

  it('is worked out anew in a job that is open, or open again', () => {
    const job = signedJob();
    job.add('check.reading', readingOf('currentUA', 2), { occurredAt: '2026-03-17T12:00:00.000Z' });
    expect(job.state().signature.state).toBe('reopened');
    expect(medianOf(job, then(job))).not.toBe(11);
  });

  it.each([
    ['code', { code: 'SR626SW' }],
    ['supplier', { supplier: 'Elsewhere' }],
    ['day', { on: '2026-03-16' }],
  ])('is that of another cell by its %s, and not kept', (_, changed) => {
    const job = signedJob();
    expect(medianOf(job, then(job, changed))).not.toBe(11);
  });

  it('is worked out where nothing was yet', () => {
    const job = signedJob();
    const { visit } = then(job);
    expect(withForecastsKept(visit, null, job.state())).toEqual(visit);
  });
});
