import type { CalibreHistory } from '../contract';
import { type SeenBefore, unknownCalibre } from '../core/craft/identify';
import { samples } from '../testing/samples';
import { Counter, technicianId } from '../testing/counter';
import { idOf, movementOf, readingOf } from '../testing/fixtures';
let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const before = async () => (await counter.get<SeenBefore[]>('/api/movements/seen')).body;
const history = async (id: string) =>
  (await counter.get<CalibreHistory>(`/api/calibres/${encodeURIComponent(id)}/history`)).body;

describe('what this shop saw before', () => {
  it('counts jobs by movement, revision and case, as their entries stand', async () => {
    const [a, b] = [await counter.takeIn('a'), await counter.takeIn('b')];
    expect(await before()).toEqual([]);
    await counter.record(a, 'a movement', 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
    await counter.record(b, 'b movement', 'identify.movement', movementOf(null, 'XX 77'));
    expect(await before()).toEqual(
      expect.arrayContaining([
        { calibreId: 'orrelin-41-2', revision: null, caseCode: 'C2140-3', jobs: 1 },
        { calibreId: null, revision: null, caseCode: 'C2140-3', jobs: 1 },
      ]),
    );
    const corrected = { ...movementOf('orrelin-41-6', 'OR 41.6'), revision: 'B' };
    await counter.record(a, 'a corrected', 'identify.movement', corrected, {
      supersedes: [idOf('entry a movement')],
    });
    await counter.record(
      b,
      'b withdrawn',
      'logbook.withdrawn',
      { reason: 'wrong job' },
      {
        withdraws: idOf('entry b movement'),
      },
    );
    expect(await before()).toEqual([
      { calibreId: 'orrelin-41-6', revision: 'B', caseCode: 'C2140-3', jobs: 1 },
    ]);
  });

  it('keeps a history with each calibre: readings, leaks, what was found, the latest jobs', async () => {
    for (const [name, current] of [
      ['a', 1.1],
      ['b', 2.4],
    ] as const) {
      const job = await counter.takeIn(name);
      await counter.record(job, `${name} m`, 'identify.movement', movementOf('orrelin-62-3', 'OR 62.3'));
      await counter.record(job, `${name} r`, 'check.reading', readingOf('currentUA', current));
    }
    await counter.record(idOf('job b'), 'leak', 'check.leakage', samples['check.leakage']);
    await counter.record(idOf('job b'), 'finding', 'check.diagnosis', samples['check.diagnosis']);
    expect(await history('orrelin-62-3')).toMatchObject({
      jobs: 2,
      leaked: 1,
      readings: [{ currentUA: 1.1 }, { currentUA: 2.4 }],
      causes: [{ cause: 'spent cell', jobs: 1 }],
      latest: [{ ticket: expect.stringMatching(/^T000/) as string }, {}],
    });
    expect(await history('nobody’s')).toEqual({
      jobs: 0,
      leaked: 0,
      firstAtUtc: null,
      lastAtUtc: null,
      readings: [],
      causes: [],
      latest: [],
    });
  });
});

describe('an unknown calibre entered from the bench', () => {
  const said = { code: 'PL 9942', makerId: 'pellorane', cellCode: 'SR626SW', widthMm: 17.45, currentUA: 0.9 };
  const write = (body: object) =>
    counter.post<{ detail: string }>('/api/catalogue/records', {
      kind: 'calibre',
      id: (body as { id: string }).id,
      body,
      basedOn: null,
      technicianId,
    });

  it('is a record the book takes, with what is known and nothing made up', async () => {
    const book = counter.store.catalogue.book();
    const known = unknownCalibre(
      [
        { look: 'mark', value: 'PL 9942', withinMm: 0 },
        { look: 'sign', value: 'broken ring', withinMm: 0 },
        { look: 'heldBy', value: 'screwed bridge', withinMm: 0 },
        { look: 'cellAt', value: '3', withinMm: 0 },
        { look: 'date', value: '6', withinMm: 0 },
        { look: 'cellDiameterMm', value: 6.79, withinMm: 0 },
        { look: 'cellHeightMm', value: 2.6, withinMm: 0 },
        { look: 'step', value: '20 s', withinMm: 0 },
      ],
      book,
    );
    expect(known).toMatchObject({ code: 'PL 9942', makerId: 'pellorane', cellCode: 'SR626SW' });
    const calibre = known.build(said);
    expect(calibre).toMatchObject({
      id: 'pellorane-pl9942',
      shopsOwn: true,
      typicalUA: null,
      heightMm: null,
      stepIntervalS: 20,
      dial: [{ shows: 'date', clock: 6 }],
      wells: [{ heldBy: 'screwed bridge', yMm: 0 }],
    });
    expect((await write(calibre)).status).toBe(201);
    const again = unknownCalibre([], counter.store.catalogue.book()).build(said);
    expect(again.id).toBe('pellorane-pl9942-2');
    expect((await write(again)).status).toBe(201);
  });

  it('is entered from a sister: her build, but neither her current nor her kit', async () => {
    const book = counter.store.catalogue.book();
    const sister = book.calibre('vessarin-210s');
    const calibre = unknownCalibre(
      [
        { look: 'jewels', value: '9', withinMm: 0 },
        { look: 'date', value: 'none', withinMm: 0 },
        { look: 'step', value: '2 s', withinMm: 0 },
        { look: 'cellAt', value: '3', withinMm: 0 },
      ],
      book,
      sister,
    ).build({
      ...said,
      makerId: 'vessarin',
      code: 'V-219S',
      cellCode: '',
      widthMm: 25.6,
    });
    expect(calibre).toMatchObject({
      shopsOwn: true,
      jewels: 9,
      typicalUA: null,
      limitUA: null,
      charge: { by: 'light', kitCode: 'not known' },
      coilMinKOhm: null,
      lowestV: null,
      lightTimes: [],
      dayIs: null,
      rotor: null,
      stepIntervalS: 2,
      wells: [{ heldBy: sister?.wells[0]?.heldBy, xMm: 6.4, yMm: 0 }],
    });
    // What was seen of it stands in place of hers.
    expect(calibre.functions).not.toContain('date');
    expect(calibre.dial.map(({ shows }) => shows)).not.toContain('date');
    expect(calibre.cautions.join(' ')).toContain('Added at the bench from the related V-210S');
    expect((await write(calibre)).status).toBe(201);
  });

  it('is entered from a sister without her cell, which may be what tells them apart', async () => {
    const book = counter.store.catalogue.book();
    const sister = book.calibre('quillbeck-22-4');
    const known = unknownCalibre([], book, sister);
    expect([known.cellCode, known.widthMm, sister?.wells.length]).toEqual(['', null, 2]);
    const calibre = known.build({ ...said, makerId: 'quillbeck', code: 'QB 22.9', cellCode: 'SR626SW' });
    expect(calibre.wells.map(({ cellCode }) => cellCode)).toEqual(['SR626SW', '']);
    expect(await write(calibre)).toMatchObject({ status: 201 });
  });

  it('is entered with its cell blank, though how that is held was seen', async () => {
    const known = unknownCalibre(
      [{ look: 'heldBy', value: 'screwed bridge', withinMm: 0 }],
      counter.store.catalogue.book(),
    );
    const calibre = known.build({ ...said, cellCode: '' });
    expect(calibre.wells).toMatchObject([{ heldBy: 'screwed bridge', cellCode: '' }]);
    expect((await write(calibre)).status).toBe(201);
    const wrong = await write({
      ...calibre,
      id: `${calibre.id}-b`,
      wells: [{ ...calibre.wells[0], cellCode: 'XY1' }],
    });
    expect(wrong).toMatchObject({ status: 422, body: { detail: expect.stringContaining('XY1') as string } });
  });

  it('is not taken as complete while something is missing', async () => {
    const calibre = unknownCalibre([], counter.store.catalogue.book()).build(said);
    const answer = await write({ ...calibre, shopsOwn: false });
    expect(answer).toMatchObject({ status: 422 });
    expect(answer.body.detail).toContain('its height');
  });
});
