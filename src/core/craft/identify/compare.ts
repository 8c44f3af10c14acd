import { figure } from '../judgement';
import type { Calibre } from '../movements';
import { expectedMeasure, expectedPick } from './hypotheses';
import { CALIPER_SD_MM, type Look, LOOK_NAMES, LOOKS, type Effort } from './looks';

/** What two movements differ in that can be seen or measured. */
export interface Difference {
  readonly look: Look;
  readonly words: string;
  readonly effort: Effort;
  readonly first: string;
  readonly second: string;
}

type CellSize = Parameters<typeof expectedMeasure>[2];

/** A caliper tells two sizes apart from here, mm: four standard deviations. */
const APART_MM = 4 * CALIPER_SD_MM;

/**
 * The differences between two movements that can be seen, the easiest look first. What the book does not say of one of
 * them is no difference. Revisions of one calibre differ in what tells them apart.
 */
export function compareMovements(
  [first, second]: readonly [Calibre, Calibre],
  signOf: (makerId: string) => string | null,
  cellSize: CellSize,
  revisions: readonly [string | null, string | null] = [null, null],
): Difference[] {
  const looks = LOOK_NAMES.flatMap((look): Difference[] => {
    const { as, words, effort } = LOOKS[look];
    if (as === 'mm') {
      const [a, b] = [expectedMeasure(first, look, cellSize), expectedMeasure(second, look, cellSize)];
      return a === null || b === null || Math.abs(a - b) < APART_MM
        ? []
        : [{ look, words, effort, first: `${figure(a)} mm`, second: `${figure(b)} mm` }];
    }
    if (look === 'mark')
      return first.code === second.code
        ? []
        : [{ look, words, effort, first: first.code, second: second.code }];
    const [a, b] = [
      expectedPick(first, look, signOf(first.makerId)),
      expectedPick(second, look, signOf(second.makerId)),
    ].map((values) => values?.join(' or ') ?? '');
    return !a || !b || a === b ? [] : [{ look, words, effort, first: a, second: b }];
  });
  const seenBy = (calibre: Calibre, name: string | null): string =>
    calibre.revisions.find((each) => each.name === name)?.seenBy ?? '';
  const [a, b] = [seenBy(first, revisions[0]), seenBy(second, revisions[1])];
  const own: Difference[] =
    first.id === second.id && a !== b
      ? [{ look: 'revision', words: 'revision', effort: 'glance', first: a, second: b }]
      : [];
  return [...own, ...looks];
}
