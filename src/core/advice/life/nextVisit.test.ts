import { context, Logbook, lot, movementOf, readyJob } from '../../../testing/fixtures';
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
    expect(lifeQuestion(state, 'SR621SW', lot, '2026-03-17', context.catalogue)).toMatchObject({
      baseUA: 0.95,
      drainKnownBy: 'measured',
    });
    expect(usesOf({ calibre: null, facts: state.facts })).toEqual([]);
  });

  it('says what is missing', () => {
    const { state } = wellOfJob(new Logbook());
    expect(lifeQuestion(state, 'SR999SW', null, '2026-03-17', context.catalogue)).toContain(
      'not in the table',
    );
    expect(lifeQuestion(state, 'SR621SW', null, '2026-03-17', context.catalogue)).toContain(
      'was not measured',
    );
  });
});
