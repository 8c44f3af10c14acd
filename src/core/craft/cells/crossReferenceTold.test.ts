import { book } from '../../../testing/fixtures';
import { crossReference, mayBeFitted, wantedFromType } from './crossReference';
import type { CellType, CellWanted } from './types';

const known = book.cell('SR621SW');
if (!known) throw new Error('SR621SW wanted');
const cell: CellType = known;
const base = wantedFromType(cell, { drain: 'low' });
if (!base) throw new Error('a size wanted');
const wanted = (own: Partial<CellWanted> = {}): CellWanted => ({ ...base, ...own });

type Told = readonly [verdict: 'equal' | 'accepted' | 'nearly' | 'never', ...reasons: string[]];
const SIZE = 'Diameter 7 mm instead of 6.8 mm. It does not fit the well.';

describe('a cross-reference, word for word', () => {
  it.each<readonly [string, CellWanted, Partial<CellType>, Told]>([
    ['the cell itself', wanted(), {}, ['equal', 'SR621SW is the cell this movement takes.']],
    ['another name of it', wanted(), { code: 'X9' }, ['equal', 'X9 is SR621SW under another name.']],
    [
      'a diameter at the end of its play',
      wanted(),
      { diameterMm: 6.9 },
      ['equal', 'SR621SW is the cell this movement takes.'],
    ],
    ['a diameter over it', wanted(), { diameterMm: 7 }, ['never', SIZE]],
    [
      'too thick',
      wanted(),
      { heightMm: 2.6 },
      ['never', '0.45 mm too thick. It strains the contacts and the back.'],
    ],
    ['too thin', wanted(), { heightMm: 1.65 }, ['never', '0.5 mm too thin. It loses contact.']],
    [
      'another height of the calibre',
      wanted({ otherHeightsMm: [1.65] }),
      { heightMm: 1.65 },
      ['accepted', 'The calibre is made for this height too (1.65 mm).'],
    ],
    [
      'between the heights, nearer the other',
      wanted({ otherHeightsMm: [1.65] }),
      { heightMm: 1.25 },
      ['never', '0.4 mm too thin. It loses contact.'],
    ],
    [
      'silver oxide for alkaline',
      wanted({ chemistry: 'alkaline' }),
      {},
      ['accepted', 'Silver oxide instead of alkaline: steadier voltage, longer life.'],
    ],
    [
      'high drain in a low place',
      wanted(),
      { drain: 'high' },
      [
        'accepted',
        'This is a high-drain cell, and the movement needs a low-drain cell. It works, but has a shorter shelf life.',
      ],
    ],
    [
      'a name that leaves the drain open',
      wanted(),
      { drain: 'unstated' },
      [
        'accepted',
        'This name does not say whether the cell is for low or high drain. The movement needs a low-drain cell, and both kinds work.',
      ],
    ],
    [
      'low drain where much is drawn',
      wanted({ drain: 'high' }),
      { drain: 'low' },
      [
        'nearly',
        'This is a low-drain cell, but the movement needs a high-drain cell. Its voltage drops under light, alarm or chronograph.',
      ],
    ],
    [
      'an open drain where much is drawn',
      wanted({ drain: 'high' }),
      { drain: 'unstated' },
      [
        'nearly',
        'This name does not say whether the cell is for low or high drain. The movement needs a high-drain cell: use a cell whose name ends in W.',
      ],
    ],
    [
      'high drain where it is wanted',
      wanted({ drain: 'high' }),
      { drain: 'high' },
      ['equal', 'SR621SW is the cell this movement takes.'],
    ],
    [
      'where no drain matters',
      wanted({ drain: 'none' }),
      { drain: 'unstated' },
      ['equal', 'SR621SW is the cell this movement takes.'],
    ],
    [
      'a weaker lithium cell',
      wanted({ chemistry: 'lithium', drain: 'none' }),
      { code: 'BR9', chemistry: 'lithium' },
      ['accepted', 'BR is a lithium cell of the same voltage, weaker under light or alarm than CR.'],
    ],
    [
      'a weaker lithium cell where much is drawn',
      wanted({ chemistry: 'lithium', drain: 'high' }),
      { code: 'BR9', chemistry: 'lithium', drain: 'none' },
      ['nearly', 'BR is a lithium cell of the same voltage, weaker under light or alarm than CR.'],
    ],
    [
      'a worse reason after a better one',
      wanted({ drain: 'high' }),
      { drain: 'low', diameterMm: 7 },
      [
        'never',
        SIZE,
        'This is a low-drain cell, but the movement needs a high-drain cell. Its voltage drops under light, alarm or chronograph.',
      ],
    ],
  ])('%s', (_, place, own, [verdict, ...reasons]) => {
    const cross = crossReference(place, { ...cell, ...own });
    expect([cross.verdict, ...cross.reasons]).toEqual([verdict, ...reasons]);
  });

  it('an alkaline cell goes in only on the owner’s word, and nobody’s word stands by itself', () => {
    const alkaline = { ...cell, chemistry: 'alkaline', drain: 'none' } as const;
    const without = crossReference(wanted(), alkaline);
    expect([without.verdict, without.reasons]).toEqual([
      'nearly',
      [
        'Alkaline instead of silver oxide: its voltage falls steadily, its life is shorter, and it is more likely to leak. Only with the owner’s agreement.',
      ],
    ]);
    const agreed = crossReference(wanted(), alkaline, { alkalineAgreed: true });
    expect([agreed.verdict, agreed.reasons]).toEqual([
      'accepted',
      [
        'Alkaline instead of silver oxide, agreed by the owner. Its voltage falls steadily, its life is shorter, and it is more likely to leak.',
      ],
    ]);
  });

  it.each<readonly [string, CellWanted, Partial<CellType>, readonly string[]]>([
    [
      'mercury',
      wanted({ chemistry: 'mercury' }),
      { chemistry: 'mercury' },
      ['Mercury cells are withdrawn and hazardous waste. Never refit one.'],
    ],
    [
      'mercury for silver oxide',
      wanted(),
      { chemistry: 'mercury' },
      ['Mercury cells are withdrawn and hazardous waste. Never refit one.'],
    ],
    [
      'zinc-air',
      wanted({ chemistry: 'zinc-air' }),
      { chemistry: 'zinc-air' },
      ['Zinc-air cells need air and are not made for watches.'],
    ],
    [
      'an accumulator in a primary place',
      wanted({ chemistry: 'accumulator' }),
      { chemistry: 'accumulator' },
      ['This place takes a primary cell. An accumulator has another voltage and runs down within months.'],
    ],
    [
      'a primary cell in a rechargeable place',
      wanted({ place: 'rechargeable' }),
      {},
      ['This place is for an accumulator. A primary cell under charge can burst.'],
    ],
    [
      'of twice the voltage',
      wanted(),
      { nominalV: 3 },
      ['3 V instead of 1.55 V. Never fit it, even if the size is equal.'],
    ],
    ['of another chemistry', wanted(), { chemistry: 'lithium' }, ['lithium instead of silver oxide.']],
    [
      'silver oxide where lithium is wanted',
      wanted({ chemistry: 'lithium' }),
      {},
      ['silver oxide instead of lithium.'],
    ],
    [
      'alkaline where lithium is wanted',
      wanted({ chemistry: 'lithium', drain: 'none' }),
      { chemistry: 'alkaline' },
      ['alkaline instead of lithium.'],
    ],
    [
      'lithium where alkaline is wanted',
      wanted({ chemistry: 'alkaline' }),
      { chemistry: 'lithium' },
      ['lithium instead of alkaline.'],
    ],
  ])('never: %s', (_, place, own, reasons) => {
    const cross = crossReference(place, { ...cell, ...own });
    expect([cross.verdict, cross.reasons, mayBeFitted(cross.verdict)]).toEqual(['never', reasons, false]);
  });

  it('never is the whole reason of another chemistry: nothing is said of it beside a worse one', () => {
    const { reasons } = crossReference(wanted(), { ...cell, chemistry: 'lithium', nominalV: 3 });
    expect(reasons).toEqual(['3 V instead of 1.55 V. Never fit it, even if the size is equal.']);
  });

  it('is fitted where it is equal or accepted, and nowhere else', () => {
    expect((['equal', 'accepted', 'nearly', 'never'] as const).map(mayBeFitted)).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });

  it('holds to its tolerances at both ends, by a hair', () => {
    const of = (own: Partial<CellType>, place: Partial<CellWanted> = {}) =>
      crossReference(wanted(place), { ...cell, ...own }).verdict;
    // 0.1 V apart is still the same voltage; sizes are the same up to 0.1 mm.
    expect([of({ nominalV: 1.65 }, { nominalV: 1.56 }), of({ nominalV: 1.66 }, { nominalV: 1.55 })]).toEqual([
      'equal',
      'never',
    ]);
    expect([
      of({ heightMm: 2.25 }),
      of({ heightMm: 2.05 }),
      of({ heightMm: 2.26 }),
      of({ heightMm: 2.04 }),
    ]).toEqual(['equal', 'equal', 'never', 'never']);
    // Nearest of several heights, whichever comes first.
    const heights = { otherHeightsMm: [1.65, 1.2] };
    expect([
      of({ heightMm: 1.2 }, heights),
      of({ heightMm: 1.65 }, heights),
      of({ heightMm: 1.4 }, heights),
    ]).toEqual(['accepted', 'accepted', 'never']);
  });

  it('speaks of high drain of silver oxide alone, and of BR in a lithium place alone', () => {
    const silent = (own: Partial<CellType>, place: Partial<CellWanted>) =>
      crossReference(wanted(place), { ...cell, ...own }).reasons.join(' ');
    expect(silent({ drain: 'high', chemistry: 'alkaline' }, { chemistry: 'alkaline' })).not.toContain(
      'High drain',
    );
    expect(silent({ code: 'BR9' }, {})).not.toContain('BR is');
    expect(silent({ chemistry: 'lithium' }, { chemistry: 'lithium', drain: 'none' })).not.toContain('BR is');
  });

  it.each([{ diameterMm: null }, { heightMm: null }])('not known to fit, so not to be fitted: %p', (own) => {
    const { verdict } = crossReference(wanted(), { ...cell, ...own });
    expect([verdict, mayBeFitted(verdict)]).toEqual(['nearly', false]);
  });

  it('says that a size is not known, and shows its rules and sources', () => {
    expect(crossReference(wanted(), { ...cell, heightMm: null }).reasons).toEqual([
      'The size of SR621SW is not known. Measure it first.',
    ]);
    expect(crossReference(wanted(), { ...cell, drain: 'high' }).working).toEqual([
      {
        what: 'nominal voltage',
        rule: 'other voltage at equal size: never',
        figures: 'wanted 1.55 V, this 1.55 V',
        source: 'IEC 60086-3',
      },
      {
        what: 'size',
        rule: 'diameter within 0.1 mm, height within 0.1 mm',
        figures: 'wanted 6.8 × 2.15 mm, this 6.8 × 2.15 mm',
        source: 'IEC 60086-3',
      },
      {
        what: 'drain',
        rule: 'high drain in a low-drain place: accepted; low drain in a high-drain place: no',
        figures: 'wanted low, this high',
        source: 'trade practice',
      },
    ]);
    const drains = (wantedDrain: CellWanted['drain'], drain: CellType['drain']) =>
      crossReference(wanted({ drain: wantedDrain }), { ...cell, drain }).working.some(
        ({ what }) => what === 'drain',
      );
    expect([drains('none', 'low'), drains('low', 'none'), drains('none', 'none')]).toEqual([
      false,
      false,
      false,
    ]);
  });

  it('shows sizes and drains in its working', () => {
    const figures = crossReference(wanted(), { ...cell, drain: 'high' }).working.map(
      ({ what, figures: answer }) => [what, answer],
    );
    expect(figures).toContainEqual(['size', 'wanted 6.8 × 2.15 mm, this 6.8 × 2.15 mm']);
    expect(figures).toContainEqual(['drain', 'wanted low, this high']);
  });
});

describe('what a named cell makes a movement want', () => {
  it('is nothing without a size', () => {
    expect(wantedFromType({ ...cell, diameterMm: null }, { drain: 'low' })).toBeNull();
    expect(wantedFromType({ ...cell, heightMm: null }, { drain: 'low' })).toBeNull();
    expect(wantedFromType(cell, { drain: 'low' })?.otherHeightsMm).toEqual([]);
  });
  it('asks no drain of lithium where little is drawn, and charges only an accumulator', () => {
    const lithium = { ...cell, chemistry: 'lithium' } as const;
    const open = { ...lithium, drain: 'none' } as const;
    expect(wantedFromType(open, { drain: 'low' })?.drain).toBe('none');
    expect(wantedFromType(open, { drain: 'high' })?.drain).toBe('high');
    expect(wantedFromType(cell, { drain: 'low', otherHeightsMm: [1.65] })).toMatchObject({
      drain: 'low',
      place: 'primary',
      otherHeightsMm: [1.65],
    });
    expect(wantedFromType({ ...cell, chemistry: 'accumulator' }, { drain: 'low' })?.place).toBe(
      'rechargeable',
    );
  });

  it('asks the drain its maker chose, whatever draws on it, and so the cell named is always equal', () => {
    for (const drain of ['low', 'high'] as const)
      for (const needed of ['low', 'high', 'none'] as const) {
        const named = { ...cell, drain };
        const place = wantedFromType(named, { drain: needed });
        if (!place) throw new Error('a size wanted');
        expect([drain, needed, crossReference(place, named).verdict]).toEqual([drain, needed, 'equal']);
        // A name of the other drain is never called the same.
        const other = crossReference(place, { ...cell, drain: drain === 'low' ? 'high' : 'low' }).verdict;
        expect(other).toBe(drain === 'low' ? 'accepted' : 'nearly');
      }
    expect(wantedFromType({ ...cell, drain: 'unstated' }, { drain: 'high' })?.drain).toBe('high');
    expect(wantedFromType({ ...cell, drain: 'both' }, { drain: 'low' })?.drain).toBe('low');
  });
});
