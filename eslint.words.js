/**
 * Texts that people read, held to docs/words.md: no word that things do not do, and no sentence too long to read at a glance.
 * A text is whatever has a space in it and is not the name of a class, a path or a query.
 */
const MOST_WORDS = 20;

/** What we do not say, and what we say. */
const FORBIDDEN = [
  [/\berr(s|ed)?\b/i, 'is wrong'],
  [/\blet(s)? (it )?go\b/i, 'discard'],
  [/\bnobody said\b/i, 'not recorded'],
  [/\bnothing (here )?wants\b/i, 'not needed'],
  [/\bwants? (to be|a|an|its|the)\b/i, 'needs'],
  [/\b(is|are|was|were) told\b/i, 'is shown, is reported'],
  [/\banswers to\b/i, 'matches'],
  [/\bsee(s)? to it\b/i, 'check'],
  [/\bin the house\b/i, 'in stock'],
  [/\blooks? after\b/i, 'check'],
  [/\bspeaks? (for|against)\b/i, 'points to'],
  [/\b(it|leave|left|done|decided?) so\b(?!me| that| far)/i, 'what it is'],
  [/\bails\b/i, 'is wrong'],
  [/\bthereof|therein|whereof|wherein|hereby|thereby\b/i, 'plain words'],
];

const SENTENCE_ENDS = /[.!?;:](?:\s|$)|\n/;
const IS_TEXT = /^[^<>{}]*\p{L}+ [^<>{}]*$/u;
const IS_CODE =
  /\b(SELECT|INSERT|UPDATE|DELETE|CREATE|PRAGMA|BEGIN)\b|[=;]\s*$|^[a-z-]+: |\bpx\b.*\bsolid\b|minmax|repeat\(/;

const wordsIn = (sentence) => sentence.match(/[\p{L}\p{N}][\p{L}\p{N}’'.,×%/-]*/gu)?.length ?? 0;

/** What is wrong with a text, in words; nothing where it is none or is plain. */
export function faultsOf(text) {
  if (!IS_TEXT.test(text) || IS_CODE.test(text)) return [];
  const faults = FORBIDDEN.flatMap(([pattern, instead]) => {
    const found = pattern.exec(text);
    return found ? [`“${found[0]}” is a word we do not say (docs/words.md): say ${instead}.`] : [];
  });
  const long = text.split(SENTENCE_ENDS).find((sentence) => wordsIn(sentence) > MOST_WORDS);
  return long === undefined
    ? faults
    : [...faults, `A sentence of ${wordsIn(long)} words, ${MOST_WORDS} at most: “${long.trim()}”`];
}

/** What stands for a figure or a name inside a template: one word. */
const FILLED = 'X';

/** The rule, for the texts of the program. */
export const words = {
  rules: {
    plain: {
      meta: { type: 'suggestion', schema: [] },
      create(context) {
        const check = (node, text) => {
          for (const message of faultsOf(text.replace(/\s+/g, ' ').trim())) context.report({ node, message });
        };
        return {
          Literal: (node) => typeof node.value === 'string' && check(node, node.value),
          JSXText: (node) => check(node, node.value),
          TemplateLiteral: (node) =>
            check(node, node.quasis.map(({ value }) => value.cooked ?? '').join(` ${FILLED} `)),
        };
      },
    },
  },
};
