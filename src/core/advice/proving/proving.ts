import type { Book } from '../../craft/book';
import type { Calibre } from '../../craft/movements';
import { changeOverOf, type ProofStep, type QuickSet, type SetMovement } from '../../craft/setting';
import { hasCrown, type JobState, proofsOf, ranBeforeClosing, seenRunning, openness } from '../../logbook';
import { seenMovement } from '../identify';

/** What of this watch is proved: of its movement in the book, or as it was seen, named or not, and what the job adds. */
export function proofSteps(state: JobState, book: Book): readonly ProofStep[] {
  return proofsOf(state.facts, state.calibre ?? seenMovement(state, book));
}

/** The movement as it is set; null while nobody named it. Of one that is not in the book only what was seen is known. */
export function movementToSet(state: JobState, book: Book): SetMovement | null {
  const { calibre, facts } = state;
  const crown = hasCrown(state);
  if (calibre) return { ...calibre, changeOver: changeOverOf(calibre.changeOver), hasCrown: crown };
  if (!facts.movement) return null;
  const seen = seenMovement(state, book);
  return {
    functions: seen.functions,
    dial: [],
    recipes: [],
    cautions: [],
    dateQuickSet: null,
    changeOver: null,
    hasCrown: crown,
  };
}

/** Whether a watch is seen running within a breath; where not, the clock says how long it takes. */
export function runsBySight(
  movement: { readonly functions: readonly string[]; readonly stepIntervalS: number | null } | null,
): boolean {
  return (
    movement !== null && movement.functions.includes('seconds hand') && (movement.stepIntervalS ?? 1) <= 1
  );
}

/** Whether a watch has a day of the week, as far as anybody knows: one not in the book may have one nobody saw. */
export function dayOf(
  toSet: Pick<SetMovement, 'functions'>,
  calibre: Calibre | null,
): 'has one' | 'has none' | 'not known' {
  if (toSet.functions.includes('day')) return 'has one';
  return calibre === null ? 'not known' : 'has none';
}

/** What of a calibre's calendar sets quickly, as the book has it; null where it is not in the book. */
export function quickSetInBook(
  calibre: Pick<Calibre, 'dateQuickSet' | 'dayQuickSet'> | null,
): QuickSet | null {
  if (calibre === null) return null;
  if (!calibre.dateQuickSet) return 'none';
  return calibre.dayQuickSet ? 'date and day' : 'date only';
}

/** Whether it is about to be closed without anybody having seen it run: what it would cost; null where it is not. */
export function notSeenRunning({ facts }: JobState): string | null {
  return openness(facts) === 'open' && seenRunning(facts) === null
    ? 'Watch it run before you close it. It may have no contact.'
    : null;
}

/** What to look at where it was seen not to run; null where it was not. Source: bench practice. */
export function whereItStands({ facts }: Pick<JobState, 'facts'>): string | null {
  return facts.runs?.payload.runs === false
    ? 'Check that the crown is pushed home: a pulled crown stops the motor. Then check the cell, its contacts and the insulator.'
    : null;
}

/** What of the order of proofs was missed or is coming, each with its reason; empty where all stands in order. */
export function orderOfProofs(state: JobState): readonly string[] {
  const { facts } = state;
  const { timeSet, outside } = facts;
  const crown = outside?.payload.proved['crown in every position'];
  const pulledSince =
    timeSet?.payload.set === true &&
    outside !== null &&
    (crown === 'works' || crown === 'does not work') &&
    (outside.sequence ?? Number.MAX_SAFE_INTEGER) > (timeSet.sequence ?? Number.MAX_SAFE_INTEGER);
  const unseen = notSeenRunning(state);
  return [
    ...(openness(facts) === 'open'
      ? [unseen ?? 'The watch is not closed yet. These checks are repeated after closing.']
      : []),
    ...(openness(facts) === 'closed' && ranBeforeClosing(facts) === null && seenRunning(facts) === null
      ? ['It was closed before anyone saw it run.']
      : []),
    ...(pulledSince
      ? ['The crown was pulled after the time was set. Compare the watch with the time signal again.']
      : []),
  ];
}
