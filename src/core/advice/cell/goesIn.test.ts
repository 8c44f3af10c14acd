import { book, context, idOf, Logbook, lot, movementOf } from '../../../testing/fixtures';
import type { Look } from '../../craft/identify';
import type { Lot } from '../../craft/stock';
import { fitForWell, guidesOf, pairedWith } from './cellOfJob';
import { placeWants, refusalOf } from './goesIn';
import { witnessesOf } from './witnesses';

/** A watch nobody knows, with a cell of this marking in it. */
function stranger(marking: string): Logbook {
  const job = new Logbook();
  job.add('cell.found', { marking, condition: 'clean' });
  return job;
}
const see = (job: Logbook, look: Look, value: string) =>
  job.add('identify.evidence', { look, value, withinMm: 0 });
const wellOf = (job: Logbook) => {
  const state = job.state();
  const [well] = state.wells;
  if (!well) throw new Error('no well');
  return { state, well };
};
const wants = (job: Logbook) => {
  const { state, well } = wellOf(job);
  return placeWants(state, well, book)?.wanted ?? null;
};
const refused = (job: Logbook, cellCode: string) => {
  const { state, well } = wellOf(job);
  return refusalOf(state, well, { cellCode, alkalineAgreed: false }, book);
};

describe('what a place nobody knows takes', () => {
  it.each([
    ['AG1', 'SR621SW'],
    ['LR626', 'SR626SW'],
    ['AG13', 'SR44SW'],
  ])('is silver oxide where the alkaline %s was found, of low drain', (marking, silver) => {
    const job = stranger(marking);
    expect(wants(job)).toMatchObject({ code: silver, chemistry: 'silver-oxide', drain: 'low' });
    expect(refused(job, silver)).toBeNull();
    expect(refused(job, marking)?.whatToDo).toContain(`Fit ${silver}`);
  });

  it('is silver oxide of high drain there once light, alarm or counters were seen', () => {
    const job = stranger('AG1');
    see(job, 'counters', '3');
    expect(wants(job)).toMatchObject({ code: 'SR621W', drain: 'high' });
    expect(refused(job, 'SR621SW')?.reasons.join(' ')).toContain(
      'This is a low-drain cell, but the movement needs a high-drain cell',
    );
  });

  it('is of high drain after a high-drain name, until somebody saw that nothing draws much', () => {
    const job = stranger('SR621W');
    expect(wants(job)?.drain).toBe('high');
    see(job, 'counters', '0');
    see(job, 'display', 'no');
    expect(wants(job)).toMatchObject({ code: 'SR621SW', drain: 'low' });
    expect(refused(job, 'SR621SW')).toBeNull();
    expect(refused(job, 'SR621W')).toBeNull();
  });

  it('is of high drain where counters were seen, though a low-drain cell was found', () => {
    const job = stranger('SR621SW');
    see(job, 'counters', '2');
    expect(wants(job)?.drain).toBe('high');
  });

  it('is of high drain in the place of two that is named for the light, and there alone', () => {
    const job = new Logbook();
    job.add('cell.places', { first: 'hands', second: 'light' });
    for (const well of ['hands', 'light'])
      job.add('cell.found', { marking: 'LR41', condition: 'clean' }, { well });
    see(job, 'display', 'no');
    const state = job.state();
    expect(state.wells.map((well) => [well.name, placeWants(state, well, book)?.wanted.drain])).toEqual([
      ['hands', 'low'],
      ['light', 'high'],
    ]);
  });

  it('is what the print names, alkaline too: the last hand errs more than the maker', () => {
    const job = stranger('SR621W');
    job.add('open.print', { text: 'USE SR621SW ONLY' });
    expect(wants(job)).toMatchObject({ code: 'SR621SW', drain: 'low' });
    const alkaline = stranger('AG1');
    alkaline.add('open.print', { text: 'BATTERY LR621' });
    expect(wants(alkaline)).toMatchObject({ code: 'LR621' });
    expect(refused(alkaline, 'LR621')).toBeNull();
    expect(refused(alkaline, 'SR621SW')).toBeNull();
  });
});

describe('a cell that cannot lie in the measured well', () => {
  it('is told as wrong, and what lies there is named', () => {
    const job = stranger('SR626SW');
    job.add('cell.well-measured', { diameterMm: 7.1, depthMm: 2.2 });
    const { state, well } = wellOf(job);
    const said = witnessesOf(state, well, book);
    expect(said).toMatchObject({ verdict: 'one differs', code: null });
    expect(said.reasons.join(' ')).toContain(
      'SR626SW is 6.8 × 2.6 mm, but the well is 7.1 mm across and 2.2 mm deep',
    );
    expect(said.reasons.join(' ')).toContain('SR621SW');
    expect(refused(job, 'SR626SW')?.reasons.join(' ')).toContain('2.2 mm deep');
    expect(refused(job, 'SR621SW')).toBeNull();
    expect(refused(job, 'CR927')?.reasons.join(' ')).toContain('3 V');
  });

  it('is not weighed against print and well that agree', () => {
    const job = stranger('SR626SW');
    job.add('open.print', { text: 'CELL SR621SW' });
    job.add('cell.well-measured', { diameterMm: 7.1, depthMm: 2.25 });
    const { state, well } = wellOf(job);
    const said = witnessesOf(state, well, book);
    expect(said).toMatchObject({ verdict: 'one differs', code: 'SR621SW' });
    expect(said.said.filter(({ agrees }) => !agrees).map(({ kind }) => kind)).toEqual(['cell found']);
  });
});

it('a mix-up is told by the names that were seen, and by no other', () => {
  const answer = (marking: string) => {
    const job = stranger(marking);
    job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
    const { state, well } = wellOf(job);
    return witnessesOf(state, well, book).reasons.join(' ');
  };
  // The numbers of the two are unlike; only their names are.
  expect(answer('379')).not.toContain('easily confused');
  expect(answer('SR521SW')).toContain('SR521SW and SR621SW are easily confused');
});

describe('two alike in one circuit', () => {
  /** A module with two alike under one latch. The book of the demo has none. */
  const paired = () => {
    const calibre = book.calibre('quillbeck-22-4');
    const first = calibre?.wells[1];
    if (!calibre || !first) throw new Error('no calibre');
    const wells = ['left', 'right'].map((name) => ({ ...first, name, cellCode: 'SR927W' }));
    const alike = { ...calibre, wells };
    const catalogue = {
      ...book,
      calibres: book.calibres.map((each) => (each.id === alike.id ? alike : each)),
      calibre: (id: string | null) => (id === alike.id ? alike : book.calibre(id)),
    };
    const job = new Logbook();
    job.add('identify.movement', movementOf(alike.id, alike.code));
    return { job, state: () => job.state({ catalogue }), catalogue };
  };

  it('open their latch once, and shut it once', () => {
    const { state, catalogue } = paired();
    const [left, right] = [...guidesOf(state(), catalogue, context.policy.schools).values()].map((guide) =>
      guide.steps.map(({ id }) => id),
    );
    expect(left).toEqual(expect.arrayContaining(['out-module', 'out-latch', 'in-lay']));
    expect(left).not.toContain('in-close');
    expect(right).toEqual(expect.arrayContaining(['out-take-second', 'in-lay', 'in-close', 'in-module-in']));
    expect(right).not.toContain('out-latch');
  });

  it('are of one type and lot: the second goes by what the first holds', () => {
    const { job, state, catalogue } = paired();
    const own: Lot = { ...lot, id: idOf('own'), code: 'SR927W', lotCode: 'own', balance: 1 };
    const older: Lot = { ...own, id: idOf('older'), lotCode: 'older', bestBefore: '2027-01-31' };
    const fitted = { supplier: '', alkalineAgreed: false, ownersOwn: false };
    job.add(
      'cell.fitted',
      { cellCode: 'SR927W', lotId: own.id, lotCode: 'own', ...fitted },
      { well: 'left' },
    );
    const now = state();
    const right = now.wells[1];
    if (!right) throw new Error('no second well');
    expect(pairedWith(now, right)?.payload.lotCode).toBe('own');
    const fit = fitForWell(now, right, {
      lots: [older, own],
      records: [],
      book: catalogue,
      policy: context.policy,
      day: '2026-03-17',
      alkalineAgreed: false,
    });
    expect(fit?.best?.lot.lotCode).toBe('own');
    expect(fit?.offers.find(({ lot: each }) => each === older)?.reasons.join(' ')).toContain('one lot');
  });
});

it('a light module over another cell is lifted at the guide of the cell beneath, and put back there', () => {
  const stacked = book.calibres.find(({ wells }) =>
    wells.some(({ heldBy }) => heldBy === 'stacked light module'),
  );
  if (!stacked) throw new Error('none stacked');
  const job = new Logbook();
  job.add('identify.movement', movementOf(stacked.id, stacked.code));
  const guides = guidesOf(job.state(), book, context.policy.schools);
  const ids = (name: string) => guides.get(name)?.steps.map(({ id }) => id) ?? [];
  const beneath = ids('hands');
  expect(beneath.filter((id) => id.startsWith('out-'))[0]).toBe('out-above-light-module');
  expect(beneath.filter((id) => id.startsWith('in-')).at(-1)).toBe('in-above-light-module');
  expect(ids('light').join(' ')).not.toContain('above-light-module');
});
