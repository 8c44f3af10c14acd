import { NO_TOOLS } from './craft/tools';
import { book, context, Logbook, movementOf, readingOf, readyJob } from '../testing/fixtures';
import { BACK_KINDS, backs } from './craft/cases';
import { openBook } from './craft/book';
import { promiseWords, waitsFor } from './advice/dayplan';
import { isForLicensed } from './craft/gaskets';
import { judgeJobReadings } from './advice/health';
import { openParts } from './logbook';
import { HOLDER_WAYS } from './craft/fitting';
import { HOLD_KINDS } from './craft/movements';
import { DEFAULT_POLICY, REQUIREMENTS, SERVICES, STAGE_WORDS, STAGES } from './craft/policy';
import { watchSeconds } from './craft/setting';
describe('what every kind is told', () => {
  it('has an opener, one caution with its reason, and a way of closing for each kind of back', () => {
    for (const kind of BACK_KINDS) {
      expect(backs[kind].opener).toBeTruthy();
      expect(backs[kind].caution.length).toBeGreaterThan(30);
      expect(backs[kind].closes.length).toBeGreaterThan(0);
    }
  });

  it('has a caution for each way a cell is held, and none of them shouts', () => {
    for (const hold of HOLD_KINDS) {
      const { danger, dangerAt, out, in: into } = HOLDER_WAYS[hold];
      expect(danger).toMatch(/^[^!]{30,}$/);
      expect([...out, ...into].map(({ id }) => id)).toContain(dangerAt);
    }
  });
});

describe('policy', () => {
  it('asks only for facts of the nine stages, and of every service for a signed record’s least', () => {
    for (const service of SERVICES) {
      const { requires } = DEFAULT_POLICY.services[service];
      expect(requires).toEqual(expect.arrayContaining(['arrive.watch', 'arrive.complaint']));
      // Whoever opens a watch hears the owner's consent first and closes it last.
      if (requires.includes('open.back'))
        expect(requires).toEqual(expect.arrayContaining(['arrive.consent', 'seal.closed', 'set.runs']));
      // A cell out of its watch is settled.
      if (requires.includes('cell.fitted')) expect(requires).toContain('cell.old-settled');
      expect(new Set(requires).size).toBe(requires.length);
      for (const requirement of requires) expect(STAGES).toContain(REQUIREMENTS[requirement].stage);
    }
    expect(Object.keys(STAGE_WORDS)).toEqual([...STAGES]);
  });
});

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

describe('small words', () => {
  const zone = 'Europe/Lisbon';
  const now = '2026-03-17T12:00:00.000Z';
  it.each([
    [null, 'nothing promised'],
    ['2026-03-17T12:20:00.000Z', 'promised 12:20, in 20 min'],
    ['2026-03-17T16:00:00.000Z', 'promised 16:00'],
    ['2026-03-17T11:45:00.000Z', 'promised 11:45, 15 min late'],
    ['2026-03-17T09:00:00.000Z', 'promised 09:00, 3 h late'],
    ['2026-03-19T09:00:00.000Z', 'promised Thu 19 Mar 09:00'],
    ['2026-03-13T09:00:00.000Z', 'promised Fri 13 Mar 09:00, 4 days late'],
  ])('a promise for %s reads “%s”', (promisedAt, words) => {
    expect(promiseWords(promisedAt, now, zone)).toBe(words);
  });

  it('says what a job waits for at each turn', () => {
    const fresh = new Logbook();
    expect(waitsFor(fresh.state())).toBe('Arrive: the watch');
    const refused = readyJob();
    const consent = refused.entries.find((entry) => entry.kind === 'arrive.consent');
    refused.add('arrive.consent', { risks: [], given: false }, { supersedes: [consent?.id ?? ''] });
    expect(waitsFor(refused.state())).toBe('the owner’s consent');
    expect(waitsFor(readyJob().state())).toBe('Hand back: the signature');
    const tray = readyJob();
    tray.add('open.part', { part: 'screw', position: 'corners', count: 4, serves: [], step: '' });
    expect(waitsFor(tray.state())).toBe('Hand back: 1 part on the tray');
    expect(openParts(tray.state().facts).map((part) => part.words)).toEqual(['screw, corners']);
  });

  it('watches several steps of a slow movement, and refers what only the licensed may certify', () => {
    expect([
      watchSeconds(null),
      watchSeconds({ stepIntervalS: 1 }),
      watchSeconds({ stepIntervalS: 20 }),
    ]).toEqual([20, 20, 120]);
    expect([isForLicensed(10), isForLicensed(20)]).toEqual([false, true]);
  });
});

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
