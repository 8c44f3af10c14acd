import { book, Logbook, movementOf } from '../../../testing/fixtures';
import { evidenceOfJob, movementHidden } from './evidenceOfJob';
import { type Look, type Seen, seenWords } from '../../craft/identify';
const seen = (look: Look, value: string | number, withinMm = 0): Seen => ({ look, value, withinMm });
describe('the evidence of a job', () => {
  it('gathers what every stage recorded, and leaves out what a hand left out', () => {
    const job = new Logbook();
    job.add('arrive.watch', {
      maker: 'Orrelin',
      reference: 'C2140-3',
      serial: '',
      engraved: '',
      ratingBar: 3,
      crownClock: 3,
    });
    job.add('identify.engraving', { text: 'OR 41.6' });
    job.add('open.print', { text: 'TWO JEWELS' });
    job.add('cell.found', { marking: '377', condition: 'clean' });
    job.add('identify.evidence', { look: 'jewels', value: '2', withinMm: 0 });
    const gathered = evidenceOfJob(job.state(), book);
    expect(gathered.map(({ look, from }) => [look, from])).toEqual([
      ['engraving', 'here'],
      ['caseCode', 'arrival'],
      ['cellDiameterMm', 'the cell found'],
      ['cellHeightMm', 'the cell found'],
      ['jewels', 'here'],
      ['print', 'the print inside'],
    ]);
    job.add('identify.evidence', { look: 'caseCode', value: null, withinMm: 0 });
    expect(evidenceOfJob(job.state(), book).find(({ look }) => look === 'caseCode')?.seen).toBeNull();
    job.add('identify.movement', { ...movementOf('orrelin-41-6', 'OR 41.6'), revision: 'B' });
    expect(job.state().wells[0]?.wanted?.code).toBe('SR621SW');
    expect(movementHidden(job.state())).toBe(false);
  });

  it('counts what nobody could see once it is seen, and keeps out what a hand left out', () => {
    const job = new Logbook();
    job.add('identify.evidence', { look: 'engraving', value: null, withinMm: 0 });
    job.add('identify.evidence', { look: 'cellDiameterMm', value: null, withinMm: 0 });
    const without = (look: Look) =>
      evidenceOfJob(job.state(), book).find((each) => each.look === look)?.without;
    expect([without('engraving'), without('cellDiameterMm')]).toEqual(['cannot be seen', 'cannot be seen']);
    job.add('identify.engraving', { text: 'OR 41.6' });
    job.add('cell.found', { marking: '377', condition: 'clean' });
    expect([without('engraving'), without('cellDiameterMm')]).toEqual([null, null]);
    job.add('identify.evidence', { look: 'cellDiameterMm', value: null, withinMm: 0 });
    expect(without('cellDiameterMm')).toBe('left out');
  });

  it('takes the case from the engraving where the arrival named none', () => {
    const job = new Logbook();
    job.add('identify.engraving', { text: 'C2210-1 OR 62.3' });
    expect(evidenceOfJob(job.state(), book)).toContainEqual(
      expect.objectContaining({ look: 'caseCode', from: 'the engraving', seen: seen('caseCode', 'C2210-1') }),
    );
  });

  it('says what was seen as one says it', () => {
    expect(seenWords(seen('widthMm', 23.31))).toBe('width 23.31 mm');
    expect(seenWords(seen('widthMm', 23.69, 0.28))).toBe('width 10½‴');
    expect(seenWords(seen('date', '4.5'))).toBe('date 4.5 o’clock, seen from the dial');
    expect(seenWords(seen('cellAt', '9'))).toBe('cell lies towards 9 o’clock, seen from behind');
    expect(seenWords(seen('caseCode', 'C1'))).toBe('case C1');
    expect(seenWords(seen('revision', 'orrelin-41-6|B'))).toBe('revision B');
    expect(seenWords(seen('mark', 'PL?'))).toBe('mark on the movement “PL?”');
  });
});
