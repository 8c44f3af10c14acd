import { type Admission, refuse } from './admission';

/** A clock at the bench may be ahead of the shop's by so much. */
const AHEAD_MS = 10 * 60_000;

/**
 * Whether a time an entry or a file tells lies ahead of the shop's clock by more than clocks differ: nothing happens in the
 * future. Null where it does not. Source: ours.
 */
export function judgeAhead(atUtc: string, nowUtc: string): Extract<Admission, { verdict: 'refused' }> | null {
  return Date.parse(atUtc) <= Date.parse(nowUtc) + AHEAD_MS
    ? null
    : refuse(
        [`The record is dated ${atUtc}, but it is only ${nowUtc} by this counter’s clock.`],
        'Set the clock that is wrong, on this device or on the server, then record it again.',
      );
}
