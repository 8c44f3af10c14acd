/** What JSON has no word for stands by its own, so that no two questions become one. */
const asWritten = (_: string, value: unknown): unknown =>
  typeof value === 'number' && !Number.isFinite(value) ? String(value) : value;

export interface Memoized<Question, Answer> {
  readonly ask: (question: Question) => Answer;
  /** Takes over what was worked out elsewhere. */
  readonly keep: (question: Question, answer: Answer) => void;
}

/**
 * A function whose last `most` different questions are not worked out again: for what takes long and gives the same for the same.
 * Questions and answers are plain data that nobody changes.
 */
export function memoizeByValue<Question, Answer>(
  answer: (question: Question) => Answer,
  most: number,
): Memoized<Question, Answer> {
  const known = new Map<string, Answer>();
  const keyOf = (question: Question): string => JSON.stringify(question, asWritten);
  const keep = (key: string, given: Answer): void => {
    const [oldest] = known.keys();
    if (known.size >= most && oldest !== undefined) known.delete(oldest);
    known.set(key, given);
  };
  return {
    ask(question) {
      const key = keyOf(question);
      const before = known.get(key);
      if (before !== undefined) return before;
      const given = answer(question);
      keep(key, given);
      return given;
    },
    keep: (question, given) => keep(keyOf(question), given),
  };
}
