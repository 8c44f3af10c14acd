import type { JobFacts } from './entry';

/** How the case of a watch stands, as far as anybody recorded it. */
export type Openness = 'never opened' | 'open' | 'closed';

/** What nobody does through a closed back. */
function firstInside({
  back,
  cellsFound,
  cellsFitted,
  putBack,
  accumulator,
}: Pick<Readonly<JobFacts>, 'back' | 'cellsFound' | 'cellsFitted' | 'putBack' | 'accumulator'>):
  string | null {
  if (back !== null) return back.occurredAt;
  const inside = [...cellsFound.values(), ...cellsFitted.values(), ...putBack.values()];
  return (
    [...inside, ...(accumulator === null ? [] : [accumulator])]
      .map(({ occurredAt }) => occurredAt)
      .sort()[0] ?? null
  );
}

/**
 * Whether a watch was never opened, lies open, or was closed again. Nobody need have recorded the opening: where a cell was
 * seen or handled, the watch was open. Source: ours.
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
