import { figure, type Judged, invalidFigures } from '../judgement';

/** The marks a charge is read by. */
export const CHARGE_MARKS = ['steps normally', 'holds a day', 'hand back', 'full'] as const;
export type ChargeMark = (typeof CHARGE_MARKS)[number];

/** One line of the book: how long at this light, hours; null where the book is silent. */
export interface LightTimes {
  readonly lux: number;
  readonly steppingH: number | null;
  readonly dayH: number | null;
  readonly fullH: number | null;
}

/** How the book states *one day of running*. */
export const DAY_IS = ['exposure for a day of running', 'exposure from flat'] as const;
export type DayIs = (typeof DAY_IS)[number];

/** What the book has of charging a movement by light. */
export interface LightBook {
  readonly times: readonly LightTimes[];
  /** Null: the book does not say. */
  readonly dayIs: DayIs | null;
  /** Days it runs in the dark from full. */
  readonly reserveDays: number;
}

/** Brighter than the sun nothing is. */
export const MOST_LUX = 130_000;
/** The book's times go on to this share of its dimmest light, and no farther. */
const DIMMEST_SHARE = 0.5;
/** With one line alone nothing is known of other light than that, within this. */
const ONE_LINE_WITHIN = 0.1;
/** Shares of full from two lights that differ by more than this are not one share. */
const SHARES_WITHIN = 1.25;

type Column = 'steppingH' | 'dayH' | 'fullH';

interface Line {
  readonly lux: number;
  readonly hours: number;
}

/** The lines of one column, the dimmest first. */
function linesOf(times: readonly LightTimes[], column: Column): readonly Line[] {
  return times
    .flatMap((each): Line[] => {
      const hours = each[column];
      return hours === null ? [] : [{ lux: each.lux, hours }];
    })
    .sort((a, b) => a.lux - b.lux);
}

/** Hours at a light between two lines, or beyond them: log time goes linearly with log lux. */
function along(from: Line, to: Line, lux: number): number {
  const share = Math.log(lux / from.lux) / Math.log(to.lux / from.lux);
  return from.hours * (to.hours / from.hours) ** share;
}

export type HoursAt = Judged<'known' | 'does not charge' | 'not known' | 'refused'> & {
  /** Hours of this light; null where it does not charge or nobody knows. */
  readonly hours: number | null;
};

/** Lines of the book that nothing can be worked out from, each by its name. */
function invalidTimes(times: readonly LightTimes[]): readonly string[] {
  return times
    .flatMap(({ lux, steppingH, dayH, fullH }) =>
      invalidFigures([
        { path: 'lux', what: 'The light of a line', value: lux, unit: 'lx', over: 0, to: MOST_LUX },
        { path: 'steppingH', what: 'Until it steps', value: steppingH, unit: 'h', over: 0, to: MOST_H },
        { path: 'dayH', what: 'For a day of running', value: dayH, unit: 'h', over: 0, to: MOST_H },
        { path: 'fullH', what: 'Until it is full', value: fullH, unit: 'h', over: 0, to: MOST_H },
      ]),
    )
    .map(({ reason }) => reason);
}

/** No watch takes longer to charge, hours. */
const MOST_H = 10_000;

const LUX_RANGE = `Light: over 0 to ${MOST_LUX.toLocaleString('en')} lx.`;

/**
 * How long a mark takes at a light, hours, from a flat accumulator. Between two lines of the book log time goes linearly with
 * log lux; brighter than the brightest it is no faster, as the charger limits; dimmer it goes on to half the dimmest, and
 * below that it does not charge. One line alone speaks of its own light within 10 %. Source: figures of the book; straight
 * lines in logarithms.
 *
 * @example
 * hoursAt([[500, 150], [10_000, 40], [100_000, 11]].map(([lux, fullH]) => ({ lux, steppingH: null, dayH: null, fullH })), 'fullH', 3000).hours // 68.0
 */
export function hoursAt(times: readonly LightTimes[], column: Column, lux: number): HoursAt {
  const none = { hours: null, working: [] };
  if (!Number.isFinite(lux) || lux <= 0 || lux > MOST_LUX)
    return { ...none, verdict: 'refused', reasons: [LUX_RANGE] };
  const wrong = invalidTimes(times);
  if (wrong.length > 0) return { ...none, verdict: 'not known', reasons: wrong };
  const lines = linesOf(times, column);
  const [dimmest] = lines;
  const brightest = lines.at(-1);
  if (!dimmest || !brightest)
    return {
      ...none,
      verdict: 'not known',
      reasons: ['The book has no charging times for this. Enter them in the book.'],
    };
  if (lines.length === 1) {
    const apart = Math.max(lux / dimmest.lux, dimmest.lux / lux);
    return apart <= 1 + ONE_LINE_WITHIN
      ? known(dimmest.hours, `the only line in the book, ${line(dimmest)}`, lux)
      : {
          ...none,
          verdict: 'not known',
          reasons: [`The book only has ${line(dimmest)} and nothing for ${lx(lux)}.`],
        };
  }
  if (lux < dimmest.lux * DIMMEST_SHARE)
    return {
      ...none,
      verdict: 'does not charge',
      reasons: [
        `Too dim: ${lx(lux)} is less than half of the dimmest light in the book, ${lx(dimmest.lux)}.`,
      ],
    };
  if (lux >= brightest.lux) return known(brightest.hours, `no faster than at ${lx(brightest.lux)}`, lux);
  const above = Math.max(
    1,
    lines.findIndex((each) => each.lux >= lux),
  );
  const [from, to] = [lines[above - 1] as Line, lines[above] as Line];
  return known(along(from, to, lux), `between ${line(from)} and ${line(to)}`, lux);
}

const lx = (lux: number): string => `${figure(lux, 0)} lx`;
const line = ({ lux, hours }: Line): string => `${lx(lux)} ${figure(hours, 1)} h`;

function known(hours: number, how: string, lux: number): HoursAt {
  return {
    verdict: 'known',
    hours,
    reasons: [],
    working: [
      {
        what: 'hours at this light',
        rule: 'log time linear in log lux between the lines of the book',
        figures: `${lx(lux)}, ${how} → ${figure(hours, 1)} h`,
        source: 'the book',
      },
    ],
  };
}

/** What cannot be in charging times, each in words: a light that slows, or full before it steps. Empty where nothing is. */
export function errorsOf(times: readonly LightTimes[]): readonly string[] {
  const wrong = invalidTimes(times);
  if (wrong.length > 0) return wrong;
  const slower = (['steppingH', 'dayH', 'fullH'] as const).flatMap((column) => {
    const lines = linesOf(times, column);
    return lines.flatMap((each, i) => {
      const before = lines[i - 1];
      if (before === undefined) return [];
      if (before.lux === each.lux) return [`There are two lines for ${lx(each.lux)}. Keep only one.`];
      return each.hours > before.hours
        ? [`More light takes longer: ${line(before)}, but ${line(each)}.`]
        : [];
    });
  });
  const orders = times.flatMap(({ lux, steppingH, dayH, fullH }) => [
    ...(steppingH !== null && fullH !== null && steppingH >= fullH
      ? [`At ${lx(lux)} it is full before it steps normally.`]
      : []),
    ...(dayH !== null && fullH !== null && dayH >= fullH
      ? [`At ${lx(lux)} a day takes longer than full.`]
      : []),
  ]);
  return [...new Set([...slower, ...orders])];
}

/** What is in question in the book's charging times, each in words; empty where nothing is. */
export function questionsOf({ times, dayIs, reserveDays }: LightBook): readonly string[] {
  const wrong = invalidTimes(times);
  if (wrong.length > 0) return wrong;
  const orders = times.flatMap(({ lux, steppingH, dayH }) =>
    dayIs === 'exposure from flat' && dayH !== null && steppingH !== null && dayH < steppingH
      ? [`At ${lx(lux)} it holds a day before it steps normally.`]
      : [],
  );
  const apart = (column: 'steppingH' | 'dayH', words: string): readonly string[] => {
    const shares = sharesOf(times, column);
    return shares.length > 1 && Math.max(...shares) > Math.min(...shares) * SHARES_WITHIN
      ? [
          `${words} is not a fixed share of full: ${shares.map((share) => `${figure(share * 100, 1)} %`).join(', ')}.`,
        ]
      : [];
  };
  const dimmestFull = linesOf(times, 'fullH')[0];
  const dimmestStepping = linesOf(times, 'steppingH')[0];
  return [
    ...errorsOf(times),
    ...orders,
    ...apart('steppingH', 'Stepping normally'),
    ...apart('dayH', 'A day of running'),
    ...(dimmestFull && dimmestStepping && dimmestStepping.lux < dimmestFull.lux
      ? [
          `Times until stepping go down to ${lx(dimmestStepping.lux)}, times until full only to ${lx(dimmestFull.lux)}.`,
        ]
      : []),
    ...(dayIs === null && times.some(({ dayH }) => dayH !== null)
      ? ['The book does not say whether *one day* means light for one day of running, or from flat.']
      : []),
    ...(reserveDays > 0 ? [] : ['Running time on a full charge is missing.']),
  ];
}

/** What share of full a column of the book stands for, line by line. */
function sharesOf(times: readonly LightTimes[], column: 'steppingH' | 'dayH'): readonly number[] {
  return times.flatMap((each) => {
    const hours = each[column];
    return hours === null || each.fullH === null ? [] : [hours / each.fullH];
  });
}

const middle = (shares: readonly number[]): number | null =>
  shares.length === 0
    ? null
    : Math.exp(shares.reduce((sum, share) => sum + Math.log(share), 0) / shares.length);

/**
 * What share of full each mark is. Stepping and a day come from the book, by the middle of its lines (geometric mean); the
 * hand-back level is the shop's own. Null where the book is silent. A day stated as exposure for a day of running comes on top
 * of what makes it step.
 */
export function marksOf(
  { times, dayIs }: LightBook,
  handBackShare: number,
): Readonly<Record<ChargeMark, number | null>> {
  const stepping = middle(sharesOf(times, 'steppingH'));
  const day = middle(sharesOf(times, 'dayH'));
  return {
    'steps normally': stepping,
    'holds a day':
      day === null || dayIs === null
        ? null
        : Math.min(1, dayIs === 'exposure from flat' ? day : day + (stepping ?? 0)),
    'hand back': handBackShare,
    full: 1,
  };
}
