import { figure, type Judged } from '../judgement';
import { type ChangeOver, clockOf as clock, forbiddenHours, withinNight } from './night';

export const QUICK_SETS = ['date and day', 'date only', 'none'] as const;
export type QuickSet = (typeof QUICK_SETS)[number];
export const HALVES = ['a.m.', 'p.m.'] as const;
export type Half = (typeof HALVES)[number];

/** What a watch shows on its dial. */
export interface Shown {
  /** On the twelve hours of the dial, 0 to 719. */
  readonly dialMinutes: number;
  /** Null: the dial does not say which. */
  readonly half: Half | null;
  /** 0 Monday to 6 Sunday; null for a watch without a day. */
  readonly weekday: number | null;
  readonly date: number;
  /** Which of the two languages of its ring; null for a ring with one. */
  readonly language: 0 | 1 | null;
}

/** What it is to show. */
export interface Wanted {
  /** 0 to 1439. */
  readonly minutes: number;
  readonly weekday: number;
  readonly date: number;
  /** Null: the language it has may stay. */
  readonly language: 0 | 1 | null;
}

/** How a calibre is set. */
export interface SettingOf {
  readonly quickSet: QuickSet;
  /** When its own wheels change the date, minutes of the day; null where the book has none. */
  readonly changeOver: ChangeOver | null;
}

export type Move =
  | { readonly move: 'find midnight' }
  /** On, past so many midnights, to a time of the day. */
  | { readonly move: 'turn on'; readonly to: number; readonly midnights: number }
  /** Back within the same day. */
  | { readonly move: 'turn back'; readonly from: number; readonly to: number }
  | { readonly move: 'quick-set the date' | 'quick-set the day'; readonly times: number };

export interface SettingPlan extends Judged<'set so' | 'language out of reach' | 'not yet known'> {
  readonly moves: readonly Move[];
  /** The moves as one says them. */
  readonly steps: readonly string[];
  /** How many midnights it passes; where a.m. or p.m. is known, and where midnight is found by passing it. */
  readonly midnights: {
    readonly halfKnown: number;
    readonly found: number;
    /** On the way that is told. */
    readonly taken: number;
  } | null;
}

const DAY = 1440;
const HALF_DAY = 720;
const WEEK = 7;
const DATES = 31;
/** By then every date wheel has let go. */
const MORNING = 6 * 60;
const EVENING_BEFORE = 18 * 60;
/** So many midnights are named before anybody begins. */
const MANY = 30;

const mod = (value: number, by: number): number => ((value % by) + by) % by;
const dateAfter = (date: number, midnights: number): number => mod(date - 1 + midnights, DATES) + 1;

/** The fewest midnights that move the weekday and the date on by so much; without a day (null) the date alone decides. */
export function fewestMidnights(weekdays: number | null, dates: number): number {
  let midnights = mod(dates, DATES);
  while (weekdays !== null && mod(midnights - weekdays, WEEK) !== 0) midnights += DATES;
  return midnights;
}

const times = (count: number): string => (count === 1 ? 'once' : `${count} times`);

function moveWords(move: Move): string {
  switch (move.move) {
    case 'find midnight':
      return 'Turn on until the date jumps: that is midnight.';
    case 'turn on':
      return move.midnights === 0
        ? `Turn on to ${clock(move.to)}.`
        : `Turn on past ${move.midnights === 1 ? 'midnight' : `${move.midnights} midnights`} to ${clock(move.to)}.`;
    case 'turn back':
      return `Turn back to ${clock(move.to)}, not over midnight.`;
    default:
      return `${move.move === 'quick-set the date' ? 'Quick-set the date' : 'Quick-set the day'} ${times(move.times)}.`;
  }
}

const whole = (value: number, from: number, to: number): boolean =>
  Number.isInteger(value) && value >= from && value <= to;

/** What is no time, day or date, by name; empty where all are. */
function impossible(shown: Shown, wanted: Wanted): readonly string[] {
  return [
    ...(whole(shown.dialMinutes, 0, HALF_DAY - 1) ? [] : ['what the hands show']),
    ...(shown.weekday === null || whole(shown.weekday, 0, 6) ? [] : ['the day it shows']),
    ...(whole(shown.date, 1, DATES) ? [] : ['the date it shows']),
    ...(shown.language === null || whole(shown.language, 0, 1) ? [] : ['the language it shows']),
    ...(wanted.language === null || whole(wanted.language, 0, 1) ? [] : ['the language wanted']),
    ...(whole(wanted.minutes, 0, DAY - 1) ? [] : ['the time wanted']),
    ...(whole(wanted.weekday, 0, 6) ? [] : ['the day wanted']),
    ...(whole(wanted.date, 1, DATES) ? [] : ['the date wanted']),
  ];
}

/**
 * The shortest way to set a watch with a date, and a day where it has one: midnight found first where the dial does not say
 * which half of the day it is, as few midnights as may be, never back over midnight, and no quick-set while the wheels that
 * change the date are in hand. A ring with two languages moves by two places a night: midnights never change its language,
 * and without a quick-set of the day the other is out of reach. Minutes of the day, weekdays from Monday as 0. Source: bench
 * practice; counting by sevens and thirty-ones.
 */
export function planSetting(shown: Shown, wanted: Wanted, of: SettingOf): SettingPlan {
  const wrong = impossible(shown, wanted);
  if (wrong.length > 0)
    return {
      verdict: 'not yet known',
      reasons: [`No time, day, date or language: ${wrong.join(', ')}.`],
      working: [],
      moves: [],
      steps: [],
      midnights: null,
    };
  const ways = ([true, false] as const).map((halfKnown) => movesOf(shown, wanted, of, halfKnown));
  const [known, found] = ways as [Way, Way];
  const taken = shown.half === null ? found : known;
  const lost =
    of.quickSet !== 'date and day' &&
    shown.language !== null &&
    wanted.language !== null &&
    shown.language !== wanted.language;
  const { midnights } = taken;
  return {
    verdict: lost ? 'language out of reach' : 'set so',
    moves: taken.moves,
    steps: taken.moves.map(moveWords),
    midnights: { halfKnown: known.midnights, found: found.midnights, taken: midnights },
    reasons: [
      ...(lost
        ? [
            'The other language is out of reach: a night moves the ring by two places, and the day has no quick-set.',
          ]
        : []),
      ...(midnights > MANY
        ? [`${figure(midnights)} midnights: that is long, and the only way without a quick-set.`]
        : []),
      ...(shown.half === null && known.midnights < found.midnights
        ? [`Knowing a.m. from p.m. it would be ${known.midnights}.`]
        : []),
      ...(taken.moves.some((move) => move.move === 'turn back' && backThroughNight(move, of))
        ? [
            'Back slowly, and watch the date: its wheels are in hand there. If it moves, on past midnight instead.',
          ]
        : []),
    ],
    working: [
      {
        what: 'Midnights',
        rule:
          of.quickSet === 'none'
            ? 'the fewest that bring the day by sevens and the date by thirty-ones'
            : 'until midnight is found and the day is right; the rest is quick-set in the morning',
        figures: `${known.midnights} with a.m. or p.m. known, ${found.midnights} where midnight is found by passing it`,
        source: 'bench practice',
      },
    ],
  };
}

/** Whether it is turned back among the wheels that change the date. */
function backThroughNight(
  { to, from }: Extract<Move, { readonly move: 'turn back' }>,
  { changeOver }: SettingOf,
): boolean {
  const night = forbiddenHours(changeOver);
  return withinNight(to, night) || withinNight(from, night);
}

interface Way {
  readonly moves: readonly Move[];
  readonly midnights: number;
}

/** The moves where the half of the day is known, or where midnight is found by passing it. */
function movesOf(shown: Shown, wanted: Wanted, of: SettingOf, halfKnown: boolean): Way {
  const moves: Move[] = [];
  let [minutes, passed] = [shown.dialMinutes + (shown.half === 'p.m.' ? HALF_DAY : 0), 0];
  const turn = (to: number, midnights: number): void => {
    if (midnights > 0 || to > minutes) moves.push({ move: 'turn on', to, midnights });
    else if (to < minutes) moves.push({ move: 'turn back', from: minutes, to });
    [minutes, passed] = [to, passed + midnights];
  };
  if (!halfKnown) {
    moves.push({ move: 'find midnight' });
    [minutes, passed] = [0, 1];
  }
  const days = shown.weekday === null ? null : wanted.weekday - shown.weekday;
  const dates = wanted.date - shown.date;
  const left = (last: number): { days: number | null; dates: number } => ({
    days: days === null ? null : days - passed - last,
    dates: dates - passed - last,
  });
  if (of.quickSet === 'none') {
    const { days: weekdays, dates: byDate } = left(0);
    turn(wanted.minutes, fewestMidnights(weekdays, byDate));
    return { moves, midnights: passed };
  }
  const { from, to } = forbiddenHours(of.changeOver);
  const morning = Math.max(MORNING, to + 60);
  // Before the morning it is set to the day before, and midnight is passed: nothing is turned back into the wheels.
  const last = wanted.minutes < morning ? 1 : 0;
  const byNights = of.quickSet === 'date only' && days !== null ? mod(left(last).days ?? 0, WEEK) : 0;
  const places = (midnights: number) => clicks(shown, wanted, passed + midnights, last, of.quickSet);
  const nothingToClick = ((each) => each.date === 0 && each.day === 0)(places(byNights));
  if (nothingToClick) {
    turn(wanted.minutes, byNights + last);
    return { moves, midnights: passed };
  }
  if (byNights > 0 || minutes <= to) turn(morning, byNights);
  else if (minutes >= from) turn(Math.min(EVENING_BEFORE, from - 60), 0);
  const { date, day } = places(0);
  if (day > 0) moves.push({ move: 'quick-set the day', times: day });
  if (date > 0) moves.push({ move: 'quick-set the date', times: date });
  turn(wanted.minutes, last);
  return { moves, midnights: passed };
}

/** How often date and day are quick-set, so many midnights on, to be right once `last` more midnights are passed. */
function clicks(
  shown: Shown,
  wanted: Wanted,
  midnights: number,
  last: number,
  quickSet: QuickSet,
): { readonly date: number; readonly day: number } {
  const date = mod(dateAfter(wanted.date, -last) - dateAfter(shown.date, midnights), DATES);
  if (quickSet !== 'date and day' || shown.weekday === null) return { date, day: 0 };
  const weekdays = wanted.weekday - last - (shown.weekday + midnights);
  // Two places a day on a ring with two languages; by one the language changes.
  return {
    date,
    day:
      shown.language === null
        ? mod(weekdays, WEEK)
        : mod(2 * weekdays + (wanted.language ?? shown.language) - shown.language, 2 * WEEK),
  };
}
