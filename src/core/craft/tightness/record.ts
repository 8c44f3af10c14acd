import { AMBIENT_BAR } from './law';

/** Fewer points tell nothing of a decay. */
export const LEAST_POINTS = 12;

/** What a tester showed, point by point: time, gauge pressure, and how far the case gave. */
export interface LeakRecord {
  readonly atS: readonly number[];
  readonly overBar: readonly number[];
  readonly deflectionUm: readonly number[];
}

export type PhaseKind = 'baseline' | 'pressure' | 'vacuum' | 'recovery';

/** A part of a record in which the pressure stood. */
export interface Phase {
  readonly kind: PhaseKind;
  readonly fromS: number;
  readonly toS: number;
  /** Over the air outside, bar: the middle of all readings, so that the way there does not count. */
  readonly overBar: number;
  /** Places of its points in the record, the first and the one past the last. */
  readonly from: number;
  readonly to: number;
}

/** Up to this share of the most pressure of a record nothing presses. */
const AT_REST = 0.05;
/** From this share on the pressure stands. */
const HELD = 0.8;
/** Held is what is at least this share of the middle of its phase. */
const STANDS_AT = 0.95;
/** Beside the most of a stretch a pressure stands that stays so long, s, and ends within this share of where it began. */
const STANDS_S = 4;
const ON_ITS_WAY = 0.1;
/** Watched less than this, s, under pressure or after venting, a record shows nothing. */
export const LEAST_HELD_S = 20;
/** Below this, bar, nothing presses at all: a tester's own zero is no better. */
export const NO_PRESSURE_BAR = 0.1;

/** The least of many values: a million of them are more than a call takes. */
const least = (values: readonly number[]): number =>
  values.reduce((lowest, each) => Math.min(lowest, each), Infinity);

/** The most a record was pressed at, overshoot too, either way, bar above outside air; 0 for one without points. */
export function pressedAt({ overBar }: Pick<LeakRecord, 'overBar'>): number {
  return overBar.reduce((most, over) => (Math.abs(over) > Math.abs(most) ? over : most), 0);
}

/**
 * The phases of a record by its pressure: rest before it is the baseline, rest after it recovery, and between them each
 * stretch at which pressure or vacuum stood, whatever stood before or after it. What was on its way belongs to none. A record
 * that was never pressed is all baseline.
 */
export function phasesOf(record: LeakRecord): readonly Phase[] {
  const { atS, overBar } = record;
  // What is no record has no parts.
  if (![...atS, ...overBar].every(Number.isFinite)) return [];
  const [lowest, highest] = [Math.min(0, least(overBar)), Math.max(0, -least(overBar.map((over) => -over)))];
  const phases: Phase[] = [];
  let wasPressed = false;
  const sideAt = (i: number): -1 | 0 | 1 => {
    const over = overBar[i] ?? 0;
    const most = over < 0 ? lowest : highest;
    if (Math.abs(most) < NO_PRESSURE_BAR || Math.abs(over) <= AT_REST * Math.abs(most)) return 0;
    return over < 0 ? -1 : 1;
  };
  const add = (kind: PhaseKind, from: number, to: number): void => {
    if (to - from < 2) return;
    const part = overBar.slice(from, to);
    phases.push({
      kind,
      fromS: atS[from] ?? 0,
      toS: atS[to - 1] ?? 0,
      overBar: part.sort((one, other) => one - other)[part.length >> 1] ?? 0,
      from,
      to,
    });
  };
  for (let from = 0; from < atS.length;) {
    const side = sideAt(from);
    let to = from + 1;
    while (to < atS.length && sideAt(to) === side) to += 1;
    if (side === 0) add(wasPressed ? 'recovery' : 'baseline', from, to);
    else {
      wasPressed = true;
      for (const [first, past] of steadyRuns(record, from, to))
        add(side < 0 ? 'vacuum' : 'pressure', first, past);
    }
    from = to;
  }
  return phases;
}

/**
 * Where pressure stood within a stretch of one side, in order: runs of readings of which none is under `HELD` of the greatest of its
 * run. The run with the greatest pressure of all counts however short it is; any other only if it lasts and ends about where it
 * began, since a way up or down is no pressure that stood. One pass, so that a file of a million readings cannot stall it.
 */
function steadyRuns(
  { atS, overBar }: Pick<LeakRecord, 'atS' | 'overBar'>,
  from: number,
  to: number,
): readonly (readonly [from: number, to: number])[] {
  const size = (i: number): number => Math.abs(overBar[i] ?? 0);
  const runs: { from: number; to: number; most: number }[] = [];
  let [first, least, most] = [from, size(from), size(from)];
  for (let i = from + 1; i <= to; i += 1) {
    const stays = i < to && Math.min(least, size(i)) >= HELD * Math.max(most, size(i));
    if (stays) [least, most] = [Math.min(least, size(i)), Math.max(most, size(i))];
    else {
      runs.push({ from: first, to: i, most });
      [first, least, most] = [i, size(i), size(i)];
    }
  }
  const top = runs.reduce((highest, each) => Math.max(highest, each.most), 0);
  return runs
    .filter(
      (run) =>
        run.most === top ||
        ((atS[run.to - 1] ?? 0) - (atS[run.from] ?? 0) >= STANDS_S &&
          Math.abs(size(run.to - 1) - size(run.from)) <= ON_ITS_WAY * run.most),
    )
    .map((run) => [run.from, run.to] as const);
}

const isHeld = ({ kind }: Phase): boolean => kind === 'pressure' || kind === 'vacuum';

const mostPressed = (phases: readonly Phase[]): Phase | null =>
  phases.reduce<Phase | null>(
    (most, each) => (most === null || Math.abs(each.overBar) > Math.abs(most.overBar) ? each : most),
    null,
  );

/**
 * The phase that carries what a record shows: of those watched for `LEAST_HELD_S` the one that was pressed most, either way;
 * where none was watched so long, the one that was pressed most. Null where nothing stood.
 */
export function mainPhase(phases: readonly Phase[]): Phase | null {
  const held = phases.filter(isHeld);
  return mostPressed(held.filter(({ fromS, toS }) => toS - fromS >= LEAST_HELD_S)) ?? mostPressed(held);
}

/** What was watched after the pressure that carries a record was let off, long enough to show something; null where nothing was. */
export function recoveryAfter(main: Phase, phases: readonly Phase[]): Phase | null {
  const after = phases.find(({ kind, fromS }) => kind === 'recovery' && fromS > main.fromS);
  return after !== undefined && after.toS - after.fromS >= LEAST_HELD_S ? after : null;
}

/** A gauge pressure, and its own time. */
export interface Held {
  readonly overBar: number;
  readonly seconds: number;
}

/** Each pressure that stood in a record with its own time, in order; no overshoot counts, and no way up or down. */
export function heldPhases(record: LeakRecord): readonly Held[] {
  return phasesOf(record)
    .filter(isHeld)
    .map((phase) => heldIn(record, phase));
}

/** What a phase was held at, and for how long it was held at that or more. */
function heldIn({ atS, overBar: bar }: LeakRecord, { overBar, from, to }: Phase): Held {
  const atIt = (i: number): boolean => Math.abs(bar[i] ?? 0) >= STANDS_AT * Math.abs(overBar);
  let seconds = 0;
  for (let i = from + 1; i < to; i += 1)
    if (atIt(i) && atIt(i - 1)) seconds += (atS[i] ?? 0) - (atS[i - 1] ?? 0);
  // No gauge is read finer than a hundredth: 2.998 and 3.001 bar are the same pressure.
  return { overBar: Number(overBar.toFixed(2)), seconds: Math.max(1, Math.round(seconds)) };
}

/** The pressure that carries what a record shows, with its own time; null where none stood. */
export function carriedBy(record: LeakRecord): Held | null {
  const main = mainPhase(phasesOf(record));
  return main === null ? null : heldIn(record, main);
}

/**
 * What a test was held at, and for how long: as its record shows, whatever was typed beside it; without one as typed. Pressure is
 * null for a test without any, bar above outside air.
 */
export function heldOf({
  record,
  pressureBar,
  seconds,
}: {
  readonly record: LeakRecord | null;
  readonly pressureBar: number | null;
  readonly seconds: number;
}): { readonly overBar: number | null; readonly seconds: number } {
  const carried = record === null || pressureBar === null ? null : carriedBy(record);
  const givenS = seconds >= 0 ? seconds : 0;
  if (carried === null) return { overBar: pressureBar, seconds: givenS };
  // Of its own time no more is claimed than somebody told.
  return { overBar: carried.overBar, seconds: Math.min(givenS, carried.seconds) };
}

/** So many points say as much of a leak as all of a longer record. */
export const POINTS_KEPT = 1000;

/** A baseline keeps at least so many points, however long the record is. */
const LEAST_BASELINE_POINTS = 2;

/**
 * A record with at most as many points as are kept: each the mean of its neighbours, as many for every point, and none of both
 * the baseline and what came after it. Times, bar and µm as before.
 */
export function condense(record: LeakRecord, most = POINTS_KEPT): LeakRecord {
  const count = record.atS.length;
  if (count <= most) return record;
  const each = Math.ceil(count / (most - LEAST_BASELINE_POINTS));
  const [first] = phasesOf(record);
  const baseline = first?.kind === 'baseline' && first.from === 0 && first.to < count ? first.to : 0;
  const blocks: [from: number, to: number][] = [];
  const ofBaseline =
    baseline === 0 ? 0 : Math.min(baseline, Math.max(LEAST_BASELINE_POINTS, Math.floor(baseline / each)));
  for (let block = 0; block < ofBaseline; block += 1)
    blocks.push([
      Math.floor((block * baseline) / ofBaseline),
      Math.floor(((block + 1) * baseline) / ofBaseline),
    ]);
  for (let from = baseline; from + each <= count; from += each) blocks.push([from, from + each]);
  const means = (values: readonly number[], digits: number): number[] =>
    blocks.map(([from, to]) => {
      let sum = 0;
      for (let i = from; i < to; i += 1) sum += values[i] ?? 0;
      return Number((sum / (to - from)).toFixed(digits)) + 0;
    });
  return {
    atS: means(record.atS, 3),
    overBar: means(record.overBar, 4),
    deflectionUm: means(record.deflectionUm, 4),
  };
}

/** What makes a record none: places without figures, times that do not rise, too many points to keep. Empty where it is one. */
export function recordContradictions(record: LeakRecord): readonly string[] {
  const contradiction = contradictionIn(record);
  return contradiction === null ? [] : [`Record: ${contradiction}.`];
}

/** The first of them in words, without its subject; null for a record that is one. */
export function contradictionIn({ atS, overBar, deflectionUm }: LeakRecord): string | null {
  if (overBar.length !== atS.length || deflectionUm.length !== atS.length)
    return 'times, pressures and deflections are not equally many';
  if (atS.length < 2) return 'at least two points';
  if (![atS, overBar, deflectionUm].every((each) => each.every(Number.isFinite)))
    return 'it contains values that are not numbers';
  const back = atS.findIndex((at, i) => i > 0 && at <= (atS[i - 1] ?? 0));
  if (back !== -1) return `times do not rise at point ${back + 1}`;
  return overBar.some((over) => over <= -AMBIENT_BAR)
    ? 'below a full vacuum: enter pressure relative to outside air'
    : null;
}
