import { figure, type Judged } from '../judgement';
import { judgeLeak } from './judgeLeak';
import { fitOf } from './judgeRecord';
import type { LeakJudgement, LeakSetting } from './leakJudgement';
import { LIMIT_UG_PER_MIN } from './law';
import {
  LEAST_HELD_S,
  type LeakRecord,
  mainPhase,
  phasesOf,
  recoveryAfter,
  recordContradictions,
} from './record';
import { chanceSettled, ENOUGH, inHundred, longerWatch } from './settles';

/** Whether a test that runs just now will settle it in the time that was set. */
export interface TestOutlook extends Judged<
  'too early' | 'time enough' | 'too short' | 'settled' | 'cannot tell'
> {
  /** The watch time that would do, under pressure and again after venting, s; null where none is needed, or none helps. */
  readonly watchS: number | null;
}

/** Nobody watches longer, s. */
const LONGEST_WATCH_S = 86_400;
/** A longer watch is offered where it settles so many more of 100. */
const WORTH_MORE = 0.1;

/** A test ends early only where its flow keeps this share of the limit away from it: what still comes moves it a little. */
const CLEAR_SHARE = 0.1;

function isClear({ verdict, flow }: LeakJudgement): boolean {
  if (verdict === 'leaks') return flow === null || flow.from >= LIMIT_UG_PER_MIN * (1 + CLEAR_SHARE);
  return verdict === 'tight' && flow !== null && flow.to <= LIMIT_UG_PER_MIN * (1 - CLEAR_SHARE);
}

/**
 * While a test runs: whether the watch time that was set will do, by what its record shows so far, and which time would.
 * `record`: so far; `watchS`: as set, under pressure and again after venting, s. *Settled* only once it was vented and watched on.
 * Source: the fit of the leak constant; Bayes’ rule over what it leaves possible.
 */
export function outlookOf(record: LeakRecord, setting: LeakSetting, watchS: number): TestOutlook {
  const outlook = (
    verdict: TestOutlook['verdict'],
    reason: string,
    more: number | null = null,
  ): TestOutlook => ({ verdict, reasons: [reason], working: [], watchS: more });
  const [contradiction] = record.atS.length < 2 ? [] : recordContradictions(record);
  if (contradiction !== undefined) return outlook('cannot tell', contradiction);
  if (!(watchS > 0 && watchS <= LONGEST_WATCH_S))
    return outlook('cannot tell', 'The time to watch is not a number of seconds.');
  const early = outlook('too early', 'It is too early to say whether this time is long enough.');
  const phases = record.atS.length < 2 ? [] : phasesOf(record);
  const held = mainPhase(phases);
  if (held === null || held.toS - held.fromS < LEAST_HELD_S) return early;
  const recovered = recoveryAfter(held, phases) !== null;
  const shows = judgeLeak({ record }, setting);
  if (recovered && isClear(shows)) return outlook('settled', `The result is certain now: ${shows.verdict}.`);
  // No time helps where its size or its stiffness is in question.
  if (shows.verdict === 'no verdict') return outlook('cannot tell', shows.reasons.join(' '));
  const fitted = fitOf(record, setting.drift);
  if (fitted === null) return early;
  const question = {
    fit: fitted.fit,
    setting,
    overBar: fitted.main.overBar,
    heldS: fitted.main.toS - fitted.main.fromS,
    noiseShare: fitted.fit.noiseUm / Math.abs(fitted.gaveUm),
    recovered,
  };
  if (!Number.isFinite(fitted.fit.to)) return early;
  const chance = chanceSettled(question, watchS);
  if (chance >= ENOUGH)
    return outlook(
      'time enough',
      `${figure(watchS, 0)} s are probably enough. They give a result in ${inHundred(chance)} such tests.`,
    );
  const longer = longerWatch({ ...question, heldS: Math.max(question.heldS, watchS) });
  return longer === null || longer.chance < chance + WORTH_MORE
    ? outlook(
        'too short',
        `${figure(watchS, 0)} s give a result in ${inHundred(chance)} such tests. A longer time hardly gives more.`,
      )
    : outlook(
        'too short',
        `${figure(watchS, 0)} s are probably too short. They give a result in ${inHundred(chance)} such tests, ${figure(longer.seconds, 0)} s in ${inHundred(longer.chance)}.`,
        longer.seconds,
      );
}

/** A test ends early once so many outlooks, one after the other, find it settled: one alone may be chance. */
const SETTLED_TIMES = 2;

/** Whether a test that runs may end: its last outlooks, the newest last, all found it settled in the same way. */
export function mayEnd(outlooks: readonly TestOutlook[]): boolean {
  const last = outlooks.slice(-SETTLED_TIMES);
  return (
    last.length === SETTLED_TIMES &&
    last.every(({ verdict, reasons }) => verdict === 'settled' && reasons[0] === last[0]?.reasons[0])
  );
}
