import { figure } from '../craft/judgement';
import { minutesBetween } from '../craft/time';

/** So far apart the time of the bench and that of the server may be, minutes. Ours. */
const AS_ONE_MIN = 10;
const HOUR_MIN = 60;
const DAY_MIN = 24 * HOUR_MIN;

function spanWords(minutes: number): string {
  if (minutes < 2 * HOUR_MIN) return `${minutes} min`;
  return minutes < 2 * DAY_MIN
    ? `${figure(minutes / HOUR_MIN, 0)} h`
    : `${figure(minutes / DAY_MIN, 0)} days`;
}

/**
 * Where an entry says it happened more than ten minutes from when it was put on record, that, in words: it waited for the
 * server, or the bench's clock is off. Null where both agree, and while it waits.
 */
export function clockApart({
  occurredAt,
  recordedAt,
}: {
  readonly occurredAt: string;
  readonly recordedAt: string | null;
}): string | null {
  if (recordedAt === null) return null;
  const minutes = minutesBetween(occurredAt, recordedAt);
  if (Math.abs(minutes) <= AS_ONE_MIN) return null;
  return minutes < 0
    ? `the bench clock is ${spanWords(-minutes)} ahead of the server`
    : `recorded ${spanWords(minutes)} later (it waited, or the bench clock is behind)`;
}
