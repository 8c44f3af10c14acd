import { PARTS, PROVED_BY, SERVED, serves } from './parts';
describe('what a part serves', () => {
  it.each(PARTS)('a %s serves what can be proved', (part) => {
    for (const each of serves(part)) {
      expect(SERVED).toContain(each);
      expect(PROVED_BY[each].length).toBeGreaterThan(5);
    }
  });
});
