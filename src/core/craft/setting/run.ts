import { figure, type Judged } from '../judgement';
import { daysBetween, noMoments } from '../time';
import type { ProvedMovement } from './proofs';

/** What a watch is left running for. */
export const RUN_PURPOSES = ['that it runs', 'how it keeps time'] as const;
export type RunPurpose = (typeof RUN_PURPOSES)[number];

export type RunVerdict = Judged<'keeps time' | 'off' | 'runs' | 'stopped' | 'still running' | 'not begun'> & {
  /** Between the two readings of the signal, hours. */
  readonly hours: number | null;
  /** Gained over the run, seconds; negative when it lost. */
  readonly gainedS: number | null;
  readonly secondsPerDay: number | null;
  /** How far the rate may be off for the coarseness of the readings, seconds a day either way. */
  readonly withinSPerDay: number | null;
};

/** What the hands showed at an instant; blank where nobody read them. */
export interface HandsRead {
  readonly shows: string;
  readonly atUtc: string;
}

/** A quartz watch off by more than this a day is not one that only wants a cell. */
const OFF_FROM_S_PER_DAY = 2;
const DAY_S = 86_400;
/** Nobody leaves a watch running here for longer, and hands that went round so often tell no rate. */
const LONGEST_RUN_DAYS = 366;
const HALF_DAY_S = DAY_S / 2;
/** How far a reading may be off, seconds: minutes are read down by some and to the nearest by others. */
const GOOD_TO_S = { minute: 60, second: 0.5 } as const;

/** Seconds after midnight of `HH:mm` or `HH:mm:ss`. */
function secondsOf(clock: string): number {
  const [hours = 0, minutes = 0, seconds = 0] = clock.split(':').map(Number);
  return hours * 3600 + minutes * 60 + seconds;
}

const goodToS = (shows: string): number =>
  shows.split(':').length === 3 ? GOOD_TO_S.second : GOOD_TO_S.minute;

const clockOf = (seconds: number): string =>
  seconds < 90
    ? `${figure(seconds, 0)} s`
    : seconds < 5400
      ? `${figure(seconds / 60, 1)} min`
      : `${figure(seconds / 3600, 1)} h`;

/** A run whose hands were read at both ends and left alone. */
interface ReadRun {
  readonly began: HandsRead;
  readonly ended: HandsRead;
  /** That it ran, and for how long. */
  readonly ran: string;
  readonly elapsedS: number;
  readonly exactS: number;
  readonly withinS: number;
}

/** Whether such a run keeps time, is off, or is too short to tell. */
function judgeRate({ began, ended, ran, elapsedS, exactS, withinS }: ReadRun): RunVerdict {
  const aDay = elapsedS > 0 ? DAY_S / elapsedS : null;
  const [secondsPerDay, withinSPerDay] = aDay === null ? [null, null] : [exactS * aDay, withinS * aDay];
  const hours = elapsedS / 3600;
  const gainedS = Math.round(exactS);
  const measured = { hours, gainedS, secondsPerDay, withinSPerDay };
  const working = [
    {
      what: 'gain over the run',
      rule: 'hands at the end − hands at the start − time gone by, within ±6 h; a reading in minutes good to a minute, in seconds to half a second',
      figures: `${ended.shows} − ${began.shows} − ${figure(hours, 2)} h = ${figure(gainedS, 0)} s, within ${figure(withinS, 0)} s`,
    },
  ];
  const rate =
    secondsPerDay === null || withinSPerDay === null
      ? ''
      : `${figure(secondsPerDay, 1)} s a day, ${figure(withinSPerDay, 1)} s either way`;
  if (secondsPerDay === null || withinSPerDay === null)
    return { ...measured, working, verdict: 'runs', reasons: [`${ran}: too short to give a rate.`] };
  const size = Math.abs(secondsPerDay);
  if (size - withinSPerDay > OFF_FROM_S_PER_DAY)
    return {
      ...measured,
      working,
      verdict: 'off',
      reasons: [
        `It ${gainedS > 0 ? 'gained' : 'lost'} ${figure(Math.abs(gainedS), 0)} s in ${clockOf(elapsedS)}: ${rate}.`,
      ],
    };
  if (size + withinSPerDay <= OFF_FROM_S_PER_DAY)
    return { ...measured, working, verdict: 'keeps time', reasons: [`${ran}: ${rate}.`] };
  const needsH = (withinS / OFF_FROM_S_PER_DAY) * 24;
  return {
    ...measured,
    working,
    verdict: 'runs',
    reasons: [
      `${ran}; the readings give the rate to ${figure(withinSPerDay, withinSPerDay < 10 ? 1 : 0)} s a day and no better.`,
      ...(hours < needsH
        ? [
            `With such readings, ${clockOf(needsH * 3600)} or more show whether it is within ${OFF_FROM_S_PER_DAY} s a day.`,
          ]
        : []),
    ],
  };
}

/**
 * What a run says: the hands' reading at start and end against the signal, so that a watch without a seconds hand is proved
 * too. Hands say nothing of morning and evening, so the gain is taken within ±6 hours. A reading in
 * minutes is good to a minute, in seconds to half a second, and the rate to the two together: *keeps time* and *off* are said only where the whole of that lies within
 * or beyond 2 s a day, else it ran and no more. Hands that stand where they stood have stopped, whatever was thought.
 * `disturbed`: what was done to the crown meanwhile; no rate is told then. Source: bench practice.
 *
 * @example
 * judgeRun(
 *   { shows: '10:00:00', atUtc: '2026-03-17T09:00:00.000Z' },
 *   { shows: '10:00:16', atUtc: '2026-03-21T09:00:00.000Z', stillRuns: true },
 * ) // { verdict: 'off', gainedS: 16, secondsPerDay: 4.0 }
 */
export function judgeRun(
  began: HandsRead | null,
  ended: (HandsRead & { readonly stillRuns: boolean }) | null,
  disturbed: string | null = null,
): RunVerdict {
  const none = { hours: null, gainedS: null, secondsPerDay: null, withinSPerDay: null, working: [] };
  if (!began)
    return { ...none, verdict: 'not begun', reasons: ['Record what the hands show, and let it run.'] };
  if (!ended)
    return {
      ...none,
      verdict: 'still running',
      reasons: [began.shows === '' ? 'Watched.' : `Began with the hands at ${began.shows}.`],
    };
  const wrong = noMoments([
    ['When it began', began.atUtc],
    ['When it ended', ended.atUtc],
  ]);
  if (wrong.length > 0) return { ...none, verdict: 'not begun', reasons: wrong };
  if (ended.atUtc < began.atUtc)
    return { ...none, verdict: 'not begun', reasons: ['The end of the run is before its start.'] };
  if (daysBetween(began.atUtc, ended.atUtc) > LONGEST_RUN_DAYS)
    return {
      ...none,
      verdict: 'not begun',
      reasons: [`A run cannot last more than ${LONGEST_RUN_DAYS} days. Correct its start or end.`],
    };
  const elapsedS = (Date.parse(ended.atUtc) - Date.parse(began.atUtc)) / 1000;
  const hours = elapsedS / 3600;
  if (!ended.stillRuns)
    return { ...none, hours, verdict: 'stopped', reasons: [`It stopped within ${clockOf(elapsedS)}.`] };
  const ran = `Ran ${clockOf(elapsedS)}`;
  if (began.shows === '' || ended.shows === '')
    return { ...none, hours, verdict: 'runs', reasons: [`${ran}; the hands were not read at both ends.`] };
  const shownS = secondsOf(ended.shows) - secondsOf(began.shows);
  const apart = (((shownS - elapsedS) % HALF_DAY_S) + HALF_DAY_S) % HALF_DAY_S;
  const exactS = apart > HALF_DAY_S / 2 ? apart - HALF_DAY_S : apart;
  if (!Number.isFinite(exactS))
    return {
      ...none,
      hours,
      verdict: 'runs',
      reasons: ['The recorded time is not a time of day, so there is no rate.'],
    };
  const withinS = goodToS(began.shows) + goodToS(ended.shows);
  // Where they stood, within the reading; a day later they may have gone round.
  const stoodStill = Math.abs(exactS + elapsedS) <= withinS;
  if (disturbed === null && elapsedS > 2 * withinS && elapsedS < HALF_DAY_S / 2 && stoodStill)
    return {
      ...none,
      hours,
      verdict: 'stopped',
      reasons: [`${began.shows} and ${ended.shows}: in ${clockOf(elapsedS)} the hands did not move on.`],
    };
  if (disturbed !== null)
    return {
      ...none,
      hours,
      verdict: 'runs',
      reasons: [`${ran}; ${disturbed}, so the readings give no rate.`],
    };
  return judgeRate({ began, ended, ran, elapsedS, exactS, withinS });
}

/** A movement is watched for this many of its own steps, and for so long at least, before it is called running. */
const STEPS_WATCHED = 6;
export const LEAST_WATCHED_S = 20;

/** Without a known step the minute hand must be seen to move. */
const UNKNOWN_STEP_S = 60;

/**
 * How long to watch, in seconds: several steps of this movement, since some step only every minute. Where no step is
 * known a seconds hand shows itself within the least; without one it takes a full minute.
 */
export function watchSeconds(movement: Pick<ProvedMovement, 'stepIntervalS' | 'functions'> | null): number {
  const step = movement?.stepIntervalS ?? null;
  if (step !== null) return Math.max(LEAST_WATCHED_S, step * STEPS_WATCHED);
  const shows = movement?.functions ?? [];
  const seenAtOnce =
    shows.includes('seconds hand') || (shows.includes('digital display') && !shows.includes('hands'));
  return seenAtOnce ? LEAST_WATCHED_S : UNKNOWN_STEP_S;
}
