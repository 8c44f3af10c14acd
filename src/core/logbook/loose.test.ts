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
      tabContactOhm: null,
      unchargedBecause: null,
    });
    expect(taken(kit)).toBe(-1);
    expect(looseIn(kit)).toEqual([]);
  });

  const other = { ...lot, id: idOf('other lot'), lotCode: 'other' };
  const outOf = (from: typeof lot) => ({ ...out, lotId: from.id, lotCode: from.lotCode });
  const fittedFrom = (from: typeof lot) => ({ ...fitted, lotId: from.id, lotCode: from.lotCode });

  it('two out and two fitted of one lot are two, whatever they were called', () => {
    const job = new Logbook();
    job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
    job.add('cell.out', out);
    job.add('cell.out', out);
    job.add('cell.fitted', { ...fitted, cellCode: '364' });
    job.add('cell.fitted', fitted);
    expect(taken(job)).toBe(-2);
    expect(looseIn(job)).toEqual([]);
  });

  it('one dropped hides no other: the rest lie loose, and it is not what was fitted', () => {
    const job = new Logbook();
    job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
    const [first, second] = [job.add('cell.out', out), job.add('cell.out', out), job.add('cell.out', out)];
    const drop = job.add('cell.dropped', { what: 'a fresh cell', where: 'floor' });
    expect(looseIn(job).map(({ dropped }) => dropped)).toEqual([false, false, true]);
    job.add('cell.dropped-settled', { droppedEntryId: drop.id, outcome: 'escalated', words: 'the head' });
    expect(looseIn(job).map(({ entryId }) => entryId)).toEqual([first.id, second.id]);
    job.add('cell.fitted', fitted);
    expect(looseIn(job).map(({ entryId }) => entryId)).toEqual([second.id]);
    expect(taken(job)).toBe(-3);
  });

  it('conserves cells, per lot, after any run: delivered is on the shelf, fitted, loose, binned or given away', () => {
    const step = fc.record({
      what: fc.constantFrom('out', 'fit', 'refit', 'back', 'bin', 'drop', 'find', 'tell', 'undo', 'correct'),
      from: fc.constantFrom(lot, other),
      at: fc.nat(20),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 16 }), (steps) => {
        const job = new Logbook();
        job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
        for (const { what, from, at } of steps) {
          const { facts, activeEntries } = job.state();
          const loose = looseIn(job).filter(({ dropped }) => !dropped);
          const cell = loose[at % Math.max(1, loose.length)];
          const [drop] = openDrops(facts);
          const ours = activeEntries.filter(({ kind }) => kind.startsWith('cell.'));
          const entry = ours[at % Math.max(1, ours.length)];
          const last = activeEntries.findLast(({ kind }) => kind === 'cell.fitted');
          if (what === 'out') job.add('cell.out', outOf(from));
          else if (what === 'fit') job.add('cell.fitted', fittedFrom(from));
          else if (what === 'refit' && last)
            job.add('cell.fitted', fittedFrom(from), { supersedes: [last.id] });
          else if (what === 'correct' && entry?.kind === 'cell.out')
            job.add('cell.out', outOf(from), { supersedes: [entry.id] });
          else if (what === 'undo' && entry)
            job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: entry.id });
          else if ((what === 'find' || what === 'tell') && drop)
            job.add('cell.dropped-settled', {
              droppedEntryId: drop.dropped.id,
              outcome: what === 'find' ? 'found' : 'escalated',
              words: 'the head',
            });
          else if (what === 'drop' && cell) job.add('cell.dropped', { what: 'a fresh cell', where: '' });
          else if ((what === 'back' || what === 'bin') && cell)
            job.add('cell.out-settled', {
              outEntryId: cell.entryId,
              to: what === 'back' ? 'back in its lot' : 'spent bin',
            });
        }
        const state = job.state();
        const outs = [...state.facts.cellsOut.values()];
        const loose = new Set(looseIn(job).map(({ entryId }) => entryId));
        for (const { id } of [lot, other]) {
          const ofLot = outs.filter(({ out: { payload } }) => payload.lotId === id);
          const binned = ofLot.filter(({ settled }) => settled?.payload.to === 'spent bin').length;
          const lies = ofLot.filter((each) => loose.has(each.out.id)).length;
          const fits = state.activeEntries.filter(
            (each) => each.kind === 'cell.fitted' && each.payload.lotId === id,
          );
          const open = ofLot.filter(({ settled }) => settled === null);
          const offTheShelf = [...stockMoves(state).values()]
            .filter(({ lotId }) => lotId === id)
            .reduce((sum, { delta }) => sum - delta, 0);
          // Gone is what is neither loose nor in a watch: at most one for each drop somebody was told of.
          const gone = offTheShelf - fits.length - lies - binned;
          const answer = [...state.facts.dropped.values()].filter(
            ({ settled }) => settled?.payload.outcome === 'escalated',
          ).length;
          expect(gone).toBeGreaterThanOrEqual(0);
          expect(gone).toBeLessThanOrEqual(answer);
          // Worked out by pairing on paper: as many fittings as can be took a cell that lay there before them.
          if (state.facts.dropped.size === 0) {
            const paired = mostPairs(
              open.map((each) => each.out.occurredAt),
              fits.map((each) => each.occurredAt),
            );
            expect([lies, offTheShelf]).toEqual([
              open.length - paired,
              open.length + binned + fits.length - paired,
            ]);
          }
        }
      }),
      { numRuns: 400 },
    );
  });
});

/** The most fittings that can each have a cell of its own that was out no later. */
function mostPairs(outs: readonly string[], [fit, ...rest]: readonly string[]): number {
  if (fit === undefined) return 0;
  return Math.max(
    mostPairs(outs, rest),
    ...outs.flatMap((each, at) => (each <= fit ? 1 + mostPairs(outs.toSpliced(at, 1), rest) : [])),
  );
}

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
