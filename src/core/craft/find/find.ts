/**
 * Finding by what is typed in a hurry: letters swapped, missing, doubled or wrong. The store proposes candidates
 * that share rare letter triples with the query; here it is decided how alike they are, and which come first.
 */

/** A word must be this alike to count as found. One slip in four letters, two in seven. */
export const ALIKE_ENOUGH = 0.7;

/** Lower case, without accents, letters and digits only, words parted by one space. */
export function findable(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** The words of a query or of a text to be found. */
export function findWords(text: string): string[] {
  return findable(text).split(' ').filter(Boolean);
}

/** Every run of three characters of a word, each once. Words under three characters have none. */
export function triples(word: string): string[] {
  return [
    ...new Set(Array.from({ length: Math.max(0, word.length - 2) }, (_, at) => word.slice(at, at + 3))),
  ];
}

/**
 * Slips between two words: a wrong, missing or extra character counts one, two neighbours swapped count one
 * (restricted Damerau–Levenshtein distance). Beyond `most` it is not counted on: the answer is then more than `most`.
 */
export function editDistance(a: string, b: string, most = Infinity): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let previous = Array.from({ length: b.length + 1 }, (_, column) => column);
  for (let row = 1; row <= a.length; row += 1) {
    const current = [row];
    for (let column = 1; column <= b.length; column += 1) {
      const same = a[row - 1] === b[column - 1];
      let best = Math.min(
        (previous[column - 1] ?? 0) + (same ? 0 : 1),
        (previous[column] ?? 0) + 1,
        (current[column - 1] ?? 0) + 1,
      );
      if (row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1]) {
        best = Math.min(best, (before[column - 2] ?? 0) + 1);
      }
      current[column] = best;
    }
    if (Math.min(...current) > most) return most + 1;
    before = previous;
    previous = current;
  }
  return previous[b.length] ?? a.length;
}

/** How alike a typed word is to a word of a text, 0 to 1; the typed word may be only its beginning or a part of it. */
export function wordLikeness(typed: string, word: string): number {
  if (word.includes(typed)) return word === typed ? 1 : word.startsWith(typed) ? 0.98 : 0.95;
  const most = Math.floor((1 - ALIKE_ENOUGH) * typed.length);
  if (most === 0) return 0;
  // The typed word may be the beginning of a longer one, itself a letter short or long by the slip.
  const beginnings = new Set([-1, 0, 1].map((more) => word.slice(0, typed.length + more)));
  const fewest = Math.min(
    ...[...beginnings.add(word)].map((beginning) => editDistance(typed, beginning, most)),
  );
  return fewest > most ? 0 : 1 - fewest / typed.length;
}

/** How alike a query is to a text, 0 to 1: the mean over the query's words of the likest word of the text; 0 if one word is not found. */
export function likeness(query: string, text: string): number {
  const typed = findWords(query);
  const words = findWords(text);
  if (typed.length === 0 || words.length === 0) return 0;
  const each = typed.map((word) => Math.max(...words.map((other) => wordLikeness(word, other))));
  return each.some((share) => share < ALIKE_ENOUGH)
    ? 0
    : each.reduce((sum, share) => sum + share, 0) / each.length;
}

/** The candidates that answer to a query, the likest first; equally alike ones keep their order. */
export function rankFound<T extends { readonly text: string }>(
  query: string,
  candidates: readonly T[],
  most: number,
): T[] {
  return candidates
    .map((candidate) => ({ candidate, share: likeness(query, candidate.text) }))
    .filter(({ share }) => share > 0)
    .sort((a, b) => b.share - a.share)
    .slice(0, most)
    .map(({ candidate }) => candidate);
}
