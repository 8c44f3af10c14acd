import { chooseOpener } from '../src/core/craft/opening';
import { type CaseType, type MeasuredBack, workedFrom } from '../src/core/craft/cases';
import { asAdvised, expectedBack } from '../src/core/advice/opening';
import { recordOfSamples, type SimulatedCase, simulateTrace } from '../src/core/craft/devices';
import type { KeptRecord, Payloads } from '../src/core/logbook';
import { type Part, serves } from '../src/core/craft/parts';
import { tools } from './tools';
export const SALTMARSH = 'Saltmarsh Wholesale';
export const NETTLE = 'Nettle & Quay Supplies';

export const technicians = [
  { key: 'edda', name: 'Edda Vinterhal', initials: 'EV' },
  { key: 'jorun', name: 'Jorun Askeby', initials: 'JA' },
  { key: 'milo', name: 'Milo Tarnquist', initials: 'MT' },
] as const;
export type TechnicianKey = (typeof technicians)[number]['key'];

/** What happened on a job, minutes after the watch came in. */
export type Step = {
  [K in keyof Payloads]: {
    readonly minutes: number;
    readonly kind: K;
    readonly payload: Payloads[K];
    readonly by?: TechnicianKey;
    readonly well?: string;
    readonly corrects?: keyof Payloads;
    /** A picture taken with the camera, kept with the entry. */
    readonly picture?: 'movement' | 'back' | 'leaked-cell';
  };
}[keyof Payloads];

export interface DemoJob {
  readonly key: string;
  readonly customer: { readonly name: string; readonly phone: string; readonly email: string };
  readonly technician: TechnicianKey;
  /** The job whose owner and watch this one shares: an earlier visit. */
  readonly sameWatchAs?: string;
  /** The job whose owner and visit it shares: another watch brought with it. */
  readonly sameVisitAs?: string;
  /** The earlier job it comes back about. */
  readonly comesBackAbout?: string;
  /** Minutes before the demo's start at which the watch came in. */
  readonly arrivedMinutesAgo: number;
  /** Minutes from the demo's start to the promise, negative when overdue. */
  readonly promisedInMinutes: number;
  readonly watch: Payloads['arrive.watch'];
  readonly complaint: Payloads['arrive.complaint'];
  readonly consent?: boolean;
  readonly service?: Payloads['arrive.service'];
  /** What happened since, minutes after arrival. */
  readonly steps: readonly Step[];
  /** Sign it so many minutes after arrival, and hand it over. */
  readonly signedAfter?: number;
  readonly collectedAfter?: number;
}

export const watch = (
  maker: string,
  reference: string,
  serial: string,
  more: Partial<Payloads['arrive.watch']> = {},
): Payloads['arrive.watch'] => ({
  maker,
  reference,
  serial,
  engraved: '',
  ratingBar: null,
  crownClock: 3,
  ...more,
});

export const stopped: Payloads['arrive.complaint'] = { picked: ['stopped'], words: '' };
export const person = (name: string, phone: string, email = ''): DemoJob['customer'] => ({
  name,
  phone,
  email,
});

export const opened = (
  minutes: number,
  kind: Payloads['open.back']['kind'],
  openedWith: string,
  spotClock: number | null = null,
  lipClock: number | null = null,
  toolIds: readonly string[] = [],
): Step => ({
  minutes,
  kind: 'open.back',
  payload: {
    kind,
    openedWith,
    protection: 'film',
    went: 'freely',
    spotClock,
    lipClock,
    seenFrom: workedFrom(kind),
    toolIds,
    separationMm: null,
    rearMm: null,
  },
});
/** A part that comes off at a step of the plan. */
export const off = (minutes: number, part: Part, position: string, count: number, step: string): Step => ({
  minutes,
  kind: 'open.part',
  payload: { part, position, count, serves: serves(part), step },
});
/** What became of the so-many-th part that came off, counted from 0. */
export const settled = (
  minutes: number,
  index: number,
  outcome: Payloads['open.part-settled']['outcome'],
): Step => ({
  minutes,
  kind: 'open.part-settled',
  payload: { partEntryId: String(index), outcome, note: '' },
});
/** A mark on a picture that was taken before. */
export const marked = (
  minutes: number,
  photo: NonNullable<Step['picture']>,
  xPercent: number,
  yPercent: number,
  kind: Payloads['open.photo-mark']['kind'],
  by: Payloads['open.photo-mark']['by'],
  note: string,
): Step => ({
  minutes,
  kind: 'open.photo-mark',
  payload: { photo, xPercent, yPercent, kind, by, note },
});
/** A back as its book has it, on a bracelet that opens flat. */
export function measuredBack(caseType: CaseType): MeasuredBack {
  return { ...expectedBack(caseType), bracelet: 'bracelet that opens flat' };
}

/** How this shop opens a case of its book: with which of its tools, and how they are set. */
export function openedAs(caseType: CaseType): Omit<Payloads['open.back'], 'went' | 'protection'> {
  const back = measuredBack(caseType);
  const advised = asAdvised({
    back,
    opener: chooseOpener({ back, tools, crownClock: caseType.crownClock, noCrown: false }),
    kindKnown: true,
  });
  return { ...advised, kind: back.kind };
}
/** A reading where no load was stated. */
export const readingOf = (
  measure: Payloads['check.reading']['measure'],
  value: number,
): Payloads['check.reading'] => ({ measure, value, loadKOhm: null, loadSeconds: null });
export const movementOf = (calibreId: string, code: string): Payloads['identify.movement'] => ({
  calibreId,
  revision: null,
  code,
  by: 'engraving',
  note: '',
});
export const engraving = (minutes: number, text: string): Step => ({
  minutes,
  kind: 'identify.engraving',
  payload: { text },
});
export const movement = (minutes: number, calibreId: string, code: string): Step => ({
  minutes,
  kind: 'identify.movement',
  payload: movementOf(calibreId, code),
});
export const reading = (
  minutes: number,
  measure: Payloads['check.reading']['measure'],
  value: number,
): Step => ({
  minutes,
  kind: 'check.reading',
  payload: readingOf(measure, value),
});
export const found = (
  minutes: number,
  marking: string,
  condition: Payloads['cell.found']['condition'] = 'clean',
  well?: string,
): Step => ({
  minutes,
  kind: 'cell.found',
  payload: { marking, condition },
  ...(well ? { well } : {}),
});
export const fitted = (minutes: number, cellCode: string, lotCode: string): Step => ({
  minutes,
  kind: 'cell.fitted',
  payload: {
    cellCode,
    lotId: lotCode,
    supplier: SALTMARSH,
    lotCode,
    alkalineAgreed: false,
    ownersOwn: false,
  },
});
export const binned = (minutes: number): Step => ({
  minutes,
  kind: 'cell.old-settled',
  payload: { taped: true, to: 'spent bin' },
});
export const gasket = (minutes: number, state: Payloads['seal.gasket']['state'], reason: string): Step => ({
  minutes,
  kind: 'seal.gasket',
  payload: {
    state,
    findings: [],
    ageYears: state === 'renewed' ? null : 2,
    meetsWater: false,
    greased: true,
    greasedBy: 'pad',
    profile: 'round',
    size: '',
    lotId: null,
    reason,
  },
});
export const closed = (minutes: number, how: string): Step => ({
  minutes,
  kind: 'seal.closed',
  payload: { how, seamEven: true, raisedClocks: [], seenFrom: null, interim: false },
});
/** How a case of the demo stands on the tester. */
type OnTester = Partial<Pick<SimulatedCase, 'leakUgPerMin' | 'stiffnessUmPerBar' | 'volumeCm3'>>;

/** What the counter's tester recorded of a case; the same in every build. */
function testerRecord(pressureBar: number, seconds: number, of: OnTester): KeptRecord {
  const samples = simulateTrace(
    {
      stiffnessUmPerBar: 4.2,
      settlesShare: 0.03,
      settlesInS: 6,
      volumeCm3: 1.4,
      leakUgPerMin: null,
      gross: false,
      noiseUm: 0.03,
      driftUmPerMin: 0.01,
      ...of,
    },
    pressureBar,
    seconds,
    Math.round(100 * (pressureBar + seconds + (of.leakUgPerMin ?? 0) + (of.stiffnessUmPerBar ?? 0))),
  );
  return {
    ...recordOfSamples(samples),
    from: 'the tester',
    repairs: [],
  };
}

/** A dry test of the demo, with the record of the case it was made on; `LAST_TEST` in `retestOf` is the test before it. */
export const LAST_TEST = 'last test';
export const dryTest = (
  pressureBar: number,
  seconds: number,
  more: Partial<Payloads['test.made']> = {},
  of: OnTester = {},
): Payloads['test.made'] => ({
  method: 'dry air',
  pressureBar,
  seconds,
  outcome: null,
  record: testerRecord(pressureBar, seconds, of),
  deflectionStartUm: null,
  deflectionEndUm: null,
  testerNoiseUm: 0.03,
  usualUmPerBar: null,
  places: [],
  fogSeconds: null,
  temperatureC: 21,
  note: '',
  retestOf: [],
  excessReason: '',
  ...more,
});
export const proved = (
  minutes: number,
  functions: readonly (keyof Payloads['set.functions']['proved'])[],
): Step[] => [
  { minutes, kind: 'set.runs', payload: { runs: true, watchedSeconds: 90 } },
  ...(functions.includes('hands') ? [crownWorks(minutes)] : []),
  { minutes: minutes + 1, kind: 'set.time', payload: { set: true } },
  {
    minutes: minutes + 2,
    kind: 'set.functions',
    payload: { proved: Object.fromEntries(functions.map((each) => [each, 'works'])), handedBackSo: '' },
  },
];

/** The crown pulled, turned and pushed home. */
export const crownWorks = (minutes: number): Step => ({
  minutes,
  kind: 'set.outside',
  payload: { proved: { 'crown in every position': 'works' }, handedBackSo: '' },
});
/** What crown it has, seen before a test. */
export const crownSeen = (minutes: number, crown: Payloads['arrive.crown']['crown']): Step => ({
  minutes,
  kind: 'arrive.crown',
  payload: { crown },
});

export const throughCell = (
  calibreId: string,
  code: string,
  cellCode: string,
  lotCode: string,
  mark: string,
  currentUA = 1.04,
): Step[] => [
  movement(5, calibreId, code),
  reading(7, 'restVoltageV', 1.31),
  reading(8, 'currentUA', currentUA),
  found(9, mark),
  fitted(11, cellCode, lotCode),
  binned(12),
];
