import { context, Logbook, lot, movementOf, readingOf, readyJob, takenIn } from '../../../testing/fixtures';
import type { WellState } from '../../logbook';
import { lifeQuestion, usesOf } from './lifeQuestion';
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
    expect(words).toContain('a spent cell left inside may leak');
  });

  it('is not worked out while nothing is fitted, for a cell put back, nor for one whose age nobody knows', () => {
    const bare = wellOfJob(new Logbook());
    expect(fittedLife(bare.state, bare.well, [], context).reasons).toEqual([
      'The cell was not changed, and its age is not known.',
    ]);
    const back = readyJob();
    back.add('cell.put-back', { reason: 'reseal only' });
    const { state, well } = wellOfJob(back);
    expect(fittedLife(state, well, [lot], context).reasons.join()).toContain('went in again');
    expect(nextVisit(state, [lot], context)).toMatchObject({
      onDay: null,
      words: expect.stringContaining('cannot be worked out') as string,
    });
  });

  it('a movement that charges itself is told how, and one that is handed on has none', () => {
    const light = new Logbook();
    light.add('identify.movement', movementOf('vessarin-210s', 'V21.0S'));
    expect(nextVisit(light.state(), [], context).words).toContain('charges itself by light');
    const referred = readyJob();
    referred.add('arrive.decision', { decision: 'referred', reason: 'beyond this bench', to: '', told: '' });
    expect(nextVisit(referred.state(), [lot], context).words).toBe('No further visit is planned here.');
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
    expect(
      lifeQuestion(state, state.wells[0] as WellState, 'SR621SW', null, '2026-03-17', context.catalogue),
    ).toContain('was not measured');
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
      expect(unknown.words).toContain('The cell left in hands: Nobody knows when it was fitted');
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
        words: expect.stringContaining('The cell left in hands wants changing now.') as string,
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
        lifeQuestion(state, well, well.name === 'hands' ? 'SR927SW' : 'CR1216', lot, '2026-03-17', {
          cell: context.catalogue.cell,
        }),
      );
      expect(asked).toMatchObject([
        { baseUA: 4, drainKnownBy: 'measured' },
        { baseUA: 1.8, drainKnownBy: 'book' },
      ]);
      const lit = takenIn('cell only', 'dunmarrow-11-4').state();
      const uses = lit.wells.map((well) =>
        lifeQuestion(lit, well, 'SR626SW', lot, '2026-03-17', { cell: context.catalogue.cell }),
      );
      expect(uses).toMatchObject([{ functions: [] }, { functions: [{ name: 'light' }] }]);
    });
  });
});
