import fc from 'fast-check';
import { type MeteredQuantity, readMeterLine } from './meterLine';

const value = (line: string, quantity: MeteredQuantity): number | string => {
  const read = readMeterLine(line, quantity);
  return read.verdict === 'read' ? read.value : read.reason;
};

describe('a line of a meter', () => {
  it.each<[string, MeteredQuantity, number]>([
    ['1.552 V DC', 'voltageV', 1.552],
    ['+1.5521E+00 VDC', 'voltageV', 1.5521],
    ['DC V 1552 mV', 'voltageV', 1.552],
    ['1,552 V', 'voltageV', 1.552],
    ['-0.3 mV', 'voltageV', -0.0003],
    ['1.0423E-06 A', 'currentUA', 1.0423],
    ['1.04 µA', 'currentUA', 1.04],
    ['1.04 μA', 'currentUA', 1.04],
    ['1.04uADC', 'currentUA', 1.04],
    ['950 nA', 'currentUA', 0.95],
    ['1.2 mA', 'currentUA', 1200],
    ['1.812 kOhm', 'resistanceKOhm', 1.812],
    ['1812 Ω', 'resistanceKOhm', 1.812],
    ['1.2 MΩ', 'resistanceKOhm', 1200],
    ['O.L MΩ', 'resistanceKOhm', 10_000],
    ['+9.9E+37 OHM', 'resistanceKOhm', 10_000],
    ['5230 lx', 'illuminanceLux', 5230],
    ['5.23 klux', 'illuminanceLux', 5230],
  ])('“%s” as %s is %d', (line, quantity, wanted) => {
    expect(value(line, quantity)).toBeCloseTo(wanted, 9);
  });

  it('of something else, of alternating current, without a unit or a figure is never read', () => {
    expect(value('1.552 V DC', 'currentUA')).toBe('The meter shows V, “1.552 V DC”.');
    expect(value('1.04 µA', 'voltageV')).toContain('The meter shows A');
    expect(value('0.552 VAC', 'voltageV')).toContain('alternating');
    expect(value('0.552 V ~', 'voltageV')).toContain('alternating');
    expect(value('AC 0.552 V', 'voltageV')).toContain('alternating');
    expect(value('1.552', 'voltageV')).toContain('without a unit');
    expect(value('V DC', 'voltageV')).toContain('no figure');
    expect(value('', 'voltageV')).toContain('no figure');
    expect(value('1.552 V 0.31 V', 'voltageV')).toContain('more than one figure');
    expect(value('2026-12-01 1.552 V', 'voltageV')).toContain('more than one figure');
    expect(value('OL V', 'voltageV')).toContain('beyond the range');
    expect(value('OL', 'resistanceKOhm')).toContain('without a unit');
    expect(value('1.5 mOhm', 'resistanceKOhm')).toBe(0.0000015);
  });

  it('gives back whatever a meter writes, however it writes it, and nothing from what is no line of one', () => {
    const written = fc.record({
      value: fc.double({ min: 1e-4, max: 9_999, noNaN: true }),
      prefix: fc.constantFrom(
        ['', 1e6] as const,
        ['m', 1e3] as const,
        ['u', 1] as const,
        ['n', 1e-3] as const,
      ),
      style: fc.constantFrom('plain', 'exponent', 'comma'),
      joined: fc.boolean(),
      kind: fc.constantFrom('', 'DC', ' DC'),
    });
    fc.assert(
      fc.property(written, ({ value: shows, prefix: [prefix, factor], style, joined, kind }) => {
        const digits = style === 'exponent' ? shows.toExponential(6) : shows.toFixed(6);
        const text = style === 'comma' ? digits.replace('.', ',') : digits;
        const read = readMeterLine(`${text}${joined ? '' : ' '}${prefix}A${kind}`, 'currentUA');
        expect(read.verdict).toBe('read');
        if (read.verdict === 'read')
          expect(read.value).toBeCloseTo(Number(digits) * factor, factor > 1000 ? 0 : 6);
      }),
    );
    fc.assert(
      fc.property(fc.string(), (line) => {
        const read = readMeterLine(line, 'voltageV');
        if (read.verdict === 'read') expect(line).toMatch(/\d[^]*v|v[^]*\d/i);
      }),
    );
  });
});
