import { NO_TOOLS } from '../tools';
import { book, context, Logbook } from '../../../testing/fixtures';
import { openBook } from './openBook';
describe('the book', () => {
  it('answers null for what it does not hold, and reads cells under any name', () => {
    const empty = openBook({
      revision: 0,
      cells: book.cells,
      makers: [],
      calibres: [],
      caseTypes: [],
      gaskets: [],
      ...NO_TOOLS,
    });
    expect([
      empty.calibre('x'),
      empty.calibre(null),
      empty.maker('x'),
      empty.caseType(null),
      empty.cell('nothing'),
    ]).toEqual([null, null, null, null, null]);
    expect(empty.cell('sr 621 sw')?.code).toBe('SR621SW');
  });

  it('wants high drain for the alarm, and no drain class for lithium', () => {
    const alarm = book.calibre('pellorane-3302');
    const digital = book.calibre('orrelin-41-2');
    expect(alarm && book.wanted(alarm, alarm.wells[0] as never)).toMatchObject({
      code: 'SR927W',
      drain: 'high',
      place: 'primary',
    });
    expect(digital && book.wanted(digital, digital.wells[0] as never)).toMatchObject({
      code: 'SR621SW',
      drain: 'low',
    });
  });

  it('finds the case type by the reference, however it is written', () => {
    const job = new Logbook();
    job.add('arrive.watch', {
      maker: '',
      reference: 'k61 08',
      serial: '',
      engraved: '',
      ratingBar: null,
      crownClock: null,
    });
    expect(job.state().caseType?.id).toBe('k61-08');
    expect(context.catalogue.caseType('k61-08')?.ratingBar).toBe(5);
  });
});
