import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import { readCellMarking } from './readCellMarking';
import type { CellType } from './types';
const read = (marking: string) => readCellMarking(marking, book.cellTable);

function cellOf(marking: string): CellType {
  const reading = read(marking);
  if (reading.verdict !== 'read')
    throw new Error(`${marking}: ${reading.verdict}: ${reading.reasons.join(' ')}`);
  return reading.cell;
}

const everyName = [...book.cellTable.byName.entries()];

describe('readCellMarking over the whole table', () => {
  it('holds all forty-nine sizes', () => {
    expect(book.cells).toHaveLength(49);
    expect(everyName.length).toBeGreaterThan(180);
  });

  it.each(everyName)('reads %s', (name, type) => {
    const cell = cellOf(name);
    expect(cell).toMatchObject({
      chemistry: type.chemistry,
      diameterMm: type.diameterMm,
      heightMm: type.heightMm,
      drain: type.drain,
    });
  });

  it('reads every name in lower case, spaced and dashed anywhere', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...everyName),
        fc.array(fc.constantFrom('', ' ', '-'), { minLength: 12, maxLength: 12 }),
        fc.boolean(),
        ([name, type], gaps, lower) => {
          const spelled = [...name]
            .map((character, index) => (index > 0 ? (gaps[index % gaps.length] ?? '') : '') + character)
            .join('');
          const reading = read(lower ? spelled.toLowerCase() : spelled);
          // Spacing may make two names of one: never another cell, at worst a question.
          if (reading.verdict !== 'read')
            return (
              reading.verdict === 'ambiguous' || reading.verdict === 'asks' || reading.verdict === 'not read'
            );
          return reading.cell.diameterMm === type.diameterMm && reading.cell.heightMm === type.heightMm;
        },
      ),
      { numRuns: 500 },
    );
  });

  it('reads a letter O among the digits as a nought', () => {
    fc.assert(
      fc.property(fc.constantFrom(...everyName.filter(([name]) => name.includes('0'))), ([name, type]) => {
        const cell = cellOf(name.replaceAll('0', 'O'));
        return (
          cell.diameterMm === type.diameterMm &&
          cell.heightMm === type.heightMm &&
          cell.chemistry === type.chemistry
        );
      }),
    );
  });
});

describe('several names on one label', () => {
  it('joins names of one size: low and high drain together are both', () => {
    expect(cellOf('397/396')).toMatchObject({ diameterMm: 7.9, heightMm: 2.6, drain: 'both' });
    expect(cellOf('SR 726 SW (397)')).toMatchObject({ code: 'SR726SW', drain: 'low' });
    expect(cellOf('377 SR626SW 1.55V')).toMatchObject({ code: 'SR626SW' });
    expect(cellOf('SILVER OXIDE BATTERY 371')).toMatchObject({ code: 'SR920SW' });
  });

  it('takes a letter before a number as a maker’s sign and says so', () => {
    const reading = read('V364');
    expect(reading).toMatchObject({ verdict: 'read', cell: { code: 'SR621SW' } });
    expect(reading.reasons.join(' ')).toContain('maker’s sign');
  });

  it.each([
    ['364/371', 'size'],
    ['SR927/CR927', 'chemistry'],
    ['364 AG1', 'chemistry'],
  ])('asks when the names of “%s” disagree in %s', (marking, what) => {
    const reading = read(marking);
    expect(reading.verdict).toBe('ambiguous');
    expect(reading.reasons.join(' ')).toContain(what);
    if (reading.verdict === 'ambiguous') expect(reading.alternatives.length).toBeGreaterThan(1);
  });

  it('asks when the printed voltage contradicts the name', () => {
    expect(read('CR2016 1.55V').verdict).toBe('ambiguous');
  });
});

describe('names that are not in the table', () => {
  it('works the size out from the name', () => {
    expect(read('SR610SW')).toMatchObject({
      verdict: 'read',
      sure: 'size from the name',
      cell: { diameterMm: 6.8, heightMm: 1.0, capacityMinMAh: null },
    });
    expect(read('CR1130')).toMatchObject({ cell: { diameterMm: 11.6, heightMm: 3.0, nominalV: 3 } });
  });

  it('finds the row of the table a size name spells', () => {
    expect(cellOf('LR1154')).toMatchObject({
      chemistry: 'alkaline',
      diameterMm: 11.6,
      heightMm: 5.4,
      inTable: true,
    });
    expect(cellOf('LR54')).toMatchObject({ chemistry: 'alkaline', diameterMm: 11.6, heightMm: 3.05 });
    expect(cellOf('364A')).toMatchObject({ chemistry: 'alkaline', diameterMm: 6.8, capacityEstimated: true });
    expect(cellOf('SR1116')).toMatchObject({ diameterMm: 11.6, heightMm: 1.65, drain: 'unstated' });
  });

  it.each(['SR47', 'CR44', 'BR60', 'MR55', 'SR56SW', 'LR99'])(
    'never works a two-digit name out, and asks with its neighbours: %s',
    (marking) => {
      const reading = read(marking);
      expect(reading.verdict).toBe('asks');
      expect(reading.verdict === 'asks' && reading.near.length).toBeGreaterThan(0);
    },
  );

  it.each([
    ['SR626SW 1,55V', 'SR626SW'],
    ['SR626SW 1.55 V', 'SR626SW'],
    ['1,55 V SR 626 SW', 'SR626SW'],
    ['SR626SW 1,55', 'SR626SW'],
    ['CR2032 3 volts', 'CR2032'],
    ['364 SWISS MADE', 'SR621SW'],
    ['SR626SW Made in Japan', 'SR626SW'],
    ['Kettlebrand SR-626-SW Hong Kong', 'SR626SW'],
    ['CR2032 lithium cell 3V CHINA', 'CR2032'],
  ])('a voltage, a maker or a country hides no name: %s', (marking, code) => {
    expect(cellOf(marking).code).toBe(code);
  });

  it('a word before a bare number may be its prefix, and words alone name nothing', () => {
    expect(read('XYZ 364').verdict).toBe('asks');
    expect(read('LIR 2032 3,6V').verdict).toBe('rechargeable');
    expect(read('SWISS MADE').verdict).toBe('not read');
    expect(read('1,55 V').verdict).toBe('not read');
    expect(read('CR2032 1,55V').verdict).toBe('ambiguous');
  });

  it('knows a mercury cell by its size number', () => {
    expect(cellOf('MR44')).toMatchObject({
      chemistry: 'mercury',
      nominalV: 1.35,
      diameterMm: 11.6,
      heightMm: 5.4,
    });
  });
});

describe('what must never be read as a primary cell', () => {
  it.each(['ML2016', 'MT920', 'VL1220', 'LIR2032', 'CTL920', 'TC920S', 'ml 621', 'MT-516'])(
    '%s is rechargeable',
    (marking) => {
      expect(read(marking).verdict).toBe('rechargeable');
    },
  );

  it('never reads an unknown prefix as a cell', () => {
    const known = new Set(['SR', 'LR', 'CR', 'BR', 'MR', 'PR', 'AG']);
    const rechargeable = new Set(['ML', 'MT', 'VL', 'LIR', 'CTL', 'TC']);
    const prefix = fc
      .array(fc.constantFrom(...'BCDEFGHJKLMNPQRSTUVWXYZ'), { minLength: 2, maxLength: 3 })
      .map((letters) => letters.join(''))
      .filter((letters) => !known.has(letters) && !rechargeable.has(letters));
    fc.assert(
      fc.property(
        prefix,
        fc.constantFrom('2016', '2032', '621', '920', '1616'),
        (letters, digits) => read(letters + digits).verdict !== 'read',
      ),
    );
  });

  it.each(['', '   ', 'hello', '12', '???'])('does not read “%s”', (marking) => {
    const reading = read(marking);
    expect(reading.verdict).toBe('not read');
    expect(reading.reasons[0]).toBeTruthy();
  });
});

describe('half-legible, mistyped and unsure', () => {
  it('never reads a name with a place unread, but says what it may be', () => {
    const reading = read('SR6?1SW');
    expect(reading).toMatchObject({ verdict: 'ambiguous', names: [{ sure: 'half legible' }] });
    if (reading.verdict === 'ambiguous')
      expect(reading.alternatives.map(({ code }) => code)).toEqual(['SR621SW']);
    expect(reading.reasons.join(' ')).toContain('Measure its height');
    const several = read('37?');
    if (several.verdict !== 'ambiguous') throw new Error(several.verdict);
    expect(several.alternatives.length).toBeGreaterThan(3);
    expect(read('?L2032').reasons.join(' ')).toContain('rechargeable');
    expect(read('??').verdict).toBe('not read');
  });

  it('keeps the right cell among the alternatives, whichever places are unread', () => {
    fc.assert(
      fc.property(fc.constantFrom(...everyName), fc.nat(), ([name, type], at) => {
        const reading = read(name.slice(0, at % name.length) + '?' + name.slice((at % name.length) + 1));
        if (reading.verdict === 'not read') return name.length < 3;
        return reading.verdict === 'ambiguous' && reading.alternatives.includes(type);
      }),
    );
  });

  it('takes a half-legible name beside a legible one only where it can be the same cell', () => {
    expect(read('364 SR6?1SW')).toMatchObject({
      verdict: 'read',
      sure: 'table',
      names: [{ sure: 'table' }, { sure: 'half legible' }],
    });
    expect(read('364 SR9?7SW')).toMatchObject({ verdict: 'ambiguous' });
  });

  it('offers what a mistyped name is near to, and reads none of it', () => {
    const near = (marking: string): string[] => {
      const reading = read(marking);
      return 'near' in reading ? reading.near.map(({ code }) => code) : [];
    };
    expect(read('RS621SW').verdict).toBe('asks');
    expect(near('RS621SW')).toContain('SR621SW');
    expect(near('SR6211SW')).toContain('SR621SW');
    expect(near('CR2034')).toContain('CR2032');
    const size = read('CR2034');
    expect(size).toMatchObject({ verdict: 'read', sure: 'size from the name' });
    expect(size.reasons.join(' ')).toContain('misreading of');
    expect(near('SR621SW')).toEqual([]);
  });

  it('says of each name on a label how sure it is', () => {
    expect(read('SR726SW (397) XQ99').names).toMatchObject([
      { text: 'SR726SW', sure: 'table' },
      { text: '397', sure: 'table' },
      { text: 'XQ99', sure: 'not read' },
    ]);
  });
});
