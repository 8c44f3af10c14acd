import { feedsByName, FUNCTION_KINDS, type FunctionKind } from '../../craft/movements';
import { daysBetween } from '../../craft/time';
import type { Book } from '../../craft/book';
import { type Complaint, fellBack, isLeaked, type JobState, type WellState } from '../../logbook';
import { supplyOf } from '../supply';
import { seenMovement } from '../identify';
import { type Policy, priceInList } from '../../craft/policy';
import {
  diagnose,
  type Diagnosis,
  type FaultQuestion,
  type Measure,
  type Observable,
  type ReadingVerdict,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
  type Told,
} from '../../craft/health';
import { OBSERVED_BY } from './observed';
import { judgeJobReadings, typicalCurrentUA } from './readingsOfJob';
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

/** What a told sign is about; what is not named here is of the whole watch. */
const TELLS_OF: Readonly<Partial<Record<Told, readonly FunctionKind[]>>> = {
  'display fades': ['digital display'],
  'light or alarm fails first': ['light', 'alarm'],
  'loses time': ['hands', 'seconds hand'],
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
    if (verdict.verdict === 'not judged') continue;
    const observable = OBSERVED_BY[verdict.measure];
    const outcome =
      verdict.measure === 'currentUA'
        ? currentOutcome(verdict, typicalUA)
        : READ_AS[verdict.measure]?.[verdict.verdict];
    if (outcome !== undefined) outcomes.set(observable, outcome);
  }
}

/** What the loupe showed, what the cell looked like, and what earlier hands left, each once. */
function addSigns(outcomes: Outcomes, { facts }: JobState, wells: readonly WellState[]): void {
  const looked = facts.looked?.payload.signs ?? null;
  if (looked !== null)
    for (const sign of SIGNS_OF_FAULT) outcomes.set(sign, looked.includes(sign) ? 'there' : 'absent');
  const there: SignOfFault[] = [];
  if (facts.leakages.length > 0 || wells.some(({ found }) => found !== null && isLeaked(found.payload)))
    there.push('crust or bloom');
  const asFound = facts.asFound?.payload.found ?? [];
  if (asFound.includes('residue')) there.push('crust or bloom');
  if (asFound.includes('bent contact')) there.push('contact bent');
  if (asFound.includes('insulator missing')) there.push('insulator missing');
  for (const sign of there) outcomes.set(sign, 'there');
}

const SHOWN_BY: readonly FunctionKind[] = ['hands', 'seconds hand', 'digital display'];

/** What hands or display do, as seen here or as the owner tells. */
export function whatShows({ facts }: Pick<JobState, 'facts'>): string | null {
  const seen = facts.looked?.payload.shows ?? null;
  if (seen !== null) return SEEN_AS[seen];
  const complaint = facts.complaint?.payload.picked ?? [];
  if (complaint.includes('stopped')) return 'dead';
  return complaint.some((each) => each === 'hand steps in twos or fours' || each === 'low-cell sign shows')
    ? 'in twos or fours'
    : null;
}

/**
 * Whether a well feeds any of them. Where the book does not say what it feeds, a single one may feed everything; of two that
 * nobody knows each feeds what it is called by, and one whose name says nothing is not taken for that of the hands.
 */
function feedsAny(well: WellState | null, kinds: readonly FunctionKind[], cells = 1): boolean {
  if (well === null) return true;
  const feeds = well.well?.feeds ?? [];
  if (feeds.length > 0) return kinds.some((each) => feeds.includes(each));
  if (well.well !== null || cells < 2) return true;
  const named = feedsByName(well.name);
  return named.length > 0
    ? kinds.some((each) => named.includes(each))
    : kinds.length === FUNCTION_KINDS.length;
}

const OF_THE_HANDS: readonly FunctionKind[] = ['hands', 'seconds hand'];

function changedLately({ facts }: JobState): boolean {
  const { changedOn } = facts.cellHistory?.payload ?? { changedOn: null };
  const received = facts.received?.occurredAt ?? null;
  if (changedOn === null || received === null) return false;
  const days = daysBetween(`${changedOn.slice(0, 7)}-01`, received);
  return days >= 0 && days <= LATELY_DAYS;
}

/**
 * What a job knows of what ails its watch, as `diagnose` asks for it: readings, what was looked at, the complaint. Of a
 * watch with several cells about one of them: its own readings and those of the watch, and what hands and display show
 * only where that cell feeds them.
 */
export function faultQuestionOf(
  state: JobState,
  book: Book,
  policy: Pick<Policy, 'extras'>,
  well: WellState | null = null,
): FaultQuestion {
  const { facts, calibre } = state;
  const looked = facts.looked?.payload ?? null;
  const complaint = facts.complaint?.payload.picked ?? [];
  const movement = calibre ?? seenMovement(state, book);
  const observed: Outcomes = new Map();
  const shows = whatShows(state);
  const cells = state.wells.length;
  const ofHands = feedsAny(well, OF_THE_HANDS, cells);
  if (shows !== null && feedsAny(well, SHOWN_BY, cells)) observed.set('shows', shows);
  if (looked && looked.crown !== null && ofHands) observed.set('crown', looked.crown);
  if (looked && looked.atFitting !== null) observed.set('atFitting', looked.atFitting);
  if (looked && looked.resetUsed !== null) observed.set('reset', looked.resetUsed ? 'used' : 'not used');
  if (facts.pulses && ofHands) observed.set('pulses', facts.pulses.payload.there ? 'there' : 'none');
  addReadings(
    observed,
    judgeJobReadings(state, book).filter(
      (read) => well === null || read.well === null || read.well === well.name,
    ),
    typicalCurrentUA(state, book, well),
  );
  addSigns(observed, state, well === null ? state.wells : [well]);
  for (const each of complaint) {
    const outcome = TOLD_AS[each];
    if (outcome !== undefined && feedsAny(well, TELLS_OF[outcome] ?? FUNCTION_KINDS, cells))
      observed.set(outcome, 'there');
  }
  const lastCharge = facts.charges.at(-1);
  const back = fellBack(state.activeEntries)?.shows ?? null;
  if (lastCharge)
    observed.set(
      'after a charge',
      back === null || back === 'does not charge' ? lastCharge.payload.outcome : back,
    );
  return {
    observed,
    // Readings are of the old cell as long as nobody says otherwise, whatever was fitted since.
    freshCell: looked?.freshCell === true,
    changedLately:
      changedLately(state) || (well === null ? facts.cellsFitted.size > 0 : well.fitted !== null),
    // Also where the book does not know the movement, and something says that it charges.
    charges: supplyOf(state, book).verdict === 'rechargeable',
    lowSupplySignal: calibre?.lowSupplySignal ?? null,
    hasReset: calibre === null ? null : calibre.resetContact !== null,
    // A cell that feeds no hands has no motor, whatever the hands beside it do.
    hasHands: movement.functions.includes('hands') && ofHands,
    stepIntervalS: movement.stepIntervalS,
    watchedSeconds: looked?.watchedSeconds ?? null,
    originalMatters: facts.originality?.payload.matters === true,
    priceOf: (item) => priceInList(policy, item),
  };
}

/** What ails the watch of a job; `well`: what ails what one of its several cells feeds. */
export function diagnoseJob(
  state: JobState,
  book: Book,
  policy: Pick<Policy, 'extras'>,
  well: WellState | null = null,
): Diagnosis {
  const diagnosis = diagnose(faultQuestionOf(state, book, policy, well));
  // What no table of causes knows, such as a voltage no cell of its kind has, is not as it should be either.
  const strange = judgeJobReadings(state, book).filter(
    (read) =>
      (well === null || read.well === null || read.well === well.name) &&
      !AS_IT_SHOULD_BE.includes(read.verdict),
  );
  return diagnosis.verdict === 'nothing wrong' && strange.length > 0
    ? {
        ...diagnosis,
        verdict: 'cannot tell yet',
        reasons: strange.flatMap(({ reasons }) => reasons.slice(0, 1)),
      }
    : diagnosis;
}

const AS_IT_SHOULD_BE: readonly ReadingVerdict['verdict'][] = ['good', 'falling', 'not judged'];

/**
 * What ails a watch, for each of its cells by itself once one of them was read by itself; till then of the watch as a
 * whole, under null.
 */
export function diagnosesOf(
  state: JobState,
  book: Book,
  policy: Pick<Policy, 'extras'>,
): readonly { readonly well: string | null; readonly diagnosis: Diagnosis }[] {
  const { wells, facts } = state;
  const apart =
    wells.length > 1 &&
    wells.some(
      ({ name }) =>
        facts.findings.has(name) || [...facts.readings.values()].some((reading) => reading.well === name),
    );
  return apart
    ? wells.map((well) => ({ well: well.name, diagnosis: diagnoseJob(state, book, policy, well) }))
    : [{ well: null, diagnosis: diagnoseJob(state, book, policy) }];
}
