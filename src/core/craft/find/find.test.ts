import fc from 'fast-check';
import { findable, likeness, rankFound, editDistance, triples, wordLikeness } from './find';
const word = fc
  .array(fc.constantFrom(...'abcdefghiklmnoprstuvy'), { minLength: 5, maxLength: 12 })
  .map((letters) => letters.join(''));

describe('slips', () => {
  it.each([
    ['thistle', 'thistle', 0],
    ['thsitle', 'thistle', 1],
    ['thstle', 'thistle', 1],
    ['thisstle', 'thistle', 1],
    ['thixtle', 'thistle', 1],
    ['', 'abc', 3],
  ])('%s for %s: %i', (a, b, count) => {
    expect(editDistance(a, b)).toBe(count);
  });

  it('is the same both ways, and nothing only for the same word', () => {
    fc.assert(
      fc.property(
        word,
        word,
        (a, b) => editDistance(a, b) === editDistance(b, a) && (editDistance(a, b) === 0) === (a === b),
      ),
    );
  });
});

describe('likeness', () => {
  const text = 'T0042-3 Maren Oystrand 05550142 Orrelin C2140-3 4471355';

  it.each([
    'oystrand',
    'Oystr',
    'oystrnad',
    'oystrnd',
    'oistrand',
    'maren oystrand',
    '0142',
    'c2140',
    'ÓYSTRAND',
    'orelin maren',
    '4471355',
    't0042',
  ])('finds “%s”', (query) => {
    expect(likeness(query, text)).toBeGreaterThan(0);
  });

  it.each(['thistle', 'maren thistle', 'zzz', '', '9999'])('does not find “%s”', (query) => {
    expect(likeness(query, text)).toBe(0);
  });

  it('finds any word in spite of any one slip', () => {
    fc.assert(
      fc.property(word, fc.nat(), fc.constantFrom('drop', 'double', 'swap', 'wrong'), (name, at, how) => {
        const place = at % (name.length - 1);
        const letters = [...name];
        if (how === 'drop') letters.splice(place, 1);
        if (how === 'double') letters.splice(place, 0, letters[place] as string);
        if (how === 'swap')
          [letters[place], letters[place + 1]] = [letters[place + 1] as string, letters[place] as string];
        if (how === 'wrong') letters[place] = 'q';
        return likeness(letters.join(''), `T0042-3 ${name} 0555`) > 0;
      }),
    );
  });

  it('puts the exact word before its beginning, its part and its near misses', () => {
    expect(
      [...['thistle', 'thistlewick', 'underthistle', 'thisle']].map((other) =>
        wordLikeness('thistle', other),
      ),
    ).toEqual([1, 0.98, 0.95, expect.closeTo(0.857, 2)]);
    const found = rankFound(
      'thistle',
      [{ text: 'thisle' }, { text: 'thistlewick' }, { text: 'thistle' }, { text: 'other' }],
      10,
    );
    expect(found.map((each) => each.text)).toEqual(['thistle', 'thistlewick', 'thisle']);
  });
});

describe('findable', () => {
  it('leaves letters and digits, without accents or case', () => {
    expect(findable('  Čapek–Ørsted, K61/08! ')).toBe('capek ørsted k61 08');
    expect(triples('thist')).toEqual(['thi', 'his', 'ist']);
    expect(triples('ab')).toEqual([]);
  });
});
