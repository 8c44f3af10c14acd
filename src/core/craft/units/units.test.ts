import fc from 'fast-check';
import { formatLignes, LIGNE_MM, mmFromLignes } from './lignes';
import { readQuantity, readSize } from './readQuantity';
const read = (text: string, quantity: Parameters<typeof readQuantity>[1] = 'lengthMm') =>
  readQuantity(text, quantity);

describe('readQuantity', () => {
  it.each([
    ['14,20', 14.2],
    ['14.20 mm', 14.2],
    ['+0014.20', 14.2],
    ['.5', 0.5],
    ['1.5 cm', 15],
    ['0.5 in', 12.7],
    ['1"', 25.4],
    ['10½‴', 10.5 * LIGNE_MM],
    ['10 1/2 lignes', 10.5 * LIGNE_MM],
    ['6¾ ligne', 6.75 * LIGNE_MM],
    ['½‴', 0.5 * LIGNE_MM],
    ['1/2 lignes', 0.5 * LIGNE_MM],
    ['3/4‴', 0.75 * LIGNE_MM],
    ['−0.3', -0.3],
  ])('understands %s', (text, wanted) => {
    const reading = read(text);
    expect(reading.verdict).toBe('read');
    if (reading.verdict === 'read') expect(reading.value).toBeCloseTo(wanted, 9);
  });

  it('says what it understood, in the unit it keeps', () => {
    expect(read('1540 mV', 'voltageV')).toMatchObject({ value: 1.54, understood: '1.54 V' });
    expect(read('980 nA', 'currentUA')).toMatchObject({ value: 0.98, understood: '0.98 µA' });
    expect(read('2 min', 'durationS')).toMatchObject({ value: 120 });
  });

  it.each(['', 'abc', '1.2.3', '12 14', '--4', 'mm', '3 furlongs', '1/0', '4 1/0'])(
    'refuses “%s” with a reason and an example',
    (text) => {
      const reading = read(text);
      expect(reading.verdict).toBe('not read');
      if (reading.verdict === 'not read') {
        expect(reading.reason).not.toBe('');
        expect(reading.example).toBe('14.20');
      }
    },
  );

  it('reads back every figure a caliper can show, with comma or point', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 15_000 }),
        fc.constantFrom('.', ','),
        fc.constantFrom('', '+', '+00'),
        (hundredths, mark, sign) => {
          const text = `${sign}${(hundredths / 100).toFixed(2).replace('.', mark)}`;
          const reading = read(text);
          return reading.verdict === 'read' && Math.abs(reading.value - hundredths / 100) < 1e-9;
        },
      ),
    );
  });

  it('never gives a figure that is not finite', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const reading = read(text);
        return reading.verdict === 'not read' || Number.isFinite(reading.value);
      }),
    );
  });
});

describe('lignes', () => {
  it('speaks sizes in quarters', () => {
    expect(formatLignes(23.7)).toBe('10½‴');
    expect(formatLignes(mmFromLignes(6.75))).toBe('6¾‴');
    expect(formatLignes(mmFromLignes(11))).toBe('11‴');
    expect(formatLignes(0.6)).toBe('¼‴');
  });
});

describe('sizes and open ends', () => {
  it('takes lignes as good to half a quarter, a caliper as it stands', () => {
    expect(readSize('23,31')).toEqual({ mm: 23.31, withinMm: 0 });
    const lignes = readSize('10½ lignes');
    expect(lignes?.mm).toBeCloseTo(10.5 * LIGNE_MM, 9);
    expect(lignes?.withinMm).toBeCloseTo(LIGNE_MM / 8, 9);
    expect(readSize('wide')).toBeNull();
  });
  it.each(['∞', 'OL', 'o.l.', 'open', '∞ kΩ'])('takes %s for a coil nothing goes through', (text) => {
    expect(readQuantity(text, 'resistanceKOhm')).toMatchObject({ verdict: 'read', value: 10_000 });
    expect(readQuantity(text, 'voltageV').verdict).toBe('not read');
  });
});
describe('a water rating', () => {
  it.each([
    ['3', 3],
    ['50 m', 5],
    ['100m', 10],
    ['200 metres', 20],
    ['3 atm', 3],
    ['100 ft', 3],
    ['330 feet', 10],
    ['165 ft', 5],
    ['1000 kPa', 10],
  ])('%s is %d bar', (text, bar) => {
    expect(readQuantity(text, 'ratingBar')).toMatchObject({ verdict: 'read', value: bar });
  });
  it('is no depth in fathoms', () => {
    expect(readQuantity('30 fathoms', 'ratingBar').verdict).toBe('not read');
  });
});
