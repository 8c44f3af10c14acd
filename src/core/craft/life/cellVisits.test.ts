import { type CellSeen, type CellVisit, forecastAsFitted, livesOf } from './cellVisits';
import { expectedLife } from './expectedLife';

const cell = { code: '364', supplier: 'Saltmarsh', forecast: { medianMonths: 30, spread: 0.12 } };
const place = (own: Partial<CellSeen> = {}): CellSeen => ({
  well: 'main',
  shows: 'not known',
  foundCode: null,
  cameOut: false,
  fitted: null,
  ...own,
});
const visit = (cameOn: string, own: Partial<CellVisit> = {}, seen: Partial<CellSeen> = {}): CellVisit => ({
  cameOn,
  stopped: null,
  changedBy: 'not said',
  places: [place(seen)],
  placesKnown: true,
  ...own,
});
const fittedOn = (on: string): CellVisit => visit(on, {}, { cameOut: true, fitted: { ...cell, on } });
const TODAY = '2026-03-01';

describe('the life of a cell over the visits of its watch', () => {
  it('ends between when it was fitted and when it was found spent', () => {
    const lives = livesOf(
      [visit('2025-03-01', {}, { shows: 'spent', foundCode: '364', cameOut: true }), fittedOn('2023-03-01')],
      TODAY,
    );
    expect(lives).toHaveLength(1);
    expect(lives[0]).toMatchObject({
      code: '364',
      supplier: 'Saltmarsh',
      ranMonths: 0,
      seenAgain: true,
      outMonths: null,
    });
    expect(lives[0]?.spentByMonths).toBeCloseTo(24, 1);
  });

  it('ends when its owner says it stopped, and not before it was last seen running', () => {
    const spent = visit(
      '2025-12-01',
      { stopped: { from: '2025-05-01', to: '2025-05-31' } },
      { shows: 'spent', foundCode: '364' },
    );
    const answer = livesOf([fittedOn('2023-03-01'), spent], TODAY)[0];
    expect(answer?.ranMonths).toBeCloseTo(26, 0);
    expect(answer?.spentByMonths).toBeCloseTo(27, 0);
    expect(answer?.broughtMonths).toBeCloseTo(33, 0);
    // Seen running here in August: what is told is not gone by.
    const ran = visit('2025-08-01', {}, { shows: 'runs' });
    const seen = livesOf([fittedOn('2023-03-01'), ran, spent], TODAY)[0];
    expect(seen?.ranMonths).toBeCloseTo(29, 0);
    expect(seen?.spentByMonths).toBeCloseTo(33, 0);
  });

  it('counts one that was spent on the day it was fitted', () => {
    const back = visit('2023-03-01', {}, { shows: 'spent', foundCode: '364', cameOut: true });
    const [life] = livesOf([fittedOn('2023-03-01'), back], TODAY);
    expect(life).toMatchObject({ ranMonths: 0, seenAgain: true });
    expect(life?.spentByMonths).toBeGreaterThan(0);
  });

  it('goes on over visits it stays in, and is out until today', () => {
    const lives = livesOf(
      [fittedOn('2023-03-01'), visit('2024-03-01', {}, { shows: 'runs' }), visit('2024-09-01')],
      TODAY,
    );
    expect(lives[0]).toMatchObject({ seenAgain: true, spentByMonths: null });
    expect(lives[0]?.ranMonths).toBeCloseTo(12, 0);
    expect(lives[0]?.outMonths).toBeCloseTo(36, 0);
  });

  it.each([
    [
      'changed elsewhere since',
      visit(
        '2025-03-01',
        { changedBy: 'somebody else' },
        { shows: 'spent', foundCode: '364', cameOut: true },
      ),
    ],
    ['of another type', visit('2025-03-01', {}, { shows: 'spent', foundCode: '371', cameOut: true })],
    ['of which nobody says whose it is', visit('2025-03-01', {}, { shows: 'spent', cameOut: true })],
    ['gone', visit('2025-03-01', {}, { shows: 'none' })],
    [
      'of a watch with other places now',
      visit('2025-03-01', { places: [place({ well: 'hands' }), place({ well: 'module' })] }),
    ],
  ])('%s is followed no further than it was seen', (_, later) => {
    const [life] = livesOf([fittedOn('2023-03-01'), later], TODAY);
    expect(life).toMatchObject({ ranMonths: 0, spentByMonths: null, outMonths: null, seenAgain: false });
  });

  it('counts as the one fitted where its owner says this shop changed it', () => {
    const later = visit('2025-03-01', { changedBy: 'this shop' }, { shows: 'spent', cameOut: true });
    expect(livesOf([fittedOn('2023-03-01'), later], TODAY)[0]?.seenAgain).toBe(true);
  });

  it('ends running where it came out running, and the next one begins', () => {
    const changed = visit(
      '2025-03-01',
      {},
      { shows: 'runs', foundCode: '364', cameOut: true, fitted: { ...cell, on: '2025-03-02' } },
    );
    const lives = livesOf([fittedOn('2023-03-01'), changed], TODAY);
    expect(lives.map(({ outMonths }) => outMonths === null)).toEqual([true, false]);
    expect(lives[0]?.ranMonths).toBeCloseTo(24, 0);
  });

  it('of several places each goes on over a visit at which nobody knew them', () => {
    const two = visit('2023-03-01', {
      places: ['hands', 'module'].map((well) =>
        place({ well, cameOut: true, fitted: { ...cell, on: '2023-03-01' } }),
      ),
    });
    const lives = livesOf([two, visit('2024-03-01', { placesKnown: false })], TODAY);
    expect(lives.map(({ outMonths }) => outMonths === null)).toEqual([false, false]);
  });

  it('of several places each has its own', () => {
    const both = (on: string): CellVisit =>
      visit(on, {
        places: ['hands', 'module'].map((well) => place({ well, cameOut: true, fitted: { ...cell, on } })),
      });
    const later = visit('2025-03-01', {
      places: [
        place({ well: 'hands', shows: 'spent', foundCode: '364', cameOut: true }),
        place({ well: 'module' }),
      ],
    });
    const lives = livesOf([both('2023-03-01'), later], TODAY);
    expect(lives.map(({ seenAgain }) => seenAgain)).toEqual([true, false]);
  });

  it('is none where nothing was forecast as it went in, or more than is forecast for any cell', () => {
    const unknown = visit('2023-03-01', {}, { fitted: { ...cell, on: '2023-03-01', forecast: null } });
    expect(livesOf([unknown], TODAY)).toEqual([]);
    const input = {
      chemistry: 'lithium',
      capacityMinMAh: 200,
      capacityMaxMAh: 220,
      drainKnownBy: 'measured',
      functions: [],
      yearsSinceMade: 0,
      ageKnownBy: 'its date',
      kept: 'worn',
      seed: 1,
    } as const;
    expect(forecastAsFitted(expectedLife({ ...input, baseUA: 0.2 }))).toBeNull();
    expect(forecastAsFitted(expectedLife({ ...input, baseUA: NaN }))).toBeNull();
    expect(forecastAsFitted(expectedLife({ ...input, baseUA: 8 }))?.spread).toBeGreaterThan(0.02);
  });
});
