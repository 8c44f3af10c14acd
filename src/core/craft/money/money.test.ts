import fc from 'fast-check';
import { amount, money } from './money';

describe('money', () => {
  it.each([
    [1405, 'EUR', '14.05 EUR'],
    [0, 'EUR', '0.00 EUR'],
    [-250, 'EUR', '−2.50 EUR'],
    [123_456_789, 'CHF', '1234567.89 CHF'],
    [1400, 'JPY', '1400 JPY'],
    [1400, 'KWD', '1.400 KWD'],
  ])('%i minor units of %s are %s', (minor, currency, words) => {
    expect(money(minor, currency)).toBe(words);
  });

  it('loses no minor unit, whatever the sum', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000_000 }), (minor) => {
        expect(Number(amount(minor).replace('.', ''))).toBe(minor);
      }),
    );
  });
});
