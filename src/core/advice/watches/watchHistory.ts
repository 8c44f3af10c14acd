import type { MeasuredBack, View } from '../../craft/cases';
import type { Measure } from '../../craft/health';
import { type Flow, heldOf } from '../../craft/tightness';
import { isLeaked, type JobState, leakWords, readingsOf, settingOf } from '../../logbook';
import { judgeTests } from '../leaks';

/** One visit of a watch: its job, folded. */
export interface WatchVisit {
  readonly jobId: string;
  readonly ticket: string;
  readonly receivedAt: string;
  readonly state: JobState;
}

interface Dated {
  readonly atUtc: string;
  readonly ticket: string;
}

/** What is known of one watch over all its visits, the newest first in every list. */
export interface WatchHistory {
  /** How it was opened last: what worked then comes first now. */
  readonly lastOpening:
    | (Dated & {
        readonly kind: string;
        readonly openedWith: string;
        /** Empty where nothing was set. */
        readonly setting: string;
        readonly spotClock: number | null;
        readonly seenFrom: View;
        readonly went: string;
      })
    | null;
  /** Its back as it was measured last. */
  readonly measured: MeasuredBack | null;
  readonly notes: readonly (Dated & { readonly text: string })[];
  readonly cells: readonly (Dated & {
    readonly cellCode: string;
    readonly supplier: string;
    readonly lotCode: string;
  })[];
  readonly leaks: readonly (Dated & { readonly marking: string; readonly condition: string })[];
  /** Leaks at the bench, with where on the layout and the pictures taken. */
  readonly leakages: readonly (Dated & {
    readonly words: string;
    readonly xMm: number | null;
    readonly yMm: number | null;
    readonly pictures: readonly string[];
  })[];
  readonly gaskets: readonly (Dated & { readonly state: string; readonly reason: string })[];
  /** Of a watch with several cells each with the one it was read at; null: of the watch. */
  readonly currents: readonly (Dated & { readonly valueUA: number; readonly well: string | null })[];
  readonly rates: readonly (Dated & { readonly sPerDay: number })[];
  /** Every reading, in its own unit. */
  readonly readings: readonly (Dated & {
    readonly measure: Measure;
    readonly value: number;
    readonly well: string | null;
  })[];
  readonly tests: readonly (Dated & {
    readonly method: string;
    readonly pressureBar: number | null;
    /** What it shows, by what was seen or measured. */
    readonly outcome: string;
    /** The air that passes at 2 bar, with its ends; null where nothing was measured. */
    readonly flow: Flow | null;
    readonly stiffnessUmPerBar: number | null;
  })[];
}

type Of<K extends keyof WatchHistory> = (visit: WatchVisit) => WatchHistory[K];

const openingsOf = (visit: WatchVisit) => {
  const back = visit.state.facts.back;
  return back
    ? [
        {
          atUtc: back.occurredAt,
          ticket: visit.ticket,
          ...back.payload,
          setting: settingOf(back.payload),
        },
      ]
    : [];
};

const notesOf: Of<'notes'> = (visit) =>
  visit.state.facts.techniques.map((note) => ({
    atUtc: note.occurredAt,
    ticket: visit.ticket,
    text: note.payload.note,
  }));

const cellsOf: Of<'cells'> = (visit) => {
  const { accumulator, cellsFitted } = visit.state.facts;
  return [
    ...[...cellsFitted.values()].map(({ occurredAt, payload }) => ({
      atUtc: occurredAt,
      ticket: visit.ticket,
      ...payload,
    })),
    ...(accumulator
      ? [
          {
            atUtc: accumulator.occurredAt,
            ticket: visit.ticket,
            cellCode: accumulator.payload.kitCode,
            supplier: accumulator.payload.supplier,
            lotCode: accumulator.payload.lotCode,
          },
        ]
      : []),
  ];
};

const leaksOf: Of<'leaks'> = (visit) => [
  ...visit.state.facts.leakages.map(({ occurredAt, payload }) => ({
    atUtc: occurredAt,
    ticket: visit.ticket,
    marking: `${payload.severity} at the ${payload.place}`,
    condition: [payload.decision, payload.supplier, payload.lotCode && `lot ${payload.lotCode}`]
      .filter(Boolean)
      .join(', '),
  })),
  ...[...visit.state.facts.cellsFound.values()].flatMap(({ occurredAt, payload }) =>
    payload.marking !== null && isLeaked(payload)
      ? [
          {
            atUtc: occurredAt,
            ticket: visit.ticket,
            marking: payload.marking,
            condition: payload.condition,
          },
        ]
      : [],
  ),
];

const leakagesOf: Of<'leakages'> = (visit) =>
  visit.state.facts.leakages.map(({ occurredAt, payload, attachments }) => ({
    atUtc: occurredAt,
    ticket: visit.ticket,
    words: leakWords(payload),
    xMm: payload.xMm,
    yMm: payload.yMm,
    pictures: attachments,
  }));

const gasketsOf: Of<'gaskets'> = (visit) => {
  const { gasket } = visit.state.facts;
  return gasket
    ? [
        {
          atUtc: gasket.occurredAt,
          ticket: visit.ticket,
          state: gasket.payload.state,
          reason: gasket.payload.reason,
        },
      ]
    : [];
};

const currentsOf: Of<'currents'> = (visit) =>
  readingsOf(visit.state.facts, 'currentUA').map(({ occurredAt, payload, well }) => ({
    atUtc: occurredAt,
    ticket: visit.ticket,
    valueUA: payload.value,
    well,
  }));

const everyReadingOf: Of<'readings'> = (visit) =>
  [...visit.state.facts.readings.values()].map(({ occurredAt, payload, well }) => ({
    atUtc: occurredAt,
    ticket: visit.ticket,
    measure: payload.measure,
    value: payload.value,
    well,
  }));

const ratesOf: Of<'rates'> = (visit) => {
  const rate = visit.state.facts.readings.get('rateSPerDay');
  return rate ? [{ atUtc: rate.occurredAt, ticket: visit.ticket, sPerDay: rate.payload.value }] : [];
};

const testsOf: Of<'tests'> = (visit) =>
  judgeTests(visit.state).map(({ test: { occurredAt, payload }, shows, leak }) => ({
    atUtc: occurredAt,
    ticket: visit.ticket,
    method: payload.method,
    pressureBar: heldOf(payload).overBar,
    outcome: shows.verdict === 'proves nothing' && payload.outcome ? payload.outcome : shows.verdict,
    flow: leak?.flow ?? null,
    stiffnessUmPerBar: leak?.stiffnessUmPerBar ?? null,
  }));

/**
 * A watch's history from its visits. Only facts that stand are counted; each carries when it happened and the
 * ticket it was recorded under.
 */
export function watchHistory(visits: readonly WatchVisit[]): WatchHistory {
  const newestFirst = [...visits].sort((a, b) => b.receivedAt.localeCompare(a.receivedAt));
  const collect = <T>(of: (visit: WatchVisit) => readonly (T & Dated)[]): (T & Dated)[] =>
    newestFirst.flatMap(of).sort((a, b) => b.atUtc.localeCompare(a.atUtc));
  const openings = collect(openingsOf);
  return {
    lastOpening: openings[0] ?? null,
    measured: newestFirst.find((visit) => visit.state.facts.measured)?.state.facts.measured?.payload ?? null,
    notes: collect(notesOf),
    cells: collect(cellsOf),
    leaks: collect(leaksOf),
    leakages: collect(leakagesOf),
    gaskets: collect(gasketsOf),
    currents: collect(currentsOf),
    readings: collect(everyReadingOf),
    rates: collect(ratesOf),
    tests: collect(testsOf),
  };
}

/** What earlier visits read of a measure at a well, the oldest first; a visit with one cell names none. */
export function earlierReadings(
  { readings }: Pick<WatchHistory, 'readings'>,
  measure: Measure,
  well: string | null,
): readonly number[] {
  return readings
    .filter((each) => each.measure === measure && (each.well === null || well === null || each.well === well))
    .toSorted((a, b) => (a.atUtc < b.atUtc ? -1 : 1))
    .map(({ value }) => value);
}
