import { figure } from '../judgement';
import type { LeakFit } from './fitLeak';
import { flowOf, flowWords, verdictOf } from './flow';
import { AMBIENT_BAR, insideAfter, LIMIT_AT_BAR, LIMIT_UG_PER_MIN, massFlow } from './law';
import {
  carried,
  flowLine,
  gaveTooLittle,
  judgedAt,
  LAW_SOURCE,
  type LeakEvidence,
  type LeakJudgement,
  type LeakSetting,
  LEAST_NOISE_UM,
  noVerdict,
  ofEachSize,
  OVER_NOISE,
  type TwoFigures,
} from './leakJudgement';
import type { DriftBound } from './leakModel';
import { type LeakRecord, NO_PRESSURE_BAR } from './record';

/** After the two figures were read crystal and case may still give by this share. Source: bench practice. */
const STILL_GIVES = 0.02;

const WITH_RECORD = {
  what: 'recovery',
  words:
    'Repeat the test and record all of it: first a baseline, then pressure, then venting. After venting, keep recording for as long as you did under pressure.',
} as const;
const AGAIN_WITH_RECORD = {
  what: 'again',
  words: 'Check both figures, or run the test again with a record.',
} as const;

/** A tester nobody ran blank drifts by no more than this share of the deflection in a minute. Source: bench practice. */
const UNKNOWN_DRIFT_SHARE = 0.015;
/** Swapped figures grow by no more than this: what grows more was pressed harder for the second figure. */
const SWAPPED_UP_TO = 1.6;

/**
 * Why two figures of a test contradict each other: under one pressure a deflection falls or stays. Null where noise, drift and what
 * the case still gives explain them. µm, drift taken off already.
 */
function twoFiguresContradict(
  { startUm, endUm, seconds }: TwoFigures,
  noiseUm: number,
  drift: DriftBound | null,
): readonly string[] | null {
  const size = Math.abs(startUm);
  const driftUm =
    drift === null ? (UNKNOWN_DRIFT_SHARE * size * seconds) / 60 : OVER_NOISE * drift.errorUmPerS * seconds;
  const roomUm = OVER_NOISE * Math.SQRT2 * noiseUm + driftUm;
  const kept = endUm / startUm;
  const end = `${figure(endUm, 2)} µm${drift === null ? '' : ' (drift removed)'}`;
  if ((kept - 1) * size > STILL_GIVES * size + roomUm)
    return [
      `The deflection grew from ${figure(startUm, 2)} to ${end}. While the pressure stands, it can only fall or stay the same.`,
      kept <= SWAPPED_UP_TO
        ? `Start and end were probably swapped. In the other order ${figure(100 / kept, 0)} % would be left.`
        : 'Start and end were probably swapped, or the pressure was raised between the two figures.',
    ];
  return kept * size < -roomUm
    ? [
        `The deflection went from ${figure(startUm, 2)} to ${end}, past its baseline. While the pressure stands, it never does that.`,
        'The second figure was probably read after venting, or has the wrong sign.',
      ]
    : null;
}

/** So many spreads to either side 95 of 100 lie within. */
const WITHIN_95 = 1.96;

/** The leak constant that leaves a share of the deflection after a time, with its ends. */
function fitOfShare(
  kept: number,
  spread: number,
  seconds: number,
  overBar: number,
): Pick<LeakFit, 'best' | 'within' | 'away' | 'from' | 'to'> {
  /** The share left after the time at a leak constant. */
  const left = (constant: number): number => {
    const outside = AMBIENT_BAR + overBar;
    return (outside - insideAfter(AMBIENT_BAR, outside, constant, seconds)) / overBar;
  };
  const constantAt = (share: number): number => {
    if (share >= 1) return 0;
    let [low, high] = [0, 50];
    for (let turn = 0; turn < 80; turn += 1) {
      const middle = (low + high) / 2;
      if (left(middle) > share) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  const best = constantAt(kept);
  return {
    best,
    within: WITHIN_95,
    // A case that still gives hides what it loses: the upper end leaves room for it.
    away: (constant: number): number =>
      constant >= best
        ? Math.max(0, kept - STILL_GIVES - left(constant)) / spread
        : Math.max(0, left(constant) - Math.min(1, kept)) / spread,
    from: constantAt(kept + WITHIN_95 * spread),
    to:
      kept - STILL_GIVES - WITHIN_95 * spread <= 0
        ? Infinity
        : constantAt(kept - STILL_GIVES - WITHIN_95 * spread),
  };
}

/** Whether a case is tight by the two figures a tester shows, read a time apart under one pressure. */
export function judgeTwoFigures(
  { startUm, endUm, seconds, overBar }: Exclude<LeakEvidence, { readonly record: LeakRecord }>,
  setting: LeakSetting,
): LeakJudgement {
  const judged = judgedAt(overBar);
  if (
    ![startUm, endUm, seconds, overBar].every(Number.isFinite) ||
    seconds <= 0 ||
    overBar <= -AMBIENT_BAR ||
    Math.abs(overBar) < NO_PRESSURE_BAR
  )
    return noVerdict(['No result: enter pressure, time and both deflections.'], overBar);
  const noise = Math.max(setting.testerNoiseUm, LEAST_NOISE_UM);
  const little = gaveTooLittle(startUm, overBar, noise, setting.usualUmPerBar);
  if (little !== null) return judged('no verdict', little.reasons, little.more);
  const drifted = setting.drift === null ? 0 : setting.drift.umPerS * seconds;
  const contradiction = twoFiguresContradict(
    { startUm, endUm: endUm - drifted, seconds },
    noise,
    setting.drift,
  );
  if (contradiction !== null)
    return judged('no verdict', contradiction, { settles: [AGAIN_WITH_RECORD], noiseUm: noise });
  const kept = (endUm - drifted) / startUm;
  const spread =
    Math.hypot(Math.SQRT2 * noise, (setting.drift?.errorUmPerS ?? 0) * seconds) / Math.abs(startUm);
  const fit = fitOfShare(kept, spread, seconds, overBar);
  const of = { volumeCm3: setting.volume.cm3, temperatureC: setting.temperatureC };
  const flow = flowOf(fit, setting.volume, massFlow(1, of, LIMIT_AT_BAR));
  const flowAtTest = flowOf(fit, setting.volume, Math.abs(massFlow(1, of, overBar)));
  const more = {
    flow,
    flowAtTest,
    stiffnessUmPerBar: Math.abs(startUm / overBar),
    noiseUm: noise,
    working: [
      {
        what: 'Leak constant from two figures',
        rule: 'the share of the deflection left after the time, by the law of the leak; noise by the tester’s book; crystal and case may still move by 2 %',
        figures: `${figure(100 * kept, 1)} % left after ${figure(seconds)} s at ${figure(overBar)} bar, known to ${figure(100 * fit.within * spread, 1)} %`,
        source: LAW_SOURCE,
      },
      flowLine(fit, setting, flow),
    ],
  };
  if (setting.volume.how === 'guessed') return judged(...ofEachSize(fit, setting, overBar, more));
  if (setting.drift === null)
    return judged(
      'not yet known',
      ['There are two figures and no blank run, so drift and decay cannot be separated.'],
      {
        ...more,
        settles: [WITH_RECORD],
      },
    );
  const verdict = verdictOf(flow);
  return judged(
    verdict,
    [
      `${figure(100 * kept, 1)} % of the deflection was left: at 2 bar ${flowWords(flow)} pass, the limit is ${LIMIT_UG_PER_MIN}.`,
      ...carried(overBar, flow),
    ],
    { ...more, settles: verdict === 'not yet known' ? [WITH_RECORD] : [] },
  );
}
