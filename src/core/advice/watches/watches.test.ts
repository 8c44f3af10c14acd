import { book, dryTest, Logbook, readingOf, readyJob, takenIn } from '../../../testing/fixtures';
import { USUAL_RATE_S_PER_DAY } from '../../craft/health';
import { trendsOfWatch } from './trends';
import { watchHistory, type WatchVisit } from './watchHistory';
const visit = (job: Logbook, ticket: string, receivedAt: string): WatchVisit => ({
  jobId: ticket,
  ticket,
  receivedAt,
  state: job.state(),
});

describe('the history of a watch', () => {
  const earlier = readyJob();
  earlier.add(
    'open.technique',
    { note: 'press at 7, it clicks late' },
    { occurredAt: '2024-05-02T10:05:00.000Z' },
  );
  earlier.add('test.made', dryTest, { occurredAt: '2024-05-02T10:30:00.000Z' });
  const later = new Logbook();
  later.add(
    'open.back',
    {
      kind: 'snap-on',
      openedWith: 'broad knife',
      protection: 'film',
      went: 'freely',
      spotClock: 7,
      lipClock: null,
      seenFrom: 'behind',
      toolIds: [],
      separationMm: null,
      rearMm: null,
    },
    { occurredAt: '2026-03-17T11:00:00.000Z' },
  );
  later.add('cell.found', { marking: '364', condition: 'crust' }, { occurredAt: '2026-03-17T11:10:00.000Z' });
  const history = watchHistory([
    visit(earlier, 'T0001-8', '2024-05-02T10:00:00.000Z'),
    visit(later, 'T0002-6', '2026-03-17T10:50:00.000Z'),
  ]);

  it('puts what worked last first', () => {
    expect(history.lastOpening).toMatchObject({
      ticket: 'T0002-6',
      openedWith: 'broad knife',
      protection: 'film',
      went: 'freely',
      spotClock: 7,
    });
    expect(history.notes).toEqual([
      { atUtc: '2024-05-02T10:05:00.000Z', ticket: 'T0001-8', text: 'press at 7, it clicks late' },
    ]);
  });

  it('keeps every cell, leak, gasket, current and test under its ticket', () => {
    expect(history.cells).toMatchObject([{ ticket: 'T0001-8', cellCode: 'SR621SW', lotCode: 'S-1' }]);
    expect(history.leaks).toMatchObject([{ ticket: 'T0002-6', marking: '364', condition: 'crust' }]);
    expect(history.gaskets).toMatchObject([{ state: 'reused' }]);
    expect(history.currents).toMatchObject([{ valueUA: 0.95 }]);
    expect(history.tests).toMatchObject([{ pressureBar: 3, outcome: 'tight' }]);
  });

  it('tells a leak by its place and decision, and an accumulator among the cells', () => {
    const job = new Logbook();
    job.add('check.leakage', {
      place: 'contact',
      severity: 'crust',
      xMm: null,
      yMm: null,
      treated: '',
      decision: 'cleaned, observe',
      supplier: 'Nettle & Quay Supplies',
      lotCode: 'NQ-118',
      currentBeforeUA: null,
      currentAfterUA: null,
    });
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: 'Saltmarsh Wholesale',
      lotCode: 'K-1',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    const answer = watchHistory([visit(job, 'T1', '2026-01-01T00:00:00.000Z')]);
    expect(answer.leaks).toMatchObject([
      { marking: 'crust at the contact', condition: 'cleaned, observe, Nettle & Quay Supplies, lot NQ-118' },
    ]);
    expect(answer.cells).toMatchObject([{ cellCode: 'KT-V21', lotCode: 'K-1' }]);
  });

  it('puts consumption and rate in the order of the visits, this one last, beside the limit they are held to', () => {
    const now = new Logbook();
    now.add('check.reading', readingOf('currentUA', 1.3), { occurredAt: '2026-05-01T09:00:00.000Z' });
    now.add('check.reading', readingOf('rateSPerDay', -0.2), { occurredAt: '2026-05-01T09:05:00.000Z' });
    const calibre = book.calibre('orrelin-41-2');
    const [current, rate] = trendsOfWatch(history, now.state(), calibre, book);
    expect(current).toMatchObject({
      measure: 'currentUA',
      points: [{ value: 0.95 }, { value: 1.3, atUtc: '2026-05-01T09:00:00.000Z' }],
      limit: { label: 'limit, OR 41.2', value: calibre?.limitUA, eitherWay: false },
    });
    expect(rate).toMatchObject({
      points: [{ value: -0.2 }],
      limit: { value: USUAL_RATE_S_PER_DAY, eitherWay: true },
    });
    expect(trendsOfWatch(history, null, null, book).map(({ points }) => points.length)).toEqual([1, 0]);
  });

  it('shows the current of each of two cells by itself, each against its own limit', () => {
    const read = (hands: number, display: number) => {
      const job = takenIn('diagnose', 'quillbeck-22-4');
      job.add('check.reading', readingOf('currentUA', hands), { well: 'hands' });
      job.add('check.reading', readingOf('currentUA', display), { well: 'display' });
      return job;
    };
    const history = watchHistory([visit(read(1.2, 1.9), 'T1', '2025-05-01T00:00:00.000Z')]);
    const now = read(1.3, 3.6).state();
    const ofWells = trendsOfWatch(history, now, now.calibre, book).filter(
      ({ measure }) => measure === 'currentUA',
    );
    expect(ofWells).toMatchObject([
      { well: 'hands', points: [{ value: 1.2 }, { value: 1.3 }], limit: { value: 1.9 } },
      { well: 'display', points: [{ value: 1.9 }, { value: 3.6 }], limit: { value: 3.2 } },
    ]);
  });

  it('holds a place that is in no book against no limit: nobody has its figure', () => {
    const job = takenIn('diagnose', null);
    job.add('cell.places', { first: 'hands', second: 'display' });
    job.add('check.reading', readingOf('currentUA', 2.9), { well: 'display' });
    const [current] = trendsOfWatch(watchHistory([]), job.state(), null, book);
    expect(current).toMatchObject({ well: 'display', points: [{ value: 2.9 }], limit: null });
  });

  it('counts only what stands, and is empty for a watch never opened', () => {
    const taken = readyJob();
    const fitted = taken.entries.find((entry) => entry.kind === 'cell.fitted');
    taken.add('logbook.withdrawn', { reason: 'x' }, { withdraws: fitted?.id ?? null });
    expect(watchHistory([visit(taken, 'T1', '2026-01-01T00:00:00.000Z')]).cells).toEqual([]);
    expect(watchHistory([])).toMatchObject({ lastOpening: null, notes: [], cells: [], tests: [] });
  });
});
