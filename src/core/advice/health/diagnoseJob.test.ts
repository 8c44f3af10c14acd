import { book, Logbook, movementOf, readingOf } from '../../../testing/fixtures';
import { DEFAULT_POLICY } from '../../craft/policy';
import { diagnoseJob } from './diagnoseJob';
describe('the question a job asks', () => {
  it('is read off readings, loupe, complaint and what earlier stages found', () => {
    const job = new Logbook();
    job.add('arrive.complaint', { picked: ['stopped'], words: '' });
    job.add('identify.movement', movementOf('orrelin-62-3', 'OR 62.3'));
    job.add('check.reading', readingOf('currentUA', 9.1));
    job.add('check.reading', readingOf('stoppedCurrentUA', 6.2));
    job.add('open.as-found', { found: ['residue'], note: '' });
    const found = diagnoseJob(job.state(), book, DEFAULT_POLICY);
    expect(found.causes).toEqual(['electrolyte or damp on the circuit']);
    expect(found.ranked[0]?.evidence.map((each) => each.words)).toContain('current far over the limit');
  });
});
