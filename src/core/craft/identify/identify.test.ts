import fc from 'fast-check';
import { openBook } from '../book';
import { seededUniform } from '../life';
import type { Calibre } from '../movements';
import { book } from '../../../testing/fixtures';
import { inventedCalibres, inventedMakers, observe } from '../../../testing/observations';
import { cellSizes, expectedPick } from './hypotheses';
import { compareMovements } from './compare';
import { doubtOf, nextBestLook } from './nextBestLook';
import { type Identification, standsForIt } from './identification';
import { openIdentifier } from './identifyMovement';
import { pickLikelihood } from './pieces';
import { type Look, LOOKS, type Seen } from './looks';
const identifier = openIdentifier(book, []);
const seen = (look: Look, value: string | number, withinMm = 0): Seen => ({ look, value, withinMm });
const identify = (...evidence: Seen[]): Identification => identifier.identifyMovement(evidence);
const first = (found: Identification) => {
  const [top] = found.candidates;
  if (!top) throw new Error('no candidate');
  return top;
};
const whole = ({ candidates, notInBook, others }: Identification): number =>
  candidates.reduce((sum, { probability }) => sum + probability, notInBook + others);

const anySeen: fc.Arbitrary<Seen> = fc.oneof(
  fc
    .constantFrom<Look>('mark', 'engraving', 'print')
    .chain((look) =>
      fc
        .array(fc.constantFrom(...'OR41.26PL?08 '), { minLength: 1, maxLength: 14 })
        .map((all) => seen(look, all.join(''))),
    ),
  fc.constantFrom<Look>('widthMm', 'heightMm', 'cellDiameterMm').chain((look) => {
    const spec = LOOKS[look as 'widthMm'];
    return fc.double({ min: spec.min, max: spec.max, noNaN: true }).map((mm) => seen(look, mm));
  }),
  fc
    .constantFrom<Look>('shape', 'seconds', 'date', 'coils', 'cellAt', 'heldBy', 'jewels', 'step', 'sign')
    .chain((look) => fc.constantFrom(...LOOKS[look as 'shape'].values).map((value) => seen(look, value))),
  fc.constantFrom('C2140-3', 'K61/08', 'nobody’s').map((code) => seen('caseCode', code)),
);
const oneOfEach = (all: readonly Seen[]): Seen[] => [
  ...new Map(all.map((each) => [each.look, each])).values(),
];
const anyEvidence = fc.array(anySeen, { maxLength: 9 }).map(oneOfEach);

describe('identifyMovement', () => {
  it.each(book.calibres.map(({ code, id }) => [code, id] as const))('knows %s by its mark', (code, id) => {
    expect(first(identify(seen('mark', code)))).toMatchObject({ calibreId: id });
  });

  it('gives probabilities that make one, whatever was seen', () => {
    fc.assert(
      fc.property(anyEvidence, (evidence) => {
        const found = identify(...evidence);
        expect(whole(found)).toBeCloseTo(1, 9);
        for (const { probability } of found.candidates) expect(probability).toBeGreaterThanOrEqual(0);
        expect(found.reasons.join(' ')).not.toMatch(/NaN|Infinity|undefined/);
      }),
      { numRuns: 150 },
    );
  });

  it('does not mind the order in which things were seen', () => {
    fc.assert(
      fc.property(anyEvidence, (evidence) => {
        const there = identify(...evidence);
        const back = identify(...[...evidence].reverse());
        expect(back.notInBook).toBeCloseTo(there.notInBook, 9);
        expect(back.candidates[0]?.probability).toBeCloseTo(there.candidates[0]?.probability ?? 0, 9);
      }),
      { numRuns: 60 },
    );
  });

  it('goes back to where it was when a piece is taken back', () => {
    const before = identify(seen('heldBy', 'side lever'));
    identify(seen('heldBy', 'side lever'), seen('widthMm', 12.4));
    expect(identify(seen('heldBy', 'side lever'))).toEqual(before);
  });

  it('says nothing before anything is seen, and the more often this shop saw a movement the likelier it is', () => {
    expect(identify().verdict).toBe('nothing seen');
    const often = openIdentifier(book, [
      { calibreId: 'quillbeck-15-7', revision: null, caseCode: 'Q150A', jobs: 40 },
      { calibreId: 'quillbeck-15-1', revision: null, caseCode: 'Q150A', jobs: 2 },
    ]);
    const [top, second] = often.identifyMovement([seen('mark', 'QB 15-?')]).candidates;
    expect(top?.calibreId).toBe('quillbeck-15-7');
    expect((top?.probability ?? 0) / (second?.probability ?? 1)).toBeGreaterThan(8);
    // Smoothed: what was never seen here is still possible.
    expect(first(often.identifyMovement([seen('mark', 'PL 6180')])).calibreId).toBe('pellorane-6180');
  });

  it('takes the case for evidence by what this shop found in it, and by its maker', () => {
    const shop = openIdentifier(book, [
      { calibreId: 'orrelin-62-3', revision: null, caseCode: 'C2140-3', jobs: 30 },
    ]);
    expect(first(shop.identifyMovement([seen('caseCode', 'c2140 3')])).calibreId).toBe('orrelin-62-3');
    expect(first(identify(seen('caseCode', 'K61/08'))).makerId).toBe('pellorane');
  });

  it('knows a movement by its measures alone', () => {
    const found = identify(
      seen('widthMm', 14.23),
      seen('lengthMm', 18.38),
      seen('heightMm', 2.2),
      seen('cellDiameterMm', 5.8),
    );
    expect(first(found)).toMatchObject({ calibreId: 'quillbeck-31-2' });
    expect(found.verdict).toBe('known');
  });

  it('takes a size in quarter lignes as no better than a quarter', () => {
    const caliper = identify(seen('widthMm', 19.62));
    const lignes = identify(seen('widthMm', 19.74, 0.28));
    const of = (found: Identification) => found.candidates.map(({ calibreId }) => calibreId);
    expect(of(caliper).slice(0, 2).sort()).toEqual(['quillbeck-15-1', 'quillbeck-15-7']);
    expect(of(lignes)).toContain('quillbeck-15-1');
    expect(lignes.candidates[0]?.probability).toBeLessThan(caliper.candidates[0]?.probability ?? 0);
  });

  it('tells the revisions of a calibre apart by what differs', () => {
    const open = identify(seen('mark', 'OR 41.6'));
    expect(open).toMatchObject({
      revisionOpen: true,
      reasons: [expect.stringContaining('The next check shows which one this is')],
    });
    expect(
      first(identify(seen('mark', 'OR 41.6'), seen('cellDiameterMm', 6.8), seen('cellHeightMm', 2.14))),
    ).toMatchObject({
      revision: 'B',
    });
    const byTrait = identify(seen('mark', 'OR 41.6'), seen('revision', 'orrelin-41-6|A'));
    expect(first(byTrait)).toMatchObject({ calibreId: 'orrelin-41-6', revision: 'A' });
    expect(first(byTrait).probability).toBeGreaterThan(0.9);
    expect(first(identify(seen('mark', 'QB 18-3'), seen('heldBy', 'screwed bridge')))).toMatchObject({
      revision: 'early',
    });
  });

  it('reads one character and a look apart as a sister of what it is like, not in the book', () => {
    const sister = identify(
      seen('mark', 'OR 48.2'),
      seen('widthMm', book.calibre('orrelin-41-2')?.widthMm ?? 0),
      seen('heldBy', book.calibre('orrelin-41-2')?.wells[0]?.heldBy ?? ''),
      seen('jewels', '7'),
    );
    expect(sister).toMatchObject({
      verdict: 'not in the book',
      sisterOf: { code: expect.any(String) as string },
    });
    expect(sister.sisterOf?.code).toMatch(/^OR 41/);
    expect(sister.reasons[0]).toContain('close relative of OR 41');
    // Its own code is no sister of anything, nor is one that is like nothing here.
    expect(identify(seen('mark', 'OR 41.2')).sisterOf).toBeNull();
    expect(identify(seen('mark', 'XQ 7777')).sisterOf).toBeNull();
  });

  it('is not moved by a mark that is worn away wholly', () => {
    const evidence = [seen('widthMm', 23.3), seen('date', '3')];
    const [plain, worn] = [identify(...evidence), identify(...evidence, seen('mark', '?????'))];
    expect(worn.notInBook).toBeCloseTo(plain.notInBook, 12);
    expect(worn.candidates.map(({ probability }) => probability)).toEqual(
      plain.candidates.map(({ probability }) => expect.closeTo(probability, 12) as number),
    );
  });

  it('counts both measures of one cell once: a wrong cell is one error, not two', () => {
    const right = [seen('mark', 'OR 41.2'), seen('date', '3')];
    const wrong = identify(...right, seen('cellDiameterMm', 9.5), seen('cellHeightMm', 1.65));
    const half = identify(...right, seen('cellDiameterMm', 9.5));
    const loss = (of: typeof wrong): number => 1 - first(of).probability;
    expect(first(wrong).code).toBe('OR 41.2');
    // As two errors it would be the square of one.
    expect(loss(wrong)).toBeLessThan(loss(half) * 12);
  });

  it('never knows a movement by its cell alone, however rare that is in the book and however well the shop knows it', () => {
    const often = openIdentifier(book, [
      { calibreId: 'dunmarrow-07-2', revision: null, caseCode: '', jobs: 300 },
    ]);
    const cell = [seen('cellDiameterMm', 20), seen('cellHeightMm', 1.6)];
    expect(often.identifyMovement(cell)).toMatchObject({
      verdict: 'likely',
      reasons: [expect.stringContaining('Only the cell is known')],
    });
    expect(often.identifyMovement([...cell, seen('mark', 'DM 07/2')]).verdict).toBe('known');
  });

  it('says that a movement is not in the book', () => {
    expect(identify(seen('mark', 'PL 9942')).verdict).toBe('not in the book');
    expect(
      identify(
        seen('widthMm', 16.9),
        seen('heightMm', 1.9),
        seen('cellDiameterMm', 9.5),
        seen('heldBy', 'side lever'),
      ).verdict,
    ).toBe('not in the book');
    const empty = openIdentifier(openBook({ ...book, calibres: [] }), []);
    expect(empty.identifyMovement([seen('mark', 'PL 6180')])).toMatchObject({
      verdict: 'not in the book',
      notInBook: 1,
      candidates: [],
    });
  });

  it('names two pieces of evidence that contradict each other, and how improbable they are together', () => {
    const found = identify(seen('mark', 'OR 41.2'), seen('widthMm', 30.2), seen('shape', 'round'));
    expect(found.conflicting).toMatchObject({ looks: ['mark', 'widthMm'] });
    expect(found.conflicting?.chance).toBeLessThan(0.001);
    expect(found.verdict).not.toBe('known');
    expect(whole(found)).toBeCloseTo(1, 9);
    expect(identify(seen('mark', 'OR 41.2'), seen('widthMm', 23.28)).conflicting).toBeNull();
  });

  it('says what speaks for and against each candidate', () => {
    const { why } = first(
      identify(seen('mark', 'PL 6180'), seen('heldBy', 'screwed bridge'), seen('jewels', '1')),
    );
    expect(why.map(({ look, bits }) => [look, Math.sign(bits)])).toEqual([
      ['mark', 1],
      ['heldBy', -1],
      ['jewels', 1],
    ]);
    expect(why[1]?.book).toContain('side lever');
  });

  it('takes a field the book leaves empty for neutral, and one it has for what it says', () => {
    const pick = (id: string, change: Partial<Calibre>, look: Look) => {
      const calibre = book.calibre(id);
      if (!calibre) throw new Error(id);
      return expectedPick({ ...calibre, ...change }, look, null);
    };
    // Hands alone: no date, no counters, whether a dial is drawn or not.
    for (const look of ['date', 'day', 'seconds'] as const)
      expect(pick('orrelin-47-1', { dial: [] }, look)).toEqual(['none']);
    expect(pick('orrelin-47-1', { dial: [] }, 'counters')).toEqual(['0']);
    // What a shop entered says only what was seen; what is left empty says nothing.
    expect(pick('orrelin-47-1', { dial: [], shopsOwn: true }, 'date')).toBeNull();
    expect(pick('orrelin-47-1', { dial: [], functions: [] }, 'counters')).toBeNull();
    expect(pick('orrelin-47-1', { stepIntervalS: null }, 'step')).toBeNull();
    expect(pick('orrelin-47-1', { coils: [] }, 'coils')).toBeNull();
    expect(pick('orrelin-41-6', { dial: [] }, 'date')).toBeNull();
  });

  it('sinks a movement of hands alone under counters and a date, jewels or none', () => {
    for (const more of [[], [seen('jewels', '0')]]) {
      const { candidates, notInBook } = identify(seen('counters', '3'), seen('date', '3'), ...more);
      const ofHands = candidates.filter(
        ({ calibreId }) => book.calibre(calibreId)?.functions.every((each) => each === 'hands') ?? false,
      );
      expect(ofHands.reduce((sum, { probability }) => sum + probability, 0)).toBeLessThan(0.15);
      expect(notInBook).toBeGreaterThan(0.05);
    }
    const plain = identify(seen('engraving', 'ZX 9917'));
    expect(plain.notInBook).toBeGreaterThan(0.15);
  });

  it('is as sure as it is right on an invented book', () => {
    const makers = inventedMakers(12);
    const everybody = inventedCalibres(300, makers, 3);
    const invented = openBook({
      ...book,
      makers,
      caseTypes: [],
      gaskets: [],
      calibres: everybody.slice(0, 200),
    });
    const own = openIdentifier(invented, []);
    const uniform = seededUniform(17);
    let [sure, right, unknowns, called, wrongly] = [0, 0, 0, 0, 0];
    for (let made = 0; made < 1500; made += 1) {
      const notInBook = uniform() < 0.1;
      const truth = (notInBook ? everybody.slice(200) : invented.calibres)[
        Math.floor(uniform() * (notInBook ? 100 : 200))
      ] as Calibre;
      const evidence = observe(truth, invented, uniform);
      if (evidence.length < 3) continue;
      const found = own.identifyMovement(evidence);
      const isCalled = found.verdict === 'not in the book';
      if (notInBook) [unknowns, called] = [unknowns + 1, called + (isCalled ? 1 : 0)];
      else if (isCalled) wrongly += 1;
      if ((found.candidates[0]?.probability ?? 0) < 0.9) continue;
      sure += 1;
      right += !notInBook && found.candidates[0]?.calibreId === truth.id ? 1 : 0;
    }
    expect(sure).toBeGreaterThan(1000);
    expect(right / sure).toBeGreaterThan(0.97);
    expect(called / unknowns).toBeGreaterThanOrEqual(0.9);
    expect(wrongly).toBeLessThan(90);
  });
});

describe('nextBestLook', () => {
  it('takes away no more doubt than there is, and less for looks already taken', () => {
    fc.assert(
      fc.property(anyEvidence, (evidence) => {
        const belief = identifier.believe(evidence);
        const next = nextBestLook(
          belief,
          evidence.map(({ look }) => look),
        );
        for (const worth of [next.best, ...next.then]) {
          if (worth === null) continue;
          expect(worth.bits).toBeLessThanOrEqual(doubtOf(belief) + 1e-6);
          expect(evidence.map(({ look }) => look)).not.toContain(worth.look);
          for (const { probability, thenProbability } of worth.outcomes) {
            expect(probability).toBeLessThanOrEqual(1 + 1e-6);
            expect(thenProbability).toBeLessThanOrEqual(1 + 1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('expects what identifying with each outcome in turn would give', () => {
    // By brute force: every value of the look, as likely as it is, and the doubt that would be left.
    const own = openIdentifier(
      openBook({ ...book, calibres: book.calibres.filter(({ wells }) => wells.length === 1) }),
      [],
    );
    const evidence = [seen('widthMm', 23.3)];
    const belief = own.believe(evidence);
    const worths = nextBestLook(belief, ['widthMm', 'mark', 'engraving', 'lengthMm', 'heightMm', 'sign']);
    const all = [...(worths.best ? [worths.best] : []), ...worths.then];
    const checked = all.filter(({ look }) => LOOKS[look].as === 'pick');
    expect(checked.map(({ look }) => look)).toContain('cellAt');
    for (const { look, bits } of checked) {
      const column = own.hypotheses.columns[look];
      if (column?.as !== 'pick') throw new Error(look);
      let left = 0;
      column.values.forEach((_, value) => {
        const unknown = column.marginal[value] as number;
        const likelihood = (index: number): number => {
          const at = column.at[index] as number;
          return at < 0 ? unknown : pickLikelihood(look, column.values, at, value);
        };
        const known = belief.share.reduce((sum, share, index) => sum + share * likelihood(index), 0);
        const chance = known + belief.notInBook * unknown;
        const share = belief.share.map((each, index) => (each * likelihood(index)) / chance);
        left += chance * doubtOf({ ...belief, share, notInBook: (belief.notInBook * unknown) / chance });
      });
      expect([look, doubtOf(belief) - left]).toEqual([look, expect.closeTo(bits, 6)]);
    }
  });

  it('names the look at the revisions once only they are open', () => {
    const next = nextBestLook(identifier.believe([seen('mark', 'OR 41.6')]), ['mark']);
    expect([next.best?.look, next.best?.of]).toEqual(['revision', 'OR 41.6']);
    expect(next.best?.outcomes.map(({ then }) => then).sort()).toEqual([
      'OR 41.6, revision A',
      'OR 41.6, revision B',
    ]);
  });

  it('leaves out what cannot be seen under a hatch', () => {
    const next = nextBestLook(identifier.believe([]), [], { hidden: true });
    const looks = [next.best, ...next.then].map((each) => each?.look);
    for (const look of ['mark', 'coils', 'heldBy', 'widthMm']) expect(looks).not.toContain(look);
    expect(looks.length).toBeGreaterThan(1);
  });

  it('has nothing to settle once it is settled', () => {
    const next = nextBestLook(identifier.believe([seen('mark', 'PL 7705'), seen('widthMm', 30.2)]), [
      'mark',
      'widthMm',
    ]);
    expect(next).toMatchObject({ verdict: 'no check helps more', best: null });
  });
});

describe('two candidates side by side', () => {
  const size = cellSizes(book);
  const signOf = (makerId: string) => book.maker(makerId)?.sign ?? null;
  const of = (id: string): Calibre => book.calibre(id) as Calibre;
  it('lists what can be seen and measured', () => {
    const differences = compareMovements([of('quillbeck-15-1'), of('quillbeck-15-7')], signOf, size);
    expect(differences.map(({ look }) => look)).toEqual(['mark', 'date', 'cellHeightMm']);
    expect(differences[1]).toMatchObject({ first: 'none', second: '3' });
  });
  it('tells revisions apart by their sign and by what follows from it', () => {
    const calibre = of('orrelin-41-6');
    const [own] = compareMovements([calibre, calibre], signOf, size, ['A', 'B']);
    expect(own).toMatchObject({ look: 'revision', first: expect.stringContaining('one finger') as string });
    expect(compareMovements([calibre, calibre], signOf, size)).toEqual([]);
  });
});

describe('the movement that stands for it while nobody named one', () => {
  it('is the first, once it is likelier than all others together', () => {
    const [calibre] = book.calibres;
    if (!calibre) throw new Error('calibres wanted');
    const at = (probability: number) =>
      standsForIt({
        candidates: [
          { calibreId: calibre.id, makerId: 'm', code: calibre.code, revision: null, probability, why: [] },
        ],
      });
    expect(at(0.5)?.calibreId).toBe(calibre.id);
    expect(at(0.49)).toBeNull();
    expect(standsForIt({ candidates: [] })).toBeNull();
  });
});
