import { figure, type Judged } from '../judgement';
import type { Calibre, FunctionKind } from '../movements';
import { dayInWords, minutesBetween, nextDateCorrection } from '../time';

export interface ProofStep {
  readonly what: FunctionKind;
  readonly how: string;
}

/** What of a movement decides what is proved and how long it is watched: of the book, or as it was seen. */
export type ProvedMovement = Pick<Calibre, 'functions' | 'stepIntervalS'> &
  Partial<Pick<Calibre, 'lowSupplySignal' | 'charge'>>;

/** A display without hands has none to pass, and no crown to find midnight with. */
const onDisplayAlone = (functions: Calibre['functions']): boolean =>
  functions.includes('digital display') && !functions.includes('hands');

/** Whether day and date of a movement are set with the crown, and midnight has to be found. */
export function setsByHands(functions: Calibre['functions']): boolean {
  return functions.includes('date') && !onDisplayAlone(functions);
}

const HOW: Readonly<Record<FunctionKind, (calibre: ProvedMovement) => string>> = {
  hands: () => 'Hands pass each other and the dial all the way round.',
  'seconds hand': ({ stepIntervalS }) =>
    stepIntervalS === null
      ? 'Steps evenly, by whatever its step is, and lands on its marks.'
      : `Steps every ${figure(stepIntervalS)} s and lands on its marks.`,
  date: ({ functions }) =>
    onDisplayAlone(functions)
      ? 'The date shows on the display and is set with the pushers.'
      : 'The date changes at midnight: find midnight with the crown before setting it.',
  day: ({ functions }) =>
    onDisplayAlone(functions)
      ? 'The weekday shows on the display and follows its date.'
      : 'The weekday changes with the date and shows the right language.',
  light: () => 'The light comes on and goes out again.',
  alarm: () => 'The alarm sounds at the full hour set.',
  chronograph: () => 'Start, stop, reset: every counter returns to zero.',
  'digital display': () => 'Every segment shows at power-up.',
  'low-supply signal': (calibre) =>
    `Known by: ${calibre.lowSupplySignal ?? 'none'}. It must be gone with the new cell.`,
  charging: (calibre) =>
    calibre.charge?.by === 'rotor'
      ? 'The rotor turns freely, and the steps become normal as it is worn.'
      : 'Steps normally when lit, signals low when shaded; if it does neither, look at light cell and tabs.',
};

/** What has to be proved working on this calibre, in the order the hand does it. */
export function functionsToProve(calibre: ProvedMovement): ProofStep[] {
  return calibre.functions.map((what) => ({ what, how: HOW[what](calibre) }));
}

/** Hours shown by the movement between which the date must not be quick-set. */
export const FORBIDDEN_QUICK_SET = { from: '20:00', to: '02:00' } as const;

export type SettingAdvice = Judged<'set so' | 'not yet known'> & { readonly steps: readonly string[] };

/**
 * How to set this calibre, and when its date next needs a hand. `day` is the shop's calendar day.
 * Source: bench practice; the calendar for the date wheel of 31 places.
 */
export function settingAdvice(
  calibre:
    | (Pick<Calibre, 'functions'> & {
        /** Null: not known. */
        readonly dateQuickSet: boolean | null;
      })
    | null,
  day: string,
): SettingAdvice {
  if (!calibre) {
    return {
      verdict: 'not yet known',
      steps: [],
      reasons: ['The movement decides how it is set: identify it first.'],
      working: [],
    };
  }
  const hasDate = calibre.functions.includes('date');
  const display = calibre.functions.includes('digital display');
  const correction = nextDateCorrection(day);
  const steps = [
    ...(hasDate && !display
      ? [
          'Turn on until the date jumps: that is midnight. Only then set the hour.',
          calibre.dateQuickSet !== false
            ? `${calibre.dateQuickSet === null ? 'Whether its date sets quickly is not known. If it does: q' : 'Q'}uick-set the date only while the hands show a time outside ${FORBIDDEN_QUICK_SET.from}–${FORBIDDEN_QUICK_SET.to}: the date teeth are engaged then and can break.`
            : 'No quick-set: the date goes forward by midnights only.',
        ]
      : []),
    ...(display ? ['Set hour, minute, day and date with the pushers, seconds last on the signal.'] : []),
    ...(display
      ? []
      : [
          calibre.functions.includes('seconds hand')
            ? 'Stop at zero seconds, bring the minute hand back onto its mark to take up the play, crown home on the signal.'
            : 'Bring the minute hand back onto its mark to take up the play, crown home on the signal.',
        ]),
  ];
  return {
    verdict: 'set so',
    steps,
    reasons:
      hasDate && !display
        ? [
            `The date needs moving on by hand next on ${dayInWords(correction.day)}, by ${correction.extraDays}.`,
          ]
        : ['No date wheel to correct.'],
    working:
      hasDate && !display
        ? [
            {
              what: 'next date correction',
              rule: 'the 1st after a month of fewer than 31 days',
              figures: `from ${dayInWords(day)} → ${dayInWords(correction.day)}`,
              source: 'calendar',
            },
          ]
        : [],
  };
}

export type RunVerdict = Judged<'keeps time' | 'off' | 'stopped' | 'still running' | 'not begun'> & {
  /** Between the two readings of the signal, hours. */
  readonly hours: number | null;
  /** Gained over the run, seconds; negative when it lost. */
  readonly gainedS: number | null;
  readonly secondsPerDay: number | null;
};

/** A quartz watch off by more than this a day is not one that only wants a cell. */
const OFF_FROM_S_PER_DAY = 2;
const DAY_S = 86_400;
const HALF_DAY_S = DAY_S / 2;

/** Seconds after midnight of `HH:mm` or `HH:mm:ss`. */
function secondsOf(clock: string): number {
  const [hours = 0, minutes = 0, seconds = 0] = clock.split(':').map(Number);
  return hours * 3600 + minutes * 60 + seconds;
}

/**
 * What a proving run says: the hands' reading at start and end against the signal, so that a watch without a
 * seconds hand is proved too. Hands say nothing of morning and evening, so the gain is taken within ±6 hours.
 * A reading in whole minutes is good to half a minute, and a difference inside that is not called one.
 */
export function judgeRun(
  began: { readonly shows: string; readonly atUtc: string } | null,
  ended: { readonly shows: string; readonly atUtc: string; readonly stillRuns: boolean } | null,
): RunVerdict {
  const none = { hours: null, gainedS: null, secondsPerDay: null, working: [] };
  if (!began)
    return { ...none, verdict: 'not begun', reasons: ['Write down what the hands show, and let it run.'] };
  if (!ended)
    return { ...none, verdict: 'still running', reasons: [`Began with the hands at ${began.shows}.`] };
  const hours = minutesBetween(began.atUtc, ended.atUtc) / 60;
  if (!ended.stillRuns)
    return { ...none, hours, verdict: 'stopped', reasons: [`It stopped within ${figure(hours, 1)} h.`] };
  const elapsedS = hours * 3600;
  const shownS = secondsOf(ended.shows) - secondsOf(began.shows);
  const apart = (((shownS - elapsedS) % HALF_DAY_S) + HALF_DAY_S) % HALF_DAY_S;
  const gainedS = Math.round(apart > HALF_DAY_S / 2 ? apart - HALF_DAY_S : apart);
  const finestS = [began.shows, ended.shows].every((shows) => shows.split(':').length === 3) ? 1 : 30;
  const secondsPerDay = hours > 0 ? (gainedS / elapsedS) * DAY_S : null;
  const off =
    secondsPerDay !== null && Math.abs(gainedS) > 2 * finestS && Math.abs(secondsPerDay) > OFF_FROM_S_PER_DAY;
  return {
    verdict: off ? 'off' : 'keeps time',
    hours,
    gainedS,
    secondsPerDay,
    reasons: [
      off
        ? `It ${gainedS > 0 ? 'gained' : 'lost'} ${figure(Math.abs(gainedS), 0)} s in ${figure(hours, 1)} h.`
        : `Ran ${figure(hours, 1)} h; what the hands differ is within ${2 * finestS} s of the reading, or ${OFF_FROM_S_PER_DAY} s a day.`,
    ],
    working: [
      {
        what: 'gain over the run',
        rule: 'hands at the end − hands at the start − time gone by, within ±6 h; each reading good to half its smallest step',
        figures: `${ended.shows} − ${began.shows} − ${figure(hours, 2)} h = ${figure(gainedS, 0)} s`,
      },
    ],
  };
}

/** A movement is watched for this many of its own steps, and for so long at least, before it is called running. */
const STEPS_WATCHED = 6;
const LEAST_WATCHED_S = 20;

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
