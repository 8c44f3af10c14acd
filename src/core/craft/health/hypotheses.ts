import type { FaultQuestion } from './diagnosis';
import {
  type Fault,
  type Observable,
  BROUGHT_ABOUT,
  EFFECTS,
  FAULTS,
  LOAD_WHERE_FALLING,
  SOUND,
  shareOf,
} from './faults';

/** Something the table does not know: it does anything to everything, and is this rare. */
export const SOMETHING_ELSE = 0.005;

/** What goes wrong at a change of cell is so much likelier just after one. */
const AFTER_A_CHANGE: Readonly<Partial<Record<Fault, number>>> = {
  'reset contact not used': 4,
  'short circuit': 3,
  'contact does not touch': 2,
  'spent cell': 0.4,
};
const FRESH_CELL = 0.02;
const NO_SIGNAL_IN_BOOK = 0.35;

export interface Hypothesis {
  readonly faults: readonly Fault[];
  readonly prior: number;
}

/** A watch that is brought is seldom sound: the odds of each fault are for so many sound ones. Ours, from bench practice. */
const SOUND_ODDS = 0.35;
const EFFECT_OF = new Map(EFFECTS.map((each) => [each.fault, each]));

function oddsOf(fault: Fault, question: FaultQuestion): number {
  if (fault === 'spent cell' && question.charges) return 0;
  if ((fault === 'tired accumulator' || fault === 'merely discharged') && !question.charges) return 0;
  if (fault === 'reset contact not used' && question.hasReset === false) return 0;
  const motor: readonly Fault[] = [
    'coil severed',
    'turns of the coil shorted',
    'mechanical',
    'stop lever on',
    // A display has no train to oil.
    'old oil and dirt',
  ];
  if (!question.hasHands && motor.includes(fault)) return 0;
  const cell = fault === 'spent cell' || fault === 'tired accumulator' || fault === 'merely discharged';
  return (
    (EFFECT_OF.get(fault)?.odds ?? 0) *
    (question.changedLately ? (AFTER_A_CHANGE[fault] ?? 1) : 1) *
    (cell && question.freshCell ? FRESH_CELL : 1)
  );
}

/**
 * What comes out, with these faults, of one thing looked at. What any of them is enough to bring about comes of none of
 * them only if each fails to; else the first of them that touches it decides.
 */
export function likelihood(
  faults: readonly Fault[],
  observable: Observable,
  outcome: string,
  question: FaultQuestion,
): number {
  if (observable === 'after a charge') return afterACharge(faults, outcome, question);
  const touching = EFFECTS.flatMap(({ fault, does }) => {
    const effect = does[observable];
    return effect && faults.includes(fault) ? [effect] : [];
  });
  const sound =
    observable === 'load' && question.observed.get('rest') === 'falling'
      ? LOAD_WHERE_FALLING
      : SOUND[observable];
  const [first = sound, second] = touching;
  const share = (effect: typeof first, of: string): number => {
    const plain = shareOf(observable, effect, of);
    return of === 'in twos or fours' && question.lowSupplySignal === null && effect !== SOUND[observable]
      ? plain * NO_SIGNAL_IN_BOOK
      : plain;
  };
  const brought = BROUGHT_ABOUT[observable];
  if (second === undefined || brought === undefined) return share(first, outcome);
  const [one, other] = [share(first, brought), share(second, brought)];
  const either = 1 - (1 - one) * (1 - other);
  if (outcome === brought) return either;
  // Otherwise as the first would have it, or the second.
  const left = (share(first, outcome) / (1 - one) + share(second, outcome) / (1 - other)) / 2;
  return (1 - either) * left;
}

/** A charge brings back what stood still for want of one, and nothing that stands still for another reason. */
function afterACharge(faults: readonly Fault[], outcome: string, { observed }: FaultQuestion): number {
  const standsBy = (those: readonly Fault[]): number =>
    1 - those.reduce((moves, fault) => moves * (1 - (EFFECT_OF.get(fault)?.does.shows?.dead ?? 0)), 1);
  const others = standsBy(faults.filter((fault) => !CHARGE_FAULTS.includes(fault)));
  const byAny = 1 - (1 - others) * (1 - standsBy(faults.filter((fault) => CHARGE_FAULTS.includes(fault))));
  const shows = observed.get('shows');
  const other =
    shows === undefined
      ? others
      : shows === 'dead'
        ? others / Math.max(byAny, SOUND.shows.dead ?? 0)
        : others * STANDS_NOW_AND_THEN;
  const own = faults.flatMap((fault) => EFFECT_OF.get(fault)?.does['after a charge'] ?? [])[0];
  const charged = shareOf('after a charge', own ?? SOUND['after a charge'], outcome);
  const stands = Math.min(other, SURELY);
  return (1 - stands) * charged + (outcome === 'does not run' ? stands : 0);
}

export function hypothesesOf(question: FaultQuestion): Hypothesis[] {
  const odds = FAULTS.map((fault) => ({ fault, odds: oddsOf(fault, question) })).filter(
    (each) => each.odds > 0,
  );
  return [
    { faults: [], prior: SOUND_ODDS },
    ...odds.map((each): Hypothesis => ({ faults: [each.fault], prior: each.odds })),
    ...odds.flatMap((first, index) =>
      odds.slice(index + 1).map((second): Hypothesis => ({
        faults: [first.fault, second.fault],
        prior: first.odds * second.odds,
      })),
    ),
  ];
}

/** And one of these: what is likeliest to ail a watch is its cell. */
const CELL_READ: readonly Observable[] = ['rest', 'load', 'atFitting'];

/** Nobody names a cell spent whose watch only stands still: the cell is read, it signals, or a charge was watched. */
export const seenOfCell = (question: FaultQuestion): boolean =>
  cellRead(question) ||
  question.observed.get('shows') === 'in twos or fours' ||
  question.observed.has('after a charge');

export const cellRead = ({ freshCell, observed }: FaultQuestion): boolean =>
  freshCell || CELL_READ.some((observable) => observed.has(observable));
export const CELL_FAULTS: readonly Fault[] = ['spent cell', 'tired accumulator'];
const CHARGE_FAULTS: readonly Fault[] = ['tired accumulator', 'merely discharged'];

/** What stops a watch now and then may stop it after a charge, though it moved before. */
const STANDS_NOW_AND_THEN = 0.1;

/** No cause stops a watch surely. */
export const SURELY = 0.97;

/** A watch must be watched a little longer than one step. */
const LONGER_THAN_A_STEP = 1.2;

/** Where no step is known a minute hand must have been given a full minute, s. */
const UNKNOWN_STEP_S = 60;

export function longEnough({ stepIntervalS }: FaultQuestion): number {
  return stepIntervalS === null ? UNKNOWN_STEP_S : stepIntervalS * LONGER_THAN_A_STEP;
}
