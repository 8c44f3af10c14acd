import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import type { CellType, CellWanted } from './types';
import { crossReference, mayBeFitted, wantedFromType } from './crossReference';
import { lookAlikes, looksLike } from './lookAlikes';
const cell = (name: string): CellType => {
  const type = book.cell(name);
  if (!type) throw new Error(name);
  return type;
};
const wanted = (name: string, drain: 'low' | 'high' = 'low', otherHeightsMm: number[] = []): CellWanted => {
  const place = wantedFromType(cell(name), { drain, otherHeightsMm });
  if (!place) throw new Error(name);
  return place;
};
const verdict = (place: CellWanted, name: string, alkalineAgreed = false) =>
  crossReference(place, cell(name), { alkalineAgreed });

describe('crossReference', () => {
  it.each([
    ['the same cell under its number', wanted('SR621SW'), '364', 'equal'],
    ['high drain in a low place', wanted('SR621SW'), 'SR621W', 'accepted'],
    ['low drain where alarm or light draw', wanted('SR927W', 'high'), 'SR927SW', 'nearly'],
    ['a name that leaves the drain open, low place', wanted('SR621SW'), 'SR60', 'accepted'],
    ['a name that leaves the drain open, high place', wanted('SR927W', 'high'), 'SR57', 'nearly'],
    ['alkaline for silver oxide', wanted('SR621SW'), 'AG1', 'nearly'],
    ['another height', wanted('SR621SW'), 'SR626SW', 'never'],
    ['another diameter', wanted('SR626SW'), 'SR726SW', 'never'],
    ['another voltage at equal size', wanted('SR927SW'), 'CR927', 'never'],
    ['mercury', wanted('SR44SW'), 'MR44', 'never'],
    ['a lithium height', wanted('CR2016'), 'CR2025', 'never'],
    ['the weaker lithium kind', wanted('CR1220'), 'BR1220', 'accepted'],
    ['the weaker lithium kind under a light', wanted('CR1220', 'high'), 'BR1220', 'nearly'],
  ] as const)('%s: %s for %s is %s', (_, place, name, expected) => {
    const cross = verdict(place, name);
    expect(cross.verdict).toBe(expected);
    expect(cross.reasons.length).toBeGreaterThan(0);
  });

  it('takes an alkaline only on the customer’s word', () => {
    expect(verdict(wanted('SR621SW'), 'LR621', true).verdict).toBe('accepted');
  });

  it('takes a second height only where the calibre is made for it', () => {
    expect(verdict(wanted('SR920SW', 'low', [2.7]), 'SR927SW').verdict).toBe('accepted');
  });

  it('says how much too thick or thin', () => {
    expect(verdict(wanted('SR616SW'), 'SR621SW').reasons.join(' ')).toContain('0.5 mm too thick');
    expect(verdict(wanted('SR621SW'), 'SR616SW').reasons.join(' ')).toContain('0.5 mm too thin');
  });

  it('never lets a primary cell into a rechargeable place, nor the reverse', () => {
    const rechargeable: CellWanted = { ...wanted('SR621SW'), place: 'rechargeable' };
    const accumulator: CellType = { ...cell('SR621SW'), chemistry: 'accumulator' };
    fc.assert(
      fc.property(
        fc.constantFrom(...book.cellTable.types),
        (type) => crossReference(rechargeable, type).verdict === 'never',
      ),
    );
    expect(crossReference(wanted('SR621SW'), accumulator).verdict).toBe('never');
  });

  it('lets nothing in that differs in voltage, diameter or height', () => {
    const places = book.cellTable.types.filter((type) => type.chemistry !== 'alkaline');
    fc.assert(
      fc.property(
        fc.constantFrom(...places),
        fc.constantFrom(...book.cellTable.types),
        fc.constantFrom('low' as const, 'high' as const),
        fc.boolean(),
        (at, type, drain, alkalineAgreed) => {
          const place = wantedFromType(at, { drain });
          if (!place || !mayBeFitted(crossReference(place, type, { alkalineAgreed }).verdict)) return true;
          return (
            Math.abs(type.nominalV - place.nominalV) <= 0.1 &&
            Math.abs((type.diameterMm ?? 0) - place.diameterMm) <= 0.101 &&
            Math.abs((type.heightMm ?? 0) - place.heightMm) <= 0.101
          );
        },
      ),
      { numRuns: 2000 },
    );
  });

  it('takes silver oxide of either drain in an alkaline’s place, where nothing draws much', () => {
    const alkaline = book.cellTable.types.filter(({ chemistry }) => chemistry === 'alkaline');
    for (const at of alkaline)
      for (const type of book.cellTable.types) {
        const place = wantedFromType(at, { drain: 'low' });
        if (type.chemistry !== 'silver-oxide' || !place) continue;
        const sameSize = type.diameterMm === at.diameterMm && type.heightMm === at.heightMm;
        if (sameSize) expect(crossReference(place, type).verdict).toBe('accepted');
      }
  });

  it('gives as reasons of a refusal nothing that speaks for the cell', () => {
    const types = fc.constantFrom(...book.cellTable.types);
    const inFavour = (reason: string): boolean =>
      /steadier voltage|It works, but|both kinds work|made for this height|agreed by the owner|is the cell this/.test(
        reason,
      );
    fc.assert(
      fc.property(
        types,
        types,
        fc.constantFrom('low' as const, 'high' as const),
        fc.boolean(),
        (at, type, drain, agreed) => {
          const place = wantedFromType(at, { drain, otherHeightsMm: [2.1, 2.7, 3.2] });
          const cross = place && crossReference(place, type, { alkalineAgreed: agreed });
          return !cross || mayBeFitted(cross.verdict) || !cross.reasons.some(inFavour);
        },
      ),
      { numRuns: 3000 },
    );
    expect(crossReference(wanted('LR621', 'high'), cell('SR621SW')).reasons).toEqual([
      expect.stringContaining(
        'This is a low-drain cell, but the movement needs a high-drain cell. Its voltage drops under light, alarm or chronograph.',
      ),
    ]);
  });

  it('finds every cell equal to itself where its drain is asked for', () => {
    for (const type of book.cellTable.types) {
      if (type.drain !== 'low' && type.drain !== 'high') continue;
      const place = wantedFromType(type, { drain: type.drain });
      if (place) expect(crossReference(place, type).verdict).toBe('equal');
    }
  });
});

describe('look-alikes', () => {
  const names = (name: string): string[] =>
    lookAlikes(cell(name), book.cellTable).map((each) => each.cell.code);

  it('finds swapped pairs, other letters, misread digits and doubled ones', () => {
    expect(names('CR1216')).toContain('CR1612');
    expect(names('CR927')).toContain('SR927SW');
    expect(names('AG1')).toContain('LR721');
    expect(names('SR521SW')).toContain('SR621SW');
  });

  it('is quiet about names of one and the same cell', () => {
    expect(looksLike(cell('364'), cell('SR621SW'))).toBeNull();
    expect(looksLike(cell('364'), cell('SR621W'))).toBeNull();
  });

  it('is mutual', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...book.cellTable.types),
        fc.constantFrom(...book.cellTable.types),
        (a, b) => (looksLike(a, b) === null) === (looksLike(b, a) === null),
      ),
    );
  });
});
