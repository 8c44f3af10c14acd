/** What a tester showed, point by point: time, pressure over the air outside, and how far the case gave. */
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
/** Below this, bar, nothing presses at all: a tester's own zero is no better. */
export const NO_PRESSURE_BAR = 0.1;

/** The least of many values: a million of them are more than a call takes. */
const least = (values: readonly number[]): number =>
  values.reduce((lowest, each) => Math.min(lowest, each), Infinity);

/** The most a record was pressed at, either way, bar over the air outside; 0 for one without points. */
export function pressedAt({ overBar }: Pick<LeakRecord, 'overBar'>): number {
  return overBar.reduce((most, over) => (Math.abs(over) > Math.abs(most) ? over : most), 0);
}

/**
 * The phases of a record by its pressure: rest before it is the baseline, rest after it recovery, and between them each
 * stretch at which pressure or vacuum stood. What was on its way belongs to none. A record that was never pressed is all
 * baseline.
 */
export function phasesOf(record: LeakRecord): readonly Phase[] {
  const { atS, overBar } = record;
  // What is no record has no parts.
  if (![...atS, ...overBar].every(Number.isFinite)) return [];
  const [lowest, highest] = [Math.min(0, least(overBar)), Math.max(0, -least(overBar.map((over) => -over)))];
  const phases: Phase[] = [];
  let wasPressed = false;
  const kindAt = (i: number): PhaseKind | null => {
    const over = overBar[i] ?? 0;
    const most = over < 0 ? lowest : highest;
    if (Math.abs(most) < NO_PRESSURE_BAR || Math.abs(over) <= AT_REST * Math.abs(most))
      return wasPressed ? 'recovery' : 'baseline';
    if (Math.abs(over) < HELD * Math.abs(most)) return null;
    wasPressed = true;
    return over < 0 ? 'vacuum' : 'pressure';
  };
  let from = 0;
  let kind = kindAt(0);
  const end = (to: number): void => {
    if (kind === null || to - from < 2) return;
    const part = overBar.slice(from, to);
    phases.push({
      kind,
      fromS: atS[from] ?? 0,
      toS: atS[to - 1] ?? 0,
      overBar: part.sort((a, b) => a - b)[part.length >> 1] ?? 0,
      from,
      to,
    });
  };
  for (let i = 1; i < atS.length; i += 1) {
    const next = kindAt(i);
    if (next === kind) continue;
    end(i);
    [from, kind] = [i, next];
  }
  end(atS.length);
  return phases;
}

const isHeld = ({ kind }: Phase): boolean => kind === 'pressure' || kind === 'vacuum';

/** The phase that was pressed most, either way; null where nothing stood. */
export function mainPhase(phases: readonly Phase[]): Phase | null {
  return phases
    .filter(isHeld)
    .reduce<Phase | null>(
      (most, each) => (most === null || Math.abs(each.overBar) > Math.abs(most.overBar) ? each : most),
      null,
    );
}

/** What a record was pressed at while the pressure stood, bar over the air outside: no overshoot counts. Null where none did. */
export function heldBar(record: LeakRecord): number | null {
  return mainPhase(phasesOf(record))?.overBar ?? null;
}

/** How long pressure stood in a record, s, whole; null where none did. */
export function heldSeconds(record: LeakRecord): number | null {
  const held = phasesOf(record).filter(isHeld);
  return held.length === 0
    ? null
    : Math.max(1, Math.round(Math.max(...held.map(({ fromS, toS }) => toS - fromS))));
}

/** So many points say as much of a leak as all of a longer record. */
export const POINTS_KEPT = 1000;

/**
 * A record with at most as many points as are kept: each the mean of its neighbours, as many for every point. Times, bar
 * and µm as before.
 */
export function condense(record: LeakRecord, most = POINTS_KEPT): LeakRecord {
  const each = Math.ceil(record.atS.length / most);
  if (each <= 1) return record;
  const means = (values: readonly number[], digits: number): number[] =>
    Array.from({ length: Math.floor(values.length / each) }, (_, block) => {
      let sum = 0;
      for (let i = block * each; i < (block + 1) * each; i += 1) sum += values[i] ?? 0;
      return Number((sum / each).toFixed(digits)) + 0;
    });
  return {
    atS: means(record.atS, 3),
    overBar: means(record.overBar, 4),
    deflectionUm: means(record.deflectionUm, 4),
  };
}
