import fc from 'fast-check';
import { book, idOf, lot } from '../../../testing/fixtures';
import { type CellType, wantedFromType } from '../cells';
import { bestSupplier, leakShare, recordWords, type SupplierRecord } from './suppliers';
import { checkDelivery, type DeliveryLine, type OrderLine, usualTake } from './deliveries';
import { chooseLots, whatToFit } from './whatToFit';
import { doubtfulDates, type Lot, runningLow } from './lots';
import { judgeSample } from './samples';
const cell = (name: string): CellType => {
  const type = book.cell(name);
  if (!type) throw new Error(name);
  return type;
};
const wanted = (name: string) => {
  const place = wantedFromType(cell(name), { drain: 'low' });
  if (!place) throw new Error(name);
  return place;
};
const other = (name: string, change: Partial<Lot> = {}): Lot => ({
  ...lot,
  id: idOf(name),
  lotCode: name,
  ...change,
});
const DAY = '2026-03-17';
const record = (supplier: string, fitted: number, leaked: number): SupplierRecord => ({
  supplier,
  deliveries: 3,
  wrong: 1,
  short: 0,
  fitted,
  leaked,
  supplies: ['SR621SW'],
});

describe('what becomes of a delivered line', () => {
  it('is the stock where it is the cell ordered, and else it goes back, whatever its count', () => {
    const line = (code: string, count: number): DeliveryLine => ({
      item: 'cell',
      code,
      count,
      lotCode: `lot of ${code}`,
      madeOn: null,
      bestBefore: '2028-01-31',
      priceMinor: 60,
    });
    const ordered: OrderLine[] = [
      { item: 'cell', code: 'SR621SW', count: 10 },
      { item: 'cell', code: 'CR1216', count: 5 },
    ];
    const delivered = [line('364', 8), line('CR1612', 5), line('SR936W', 3)];
    expect(
      checkDelivery(ordered, delivered, book.cell).map((each) => [each.verdict, usualTake(each, true)]),
    ).toEqual([
      ['short', 'into stock'],
      ['another cell', 'sent back'],
      ['not ordered', 'sent back'],
    ]);
  });
});

describe('the best supplier', () => {
  it('is the one whose cells leaked least, a little fitted telling little; none where none is known', () => {
    expect(bestSupplier([record('Many', 400, 6), record('Few', 2, 0), record('Bad', 100, 9)])).toBe('Many');
    expect(bestSupplier([])).toBeNull();
  });
});

describe('what runs low', () => {
  it('is a cell of which too few may still be fitted and none is on order', () => {
    const lots = [
      other('few', { balance: 2 }),
      other('many', { code: 'SR626SW', balance: 9 }),
      other('past', { code: 'SR521SW', balance: 9, bestBefore: '2026-02-28' }),
      other('aside', { code: 'SR616SW', balance: 9, quarantined: 'a doubtful sample' }),
      other('kit', { code: 'KT-V21', item: 'kit', balance: 0 }),
    ];
    expect(runningLow(lots, [], DAY)).toEqual([
      { code: 'SR521SW', left: 0 },
      { code: 'SR616SW', left: 0 },
      { code: 'SR621SW', left: 2 },
    ]);
    expect(runningLow([...lots, other('more', { balance: 1 })], ['SR521SW', 'SR616SW'], DAY)).toEqual([]);
  });
});

describe('which lot, and what beside it', () => {
  const ask = (lots: Lot[], more: Partial<Parameters<typeof whatToFit>[0]> = {}) =>
    whatToFit({
      wanted: wanted('SR621SW'),
      lots,
      table: book.cellTable,
      cellOf: book.cell,
      day: DAY,
      alkalineAgreed: false,
      priceOf: (item) => (item === 'new-circuit' ? 3800 : null),
      ...more,
    });

  it('takes of two alike in month the supplier whose cells leaked less', () => {
    const lots = [
      other('leaky', { supplier: 'Leaky', bestBefore: '2028-09-01' }),
      other('tight', { supplier: 'Tight', bestBefore: '2028-09-30' }),
    ];
    const records = [record('Leaky', 100, 20), record('Tight', 100, 0)];
    expect(ask(lots, { records }).best?.lot.lotCode).toBe('tight');
    expect(ask(lots).best?.lot.lotCode).toBe('leaky');
    expect(ask([]).order).toMatchObject({ code: 'SR621SW', supplier: null });
    expect(ask([], { records }).order?.supplier).toBe('Tight');
  });

  it('puts a supplier whose cells leak behind one whose did not, whatever the dates', () => {
    const lots = [
      other('leaky', { supplier: 'Leaky', bestBefore: '2028-08-31' }),
      other('tight', { supplier: 'Tight', bestBefore: '2029-09-30' }),
      other('new here', { supplier: 'Nobody knows', bestBefore: '2029-12-31' }),
    ];
    const records = [record('Leaky', 146, 21), record('Tight', 131, 0)];
    const fit = ask(lots, { records });
    expect(fit.offers.map(({ lot: each }) => each.lotCode)).toEqual(['tight', 'new here', 'leaky']);
    expect(fit.bestBecause.join(' ')).toContain('leaky is older, but cells from Leaky leaked more often');
    // One leak among few condemns nobody: then the date decides.
    expect(ask(lots, { records: [record('Leaky', 12, 1), record('Tight', 131, 1)] }).best?.lot.lotCode).toBe(
      'leaky',
    );
    // Nothing but the leaks of cells fitted elsewhere is known of it.
    expect(ask(lots, { records: [record('Leaky', 0, 9), record('Tight', 131, 1)] }).best?.lot.lotCode).toBe(
      'tight',
    );
  });

  it('puts cells that surely died early here behind those that did not', () => {
    const life = {
      verdict: 'factor',
      factor: 0.6,
      from: 0.5,
      to: 0.8,
      fitted: 40,
      seenAgain: 20,
      spent: 20,
    } as const;
    const lots = [
      other('dies', { lasts: life, bestBefore: '2028-01-31' }),
      other('lasts', { lasts: { ...life, factor: 1, from: 0.8, to: 1.2 }, bestBefore: '2028-09-30' }),
    ];
    expect(ask(lots).best?.lot.lotCode).toBe('lasts');
    expect(ask(lots).bestBecause.join(' ')).toContain('ran down early in this shop');
  });

  it('takes a set from one lot, and stays with the lot the first came from', () => {
    const lots = [
      other('one left', { balance: 1, bestBefore: '2027-01-31' }),
      other('enough', { bestBefore: '2028-01-31' }),
    ];
    const set = ask(lots, { together: 2 });
    expect(set.best?.lot.lotCode).toBe('enough');
    expect(set.offers.find(({ verdict }) => verdict === 'blocked')?.reasons[0]).toContain('2 of one lot');
    expect(ask(lots, { sameLotAs: idOf('enough') }).best?.lot.lotCode).toBe('enough');
  });

  it('gives nothing from quarantine', () => {
    const [offer] = ask([other('aside', { quarantined: 'two leaked' })]).offers;
    expect(offer).toMatchObject({ verdict: 'blocked', reasons: ['In quarantine: two leaked.'] });
  });

  it('sets what an alkaline saves beside what a leak costs', () => {
    const alkaline = other('cheap', { code: 'LR621', priceMinor: 12 });
    const fit = ask([lot, alkaline]);
    expect(fit.saving).toMatchObject({
      savesMinor: lot.priceMinor - 12,
      leakMinor: { cleaned: null, circuit: 3800 },
    });
    expect(fit.best?.lot.id).toBe(lot.id);
    expect(ask([alkaline]).saving).toBeNull();
  });

  it('names substitutes and an order where nothing usable is left, none of them a risk', () => {
    const fit = ask([other('past', { bestBefore: '2026-03-16' })]);
    expect(fit.substitutes.map(({ cell: { code } }) => code)).toEqual(
      expect.arrayContaining(['SR621SW', 'SR621W']),
    );
    expect(
      fit.substitutes.every(({ cross }) => cross.verdict === 'equal' || cross.verdict === 'accepted'),
    ).toBe(true);
    expect(fit.order?.reason).toContain('No cell');
    expect(ask([lot]).order).toBeNull();
  });

  it('never offers to take what is past, aside, empty or wrong, whatever the stock', () => {
    const anyLot = fc.record({
      code: fc.constantFrom(...book.cellTable.types.map(({ code }) => code)),
      balance: fc.integer({ min: 0, max: 9 }),
      bestBefore: fc.constantFrom('2026-03-16', '2026-03-17', '2029-01-01', null),
      quarantined: fc.constantFrom(null, 'doubtful'),
    });
    fc.assert(
      fc.property(fc.array(anyLot, { maxLength: 12 }), fc.boolean(), (changes, alkalineAgreed) =>
        chooseLots(
          changes.map((change, index) => other(`lot ${index}`, change)),
          wanted('SR621SW'),
          book.cell,
          DAY,
          { alkalineAgreed },
        )
          .filter(({ verdict }) => verdict === 'take')
          .every(
            ({ lot: taken, cell: type }) =>
              taken.balance > 0 &&
              taken.quarantined === null &&
              (taken.bestBefore ?? DAY) >= DAY &&
              Math.abs((type.heightMm ?? 0) - 2.15) < 0.11 &&
              Math.abs(type.nominalV - 1.55) < 0.1,
          ),
      ),
    );
  });
});

describe('a supplier', () => {
  it('is not condemned for one leak among two, nor trusted for none among two', () => {
    expect(leakShare(record('x', 2, 1))).toBeLessThan(0.05);
    expect(leakShare(record('x', 2, 0))).toBeGreaterThan(0.015);
    expect(leakShare(null)).toBeCloseTo(0.02, 9);
    expect(recordWords(record('x', 40, 2))).toBe('3 deliveries, 1 wrong, 2 of 40 fitted leaked');
  });
});

describe('a delivery against its order', () => {
  const line = (code: string, count: number, change: Partial<DeliveryLine> = {}): DeliveryLine => ({
    item: 'cell',
    code,
    count,
    lotCode: `L-${code}`,
    madeOn: null,
    bestBefore: null,
    priceMinor: 60,
    ...change,
  });
  const ordered: OrderLine[] = [
    { item: 'cell', code: '364', count: 10 },
    { item: 'cell', code: 'CR1216', count: 5 },
  ];
  const check = (...delivered: DeliveryLine[]) => checkDelivery(ordered, delivered, book.cell);

  it('is as ordered under any name of the cell', () => {
    expect(check(line('SR621SW', 10), line('CR1216', 5)).map(({ verdict }) => verdict)).toEqual([
      'as ordered',
      'as ordered',
    ]);
  });

  it('tells short, over, in two lots, not ordered and not delivered apart', () => {
    expect(
      check(line('364', 6), line('364', 4, { lotCode: 'second' })).map(({ verdict }) => verdict),
    ).toEqual(['as ordered', 'as ordered', 'not delivered']);
    expect(check(line('364', 7), line('CR1216', 6)).map(({ verdict }) => verdict)).toEqual(['short', 'over']);
    expect(check(line('364', 10), line('CR1216', 5), line('CR2032', 3)).at(-1)?.verdict).toBe('not ordered');
  });

  it('says which cell came for which, and that they are easily confused', () => {
    const wrong = check(line('364', 10), line('CR1612', 5)).find(({ verdict }) => verdict === 'another cell');
    expect(wrong?.ordered?.code).toBe('CR1216');
    expect(wrong?.reasons.join(' ')).toContain('easily confused');
    expect(wrong?.reasons.join(' ')).toContain('12.5 × 1.6 mm wanted');
  });

  it('answers every line of both once', () => {
    const codes = fc.constantFrom('364', 'SR626SW', 'CR1216', 'CR1612', 'CR2032');
    const lines = fc.array(fc.record({ code: codes, count: fc.integer({ min: 1, max: 9 }) }), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(fc.uniqueArray(codes, { maxLength: 4 }), lines, (orders, came) => {
        const checked = checkDelivery(
          orders.map((code) => ({ item: 'cell', code, count: 3 })),
          came.map(({ code, count }, index) => line(code, count, { lotCode: String(index) })),
          book.cell,
        );
        const [answered, delivered] = [
          checked.filter(({ ordered: each }) => each !== null).length,
          checked.filter(({ delivered: each }) => each !== null).length,
        ];
        return answered === orders.length && delivered === came.length;
      }),
    );
  });
});

describe('a sample', () => {
  it.each([
    ['SR621SW', 1.56, 'sharp and whole', 'good'],
    ['SR621SW', 1.5, 'sharp and whole', 'doubtful'],
    ['SR621SW', 3.1, 'sharp and whole', 'doubtful'],
    ['CR2016', 3.25, 'sharp and whole', 'good'],
    ['CR2016', 2.9, 'sharp and whole', 'doubtful'],
    ['SR621SW', 1.56, 'blurred or crooked', 'doubtful'],
  ] as const)('of %s at %s V, %s: %s', (code, restVoltageV, print, verdict) => {
    expect(judgeSample({ restVoltageV, print }, cell(code)).verdict).toBe(verdict);
  });
});

describe('dates on a blister', () => {
  it.each([
    [{ madeOn: '2025-09-17', bestBefore: '2028-09-30' }, null],
    [{ madeOn: null, bestBefore: null }, null],
    [{ madeOn: '2026-03-18', bestBefore: null }, 'in the future'],
    [{ madeOn: '2005-01-01', bestBefore: null }, 'right century'],
    [{ madeOn: null, bestBefore: '2082-01-31' }, 'right century'],
  ] as const)('%j: %s', (dates, doubt) => {
    const said = doubtfulDates(dates, DAY);
    if (doubt === null) expect(said).toBeNull();
    else expect(said).toContain(doubt);
  });
});
