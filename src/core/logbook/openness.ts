import type { EntryKind, JobFacts } from './entry';

/** How the case of a watch stands, as far as anybody recorded it. */
export type Openness = 'never opened' | 'open' | 'closed';

/** Entries of what nobody does through a closed back: those `firstInside` reads. */
const INSIDE: readonly EntryKind[] = [
  'open.back',
  'open.seals',
  'open.inside-serial',
  'cell.found',
  'cell.fitted',
  'cell.put-back',
  'cell.accumulator',
  'seal.groove',
  'seal.old-ring',
];

/** Whether an entry of this kind may be the first to tell that a watch lies open, or what stands inside its back. */
export function tellsOfInside(kind: EntryKind): boolean {
  return INSIDE.includes(kind);
}

/** When something was first done that nobody does through a closed back; null where nothing was. */
function firstInside({
  back,
  cellsFound,
  cellsFitted,
  putBack,
  accumulator,
  seals,
  insideSerial,
  groove,
  oldRing,
}: Readonly<JobFacts>): string | null {
  if (back !== null) return back.occurredAt;
  const cells = [...cellsFound.values(), ...cellsFitted.values(), ...putBack.values()];
  const once = [accumulator, seals, insideSerial, groove, oldRing].filter((each) => each !== null);
  return [...cells, ...once].map(({ occurredAt }) => occurredAt).sort()[0] ?? null;
}

/**
 * Whether a watch was never opened, lies open, or was closed again. Nobody need have recorded the opening: where a cell
 * was seen or handled, a seal counted or a ring measured, the watch was open. Source: ours.
 */
export function openness(facts: Readonly<JobFacts>): Openness {
  if (facts.closed !== null) return 'closed';
  return firstInside(facts) === null ? 'never opened' : 'open';
}

/** A watch that lies open: since when, and the serial inside its back, empty where none stands there. */
export interface LyingOpen {
  readonly sinceUtc: string;
  readonly insideSerial: string;
}

/** A job's watch while it lies open, or null. */
export function lyingOpen(facts: Readonly<JobFacts>): LyingOpen | null {
  const sinceUtc = firstInside(facts);
  return openness(facts) === 'open' && sinceUtc !== null
    ? { sinceUtc, insideSerial: facts.insideSerial?.payload.serial ?? '' }
    : null;
}

/**
 * Whether one of two watches was opened while the other, with a serial inside its back, lay open: then their backs may
 * be exchanged. The serial may be read after both are open. Source: bench practice.
 */
export function openedBeside(one: LyingOpen, other: LyingOpen): boolean {
  const besideOpen = (first: LyingOpen, second: LyingOpen): boolean =>
    first.insideSerial !== '' && second.sinceUtc >= first.sinceUtc;
  return besideOpen(one, other) || besideOpen(other, one);
}
