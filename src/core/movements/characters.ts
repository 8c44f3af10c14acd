/** Pairs of characters worn or tiny engraving is misread between. */
const CONFUSABLE = ['0O', '1I', '5S', '8B', '6G', '2Z', '0D', '3B', '4A', '7T'];

/** Shares of the character model: seen right, taken for its confusable twin, missing, extra; the rest is anything. */
const SEEN_RIGHT = 0.93;
const CONFUSED = 0.04;
const OTHERWISE = 0.02 / 35;
const MISSING = 0.006;
const EXTRA = 0.004 / 36;
/** A worn place says nothing but that a character stood there. */
const WORN = 1;

const twins = new Map<string, Set<string>>();
for (const [a, b] of CONFUSABLE.map((pair) => [...pair] as [string, string])) {
  twins.set(a, (twins.get(a) ?? new Set()).add(b));
  twins.set(b, (twins.get(b) ?? new Set()).add(a));
}

/** Whether two characters are taken for each other on worn engraving. */
export function areConfusable(a: string, b: string): boolean {
  return twins.get(a)?.has(b) ?? false;
}

function seenAs(seen: string, engraved: string): number {
  if (seen === '?') return WORN;
  if (seen === engraved) return SEEN_RIGHT;
  return areConfusable(seen, engraved) ? CONFUSED : OTHERWISE;
}

/** Letters and digits of a code in upper case, worn places kept as `?`; dots, dashes and spaces say nothing. */
export function bareCode(text: string): string {
  return text.toUpperCase().replace(/[^A-Z0-9?]/g, '');
}

/**
 * The probability of seeing `seen` where `code` is engraved, under a model of worn and misread characters:
 * substitution by confusable pairs, missing and extra characters; `?` is a worn place. Both without punctuation.
 * The best alignment by dynamic programming, as a natural logarithm.
 */
export function logLikelihood(seen: string, code: string): number {
  let previous = Array.from({ length: code.length + 1 }, (_, column) => column * Math.log(MISSING));
  for (let row = 1; row <= seen.length; row += 1) {
    const current = [row * Math.log(EXTRA)];
    for (let column = 1; column <= code.length; column += 1) {
      current[column] = Math.max(
        (previous[column - 1] ?? -Infinity) + Math.log(seenAs(seen[row - 1] ?? '', code[column - 1] ?? '')),
        (previous[column] ?? -Infinity) + Math.log(EXTRA),
        (current[column - 1] ?? -Infinity) + Math.log(MISSING),
      );
    }
    previous = current;
  }
  return previous[code.length] ?? -Infinity;
}

/** What differs between what was seen and a code, character by character, in words. Empty when nothing does. */
export function differences(seen: string, code: string): string[] {
  if (seen.length !== code.length) return [`${seen.length} characters seen, ${code.length} in the code`];
  return [...seen].flatMap((character, index) => {
    const engraved = code[index] ?? '';
    if (character === engraved) return [];
    if (character === '?') return [`worn place taken as ${engraved}`];
    return [
      areConfusable(character, engraved)
        ? `${character} read for ${engraved}`
        : `${character} where the code has ${engraved}`,
    ];
  });
}
