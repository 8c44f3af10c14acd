import { figure, type Judged } from '../judgement';
import { WEEKDAYS } from '../policy';
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
  /** On to a time of the day, night after night, until the day is this one there; so many nights as far as can be told. */
  | {
      readonly move: 'turn on until the day';
      readonly to: number;
      readonly weekday: number;
      readonly midnights: number;
    }
  /** Back within the same day, and never among the wheels that change the date. */
  | { readonly move: 'turn back'; readonly from: number; readonly to: number }
  | { readonly move: 'quick-set the date'; readonly to: number }
  | { readonly move: 'quick-set the day'; readonly to: number; readonly language: 0 | 1 | null }
  /** What it showed may still have been changing: day and date are read anew, and the rest is counted from them. */
  | { readonly move: 'look again' };

export interface SettingPlan extends Judged<
  'set so' | 'language out of reach' | 'look again' | 'not yet known'
> {
  readonly moves: readonly Move[];
  /** The moves as one says them. */
  readonly steps: readonly string[];
  /**
   * How many midnights it passes; where a.m. or p.m. is known, and where midnight is found by passing it. Null where it has to be
   * looked at again first.
   */
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

const past = (midnights: number): string =>
  midnights === 0 ? '' : midnights === 1 ? 'past midnight ' : `past ${midnights} midnights `;

function moveWords(move: Move): string {
  switch (move.move) {
    case 'find midnight':
      return 'Turn the hands forwards until the date jumps: that is midnight.';
    case 'turn on':
      return `Turn the hands forwards ${past(move.midnights)}to ${clock(move.to)}.`;
    case 'turn on until the day':
      return `Turn the hands forwards ${past(move.midnights)}to ${clock(move.to)}. The day must then show ${WEEKDAYS[move.weekday]}. If it does not, turn on to the next ${clock(move.to)} until it does.`;
    case 'turn back':
      return `Turn the hands back to ${clock(move.to)}, but not past midnight.`;
    case 'quick-set the date':
      return `Quick-set the date to ${move.to}.`;
    case 'quick-set the day':
      return `Quick-set the day to ${WEEKDAYS[move.to]}${move.language === null ? '' : `, in the ${move.language === 0 ? 'first' : 'second'} language`}.`;
    case 'look again':
      return 'Read day and date again and enter them here. The remaining steps are worked out from them.';
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
 * which half of the day it is, as few midnights as may be, never back over midnight nor among the wheels that change the date
 * (on past them instead), and no quick-set while they are in hand. Quick-set is told to a figure, never by clicks counted from
 * a day or date that may still jump on the way. Where nothing is quick-set and it was read while they may have been changing,
 * it is looked at again in the morning and counted from there. A ring with two languages moves by two places a night: midnights never change its language,
 * and without a quick-set of the day the other is out of reach. Minutes of the day, weekdays from Monday as 0. Source: bench
 * practice; counting by sevens and thirty-ones.
 */
export function planSetting(shown: Shown, wanted: Wanted, of: SettingOf): SettingPlan {
  const wrong = impossible(shown, wanted);
  if (wrong.length > 0)
    return {
      verdict: 'not yet known',
      reasons: [`Not a valid time, day, date or language: ${wrong.join(', ')}.`],
      working: [],
      moves: [],
      steps: [],
      midnights: null,
    };
  const again = lookAgain(shown, of);
  if (again !== null) return again;
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
            'The other language cannot be reached. Each night moves the ring by two places, and the day has no quick-set.',
          ]
        : []),
      ...(midnights > MANY
        ? [`${figure(midnights)} midnights. This takes long, but without a quick-set there is no other way.`]
        : []),
      ...(shown.half === null && known.midnights < found.midnights
        ? [`If a.m. or p.m. is known, it would be ${known.midnights}.`]
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

/** Whether the way back from one time to another within a day runs among the wheels that change the date. */
function backThroughNight(from: number, to: number, { changeOver }: SettingOf): boolean {
  const night = forbiddenHours(changeOver);
  return withinNight(to, night) || withinNight(from, night);
}

/** Where day and date may have been changing when they were read, and no quick-set puts that right: the way to a reading that counts. */
function lookAgain({ dialMinutes, half }: Shown, { quickSet, changeOver }: SettingOf): SettingPlan | null {
  if (quickSet !== 'none') return null;
  const night = forbiddenHours(changeOver);
  const minutes =
    half === null ? [dialMinutes, dialMinutes + HALF_DAY] : [dialMinutes + (half === 'p.m.' ? HALF_DAY : 0)];
  if (!minutes.some((each) => withinNight(each, night))) return null;
  const morning = morningAfter(changeOver);
  const moves: Move[] = [
    ...(half === null ? [{ move: 'find midnight' } as const] : []),
    { move: 'turn on', to: morning, midnights: half === 'p.m.' ? 1 : 0 },
    { move: 'look again' },
  ];
  return {
    verdict: 'look again',
    moves,
    steps: moves.map(moveWords),
    midnights: null,
    reasons: [
      `Between ${clock(night.from)} and ${clock(night.to)} day and date may still be changing. Steps worked out from them could end on the wrong day.`,
    ],
    working: [],
  };
}

/** When every date wheel has let go. */
const morningAfter = (changeOver: ChangeOver | null): number =>
  Math.max(MORNING, forbiddenHours(changeOver).to + 60);

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
    const fewest = fewestMidnights(weekdays, byDate);
    const round = weekdays === null ? DATES : DATES * WEEK;
    // Back among the wheels that change the date nothing is turned: once round instead.
    const back = fewest === 0 && wanted.minutes < minutes && backThroughNight(minutes, wanted.minutes, of);
    turn(wanted.minutes, back ? round : fewest);
    return { moves, midnights: passed };
  }
  const { from, to } = forbiddenHours(of.changeOver);
  const morning = morningAfter(of.changeOver);
  // Before the morning it is set to the day before, and midnight is passed: nothing is turned back into the wheels.
  const last = wanted.minutes < morning ? 1 : 0;
  const byNights = (): number =>
    of.quickSet === 'date only' && days !== null ? mod(left(last).days ?? 0, WEEK) : 0;
  // What was read among those wheels may still jump: what is to be set is looked at in the morning.
  const wasChanging = withinNight(minutes, { from, to }) || !halfKnown;
  const isRight = isThere(shown, wanted, passed + byNights(), last);
  const back =
    byNights() + last === 0 && wanted.minutes < minutes && backThroughNight(minutes, wanted.minutes, of);
  if (isRight && !wasChanging && !back) {
    turn(wanted.minutes, byNights() + last);
    return { moves, midnights: passed };
  }
  const onward = minutes >= from ? 1 : 0;
  if (of.quickSet === 'date only' && days !== null) {
    // Round the week once more where the evening has to be passed anyway.
    const nights = byNights() === 0 && onward === 1 ? WEEK : byNights();
    if (nights > 0 || minutes <= to) {
      moves.push({
        move: 'turn on until the day',
        to: morning,
        weekday: mod(wanted.weekday - last, WEEK),
        midnights: nights,
      });
      [minutes, passed] = [morning, passed + nights];
    }
  } else if (minutes <= to || onward === 1) turn(morning, onward);
  if (of.quickSet === 'date and day' && days !== null)
    moves.push({
      move: 'quick-set the day',
      to: mod(wanted.weekday - last, WEEK),
      language: shown.language === null ? null : (wanted.language ?? shown.language),
    });
  moves.push({ move: 'quick-set the date', to: dateAfter(wanted.date, -last) });
  turn(wanted.minutes, last);
  return { moves, midnights: passed };
}

/** Whether date, day and language are right already, so many midnights on, once `last` more are passed. */
function isThere(shown: Shown, wanted: Wanted, midnights: number, last: number): boolean {
  const date = dateAfter(wanted.date, -last) === dateAfter(shown.date, midnights);
  const day = shown.weekday === null || mod(wanted.weekday - last - (shown.weekday + midnights), WEEK) === 0;
  const language = shown.language === null || wanted.language === null || shown.language === wanted.language;
  return date && day && language;
}
