import { book, context, idOf, Logbook, lot, movementOf, readingOf, takenIn } from '../../../testing/fixtures';
import { NOT_LOOKED, type Payloads, type WellState } from '../../logbook';
import { fittedAdviceOf } from '../life';
import type { Lot } from '../../craft/stock';
import { accumulatorInQuestion, fitForWell, guidesOf, serviceGainOf, setOf } from './cellOfJob';
import { witnessesOf } from './witnesses';
const DAY = '2026-03-17';
const jobOn = (calibreId: string): Logbook => {
  const job = new Logbook();
  job.add('identify.movement', movementOf(calibreId, book.calibre(calibreId)?.code ?? ''));
  return job;
};

describe('the witnesses of a job', () => {
  it('are the book, what is printed inside, the cell found and the well', () => {
    const job = jobOn('orrelin-41-2');
    const say = () => {
      const state = job.state();
      const [well] = state.wells;
      if (!well) throw new Error('no well');
      return witnessesOf(state, well, book);
    };
    expect(say().verdict).toBe('one witness');
    job.add('open.print', { text: 'USE SR621SW' });
    job.add('cell.found', { marking: '379', condition: 'clean' });
    expect(say()).toMatchObject({ verdict: 'one differs', code: 'SR621SW' });
    job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.3 });
    expect(say().said.map(({ kind, agrees }) => [kind, agrees])).toEqual([
      ['book', true],
      ['print', true],
      ['cell found', false],
      ['well measured', true],
    ]);
  });
});

describe('the guides of a job', () => {
  it('are one a place, with each danger once over all of them', () => {
    for (const { id, wells } of book.calibres.filter(({ wells: all }) => all.length > 1)) {
      const guides = [...guidesOf(jobOn(id).state(), book, context.policy.schools).values()];
      expect(guides).toHaveLength(wells.length);
      const dangers = guides.map(({ steps }) => new Set(steps.flatMap(({ danger }) => danger ?? [])));
      const answer = dangers.flatMap((each) => [...each]);
      expect(new Set(answer).size).toBe(answer.length);
      expect(guides.map(({ steps }) => steps.filter(({ phase }) => phase === 'out').length)).not.toContain(0);
    }
  });

  it('go by what was seen where the book does not know the movement, and ask for the rest', () => {
    const job = takenIn('cell only', null);
    const guideNow = () => guidesOf(job.state(), book, context.policy.schools).get('main');
    expect(guideNow()?.steps.find(({ id }) => id === 'out-see')?.how).toContain('Record it in stage 3');
    expect(guideNow()?.asks).toEqual(
      expect.arrayContaining(['cell held by', 'coils', 'seconds hand', 'steps every', 'digital display']),
    );
    expect(guideNow()?.steps.at(-1)?.how).toContain('full minute');
    const see = (look: Payloads['identify.evidence']['look'], value: string) =>
      job.add('identify.evidence', { look, value, withinMm: 0 });
    see('heldBy', 'side lever');
    see('coils', '1');
    see('seconds', 'centre');
    const seen = guideNow();
    expect(seen?.steps.filter(({ phase }) => phase === 'in').map(({ id }) => id)).toEqual([
      'in-fresh',
      'in-polarity',
      'in-under',
      'in-back',
      'in-down',
      'in-home',
    ]);
    expect(seen?.steps.find(({ id }) => id === 'before-brace')?.danger).toContain(
      'The position of the coil is not recorded',
    );
    expect(seen?.asks).not.toContain('cell held by');
    expect(seen?.steps.at(-1)?.how).toContain('seconds hand');
    see('step', '20 s');
    expect(guideNow()?.steps.at(-1)?.how).toContain('every 20 s');
  });
});

describe('two cells of which one stays in', () => {
  it('have what comes once, after the last cell, at the one that is worked', () => {
    const job = jobOn('quillbeck-22-4');
    job.add('cell.above', { above: ['cover'] });
    const backOn = () =>
      [...guidesOf(job.state(), book, context.policy.schools)]
        .filter(([, { steps }]) => steps.some(({ phase, id }) => phase !== 'out' && /above-cover/.test(id)))
        .map(([name]) => name);
    const [first, second] = job.state().wells.map(({ name }) => name);
    expect(backOn().at(-1)).toBe(second);
    job.add('cell.put-back', { reason: '3.1 V' }, { well: second ?? null });
    expect(backOn().at(-1)).toBe(first);
  });
});

describe('an accumulator', () => {
  it('comes out once the last charge did not do, or when it was renewed', () => {
    const job = jobOn('vessarin-210s');
    const asked = () => accumulatorInQuestion(job.state());
    expect(asked()).toBe(false);
    job.add('cell.charged', { by: 'light', hours: 8, outcome: 'low-supply steps' });
    expect(asked()).toBe(true);
    job.add('cell.charged', { by: 'light', hours: 12, outcome: 'steps normally' });
    expect(asked()).toBe(false);
    job.add('check.looked', { ...NOT_LOOKED, shows: 'stands still' });
    expect(asked()).toBe(true);
    job.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    expect(asked()).toBe(true);
  });
});

describe('what to fit in a job', () => {
  const fit = (job: Logbook, at: number, lots: readonly Lot[]) => {
    const state = job.state();
    const well = state.wells[at];
    if (!well) throw new Error('no well');
    return fitForWell(state, well, {
      lots,
      records: [],
      book,
      policy: context.policy,
      day: DAY,
      alkalineAgreed: false,
    });
  };

  it('is nothing where nobody knows what belongs there', () => {
    expect(fit(new Logbook(), 0, [lot])).toBeNull();
    expect(fit(jobOn('orrelin-41-2'), 0, [lot])?.best?.lot.id).toBe(lot.id);
  });

  it('is nothing while something says that the watch is charged', () => {
    const job = new Logbook();
    job.add('cell.found', { marking: lot.code, condition: 'clean' });
    expect(fit(job, 0, [lot])?.best?.lot.id).toBe(lot.id);
    job.add('open.print', { text: 'SOLAR' });
    expect(fit(job, 0, [lot])).toBeNull();
  });

  it('is a set from one lot where two wells take the same cell', () => {
    const job = jobOn('quillbeck-22-4');
    const state = job.state();
    const [hands] = state.wells;
    if (!hands?.wanted) throw new Error('no well');
    // The book has no movement with two alike, so the second is made alike here.
    const alike = { ...state, wells: state.wells.map((well) => ({ ...well, wanted: hands.wanted })) };
    expect(setOf(alike, hands, book)).toHaveLength(2);
    const one: Lot = { ...lot, id: idOf('one'), code: hands.wanted.code, balance: 1 };
    const more: Lot = { ...lot, id: idOf('more'), code: hands.wanted.code, bestBefore: '2029-12-31' };
    const chosen = fitForWell(alike, alike.wells[0] as never, {
      lots: [one, more],
      records: [],
      book,
      policy: context.policy,
      day: DAY,
      alkalineAgreed: false,
    });
    expect(chosen?.best?.lot.id).toBe(more.id);
  });
});

describe('the cell that is in it', () => {
  it('is judged by its voltage, its leak and the day it was fitted', () => {
    const job = jobOn('orrelin-41-2');
    const advice = () => {
      const state = job.state();
      const [well] = state.wells;
      return well ? fittedAdviceOf(state, well, book, DAY) : null;
    };
    expect(advice()).toBeNull();
    job.add('cell.found', { marking: '364', condition: 'clean' });
    expect(advice()?.verdict).toBe('recall by');
    job.add('arrive.cell-history', { changedBy: 'this shop', changedOn: '2026-02' });
    expect(advice()?.verdict).toBe('leave');
    job.add('check.reading', readingOf('restVoltageV', 1.2));
    expect(advice()?.verdict).toBe('change now');
  });

  it('names gain from a service only where it draws too much', () => {
    const job = jobOn('orrelin-41-2');
    expect(serviceGainOf(job.state(), job.state().wells[0] as WellState, 'SR621SW', book, DAY)).toBeNull();
    job.add('check.reading', readingOf('currentUA', 6));
    expect(serviceGainOf(job.state(), job.state().wells[0] as WellState, 'SR621SW', book, DAY)?.verdict).toBe(
      'a service gains',
    );
  });
});
