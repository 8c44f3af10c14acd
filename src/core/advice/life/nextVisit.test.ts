import { context, Logbook, lot, movementOf, readingOf, readyJob, takenIn } from '../../../testing/fixtures';
import type { WellState } from '../../logbook';
import { lifeQuestion, usesOf } from './lifeQuestion';
import { fittedAdviceOf } from './leftIn';
import { fittedLife, nextVisit } from './nextVisit';

const wellOfJob = (job: Logbook) => {
  const state = job.state();
  const [well] = state.wells;
  if (!well) throw new Error('no well');
  return { state, well };
};

describe('when a watch should come back', () => {
  it('is the early end of the cell fitted, counted from the day it was fitted', () => {
    const state = readyJob().state();
    const { onDay, words, forecasts } = nextVisit(state, [lot], context);
    const [first] = forecasts;
    expect(first?.life.verdict).toBe('forecast');
    expect(onDay).toMatch(/^20\d\d-\d\d-17$/);
    expect(words).toContain('A spent cell left inside may leak');
  });

  it('is earlier where the cells of that type and supplier surely last shorter here, and never later', () => {
    const state = readyJob().state();
    const day = (lasts: typeof lot.lasts) => nextVisit(state, [{ ...lot, lasts }], context).onDay ?? '';
    const shop = { verdict: 'factor', fitted: 20, seenAgain: 12, spent: 9 } as const;
    const plain = day(null);
    expect(day({ ...shop, factor: 0.7, from: 0.62, to: 0.8 }) < plain).toBe(true);
    expect(day({ ...shop, factor: 0.95, from: 0.85, to: 1.05 })).toBe(plain);
    expect(day({ ...shop, factor: 1.4, from: 1.2, to: 1.6 })).toBe(plain);
  });

  it('is not worked out while nothing is fitted, for a cell put back, nor for one whose age nobody knows', () => {
    const bare = wellOfJob(new Logbook());
    expect(fittedLife(bare.state, bare.well, [], context).reasons).toEqual([
      'The cell was not changed, and its age is not known.',
    ]);
    const back = readyJob();
    back.add('cell.put-back', { reason: 'reseal only' });
    const { state, well } = wellOfJob(back);
    expect(fittedLife(state, well, [lot], context).reasons.join()).toContain('was put back');
    expect(nextVisit(state, [lot], context)).toMatchObject({
      onDay: null,
      words: expect.stringContaining('cannot be calculated') as string,
    });
  });

  it('a new accumulator is due by the book, and a transferred tab is measured again', () => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    const renewed = {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: '',
      lotCode: '',
      tabContactOhm: null,
      unchargedBecause: null,
    };
    expect(nextVisit(job.state(), [], context).words).not.toContain('is due');
    job.add('cell.accumulator', { ...renewed, way: 'kit with tabs' });
    expect(nextVisit(job.state(), [], context)).toMatchObject({
      onDay: null,
      words: expect.stringContaining('A new accumulator is due about 2038.') as string,
    });
    job.add('cell.accumulator', { ...renewed, way: 'old tab transferred', tabContactOhm: 0.2 });
    expect(nextVisit(job.state(), [], context)).toMatchObject({
      onDay: '2026-06-17',
      words: expect.stringContaining('measure its contact again') as string,
    });
  });

  it('nothing of the book is promised of an accumulator that was found tired and goes out so', () => {
    const job = takenIn('reseal and test', 'vessarin-210s');
    expect(nextVisit(job.state(), [], context).words).toContain('Fully charged, it runs 180 days');
    job.add('cell.charged', { by: 'light', hours: 60, outcome: 'low-supply steps' });
    const { onDay, words } = nextVisit(job.state(), [], context);
    expect(onDay).toBeNull();
    expect(words).toContain(
      'how long it runs is not known. It signals low after 60 h, enough for a full charge. It is tired.',
    );
    expect(words).not.toMatch(/180|keep it going/);
  });

  it('a movement that charges itself is told how, and one that is handed on has none', () => {
    const light = new Logbook();
    light.add('identify.movement', movementOf('vessarin-210s', 'V21.0S'));
    expect(nextVisit(light.state(), [], context).words).toContain('charges itself by light');
    const referred = readyJob();
    referred.add('arrive.decision', {
      decision: 'referred',
      reason: 'not possible at this bench',
      to: '',
      told: '',
    });
    expect(nextVisit(referred.state(), [lot], context).words).toBe('No further visit is planned here.');
    light.add('arrive.decision', {
      decision: 'referred',
      reason: 'not possible at this bench',
      to: '',
      told: '',
    });
    expect(nextVisit(light.state(), [], context).words).toBe('No further visit is planned here.');
  });
});

describe('what a forecast is asked', () => {
  it('takes the current measured here before the book’s, and the owner’s use before the usual', () => {
    const { state } = wellOfJob(readyJob());
    expect(
      lifeQuestion(state, state.wells[0] as WellState, 'SR621SW', lot, '2026-03-17', context.catalogue),
    ).toMatchObject({
      baseUA: 0.95,
      drainKnownBy: 'measured',
    });
    expect(usesOf({ calibre: null, facts: state.facts })).toEqual([]);
  });

  it('says what is missing', () => {
    const { state } = wellOfJob(new Logbook());
    expect(
      lifeQuestion(state, state.wells[0] as WellState, 'SR999SW', null, '2026-03-17', context.catalogue),
    ).toContain('not in the table');
  });

  it('of a movement nobody knows goes by what its kind usually draws, and is early on purpose', () => {
    const asked = (job: Logbook, cellCode: string) => {
      const { state } = wellOfJob(job);
      const question = lifeQuestion(
        state,
        state.wells[0] as WellState,
        cellCode,
        null,
        '2026-03-17',
        context.catalogue,
      );
      if (typeof question === 'string') throw new Error(question);
      return question;
    };
    const see = (job: Logbook, look: 'display' | 'counters' | 'seconds', value: string): Logbook => {
      job.add('identify.evidence', { look, value, withinMm: 0 });
      return job;
    };
    const hands = see(see(see(new Logbook(), 'display', 'no'), 'counters', '0'), 'seconds', 'none');
    // 20.5 mAh over 40 months, each µA taking 0.7305 mAh a month.
    expect(asked(hands, 'SR621SW')).toMatchObject({ drainKnownBy: 'general', functions: [] });
    expect(asked(hands, 'SR621SW').baseUA).toBeCloseTo(20.5 / (0.7305 * 40), 4);
    // What nobody looked for may be there: never a later date.
    expect(asked(new Logbook(), 'SR621SW').baseUA).toBeGreaterThan(asked(hands, 'SR621SW').baseUA);
    expect(asked(see(new Logbook(), 'display', 'yes'), 'CR2016').baseUA).toBeGreaterThan(
      85 / (0.7305 * 60) - 0.01,
    );
    const job = new Logbook();
    job.add('cell.fitted', {
      cellCode: 'SR621SW',
      lotId: lot.id,
      supplier: '',
      lotCode: '',
      alkalineAgreed: false,
      ownersOwn: false,
    });
    const visit = nextVisit(job.state(), [lot], context);
    expect(visit.onDay).not.toBeNull();
    expect(visit.words).toContain('This date is an early estimate');
    const life = visit.forecasts[0]?.life;
    if (life?.verdict !== 'forecast') throw new Error('no forecast');
    expect(life.nextVisitMonths).toBeLessThan(Math.floor(life.p10Months) + 1);
  });

  it('says on the slip of a cell that stayed in, or was put back, what the bench says of it', () => {
    const job = takenIn('cell only');
    job.add('cell.found', { marking: '364', condition: 'clean' });
    const bench = () => {
      const { state } = wellOfJob(job);
      return fittedAdviceOf(state, state.wells[0] as WellState, context.catalogue, '2026-03-17');
    };
    expect(nextVisit(job.state(), [lot], context).onDay).toBe(bench()?.recallOn);
    expect(nextVisit(job.state(), [lot], context).words).toContain('The cell left in: ');
    job.add('cell.put-back', { reason: 'good' });
    expect(nextVisit(job.state(), [lot], context).onDay).toBe(bench()?.recallOn);
    expect(nextVisit(job.state(), [lot], context).words).toContain('The cell put back: ');
  });

  it('never says of an accumulator nobody knows that no cell is fitted', () => {
    const job = new Logbook();
    job.add('cell.accumulator', {
      kitCode: 'KT-X',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    expect(nextVisit(job.state(), [], context)).toMatchObject({ onDay: null });
    expect(nextVisit(job.state(), [], context).words).toContain('charges itself');
    expect(nextVisit(job.state(), [], context).words).not.toContain('No cell');
  });

  describe('one cell of two changed', () => {
    const twoCells = (): Logbook => {
      const job = takenIn('cell only', 'quillbeck-22-4');
      job.add('cell.found', { marking: 'SR927SW', condition: 'clean' }, { well: 'hands' });
      job.add('cell.found', { marking: 'CR1216', condition: 'clean' }, { well: 'display' });
      job.add(
        'cell.fitted',
        {
          cellCode: 'CR1216',
          lotId: lot.id,
          supplier: '',
          lotCode: '',
          alkalineAgreed: false,
          ownersOwn: false,
        },
        { well: 'display' },
      );
      return job;
    };

    it('the one left in gives a date, and says which it is', () => {
      const job = twoCells();
      const unknown = nextVisit(job.state(), [lot], context);
      expect(unknown.onDay).not.toBeNull();
      expect(unknown.words).toContain('The cell left in hands: It is not known when it was fitted');
      job.add('arrive.cell-history', { changedBy: 'this shop', changedOn: '2026-02' });
      const known = nextVisit(job.state(), [lot], context);
      expect((known.onDay ?? '') > (unknown.onDay ?? '')).toBe(true);
      expect(known.words).toContain('The cell left in hands: Fitted');
    });

    it('no date stands where the one left in wants changing now', () => {
      const job = twoCells();
      job.add('check.reading', readingOf('restVoltageV', 1.2), { well: 'hands' });
      expect(nextVisit(job.state(), [lot], context)).toMatchObject({
        onDay: null,
        words: expect.stringContaining('The cell left in hands should be changed now.') as string,
      });
      // The other cell’s voltage says nothing of it.
      const other = twoCells();
      other.add('check.reading', readingOf('restVoltageV', 2.2), { well: 'display' });
      expect(nextVisit(other.state(), [lot], context).onDay).not.toBeNull();
    });

    it('a current and a use count for the well they belong to', () => {
      const job = twoCells();
      job.add('check.reading', readingOf('currentUA', 4), { well: 'hands' });
      const state = job.state();
      const asked = state.wells.map((well) =>
        lifeQuestion(
          state,
          well,
          well.name === 'hands' ? 'SR927SW' : 'CR1216',
          lot,
          '2026-03-17',
          context.catalogue,
        ),
      );
      expect(asked).toMatchObject([
        { baseUA: 4, drainKnownBy: 'measured' },
        { baseUA: 1.8, drainKnownBy: 'book' },
      ]);
      const lit = takenIn('cell only', 'dunmarrow-11-4').state();
      const uses = lit.wells.map((well) =>
        lifeQuestion(lit, well, 'SR626SW', lot, '2026-03-17', context.catalogue),
      );
      expect(uses).toMatchObject([{ functions: [] }, { functions: [{ name: 'light' }] }]);
    });
  });
});
