import { daysBetween } from '../../craft/time';
import type { Book } from '../../craft/book';
import type { Complaint, JobState } from '../../logbook';
import { supplyOf } from '../supply';
import { seenMovement } from '../identify';
import { type Policy, priceInList } from '../../craft/policy';
import {
  diagnose,
  type Diagnosis,
  type FaultQuestion,
  figuresFor,
  type Measure,
  type Observable,
  type ReadingVerdict,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
  type Told,
} from '../../craft/health';
import { judgeJobReadings } from './readingsOfJob';
const SEEN_AS: Readonly<Record<Shows, string>> = {
  'runs as it should': 'runs',
  'stands still': 'dead',
  'display blank': 'dead',
  'steps in twos or fours': 'in twos or fours',
  'display scrambled': 'scrambled',
};

/** Under this share of what is typical no current flows at all: what is left is the meter's. */
const NOTHING_FLOWS = 0.03;
/** From so many times its limit on a current is far over it. */
const FAR_OVER = 3;
/** A change of cell is lately for so long, days. */
const LATELY_DAYS = 62;

/** What an owner tells, as the table of causes has it. Whoever does not tell it says nothing. */
const TOLD_AS: Readonly<Partial<Record<Complaint, Told>>> = {
  'display fading': 'display fades',
  'light or alarm fails first': 'light or alarm fails first',
  'does not hold its charge': 'does not hold its charge',
  'loses time': 'loses time',
  'fog under the crystal': 'fog under the crystal',
};

type Outcomes = Map<Observable, string>;

function currentOutcome({ verdict, value, reference }: ReadingVerdict, typicalUA: number): string {
  if (value < typicalUA * NOTHING_FLOWS) return 'nothing';
  if (verdict === 'too little') return 'next to nothing';
  if (verdict === 'over the limit')
    return value > (reference.max ?? Infinity) * FAR_OVER ? 'far over the limit' : 'over the limit';
  return 'as it should';
}

const READ_AS: Readonly<
  Partial<Record<Measure, Readonly<Partial<Record<ReadingVerdict['verdict'], string>>>>>
> = {
  restVoltageV: { good: 'fresh', falling: 'falling', spent: 'spent' },
  loadedVoltageV: { good: 'holds', spent: 'sags' },
  stoppedCurrentUA: { good: 'as it should', 'over the limit': 'over' },
  coilKOhm: { good: 'good', suspect: 'suspect', open: 'open', 'shorted turns': 'shorted' },
  lowestRunningV: { good: 'good', 'runs too late': 'late' },
  rateSPerDay: { good: 'good', off: 'off' },
};
const OBSERVED_BY: Readonly<Partial<Record<Measure, Observable>>> = {
  restVoltageV: 'rest',
  loadedVoltageV: 'load',
  currentUA: 'current',
  stoppedCurrentUA: 'stopped',
  coilKOhm: 'coil',
  lowestRunningV: 'lowest',
  rateSPerDay: 'rate',
};

/** Of two cells the graver reading speaks for the watch: what ails one of them ails it. */
const GRAVER: readonly ReadingVerdict['verdict'][] = [
  'good',
  'suspect',
  'falling',
  'too little',
  'runs too late',
  'off',
  'over the limit',
  'spent',
  'shorted turns',
  'open',
];

function addReadings(outcomes: Outcomes, verdicts: readonly ReadingVerdict[], typicalUA: number): void {
  const gravestLast = [...verdicts].sort((a, b) => GRAVER.indexOf(a.verdict) - GRAVER.indexOf(b.verdict));
  for (const verdict of gravestLast) {
    const observable = OBSERVED_BY[verdict.measure];
    if (observable === undefined || verdict.verdict === 'not judged') continue;
    const outcome =
      verdict.measure === 'currentUA'
        ? currentOutcome(verdict, typicalUA)
        : READ_AS[verdict.measure]?.[verdict.verdict];
    if (outcome !== undefined) outcomes.set(observable, outcome);
  }
}

/** What the loupe showed, what the cell looked like, and what earlier hands left, each once. */
function addSigns(outcomes: Outcomes, { facts, wells }: JobState): void {
  const looked = facts.looked?.payload.signs ?? null;
  if (looked !== null)
    for (const sign of SIGNS_OF_FAULT) outcomes.set(sign, looked.includes(sign) ? 'there' : 'absent');
  const there: SignOfFault[] = [];
  const condition = wells.map(({ found }) => found?.payload.condition ?? null);
  if (facts.leakages.length > 0 || condition.some((each) => each !== null && each !== 'clean'))
    there.push('crust or bloom');
  const asFound = facts.asFound?.payload.found ?? [];
  if (asFound.includes('residue')) there.push('crust or bloom');
  if (asFound.includes('bent contact')) there.push('contact bent');
  if (asFound.includes('insulator missing')) there.push('insulator missing');
  for (const sign of there) outcomes.set(sign, 'there');
}

function changedLately({ facts }: JobState): boolean {
  const { changedOn } = facts.cellHistory?.payload ?? { changedOn: null };
  const received = facts.received?.occurredAt ?? null;
  if (changedOn === null || received === null) return false;
  const days = daysBetween(`${changedOn.slice(0, 7)}-01`, received);
  return days >= 0 && days <= LATELY_DAYS;
}

/** What a job knows of what ails its watch, as `diagnose` asks for it: readings, what was looked at, the complaint. */
export function faultQuestionOf(state: JobState, book: Book, policy: Pick<Policy, 'extras'>): FaultQuestion {
  const { facts, calibre } = state;
  const looked = facts.looked?.payload ?? null;
  const complaint = facts.complaint?.payload.picked ?? [];
  const movement = calibre ?? seenMovement(state, book);
  const observed: Outcomes = new Map();
  if (looked && looked.shows !== null) observed.set('shows', SEEN_AS[looked.shows]);
  else if (complaint.includes('stopped')) observed.set('shows', 'dead');
  else if (complaint.some((each) => each === 'hand steps in twos or fours' || each === 'low-cell sign shows'))
    observed.set('shows', 'in twos or fours');
  if (looked && looked.crown !== null) observed.set('crown', looked.crown);
  if (looked && looked.atFitting !== null) observed.set('atFitting', looked.atFitting);
  if (looked && looked.resetUsed !== null) observed.set('reset', looked.resetUsed ? 'used' : 'not used');
  if (facts.pulses) observed.set('pulses', facts.pulses.payload.there ? 'there' : 'none');
  addReadings(observed, judgeJobReadings(state, book), figuresFor(calibre, book).current.typicalUA);
  addSigns(observed, state);
  for (const each of complaint) {
    const told = TOLD_AS[each];
    if (told !== undefined) observed.set(told, 'there');
  }
  const lastCharge = facts.charges.at(-1);
  if (lastCharge) observed.set('after a charge', lastCharge.payload.outcome);
  return {
    observed,
    // Readings are of the old cell as long as nobody says otherwise, whatever was fitted since.
    freshCell: looked?.freshCell === true,
    changedLately: changedLately(state) || facts.cellsFitted.size > 0,
    // Also where the book does not know the movement, and something says that it charges.
    charges: supplyOf(state, book).verdict === 'rechargeable',
    lowSupplySignal: calibre?.lowSupplySignal ?? null,
    hasReset: calibre === null ? null : calibre.resetContact !== null,
    hasHands: movement.functions.includes('hands'),
    stepIntervalS: movement.stepIntervalS,
    watchedSeconds: looked?.watchedSeconds ?? null,
    originalMatters: facts.originality?.payload.matters === true,
    priceOf: (item) => priceInList(policy, item),
  };
}

/** What ails the watch of a job. */
export function diagnoseJob(state: JobState, book: Book, policy: Pick<Policy, 'extras'>): Diagnosis {
  return diagnose(faultQuestionOf(state, book, policy));
}
