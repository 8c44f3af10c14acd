import Fuse from 'fuse.js';
import { openIdentifier, type Look, type Seen } from '../src/core/identify';
import { type Book, openBook } from '../src/core/catalogue';
import { seededUniform } from '../src/core/life';
import { bareCode, type Calibre } from '../src/core/movements';
import { NO_TOOLS } from '../src/core/tools';
import { readShippedCells } from '../src/server/store/catalogue';
import { inventedCalibres, inventedMakers, observe, wornCode } from '../src/testing/observations';

/** Is the identification as sure as it is right, and is it better and faster than looking codes up by likeness? */
const makers = inventedMakers(24);
const cells = readShippedCells();
function bookOf(calibres: readonly Calibre[]): Book {
  return openBook({ ...NO_TOOLS, revision: 1, cells, makers, caseTypes: [], gaskets: [], calibres });
}
const share = (part: number, of: number): string => `${((100 * part) / Math.max(1, of)).toFixed(1)} %`;
const missed = (): void => void (process.exitCode = 1);

/** Enough that the rarest decile holds some hundreds: under that its share right is luck more than calibration. */
const OBSERVATIONS = 40_000;
const IN_BOOK = 600;
const STRANGERS_SHARE = 0.1;

/** Every other observation is of a movement that lies open and is looked at closely; the rest are as poor as it gets. */
function calibration(): void {
  const uniform = seededUniform(11);
  const everybody = inventedCalibres(IN_BOOK * 2, makers, 5);
  const book = bookOf(everybody.slice(0, IN_BOOK));
  const strangers = everybody.slice(IN_BOOK);
  const identifier = openIdentifier(book, []);
  const deciles = Array.from({ length: 10 }, () => ({ answers: 0, sum: 0, right: 0 }));
  const band = { answers: 0, right: 0 };
  const called = new Map(
    ['close', 'poor'].map((how) => [how, { strangers: 0, called: 0, known: 0, wrongly: 0 }]),
  );
  for (let made = 0; made < OBSERVATIONS;) {
    const stranger = uniform() < STRANGERS_SHARE;
    const close = made % 2 === 0;
    const truth = (stranger ? strangers : book.calibres)[Math.floor(uniform() * IN_BOOK)] as Calibre;
    const evidence = observe(truth, book, uniform, close ? 1 : 0.15 + 0.5 * uniform());
    if (evidence.length === 0) continue;
    made += 1;
    const found = identifier.identifyMovement(evidence);
    const [first] = found.candidates;
    const strangest = found.notInBook >= (first?.probability ?? 0);
    const probability = strangest ? found.notInBook : (first?.probability ?? 0);
    const right = strangest ? stranger : !stranger && first?.calibreId === truth.id;
    const decile = deciles[Math.min(9, Math.floor(probability * 10))];
    if (decile) {
      decile.answers += 1;
      decile.sum += probability;
      decile.right += right ? 1 : 0;
    }
    if (probability >= 0.85 && probability <= 0.95) {
      band.answers += 1;
      band.right += right ? 1 : 0;
    }
    const counted = called.get(close ? 'close' : 'poor');
    if (!counted || evidence.length < 3) continue;
    const isCalled = found.verdict === 'not in the book' ? 1 : 0;
    if (stranger) {
      counted.strangers += 1;
      counted.called += isCalled;
    } else {
      counted.known += 1;
      counted.wrongly += isCalled;
    }
  }
  console.log(
    `${OBSERVATIONS} observations over ${IN_BOOK} calibres, ${share(STRANGERS_SHARE, 1)} strangers. Right among answers given at 85 to 95 %: ${share(band.right, band.answers)} of ${band.answers}.`,
  );
  if (band.right / band.answers < 0.85 || band.right / band.answers > 0.95) missed();
  deciles.forEach(({ answers, sum, right }, index) => {
    if (answers === 0) return;
    const off = right / answers - sum / answers;
    console.log(
      `  ${index * 10} to ${index * 10 + 10} %: given ${share(sum, answers)}, right ${share(right, answers)} of ${answers}, ${(100 * off).toFixed(1)} points off.`,
    );
    if (Math.abs(off) > 0.05) missed();
  });
  for (const [how, each] of called)
    console.log(
      `Three pieces of evidence or more, ${how === 'close' ? 'the movement open on the bench' : 'few looks only'}: strangers called strangers ${share(each.called, each.strangers)} of ${each.strangers}; calibres of the book called strangers ${share(each.wrongly, each.known)} of ${each.known}.`,
    );
  const close = called.get('close');
  if (!close || close.called / close.strangers < 0.9 || close.wrongly / close.known > 0.05) missed();
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
againstLikeness();
