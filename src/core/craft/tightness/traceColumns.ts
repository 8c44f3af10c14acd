/** What the columns of a file hold, by their headings. */
export const TRACE_COLUMNS = ['time', 'pressure', 'deflection'] as const;
export type TraceColumn = (typeof TRACE_COLUMNS)[number];

/** What a heading says: which column it is, what a figure of it is in the program's own unit, and whether that was said. */
export interface Heading {
  readonly column: TraceColumn;
  readonly factor: number;
  readonly unit: string;
  readonly unitSaid: boolean;
  /** An absolute pressure or a gauge pressure; null where the heading does not say. */
  readonly absolute: boolean | null;
}

const UNITS: Readonly<Record<TraceColumn, Readonly<Record<string, number>>>> = {
  time: { s: 1, sec: 1, secs: 1, second: 1, seconds: 1, ms: 0.001, min: 60, minutes: 60, h: 3600 },
  pressure: {
    bar: 1,
    mbar: 0.001,
    kpa: 0.01,
    hpa: 0.001,
    pa: 1e-5,
    mpa: 10,
    atm: 1.01325,
    inhg: 0.033_863_9,
    psi: 0.068_947_6,
    m: 0.098_066_5,
  },
  deflection: { µm: 1, μm: 1, um: 1, micron: 1, microns: 1, mm: 1000, nm: 0.001 },
};
const OWN_UNIT: Readonly<Record<TraceColumn, string>> = { time: 's', pressure: 'bar', deflection: 'µm' };

/** How each column is named, by the first word of its heading: words alone, and beginnings of words. */
const NAMES: Readonly<Record<TraceColumn, RegExp>> = {
  time: /^(t|s|sec|temps|tempo|zeit|clock|(time|elapsed|tiempo|second)[a-z]*)$/,
  pressure: /^(p|bar|druck|vacuum|(press|overpress|presi|presió)[a-zó]*)$/,
  deflection: /^(d|weg|(defl|displ|expan|verform|deform|déform|give)[a-zé]*)$/,
};

const words = (heading: string): string[] => heading.toLowerCase().match(/[a-zµμéó]+/gu) ?? [];

/**
 * What a heading names: `Pressure (kPa abs)`, `t [ms]`, `deflection_um`. A heading without a unit is taken in s, bar, µm,
 * and says so. Null for one that names none of the three.
 */
export function readHeading(text: string): Heading | null {
  const [first = '', ...said] = words(text);
  const column = TRACE_COLUMNS.find((each) => NAMES[each].test(first));
  if (column === undefined) return null;
  const units = UNITS[column];
  const unit = said.find((word) => units[word] !== undefined) ?? null;
  return {
    column,
    factor: unit === null ? 1 : (units[unit] ?? 1),
    unit: unit ?? OWN_UNIT[column],
    unitSaid: unit !== null,
    absolute: said.some((word) => word === 'abs' || word === 'absolute' || word === 'bara')
      ? true
      : said.some((word) => ['gauge', 'rel', 'relative', 'over', 'barg'].includes(word)) ||
          first.startsWith('over')
        ? false
        : null,
  };
}

/**
 * One figure of a file: `12.4`, `12,4`, `1.2e-3`, `+0012.40`, and for a time `00:01:05` or a date with its time, s. NaN
 * where it is none.
 */
export function readFigure(text: string, column: TraceColumn): number {
  const trimmed = text.trim().replace(/[−–]/g, '-');
  if (/^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(trimmed)) return Number(trimmed.replace(',', '.'));
  if (column !== 'time') return NaN;
  const clock = /^(?:(\d+):)?(\d{1,2}):(\d{1,2}(?:[.,]\d+)?)$/.exec(trimmed);
  if (clock)
    return Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number((clock[3] ?? '0').replace(',', '.'));
  return /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d/.test(trimmed) ? Date.parse(trimmed.replace(' ', 'T')) / 1000 : NaN;
}

/** What parts the fields of a file, by its first lines: a semicolon or tab before a comma, which may be a decimal one. */
export function delimiterOf(start: string): ';' | '\t' | ',' {
  const lines = start.split(/\r?\n/).slice(0, 40);
  const has = (mark: string): boolean => lines.some((line) => line.split(mark).length >= 3);
  if (has(';')) return ';';
  return has('\t') ? '\t' : ',';
}
