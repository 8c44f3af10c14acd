import Fuse from 'fuse.js';
import { openIdentifier, type Look, type Seen } from '../src/core/craft/identify';
import { type Book, openBook } from '../src/core/craft/book';
import { seededUniform } from '../src/core/craft/life';
import { bareCode, type Calibre } from '../src/core/craft/movements';
import { NO_TOOLS } from '../src/core/craft/tools';
import { readShippedCells } from '../src/server/store/shippedCells';
import { inventedCalibres, inventedMakers, observe, wornCode } from '../src/testing/observations';

/** Is the identification as sure as it is right, and is it better and faster than looking codes up by likeness? */
const makers = inventedMakers(24);
const cells = readShippedCells();
function bookOf(calibres: readonly Calibre[]): Book {
  return openBook({ ...NO_TOOLS, revision: 1, cells, makers, caseTypes: [], gaskets: [], calibres });
}
const share = (part: number, of: number): string => `${((100 * part) / Math.max(1, of)).toFixed(1)} %`;
const missed = (): void => void (process.exitCode = 1);

const OBSERVATIONS = 5000;
const IN_BOOK = 600;
const UNKNOWN_SHARE = 0.1;
const everybody = inventedCalibres(IN_BOOK * 2, makers, 5);
const bookOfHalf = bookOf(everybody.slice(0, IN_BOOK));
const half = openIdentifier(bookOfHalf, []);

interface Answered {
  readonly pieces: number;
  readonly unknown: boolean;
  readonly notInBook: number;
  readonly calledUnknown: boolean;
  /** Of the likeliest answer, an unknown calibre among them. */
  readonly probability: number;
  readonly right: boolean;
}

/** Without end: movements seen one after another, and what the identification says of each. */
function* answers(
  seed: number,
  unknownShare: number,
  richness: (uniform: () => number) => number,
): Generator<Answered> {
  const uniform = seededUniform(seed);
  for (;;) {
    const unknown = uniform() < unknownShare;
    const of = unknown ? everybody.slice(IN_BOOK) : bookOfHalf.calibres;
    const truth = of[Math.floor(uniform() * IN_BOOK)] as Calibre;
    const evidence = observe(truth, bookOfHalf, uniform, richness(uniform));
    if (evidence.length === 0) continue;
    const { candidates, notInBook, verdict } = half.identifyMovement(evidence);
    const [first] = candidates;
    const strangest = notInBook >= (first?.probability ?? 0);
    yield {
      pieces: evidence.length,
      unknown,
      notInBook,
      calledUnknown: verdict === 'not in the book',
      probability: strangest ? notInBook : (first?.probability ?? 0),
      right: strangest ? unknown : !unknown && first?.calibreId === truth.id,
    };
  }
}

const LOOKED_OVER = (): number => 1;
const AS_IT_COMES = (uniform: () => number): number => 0.1 + 0.9 * uniform();
/** Beyond luck, twice its spread. */
const OFF_BY = 0.03;
const WRONGLY = 0.05;
const decileOf = ({ probability }: Answered): number => Math.min(9, Math.floor(probability * 10));

/**
 * Five hundred answers of each tenth: chosen by the answer alone, never by the truth, so the share right in each is
 * what it would be as they come, and none is left to a handful.
 */
function calibration(): void {
  const each = OBSERVATIONS / 10;
  const deciles = Array.from({ length: 10 }, (): Answered[] => []);
  const band: Answered[] = [];
  let drawn = 0;
  for (const answer of answers(11, UNKNOWN_SHARE, AS_IT_COMES)) {
    drawn += 1;
    const decile = deciles[decileOf(answer)] as Answered[];
    if (decile.length === each) continue;
    decile.push(answer);
    if (answer.probability >= 0.85 && answer.probability <= 0.95) band.push(answer);
    if (deciles.every(({ length }) => length === each)) break;
  }
  const right = (of: readonly Answered[]) => of.filter((answer) => answer.right).length;
  console.log(
    `${OBSERVATIONS} observations over ${IN_BOOK} calibres, ${share(UNKNOWN_SHARE, 1)} unknowns, ${each} for each tenth of the answers (${drawn} drawn). Right among answers given at 85 to 95 %: ${share(right(band), band.length)} of ${band.length}.`,
  );
  const inBand = right(band) / band.length;
  if (inBand < 0.85 || inBand > 0.95) missed();
  deciles.forEach((decile, index) => {
    const given = decile.reduce((sum, { probability }) => sum + probability, 0);
    const off = (right(decile) - given) / each;
    const luck = Math.sqrt((given / each) * (1 - given / each) * (1 / each));
    console.log(
      `  ${index * 10} to ${index * 10 + 10} %: given ${share(given, each)}, right ${share(right(decile), each)}, ${(100 * off).toFixed(1)} points off (luck alone ±${(100 * luck).toFixed(1)}).`,
    );
    if (Math.abs(off) > OFF_BY + 2 * luck) missed();
  });
}

const ENOUGH_PIECES = 3;

/** Called unknowns, and the most any answer could call at one book calibre in twenty wrongly called. */
function unknownCalled(how: string, of: readonly Answered[]): readonly [number, number] {
  const unknowns = of.filter(({ unknown }) => unknown);
  const known = of.filter(({ unknown }) => !unknown).sort((a, b) => b.notInBook - a.notInBook);
  const called = (each: readonly Answered[]) => each.filter(({ calledUnknown }) => calledUnknown).length;
  const bar = known[Math.floor(known.length / 20)]?.notInBook ?? 0;
  const reachable = unknowns.filter(({ notInBook }) => notInBook > bar).length;
  console.log(
    `${how}: unknown called unknown ${share(called(unknowns), unknowns.length)} of ${unknowns.length} (at one in twenty wrongly called, ${share(reachable, unknowns.length)} could be); calibres of the book called unknown ${share(called(known), known.length)} of ${known.length}.`,
  );
  return [called(unknowns) / unknowns.length, called(known) / known.length];
}

/** Half of them unknowns: how often either is called one does not hang on how many there are. */
function unknowns(): void {
  const take = (richness: (uniform: () => number) => number): Answered[] => {
    const taken: Answered[] = [];
    for (const answer of answers(17, 0.5, richness)) {
      taken.push(answer);
      if (taken.length === OBSERVATIONS) return taken;
    }
    return taken;
  };
  const over = take(LOOKED_OVER).filter(({ pieces }) => pieces >= ENOUGH_PIECES);
  const [called, wrongly] = unknownCalled(
    `${ENOUGH_PIECES} pieces of evidence or more, the movement looked over`,
    over,
  );
  if (called < 0.9 || wrongly > WRONGLY) missed();
  const poor = take(AS_IT_COMES);
  for (const pieces of [3, 4, 5, 6, 7, 8])
    unknownCalled(
      `  ${pieces} pieces, whichever looks came`,
      poor.filter((each) => each.pieces === pieces),
    );
}

const LARGE = 5000;
const CASES = 2000;

function againstLikeness(): void {
  const uniform = seededUniform(23);
  const book = bookOf(inventedCalibres(LARGE, makers, 7));
  const identifier = openIdentifier(book, []);
  const fuse = new Fuse(
    book.calibres.map(({ id, code }) => ({ id, code: bareCode(code) })),
    { keys: ['code'], threshold: 0.6, ignoreLocation: false },
  );
  const cases = Array.from({ length: CASES }, () => {
    const truth = book.calibres[Math.floor(uniform() * LARGE)] as Calibre;
    return { truth, seen: wornCode(truth.code, uniform, 0.1) };
  });
  const run = (find: (seen: string) => readonly string[]) => {
    const began = performance.now();
    let [first, three] = [0, 0];
    for (const { truth, seen } of cases) {
      const found = find(seen);
      if (found[0] === truth.id) first += 1;
      if (found.slice(0, 3).includes(truth.id)) three += 1;
    }
    return { first, three, ms: (performance.now() - began) / CASES };
  };
  const mark = (value: string): Seen => ({ look: 'mark' satisfies Look, value, withinMm: 0 });
  const own = run((seen) =>
    identifier.identifyMovement([mark(seen)]).candidates.map(({ calibreId }) => calibreId),
  );
  const likeness = run((seen) =>
    fuse.search(seen.replaceAll('?', ''), { limit: 3 }).map(({ item }) => item.id),
  );
  for (const [name, { first, three, ms }] of [
    ['Identification', own],
    ['fuse.js', likeness],
  ] as const)
    console.log(
      `${name}: worn marks of ${LARGE} calibres, ${CASES} cases: first right ${share(first, CASES)}, among the first three ${share(three, CASES)}, ${ms.toFixed(2)} ms each.`,
    );
  console.log(`Time against fuse.js: ${(own.ms / likeness.ms).toFixed(2)} ×.`);
  if (own.first <= likeness.first || own.three <= likeness.three || own.ms >= likeness.ms) missed();
}

calibration();
unknowns();
againstLikeness();
