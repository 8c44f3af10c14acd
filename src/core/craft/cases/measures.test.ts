import { choose, typeOf } from '../../../testing/backs';
import { caseTypes } from '../../../../demo/book';
import { measuredBack } from '../../../../demo/steps';
import { differsFromBook, type MeasuredBack } from './measures';
import { contradictions } from './contradictions';
describe('measures that contradict each other', () => {
  const notched = { kind: 'screwed, notched', notchCount: 6, pitchMm: 30, notchWidthMm: 2 } as const;
  it.each([
    [{ notchCount: 1 }, 'notchCount', 'One notch'],
    [{ notchCount: 5.5 }, 'notchCount', '5.5 notches is not a valid count'],
    [{ notchCount: 1_000_000, notchWidthMm: 0.00001 }, 'notchCount', 'up to 48'],
    [
      { notchWidthMm: 16 },
      'notchWidthMm',
      '96 mm, but the circumference of a 30 mm pitch circle is only 94.25 mm',
    ],
    [{ notchCount: 2, notchWidthMm: 31 }, 'notchWidthMm', 'wider than its pitch circle'],
    [{ diameterMm: 29 }, 'pitchMm', 'is too large for a back of 29 mm'],
    [{ notchCount: 5, chordMm: 30 }, 'chordMm', 'Pitch circle 30 mm and farthest chord 30 mm contradict'],
    [{ notchClocks: [12, 2, 4] }, 'notchClocks', '6 notches were counted, but 3 clock positions'],
    [{ notchCount: 3, notchClocks: [12, 4, 4.2] }, 'notchClocks', 'overlap'],
    [{ notchCount: 3, notchClocks: [12, 4, 13] }, 'notchClocks', '13 o’clock does not exist'],
    [{ lipClock: 13 }, 'lipClock', '13 o’clock'],
    [{ pusherClocks: [0] }, 'pusherClocks', 'does not exist'],
    [{ diameterMm: 30.5, acrossMm: 31 }, 'acrossMm', 'across the flats'],
    [{ slotLengthMm: 1, slotWidthMm: 1.2 }, 'slotWidthMm', 'wider than it is long'],
    [{ kind: 'screwed, round holes', notchCount: 1 }, 'notchCount', 'One hole'],
  ] as [Partial<MeasuredBack>, string, string][])('%j', (change, path, words) => {
    const problems = contradictions({ ...notched, ...change });
    expect(problems.map((each) => each.path)).toContain(path);
    expect(problems.map((each) => each.reason).join(' ')).toContain(words);
    expect(choose({ ...notched, ...change }).verdict).toBe('impossible');
  });

  it('are found in no back of the book', () => {
    for (const type of caseTypes)
      expect([type.code, contradictions(measuredBack(type))]).toEqual([type.code, []]);
  });
});

describe('measured against the book', () => {
  const type = typeOf('C2210-1');
  const own = measuredBack(type);
  it('says nothing of what agrees, within what a hand measures', () => {
    expect(differsFromBook(own, type)).toEqual([]);
    expect(differsFromBook({ ...own, pitchMm: 29.75 }, type)).toEqual([]);
  });
  it('names each measure that differs, with both figures', () => {
    const apart = differsFromBook(
      { ...own, kind: 'snap-on', notchCount: 5, pitchMm: 30.4, coating: 'coated', lipClock: 5 },
      { ...type, lipClock: 6 },
    );
    expect(apart.map(({ field }) => field)).toEqual(['kind', 'lipClock', 'notchCount', 'pitchMm', 'coating']);
    expect(apart.at(3)?.words).toBe('Pitch circle: the book says 29.6 mm, measured 30.4 mm.');
    expect(differsFromBook(own, { ...type, back: null })).toEqual([]);
  });
  it('compares the circle that a chord gives', () => {
    const odd = typeOf('K77/15');
    const chord = { ...measuredBack(odd), pitchMm: null, chordMm: 29.48 };
    expect(differsFromBook(chord, odd)).toEqual([]);
    expect(differsFromBook({ ...chord, chordMm: 31 }, odd).map(({ field }) => field)).toEqual(['pitchMm']);
  });
});
