import { PARTS, partNamedIn, PROVED_BY, SERVED, serves } from './parts';

describe('what a part serves', () => {
  it.each(PARTS)('a %s serves what can be proved', (part) => {
    for (const each of serves(part)) {
      expect(SERVED).toContain(each);
      expect(PROVED_BY[each].length).toBeGreaterThan(5);
    }
  });
});

describe('the part a request names', () => {
  it.each(PARTS)('%s by itself, in the plural, and with its size', (part) => {
    for (const words of [part, `${part}s`, `${part} 18 mm`, `New ${part.toUpperCase()}`, `4 × ${part}`])
      expect(partNamedIn(words)).toBe(part);
  });

  it.each([
    ['spring bar 18 mm', 'spring bar'],
    ['buzzer spring', 'buzzer spring'],
    ['movement ring', 'movement ring'],
    ['inner cover', 'inner cover'],
    ['case back gasket', 'gasket'],
    ['screw for the back plate', 'screw'],
    ['gasket 30.5 × 0.70 (back)', 'gasket'],
    ['spring with cover', 'spring'],
    ['spring-bar, 18 mm', 'spring bar'],
    ['spring  bar 18mm', 'spring bar'],
    ['movement holder', null],
    ['back seal 30.5 mm', null],
    ['spring loaded pin', null],
    ['crystal', null],
    ['springboard', null],
    ['', null],
  ] as const)('“%s” is %s', (words, part) => {
    expect(partNamedIn(words)).toBe(part);
  });
});
