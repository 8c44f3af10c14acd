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
const SIZE = 'Diameter 7 mm where 6.8 mm is wanted: it will not sit in the well.';

describe('a cross-reference, word for word', () => {
  it.each<readonly [string, CellWanted, Partial<CellType>, Told]>([
    ['the cell itself', wanted(), {}, ['equal', 'SR621SW is the cell the movement wants.']],
    ['another name of it', wanted(), { code: 'X9' }, ['equal', 'X9 is SR621SW under another name.']],
    [
      'a diameter at the end of its play',
      wanted(),
      { diameterMm: 6.9 },
      ['equal', 'SR621SW is the cell the movement wants.'],
    ],
    ['a diameter over it', wanted(), { diameterMm: 7 }, ['never', SIZE]],
    [
      'too thick',
      wanted(),
      { heightMm: 2.6 },
      ['never', '0.45 mm too thick: it strains the contacts and the back.'],
    ],
    ['too thin', wanted(), { heightMm: 1.65 }, ['never', '0.5 mm too thin: it loses contact.']],
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
      ['never', '0.4 mm too thin: it loses contact.'],
    ],
    [
      'silver oxide for alkaline',
      wanted({ chemistry: 'alkaline' }),
      {},
      ['accepted', 'Silver oxide for alkaline: steadier voltage, longer life.'],
    ],
    [
      'high drain in a low place',
      wanted(),
      { drain: 'high' },
      ['accepted', 'High drain in a low-drain place: works, with a shorter shelf life.'],
    ],
    [
      'a name that leaves the drain open',
      wanted(),
      { drain: 'unstated' },
      ['accepted', 'The name leaves the drain open; a low-drain place takes either.'],
    ],
    [
      'low drain where much is drawn',
      wanted({ drain: 'high' }),
      { drain: 'low' },
      ['nearly', 'Low drain where light, alarm or chronograph draw: the voltage falls away under them.'],
    ],
    [
      'an open drain where much is drawn',
      wanted({ drain: 'high' }),
      { drain: 'unstated' },
      [
        'nearly',
        'The name leaves the drain open, and this movement needs high drain. Find the name ending in W.',
      ],
    ],
    [
      'high drain where it is wanted',
      wanted({ drain: 'high' }),
      { drain: 'high' },
      ['equal', 'SR621SW is the cell the movement wants.'],
    ],
    [
      'where no drain matters',
      wanted({ drain: 'none' }),
      { drain: 'unstated' },
      ['equal', 'SR621SW is the cell the movement wants.'],
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
      ['never', SIZE, 'Low drain where light, alarm or chronograph draw: the voltage falls away under them.'],
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
        'Alkaline for silver oxide: its voltage slopes, it ends sooner and is likelier to leak. Only on the customer’s word.',
      ],
    ]);
    const agreed = crossReference(wanted(), alkaline, { alkalineAgreed: true });
    expect([agreed.verdict, agreed.reasons]).toEqual([
      'accepted',
      [
        'Alkaline for silver oxide, on the customer’s word: its voltage slopes, it ends sooner and is likelier to leak.',
      ],
    ]);
  });

  it.each([
    ['mercury', { chemistry: 'mercury' }],
    ['zinc-air', { chemistry: 'zinc-air' }],
    ['an accumulator', { chemistry: 'accumulator' }],
    ['of twice the voltage', { nominalV: 3 }],
    ['of another chemistry', { chemistry: 'lithium' }],
  ] as const)('never: %s', (_, own) => {
    expect(crossReference(wanted(), { ...cell, ...own }).verdict).toBe('never');
  });

  it.each([{ diameterMm: null }, { heightMm: null }])('not known to fit, so not to be fitted: %p', (own) => {
    const { verdict } = crossReference(wanted(), { ...cell, ...own });
    expect([verdict, mayBeFitted(verdict)]).toEqual(['nearly', false]);
  });

  it('shows sizes and drains in its working', () => {
    const figures = crossReference(wanted(), { ...cell, drain: 'high' }).working.map(
      ({ what, figures: told }) => [what, told],
    );
    expect(figures).toContainEqual(['size', 'wanted 6.8 × 2.15 mm, this 6.8 × 2.15 mm']);
    expect(figures).toContainEqual(['drain', 'wanted low, this high']);
  });
});

describe('what a named cell makes a movement want', () => {
  it('is nothing without a size', () => {
    expect(wantedFromType({ ...cell, diameterMm: null }, { drain: 'low' })).toBeNull();
    expect(wantedFromType({ ...cell, heightMm: null }, { drain: 'low' })).toBeNull();
  });
  it('asks no drain of lithium where little is drawn, and charges only an accumulator', () => {
    const lithium = { ...cell, chemistry: 'lithium' } as const;
    expect(wantedFromType(lithium, { drain: 'low' })?.drain).toBe('none');
    expect(wantedFromType(lithium, { drain: 'high' })?.drain).toBe('high');
    expect(wantedFromType(cell, { drain: 'low', otherHeightsMm: [1.65] })).toMatchObject({
      drain: 'low',
      place: 'primary',
      otherHeightsMm: [1.65],
    });
    expect(wantedFromType({ ...cell, chemistry: 'accumulator' }, { drain: 'low' })?.place).toBe(
      'rechargeable',
    );
  });
});
