import { book, context, idOf, Logbook, readingOf, readyJob, takenIn } from '../../testing/fixtures';
import { foldJob, undoable } from './foldJob';

const voltage = (value: number) => readingOf('restVoltageV', value);
const fitted = (cellCode: string) => ({
  cellCode,
  lotId: null,
  supplier: '',
  lotCode: '',
  alkalineAgreed: false,
  ownersOwn: false,
});
const signature = {
  initials: 'EV',
  catalogueRevision: 1,
  policyRevision: 1,
  restsOnSequence: 1,
  statement: {
    found: [],
    done: [],
    fitted: [],
    tested: [],
    notDone: [],
    water: '',
    nextVisitOn: null,
    nextVisit: '',
    warranty: '',
    priceMinor: 0,
  },
};

describe('undo', () => {
  it('offers this technician’s own last standing entry', () => {
    const job = readyJob();
    job.add('check.reading', voltage(1.4), { technicianId: idOf('other') });
    const last = undoable(job.state(), idOf('technician'));
    expect(last?.kind).toBe('set.outside');
    expect(undoable(job.state(), idOf('nobody'))).toBeNull();
    job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: last?.id ?? null });
    expect(undoable(job.state(), idOf('technician'))?.kind).toBe('set.functions');
  });

  it('never offers a signature, a withdrawal, or that the watch came in', () => {
    const job = new Logbook();
    const received = { customerId: idOf('c'), watchId: idOf('w'), visitId: idOf('v') };
    job.add('arrive.received', received);
    expect(undoable(job.state(), idOf('technician'))).toBeNull();
    job.add('set.time', { set: true });
    job.add('handback.signed', signature);
    expect(undoable(job.state(), idOf('technician'))?.kind).toBe('set.time');
    job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: idOf('entry 2') });
    expect(undoable(job.state(), idOf('technician'))).toBeNull();
  });

  it('offers what still waits in the browser before what the server has, the last made first', () => {
    const job = new Logbook();
    const made = ['a', 'b', 'c'].map((id) => job.add('set.time', { set: true }, { id: idOf(id) }));
    const [first, ...rest] = made.map((entry, index) => ({ ...entry, sequence: index === 0 ? 9 : null }));
    if (!first) throw new Error('entries wanted');
    const state = foldJob([...rest, first], context);
    expect(undoable(state, idOf('technician'))?.id).toBe(idOf('c'));
  });
});

describe('a folded job', () => {
  it('of which nothing is recorded has one place for a cell, and nothing else', () => {
    const state = new Logbook().state();
    expect(state).toMatchObject({
      activeEntries: [],
      conflicts: [],
      calibre: null,
      caseType: null,
      signature: { state: 'unsigned' },
      lastSequence: 0,
    });
    expect(state.wells).toEqual([
      {
        name: 'main',
        well: null,
        wanted: null,
        found: null,
        foundReading: null,
        foundCell: null,
        fitted: null,
        putBack: null,
        oldSettled: null,
        measured: null,
      },
    ]);
  });

  it('counts to the last place the server gave, whatever the order', () => {
    const job = readyJob();
    const { length } = job.entries;
    expect(job.state().lastSequence).toBe(length);
    expect(foldJob([...job.entries].reverse(), context).lastSequence).toBe(length);
    const waiting = job.entries.map((entry) => ({ ...entry, sequence: null }));
    expect(foldJob(waiting, context).lastSequence).toBe(0);
  });

  it('knows its movement by the book and its case by the reference', () => {
    const { calibre, caseType, wells } = readyJob().state();
    expect(calibre).toEqual(book.calibre('orrelin-41-2'));
    expect(caseType?.code).toBe('C2140-3');
    expect(wells[0]).toMatchObject({ name: 'main', wanted: { code: 'SR621SW' } });
    expect(takenIn('cell only', 'not-in-the-book').state().calibre).toBeNull();
  });

  it('takes a named revision of it: its cell is the one wanted', () => {
    const calibre = book.calibres.find(({ revisions, wells }) =>
      revisions.some(({ cellCode }) => cellCode !== null && cellCode !== wells[0]?.cellCode),
    );
    const revision = calibre?.revisions.find(({ cellCode }) => cellCode !== null);
    if (!calibre || !revision) throw new Error('a calibre with revisions wanted');
    const job = new Logbook();
    job.add('identify.movement', {
      calibreId: calibre.id,
      revision: revision.name,
      code: calibre.code,
      by: 'hand',
      note: '',
    });
    expect(job.state().wells[0]?.wanted?.code).toBe(book.cell(revision.cellCode ?? '')?.code);
  });

  it('keeps the cells of two places apart, under their names', () => {
    const job = takenIn('cell only', 'quillbeck-22-4');
    job.add('cell.found', { marking: 'SR920SW', condition: 'clean' }, { well: 'hands' });
    job.add('cell.fitted', fitted('CR1216'), { well: 'display' });
    job.add('cell.well-measured', { diameterMm: 12.6, depthMm: 1.7 }, { well: 'display' });
    job.add('cell.old-settled', { taped: true, to: 'owner' }, { well: 'hands' });
    const [hands, display] = job.state().wells;
    expect(hands).toMatchObject({
      name: 'hands',
      wanted: { code: 'SR927SW' },
      foundCell: { code: 'SR920SW' },
      oldSettled: { payload: { to: 'owner' } },
      fitted: null,
      measured: null,
    });
    expect(display).toMatchObject({
      name: 'display',
      wanted: { code: 'CR1216' },
      found: null,
      foundCell: null,
      fitted: { payload: { cellCode: 'CR1216' } },
      measured: { payload: { depthMm: 1.7 } },
    });
  });

  it('has one place, under the one name, for a movement that has one, whatever the book calls it', () => {
    const [only] = book.calibre('orrelin-41-2')?.wells ?? [];
    const job = takenIn('cell only');
    job.add('cell.put-back', { reason: 'good' });
    const [well, ...more] = job.state().wells;
    expect([well?.name, well?.well, well?.putBack?.payload.reason, more]).toEqual(['main', only, 'good', []]);
  });

  it('goes by that one name also where the book calls the place otherwise', () => {
    const plain = book.calibre('orrelin-41-2');
    const renamed = { ...plain, wells: plain?.wells.map((well) => ({ ...well, name: 'centre' })) };
    const job = takenIn('cell only');
    job.add('cell.put-back', { reason: 'good' });
    const { wells } = job.state({ catalogue: { ...context.catalogue, calibre: () => renamed as never } });
    expect(wells).toMatchObject([{ name: 'main', putBack: { payload: { reason: 'good' } } }]);
  });

  it('has a place though nobody entered the places of its calibre yet', () => {
    const bare = { ...context.catalogue, calibre: () => ({ ...book.calibres[0], wells: [] }) as never };
    const job = takenIn('cell only');
    job.add('cell.fitted', fitted('SR621SW'));
    const { wells } = job.state({ catalogue: bare });
    expect(wells).toMatchObject([
      { name: 'main', well: null, wanted: null, fitted: { payload: { cellCode: 'SR621SW' } } },
    ]);
  });

  it.each([
    ['SR621SW', 'read', 'SR621SW'],
    ['SR6?1SW', 'ambiguous', undefined],
    [null, undefined, undefined],
  ] as const)('reads the marking %p once: %s', (marking, verdict, code) => {
    const job = takenIn('cell only');
    job.add('cell.found', { marking, condition: marking === null ? null : 'clean' });
    const [well] = job.state().wells;
    expect([well?.foundReading?.verdict, well?.foundCell?.code]).toEqual([verdict, code]);
    expect(well?.found?.payload.marking).toBe(marking);
  });
});

describe('the signature', () => {
  it('stands until something that reopens the job is recorded after it', () => {
    const job = readyJob();
    job.add('handback.signed', signature);
    expect(job.state().signature).toMatchObject({ state: 'signed', entry: { payload: { initials: 'EV' } } });
    job.add('handback.collected', { by: 'the owner', paidMinor: 1400 });
    expect(job.state().signature.state).toBe('signed');
    const late = job.add('check.reading', voltage(1.2));
    expect(job.state().signature).toMatchObject({ state: 'reopened', by: [{ id: late.id }] });
    job.add('handback.signed', { ...signature, initials: 'MB' });
    expect(job.state().signature).toMatchObject({ state: 'signed', entry: { payload: { initials: 'MB' } } });
  });
});

describe('what still waits in the browser', () => {
  it('comes after what the server has, as it was made, and the place of a correction is its first', () => {
    const job = new Logbook();
    const first = job.add('check.leakage', leak('coil'));
    const second = job.add('check.leakage', leak('contact'));
    const waiting = job.add('check.leakage', leak('track'));
    const corrected = job.add('check.leakage', leak('coil'), { supersedes: [first.id] });
    const entries = [
      { ...waiting, sequence: null },
      { ...corrected, sequence: null },
      { ...second, sequence: 2 },
      { ...first, sequence: 1 },
    ];
    expect(foldJob(entries, context).activeEntries.map(({ id }) => id)).toEqual([
      corrected.id,
      second.id,
      waiting.id,
    ]);
  });
});

function leak(place: 'coil' | 'contact' | 'track') {
  return {
    place,
    severity: 'bloom',
    xMm: null,
    yMm: null,
    treated: '',
    decision: 'not decided yet',
    supplier: '',
    lotCode: '',
    currentBeforeUA: null,
    currentAfterUA: null,
  } as const;
}

describe('two places for a cell that the book does not know', () => {
  it('are told apart once somebody names them; what was recorded before stands at the first', () => {
    const job = takenIn('cell only', null);
    job.add('cell.found', { marking: '395', condition: 'clean' });
    expect(job.state().wells).toMatchObject([{ name: 'main', found: { payload: { marking: '395' } } }]);
    job.add('cell.places', { first: 'hands', second: 'display' });
    job.add('cell.found', { marking: 'CR1216', condition: 'bloom' }, { well: 'display' });
    expect(job.state().wells).toMatchObject([
      { name: 'hands', well: null, found: { payload: { marking: '395' } } },
      { name: 'display', well: null, foundCell: { code: 'CR1216' }, fitted: null },
    ]);
    const missing = job
      .state()
      .progress.flatMap((stage) => stage.missing.map(({ requirement }) => requirement));
    expect(missing).toContain('cell.fitted');
  });

  it('wait for both cells', () => {
    const job = takenIn('cell only', null);
    job.add('cell.places', { first: 'hands', second: 'display' });
    job.add('cell.fitted', fitted('SR927W'), { well: 'hands' });
    const open = () =>
      job
        .state()
        .progress.flatMap((stage) => stage.missing)
        .some(({ requirement }) => requirement === 'cell.fitted');
    expect(open()).toBe(true);
    job.add('cell.put-back', { reason: '3.1 V' }, { well: 'display' });
    expect(open()).toBe(false);
  });

  it('give way to those of the book once the movement is named', () => {
    const job = takenIn('cell only', null);
    job.add('cell.places', { first: 'upper', second: 'lower' });
    job.add('identify.movement', {
      calibreId: 'quillbeck-22-4',
      revision: null,
      code: 'QB 22-4',
      by: 'hand',
      note: '',
    });
    expect(job.state().wells.map(({ name }) => name)).toEqual(['hands', 'display']);
  });
});
