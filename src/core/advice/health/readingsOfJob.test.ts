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
    expect(judgeJobReadings(job.state(), book)[0]).toMatchObject({ verdict: 'good' });
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
