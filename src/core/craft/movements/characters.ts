/** Pairs of characters worn or tiny engraving is misread between. */
const CONFUSABLE = [
  ...['0O', '1I', '5S', '8B', '6G', '2Z', '0D', '3B', '4A', '7T'],
  // And figures for each other.
  ...['17', '38', '56', '68', '69', '08'],
];
const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
/** Figures stand before letters in the alphabet; so much of what is misread is misread for its own kind. Ours. */
const FIGURES = 10;
const OF_ITS_KIND = 0.8;
/** A worn place stands behind the letters. */
const WORN = ALPHABET.length;

/**
 * Shares of the character model: a character is missing, or else seen right, taken for one of its twins, or taken for
 * anything; between characters there may be an extra one. Ours, from reading worn engraving under a loupe.
 */
export const CHARACTER_MODEL = { right: 0.94, twin: 0.04, missing: 0.006, extra: 0.004 } as const;
const EXTRA_EACH = CHARACTER_MODEL.extra / ALPHABET.length;

const twins = new Map<string, Set<string>>();
for (const [a, b] of CONFUSABLE.map((pair) => [...pair] as [string, string])) {
  twins.set(a, (twins.get(a) ?? new Set()).add(b));
  twins.set(b, (twins.get(b) ?? new Set()).add(a));
}

/** Whether two characters are taken for each other on worn engraving. */
export function areConfusable(a: string, b: string): boolean {
  return twins.get(a)?.has(b) ?? false;
}

/** The characters one is taken for on worn engraving. */
export function twinsOf(character: string): readonly string[] {
  return [...(twins.get(character) ?? [])];
}

/** The chance of reading one character where another stands; a worn place says nothing but that one stood there. */
function seenAs(seen: number, engraved: number): number {
  if (seen === WORN) return 1;
  if (seen === engraved) return CHARACTER_MODEL.right;
  const [a, b] = [ALPHABET[seen] ?? '', ALPHABET[engraved] ?? ''];
  const count = twins.get(b)?.size ?? 0;
  if (areConfusable(a, b)) return CHARACTER_MODEL.twin / count;
  const left = 1 - CHARACTER_MODEL.right - (count > 0 ? CHARACTER_MODEL.twin : 0);
  // Who reads a figure wrongly mostly reads another figure, and who reads a letter another letter.
  const isFigure = (symbol: number): boolean => symbol < FIGURES;
  const kin = isFigure(engraved) ? FIGURES : ALPHABET.length - FIGURES;
  const kinTwins = [...(twins.get(b) ?? [])].filter(
    (each) => isFigure(ALPHABET.indexOf(each)) === isFigure(engraved),
  ).length;
  return isFigure(seen) === isFigure(engraved)
    ? (left * OF_ITS_KIND) / (kin - 1 - kinTwins)
    : (left * (1 - OF_ITS_KIND)) / (ALPHABET.length - kin - (count - kinTwins));
}

const COLUMNS = ALPHABET.length;
const EMISSION = Float64Array.from(
  { length: (WORN + 1) * COLUMNS },
  (_, at) => seenAs(Math.floor(at / COLUMNS), at % COLUMNS) * (1 - CHARACTER_MODEL.missing),
);

/** Letters and digits of a code in upper case, worn places kept as `?`; dots, dashes and spaces say nothing. */
export function bareCode(text: string): string {
  return text.toUpperCase().replace(/[^A-Z0-9?]/g, '');
}

/** A bare code as symbols, for comparing one text with many codes. */
export type Symbols = Uint8Array;

export function symbolsOf(text: string): Symbols {
  return Uint8Array.from(bareCode(text), (character) =>
    character === '?' ? WORN : ALPHABET.indexOf(character),
  );
}

/** How many characters of it can be read. */
export function legible(symbols: Symbols): number {
  return symbols.reduce((count, symbol) => count + (symbol === WORN ? 0 : 1), 0);
}

/** The chance of one text by chance alone, every character equally likely. */
export function byChance(symbols: Symbols): number {
  return ALPHABET.length ** -legible(symbols);
}

/** More than this many characters missing or extra is another text. */
const BAND = 3;
const LONGEST = 64;
let before = new Float64Array(LONGEST + 1);
let now = new Float64Array(LONGEST + 1);

/**
 * The probability of seeing `seen` where `code` is engraved, under the model of worn and misread characters:
 * substitution by confusable pairs, missing and extra characters; `?` is a worn place. Summed over every alignment.
 * Texts over 64 characters, or more than three characters apart in length, give 0. Source: hidden Markov model, forward
 * algorithm.
 *
 * @example
 * seenProbability(symbolsOf('OR 41'), symbolsOf('OR 41')) > seenProbability(symbolsOf('OR 47'), symbolsOf('OR 41')) // true
 */
export function seenProbability(seen: Symbols, code: Symbols): number {
  const [rows, columns] = [seen.length, code.length];
  if (Math.abs(rows - columns) > BAND || columns > LONGEST || rows > LONGEST) return 0;
  now[0] = 1;
  for (let column = 1; column <= columns; column += 1)
    now[column] = (now[column - 1] as number) * CHARACTER_MODEL.missing;
  for (let row = 1; row <= rows; row += 1) {
    [before, now] = [now, before];
    const emission = (seen[row - 1] as number) * COLUMNS;
    now[0] = (before[0] as number) * EXTRA_EACH;
    for (let column = 1; column <= columns; column += 1) {
      now[column] =
        (before[column - 1] as number) * (EMISSION[emission + (code[column - 1] as number)] as number) +
        (before[column] as number) * EXTRA_EACH +
        (now[column - 1] as number) * CHARACTER_MODEL.missing;
    }
  }
  return now[columns] as number;
}

/** A character that is another on a sister: any other of its class, all alike. */
const OTHER_DIGIT = 1 / 9;
/** The chance of seeing a symbol where a sister has any other digit than one. */
const OTHER = Float64Array.from({ length: (WORN + 1) * FIGURES }, (_, at) => {
  const row = Math.floor(at / FIGURES) * COLUMNS;
  let sum = 0;
  for (let other = 0; other < FIGURES; other += 1)
    if (other !== at % FIGURES) sum += EMISSION[row + other] as number;
  return sum * OTHER_DIGIT;
});

/**
 * The probability of seeing `seen` on a sister of `code`: one that has another character in one place, every place but the
 * letters of the house alike. Only texts of its length: one with a character missing says little of a single place. Source:
 * the same model of worn characters.
 *
 * @example
 * sisterProbability(symbolsOf('OR 42'), symbolsOf('OR 41')) > seenProbability(symbolsOf('OR 42'), symbolsOf('OR 41')) // true
 */
export function sisterProbability(seen: Symbols, code: Symbols): number {
  const length = code.length;
  if (seen.length !== length || length === 0 || length > LONGEST) return 0;
  let all = 1;
  let [inverse, places] = [0, 0];
  for (let at = 0; at < length; at += 1) {
    const engraved = code[at] as number;
    const row = (seen[at] as number) * COLUMNS;
    const as = EMISSION[row + engraved] as number;
    all *= as;
    // Houses sign with letters and count with digits: a sister differs in what is counted.
    if (engraved >= FIGURES) continue;
    places += 1;
    inverse += (OTHER[(seen[at] as number) * FIGURES + engraved] as number) / as;
  }
  return places === 0 ? 0 : (all * inverse) / places;
}

/** The same of two texts, as a natural logarithm. */
export function logLikelihood(seen: string, code: string): number {
  return Math.log(seenProbability(symbolsOf(seen), symbolsOf(code)));
}

/** What differs between what was seen and a code, character by character, in words. Empty when nothing does. */
export function differences(seen: string, code: string): string[] {
  if (seen.length !== code.length) return [`${seen.length} characters seen, ${code.length} in the code`];
  return [...seen].flatMap((character, index) => {
    const engraved = code[index] ?? '';
    if (character === engraved) return [];
    if (character === '?') return [`worn character taken as ${engraved}`];
    return [
      areConfusable(character, engraved)
        ? `${character} read as ${engraved}`
        : `${character} where the code has ${engraved}`,
    ];
  });
}
