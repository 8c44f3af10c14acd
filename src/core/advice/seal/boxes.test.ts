import { book, idOf, lot } from '../../../testing/fixtures';
import { ringBoxes, ringIsLow } from './boxes';

describe('the assortment in its boxes', () => {
  it('stands by section and then by diameter, every size once, with what is left of all its lots', () => {
    const of = (code: string, balance: number, name = code) => ({
      ...lot,
      id: idOf(name),
      item: 'gasket' as const,
      code,
      balance,
    });
    const boxes = ringBoxes(
      book,
      [of('30.5 × 0.70', 2), of('30.5 × 0.70', 3, 'second'), of('22.0 × 0.50', 4), lot],
      '2026-03-17',
    );
    const sections = boxes.map(({ sectionMm }) => sectionMm);
    expect(sections).toEqual([...sections].sort((a, b) => a - b));
    expect(new Set(sections).size).toBe(sections.length);
    const rings = boxes.flatMap((box) => box.rings);
    expect(rings.filter(({ code }) => code === '30.5 × 0.70').map(({ left }) => left)).toEqual([5]);
    expect(rings.find(({ code }) => code === '22.0 × 0.50')).toMatchObject({ left: 4, caseCodes: [] });
    for (const box of boxes) {
      const inside = box.rings.map(({ size }) => size.insideMm);
      expect(inside).toEqual([...inside].sort((a, b) => a - b));
    }
  });

  it('is ordered anew only of what a case wants', () => {
    expect(ringIsLow({ left: 2, caseCodes: ['C2140-3'] })).toBe(true);
    expect(ringIsLow({ left: 3, caseCodes: ['C2140-3'] })).toBe(false);
    expect(ringIsLow({ left: 0, caseCodes: [] })).toBe(false);
  });
});
