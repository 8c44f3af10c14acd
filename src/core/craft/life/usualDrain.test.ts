import { usualDrainUA } from '.';

const cell = { capacityMinMAh: 40, capacityMaxMAh: 48, diameterMm: 9.5, chemistry: 'silver-oxide' } as const;
const plain = { cell, functions: ['hands'], notLookedAt: false, cells: 1 } as const;

it('takes the capacity over the months a cell usually lasts in such a movement', () => {
  // 44 mAh over 40 months of 730.5 hours.
  expect(usualDrainUA(plain)).toBeCloseTo(44_000 / (40 * 730.5), 2);
  expect(usualDrainUA({ ...plain, functions: ['hands', 'seconds hand'] })).toBeCloseTo(
    44_000 / (30 * 730.5),
    2,
  );
});

it('takes the shortest of what may be there where nobody looked, and of what several cells may feed', () => {
  const plainUA = usualDrainUA(plain) ?? 0;
  expect(usualDrainUA({ ...plain, notLookedAt: true })).toBeGreaterThan(plainUA);
  expect(usualDrainUA({ ...plain, cells: 2 })).toBeGreaterThan(plainUA);
  expect(usualDrainUA({ ...plain, functions: ['hands', 'light'] })).toBeGreaterThan(plainUA);
});

it('says nothing of a cell without a capacity', () => {
  expect(usualDrainUA({ ...plain, cell: { ...cell, capacityMinMAh: null } })).toBeNull();
  expect(usualDrainUA({ ...plain, cell: { ...cell, capacityMaxMAh: Number.NaN } })).toBeNull();
});
