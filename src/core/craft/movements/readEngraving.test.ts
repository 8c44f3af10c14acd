import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import { areConfusable, bareCode, logLikelihood, seenProbability, symbolsOf } from './characters';
import { engravedCase, readEngraving, takenApart } from './readEngraving';
import type { EngravingReading } from './types';
type Read = Extract<EngravingReading, { verdict: 'read' }>;
function read(text: string, makerId: string | null = null): Read {
  const reading = readEngraving(text, book, makerId);
  if (reading.verdict !== 'read') throw new Error(`${text}: ${reading.verdict}`);
  return reading;
}

describe('readEngraving', () => {
  it.each(book.calibres.map((calibre) => [calibre.code, calibre.id]))('knows %s as engraved', (code, id) => {
    const reading = read(code);
    expect(reading.movements[0]).toMatchObject({ id });
    expect(reading.movements[0]?.probability).toBeGreaterThan(0.95);
  });

  it('takes movement, case and serial apart by the maker’s patterns', () => {
    const reading = read('OR 41.6 C2140-3 4471902');
    expect(reading.movements[0]).toMatchObject({ id: 'orrelin-41-6' });
    expect(reading.cases[0]).toMatchObject({ id: 'c2140-3' });
    expect(reading.serial).toBe('4471902');
  });

  it.each([
    'OR41.2-C2140-3',
    'OR41.2C2140-3',
    'OR 41.2-C2140-3',
    'C2140-3-OR41.2',
    'C21403OR412',
    'STAINLESS OR41.2C2140-3 4471902 BACK',
    'OR41.2C2140-34471902',
    '4471902OR41.2 C2140-3',
    'OR4?.2-C2140-3',
  ])('takes apart what was joined: %s', (text) => {
    const reading = read(text);
    expect(reading.movements[0]).toMatchObject({ id: 'orrelin-41-2' });
    expect(reading.cases[0]).toMatchObject({ id: 'c2140-3' });
    expect(engravedCase(text, book)?.id).toBe('c2140-3');
  });

  it('leaves what the book cannot take apart as it stands, and what is one code whole', () => {
    for (const text of ['OR 41.6 C2140-3 4471902', 'PL 9942', 'ZZZ-99X1', 'QB 15-?', ''])
      expect(bareCode(takenApart(text, book))).toBe(bareCode(text));
    for (const { code } of book.calibres) expect(takenApart(code, book)).toBe(code);
  });

  it('finds a calibre by its former number and says so', () => {
    const reading = read('OR 40.6');
    expect(reading.movements[0]).toMatchObject({ id: 'orrelin-41-6' });
    expect(reading.reasons.join(' ')).toContain('former number');
  });

  it('tells two look-alike codes apart, and says which characters it took for which', () => {
    const worn = read('PL 6?80');
    expect(worn.movements[0]).toMatchObject({ id: 'pellorane-6180' });
    expect(worn.movements[0]?.reasons).toContain('worn character taken as 1');
    expect(read('PL 61O8').movements[0]).toMatchObject({ id: 'pellorane-6108', reasons: ['O read as 0'] });
  });

  it('stays in two minds where the worn place is what tells them apart', () => {
    const reading = read('QB 15-?');
    const [first, second] = reading.movements;
    expect([first?.id, second?.id].sort()).toEqual(['quillbeck-15-1', 'quillbeck-15-7']);
    expect(first?.probability).toBeLessThan(0.6);
  });

  it('calls a code of the right pattern that no calibre has not in the book', () => {
    const reading = read('PL 9942');
    expect(reading.movementNotInBook).toBeGreaterThan(0.9);
  });

  it.each(['', '   ', '!!!'])('does not read “%s”', (text) => {
    expect(readEngraving(text, book).verdict).toBe('not read');
  });

  it('narrows to one maker when it is known', () => {
    expect(
      read('PL 6180', 'pellorane').movements.every((candidate) => candidate.makerId === 'pellorane'),
    ).toBe(true);
  });

  it('tolerates one confusable character anywhere in any code', () => {
    const confusions = book.calibres.flatMap((calibre) =>
      [...calibre.code].flatMap((character, at) =>
        [...'0123456789ABDGIOSTZ']
          .filter((twin) => areConfusable(character, twin))
          .map((twin) => ({
            id: calibre.id,
            seen: calibre.code.slice(0, at) + twin + calibre.code.slice(at + 1),
          })),
      ),
    );
    expect(confusions.length).toBeGreaterThan(40);
    const right = confusions.filter(({ id, seen }) => {
      const reading = readEngraving(seen, book);
      return (
        reading.verdict === 'read' && reading.movements.slice(0, 2).some((candidate) => candidate.id === id)
      );
    });
    expect(right).toHaveLength(confusions.length);
  });

  it('gives probabilities that make one with “not in the book”, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...'OR41.2TK70BPLQ-?8 '), { maxLength: 24 }).map((all) => all.join('')),
        (text) => {
          const reading = readEngraving(text, book);
          if (reading.verdict !== 'read') return true;
          const shown = reading.movements.reduce(
            (sum, candidate) => sum + candidate.probability,
            reading.movementNotInBook,
          );
          // Candidates under one per cent are not listed.
          return shown <= 1 + 1e-9 && shown >= 1 - 0.01 * book.calibres.length;
        },
      ),
    );
  });
});

describe('logLikelihood', () => {
  it('is best for the code itself', () => {
    fc.assert(
      fc.property(fc.constantFrom(...book.calibres), fc.constantFrom(...book.calibres), (a, b) => {
        const seen = bareCode(a.code);
        return logLikelihood(seen, seen) >= logLikelihood(seen, bareCode(b.code));
      }),
    );
  });

  it('allows for a missing and for an extra character', () => {
    const code = bareCode('PL 6180');
    expect(logLikelihood('PL680', code)).toBeGreaterThan(logLikelihood('PL999', code));
    expect(logLikelihood('PL61880', code)).toBeGreaterThan(logLikelihood('PL99999', code));
  });
});

describe('seenProbability', () => {
  const chance = (seen: string, code: string): number => seenProbability(symbolsOf(seen), symbolsOf(code));
  it('is a distribution: over every text of its length and one off, it makes nearly one', () => {
    const alphabet = [...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
    const one = alphabet.map((each) => chance(each, 'B'));
    const two = alphabet.flatMap((a) => alphabet.map((b) => chance(a + b, 'B')));
    const sum = [...one, ...two, chance('', 'B')].reduce((total, each) => total + each, 0);
    expect(sum).toBeGreaterThan(0.99);
    expect(sum).toBeLessThanOrEqual(1.01);
  });
  it('puts a twin before any other character, and what is seen right before a twin', () => {
    expect(chance('61B', '61B')).toBeGreaterThan(chance('618', '61B'));
    expect(chance('618', '61B')).toBeGreaterThan(chance('61X', '61B') * 10);
  });
  it('lets a worn place stand for any character, at no cost between codes', () => {
    expect(chance('6?80', '6180')).toBeCloseTo(chance('6?80', '6280'), 6);
  });
  it('gives nothing for another text altogether', () => {
    expect(chance('A', 'ABCDEFG')).toBe(0);
    expect(chance('A'.repeat(70), 'A'.repeat(70))).toBe(0);
  });
});

describe('the case an engraving names', () => {
  it('is named only where it is certain', () => {
    expect(engravedCase('OR 41.6 C2140-3 4471902', book)?.id).toBe('c2140-3');
    expect(engravedCase('C9999-9', book)).toBeNull();
    expect(engravedCase('', book)).toBeNull();
  });
});
