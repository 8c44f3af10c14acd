import { chargesItself } from '../advice/charging';
import { repairedBetween } from '../advice/leaks';
import { testExcess, testNotYet } from '../advice/tightness';
import { gasketAdvice, reasonWanted, staysClosedYears, typedSizeContradictions } from '../advice/seal';
import { clockWords } from '../craft/cases';
import { ringContradictions } from '../craft/gaskets';
import { overTravel } from '../craft/opening';
import { partInWords } from '../craft/parts';
import { heldPhases } from '../craft/tightness';
import { dayInWords, isDay, localDay } from '../craft/time';
import {
  hasCrown,
  insideContradictions,
  type JobContext,
  type JobState,
  type Payloads,
  positionsToNote,
} from '../logbook';
import { type Admission, type Judges, type Question, refuse } from './admission';
import { lotOf, refuseLot } from './fromLot';

type AtTheBench =
  | 'arrive.cell-history'
  | 'arrive.crown'
  | 'arrive.stopped'
  | 'arrive.parts-arrived'
  | 'open.back'
  | 'open.part-settled'
  | 'open.photo-mark'
  | 'seal.closed'
  | 'seal.gasket'
  | 'seal.inside'
  | 'set.outside'
  | 'set.run-ended'
  | 'test.finding'
  | 'test.made';

/** So near to the air outside nothing presses on a case, bar. */
const LEAST_PRESSURE_BAR = 0.05;

/** What a test was pressed at most, also where that carries nothing: a crystal can fly in a second. */
function mostHeldBar({ record, pressureBar }: Payloads['test.made']): number | null {
  if (record === null) return pressureBar;
  return heldPhases(record).reduce<number | null>(
    (most, { overBar }) => (most === null || Math.abs(overBar) > Math.abs(most) ? overBar : most),
    pressureBar,
  );
}

/** What an owner tells of before it came cannot be later than that, told as a year, a month or a day. */
function afterItCame(
  givenDate: string | null,
  occurredAt: string,
  { facts }: Pick<JobState, 'facts'>,
  { shop }: Pick<JobContext, 'shop'>,
  would: string,
  when: string,
  path: string,
): Admission | null {
  const here = localDay(facts.received?.occurredAt ?? occurredAt, shop.zone);
  return givenDate !== null && givenDate > here.slice(0, givenDate.length)
    ? refuse(
        [`It was taken in on ${dayInWords(here)}, and ${would} after that.`],
        `Say when ${when} before it came, or leave it blank.`,
        path,
      )
    : null;
}

/** What was done to a ring against the advice, and needs its reason; null where it is as advised. */
function ringUnexplained(done: Payloads['seal.gasket'], { state, lots, context }: Question): string | null {
  const advice = gasketAdvice(state, done, staysClosedYears(state, lots(), context), context);
  return reasonWanted(done, advice, state.facts.groove?.payload ?? null, state.caseType);
}

/** What is recorded between arrival and hand-back, the cell apart: each names something the job holds. */
export const benchJudges: Judges<AtTheBench> = {
  'arrive.cell-history': ({ payload: { changedOn }, occurredAt }, { state, context }) =>
    afterItCame(
      changedOn,
      occurredAt,
      state,
      context,
      'its cell would have been changed',
      'it was changed',
      'changedOn',
    ),
  'arrive.crown': ({ payload }, { state }) => {
    const at = state.facts.watch?.payload.crownClock ?? null;
    return payload.crown === 'no crown' && at !== null
      ? refuse(
          [
            `A crown was noted at ${clockWords(at, 'the dial')}, but no crown is recorded now. Both cannot be true. Correct the wrong one.`,
          ],
          'Look again. Correct the intake record or the record of the crown.',
          'crown',
        )
      : null;
  },
  'arrive.stopped': ({ payload: { stoppedOn }, occurredAt }, { state, context }) => {
    if (stoppedOn !== null && stoppedOn.length === 10 && !isDay(stoppedOn))
      return refuse(
        [`The date ${stoppedOn} does not exist.`],
        'Enter an existing date, or only year and month.',
        'stoppedOn',
      );
    return afterItCame(stoppedOn, occurredAt, state, context, 'would stop', 'it stopped', 'stoppedOn');
  },
  'arrive.parts-arrived': (_, { state }) =>
    state.facts.partsRequest === null
      ? refuse(['This job is not waiting for parts.'], 'Record the request first.')
      : null,
  'open.back': ({ payload }, { context }) => {
    const wrench = context.catalogue.wrenches.find(({ id }) => payload.toolIds.includes(id));
    const over = wrench ? overTravel(wrench, payload) : null;
    return over && refuse([over.reason], 'Correct the setting, or choose the tool that was used.', over.path);
  },
  'open.part-settled': ({ payload }, { state }) =>
    state.facts.parts.has(state.standsFor(payload.partEntryId))
      ? null
      : refuse(['That part is not on the tray of this job.'], 'Choose a part from the tray.'),
  'open.photo-mark': ({ payload }, { known }) =>
    known.some(({ attachments }) => attachments.includes(payload.photo))
      ? null
      : refuse(['That photo is not among the files of this job.'], 'Add the photo first.'),
  'seal.closed': ({ payload }, { state }) => {
    if (payload.raisedClocks.length > 0 && payload.seenFrom === null)
      return refuse(
        ['The seam is raised somewhere, but the side it was seen from is missing.'],
        'Choose the side: from the dial or from behind.',
        'seenFrom',
      );
    const unnoted = positionsToNote(state.facts);
    return unnoted.length > 0
      ? refuse(
          unnoted.map(({ off }) => `The position of this part is not recorded: ${partInWords(off.payload)}.`),
          'Record it at the parts tray. If nobody remembers it, record that.',
        )
      : null;
  },
  'seal.gasket': (entry, question) => {
    const { payload } = entry;
    const { state } = question;
    const { lotId } = payload;
    const rim = state.facts.seals?.payload.rim;
    const against = [
      ...ringContradictions(payload),
      ...(rim !== undefined && rim > 0 && payload.state === 'none there'
        ? [
            'A ring was counted at the rim at opening, but none is recorded now. Both cannot be true. Correct the wrong one.',
          ]
        : []),
      ...(rim === 0 &&
      payload.state !== 'renewed' &&
      payload.state !== 'none there' &&
      !payload.findings.includes('missing')
        ? [
            `No ring was counted at the rim, but one is recorded as ${payload.state}. Both cannot be true. Correct the wrong one.`,
          ]
        : []),
    ];
    if (against.length > 0) return refuse(against, 'Correct what was found or what was done.', 'state');
    const kept = payload.state === 'reused' || payload.state === 'left in place';
    if (kept && payload.reason === '' && chargesItself(state))
      return refuse(
        [
          'This watch charges itself and stays closed for many years. Renew its gasket or give the reason why not.',
        ],
        'Record a new gasket, or enter the reason.',
        'reason',
      );
    const cannotBe = typedSizeContradictions(payload, state.facts.groove?.payload ?? null);
    if (cannotBe.length > 0) return refuse(cannotBe, 'Correct the ring size or the groove.', 'size');
    const unexplained = payload.reason === '' ? ringUnexplained(payload, question) : null;
    if (unexplained !== null)
      return refuse([unexplained], 'If the record is wrong, correct what was done.', 'reason');
    if (lotId === null) return null;
    const lot = lotOf(question, lotId);
    return lot?.item === 'gasket'
      ? refuseLot(lot, entry, question, 'ring')
      : refuse(['This lot is not a gasket lot of the stock.'], 'Choose a gasket lot from the list.');
  },
  'seal.inside': ({ payload }, { state }) => {
    const against = insideContradictions(payload, state.facts);
    return against.length > 0
      ? refuse(
          against.map(({ reason }) => reason),
          'Check the seals again. Correct the count, or what was done with them.',
          against[0]?.path,
        )
      : null;
  },
  'test.made': (entry, { state, context }) => {
    const { payload } = entry;
    const tests = payload.retestOf.map((id) =>
      state.facts.tests.find((test) => test.id === state.standsFor(id)),
    );
    if (tests.includes(undefined))
      return refuse(
        ['The test being repeated belongs to another job.'],
        'Choose a test from the list of this job.',
      );
    if (
      tests.some(
        (test) => test !== undefined && !repairedBetween(test, { payload, sequence: null }, state.facts),
      )
    )
      return refuse(
        ['A retest follows a repair, but no repair is recorded.'],
        'Enter what was done, e.g. “crown seal renewed”, or record the finding first.',
        'note',
      );
    if (payload.pressureBar !== null && Math.abs(payload.pressureBar) <= LEAST_PRESSURE_BAR)
      return refuse(
        ['At this pressure nothing presses on the case, so this is not a test.'],
        'Enter the test pressure above or below atmospheric pressure, in bar.',
        'pressureBar',
      );
    const first = testNotYet(state);
    if (first) return refuse(first.reasons, first.whatToDo);
    const excess = testExcess(
      { method: payload.method, pressureBar: mostHeldBar(payload) },
      state,
      context.policy,
    );
    return excess.length > 0 && payload.excessReason === ''
      ? refuse(
          excess,
          'Test at a lower pressure, or give the reason for exceeding the limit.',
          'excessReason',
        )
      : null;
  },
  'test.finding': ({ payload }, { state }) =>
    payload.foundBy.every((id) => state.facts.tests.some((test) => test.id === state.standsFor(id)))
      ? null
      : refuse(
          ['The test that found the leak belongs to another job.'],
          'Choose a test from the list of this job.',
        ),
  'set.outside': ({ payload }, { state }) =>
    payload.proved['crown in every position'] === 'not applicable' && hasCrown(state)
      ? refuse(
          ['As far as is recorded, this watch has a crown. Check it: pull it, turn it, push it home.'],
          'Record the result. If there is no crown, record that at the crown first.',
        )
      : null,
  'set.run-ended': ({ payload, occurredAt }, { state }) => {
    const { watched, proving } = state.facts;
    const run = payload.toSee === 'that it runs' ? watched : proving;
    if (run === null)
      return refuse(
        [
          payload.toSee === 'that it runs'
            ? 'No observation was started since the watch was closed.'
            : 'No proving run was started since the watch was closed.',
        ],
        'Record what the hands show at the start.',
      );
    return occurredAt < run.began.occurredAt
      ? refuse(['The end is before the start.'], 'Record the end when you read the watch.')
      : null;
  },
};
