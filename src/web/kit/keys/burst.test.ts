import fc from 'fast-check';
import { BurstReader, DEVICE_GAP_MS, settleMs } from './burst';

function type(reader: BurstReader, text: string, gapMs: number, startMs = 0) {
  return [...text].flatMap((key, index) => reader.press(key, startMs + index * gapMs));
}

describe('telling a device from a hand', () => {
  it('takes keys far apart as single keys of a hand', () => {
    const reader = new BurstReader();
    expect(type(reader, 'num', 120)).toEqual([
      { from: 'hand', key: 'n' },
      { from: 'hand', key: 'u' },
    ]);
    expect(reader.end()).toEqual([{ from: 'hand', key: 'm' }]);
    expect(reader.end()).toEqual([]);
  });

  it('takes keys close together as what a device typed', () => {
    const reader = new BurstReader();
    expect(type(reader, '+0014.20', 4)).toEqual([]);
    expect(reader.looksLikeDevice).toBe(true);
    expect(reader.end()).toEqual([{ from: 'device', text: '+0014.20' }]);
  });

  it('parts a hand’s key from the burst that follows it', () => {
    const reader = new BurstReader();
    reader.press('m', 0);
    expect(type(reader, 'T0042-3', 5, 400)).toEqual([{ from: 'hand', key: 'm' }]);
    expect(reader.end()).toEqual([{ from: 'device', text: 'T0042-3' }]);
  });

  it('joins a first key that was handed over ahead of the rest, however late the rest comes', () => {
    const reader = new BurstReader();
    reader.press('(', 100);
    expect(reader.settle()).toEqual([{ from: 'hand', key: '(' }]);
    expect(type(reader, '240)X', 4, 104)).toEqual([]);
    expect(reader.end()).toEqual([{ from: 'device', text: '(240)X' }]);
  });

  it('joins nothing that was pressed apart, ended by Enter, or acted on already as a burst', () => {
    const apart = new BurstReader();
    apart.press('m', 0);
    apart.settle();
    apart.press('1', DEVICE_GAP_MS);
    expect(apart.end()).toEqual([{ from: 'hand', key: '1' }]);
    const entered = new BurstReader();
    entered.press('7', 0);
    entered.end();
    entered.press('8', 4);
    expect(entered.end()).toEqual([{ from: 'hand', key: '8' }]);
    const burst = new BurstReader();
    type(burst, '14', 4);
    burst.settle();
    burst.press('2', 8);
    expect(burst.end()).toEqual([{ from: 'hand', key: '2' }]);
  });

  it('waits longer for a digit than for a letter, longest in a burst, and always longer than a device takes', () => {
    const waits = [settleMs('m', false), settleMs('1', false), settleMs('m', true)];
    expect(waits).toEqual(waits.toSorted((a, b) => a - b));
    expect(new Set(waits).size).toBe(3);
    expect(Math.min(...waits)).toBeGreaterThan(DEVICE_GAP_MS);
  });

  it('loses no key and invents none, whatever the gaps', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...'abc123'), fc.integer({ min: 1, max: 200 })), { minLength: 1 }),
        (keys) => {
          const reader = new BurstReader();
          let at = 0;
          const runs = keys.flatMap(([key, gap]) => {
            at += gap;
            return reader.press(key, at);
          });
          const answer = [...runs, ...reader.end()]
            .map((run) => (run.from === 'hand' ? run.key : run.text))
            .join('');
          const slow = keys.slice(1).every(([, gap]) => gap >= DEVICE_GAP_MS);
          return (
            answer === keys.map(([key]) => key).join('') &&
            (!slow || runs.every((run) => run.from === 'hand'))
          );
        },
      ),
    );
  });
});
