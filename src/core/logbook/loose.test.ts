import fc from 'fast-check';
import { idOf, Logbook, lot, movementOf } from '../../testing/fixtures';
import { looseCells, mayCloseDay, nextToSettle, openDrops, outcomesOf, stockMoves } from './loose';
const out = { cellCode: 'SR621SW', lotId: lot.id, lotCode: lot.lotCode };
const fitted = { ...out, supplier: lot.supplier, alkalineAgreed: false, ownersOwn: false };
/** A job with an old cell out and a fresh one out of its blister. */
const bothLoose = (): Logbook => {
  const job = new Logbook();
  job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
  job.add('cell.found', { marking: '364', condition: 'clean' });
  job.add('cell.out', out);
  return job;
};
const looseIn = (job: Logbook) => looseCells(job.state());

describe('a loose cell', () => {
  it('is told as what it is called, old or fresh', () => {
    expect(looseIn(bothLoose()).map(({ kind, marking, dropped }) => [kind, marking, dropped])).toEqual([
      ['old', '364', false],
      ['fresh', 'SR621SW', false],
    ]);
  });

  it.each([0, 1])('is settled by each thing that may be said of it, and by that alone (cell %i)', (at) => {
    const cell = looseIn(bothLoose())[at];
    if (!cell) throw new Error('no such cell');
    const outcomes = outcomesOf(cell, 'missed at the bench');
    expect(outcomes).toHaveLength(3);
    for (const { kind, payload, words } of outcomes) {
      const job = bothLoose();
      job.add(kind, payload);
      const left = looseIn(job);
      const other = left.filter(({ entryId }) => entryId !== cell.entryId);
      expect(other).toHaveLength(1);
      const own = left.find(({ entryId }) => entryId === cell.entryId);
      // What nobody has stays loose, as dropped, and nothing else may be said of it until it is found.
      expect([words, own?.dropped ?? null]).toEqual([words, kind === 'cell.dropped' ? true : null]);
      if (own) expect(outcomesOf(own, 'missed')).toEqual([]);
    }
  });

  it('that was dropped and told of is nobody’s any more, and a found one is loose again', () => {
    for (const [outcome, left] of [
      ['found', 2],
      ['escalated', 1],
    ] as const) {
      const job = bothLoose();
      const drop = job.add('cell.dropped', { what: 'the old cell', where: 'floor' });
      expect(openDrops(job.state().facts)).toHaveLength(1);
      job.add('cell.dropped-settled', { droppedEntryId: drop.id, outcome, words: 'told to the head' });
      expect(openDrops(job.state().facts)).toHaveLength(0);
      expect(looseIn(job)).toHaveLength(left);
    }
  });

  it('with no cell found there is none to settle', () => {
    const job = new Logbook();
    job.add('cell.found', { marking: null, condition: null });
    expect(looseIn(job)).toEqual([]);
  });
});

describe('the day', () => {
  it('closes with no cell loose, and else says of each whose it is', () => {
    expect(mayCloseDay([])).toEqual({ verdict: 'close' });
    const [old, fresh] = looseIn(bothLoose());
    if (!old || !fresh) throw new Error('none loose');
    expect(mayCloseDay([{ ticket: 'T0001-8', cell: old }])).toEqual({
      verdict: 'cells are loose',
      reasons: ['One button cell is unaccounted for: 364 of T0001-8.'],
    });
    expect(
      mayCloseDay([
        { ticket: 'T0001-8', cell: old },
        { ticket: 'T0002-6', cell: fresh },
      ]),
    ).toMatchObject({
      reasons: ['2 button cells are unaccounted for: 364 of T0001-8, SR621SW of T0002-6.'],
    });
  });
});

describe('what a job moves in the stock', () => {
  const taken = (job: Logbook): number =>
    [...stockMoves(job.state()).values()].reduce((sum, { delta }) => sum + delta, 0);

  it('is one for a cell, whether it lay loose before or not, and one for a kit', () => {
    const job = bothLoose();
    expect(taken(job)).toBe(-1);
    job.add('cell.fitted', fitted);
    expect(taken(job)).toBe(-1);
    const straight = new Logbook();
    straight.add('cell.fitted', fitted);
    expect(taken(straight)).toBe(-1);
    const kit = new Logbook();
    kit.add('identify.movement', movementOf('vessarin-210s', 'V-210S'));
    kit.add('cell.out', { cellCode: 'KT-V21', lotId: idOf('kit'), lotCode: 'K-1' });
    kit.add('cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: idOf('kit'),
      supplier: '',
      lotCode: 'K-1',
      way: 'kit with tabs',
    });
    expect(taken(kit)).toBe(-1);
    expect(looseIn(kit)).toEqual([]);
  });

  it('never gives back more than it took, and every fresh cell is fitted, settled or loose', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('out', 'fit', 'back', 'bin', 'undo'), { maxLength: 12 }),
        (steps) => {
          const job = new Logbook();
          job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
          for (const step of steps) {
            const [first] = looseIn(job);
            const last = job.state().standing.findLast(({ kind }) => kind.startsWith('cell.'));
            if (step === 'out') job.add('cell.out', out);
            else if (step === 'fit') job.add('cell.fitted', fitted);
            else if (step === 'undo') {
              if (last) job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: last.id });
            } else if (first)
              job.add('cell.out-settled', {
                outEntryId: first.entryId,
                to: step === 'back' ? 'back in its lot' : 'spent bin',
              });
          }
          const state = job.state();
          const outs = [...state.facts.cellsOut.values()];
          const loose = looseCells(state).length;
          const settledBack = outs.filter(({ settled }) => settled?.payload.to === 'back in its lot').length;
          const unsettled = outs.filter(({ settled }) => settled === null).length;
          // Two fittings that stand beside each other took two, until a person settles which it was.
          const fittedNow = state.standing.filter(({ kind }) => kind === 'cell.fitted').length;
          expect(taken(job)).toBeLessThanOrEqual(0);
          expect(loose).toBeLessThanOrEqual(unsettled);
          expect(loose).toBeGreaterThanOrEqual(unsettled - fittedNow);
          // Each cell out took one; a fitting took one of its own only where none out was used for it.
          expect(taken(job) + outs.length - settledBack + fittedNow - (unsettled - loose)).toBe(0);
        },
      ),
    );
  });
});

describe('the old cell to settle next', () => {
  const next = (job: Logbook) => nextToSettle(job.state().wells)?.name ?? null;

  it('is asked after once another went in, at the first place, and no more once it is settled', () => {
    const job = new Logbook();
    job.add('identify.movement', movementOf('quillbeck-22-4', 'QB 22/4'));
    for (const well of ['hands', 'display'])
      job.add('cell.found', { marking: '364', condition: 'clean' }, { well });
    expect(next(job)).toBeNull();
    job.add('cell.fitted', fitted, { well: 'display' });
    expect(next(job)).toBe('display');
    job.add('cell.fitted', fitted, { well: 'hands' });
    expect(next(job)).toBe('hands');
    job.add('cell.old-settled', { taped: true, to: 'spent bin' }, { well: 'hands' });
    expect(next(job)).toBe('display');
    job.add('cell.old-settled', { taped: true, to: 'owner' }, { well: 'display' });
    expect(next(job)).toBeNull();
  });

  it('is none where there was no cell, or where the same goes back', () => {
    const none = new Logbook();
    none.add('cell.found', { marking: null, condition: null });
    none.add('cell.fitted', fitted);
    expect(next(none)).toBeNull();
    const same = new Logbook();
    same.add('cell.found', { marking: '364', condition: 'clean' });
    same.add('cell.put-back', { reason: 'reseal only' });
    expect(next(same)).toBeNull();
  });
});
