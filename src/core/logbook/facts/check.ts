import {
  FAULTS,
  type LEAK_DECISIONS,
  type LeakPlace,
  type LeakSeverity,
  type Measure,
  measures,
  type NEXT_STEPS,
  type Shows,
  type SignOfFault,
} from '../../craft/health';
import { figure } from '../../craft/judgement';
import { quantities } from '../../craft/units';
import { type Envelope, type FactKinds, MAIN_WELL, wellOf } from '../envelope';
import type { SetFacts } from './set';

export const CROWN_SEEN = ['home', 'pulled'] as const;
export const AT_FITTING = ['voltage holds', 'voltage collapses'] as const;

/** What a diagnosis may name. */
export const CAUSES = [...FAULTS, 'no fault found', 'not found yet'] as const;

export interface CheckPayloads {
  'check.reading': {
    readonly measure: Measure;
    readonly value: number;
    /** The load a loaded voltage was read under, and for how long; null where it was not stated or is no such reading. */
    readonly loadKOhm: number | null;
    readonly loadSeconds: number | null;
  };
  /** Motor pulses heard or picked up. */
  'check.pulses': {
    readonly there: boolean;
    readonly through: 'the closed watch' | 'the open watch';
    /** Seconds between two of them, where that was seen. */
    readonly everyS: number | null;
  };
  /** What was looked at beside the readings; null where it was not. */
  'check.looked': {
    readonly crown: (typeof CROWN_SEEN)[number] | null;
    readonly shows: Shows | null;
    readonly watchedSeconds: number | null;
    /** What the voltage did as a cell went in. */
    readonly atFitting: (typeof AT_FITTING)[number] | null;
    readonly freshCell: boolean | null;
    readonly resetUsed: boolean | null;
    /** Null where nobody looked with the loupe. */
    readonly signs: readonly SignOfFault[] | null;
  };
  'check.leakage': {
    readonly place: LeakPlace;
    readonly severity: LeakSeverity;
    /** On the layout, millimetres from the movement's centre seen from behind; null where it was not marked. */
    readonly xMm: number | null;
    readonly yMm: number | null;
    readonly treated: string;
    readonly decision: (typeof LEAK_DECISIONS)[number];
    /** Of the cell that leaked, where it is known. */
    readonly supplier: string;
    readonly lotCode: string;
    /** The current before and after what was done. */
    readonly currentBeforeUA: number | null;
    readonly currentAfterUA: number | null;
  };
  'check.diagnosis': {
    readonly cause: (typeof CAUSES)[number];
    /** A second fault beside it. */
    readonly also: (typeof CAUSES)[number] | null;
    readonly next: (typeof NEXT_STEPS)[number];
    readonly words: string;
  };
}

/** A look of which nothing was said yet. */
export const NOT_LOOKED: CheckPayloads['check.looked'] = {
  crown: null,
  shows: null,
  watchedSeconds: null,
  atFitting: null,
  freshCell: null,
  resetUsed: null,
  signs: null,
};

function lookedWords(looked: CheckPayloads['check.looked']): string[] {
  const { crown, shows, watchedSeconds, atFitting, freshCell, resetUsed, signs } = looked;
  return [
    ...(crown === null ? [] : [`crown ${crown}`]),
    ...(shows === null
      ? []
      : [`${shows}${watchedSeconds === null ? '' : `, watched for ${figure(watchedSeconds)} s`}`]),
    ...(atFitting === null ? [] : [`${atFitting} as a cell goes in`]),
    ...(freshCell === null ? [] : [freshCell ? 'a fresh cell in' : 'the old cell in']),
    ...(resetUsed === null ? [] : [resetUsed ? 'reset contact used' : 'reset contact not used']),
    ...(signs === null ? [] : signs.length === 0 ? ['nothing unusual under the loupe'] : signs),
  ];
}

/** A leak as watch page and slip tell it: where and how bad, whose cell, what was done, and the current it left. */
export function leakWords(leak: CheckPayloads['check.leakage']): string {
  const { place, severity, treated, decision, supplier, lotCode, currentBeforeUA, currentAfterUA } = leak;
  const cell = [supplier, lotCode && `lot ${lotCode}`].filter(Boolean).join(', ');
  const current =
    currentAfterUA === null
      ? ''
      : `current ${currentBeforeUA === null ? '' : `${figure(currentBeforeUA)} µA before, `}${figure(currentAfterUA)} µA after`;
  return [`${severity} at the ${place}`, cell && `cell of ${cell}`, treated, current, decision]
    .filter(Boolean)
    .join('; ');
}

/** One cause, or two that hold together. */
export function causesWords({
  cause,
  also,
}: {
  readonly cause: string;
  readonly also: string | null;
}): string {
  return also === null ? cause : `${cause} and ${also}`;
}

type Fact<K extends keyof CheckPayloads> = Envelope<K, CheckPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface CheckFacts {
  /** By measure, of a well of several by both. */
  readings: Map<string, Fact<'check.reading'>>;
  pulses: Fact<'check.pulses'> | null;
  looked: Fact<'check.looked'> | null;
  leakages: Fact<'check.leakage'>[];
  /** By well; of the watch as a whole under the name of the only one. */
  findings: Map<string, Fact<'check.diagnosis'>>;
}

export const noCheckFacts = (): CheckFacts => ({
  readings: new Map(),
  pulses: null,
  looked: null,
  leakages: [],
  findings: new Map(),
});

export const checkKinds: FactKinds<CheckPayloads, CheckFacts & Pick<SetFacts, 'stood'>> = {
  'check.reading': {
    words: ({ measure, value, loadKOhm, loadSeconds }) => {
      const { words, quantity } = measures[measure];
      const load =
        loadKOhm === null || loadSeconds === null
          ? ''
          : ` at ${figure(loadKOhm)} kΩ after ${figure(loadSeconds)} s`;
      return `${words}: ${figure(value, quantities[quantity].digits)} ${quantities[quantity].unit}${load}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.readings.set(readingKey(entry.payload.measure, wellOf(entry)), entry),
  },
  'check.pulses': {
    words: ({ there, through, everyS }) =>
      `${there ? 'motor pulses' : 'no motor pulses'} through ${through}${everyS === null ? '' : `, one every ${figure(everyS)} s`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.pulses = entry),
  },
  'check.looked': {
    words: (looked) => `examined: ${lookedWords(looked).join(', ') || 'nothing'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.looked = entry;
      const { shows } = entry.payload;
      if (shows === 'runs as it should') facts.stood = false;
      if (shows === 'stands still' || shows === 'display blank') facts.stood = true;
    },
  },
  'check.leakage': {
    words: ({ place, severity, decision }) => `leaked: ${severity} at the ${place}, ${decision}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.leakages.push(entry),
  },
  'check.diagnosis': {
    words: ({ cause, also, next, words }) =>
      `finding: ${causesWords({ cause, also })}; next: ${next}${words && `; ${words}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.findings.set(wellOf(entry), entry),
  },
};

function readingKey(measure: Measure, well: string): string {
  return well === MAIN_WELL ? measure : `${measure} ${well}`;
}

/** The reading that stands of a measure: of the watch, or of one well of several by its name; undefined: none taken. */
export function readingIn(
  { readings }: Pick<CheckFacts, 'readings'>,
  measure: Measure,
  well: string = MAIN_WELL,
): Fact<'check.reading'> | undefined {
  return readings.get(readingKey(measure, well));
}

/** Every reading that stands of a measure, of the watch and of its wells. */
export function readingsOf(
  { readings }: Pick<CheckFacts, 'readings'>,
  measure: Measure,
): readonly Fact<'check.reading'>[] {
  return [...readings.values()].filter(({ payload }) => payload.measure === measure);
}

/** The latest reading of a measure at any well. */
export function lastReading(
  facts: Pick<CheckFacts, 'readings'>,
  measure: Measure,
): Fact<'check.reading'> | null {
  return readingsOf(facts, measure).reduce<Fact<'check.reading'> | null>(
    (last, each) => (last === null || each.occurredAt >= last.occurredAt ? each : last),
    null,
  );
}
