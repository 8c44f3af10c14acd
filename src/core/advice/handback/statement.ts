import { chemistries } from '../../craft/cells';
import type { Measure } from '../../craft/health';
import { figure } from '../../craft/judgement';
import { bareCode, kitsFor } from '../../craft/movements';
import { STAGE_WORDS } from '../../craft/policy';
import {
  causesWords,
  failedProofs,
  isLeaked,
  type JobContext,
  type JobState,
  lastReading,
  leakWords,
  markPlace,
  partsSettledAs,
  partsToOrder,
  type Payloads,
  type Proofs,
  ranBeforeClosing,
  readingIn,
  runOf,
  seenRunning,
  type SeenRunning,
  unproved,
  openness,
} from '../../logbook';
import { seenMovement } from '../identify';
import { flowInWords, type JudgedTest, judgeTests, testInWords } from '../leaks';

const SEALS = ['crown', 'pushers', 'crystal'] as const;

/** A sentence where there is one to say. */
const where = (holds: boolean, sentence: string): readonly string[] => (holds ? [sentence] : []);

/** What came with the cell: its supplier and lot, as far as they are known. */
function fromWords({ supplier, lotCode }: { readonly supplier: string; readonly lotCode: string }): string {
  return [supplier, lotCode && `lot ${lotCode}`]
    .filter(Boolean)
    .map((each) => `, ${each}`)
    .join('');
}

/** ` (main)` where a watch has several cells. */
const wellWords = ({ wells }: JobState, name: string): string => (wells.length > 1 ? ` (${name})` : '');

/** A mark seen on arrival, e.g. `scratch on the back at 4 o’clock, seen from behind`. */
function markWords({ view, kind, clock }: Payloads['arrive.mark']): string {
  return `${kind} on the ${view}${markPlace(view, clock)}`;
}

const sealWords = (seal: (typeof SEALS)[number]): string =>
  seal === 'pushers' ? 'Pusher seals' : `Seal of the ${seal}`;

function oldCells(state: JobState): readonly string[] {
  return state.wells.flatMap(({ name, found }) => {
    if (!found) return [];
    const { marking, condition } = found.payload;
    const well = wellWords(state, name);
    if (marking === null) return [`No cell in the watch${well}.`];
    return [`Old cell ${marking}${well}${isLeaked({ condition }) ? `, ${condition}` : ''}.`];
  });
}

/** What was found, in the owner’s words. */
export function foundLines(state: JobState): readonly string[] {
  const { facts, wells } = state;
  /** A reading of the watch, and those of its several wells, each with which it is. */
  const read = (measure: Measure): readonly (readonly [where: string, value: number])[] =>
    [null, ...(wells.length > 1 ? wells : [])].flatMap((well) => {
      const value = readingIn(facts, measure, well?.name)?.payload.value;
      return value === undefined ? [] : [[well === null ? '' : ` (${well.name})`, value] as const];
    });
  const earlier = facts.asFound?.payload.found.filter((each) => each !== 'nothing unusual') ?? [];
  return [
    ...oldCells(state),
    ...read('restVoltageV').map(([where, volts]) => `Its voltage at rest was ${figure(volts, 2)} V${where}.`),
    ...read('currentUA').map(([where, amps]) => `The movement draws ${figure(amps, 2)} µA${where}.`),
    ...where(earlier.length > 0, `Found inside, from earlier repairs: ${earlier.join(', ')}.`),
    ...facts.leakages.map(({ payload }) => `Leaked: ${leakWords(payload)}.`),
    ...[...facts.findings.values()].map(
      ({ payload, well }) =>
        `Finding${well === null ? '' : ` at the cell of ${well}`}: ${[causesWords(payload), payload.words].filter(Boolean).join(', ')}. Next: ${payload.next}.`,
    ),
    ...facts.marks.map(({ payload }) => `On arrival, ${markWords(payload)}.`),
  ];
}

/** What a modern accumulator in place of an old capacitor gives. */
function gainedWith(kitCode: string, calibre: JobState['calibre']): readonly string[] {
  const kit = calibre?.charge
    ? kitsFor(calibre.charge).find((each) => bareCode(each.kitCode) === bareCode(kitCode))
    : undefined;
  return kit && kit.gainDays > 0
    ? [
        `A modern accumulator replaces the old capacitor. Fully charged, it runs ${figure(kit.reserveDays, 0)} days, ${figure(kit.gainDays, 0)} days longer than before.`,
      ]
    : [];
}

/** What was fitted, with where it came from. */
export function fittedLines(
  { facts, wells, calibre }: JobState,
  { catalogue }: JobContext,
): readonly string[] {
  const kit = facts.accumulator?.payload;
  return [
    ...(kit ? [`${kit.kitCode}, ${kit.way}${fromWords(kit)}.`, ...gainedWith(kit.kitCode, calibre)] : []),
    ...wells.flatMap(({ name, fitted }) => {
      if (!fitted) return [];
      const { cellCode } = fitted.payload;
      const type = catalogue.cell(cellCode);
      return [
        `${cellCode}${type ? ` (${chemistries[type.chemistry].words})` : ''}${wells.length > 1 ? ` in ${name}` : ''}${fitted.payload.ownersOwn ? ', the owner’s own' : fromWords(fitted.payload)}.`,
      ];
    }),
  ];
}

/** What was done. */
export function doneLines(state: JobState): readonly string[] {
  const { facts, wells } = state;
  const gasket = facts.gasket?.payload;
  const decision = facts.decision?.payload;
  const changed = wells.filter(({ fitted }) => fitted !== null);
  return [
    ...where(
      changed.length > 0 && changed.length === wells.length,
      wells.length > 1 ? 'Cells changed.' : 'Cell changed.',
    ),
    // One of several: the slip says which.
    ...where(
      changed.length > 0 && changed.length < wells.length,
      `Cell changed: ${changed.map(({ name }) => name).join(', ')}. Not changed: ${wells
        .filter(({ fitted }) => fitted === null)
        .map(({ name }) => name)
        .join(', ')}.`,
    ),
    ...wells.flatMap(({ name, putBack }) =>
      putBack ? [`The same cell put back${wellWords(state, name)}: ${putBack.payload.reason}.`] : [],
    ),
    ...where(facts.accumulator !== null, 'Accumulator renewed.'),
    ...facts.charges.map(
      ({ payload }) => `Charged by ${payload.by} for ${figure(payload.hours, 1)} hours: ${payload.outcome}.`,
    ),
    ...(gasket && gasket.state !== 'none there'
      ? [
          `Gasket ${gasket.state}${gasket.size && ` (${gasket.size})`}${gasket.greased ? ' and greased' : ''}.`,
        ]
      : []),
    ...SEALS.filter((seal) => facts.otherSeals?.payload[seal] === 'renewed').map(
      (seal) => `${sealWords(seal)} renewed.`,
    ),
    ...where(facts.closed?.payload.interim === true, 'Closed temporarily until the part arrives.'),
    ...(decision
      ? [
          `${decision.decision === 'referred' ? `Referred${decision.to && ` to ${decision.to}`}` : 'Declined'}: ${decision.reason}.`,
        ]
      : []),
    ...partsSettledAs(facts, 'replaced').map((part) => `Replaced: ${part.off.payload.part}.`),
    ...where(facts.timeSet?.payload.set === true, 'Time set.'),
  ];
}

/** The functions proved, or found not to work. */
function proved(
  { functions, outside }: Pick<Proofs, 'functions' | 'outside'>,
  result: 'works' | 'does not work',
): readonly string[] {
  return Object.entries({ ...functions?.payload.proved, ...outside?.payload.proved })
    .filter(([, each]) => each === result)
    .map(([name]) => name);
}

/** What works, and what was only proved before the closing. */
function worksLines({ facts }: JobState): readonly string[] {
  const now = proved(facts, 'works');
  const all = [...now, ...proved(facts, 'does not work')];
  const before = (facts.beforeClosing ? proved(facts.beforeClosing, 'works') : []).filter(
    (name) => !all.includes(name),
  );
  return [
    ...where(now.length > 0, `Works: ${now.join(', ')}.`),
    ...where(before.length > 0, `Worked before it was closed: ${before.join(', ')}.`),
  ];
}

function runningLines({ facts }: JobState): readonly string[] {
  const now = seenRunning(facts);
  const before = ranBeforeClosing(facts);
  const line = ({ watchedSeconds }: SeenRunning): string => `Seen running for ${inSeconds(watchedSeconds)}`;
  if (now !== null)
    return now.runs ? [`${line(now)}${openness(facts) === 'open' ? ', before it was closed' : ''}.`] : [];
  return before?.runs ? [`${line(before)}, before it was closed.`] : [];
}

const inSeconds = (seconds: number): string =>
  seconds < 3600 ? `${figure(seconds)} seconds` : `${figure(seconds / 3600, 1)} hours`;

/** Whether the proving run went to its end. */
const ranToEnd = ({ verdict }: ReturnType<typeof runOf>): boolean =>
  verdict === 'keeps time' || verdict === 'off' || verdict === 'runs';

/** How a test went, in the owner’s words. */
function testLine({ test, shows, leak }: JudgedTest): string {
  const { outcome, excessReason } = test.payload;
  const beyond = excessReason && ` (beyond its limit: ${excessReason})`;
  const said = `${testInWords(test)}: `;
  const because = shows.reasons.join(', ').replace(/\.$/, '');
  const flow = flowInWords(leak?.flow ?? null);
  switch (shows.verdict) {
    case 'proves nothing':
      return `${said}${outcome ?? 'tight by its record'}, which is no proof: ${because}.`;
    case 'leaks':
      return `${said}${flow === null ? (leak?.flooded ? 'flooded at once' : 'leak seen') : `it leaks, ${flow} at 2 bar`}${beyond}.`;
    case 'tight':
      return `${said}${flow === null ? 'no leak seen' : `no leak found, ${flow} at 2 bar`}${beyond}.`;
    default:
      return `${said}${shows.verdict}${because && `, ${because}`}${beyond}.`;
  }
}

/** What was tested, and how it went. */
export function testedLines(state: JobState): readonly string[] {
  const { facts } = state;
  const run = runOf(facts, 'how it keeps time');
  return [
    ...runningLines(state),
    ...(ranToEnd(run) ? run.reasons.slice(0, 1) : []),
    ...worksLines(state),
    ...judgeTests(state).map(testLine),
  ];
}

/** Of several cells those fitted and not measured; where nothing was measured at all, that. */
function currentNotMeasured({ facts, wells }: JobState): readonly string[] {
  if (lastReading(facts, 'currentUA') === null) return ['Current not measured.'];
  if (readingIn(facts, 'currentUA') !== undefined) return [];
  return wells
    .filter(({ name, fitted }) => fitted !== null && readingIn(facts, 'currentUA', name) === undefined)
    .map(({ name }) => `Current not measured (${name}).`);
}

/** What was not done: left out, not proved, lost, or found not to work. */
export function notDoneLines(state: JobState, { policy, catalogue }: JobContext): readonly string[] {
  const { facts } = state;
  const { functions, otherSeals } = facts;
  const gasket = facts.gasket?.payload;
  const ended = facts.decision !== null;
  const unordered = partsToOrder(facts).map(({ what }) => what);
  return [
    ...where(
      !judgeTests(state).some(({ shows }) => shows.verdict !== 'proves nothing') && !ended,
      'No water resistance test.',
    ),
    ...where(gasket?.state === 'none there', 'This case has no gasket.'),
    ...where(
      gasket !== undefined && gasket.state !== 'renewed' && gasket.state !== 'none there',
      'The gasket was not renewed.',
    ),
    ...(ended ? [] : currentNotMeasured(state)),
    ...where(
      !ranToEnd(runOf(facts, 'how it keeps time')) && !ended && policy.provingRunHours > 0,
      'No proving run at our bench.',
    ),
    ...SEALS.filter((seal) => otherSeals?.payload[seal] === 'not touched').map(
      (seal) => `${sealWords(seal)} not touched.`,
    ),
    ...(functions === null ? [] : unproved(facts, state.calibre ?? seenMovement(state, catalogue))).map(
      (name) => `Not checked: ${name}.`,
    ),
    ...failedProofs(facts).map(
      ({ what, handedBackSo }) => `Does not work: ${what}${handedBackSo && ` (${handedBackSo})`}.`,
    ),
    ...partsSettledAs(facts, 'lost').map(({ off: { payload } }) =>
      unordered.includes(payload.part)
        ? `Lost at our bench: ${payload.part}.`
        : `Lost at our bench: ${payload.part}; a new one is on order.`,
    ),
    ...state.progress
      .filter((stage) => stage.status === 'skipped')
      .map((stage) => `${STAGE_WORDS[stage.stage]} not done: ${stage.reason ?? ''}.`),
  ];
}
