import { AMBIENT_BAR } from './law';
import {
  BEND,
  COLUMNS,
  columnsAt,
  CREEP_S,
  DRIFT,
  FIRST_CREEP,
  freed,
  freedForAny,
  GIVES,
  prepare,
  type Prepared,
  SLOW_S,
} from './leakModel';
import { type Before, leastSquares, type Solution, type Sums } from './leastSquares';
import type { LeakRecord } from './record';

/** What share of the deflection one of these times has: hardly any, some, much. Source: cases as they come to a bench. */
const FAST_SHARES = [0.0003, 0.003, 0.03] as const;
const SLOW_SHARES = [0.001, 0.005, 0.025, 0.08] as const;

/** Creep goes one way: its share is likelier above nought than below, by so much of its spread. */
const ONE_WAY = 0.6;

/** All of it together goes the other way by no more than this share of the deflection: what noise makes of none. */
const MOST_BACKWARDS = 0.02;

/** How far drift may bend within a record, as shares of the deflection: not at all, or somewhat. */
const BEND_SHARES = [0.0001, 0.003] as const;

/** The many manners together hold a little more than 95 of 100: measured in `benchmarks/leak.ts`, and taken off. */
const NARROWER = 0.87;

/** How the noise of a record is: its spread freed of correlation, squared, µm², and how much of each reading goes on in the next. */
interface Noise {
  readonly noise2: number;
  readonly correlation: number;
}

/** One way creep and drift may go. */
interface Manner {
  readonly fast: number;
  readonly slow: number;
  readonly bend: number;
}

const MANNERS: readonly Manner[] = FAST_SHARES.flatMap((fast) =>
  SLOW_SHARES.flatMap((slow) => BEND_SHARES.map((bend) => ({ fast, slow, bend }))),
);

/** What is known of the columns before the record is looked at. */
function before(
  { fast, slow, bend }: Manner,
  of: Prepared,
  noise2: number,
): Before & { readonly logWeight: number } {
  const [weight, value] = [new Float64Array(COLUMNS), new Float64Array(COLUMNS)];
  let logWeight = 0;
  const know = (column: number, spread: number, mean: number): void => {
    weight[column] = noise2 / spread ** 2;
    value[column] = mean;
    logWeight += Math.log(weight[column] ?? 1);
  };
  know(BEND, bend * of.amplitudeUm, 0);
  CREEP_S.forEach((tau, j) => {
    const spread = (tau > SLOW_S ? slow : fast) * of.amplitudeUm;
    know(FIRST_CREEP + j, spread, ONE_WAY * spread);
  });
  if (of.drift !== null) know(DRIFT, of.drift.errorUmPerS * of.wholeS, of.drift.umPerS * of.wholeS);
  return { weight, value, logWeight };
}

/** How far all that comes by and by goes the other way, µm: no case does that, and a leak looks like it. */
function backwards({ coefficients }: Solution): number {
  let sum = 0;
  for (let column = FIRST_CREEP; column < COLUMNS; column += 1) sum += coefficients[column] ?? 0;
  return Math.min(0, sum);
}

interface Weighed {
  /** How likely the record is, whatever the manner of creep and drift. */
  readonly logLikelihood: number;
  /** The likeliest manner, and the fit with it. */
  readonly manner: Manner;
  readonly solution: Solution;
}

function weigh(of: Prepared, sums: Sums, { noise2, correlation }: Noise, manners = MANNERS): Weighed {
  const unlinked = of.follows.reduce((count, each) => count + (each ? 0 : 1), 0);
  const freedom = of.fitted.length - (GIVES + 1);
  let [top, sum] = [-Infinity, 0];
  let likeliest: { manner: Manner; solution: Solution } | null = null;
  for (const manner of manners) {
    const known = before(manner, of, noise2);
    const solution = leastSquares(sums, known);
    const log =
      0.5 *
        (known.logWeight -
          freedom * Math.log(Math.max(solution.residual, 1e-300)) -
          solution.logDeterminant +
          unlinked * Math.log(1 - correlation ** 2)) -
      0.5 * (backwards(solution) / (MOST_BACKWARDS * of.amplitudeUm)) ** 2;
    if (log > top) {
      sum = sum * Math.exp(top - log) + 1;
      top = log;
      likeliest = { manner, solution };
    } else sum += Math.exp(log - top);
  }
  return { logLikelihood: top + Math.log(sum), ...(likeliest as { manner: Manner; solution: Solution }) };
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Where a function with one hill is highest, by the golden section. */
function highest(of: (x: number) => number, from: number, to: number, within: number): number {
  let [a, b] = [from, to];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [atC, atD] = [of(c), of(d)];
  while (b - a > within) {
    if (atC > atD) {
      [b, d, atD] = [d, c, atC];
      c = b - GOLDEN * (b - a);
      atC = of(c);
    } else {
      [a, c, atC] = [c, d, atD];
      d = a + GOLDEN * (b - a);
      atD = of(d);
    }
  }
  return atC > atD ? c : d;
}

/** The noise that makes the residuals at a leak constant likeliest, creep and drift going as is likeliest. */
function noiseAt(of: Prepared, constantPerBarS: number, start: Noise): Noise {
  const sumsFor = freedForAny(of, columnsAt(of, constantPerBarS));
  const at = (noise2: number, correlation: number, manners?: readonly Manner[]): Weighed =>
    weigh(of, sumsFor(correlation), { noise2, correlation }, manners);
  let { noise2, correlation } = start;
  for (let turn = 0; turn < 2; turn += 1) {
    const guess = noise2;
    const manners = [at(noise2, correlation).manner];
    correlation = highest((rho) => at(guess, rho, manners).logLikelihood, -0.3, 0.985, 0.01);
    noise2 = Math.max(
      at(guess, correlation, manners).solution.residual / Math.max(1, of.fitted.length - FIRST_CREEP),
      of.leastNoise2 * (1 - correlation ** 2),
    );
  }
  return { noise2, correlation };
}

/** Student's t that 95 of 100 lie within, either way. Source: expansion of Cornish and Fisher. */
function tWithin95(freedom: number): number {
  const z = 1.959964;
  return (
    z +
    (z ** 3 + z) / (4 * freedom) +
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * freedom ** 2) +
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * freedom ** 3)
  );
}

/** A leak constant as a record tells it. */
export interface LeakFit {
  /** The likeliest, 1/(bar·s). */
  readonly best: number;
  /** How far another is from it, in spreads of its own: up to `within` 95 of 100 lie. */
  readonly away: (constantPerBarS: number) => number;
  readonly within: number;
  /** The ends of what 95 of 100 lie within; Infinity where the record holds nothing against any leak. */
  readonly from: number;
  readonly to: number;
  readonly noiseUm: number;
  readonly correlation: number;
  readonly driftUmPerS: number;
  /** What the case gives at once, µm for each bar, and how much of all it gives comes by and by. */
  readonly stiffnessUmPerBar: number;
  readonly creepShare: number;
  /** How much of all it gives comes later than a time, s. */
  readonly givesAfter: (seconds: number) => number;
  readonly bendUm: number;
  /** The fit at every point, µm; computed when it is asked for. */
  readonly modelUm: () => Float64Array;
}

const MOST_CONSTANT = 3;

/** Leaks that may fit as well are looked for in steps of this factor. */
const APART = 1.8;

/** Where it is as far as 95 of 100 lie, between a constant nearer and one farther: by chords, as the way is nearly straight. */
function crossing(
  away: (constant: number) => number,
  within: number,
  inside: number,
  outside: number,
): number {
  let [a, b] = [inside, outside];
  let [atA, atB] = [away(a) - within, away(b) - within];
  for (let turn = 0; turn < 30 && Math.abs(b - a) > 4e-3 * Math.abs(b); turn += 1) {
    const chord = atB === atA ? 0.5 : atA / (atA - atB);
    const middle = a + (b - a) * Math.min(0.95, Math.max(0.05, chord));
    const atMiddle = away(middle) - within;
    if (Math.abs(atMiddle) < 0.005) return middle;
    if (atMiddle < 0) {
      [a, atA] = [middle, atMiddle];
      atB /= 2;
    } else {
      [b, atB] = [middle, atMiddle];
      atA /= 2;
    }
  }
  return (a + b) / 2;
}

/**
 * Fits a whole record with one leak constant, one drift, one stiffness, the creep of crystal and case, and noise of which
 * each reading has part of the last; pressure on its way is left out. What is linear in the model is summed over, so that
 * one unknown is left to search. `feels` is a leak constant whose decay the record is long enough to show at all.
 * Source: separable least squares; marginal likelihood with first-order autoregressive noise.
 */
export function fitLeak(of: Prepared): LeakFit {
  const feels = 0.01 / (of.wholeS * (of.rangeBar + 2 * AMBIENT_BAR));
  let noise = noiseAt(of, feels, {
    noise2: Math.max(of.leastNoise2, (0.005 * of.amplitudeUm) ** 2),
    correlation: 0.3,
  });
  let weighed = new Map<number, Weighed>();
  const at = (constant: number): Weighed => {
    let there = weighed.get(constant);
    if (!there) {
      there = weigh(of, freed(of, columnsAt(of, constant), noise.correlation), noise);
      weighed.set(constant, there);
    }
    return there;
  };
  const log = (constant: number): number => at(constant).logLikelihood;
  const likeliest = (lowest: number, most: number): number => {
    const grid = [0];
    for (let constant = lowest; constant < most; constant *= 3) grid.push(constant);
    const top = grid.reduce((best, _, i) => (log(grid[i] ?? 0) > log(grid[best] ?? 0) ? i : best), 0);
    const [low, high] = [grid[Math.max(0, top - 1)] ?? 0, grid[Math.min(grid.length - 1, top + 1)] ?? 1];
    const found = highest(log, low, high, (high - low) * 0.01);
    return log(0) >= log(found) ? 0 : found;
  };
  const first = likeliest(feels, MOST_CONSTANT);
  noise = noiseAt(of, first, noise);
  weighed = new Map();
  const best = likeliest(Math.max(first / 6, feels), Math.max(first * 6, 10 * feels));
  const { solution } = at(best);
  const goesOn = Math.max(0, noise.correlation);
  const independent = (of.fitted.length * (1 - goesOn)) / (1 + goesOn);
  const within = NARROWER * tWithin95(Math.max(3, independent - FIRST_CREEP - 4));
  const away = (constant: number): number => Math.sqrt(Math.max(0, 2 * (log(best) - log(constant))));
  let above = Math.max(best * 1.5, feels);
  while (above < MOST_CONSTANT && away(above) < within) above *= 1.6;
  // Apart from the likeliest another leak may fit as well: it belongs to what 95 of 100 lie within.
  let [lowest, highestTo] = [best, above];
  for (let constant = feels; constant < MOST_CONSTANT; constant *= APART) {
    if (away(constant) >= within) continue;
    if (constant > highestTo) highestTo = constant;
    if (constant < lowest) lowest = constant;
  }
  const { coefficients } = solution;
  const give = coefficients[GIVES] ?? 0;
  const creep = coefficients.slice(FIRST_CREEP).reduce((sum, each) => sum + each, 0);
  return {
    best,
    away,
    within,
    from: away(0) <= within ? 0 : crossing(away, within, lowest, lowest < best ? lowest / APART : 0),
    to:
      above >= MOST_CONSTANT
        ? Infinity
        : highestTo > above
          ? crossing(away, within, highestTo, highestTo * APART)
          : crossing(away, within, best, above),
    noiseUm: Math.sqrt(noise.noise2 / (1 - noise.correlation ** 2)),
    correlation: noise.correlation,
    driftUmPerS: (coefficients[DRIFT] ?? 0) / of.wholeS,
    stiffnessUmPerBar: (give + creep) / of.rangeBar,
    creepShare: creep / (give + creep),
    givesAfter: (seconds) =>
      CREEP_S.reduce((sum, tau, j) => sum + (tau > seconds ? (coefficients[FIRST_CREEP + j] ?? 0) : 0), 0) /
      (give + creep),
    bendUm: coefficients[BEND] ?? 0,
    modelUm: () => {
      const columns = columnsAt(of, best);
      return Float64Array.from(of.atS, (_, i) =>
        coefficients.reduce((sum, each, c) => sum + each * (columns[c]?.[i] ?? 0), 0),
      );
    },
  };
}

/** Creep and drift as they usually go. */
const USUAL_MANNER: Manner = { fast: FAST_SHARES[1], slow: SLOW_SHARES[0], bend: BEND_SHARES[0] };

/**
 * The spread, 1/(bar·s), to which a record with these times and pressures would tell a leak constant, with noise as a share
 * of the deflection. Nothing is drawn: the information of the model itself. Source: Cramér and Rao.
 */
export function spreadOfConstant(
  times: Pick<LeakRecord, 'atS' | 'overBar'>,
  noiseShare: number,
  correlation: number,
  constantPerBarS: number,
): number {
  const of = prepare({ ...times, deflectionUm: times.atS.map(() => 0) }, 1, null);
  const noise2 = noiseShare ** 2 * (1 - correlation ** 2);
  const step = Math.max(constantPerBarS, 1e-7) * 0.01;
  const [at, beside] = [columnsAt(of, constantPerBarS), columnsAt(of, constantPerBarS + step)];
  const moved = Float64Array.from(at[GIVES] ?? [], (each, i) => ((beside[GIVES]?.[i] ?? 0) - each) / step);
  const columns = [...at.slice(0, COLUMNS), moved];
  // What is left of the column once all others are taken off is what the record says of the constant.
  const { residual } = leastSquares(freed(of, columns, correlation), {
    ...before({ ...USUAL_MANNER }, of, noise2),
    value: new Float64Array(COLUMNS),
  });
  return residual > 0 ? Math.sqrt(noise2 / residual) : Infinity;
}
