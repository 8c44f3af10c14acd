import type { Logbook } from '../../../testing/fixtures';
import { book, context, readingOf, takenIn } from '../../../testing/fixtures';
import { flatUnderLamp as lamp } from '../../../testing/lit';
import { NOT_LOOKED, type Payloads } from '../../logbook';
import type { LightPlaceTool } from '../../craft/tools';
import { chargeHere, chargeUnderLight, litOf, placesFor } from './charging';
import { handback } from '../handback';
import { judgeAccumulator } from './judgeAccumulator';
import { lightRack } from './lightRack';
import { type Lit, litWords, waitsInShade } from './litWords';
import { daysStood, startOnRecord } from './startShown';

const at = (hours: number) => ({
  occurredAt: new Date(Date.parse('2026-03-17T10:00:00.000Z') + hours * 3_600_000).toISOString(),
});
const light = (): Logbook => takenIn('recharge or new accumulator', 'vessarin-210s');
const missing = (job: Logbook): string[] =>
  job.state().progress.flatMap((stage) => stage.missing.map(({ requirement }) => requirement));

describe('a watch under a light of the shop', () => {
  it('is told when it will be ready, from the place as it was measured', () => {
    const job = light();
    expect(litOf(job.state(), context)).toBeNull();
    job.add('cell.lit', lamp, at(0));
    const here = chargeUnderLight(job.state(), context);
    // 9,500 lx, day and night: full between the 45 h at 6,000 lx and the 9 h at 90,000.
    const full = here?.plan?.marks.find(({ mark }) => mark === 'full');
    const hours = (Date.parse(full?.likelyUtc ?? '') - Date.parse(at(0).occurredAt)) / 3_600_000;
    expect(hours).toBeGreaterThan(30);
    expect(hours).toBeLessThan(45);
    expect(litOf(job.state(), context)).toMatchObject({ placeId: 'lamp', stepsNormally: null, amiss: null });
  });

  it('is told anew with what was seen there', () => {
    const job = light();
    job.add('cell.lit', lamp, at(0));
    const before = litOf(job.state(), context)?.readyUtc ?? '';
    job.add('cell.lit-seen', { stepsNormally: false }, at(0.5));
    expect((litOf(job.state(), context)?.readyUtc ?? '') > before).toBe(true);
    job.add('cell.lit-seen', { stepsNormally: true }, at(0.6));
    expect(litOf(job.state(), context)).toMatchObject({ stepsNormally: true });
  });

  it('lies there no longer once its charge was judged', () => {
    const job = light();
    job.add('cell.lit', lamp, at(0));
    job.add('cell.charged', { by: 'light', hours: 20, outcome: 'steps normally' }, at(20));
    expect(litOf(job.state(), context)).toBeNull();
    expect(chargeUnderLight(job.state(), context)).toBeNull();
  });

  it('says what is amiss: a place that is gone, one too hot, a book without times', () => {
    const amiss = (calibreId: string | null, payload: Payloads['cell.lit']): string | null => {
      const job = takenIn('recharge or new accumulator', calibreId);
      job.add('cell.lit', payload, at(0));
      return litOf(job.state(), context)?.amiss ?? null;
    };
    expect(amiss('vessarin-210s', { ...lamp, placeId: 'gone' })).toContain('removed from the tools');
    expect(amiss('vessarin-210s', { ...lamp, distanceMm: 60 })).toBe('too hot there');
    const hot = light();
    hot.add('cell.lit', { ...lamp, distanceMm: 60 }, at(0));
    expect(litOf(hot.state(), context)).toMatchObject({ readyUtc: null, lookAgainUtc: [] });
    expect(amiss(null, lamp)).toBe('the movement is not identified');
    const calibre = book.calibre('vessarin-210s');
    const silent =
      calibre &&
      chargeHere({ ...calibre, lightTimes: [] }, { ...lamp, fromUtc: at(0).occurredAt, seen: [] }, context);
    expect(silent?.plan).toMatchObject({ verdict: 'not known', marks: [] });
  });
});

describe('the lights of the shop', () => {
  it('are offered the soonest first, each by its own hours, and by no times that nobody knows', () => {
    const calibre = book.calibre('vessarin-210s');
    if (!calibre) throw new Error('no calibre');
    const [first, second] = placesFor(calibre, context);
    expect([first?.place.id, second?.place.id]).toEqual(['lamp', 'sill']);
    expect((first?.readyUtc ?? '9') < (second?.readyUtc ?? '')).toBe(true);
    expect(placesFor({ ...calibre, lightTimes: [] }, context)).toMatchObject([
      { verdict: 'not known', readyUtc: null },
      { verdict: 'not known', readyUtc: null },
    ]);
  });
});

describe('tired, flat or fine', () => {
  const judged = (build: (job: Logbook) => void, calibreId = 'vessarin-210s') => {
    const job = takenIn('recharge or new accumulator', calibreId);
    build(job);
    return judgeAccumulator(job.state(), context);
  };
  const charged = (hours: number, outcome: Payloads['cell.charged']['outcome']) => (job: Logbook) =>
    job.add('cell.charged', { by: 'light', hours, outcome });

  it('is asked of nothing that charges nothing', () => {
    expect(judgeAccumulator(takenIn('cell only').state(), context)).toBeNull();
  });

  it.each([
    ['charge', 'nothing yet', () => undefined, 'either discharged or tired'],
    ['charge', 'too little light', charged(10, 'low-supply steps'), 'only be discharged'],
    ['charge', 'too little light, and still', charged(10, 'does not run'), 'only be discharged'],
    ['renew', 'light enough', charged(60, 'low-supply steps'), 'tired'],
    ['clean', 'light enough, and still', charged(60, 'does not run'), 'contacts'],
    ['fine', 'back', charged(40, 'steps normally'), 'came back'],
    ['charge', 'back after minutes', charged(0.1, 'steps normally'), '6 min of charge'],
    [
      'charge',
      'back after less than it is handed back with',
      charged(10, 'steps normally'),
      'but is at most',
    ],
  ] as const)('%s after %s', (verdict, _, build, words) => {
    const answer = judged((job) => void build(job));
    expect(answer?.verdict).toBe(verdict);
    expect(answer?.reasons.join(' ')).toContain(words);
  });

  it('is tired where it stepped normally and signals low again', () => {
    const answer = judged((job) => {
      charged(40, 'steps normally')(job);
      charged(5, 'low-supply steps')(job);
    });
    expect(answer).toMatchObject({ verdict: 'renew' });
  });

  it('of a new accumulator is nearly empty, whatever the old one did', () => {
    const answer = judged((job) => {
      charged(60, 'low-supply steps')(job);
      job.add('cell.accumulator', {
        kitCode: 'KT-V21',
        lotId: null,
        supplier: '',
        lotCode: '',
        way: 'kit with tabs',
        tabContactOhm: null,
        unchargedBecause: null,
      });
    });
    expect(answer).toMatchObject({ verdict: 'charge', answer: 'Charge it' });
    expect(answer?.reasons.join(' ')).toContain('nearly empty');
  });

  it('is not condemned where nobody knows what fills it', () => {
    const answer = judged(
      (job) => void job.add('cell.charged', { by: 'rotor', hours: 12, outcome: 'low-supply steps' }),
      'vessarin-330r',
    );
    expect(answer).toMatchObject({ verdict: 'charge', answer: 'Charge on, and watch' });
  });

  it('is not condemned by hours of another kind than its own', () => {
    const by = (...how: readonly Payloads['cell.charged']['by'][]) =>
      judged((job) => {
        for (const each of how) job.add('cell.charged', { by: each, hours: 60, outcome: 'low-supply steps' });
      });
    expect(by('charger')).toMatchObject({ verdict: 'charge', answer: 'Charge on, and watch' });
    expect(by('charger', 'light')).toMatchObject({ verdict: 'renew' });
  });

  it('is cleaned where it leaked, before anything is charged', () => {
    const answer = judged((job) => void job.add('cell.found', { marking: 'MT920', condition: 'crust' }));
    expect(answer?.verdict).toBe('clean');
  });

  it('is not the accumulator where that holds after the charge, nor where the movement draws too much', () => {
    const after = (volts: number) =>
      judged((job) => {
        charged(60, 'low-supply steps')(job);
        job.add('check.reading', readingOf('restVoltageV', volts));
      });
    expect(after(1.45)).toMatchObject({ verdict: 'clean', answer: 'Not the accumulator' });
    expect(after(1.2)).toMatchObject({ verdict: 'renew' });
    // Measured before the charge it says nothing of what came after.
    const before = judged((job) => {
      job.add('check.reading', readingOf('restVoltageV', 1.45));
      charged(60, 'low-supply steps')(job);
    });
    expect(before).toMatchObject({ verdict: 'renew' });
    const heavy = judged((job) => {
      charged(60, 'low-supply steps')(job);
      job.add('check.reading', readingOf('currentUA', 2.4));
    });
    expect(heavy).toMatchObject({ verdict: 'clean', answer: 'The movement first' });
    // A hair over the limit is what the meter may be off.
    const atLimit = judged((job) => {
      charged(60, 'low-supply steps')(job);
      job.add('check.reading', readingOf('currentUA', 1.2500001));
    });
    expect(atLimit?.answer).not.toBe('The movement first');
  });

  it('says what a drawer and months in the dark make likely', () => {
    const stood = judged((job) => void job.add('arrive.stopped', { stoppedOn: '2025-02' }));
    expect(stood?.reasons.join(' ')).toContain('any accumulator would be flat now');
    const drawer = judged((job) => void job.add('arrive.wear', { uses: ['kept in a drawer'], words: '' }));
    expect(drawer?.reasons.join(' ')).toContain('flat is likelier than tired');
  });

  const LOOKED: Payloads['check.looked'] = { ...NOT_LOOKED, shows: 'steps in twos or fours' };
  const proved = (charging: 'works' | 'does not work'): Payloads['set.functions'] => ({
    proved: { charging },
    handedBackSo: '',
  });

  it.each([
    ['renew', 'a look at its hands', (job: Logbook) => job.add('check.looked', LOOKED), 'signals low again'],
    [
      'renew',
      'the light it came back to',
      (job: Logbook) => job.add('cell.lit', { ...lamp, shows: 'low-supply steps' }),
      'signals low again',
    ],
    [
      'clean',
      'hands that stand',
      (job: Logbook) => job.add('check.looked', { ...LOOKED, shows: 'stands still' }),
      'Below 1.35 V at rest it is tired',
    ],
    [
      'clean',
      'the proof of stage 8',
      (job: Logbook) => job.add('set.runs', { runs: false, watchedSeconds: 30 }),
      'has stopped again',
    ],
    [
      'clean',
      'a light that does not charge it',
      (job: Logbook) => job.add('set.functions', proved('does not work')),
      'solar cell',
    ],
    [
      'renew',
      'hands that stand, and its voltage',
      (job: Logbook) => {
        job.add('check.looked', { ...LOOKED, shows: 'stands still' });
        job.add('check.reading', readingOf('restVoltageV', 1.1));
      },
      'has stopped again: it is tired',
    ],
    [
      'clean',
      'its steps, though it holds its voltage',
      (job: Logbook) => {
        job.add('check.reading', readingOf('restVoltageV', 1.45));
        job.add('check.looked', LOOKED);
      },
      'it holds',
    ],
    [
      'charge',
      'its voltage alone',
      (job: Logbook) => job.add('check.reading', readingOf('restVoltageV', 0.6)),
      'nearly empty',
    ],
    [
      'fine',
      'a look that found nothing',
      (job: Logbook) => job.add('check.looked', { ...LOOKED, shows: 'runs as it should' }),
      'came back',
    ],
  ] as const)('%s where it stepped normally after the charge, by %s since', (verdict, _, seen, words) => {
    const answer = judged((job) => {
      charged(40, 'steps normally')(job);
      seen(job);
    });
    expect(answer?.verdict).toBe(verdict);
    expect(answer?.reasons.join(' ')).toContain(words);
  });

  it('is back again once it is seen well', () => {
    const answer = judged((job) => {
      charged(40, 'steps normally')(job);
      job.add('check.looked', LOOKED);
      job.add('check.looked', { ...LOOKED, shows: 'runs as it should' });
      job.add('set.functions', proved('does not work'));
      job.add('set.functions', proved('works'));
      job.add('set.runs', { runs: false, watchedSeconds: 30 });
      job.add('set.runs', { runs: true, watchedSeconds: 30 });
    });
    expect(answer?.verdict).toBe('fine');
    // That it runs does not tell that it steps as it should.
    const low = judged((job) => {
      charged(40, 'steps normally')(job);
      job.add('check.looked', LOOKED);
      job.add('set.runs', { runs: true, watchedSeconds: 30 });
    });
    expect(low?.verdict).toBe('renew');
  });

  it('is not tired where it may have run down since, nor by a look that was only put right after the charge', () => {
    const later = (days: number) =>
      judged((job) => {
        job.add('cell.charged', { by: 'light', hours: 10, outcome: 'steps normally' }, at(0));
        job.add('check.looked', LOOKED, at(days * 24));
      });
    // 10 of the 37 h that fill it here, of the 180 days it runs when full.
    expect(later(20)?.verdict).toBe('renew');
    expect(later(100)).toMatchObject({ verdict: 'charge' });
    expect(later(100)?.reasons.join(' ')).toContain('may have run down');
    const put = judged((job) => {
      const before = job.add('check.looked', LOOKED);
      charged(40, 'steps normally')(job);
      job.add('check.looked', { ...LOOKED, crown: 'home' }, { supersedes: [before.id] });
    });
    expect(put?.verdict).toBe('fine');
  });

  it('is not fine just fitted and charged for minutes, and says so to its owner', () => {
    const job = light();
    job.add('cell.charged', { by: 'light', hours: 60, outcome: 'low-supply steps' });
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    job.add('cell.charged', { by: 'light', hours: 0.1, outcome: 'steps normally' });
    expect(judgeAccumulator(job.state(), context)).toMatchObject({ verdict: 'charge', answer: 'Charge on' });
    const answer = handback(job.state(), [], context);
    expect(answer.statement.nextVisit).toContain('The watch is not fully charged yet');
    expect(answer.reasons.join(' ')).toContain('Charge on');
  });

  it('holds its voltage against its own, never a silver cell’s', () => {
    const answer = judged((job) => void job.add('check.reading', readingOf('restVoltageV', 0.6)));
    expect(answer?.reasons.join(' ')).toContain('Charged, it has 1.5 V: empty');
  });
});

describe('what the service asks for', () => {
  it('is a charge after which it steps normally: a kit alone is none, nor the charge before it', () => {
    const job = light();
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 60, outcome: 'low-supply steps' });
    // Watched, and not come back: nothing to hand over.
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 20, outcome: 'steps normally' });
    expect(missing(job)).not.toContain('cell.charged');
    // Back for an hour is not back.
    const low = job.add('check.looked', { ...NOT_LOOKED, shows: 'steps in twos or fours' });
    expect(missing(job)).toContain('cell.charged');
    job.add('check.looked', { ...NOT_LOOKED, shows: 'runs as it should' }, { supersedes: [low.id] });
    expect(missing(job)).not.toContain('cell.charged');
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 20, outcome: 'steps normally' });
    expect(missing(job)).not.toContain('cell.charged');
    // Back in the light it is not ready.
    job.add('cell.lit', lamp);
    expect(missing(job)).toContain('cell.charged');
  });
});

describe('what a watch brings with it', () => {
  const start = (build: (job: Logbook) => void) => {
    const job = light();
    build(job);
    return startOnRecord(job.state(), context);
  };

  it.each([
    ['nothing on record', () => undefined, null],
    ['its voltage', (job: Logbook) => void job.add('check.reading', readingOf('restVoltageV', 0.6)), 'flat'],
    [
      'a good voltage tells nothing of its steps',
      (job: Logbook) => void job.add('check.reading', readingOf('restVoltageV', 1.5)),
      null,
    ],
    [
      'the complaint',
      (job: Logbook) => void job.add('arrive.complaint', { picked: ['low-cell sign shows'], words: '' }),
      'low-supply steps',
    ],
    ['how long it stands', (job: Logbook) => void job.add('arrive.stopped', { stoppedOn: '2025' }), 'flat'],
  ])('%s', (_, build, shows) => {
    const answer = start((job) => {
      job.add('arrive.complaint', { picked: [], words: 'battery' });
      build(job);
    });
    expect(answer?.shows ?? null).toBe(shows);
  });

  it('stands no longer than what is sure: of a year its last day', () => {
    const job = light();
    expect(daysStood(job.state(), context)).toBeNull();
    job.add('arrive.stopped', { stoppedOn: '2025' });
    expect(daysStood(job.state(), context)).toBe(76);
    job.add('arrive.stopped', { stoppedOn: '2026-03' });
    expect(daysStood(job.state(), context)).toBe(0);
    job.add('arrive.stopped', { stoppedOn: null });
    expect(daysStood(job.state(), context)).toBeNull();
  });
});

describe('who has the light', () => {
  const place = (change: Partial<LightPlaceTool>): LightPlaceTool => {
    const [first] = book.lightPlaces;
    if (!first) throw new Error('no place');
    return { ...first, id: 'lamp', watches: 2, ...change };
  };
  const lies = (name: string, sinceH: number, readyH: number | null, change: Partial<Lit> = {}) => ({
    name,
    lit: {
      entryId: name,
      placeId: 'lamp',
      placeName: 'lamp',
      placeHolds: 2,
      sinceUtc: at(sinceH).occurredAt,
      stepsNormally: null,
      readyUtc: readyH === null ? null : at(readyH).occurredAt,
      readyLatestUtc: null,
      lookAgainUtc: [],
      amiss: null,
      ...change,
    },
  });
  const now = at(5).occurredAt;
  const answer = (jobs: Parameters<typeof lightRack<ReturnType<typeof lies>>>[0], places = [place({})]) =>
    lightRack(jobs, places, now).places.flatMap(({ watches }) =>
      watches.map(({ job, waits, roomFromUtc, readyUtc }) => [job.name, waits, roomFromUtc, readyUtc]),
    );

  it('goes by who was laid down first; the others wait for the first that is ready, one after the other', () => {
    expect(answer([lies('d', 4, 14), lies('a', 0, 20), lies('b', 1, 9), lies('c', 2, 12)])).toEqual([
      ['a', false, null, at(20).occurredAt],
      ['b', false, null, at(9).occurredAt],
      // Ten hours of its own from where b goes.
      ['c', true, at(9).occurredAt, at(19).occurredAt],
      ['d', true, at(19).occurredAt, at(29).occurredAt],
    ]);
  });

  it('frees no room that nobody knows of, and none in the past', () => {
    expect(answer([lies('a', 0, null), lies('b', 1, null), lies('c', 2, 12)])[2]).toEqual([
      'c',
      true,
      null,
      null,
    ]);
    expect(answer([lies('a', 0, 3), lies('b', 1, null), lies('c', 2, 12)])[2]).toEqual([
      'c',
      true,
      now,
      at(15).occurredAt,
    ]);
  });

  it('calls nothing ready, and nothing to be looked at, that had no light', () => {
    const seen = { lookAgainUtc: [at(3).occurredAt] };
    const rack = lightRack(
      [lies('a', 0, 3, seen), lies('b', 1, 4, { ...seen, stepsNormally: true }), lies('c', 2, 4, seen)],
      [place({})],
      now,
    );
    expect(rack.ready.map(({ name }) => name)).toEqual(['a', 'b']);
    expect(rack.toLookAt.map(({ name }) => name)).toEqual(['a']);
  });

  it('calls nothing ready that does not charge as forecast, nor counts on its room', () => {
    const amiss = { amiss: 'it was seen stepping normally, and not so later' };
    const jobs = [lies('a', 0, 3, amiss), lies('b', 1, 9), lies('c', 2, 12)];
    expect(lightRack(jobs, [place({})], now).ready).toEqual([]);
    expect(answer(jobs, [place({ watches: 1 })])[1]).toEqual(['b', true, null, null]);
  });

  it('keeps what lies at a place that is gone', () => {
    const rack = lightRack([lies('a', 0, 3, { placeId: 'gone', amiss: 'gone' })], [place({})], now);
    expect(rack.places.map((each) => [each.place?.id ?? null, each.watches.length])).toEqual([
      ['lamp', 0],
      [null, 1],
    ]);
    expect(rack.amiss).toHaveLength(1);
    expect(lightRack([{ name: 'x', lit: null }], [], now).places).toEqual([]);
  });
});

describe('a watch under a light, as its envelope says it', () => {
  const lit: Lit = {
    entryId: 'e',
    placeId: 'lamp',
    placeName: 'lamp',
    placeHolds: 1,
    sinceUtc: at(0).occurredAt,
    stepsNormally: null,
    readyUtc: at(20).occurredAt,
    readyLatestUtc: null,
    lookAgainUtc: [at(2).occurredAt, at(3).occurredAt],
    amiss: null,
  };
  it.each([
    ['before it is looked at', {}, 1, 'under lamp: check at 12:00'],
    ['when it is time', {}, 2.5, 'under lamp: check now'],
    ['once it steps', { stepsNormally: true }, 2.5, 'under lamp: ready Wed 06:00'],
    ['when it should be ready', {}, 21, 'under lamp: likely ready'],
    ['with something amiss', { amiss: 'too hot there' }, 1, 'under lamp: look at it'],
    ['where nobody knows when', { readyUtc: null, lookAgainUtc: [] }, 1, 'under lamp'],
  ] as const)('%s', (_, change, hours, words) => {
    expect(litWords({ ...lit, ...change }, at(hours).occurredAt, 'Europe/Lisbon', false)).toBe(words);
  });

  it('waits, and is never called ready, while others have the light', () => {
    const later = { ...lit, sinceUtc: at(1).occurredAt };
    expect(waitsInShade(later, [lit, later, null])).toBe(true);
    expect(waitsInShade(lit, [lit, later])).toBe(false);
    expect(waitsInShade(later, [{ ...lit, placeId: 'sill' }, later])).toBe(false);
    expect(waitsInShade({ ...later, placeHolds: 2 }, [lit, later])).toBe(false);
    expect(litWords(later, at(21).occurredAt, 'Europe/Lisbon', true)).toBe('at lamp: waiting for light');
  });
});
