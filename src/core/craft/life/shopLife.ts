import { errorFunction, median } from 'simple-statistics';
import { figure, type Judged } from '../judgement';
import { isForecast, type LifeForecast, lifeRange } from './expectedLife';

const { exp, log, max, min, SQRT2 } = Math;

/** A cell this shop fitted, as far as it was seen since; months from when it was fitted. */
export interface CellLife {
  /** The middle of its forecast. */
  readonly medianMonths: number;
  /** How wide that forecast was: the standard deviation of the logarithm of the life. */
  readonly spread: number;
  /** It ran so long at least. */
  readonly ranMonths: number;
  /** It was spent by then; null: it was not found spent. */
  readonly spentByMonths: number | null;
  /** Of a cell that is in its watch as far as anybody knows, how long ago it was fitted; null: it came out. */
  readonly outMonths: number | null;
  /** Whether it was found again in a later visit, spent or running. */
  readonly seenAgain: boolean;
  /** Of a cell found spent, when it was brought; later than `spentByMonths` where its owner knew when it stopped. */
  readonly broughtMonths: number | null;
}

/** What the cells of a kind did in this shop, as parts of what was forecast for them. */
export interface ShopLife {
  readonly verdict: 'factor' | 'at least' | 'too few' | 'cannot say';
  /** Life over the middle of its forecast: the likeliest; null where there is none, or only a lower bound. */
  readonly factor: number | null;
  /** The ends of what it may be, 95 %; null where that end is open. */
  readonly from: number | null;
  readonly to: number | null;
  readonly fitted: number;
  readonly seenAgain: number;
  readonly spent: number;
}

/** Fewer cells seen again than this say nothing. */
const LEAST_SEEN = 5;
/** An owner brings a watch that stopped so much later, months, where too few have told. Ours. */
const DELAY_MONTHS = 2;
const DELAYS_WANTED = 5;
const LEAST_DELAY_MONTHS = 0.25;
/** What a factor is looked for between, and how finely at first: by steps of its logarithm. */
const [FACTOR_FROM, FACTOR_TO, STEP] = [1 / 8, 8, 0.16];
/** Its ends are looked for so far off at first, then twice as far. */
const FIRST_REACH = 0.04;
const HALVINGS = 6;
/** How many times wider than forecast lives may lie: the forecast's own width is the least. */
const WIDER = [1, 1.25, 1.6, 2, 2.6] as const;
/** The share of owners who come back once their watch stops. */
const COME_BACK = [0.1, 0.25, 0.4, 0.55, 0.7, 0.85, 1] as const;
/** How far below its most a log-likelihood may be within 95 %: half of χ² with one degree. */
const WITHIN_95 = 1.92;
/** How far off the way lives and delays are taken to be spread may put a factor, by its logarithm. Ours, as benchmarked. */
const MODEL_OFF = 0.03;
const NEXT_TO_NOTHING = 1e-12;

/** The normal distribution, read off a table between its lines: it is asked for millions of times. */
const [CDF_TO, CDF_LINES] = [8, 8192];
const CDF = Float64Array.from(
  { length: CDF_LINES + 2 },
  (_, line) => 0.5 * (1 + errorFunction((-CDF_TO + (2 * CDF_TO * line) / CDF_LINES) / SQRT2)),
);

function normalCdf(z: number): number {
  if (!(z > -CDF_TO)) return 0;
  if (z >= CDF_TO) return 1;
  const at = ((z + CDF_TO) * CDF_LINES) / (2 * CDF_TO);
  const line = Math.trunc(at);
  const below = CDF[line] as number;
  return below + ((CDF[line + 1] as number) - below) * (at - line);
}

/** Whether anything can be reckoned with it. */
export function isSound({
  medianMonths,
  spread,
  ranMonths,
  spentByMonths,
  broughtMonths,
  outMonths,
}: CellLife): boolean {
  return (
    medianMonths > 0 &&
    medianMonths < Infinity &&
    spread > 0 &&
    spread < Infinity &&
    ranMonths >= 0 &&
    (spentByMonths === null ||
      (spentByMonths > 0 && spentByMonths >= ranMonths && spentByMonths < Infinity)) &&
    (broughtMonths === null || (broughtMonths >= 0 && broughtMonths < Infinity)) &&
    (outMonths === null || (outMonths >= 0 && outMonths < Infinity))
  );
}

/** Pieces a stretch of time is cut into, the finer the nearer to its late end. */
const PIECES = 8;

/** A life as it is weighed: logarithms of months over the middle of its forecast, ready to be shifted by a factor. */
interface Weighed {
  /** One over the spread of its forecast. */
  readonly sharp: number;
  /** When it last ran. */
  readonly ran: number;
  /** The stretch in which it may have ended, from its late end on, and what weight an end in each piece has. */
  readonly cuts: Float64Array;
  readonly weights: Float64Array;
}

/**
 * A life with the stretch from `fromMonths` to `toMonths`, its pieces weighed by how long before `atMonths` they lie. Cut by
 * what an owner's delay is like: most come soon, a few very late.
 */
function weigh(
  { medianMonths, spread, ranMonths }: CellLife,
  [fromMonths, toMonths, atMonths]: readonly [number, number, number],
  delayMonths: number,
  weight: (agoMonths: number) => number,
): Weighed {
  const [least, span] = [atMonths - toMonths, toMonths - fromMonths];
  const months = Array.from(
    { length: PIECES + 1 },
    (_, piece) => toMonths - delayMonths * ((1 + span / delayMonths) ** (piece / PIECES) - 1),
  );
  const inForecast = (at: number): number => log(max(0, at) / medianMonths);
  return {
    sharp: 1 / spread,
    ran: inForecast(ranMonths),
    cuts: Float64Array.from(months, inForecast),
    weights: Float64Array.from(months.slice(1), (month, piece) =>
      weight(max(least, atMonths - ((months[piece] ?? 0) + month) / 2)),
    ),
  };
}

/** The share ended within its stretch, weighed, under a factor and a width. */
function endedWithin({ cuts, weights, sharp }: Weighed, logFactor: number, narrow: number): number {
  const scale = sharp * narrow;
  let [sum, upper] = [0, normalCdf(((cuts[0] as number) - logFactor) * scale)];
  for (let piece = 0; piece < PIECES; piece += 1) {
    const lower = normalCdf(((cuts[piece + 1] as number) - logFactor) * scale);
    sum += (upper - lower) * (weights[piece] as number);
    upper = lower;
  }
  return sum;
}

const safeLog = (likelihood: number): number => log(max(NEXT_TO_NOTHING, likelihood));

/**
 * The log-likelihood of a factor, the best over how wide lives lie and how many owners come back. A cell found spent
 * ended between when it last ran and when it was brought, likelier lately; one that came out running had not; one not
 * seen since runs, or has stopped and is still to be brought, or its owner went elsewhere.
 */
function likelihoodOf(lives: readonly CellLife[], delayMonths: number): (logFactor: number) => number {
  /** How a delay is spread: half of the owners come within the middle one, the rest far later. */
  const comes = (months: number): number => delayMonths / (delayMonths + months) ** 2;
  const hasCome = (months: number): number => months / (delayMonths + months);
  const [spent, out, running]: [Weighed[], Weighed[], Weighed[]] = [[], [], []];
  for (const life of lives) {
    const { ranMonths, spentByMonths, broughtMonths, outMonths } = life;
    if (spentByMonths !== null) {
      const brought = max(spentByMonths, broughtMonths ?? 0);
      spent.push(weigh(life, [ranMonths, spentByMonths, brought], delayMonths, comes));
    } else if (outMonths !== null)
      out.push(weigh(life, [min(ranMonths, outMonths), outMonths, outMonths], delayMonths, hasCome));
    else running.push(weigh(life, [ranMonths, ranMonths, ranMonths], delayMonths, hasCome));
  }
  const [runs, brought] = [new Float64Array(out.length), new Float64Array(out.length)];
  return (logFactor) => {
    let best = -Infinity;
    for (const wider of WIDER) {
      const narrow = 1 / wider;
      const stillRuns = ({ ran, sharp }: Weighed): number =>
        1 - normalCdf((ran - logFactor) * sharp * narrow);
      let seen = 0;
      for (const life of spent) seen += safeLog(endedWithin(life, logFactor, narrow));
      for (const life of running) seen += safeLog(stillRuns(life));
      out.forEach((life, at) => {
        runs[at] = stillRuns(life);
        brought[at] = endedWithin(life, logFactor, narrow);
      });
      for (const share of COME_BACK) {
        let whole = seen + spent.length * log(share);
        for (let at = 0; at < out.length; at += 1)
          whole += safeLog((runs[at] as number) - share * (brought[at] as number));
        best = max(best, whole);
      }
    }
    return best;
  };
}

/** Where a height is greatest between two places, by thirds. */
function highest(height: (at: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  while (b - a > 0.002) {
    const third = (b - a) / 3;
    if (height(a + third) < height(b - third)) a += third;
    else b -= third;
  }
  return (a + b) / 2;
}

/**
 * How long the cells of a kind last in this shop, as a factor of the middle of each one's own forecast, with the ends
 * it may lie between (95 %, by likelihood). A find is an interval: last known running, spent when it was found, or as
 * the owner tells when it stopped. Cells not seen again count: of those that stopped a share comes back, which is
 * estimated with it, each so long after it stopped as owners of this shop tell. Under five seen again: *too few*. All
 * found running give a lower bound alone: *at least*; all spent with nothing known of when: *cannot say*. Lives are
 * lognormal, no narrower than forecast. Months in, a factor without unit out. Source: maximum likelihood for
 * interval-censored data; profile likelihood for the ends.
 */
export function estimateLives(given: readonly CellLife[]): ShopLife {
  const lives = given.filter(isSound);
  const seenAgain = lives.filter((each) => each.seenAgain).length;
  const spent = lives.filter(({ spentByMonths }) => spentByMonths !== null);
  const counted = { fitted: lives.length, seenAgain, spent: spent.length };
  const none = { factor: null, from: null, to: null, ...counted };
  if (seenAgain < LEAST_SEEN) return { verdict: 'too few', ...none };
  if (!lives.some(({ ranMonths, seenAgain: again }) => again && ranMonths > 0))
    return { verdict: 'cannot say', ...none };
  const delays = lives.flatMap(({ ranMonths, spentByMonths, broughtMonths }) =>
    spentByMonths === null || broughtMonths === null || spentByMonths >= broughtMonths
      ? []
      : broughtMonths - (ranMonths + spentByMonths) / 2,
  );
  const delayMonths = delays.length < DELAYS_WANTED ? DELAY_MONTHS : max(LEAST_DELAY_MONTHS, median(delays));
  const likelihood = likelihoodOf(lives, delayMonths);
  const [lowest, farthest] = [log(FACTOR_FROM), log(FACTOR_TO)];
  const steps = Math.round((farthest - lowest) / STEP);
  let nearest = lowest;
  let most = -Infinity;
  for (let step = 0; step <= steps; step += 1) {
    const at = lowest + step * STEP;
    const height = likelihood(at);
    if (height > most) [nearest, most] = [at, height];
  }
  const top = highest(likelihood, max(lowest, nearest - STEP), min(farthest, nearest + STEP));
  const enough = max(most, likelihood(top)) - WITHIN_95;
  /** How far to one side of the top it is still within, farther by what the model may be off; null: to the very limit. */
  const end = (limit: number): number | null => {
    const side = Math.sign(limit - top);
    let [inside, outside] = [top, top];
    for (let reach = FIRST_REACH; likelihood(outside) >= enough; reach *= 2) {
      if (outside === limit) return null;
      inside = outside;
      outside = side < 0 ? max(limit, top - reach) : min(limit, top + reach);
    }
    for (let halving = 0; halving < HALVINGS; halving += 1) {
      const middle = (inside + outside) / 2;
      if (likelihood(middle) >= enough) inside = middle;
      else outside = middle;
    }
    return exp(top + side * Math.hypot(inside - top, MODEL_OFF));
  };
  const [from, to] = [end(lowest), end(farthest)];
  if (from === null) return { verdict: 'cannot say', ...none };
  if (spent.length === 0 || to === null)
    return { verdict: 'at least', factor: null, from, to: null, ...counted };
  return { verdict: 'factor', factor: exp(top), from, to, ...counted };
}

export type ShopLifeAdvice = Judged<
  'shorter' | 'longer' | 'as forecast' | 'at least' | 'too few' | 'cannot say'
> & {
  /** The forecast as this shop's cells would have it, months; null where they say too little. */
  readonly corrected: {
    readonly p10Months: number;
    readonly p50Months: number;
    readonly p90Months: number;
  } | null;
  /** Months to the next visit by it, where that is earlier than by the forecast alone; never later. */
  readonly nextVisitMonths: number | null;
};

/** Standard deviations between the middle and an end of 95 %, and of the middle 80 %. */
const TO_95 = 1.96;
export const TO_80 = 1.2816;

/** How sure it is: every cell it rests on. */
function restsOn({ fitted, seenAgain, spent }: ShopLife): string {
  return `${figure(seenAgain, 0)} of ${figure(fitted, 0)} fitted here came back, ${figure(spent, 0)} of them spent`;
}

/**
 * A forecast beside what this shop's own cells did: the factor with its ends and the cells it rests on, and the forecast
 * as that would have it. Where they surely last shorter (the whole of the 95 % lies under 1) the next visit comes
 * earlier by it; where longer it does not come later, since a spent cell left inside leaks. `cells` names them: `371 of
 * Nordwerk`. Months. Source: `estimateLives`.
 */
export function judgeShopLife(shop: ShopLife, life: LifeForecast, cells: string): ShopLifeAdvice {
  const none = { corrected: null, nextVisitMonths: null, working: [] };
  const [from, to] = [shop.from ?? Number.NaN, shop.to ?? Number.NaN];
  if (![shop.fitted, shop.seenAgain, shop.spent].every((count) => count >= 0 && count < Infinity))
    return {
      verdict: 'cannot say',
      reasons: [`A count for ${cells} is not a number.`],
      ...none,
    };
  if (shop.verdict === 'too few')
    return {
      verdict: 'too few',
      reasons: [`Of ${cells} ${restsOn(shop)}. At least ${LEAST_SEEN} are needed for a result.`],
      ...none,
    };
  if (shop.verdict === 'cannot say' || !(from > 0))
    return {
      verdict: 'cannot say',
      reasons: [
        `Of ${cells} ${restsOn(shop)}, but the stop dates are missing. Ask each owner when the watch stopped.`,
      ],
      ...none,
    };
  if (shop.verdict === 'at least')
    return {
      verdict: 'at least',
      reasons: [`${cells} lasted at least ${figure(from)} × the forecast here: ${restsOn(shop)}.`],
      ...none,
    };
  const factor = shop.factor ?? Number.NaN;
  const verdict = to < 1 ? 'shorter' : from > 1 ? 'longer' : 'as forecast';
  const sentence = `${cells} lasted ${figure(factor)} × the forecast here, ${figure(from)} to ${figure(to)}: ${restsOn(shop)}.`;
  if (
    life.verdict === 'no forecast' ||
    !(isForecast(life) && life.p10Months > 0) ||
    !(factor > 0 && to >= from && to < Infinity)
  )
    return {
      verdict,
      reasons: [
        sentence,
        life.verdict === 'no forecast'
          ? 'There is no forecast to correct.'
          : 'The forecast is not a number, so it is not corrected.',
      ],
      ...none,
    };
  const sure = log(to / from) / (2 * TO_95);
  const end = (months: number): number =>
    factor *
    life.p50Months *
    exp(Math.sign(months - life.p50Months) * Math.hypot(log(months / life.p50Months), TO_80 * sure));
  const corrected = {
    p10Months: end(life.p10Months),
    p50Months: factor * life.p50Months,
    p90Months: end(life.p90Months),
  };
  const sooner = Math.floor(corrected.p10Months);
  const comesSooner = verdict === 'shorter' && sooner < life.nextVisitMonths;
  return {
    verdict,
    corrected,
    nextVisitMonths: comesSooner ? sooner : null,
    reasons: [
      sentence,
      ...(verdict === 'longer'
        ? ['The next visit is not moved later, because a spent cell left inside leaks.']
        : []),
    ],
    working: [
      {
        what: 'this shop’s own cells',
        rule: 'forecast × factor, its width and the factor’s together',
        figures: `${figure(factor)} (${figure(from)}–${figure(to)}) × ${figure(life.p50Months, 1)} = ${figure(corrected.p50Months, 1)} months; ${lifeRange(corrected)}; ${restsOn(shop)}`,
        source: 'maximum likelihood for interval-censored data, cells not seen again counted',
      },
    ],
  };
}
