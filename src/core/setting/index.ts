import type { Judged } from '../judgement';
import type { Calibre, FunctionKind } from '../movements';
import { dayInWords, nextDateCorrection } from '../time';

export interface ProofStep {
  readonly what: FunctionKind;
  readonly how: string;
}

const HOW: Readonly<Record<FunctionKind, (calibre: Calibre) => string>> = {
  hands: () => 'Hands pass each other and the dial all the way round.',
  'seconds hand': (calibre) => `Steps every ${calibre.stepIntervalS ?? 1} s and lands on its marks.`,
  date: () => 'The date changes at midnight: find midnight with the crown before setting it.',
  day: () => 'The weekday changes with the date and shows the right language.',
  light: () => 'The light comes on and goes out again.',
  alarm: () => 'The alarm sounds at the full hour set.',
  chronograph: () => 'Start, stop, reset: every counter returns to zero.',
  'digital display': () => 'Every segment shows at power-up.',
  'low-supply signal': (calibre) =>
    `Known by: ${calibre.lowSupplySignal ?? 'none'}. It must be gone with the new cell.`,
};

/** What has to be proved working on this calibre, in the order the hand does it. */
export function functionsToProve(calibre: Calibre): ProofStep[] {
  return calibre.functions.map((what) => ({ what, how: HOW[what](calibre) }));
}

/** Hours shown by the movement between which the date must not be quick-set. */
export const FORBIDDEN_QUICK_SET = { from: '20:00', to: '02:00' } as const;

export type SettingAdvice = Judged<'set so' | 'not yet known'> & { readonly steps: readonly string[] };

/**
 * How to set this calibre, and when its date next needs a hand. `day` is the shop's calendar day.
 * Source: bench practice; the calendar for the date wheel of 31 places.
 */
export function settingAdvice(calibre: Calibre | null, day: string): SettingAdvice {
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
          calibre.dateQuickSet
            ? `Quick-set the date only while the hands show a time outside ${FORBIDDEN_QUICK_SET.from}–${FORBIDDEN_QUICK_SET.to}: the date teeth are engaged then and can break.`
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
    working: hasDate
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

/** A movement is watched for this many of its own steps, and for so long at least, before it is called running. */
const STEPS_WATCHED = 6;
const LEAST_WATCHED_S = 20;

/** How long to watch, in seconds: several steps of this movement, since some step only every minute. */
export function watchSeconds(calibre: Pick<Calibre, 'stepIntervalS'> | null): number {
  return Math.max(LEAST_WATCHED_S, (calibre?.stepIntervalS ?? 1) * STEPS_WATCHED);
}
