import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import { readBoxLabel } from './labels';

const TODAY = '2026-03-17';
const read = (text: string) => readBoxLabel(text, TODAY, (name) => book.cell(name) !== null);
const NOTHING = { code: null, lotCode: null, madeOn: null, bestBefore: null, count: null };

describe('what a scanner reads off a box', () => {
  it('says code, lot, days and count by their identifiers, and passes over the others', () => {
    expect(read('(01)04012345678901(240)SR621SW(10)S-6104(11)250414(17)270831(30)10')).toEqual({
      verdict: 'label',
      label: {
        code: 'SR621SW',
        lotCode: 'S-6104',
        madeOn: '2025-04-14',
        bestBefore: '2027-08-31',
        count: 10,
      },
    });
  });

  it('is a cell by its name alone; other text is no label', () => {
    expect(read('364')).toEqual({ verdict: 'label', label: { ...NOTHING, code: '364' } });
    expect(read('S-6104')).toEqual({ verdict: 'no label' });
    expect(read('')).toEqual({ verdict: 'no label' });
  });

  it.each([
    ['(15)280200', '2028-02-29'],
    ['(15)270200', '2027-02-28'],
    ['(17)751231', '2075-12-31'],
    ['(11)981101', '1998-11-01'],
  ])('%s is %s', (text, day) => {
    const reading = read(text);
    expect(reading.verdict === 'label' && (reading.label.bestBefore ?? reading.label.madeOn)).toBe(day);
  });

  it.each(['(17)271341', '(17)270230', '(17)2708', '(30)ten', '(30)', '(99)X', '(10)'])(
    '%s is told as not readable, and nothing of it is taken',
    (text) => {
      expect(read(text).verdict).toBe('not readable');
    },
  );

  it('reads back whatever is written so, in any order', () => {
    const element = fc.record({
      lotCode: fc.stringMatching(/^[A-Z0-9-]{1,12}$/),
      count: fc.integer({ min: 0, max: 99_999 }),
      bestBefore: fc.date({
        min: new Date('2000-01-01'),
        max: new Date('2060-01-01'),
        noInvalidDate: true,
      }),
    });
    fc.assert(
      fc.property(element, fc.boolean(), ({ lotCode, count, bestBefore }, turned) => {
        const day = bestBefore.toISOString().slice(0, 10);
        const parts = [`(10)${lotCode}`, `(15)${day.slice(2).replaceAll('-', '')}`, `(30)${count}`];
        expect(read((turned ? parts.reverse() : parts).join(''))).toEqual({
          verdict: 'label',
          label: { ...NOTHING, lotCode, count, bestBefore: day },
        });
      }),
    );
  });
});
