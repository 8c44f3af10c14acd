import { clockWords, type View } from '../../craft/cases';
import { figure } from '../../craft/judgement';
import {
  deflectionKept,
  heldOf,
  type LeakRecord,
  pressureWords,
  type TightnessTest,
  type TwoFigures,
} from '../../craft/tightness';
import type { Closing, Envelope, FactKinds } from '../envelope';

/** Sides a place on a watch is seen from; the side's clock is counted as from the dial. */
export const LEAK_SIDES = ['front', 'side', 'back'] as const;
export type LeakSide = (typeof LEAK_SIDES)[number];
/** What a watch can leak at. */
export const LEAK_SEATS = [
  'crown',
  'pusher',
  'crystal',
  'back',
  'valve',
  'middle of the case',
  'not found',
] as const;
export type LeakSeat = (typeof LEAK_SEATS)[number];
export const LEAK_DONE = [
  'seal renewed',
  'cleaned and greased',
  'closed anew',
  'crystal pressed anew',
  'part renewed',
  'sent away',
  'nothing',
] as const;
export type LeakDone = (typeof LEAK_DONE)[number];

/** Where bubbles rose, or fog stood. */
export interface LeakMark {
  readonly side: LeakSide;
  readonly clock: number;
}

/** What a tester recorded, with where it came from and what was put right in reading it. */
export interface KeptRecord extends LeakRecord {
  readonly from: string;
  readonly repairs: readonly string[];
}

export interface TestPayloads {
  'test.made': TightnessTest & {
    /** Of a dry test, from the tester or a file; null where two figures were typed, or nothing was measured. */
    readonly record: KeptRecord | null;
    readonly deflectionStartUm: number | null;
    readonly deflectionEndUm: number | null;
    /** Of the tester by its book, one reading; null where it was not noted. */
    readonly testerNoiseUm: number | null;
    /** What this case gave for each bar before, as it was known then; null where nothing was. */
    readonly usualUmPerBar: number | null;
    /** Where bubbles rose, or fog stood; empty where none did, or nobody saw where. */
    readonly places: readonly LeakMark[];
    /** How long fog stood, s; null where none did, or nobody timed it. */
    readonly fogSeconds: number | null;
    readonly temperatureC: number | null;
    /** What was done about it; of a retest what was repaired before it. */
    readonly note: string;
    /** The tests that leaked, or were not clear, which this one tries anew after a repair. */
    readonly retestOf: readonly string[];
    /** Why it was tested beyond what watch, shop or tester are for; empty where it was not. */
    readonly excessReason: string;
  };
  /** What is known of the case's free volume: measured, or its size to take it from. */
  'test.case': {
    readonly freeVolumeCm3: number | null;
    /** How well the volume is known; null where it was not measured. */
    readonly withinPercent: number | null;
    readonly diameterMm: number | null;
    readonly thicknessMm: number | null;
  };
  /** A run of the tester with nothing pressing: its own drift. */
  'test.blank': { readonly record: KeptRecord | null; readonly typed: TwoFigures | null };
  /** Where a leak was found, and what was done there. */
  'test.finding': {
    readonly seat: LeakSeat;
    /** The tests it was found by. */
    readonly foundBy: readonly string[];
    readonly done: LeakDone;
    readonly note: string;
  };
}

type Fact<K extends keyof TestPayloads> = Envelope<K, TestPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface TestFacts {
  /** Every test of the visit: a leak stands through a reopening. */
  tests: Fact<'test.made'>[];
  /** Those made before the watch was closed as it is now. */
  testsBeforeClosing: Set<string>;
  caseSize: Fact<'test.case'> | null;
  blank: Fact<'test.blank'> | null;
  leakFindings: Fact<'test.finding'>[];
}

export const noTestFacts = (): TestFacts => ({
  tests: [],
  testsBeforeClosing: new Set(),
  caseSize: null,
  blank: null,
  leakFindings: [],
});

/** Whatever was tested until now was tested on another closing, or on none. */
export function testsAreBefore(facts: TestFacts): void {
  for (const { id } of facts.tests) facts.testsBeforeClosing.add(id);
}

const SIDE_VIEW: Readonly<Record<LeakSide, View>> = {
  front: 'the dial',
  side: 'the dial',
  back: 'behind',
};

/** A place as one says it: `3 o’clock, seen from behind`, or `the side at 3 o’clock, seen from the dial`. */
export function leakMarkWords({ side, clock }: LeakMark): string {
  return `${side === 'side' ? 'the side at ' : ''}${clockWords(clock, SIDE_VIEW[side])}`;
}

export const testKinds: FactKinds<TestPayloads, TestFacts & Closing> = {
  'test.made': {
    words: (test) => {
      const kept = deflectionKept(test);
      const { overBar } = heldOf(test);
      return [
        `${test.retestOf.length === 0 ? '' : 'retest, '}${test.method} test${overBar === null ? '' : ` at ${pressureWords(overBar)}`}`,
        ...(test.outcome === null
          ? [
              test.record === null
                ? ': two figures'
                : `: ${test.record.atS.length} points from ${test.record.from}`,
            ]
          : [`: ${test.outcome}`]),
        ...(test.places.length === 0 ? [] : [`, at ${test.places.map(leakMarkWords).join(' and ')}`]),
        ...(test.fogSeconds === null ? [] : [`, fog for ${figure(test.fogSeconds)} s`]),
        ...(kept === null ? [] : [`, ${figure(kept * 100, 1)} % of the deflection left`]),
        ...(test.excessReason === '' ? [] : [`; beyond its limit: ${test.excessReason}`]),
      ].join('');
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.tests.push(entry);
      if (facts.closed === null) facts.testsBeforeClosing.add(entry.id);
    },
  },
  'test.case': {
    words: ({ freeVolumeCm3, withinPercent, diameterMm, thicknessMm }) =>
      freeVolumeCm3 === null
        ? `case ${figure(diameterMm ?? 0, 1)} mm across, ${figure(thicknessMm ?? 0, 1)} mm thick`
        : `free volume ${figure(freeVolumeCm3)} cm³, within ${figure(withinPercent ?? 0)} %`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.caseSize = entry),
  },
  'test.blank': {
    words: ({ record, typed }) =>
      record !== null
        ? `blank run of the tester: ${record.atS.length} points from ${record.from}`
        : `blank run of the tester: ${figure(typed?.startUm ?? 0, 3)} to ${figure(typed?.endUm ?? 0, 3)} µm in ${figure(typed?.seconds ?? 0)} s`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.blank = entry),
  },
  'test.finding': {
    words: ({ seat, done, note }) =>
      `${seat === 'not found' ? 'where it leaks was not found' : `it leaks at the ${seat}`}: ${done}${note && `, ${note}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.leakFindings.push(entry),
  },
};
