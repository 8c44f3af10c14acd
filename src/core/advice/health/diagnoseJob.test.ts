import { book, Logbook, movementOf, readingOf, takenIn } from '../../../testing/fixtures';
import { NOT_LOOKED } from '../../logbook';
import { DEFAULT_POLICY } from '../../craft/policy';
import { diagnoseJob, diagnosesOf } from './diagnoseJob';
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
    expect(found.ranked[0]?.evidence.map((each) => each.words)).toContain(
      'the current is far over the limit',
    );
  });
});

describe('a charge that brought it back', () => {
  it('counts as long as nothing seen since speaks against it', () => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    job.add('check.looked', { ...NOT_LOOKED, shows: 'stands still' });
    job.add('cell.charged', { by: 'light', hours: 60, outcome: 'steps normally' });
    const first = () => diagnoseJob(job.state(), book, DEFAULT_POLICY).ranked[0]?.fault;
    expect(first()).toBe('merely discharged');
    job.add('check.looked', { ...NOT_LOOKED, shows: 'steps in twos or fours' });
    expect(first()).toBe('tired accumulator');
  });
});

describe('a watch with two cells', () => {
  const twoCells = () => takenIn('diagnose', 'quillbeck-22-4');

  it('is one question until a cell was read by itself, then one for each', () => {
    const job = twoCells();
    job.add('check.looked', {
      crown: 'home',
      shows: 'stands still',
      watchedSeconds: 60,
      atFitting: null,
      freshCell: false,
      resetUsed: null,
      signs: null,
    });
    expect(diagnosesOf(job.state(), book, DEFAULT_POLICY).map(({ well }) => well)).toEqual([null]);
    job.add('check.reading', readingOf('restVoltageV', 1.58), { well: 'hands' });
    job.add('check.reading', readingOf('restVoltageV', 2.2), { well: 'display' });
    const [hands, display] = diagnosesOf(job.state(), book, DEFAULT_POLICY);
    expect([hands?.well, display?.well]).toEqual(['hands', 'display']);
    expect(display?.diagnosis.ranked[0]?.fault).toBe('spent cell');
    // The hands stand still on a good cell: what ails the other is not laid to theirs.
    expect(hands?.diagnosis.causes).not.toContain('spent cell');
    expect(
      hands?.diagnosis.ranked.find(({ fault }) => fault === 'spent cell')?.probability ?? 0,
    ).toBeLessThan(0.1);
  });

  it('hears what the owner tells at the cell that feeds it', () => {
    const job = twoCells();
    job.add('arrive.complaint', { picked: ['display fading'], words: '' });
    job.add('check.reading', readingOf('restVoltageV', 1.58), { well: 'hands' });
    const evidence = diagnosesOf(job.state(), book, DEFAULT_POLICY).map(({ diagnosis }) =>
      JSON.stringify(diagnosis.ranked).includes('display fades'),
    );
    expect(evidence).toEqual([false, true]);
  });
});
