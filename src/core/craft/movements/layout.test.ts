import { feedsByName, inFrameOf, isNearCoil } from '.';

const coil = { xMm: 10, yMm: 0, widthMm: 2, lengthMm: 8, degrees: 0 };

it('says how near a place lies to a coil, which may lie at any angle', () => {
  expect(isNearCoil(coil, 11, 4, 0)).toBe(true);
  expect(isNearCoil(coil, 11.5, 0, 0)).toBe(false);
  expect(isNearCoil(coil, 11.5, 0, 0.5)).toBe(true);
  expect(isNearCoil(coil, 10, 5, 0.5)).toBe(false);
  // Turned by a quarter, its length lies across.
  expect(isNearCoil({ ...coil, degrees: 90 }, 13.5, 0, 0)).toBe(true);
  expect(isNearCoil({ ...coil, degrees: 90 }, 10, 3.5, 0)).toBe(false);
});

it('keeps a length whatever the angle of the coil', () => {
  for (const degrees of [0, 17, 45, 90, 200]) {
    const { across, along } = inFrameOf({ degrees }, 3, 4);
    expect(Math.hypot(across, along)).toBeCloseTo(5);
  }
});

it('reads what a place for a cell feeds from its name, and no more than the name says', () => {
  expect(feedsByName('Light')).toEqual(['light']);
  expect(feedsByName('alarm and display')).toEqual(['alarm', 'digital display']);
  expect(feedsByName('second')).toEqual([]);
});
