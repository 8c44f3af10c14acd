import { figure, type Judged, type WorkingLine } from '../judgement';
import { isMoment } from '../time';
import { CHARGE_MARKS, type ChargeMark, hoursAt, type LightBook, marksOf, questionsOf } from './light';
import { type LightHours, litBetween, spansOf } from './lit';
import {
  type Believed,
  endsOf,
  massLeft,
  type Room,
  STARTS,
  type Way,
  waysOf,
  within95,
  Z_MOST,
} from './odds';
import { chargeAt, reachedAt } from './run';

/** What a watch shows of its charge before it comes to the light. */
export const CHARGE_STATES = [
  'flat',
  'low-supply steps',
  'steps normally',
  'charged, level unknown',
] as const;
export type ChargeState = (typeof CHARGE_STATES)[number];

/** What was seen of its steps at an instant. */
export interface StepsSeen {
  readonly atUtc: string;
  readonly stepsNormally: boolean;
}

export interface ChargingQuestion {
  readonly book: LightBook;
  /** The book's times are good to this factor in 95 of 100 watches; 1.5 unless the book says better. */
  readonly factor95: number;
  /** Light on the watch, lux. */
  readonly lux: number;
  readonly hours: LightHours;
  readonly zone: string;
  readonly fromUtc: string;
  /** What it shows at the start, or its charge in percent of full where somebody knows it. */
  readonly start: ChargeState | number;
  /** The charge at which this shop hands a watch back, share of full. */
  readonly handBackShare: number;
  readonly seen: readonly StepsSeen[];
}

/** When a mark is reached: in 95 of 100 cases between the first and the last, null: never at these hours. */
export interface MarkAt {
  readonly mark: ChargeMark;
  /** Share of full; null where the book is silent. */
  readonly share: number | null;
  readonly earliestUtc: string | null;
  readonly likelyUtc: string | null;
  readonly latestUtc: string | null;
  /** Hours of light it takes from the start, as the book has it; null where it is not known. */
  readonly lightH: number | null;
}

export interface ChargingPlan extends Judged<
  'charges' | 'never full' | 'does not charge' | 'not known' | 'refused'
> {
  readonly marks: readonly MarkAt[];
  /** The charge over time, share of full: what is likely, and what 95 of 100 lie within. */
  readonly curve: readonly {
    readonly atUtc: string;
    readonly low: number;
    readonly likely: number;
    readonly high: number;
  }[];
  /** What the observations make of the book's times: how many times as long; null without observations. */
  readonly factor: { readonly low: number; readonly likely: number; readonly high: number } | null;
  /** What was seen and cannot well be by the book; null where nothing is. */
  readonly contradiction: string | null;
  /** When to look again, in their order. */
  readonly lookAgainUtc: readonly string[];
}

/** So long is looked ahead, days. */
const HORIZON_DAYS = 366;
const DAY_MS = 86_400_000;

/** No watch runs longer on one charge, days. */
const LONGEST_RESERVE_DAYS = 4000;
const Z95 = 1.959964;

const CURVE_POINTS = 240;

/** The charges it may have at the start, shares of full, each as likely as the other: one where it is known. */
function startsOf(start: ChargeState | number, stepping: number | null): readonly number[] {
  const between = (from: number, to: number): readonly number[] =>
    Array.from({ length: STARTS }, (_, i) => from + ((to - from) * (i + 0.5)) / STARTS);
  if (typeof start === 'number') return [start / 100];
  if (start === 'flat') return [0];
  // Found running, by whatever it shows: more than nothing, and nobody knows how much.
  if (start === 'charged, level unknown') return between(0, 1);
  // Between nothing and stepping, or at least that: nobody knows where.
  if (start === 'low-supply steps') return stepping === null ? [0] : between(0, stepping);
  return between(stepping ?? 0, 1);
}

const NOTHING = {
  marks: [],
  curve: [],
  factor: null,
  contradiction: null,
  lookAgainUtc: [],
  working: [],
} as const;

/** Whether an instant is one this program may meet: no slip of a century. */
const isAnInstant = (utc: string): boolean => /^(19[7-9]|20|21)/.test(utc) && isMoment(utc);

const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;

/** What of a question is out of range, in words; empty where nothing is. */
function outOfRange({
  start,
  factor95,
  handBackShare,
  fromUtc,
  seen,
  hours,
}: ChargingQuestion): readonly string[] {
  return [
    ...(typeof start === 'number' && !(start >= 0 && start <= 100) ? ['Charge: 0 to 100 % of full.'] : []),
    ...([fromUtc, ...seen.map(({ atUtc }) => atUtc)].every(isAnInstant)
      ? []
      : ['The time of placing or checking is not valid.']),
    ...(Object.values(hours).every((open) =>
      spansOf(open).every(({ from, to }) => CLOCK.test(from) && CLOCK.test(to)),
    )
      ? []
      : ['Hours of light: enter HH:mm, e.g. 08:30.']),
    ...(factor95 > 1 && factor95 <= 10
      ? []
      : ['Accuracy of the book’s times: enter a factor above 1, up to 10.']),
    ...(handBackShare > 0 && handBackShare <= 1 ? [] : ['Hand back at: over 0 to 100 % of full.']),
  ];
}

/** What was seen of its steps leaves a start only so much room for the factor. */
function roomFor(
  seen: Window | null,
  stepping: number | null,
  until: (start: number, atMs: number) => number,
): (start: number) => Room {
  const anything: Room = { from: -Infinity, to: Infinity };
  return (start) => {
    if (seen === null || stepping === null) return anything;
    const { lastNotMs, firstMs } = seen;
    // What stepped from the start was never seen not stepping.
    if (start >= stepping) return lastNotMs === null ? anything : { from: Z_MOST, to: Z_MOST };
    return {
      from: lastNotMs === null ? -Infinity : until(start, lastNotMs),
      to: firstMs === null ? Infinity : until(start, firstMs),
    };
  };
}

/** A watch under one light, with all it may have begun with and be off by. */
interface Course {
  readonly ways: readonly Way[];
  readonly believed: (values: readonly (readonly [value: number, weight: number])[]) => Believed;
  readonly lit: ReturnType<typeof litBetween>;
  readonly rates: (factor: number) => { readonly upPerH: number; readonly downPerH: number };
  readonly fromMs: number;
  readonly toMs: number;
  readonly fullH: number;
}

const utcOf = (ms: number): string | null =>
  Number.isFinite(ms) ? new Date(Math.round(ms)).toISOString() : null;

/** When each mark is reached, the earliest, the likeliest and the latest. */
function marksAt(
  { ways, believed, lit, rates, fromMs, toMs, fullH }: Course,
  shares: ReturnType<typeof marksOf>,
): readonly MarkAt[] {
  const known = CHARGE_MARKS.filter((mark) => shares[mark] !== null);
  const times = ways.map(({ start, factor, weight }) => ({
    weight,
    at: reachedAt(
      start,
      known.map((mark) => shares[mark] ?? 0),
      lit,
      [fromMs, toMs],
      rates(factor),
    ),
  }));
  const startNow = believed(ways.map(({ start, weight }) => [start, weight])).likely;
  return CHARGE_MARKS.map((mark): MarkAt => {
    const share = shares[mark];
    if (share === null)
      return { mark, share, earliestUtc: null, likelyUtc: null, latestUtc: null, lightH: null };
    const at = believed(
      times.map(({ at: reached, weight }) => [reached[known.indexOf(mark)] ?? Infinity, weight]),
    );
    return {
      mark,
      share,
      earliestUtc: utcOf(at.low),
      likelyUtc: utcOf(at.likely),
      latestUtc: utcOf(at.high),
      lightH: Math.max(0, share - startNow) * fullH,
    };
  });
}

/** How its charge goes, until it is surely full or a fortnight has gone by. */
function curveOf(
  { ways, believed, lit, rates, fromMs, toMs }: Course,
  fullLatestUtc: string | null,
): ChargingPlan['curve'] {
  const untilMs = Math.min(
    toMs,
    Math.max(fromMs + 2 * DAY_MS, fullLatestUtc ? Date.parse(fullLatestUtc) : fromMs + 14 * DAY_MS),
  );
  const atMs = Array.from(
    { length: CURVE_POINTS + 1 },
    (_, i) => fromMs + ((untilMs - fromMs) * i) / CURVE_POINTS,
  );
  const soonLit = lit.filter((each) => each.fromMs < untilMs);
  const courses = ways.map(({ start, factor, weight }) => ({
    weight,
    at: chargeAt(start, atMs, soonLit, [fromMs, untilMs], rates(factor)),
  }));
  return atMs.map((ms, i) => ({
    atUtc: new Date(ms).toISOString(),
    ...believed(courses.map(({ at, weight }) => [at[i] ?? 0, weight])),
  }));
}

/**
 * When a watch under a light steps normally, holds a day, can be handed back and is full: the book's times at this light, the
 * hours of light by the shop's clock, and what it runs down in the dark, nights and weekends counted. The book's times are off
 * by one common factor, lognormal. Where the start is not known it is drawn together with that factor, and what was seen of its steps
 * leaves of both what can be. Every instant with what 95
 * of 100 lie within. Shares of full; UTC. Source: figures of the book; charge linear in time at constant light.
 */
export function chargingPlan(question: ChargingQuestion): ChargingPlan {
  const { book, lux, factor95, fromUtc } = question;
  const wrong = outOfRange(question);
  if (wrong.length > 0) return { ...NOTHING, verdict: 'refused', reasons: wrong };
  const hasReserve = book.reserveDays > 0 && book.reserveDays <= LONGEST_RESERVE_DAYS;
  const full = hoursAt(book.times, 'fullH', lux);
  if (full.verdict !== 'known' || full.hours === null || !hasReserve)
    return {
      ...NOTHING,
      verdict: full.verdict === 'known' ? 'not known' : full.verdict,
      reasons: [
        ...full.reasons,
        ...(hasReserve ? [] : ['The running time on a full charge is missing in the book or not possible.']),
      ],
    };
  const fullH = full.hours;
  const shares = marksOf(book, question.handBackShare);
  const stepping = shares['steps normally'];
  const starts = startsOf(question.start, stepping);
  const fromMs = Date.parse(fromUtc);
  const toMs = fromMs + HORIZON_DAYS * DAY_MS;
  const lit = litBetween(question.hours, question.zone, fromUtc, new Date(toMs).toISOString());
  const downPerH = 1 / (24 * book.reserveDays);
  const rates = (factor: number) => ({ upPerH: 1 / (factor * fullH), downPerH });
  const sigma = Math.log(factor95) / Z95;
  const seen = question.seen.length === 0 ? null : windowOf(question.seen);
  const steppedBy = (start: number, z: number, atMs: number): boolean =>
    stepping !== null &&
    (reachedAt(start, [stepping], lit, [fromMs, atMs], rates(Math.exp(sigma * z)))[0] ?? Infinity) <= atMs;
  /** The greatest factor with which it steps by then: a greater one steps later. */
  const until = (start: number, atMs: number): number => greatest((z) => steppedBy(start, z, atMs));
  const ways = waysOf(starts, sigma, roomFor(seen, stepping, until));
  const believed = starts.length === 1 ? endsOf : within95;
  const course: Course = { ways, believed, lit, rates, fromMs, toMs, fullH };
  const marks = marksAt(course, shares);
  const fullMark = marks.find(({ mark }) => mark === 'full');
  const never = fullMark?.likelyUtc === null;
  const factor = believed(ways.map((each) => [each.factor, each.weight]));
  const contradiction =
    seen === null
      ? null
      : contradictionOf(seen, {
          stepping,
          starts,
          // How much of all that may be agrees with each of the two sightings by itself.
          agrees: (room) => massLeft(starts, sigma, room),
          until,
        });
  const steps = marks[0];
  return {
    verdict: never ? 'never full' : 'charges',
    marks,
    curve: curveOf(course, fullMark?.latestUtc ?? null),
    factor: seen === null ? null : factor,
    contradiction,
    lookAgainUtc: [steps?.earliestUtc, steps?.likelyUtc, steps?.latestUtc]
      .flatMap((each) => (each && Date.parse(each) > fromMs ? [each] : []))
      .filter((each, i, all) => all.indexOf(each) === i),
    reasons: [
      ...questionsOf(book).map((each) => `The book may be wrong: ${each}`),
      ...(never
        ? [
            `With these hours of light it never gets full. What it gains by day, ${figure(litShare(lit, fromMs, toMs) * 24, 1)} h of light on average, it loses again in the dark.`,
          ]
        : []),
      ...(contradiction === null ? [] : [contradiction]),
      ...CHARGE_MARKS.filter((mark) => shares[mark] === null).map(
        (mark) => `When it ${mark} the book does not say.`,
      ),
    ],
    working: [...full.working, ...planWorking(book.reserveDays, factor)],
  };
}

function planWorking(reserveDays: number, factor: Believed): readonly WorkingLine[] {
  return [
    {
      what: 'down in the dark',
      rule: '1 ÷ days it runs when full, a day; nights and weekends counted',
      figures: `1 ÷ ${figure(reserveDays, 1)} = ${figure(100 / reserveDays, 2)} % of full a day`,
      source: 'the book',
    },
    {
      what: 'uncertainty',
      rule: 'all times in the book off by one common factor (lognormal), limited by what was observed',
      figures: `95 of 100 within ${figure(factor.low, 2)} to ${figure(factor.high, 2)} times the book’s, likeliest ${figure(factor.likely, 2)}`,
    },
  ];
}

const litShare = (
  lit: readonly { readonly fromMs: number; readonly toMs: number }[],
  fromMs: number,
  toMs: number,
): number => lit.reduce((sum, each) => sum + (each.toMs - each.fromMs), 0) / (toMs - fromMs);

interface Window {
  /** Last seen not stepping normally before it first did. */
  readonly lastNotMs: number | null;
  readonly firstMs: number | null;
  /** It was seen stepping normally, and not so later. */
  readonly wentBack: boolean;
}

function windowOf(seen: readonly StepsSeen[]): Window {
  const ordered = [...seen]
    .map(({ atUtc, stepsNormally }) => ({ ms: Date.parse(atUtc), stepsNormally }))
    .sort((a, b) => a.ms - b.ms);
  const first = ordered.find(({ stepsNormally }) => stepsNormally) ?? null;
  const not = ordered.filter(({ ms, stepsNormally }) => !stepsNormally && (first === null || ms < first.ms));
  return {
    lastNotMs: not.at(-1)?.ms ?? null,
    firstMs: first?.ms ?? null,
    wentBack: first !== null && ordered.some(({ ms, stepsNormally }) => !stepsNormally && ms > first.ms),
  };
}

/** The greatest z for which something holds that holds for the least and not for the greatest; bisected. */
function greatest(holds: (z: number) => boolean): number {
  let [a, b] = [-Z_MOST, Z_MOST];
  if (!holds(a)) return -Z_MOST;
  if (holds(b)) return Z_MOST;
  for (let turn = 0; turn < 40; turn += 1) {
    const middle = (a + b) / 2;
    if (holds(middle)) a = middle;
    else b = middle;
  }
  return a;
}

/** What less than so much of all that may be agrees with is a contradiction. */
const HARDLY = 0.025;

/** What was seen and agrees with hardly any start and any speed of all that may be. */
function contradictionOf(
  { firstMs, lastNotMs, wentBack }: Window,
  {
    stepping,
    starts,
    agrees,
    until,
  }: {
    readonly stepping: number | null;
    readonly starts: readonly number[];
    readonly agrees: (room: (start: number) => Room) => number;
    readonly until: (start: number, atMs: number) => number;
  },
): string | null {
  if (wentBack)
    return 'It stepped normally and later did not. Either the accumulator is tired, or the watch lay in the dark.';
  if (stepping === null) return null;
  if (lastNotMs !== null && starts.every((start) => start >= stepping))
    return 'It was recorded as stepping normally when placed, and now does not. Either the accumulator is tired, or the record is wrong.';
  const sooner =
    firstMs !== null &&
    agrees((start) => ({ from: -Infinity, to: start >= stepping ? Infinity : until(start, firstMs) })) <
      HARDLY;
  if (sooner)
    return 'It stepped normally sooner than the book predicts. It was less empty than recorded, or the light is brighter.';
  const later =
    lastNotMs !== null &&
    agrees((start) =>
      start >= stepping ? { from: Z_MOST, to: Z_MOST } : { from: until(start, lastNotMs), to: Infinity },
    ) < HARDLY;
  return later
    ? 'It does not step normally yet, although the book predicts it. Check solar cell, tabs and accumulator, or the light is dimmer.'
    : null;
}
