import { type Book, drainNeeded } from '../../craft/book';
import type { GuidedMovement } from '../../craft/fitting';
import { type Look, lookSpec, unknownCalibre } from '../../craft/identify';
import { type HoldKind, HOLD_KINDS } from '../../craft/movements';
import type { JobState } from '../../logbook';
import { evidenceOfJob } from './evidenceOfJob';

/** A movement that is not in the book, as far as it was seen. */
export interface SeenMovement extends Omit<
  GuidedMovement,
  'recipes' | 'aboveCell' | 'coilsSeen' | 'contactOfRevision'
> {
  /** How the cell is held; null where nobody said. */
  readonly heldBy: HoldKind | null;
  /** Coils counted, wherever they lie; null where nobody counted. */
  readonly coilCount: number | null;
  /** Whether somebody looked for what draws heavily (light, alarm, chronograph) and saw that nothing does. */
  readonly drawsLittle: boolean;
  /** Whether nobody looked yet whether it has a display or counters. */
  readonly notLookedAt: boolean;
  /** What would have to be looked at for the rest, in words. */
  readonly asks: readonly string[];
  /** The same of what is proved and watched alone. */
  readonly asksToProve: readonly string[];
}

/** What of a movement decides how a cell is changed and what is proved. */
const DECIDES: readonly Look[] = ['heldBy', 'coils', 'display', 'seconds', 'date', 'day', 'counters', 'step'];
/** What of it the cell alone asks for. */
const OF_THE_CELL: readonly Look[] = ['heldBy', 'coils'];
/** A watch without a display has no hands only where it has one. */
const OF_HANDS: readonly Look[] = ['seconds', 'step'];

/** A movement as it was seen at the bench, where the book does not know it: nothing of it is made up. */
export function seenMovement(state: JobState, book: Book): SeenMovement {
  const seen = evidenceOfJob(state, book).flatMap((each) => (each.seen ? [each.seen] : []));
  const valueOf = (look: Look): string | null => {
    const value = seen.find((each) => each.look === look)?.value;
    return typeof value === 'string' ? value : null;
  };
  const known = unknownCalibre(seen, book);
  const built = known.build({
    code: '',
    makerId: '',
    cellCode: '',
    widthMm: known.widthMm,
    currentUA: null,
  });
  const displayOnly = !built.functions.includes('hands');
  const counted = valueOf('coils');
  const lightOrAlarm = state.facts.complaint?.payload.picked.includes('light or alarm fails first') ?? false;
  const unseen = DECIDES.filter(
    (look) => valueOf(look) === null && !(displayOnly && OF_HANDS.includes(look)),
  );
  const functions = [
    ...built.functions,
    ...(Number(valueOf('counters') ?? 0) > 0 ? (['chronograph'] as const) : []),
    // The owner knows of one of them, and either draws heavily.
    ...(lightOrAlarm ? (['light', 'alarm'] as const) : []),
  ];
  return {
    ...built,
    functions,
    // A display often has a light or an alarm behind it that nobody has tried yet.
    drawsLittle:
      drainNeeded({ functions }) === 'low' && valueOf('counters') !== null && valueOf('display') === 'no',
    notLookedAt: valueOf('display') === null || valueOf('counters') === null,
    heldBy: HOLD_KINDS.find((kind) => kind === valueOf('heldBy')) ?? null,
    coilCount: counted === null ? null : Number(counted),
    asks: unseen.map((look) => lookSpec(look).words),
    asksToProve: unseen.filter((look) => !OF_THE_CELL.includes(look)).map((look) => lookSpec(look).words),
  };
}
