import type { Logbook } from '../../../testing/fixtures';
import { book, context, readingOf, takenIn } from '../../../testing/fixtures';
import type { Payloads } from '../../logbook';
import { chargeHere, chargeUnderLight, litOf, placesFor } from './charging';
import { judgeAccumulator } from './judgeAccumulator';

const lamp: Payloads['cell.lit'] = {
  placeId: 'lamp',
  placeName: 'charging lamp',
  distanceMm: null,
  roomC: 21,
  shows: 'flat',
  percent: null,
};
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
    expect(amiss('vessarin-210s', { ...lamp, placeId: 'gone' })).toContain('no longer among the tools');
    expect(amiss('vessarin-210s', { ...lamp, distanceMm: 60 })).toBe('too hot there');
    const hot = light();
    hot.add('cell.lit', { ...lamp, distanceMm: 60 }, at(0));
    expect(litOf(hot.state(), context)).toMatchObject({ readyUtc: null, lookAgainUtc: [] });
    expect(amiss(null, lamp)).toBe('nobody named its movement');
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
    return judgeAccumulator(job.state(), book);
  };
  const charged = (hours: number, outcome: Payloads['cell.charged']['outcome']) => (job: Logbook) =>
    job.add('cell.charged', { by: 'light', hours, outcome });

  it('is asked of nothing that charges nothing', () => {
    expect(judgeAccumulator(takenIn('cell only').state(), book)).toBeNull();
  });

  it.each([
    ['charge', 'nothing yet', () => undefined, 'not condemned'],
    ['charge', 'too little light', charged(10, 'low-supply steps'), 'merely discharged'],
    ['charge', 'too little light, and still', charged(10, 'does not run'), 'merely discharged'],
    ['renew', 'light enough', charged(60, 'low-supply steps'), 'tired'],
    ['clean', 'light enough, and still', charged(60, 'does not run'), 'contacts'],
    ['fine', 'back', charged(10, 'steps normally'), 'came back'],
  ] as const)('%s after %s', (verdict, _, build, words) => {
    const told = judged((job) => void build(job));
    expect(told?.verdict).toBe(verdict);
    expect(told?.reasons.join(' ')).toContain(words);
  });

  it('is tired where it stepped normally and signals low again', () => {
    const told = judged((job) => {
      charged(10, 'steps normally')(job);
      charged(5, 'low-supply steps')(job);
    });
    expect(told).toMatchObject({ verdict: 'renew' });
  });

  it('of a new accumulator is nearly empty, whatever the old one did', () => {
    const told = judged((job) => {
      charged(60, 'low-supply steps')(job);
      job.add('cell.accumulator', {
        kitCode: 'KT-V21',
        lotId: null,
        supplier: '',
        lotCode: '',
        way: 'kit with tabs',
      });
    });
    expect(told).toMatchObject({ verdict: 'charge', answer: 'Charge it' });
    expect(told?.reasons.join(' ')).toContain('nearly empty');
  });

  it('is not condemned where nobody knows what fills it', () => {
    const told = judged(
      (job) => void job.add('cell.charged', { by: 'rotor', hours: 12, outcome: 'low-supply steps' }),
      'vessarin-330r',
    );
    expect(told).toMatchObject({ verdict: 'charge', answer: 'Charge on, and watch' });
  });

  it('is cleaned where it leaked, before anything is charged', () => {
    const told = judged((job) => void job.add('cell.found', { marking: 'MT920', condition: 'crust' }));
    expect(told?.verdict).toBe('clean');
  });

  it('holds its voltage against its own, never a silver cell’s', () => {
    const told = judged((job) => void job.add('check.reading', readingOf('restVoltageV', 0.6)));
    expect(told?.reasons.join(' ')).toContain('stands at 1.5 V charged: empty');
  });
});

describe('what the service asks for', () => {
  it('is a charge watched to its outcome: a kit alone is none, nor the charge before it', () => {
    const job = light();
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 60, outcome: 'low-supply steps' });
    // Watched, and not come back: nothing to hand over.
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 20, outcome: 'steps normally' });
    expect(missing(job)).not.toContain('cell.charged');
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
    });
    expect(missing(job)).toContain('cell.charged');
    job.add('cell.charged', { by: 'light', hours: 20, outcome: 'steps normally' });
    expect(missing(job)).not.toContain('cell.charged');
    // Back in the light it is not ready.
    job.add('cell.lit', lamp);
    expect(missing(job)).toContain('cell.charged');
  });
});
