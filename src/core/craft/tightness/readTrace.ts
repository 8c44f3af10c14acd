import { figure } from '../judgement';
import { AMBIENT_BAR } from './law';
import { condense, type LeakRecord, LEAST_POINTS, phasesOf } from './record';
import { type Heading, readFigure, readHeading, TRACE_COLUMNS, type TraceColumn } from './traceColumns';

export type TraceReading =
  | {
      readonly verdict: 'read';
      /** As many points as are kept. */
      readonly record: LeakRecord;
      readonly points: number;
      /** How columns and units were understood. */
      readonly understood: readonly string[];
      /** What was left out or put right, with its lines. */
      readonly repairs: readonly string[];
    }
  | { readonly verdict: 'refused'; readonly reasons: readonly string[]; readonly whatToDo: string };

/** Time s, pressure bar as it was written, deflection µm. */
interface RowReading {
  readonly atS: number;
  readonly overBar: number;
  readonly deflectionUm: number;
}

export interface TraceReader {
  /**
   * One row of the file, with its line. Gives the reading as it stands there, which only the whole record can put right
   * (absolute pressure, spikes); null where the row holds none.
   */
  readonly row: (cells: readonly string[], line: number) => RowReading | null;
  readonly done: () => TraceReading;
}

/** Above it the heading was not met, and this is no trace. */
const HEADING_WITHIN = 60;
const MOST_POINTS = 2_000_000;
/** A file of which so much cannot be read is not what it says. */
const MOST_UNREADABLE = 0.2;
const MOST_BACKWARD = 0.02;
const GAP_STEPS = 5;
/** A gap of so much of a record hides what happened. */
const MOST_GAP = 0.3;
/** A reading this many times the usual step off its neighbours is a spike; so many of them are none. */
const SPIKE_TIMES = 8;
const MOST_SPIKES = 0.05;
const HEADINGS =
  'Name the columns in the first line, e.g. time (s); pressure (bar); deflection (µm), and send the file again.';
const NO_BAR = 200;
const ABSOLUTE_REST: readonly [number, number] = [0.85, 1.1];
const GAUGE_REST_BAR = 0.15;
/** No tester of watches comes nearer to nought, bar absolute. */
const NO_TESTER_BELOW_BAR = 0.12;
/** Pressure begins where it leaves its first readings by this share of its range, and by more than a gauge errs, bar. */
const [FIRST_READINGS, BEGINS_SHARE, BEGINS_BAR] = [3, 0.03, 0.02];

/** Lines as one says them: `12, 14, 15 and 7 more`. */
function lineWords(lines: readonly number[]): string {
  const shown = lines.slice(0, 4).join(', ');
  const more = lines.length - 4;
  return `${lines.length === 1 ? 'line' : 'lines'} ${shown}${more > 0 ? ` and ${more} more` : ''}`;
}

const median = (values: readonly number[]): number =>
  Float64Array.from(values).sort()[values.length >> 1] ?? 0;

/** The headings of a row that names all three columns, where each stands, and one that is named twice; null for any other row. */
function headingsIn(cells: readonly string[]): {
  readonly headings: readonly (Heading | null)[];
  readonly at: Readonly<Partial<Record<TraceColumn, number>>>;
  readonly twice: TraceColumn | null;
} | null {
  const headings = cells.map(readHeading);
  const placesOf = (column: TraceColumn): readonly number[] =>
    headings.flatMap((each, place) => (each?.column === column ? [place] : []));
  if (TRACE_COLUMNS.some((column) => placesOf(column).length === 0)) return null;
  return {
    headings,
    at: Object.fromEntries(TRACE_COLUMNS.map((column) => [column, placesOf(column)[0]])),
    twice: TRACE_COLUMNS.findLast((column) => placesOf(column).length > 1) ?? null,
  };
}

/**
 * Reads the trace of a tester row by row: columns by their headings, units understood, decimal commas too. What cannot be
 * read is left out and listed with its line; where too much is wrong the file is refused with the lines, and no figure of it
 * is used. Times s, pressure bar above outside air, deflection µm. Never throws.
 */
export function openTraceReader(): TraceReader {
  let headings: readonly (Heading | null)[] | null = null;
  let [met, rows] = [0, 0];
  const at: Record<TraceColumn, number> = { time: 0, pressure: 1, deflection: 2 };
  const [atS, bar, um, lines]: [number[], number[], number[], number[]] = [[], [], [], []];
  const unreadable: number[] = [];
  /** The first row with more figures than the heading has names, and how many such rows there are. */
  let [longer, longRows]: [{ cells: readonly string[]; line: number } | null, number] = [null, 0];
  let [tooMany, blank] = [false, true];
  let twice: TraceColumn | null = null;

  return {
    row(cells, line) {
      const count = cells.findLastIndex((cell) => cell.trim() !== '') + 1;
      if (count === 0) return null;
      blank = false;
      if (headings === null) {
        met += 1;
        const found = met <= HEADING_WITHIN ? headingsIn(cells) : null;
        if (found !== null) {
          ({ headings, twice } = found);
          Object.assign(at, found.at);
        }
        return null;
      }
      rows += 1;
      if (atS.length >= MOST_POINTS) {
        tooMany = true;
        return null;
      }
      if (count > headings.length) {
        longRows += 1;
        longer ??= { cells: cells.slice(0, count), line };
        return null;
      }
      const [seconds, pressure, deflection] = TRACE_COLUMNS.map(
        (column) => readFigure(cells[at[column]] ?? '', column) * (headings?.[at[column]]?.factor ?? 1),
      ) as [number, number, number];
      if (![seconds, pressure, deflection].every(Number.isFinite)) {
        unreadable.push(line);
        return null;
      }
      atS.push(seconds);
      bar.push(pressure);
      um.push(deflection);
      lines.push(line);
      return { atS: seconds, overBar: pressure, deflectionUm: deflection };
    },
    done() {
      if (blank) return refused(['The file is empty.'], 'Choose the file that the tester wrote.');
      if (headings === null)
        return refused(
          [`No line names time, pressure and deflection in its first ${HEADING_WITHIN} lines.`],
          HEADINGS,
        );
      if (twice !== null)
        return refused([`Two columns are named ${twice}: it is not clear which one is meant.`], HEADINGS);
      if (longer !== null) return refusedLonger(longer, longRows, headings);
      if (rows === 0) return NO_READINGS;
      if (tooMany)
        return refused(
          [`More than ${MOST_POINTS} points.`],
          'Send a file with one test and at most two million points.',
        );
      if (unreadable.length > MOST_UNREADABLE * rows || atS.length === 0)
        return refused(
          [`${unreadable.length} of ${rows} rows hold no three figures: ${lineWords(unreadable)}.`],
          'Put only figures into the columns and the units into the headings, then send the file again.',
        );
      return settle(
        { atS, bar, um, lines },
        headings.filter((each) => each !== null),
        unreadable,
      );
    },
  };
}

function refused(reasons: readonly string[], whatToDo: string): TraceReading {
  return { verdict: 'refused', reasons, whatToDo };
}

const NO_READINGS = refused(
  ['The file has headings and no readings under them.'],
  'Send the file once the test is over and the tester has written its readings.',
);

/** A row longer than its headings: commas that part columns and commas in figures cannot be told apart, so both readings are shown. */
function refusedLonger(
  { cells, line }: { readonly cells: readonly string[]; readonly line: number },
  count: number,
  headings: readonly (Heading | null)[],
): TraceReading {
  const read = (figures: readonly string[]): string =>
    headings
      .flatMap((heading, place) => (heading === null ? [] : [`${heading.column} ${figures[place] ?? ''}`]))
      .join(', ');
  const extra = cells.length - headings.length;
  const figureAt = (at: number): boolean => /^[+-]?\d+$/.test((cells[at] ?? '').trim());
  // One comma too many stands within the last figure, or within one before it.
  const joined = Array.from({ length: headings.length }, (_, at) => headings.length - 1 - at)
    .filter((at) => extra === 1 && figureAt(at) && /^\d+$/.test((cells[at + 1] ?? '').trim()))
    .map((at) => [
      ...cells.slice(0, at),
      `${(cells[at] ?? '').trim()}.${(cells[at + 1] ?? '').trim()}`,
      ...cells.slice(at + 2),
    ]);
  const [likeliest] = joined;
  return refused(
    [
      `Line ${line} has ${cells.length} figures under ${headings.length} headings${count > 1 ? `, and ${count - 1} more ${count === 2 ? 'line has' : 'lines have'} too many, too` : ''}. It can be read as ${read(cells)}${likeliest === undefined ? '' : `, or with a decimal comma as ${read(likeliest)}`}.`,
    ],
    'Write the file with semicolons between the columns, or with points in the figures, and send it again.',
  );
}

/** How many readings stand before pressure begins: the baseline, however short it is in a long record. */
function baselineOf(bars: readonly number[]): number {
  const first = median(bars.slice(0, FIRST_READINGS));
  const range = bars.reduce((most, each) => Math.max(most, Math.abs(each - first)), 0);
  const begins = bars.findIndex(
    (each) => Math.abs(each - first) > Math.max(BEGINS_SHARE * range, BEGINS_BAR),
  );
  return begins === -1 ? bars.length : Math.max(begins, 1);
}

interface Raw {
  readonly atS: readonly number[];
  readonly bar: readonly number[];
  readonly um: readonly number[];
  readonly lines: readonly number[];
}

/** Which readings come one after the other in time, and the lines of those that do not. */
function inOrder({ atS, lines }: Raw): {
  readonly keep: readonly number[];
  readonly repeated: readonly number[];
  readonly backward: readonly number[];
} {
  const [keep, repeated, backward]: [number[], number[], number[]] = [[], [], []];
  atS.forEach((seconds, i) => {
    const last = keep.at(-1);
    const before = last === undefined ? -Infinity : (atS[last] ?? 0);
    if (seconds > before) keep.push(i);
    else (seconds === before ? repeated : backward).push(lines[i] ?? 0);
  });
  return { keep, repeated, backward };
}

const rises = (values: readonly number[]): boolean =>
  values.every((each, i) => i === 0 || each > (values[i - 1] ?? 0));

/** What is taken off every pressure, so that it counts above outside air, and how that was understood; or why nobody can tell. */
function zeroOf(
  bars: readonly number[],
  saysAbsolute: boolean | null | undefined,
): { readonly zeroBar: number; readonly understood: string } | TraceReading {
  const rest = median(bars.slice(0, baselineOf(bars)));
  const nearAir = rest >= ABSOLUTE_REST[0] && rest <= ABSOLUTE_REST[1];
  const lowest = bars.reduce((least, each) => Math.min(least, each), Infinity);
  if (saysAbsolute === null && nearAir && lowest < NO_TESTER_BELOW_BAR)
    return refused(
      [
        `The record begins at ${figure(rest)} bar and goes down to ${figure(lowest)} bar: that is the air outside and a vacuum, or a pressure of ${figure(rest)} bar and its end.`,
      ],
      'Say in the heading whether pressure is absolute or gauge, e.g. pressure (bar abs) or pressure (bar gauge), and begin with a baseline.',
    );
  const absolute = saysAbsolute ?? nearAir;
  if (saysAbsolute === null && !nearAir && Math.abs(rest) > GAUGE_REST_BAR)
    return refused(
      [`The record begins at ${figure(rest)} bar. This is neither outside air pressure nor zero.`],
      'Say in the heading whether pressure is absolute or gauge, e.g. pressure (bar abs), and begin with a baseline.',
    );
  const zeroBar = absolute ? (nearAir ? rest : AMBIENT_BAR) : 0;
  return {
    zeroBar,
    understood: absolute
      ? `absolute pressure${saysAbsolute === null ? ', because it starts at outside air pressure' : ''}: ${figure(zeroBar)} bar taken off`
      : `gauge pressure${saysAbsolute === null ? ', because it starts at zero' : ''}`,
  };
}

/** What a whole record cannot be: pressures no tester makes, a gap over much of it, columns in each other’s place. Else its gaps. */
function gapsIn(
  record: LeakRecord,
  lineOf: (place: number) => number,
): { readonly gaps: string } | TraceReading {
  const most = record.overBar.reduce((highest, each) => Math.max(highest, Math.abs(each)), 0);
  if (most > NO_BAR || record.overBar.some((each) => each < -AMBIENT_BAR))
    return refused(
      [
        `Pressure goes to ${figure(record.overBar.find((each) => Math.abs(each) === most) ?? most)} bar above outside air, which no tester reaches.`,
      ],
      'Check that each column has the right heading and unit, then send the file again.',
    );
  const steps = record.atS.slice(1).map((each, i) => each - (record.atS[i] ?? 0));
  const step = median(steps);
  const gaps = steps.flatMap((each, i) => (each > GAP_STEPS * step ? [{ each, i }] : []));
  const widest = gaps.reduce((longest, { each }) => Math.max(longest, each), 0);
  const words = gaps
    .slice(0, 4)
    .map(({ each, i }) => `${figure(each, 1)} s after line ${lineOf(i)}`)
    .join(', ');
  if (widest > MOST_GAP * (record.atS.at(-1) ?? 0))
    return refused(
      [`Nothing was recorded for much of the test: ${words}.`],
      'Repeat the test and record it without a gap.',
    );
  return swapped(record)
    ? refused(
        [
          'During the test the pressure falls and the deflection stays the same. The two columns look swapped.',
        ],
        'Swap the two headings and send the file again.',
      )
    : { gaps: words };
}

function settle(raw: Raw, headings: readonly Heading[], unreadable: readonly number[]): TraceReading {
  const { keep: ordered, repeated, backward } = inOrder(raw);
  if (backward.length + repeated.length > Math.max(2, MOST_BACKWARD * raw.atS.length))
    return refused(
      [
        `Times do not rise: ${lineWords([...backward, ...repeated].sort((a, b) => a - b))}.`,
        ...(rises(raw.bar) || rises(raw.um) ? ['Another column does: the columns look swapped.'] : []),
      ],
      'The file must hold one test only, in the order it was recorded, with each column under its own heading. Export it again and send it.',
    );
  if (ordered.length < LEAST_POINTS)
    return refused(
      [
        `${ordered.length} ${ordered.length === 1 ? 'point' : 'points'}: at least ${LEAST_POINTS} are needed.`,
      ],
      'Send the complete record, from the baseline to the recovery after venting.',
    );
  const bars = ordered.map((i) => raw.bar[i] ?? 0);
  const zero = zeroOf(bars, headings.find(({ column }) => column === 'pressure')?.absolute);
  if ('verdict' in zero) return zero;
  const spikes = spikesOf(
    ordered.map((i) => raw.um[i] ?? 0),
    bars,
  );
  const spikeLines = lineWords(spikes.map((place) => raw.lines[ordered[place] ?? 0] ?? 0));
  if (spikes.length > MOST_SPIKES * ordered.length)
    return refused(
      [`${spikes.length} of ${ordered.length} readings leap: ${spikeLines}.`],
      'Check the sensor and its cable, then repeat the test.',
    );
  const gone = new Set(spikes);
  const keep = ordered.filter((_, place) => !gone.has(place));
  const begin = raw.atS[keep[0] ?? 0] ?? 0;
  const record: LeakRecord = {
    atS: keep.map((i) => Number(((raw.atS[i] ?? 0) - begin).toFixed(4))),
    overBar: keep.map((i) => Number(((raw.bar[i] ?? 0) - zero.zeroBar).toFixed(5)) + 0),
    deflectionUm: keep.map((i) => Number((raw.um[i] ?? 0).toFixed(5)) + 0),
  };
  const whole = gapsIn(record, (place) => raw.lines[keep[place] ?? 0] ?? 0);
  if ('verdict' in whole) return whole;
  return {
    verdict: 'read',
    record: condense(record),
    points: record.atS.length,
    understood: [
      ...headings.map(
        ({ column, unit, unitSaid }) => `${column} in ${unit}${unitSaid ? '' : ', as no unit was named'}`,
      ),
      zero.understood,
    ],
    repairs: [
      ...(unreadable.length > 0 ? [`Left out, no figure in them: ${lineWords(unreadable)}.`] : []),
      ...(repeated.length > 0 ? [`Left out, the same time again: ${lineWords(repeated)}.`] : []),
      ...(backward.length > 0 ? [`Left out, a time before the last: ${lineWords(backward)}.`] : []),
      ...(spikes.length > 0 ? [`Left out, a spike: ${spikeLines}.`] : []),
      ...(whole.gaps === '' ? [] : [`Gaps, over which nothing was made up: ${whole.gaps}.`]),
    ],
  };
}

/** Places of readings that leap off both their neighbours and come back at once, while the pressure stands. */
function spikesOf(um: readonly number[], bar: readonly number[]): readonly number[] {
  const steps = um.slice(1).map((each, i) => Math.abs(each - (um[i] ?? 0)));
  const most = bar.reduce((highest, each) => Math.max(highest, Math.abs(each)), 0);
  const usual = median(steps) || steps.reduce((sum, each) => sum + each, 0) / Math.max(1, steps.length);
  return um.flatMap((each, i) => {
    if (i === 0 || i === um.length - 1) return [];
    const [before, after] = [um[i - 1] ?? 0, um[i + 1] ?? 0];
    const stands =
      Math.max(bar[i - 1] ?? 0, bar[i] ?? 0, bar[i + 1] ?? 0) -
        Math.min(bar[i - 1] ?? 0, bar[i] ?? 0, bar[i + 1] ?? 0) <
      0.02 * most;
    const off = Math.min(Math.abs(each - before), Math.abs(each - after));
    const back = Math.abs(after - before) < 0.5 * off;
    const oneWay = (each - before) * (each - after) > 0;
    return stands && back && oneWay && off > SPIKE_TIMES * usual ? [i] : [];
  });
}

/** A tester holds its pressure, and a case that loses its own deflects less: never the other way round. */
function swapped(record: LeakRecord): boolean {
  const held = phasesOf(record).find(({ kind, fromS, toS }) => kind === 'pressure' && toS - fromS > 20);
  if (held === undefined) return false;
  const falls = (values: readonly number[]): number => {
    const [first, last] = [
      values.slice(held.from + 2, held.from + 7),
      values.slice(held.to - 5, held.to),
    ].map(median);
    return 1 - (last ?? 0) / (first || 1);
  };
  return falls(record.overBar) > 0.1 && Math.abs(falls(record.deflectionUm)) < 0.01;
}

/**
 * The rows of a trace as JSON: a list of points by name, or a list of figures under each name, alone or inside an object.
 * Null where it is neither.
 */
export function traceRowsOfJson(value: unknown): readonly (readonly string[])[] | null {
  const named = (each: unknown): each is Readonly<Record<string, unknown>> =>
    typeof each === 'object' && each !== null && !Array.isArray(each);
  const text = (each: unknown): string =>
    typeof each === 'number' || typeof each === 'string' ? String(each) : '';
  if (Array.isArray(value)) {
    const [first] = value as unknown[];
    if (Array.isArray(first))
      return (value as unknown[]).map((row) => (Array.isArray(row) ? row.map(text) : []));
    if (!named(first)) return null;
    const names = Object.keys(first);
    return [
      names,
      ...(value as unknown[]).map((row) => names.map((name) => (named(row) ? text(row[name]) : ''))),
    ];
  }
  if (!named(value)) return null;
  const lists = Object.entries(value).filter((entry): entry is [string, unknown[]] =>
    Array.isArray(entry[1]),
  );
  const recognised = lists.filter(([name]) => readHeading(name) !== null);
  if (recognised.length >= TRACE_COLUMNS.length) {
    const length = Math.max(...recognised.map(([, list]) => list.length));
    return [
      recognised.map(([name]) => name),
      ...Array.from({ length }, (_, i) => recognised.map(([, list]) => text(list[i]))),
    ];
  }
  for (const [, inner] of Object.entries(value)) {
    const rows = typeof inner === 'object' ? traceRowsOfJson(inner) : null;
    if (rows !== null) return rows;
  }
  return null;
}
