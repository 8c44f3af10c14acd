import type { RingSize } from './groove';
import { type CaliperedRing, likeliestRings, oldRingContradictions } from './likeliestRings';

const round = (insideMm: number, sectionMm: number): { size: RingSize } => ({
  size: { profile: 'round', insideMm, sectionMm, widthMm: null, sectionWithinMm: 0.03 },
});
const flat = (insideMm: number, sectionMm: number, widthMm: number): { size: RingSize } => ({
  size: { profile: 'flat', insideMm, sectionMm, widthMm, sectionWithinMm: 0.03 },
});
const nothing: CaliperedRing = {
  insideMm: null,
  outsideMm: null,
  heightMm: null,
  widthMm: null,
  profile: null,
};
const box = [
  round(30, 0.7),
  round(30.5, 0.7),
  round(31, 0.7),
  round(30.5, 0.6),
  round(30.5, 0.8),
  flat(30.5, 0.6, 0.9),
];
const sizes = (seen: Partial<CaliperedRing>) => {
  const found = likeliestRings({ ...nothing, ...seen }, box);
  return { ...found, sizes: found.rings.map(({ ring: { size } }) => size) };
};

describe('which ring an old one was, from the caliper alone', () => {
  it('is told by inside, height and width together, round from flat', () => {
    const found = sizes({ insideMm: 30.6, heightMm: 0.6, widthMm: 0.77, profile: 'round' });
    expect(found.verdict).toBe('likeliest');
    expect(found.sizes[0]).toMatchObject({ insideMm: 30.5, sectionMm: 0.7 });
    const total = found.rings.reduce((sum, { probability }) => sum + probability, 0);
    expect(total).toBeGreaterThan(0.9);
    expect(total).toBeLessThanOrEqual(1 + 1e-9);
    expect(sizes({ insideMm: 30.55, heightMm: 0.55, widthMm: 0.93, profile: 'flat' }).sizes).toMatchObject([
      { profile: 'flat' },
    ]);
  });

  it('is told by inside and outside too, and of the section alone asks for more', () => {
    expect(sizes({ insideMm: 30.55, outsideMm: 32.0 }).sizes[0]).toMatchObject({ insideMm: 30.5 });
    const section = sizes({ heightMm: 0.6, widthMm: 0.77 });
    expect(section.sizes.every(({ sectionMm }) => sectionMm === 0.7 || sectionMm === 0.6)).toBe(true);
    expect(section.reasons.join(' ')).toContain('inside');
  });

  it('has nothing to say of nothing, and names what cannot be', () => {
    expect(likeliestRings(nothing, box).verdict).toBe('cannot say');
    expect(sizes({ insideMm: 15 }).verdict).toBe('none near');
    expect(sizes({ insideMm: 31, outsideMm: 30 })).toMatchObject({ verdict: 'cannot say' });
    expect(oldRingContradictions({ ...nothing, profile: 'round' })).toHaveLength(1);
    expect(
      oldRingContradictions({ ...nothing, insideMm: 31, outsideMm: 30, profile: 'round' })[0]?.path,
    ).toBe('outsideMm');
    expect(oldRingContradictions({ ...nothing, heightMm: 0.9, widthMm: 0.6, profile: 'flat' })).toEqual([]);
  });
});
