import { book } from '../../../testing/fixtures';
import { figuresFor } from './figures';
import { judgeLoadedVoltage, judgeRestVoltage } from './judgeReading';
import { judgeCoil, judgeCurrent, judgeLowestRunning, judgeRate } from './judgeMovement';
describe('readings', () => {
  it.each([
    [1.44, 'silver-oxide', 'spent'],
    [1.5, 'silver-oxide', 'falling'],
    [1.56, 'silver-oxide', 'good'],
    [2.69, 'lithium', 'spent'],
    [3.1, 'lithium', 'good'],
    [1.29, 'alkaline', 'spent'],
    [1.5, null, 'not judged'],
    [1.4, 'zinc-air', 'not judged'],
  ] as const)('%s V of %s is %s', (value, chemistry, verdict) => {
    expect(judgeRestVoltage(value, chemistry).verdict).toBe(verdict);
  });

  it('says that a good voltage of silver oxide almost to the end', () => {
    expect(judgeRestVoltage(1.57, 'silver-oxide').reasons[0]).toContain('almost to the end');
  });

  it('judges the sag only against thresholds of its load', () => {
    expect(judgeLoadedVoltage(1.35, 1.55, 'silver-oxide').verdict).toBe('spent');
    expect(judgeLoadedVoltage(1.45, 1.55, 'silver-oxide').verdict).toBe('good');
    expect(judgeLoadedVoltage(2.8, 3.0, 'lithium').verdict).toBe('good');
    expect(judgeLoadedVoltage(1.4, null, 'silver-oxide').verdict).toBe('not judged');
    expect(judgeLoadedVoltage(1.4, 1.5, 'alkaline').verdict).toBe('not judged');
    const at = (loadKOhm: number, seconds: number) =>
      judgeLoadedVoltage(1.35, 1.55, 'silver-oxide', { loadKOhm, seconds });
    expect(at(2, 1).verdict).toBe('spent');
    expect(at(1, 1)).toMatchObject({
      verdict: 'not judged',
      reasons: [expect.stringContaining('2 kΩ, 1 s')],
    });
    expect(at(2, 5).verdict).toBe('not judged');
  });

  it('judges the current by this movement', () => {
    const { current } = figuresFor(book.calibre('orrelin-62-3'), book);
    expect(judgeCurrent(1.6, current)).toMatchObject({
      verdict: 'good',
      reference: { whose: 'this movement', max: 2.4 },
    });
    expect(judgeCurrent(4.8, current).reasons[0]).toContain('2 times the limit');
    expect(judgeCurrent(0.1, current)).toMatchObject({
      verdict: 'too little',
      reasons: [expect.stringContaining('crown')],
    });
    expect(judgeCurrent(1.6, figuresFor(null, book).current)).toMatchObject({
      verdict: 'good',
      reference: { whose: 'general' },
    });
  });
});

describe('coil, lowest voltage and rate', () => {
  const figures = figuresFor(book.calibre('orrelin-41-2'), book);
  it.each([
    [1.8, 'good'],
    [2.3, 'good'],
    [2.4, 'suspect'],
    [1.4, 'suspect'],
    [0.7, 'shorted turns'],
    [900, 'open'],
  ] as const)('%s kΩ: %s', (value, verdict) => {
    expect(judgeCoil(value, figures.coil).verdict).toBe(verdict);
  });
  it('has nothing to say of a coil where by the book there is none', () => {
    const { coil } = figuresFor(book.calibre('dunmarrow-07-2'), book);
    expect(judgeCoil(1.8, coil)).toMatchObject({ verdict: 'not judged' });
  });
  it('says when it would stop too early, and when it strays', () => {
    expect(judgeLowestRunning(1.15, figures.lowest).verdict).toBe('good');
    expect(judgeLowestRunning(1.31, figures.lowest).verdict).toBe('runs too late');
    expect(judgeRate(0.5)).toMatchObject({ verdict: 'good', reasons: ['15.2 s a month.'] });
    expect(judgeRate(-1).verdict).toBe('off');
  });
});

describe('a limit, as far as an instrument can read it', () => {
  it('is not passed by a sag of exactly what is allowed, however it is reckoned', () => {
    for (const rest of [1.55, 1.56, 1.57, 1.6]) {
      const loaded = Number((rest - 0.15).toFixed(2));
      expect([rest, judgeLoadedVoltage(loaded, rest, 'silver-oxide').verdict]).toEqual([rest, 'good']);
      expect(judgeLoadedVoltage(Number((loaded - 0.01).toFixed(2)), rest, 'silver-oxide').verdict).toBe(
        'spent',
      );
    }
    expect(judgeLoadedVoltage(2.7, 3.0, 'lithium').verdict).toBe('good');
    expect(judgeLoadedVoltage(2.69, 3.0, 'lithium').verdict).toBe('spent');
  });

  it('is met, not passed, at the limit itself', () => {
    expect(judgeRestVoltage(1.45, 'silver-oxide').verdict).toBe('falling');
    expect(judgeRestVoltage(1.449, 'silver-oxide').verdict).toBe('spent');
    const { current } = figuresFor(book.calibre('orrelin-41-2'), book);
    expect(judgeCurrent(current.limitUA, current).verdict).toBe('good');
    expect(judgeCurrent(current.limitUA + 1e-9, current).verdict).toBe('good');
    expect(judgeCurrent(current.limitUA + 0.01, current).verdict).toBe('over the limit');
  });
});
