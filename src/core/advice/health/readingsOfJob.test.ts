import { book, Logbook, movementOf, readingOf } from '../../../testing/fixtures';
import { judgeJobReadings } from './readingsOfJob';
describe('readings of a job', () => {
  it('are judged by the chemistry of the cell found, before that by what the movement wants', () => {
    const job = new Logbook();
    job.add('check.reading', readingOf('restVoltageV', 2.6));
    expect(judgeJobReadings(job.state(), book).map((each) => each.verdict)).toEqual(['not judged']);
    job.add('identify.movement', movementOf('tasvik-82d', 'TK82D'));
    expect(judgeJobReadings(job.state(), book)[0]).toMatchObject({
      verdict: 'spent',
      reasons: [expect.stringContaining('lithium')],
    });
    job.add('cell.found', { marking: 'SR621SW', condition: 'clean' });
    expect(judgeJobReadings(job.state(), book)[0]).toMatchObject({
      verdict: 'not this cell',
      reasons: [expect.stringContaining('No silver oxide cell reaches 2.6 V')],
    });
  });

  it('have upper bounds: 3.05 V is no fresh silver oxide cell, and no load lifts a cell', () => {
    const job = new Logbook();
    job.add('cell.found', { marking: 'SR621SW', condition: 'clean' });
    job.add('check.reading', readingOf('restVoltageV', 3.05));
    expect(judgeJobReadings(job.state(), book)[0]?.verdict).toBe('not this cell');
    job.add('check.reading', readingOf('restVoltageV', 1.5));
    job.add('check.reading', { ...readingOf('loadedVoltageV', 1.58), loadKOhm: 2, loadSeconds: 1 });
    expect(judgeJobReadings(job.state(), book).map(({ verdict }) => verdict)).toEqual([
      'falling',
      'not judged',
    ]);
  });

  it('belong to a well: two cells of two voltages are measured and judged each by itself', () => {
    const job = new Logbook();
    job.add('identify.movement', movementOf('quillbeck-22-4', 'QB 22-4'));
    job.add('check.reading', readingOf('restVoltageV', 1.56), { well: 'hands' });
    job.add('check.reading', readingOf('restVoltageV', 2.4), { well: 'display' });
    job.add('check.reading', readingOf('currentUA', 1.3), { well: 'hands' });
    job.add('check.reading', readingOf('currentUA', 9), { well: 'display' });
    expect(
      judgeJobReadings(job.state(), book).map(({ measure, well, verdict }) => [measure, well, verdict]),
    ).toEqual([
      ['restVoltageV', 'hands', 'good'],
      ['currentUA', 'hands', 'good'],
      ['restVoltageV', 'display', 'spent'],
      ['currentUA', 'display', 'over the limit'],
    ]);
    // One that names no well stands, and belongs to none.
    job.add('check.reading', readingOf('restVoltageV', 1.5));
    expect(judgeJobReadings(job.state(), book)[0]).toMatchObject({ well: null, value: 1.5 });
  });

  it('take the sag from rest and loaded voltage together', () => {
    const job = new Logbook();
    job.add('cell.found', { marking: '364', condition: 'clean' });
    job.add('check.reading', readingOf('restVoltageV', 1.55));
    job.add('check.reading', readingOf('loadedVoltageV', 1.2));
    job.add('check.reading', readingOf('currentUA', 1));
    expect(judgeJobReadings(job.state(), book).map((each) => each.verdict)).toEqual([
      'good',
      'spent',
      'good',
    ]);
  });
});
