import { percent, type WorkingLine } from '../judgement';
import {
  areConfusable,
  bareCode,
  differences,
  logLikelihood,
  seenProbability,
  symbolsOf,
} from './characters';
import type { CodeCandidate, EngravingPattern, EngravingPiece, EngravingReading, Maker } from './types';

interface Book {
  readonly makers: readonly Maker[];
  readonly calibres: readonly {
    readonly id: string;
    readonly makerId: string;
    readonly code: string;
    readonly formerCodes: readonly string[];
  }[];
  readonly caseTypes: readonly { readonly id: string; readonly makerId: string; readonly code: string }[];
}

/** Before anything is seen, the chance that a movement brought in is not in the book. */
const UNKNOWN_PRIOR = 0.1;
const SHOWN = 0.01;
const SURE = 0.9;

function fitsClass(seen: string, cls: string): number {
  if (seen === '?') return 0;
  if (cls === 'd') return /\d/.test(seen) ? 0 : /[OIBSGZDTA]/.test(seen) ? 1 : Infinity;
  if (cls === 'l') return /[A-Z]/.test(seen) ? 0 : /[01568234]/.test(seen) ? 1 : Infinity;
  return seen === cls ? 0 : Infinity;
}

/** How badly a stretch fits a template: misreadings needed, or Infinity. Punctuation in the template is not required. */
function misfit(text: string, template: string): number {
  const wanted = template.replace(/[^A-Za-z0-9]/g, '');
  if (text.length !== wanted.length) return Infinity;
  let misreadings = 0;
  for (const [index, cls] of [...wanted].entries()) {
    const seen = text[index] ?? '';
    const cost = fitsClass(seen, cls);
    if (cost === Infinity && /[A-Z0-9]/.test(cls)) {
      // A literal of the template may be confused like any engraved character.
      misreadings += areConfusable(seen, cls) ? 1 : 2;
    } else misreadings += cost;
  }
  return misreadings;
}

function piecesOf(token: string, makers: readonly Maker[]): (EngravingPiece & { misfit: number })[] {
  const bare = bareCode(token);
  return makers.flatMap((maker) =>
    maker.patterns
      .map((pattern) => ({
        text: token,
        meaning: pattern.meaning,
        makerId: maker.id,
        template: pattern.template,
        misfit: misfit(bare, pattern.template),
      }))
      .filter((piece) => piece.misfit <= 2),
  );
}

/** Stretches of an engraving: each word, and neighbouring words joined, since codes are often cut with spaces. */
export function stretches(text: string): string[] {
  const words = text
    .trim()
    .split(/[\s,;]+/)
    .filter((word) => bareCode(word) !== '');
  return words.flatMap((word, index) => [
    word,
    ...(index + 1 < words.length ? [`${word} ${words[index + 1]}`] : []),
  ]);
}

/** A code shorter than this is found inside too much by chance. */
const LEAST_CODE = 4;

/** Whether a stretch reads as a code, worn places aside; most of it must be legible. */
function readsAs(stretch: string, code: string): boolean {
  const worn = [...stretch].filter((character) => character === '?').length;
  return (
    stretch.length === code.length &&
    worn * 2 < code.length &&
    [...stretch].every((character, at) => character === '?' || character === code[at])
  );
}

/** The codes a stretch was joined from, in order; null where it was not joined from codes of the book. */
function partsOf(bare: string, codes: readonly string[], serials: readonly string[]): string[] | null {
  const whole = (text: string): boolean =>
    codes.some((code) => readsAs(text, code)) || serials.some((template) => misfit(text, template) === 0);
  if (whole(bare)) return [bare];
  for (const code of codes) {
    if (code.length < LEAST_CODE || bare.length <= code.length) continue;
    const [head, rest] = [bare.slice(0, code.length), bare.slice(code.length)];
    if (readsAs(head, code)) {
      const more = partsOf(rest, codes, serials);
      if (more) return [head, ...more];
    }
  }
  // A serial may stand in front.
  for (const template of serials) {
    const length = template.replace(/[^A-Za-z0-9]/g, '').length;
    const [head, rest] = [bare.slice(0, length), bare.slice(length)];
    if (
      rest.length >= LEAST_CODE &&
      misfit(head, template) === 0 &&
      codes.some((code) => readsAs(rest, code))
    )
      return [head, rest];
  }
  return null;
}

const CODES = new WeakMap<object, readonly string[]>();

/** Every code of the book, bare, the longest first; worked out once a book. */
function codesOf(calibres: Book['calibres'], caseTypes: Book['caseTypes']): readonly string[] {
  const known = CODES.get(calibres);
  if (known) return known;
  const codes = [
    ...calibres.flatMap(({ code, formerCodes }) => [code, ...formerCodes]),
    ...caseTypes.map(({ code }) => code),
  ].map(bareCode);
  const sorted = [...new Set(codes)].sort((one, other) => other.length - one.length);
  CODES.set(calibres, sorted);
  return sorted;
}

/**
 * An engraving with codes that were joined, by a hyphen or by nothing at all, written apart: movement, case and serial as
 * the book knows them. What the book cannot take apart stays as it stands.
 */
export function takenApart(
  text: string,
  { makers, calibres, caseTypes }: Pick<Book, 'makers' | 'calibres' | 'caseTypes'>,
): string {
  const codes = codesOf(calibres, caseTypes);
  const serials = makers.flatMap(({ patterns }) =>
    patterns.filter(({ meaning }) => meaning === 'serial').map(({ template }) => template),
  );
  const words = text.trim().split(/[\s,;]+/);
  const joined = (stretch: string): string[] | null => {
    const parts = partsOf(bareCode(stretch), codes, serials);
    return parts !== null && parts.length > 1 ? parts : null;
  };
  const apart: string[] = [];
  for (let at = 0; at < words.length; at += 1) {
    const word = words[at] ?? '';
    const next = words[at + 1];
    // A code cut with a space may be joined to the next one: `OR 41.2-C2140-3`.
    const alone = joined(word);
    const withNext = alone || next === undefined ? null : joined(`${word}${next}`);
    apart.push(...(alone ?? withNext ?? [word]));
    if (withNext) at += 1;
  }
  return apart.join(' ');
}

/** The chance of a character where a template has a class: any digit, or any letter. */
const CLASS_CHANCE: Readonly<Record<string, number>> = { d: 1 / 10, l: 1 / 26 };
const ANY_CHARACTER = 1 / 36;

/**
 * The chance of seeing this where a code stands that is not in the book: any code of a maker's pattern, the
 * makers equally likely, or any string at all where no pattern fits. Worn places say nothing.
 */
export function unknownCodeLikelihood(text: string, templates: readonly string[]): number {
  const readable = [...text].filter((character) => character !== '?').length;
  const byPattern = templates.map((template) => {
    const classes = [...template.replace(/[^A-Za-z0-9]/g, '')];
    if (classes.length !== text.length) return 0;
    return classes.reduce((chance, cls, index) => {
      const seen = text[index] ?? '';
      if (seen === '?') return chance;
      return chance * (CLASS_CHANCE[cls] ?? Math.exp(logLikelihood(seen, cls)));
    }, 1);
  });
  const pattern = byPattern.reduce((sum, chance) => sum + chance, 0) / Math.max(1, templates.length);
  return Math.max(pattern, ANY_CHARACTER ** readable);
}

function rank(
  seen: readonly string[],
  codes: readonly { id: string; makerId: string; code: string; formerCodes?: readonly string[] }[],
  templates: readonly string[],
): { candidates: CodeCandidate[]; notInBook: number } {
  if (seen.length === 0 || codes.length === 0) return { candidates: [], notInBook: 1 };
  const texts = seen.map((text) => ({ text, symbols: symbolsOf(text) }));
  const scored = codes.map((each) => {
    let best = { name: each.code, text: seen[0] ?? '', likelihood: -1 };
    for (const name of [each.code, ...(each.formerCodes ?? [])]) {
      const code = symbolsOf(name);
      for (const { text, symbols } of texts) {
        const likelihood = seenProbability(symbols, code);
        if (likelihood > best.likelihood) best = { name, text, likelihood };
      }
    }
    return { each, best, weight: ((1 - UNKNOWN_PRIOR) / codes.length) * best.likelihood };
  });
  const ofUnknown =
    UNKNOWN_PRIOR * Math.max(...seen.map((text) => unknownCodeLikelihood(bareCode(text), templates)));
  const total = scored.reduce((sum, { weight }) => sum + weight, ofUnknown);
  const candidates = scored
    .filter(({ weight }) => weight >= total * SHOWN)
    .map(({ each, best, weight }) => {
      const differing = differences(bareCode(best.text), bareCode(best.name));
      return {
        id: each.id,
        code: each.code,
        makerId: each.makerId,
        probability: weight / total,
        reasons: [
          ...(best.name === each.code ? [] : [`engraved with its former number ${best.name}`]),
          ...(differing.length === 0 ? ['every character agrees'] : differing),
        ],
      };
    })
    .sort((a, b) => b.probability - a.probability);
  return { candidates, notInBook: ofUnknown / total };
}

type Piece = ReturnType<typeof piecesOf>[number];

/** The stretches that fit the patterns of one meaning best. */
function bestFitting(pieces: readonly Piece[], meaning: EngravingPattern['meaning']): EngravingPiece[] {
  const of = pieces.filter((piece) => piece.meaning === meaning);
  const best = Math.min(...of.map((piece) => piece.misfit));
  return of.filter((piece) => piece.misfit === best).map(({ misfit: _, ...piece }) => piece);
}

function templatesOf(makers: readonly Maker[], meaning: EngravingPattern['meaning']): string[] {
  return makers.flatMap((maker) =>
    maker.patterns.filter((pattern) => pattern.meaning === meaning).map((pattern) => pattern.template),
  );
}

function rankCases(
  pieces: readonly EngravingPiece[],
  makers: readonly Maker[],
  caseTypes: Book['caseTypes'],
): ReturnType<typeof rank> {
  return rank([...new Set(pieces.map((piece) => piece.text))], caseTypes, templatesOf(makers, 'case'));
}

/** The case code an engraving holds, where one case of the book answers to it for certain; null otherwise. */
export function engravedCase(text: string, book: Book): CodeCandidate | null {
  const pieces = stretches(takenApart(text, book)).flatMap((stretch) => piecesOf(stretch, book.makers));
  const [best] = rankCases(bestFitting(pieces, 'case'), book.makers, book.caseTypes).candidates;
  return best && best.probability >= SURE ? best : null;
}

/**
 * What an engraving says: movement code, case code and serial, by the makers' own patterns. Worn characters are
 * typed as `?`; characters that worn engraving confuses (0/O, 1/I, 5/S, 8/B, 6/G, 2/Z …) are tolerated. Answers
 * with ranked candidates of the book, *not in the book* counted among them. `makerId` narrows to one maker.
 */
export function readEngraving(text: string, book: Book, makerId: string | null = null): EngravingReading {
  const working: WorkingLine[] = [];
  const makers = makerId === null ? book.makers : book.makers.filter((maker) => maker.id === makerId);
  const inScope = (each: { makerId: string }): boolean => makerId === null || each.makerId === makerId;
  const all = stretches(takenApart(text, book));
  if (all.length === 0) {
    return { verdict: 'not read', reasons: ['Nothing was entered.'], working, unexplained: [] };
  }
  const pieces = all.flatMap((stretch) => piecesOf(stretch, makers));
  const seenAs = (meaning: EngravingPattern['meaning']): EngravingPiece[] => bestFitting(pieces, meaning);
  const movementPieces = seenAs('movement');
  const casePieces = seenAs('case');
  const serialPieces = seenAs('serial');
  const calibres = book.calibres.filter(inScope);
  // A worn code may fit no pattern for want of a character: then every stretch is tried against the book.
  const movementTexts = movementPieces.length > 0 ? movementPieces.map((piece) => piece.text) : all;
  const movements = rank([...new Set(movementTexts)], calibres, templatesOf(makers, 'movement'));
  const cases = rankCases(casePieces, makers, book.caseTypes.filter(inScope));
  const found = [...movementPieces, ...casePieces, ...serialPieces];
  if (found.length === 0 && movements.candidates.length === 0) {
    return {
      verdict: 'not read',
      reasons: [
        'No part of this matches a code pattern in the book. Enter what you see, with ? for each worn character.',
      ],
      working,
      unexplained: all,
    };
  }
  for (const piece of found) {
    working.push({
      what: `“${piece.text}”`,
      rule: `pattern ${piece.template} of ${makers.find((maker) => maker.id === piece.makerId)?.name ?? piece.makerId}`,
      figures: `${piece.meaning === 'serial' ? 'serial number' : `${piece.meaning} code`}`,
    });
  }
  for (const candidate of movements.candidates.slice(0, 3)) {
    working.push({
      what: `movement ${candidate.code}`,
      rule: 'chance of reading this if that is engraved, compared with the other candidates',
      figures: `${percent(candidate.probability)}: ${candidate.reasons.join('; ')}`,
      source: 'character model: 94 % seen right, 4 % taken for a twin',
    });
  }
  const top = movements.candidates[0];
  return {
    verdict: 'read',
    pieces: found,
    movements: movements.candidates,
    cases: cases.candidates,
    serial: serialPieces[0]?.text ?? null,
    movementNotInBook: movements.notInBook,
    reasons: top
      ? [`${top.code}: ${top.reasons.join('; ')}.`]
      : ['A code was read, but no movement in the book matches it.'],
    working,
  };
}
