import type { CellType } from '../cells';
import { figure, type Judged } from '../judgement';
import { addMonths, dayInWords, noMoments, yearsBetween } from '../time';
import type { ShopLifeAdvice } from './shopLife';
import {
  type FunctionUse,
  isForecast,
  type LifeForecast,
  type LifeInput,
  monthsOfLife,
  unusable,
  averageCurrentUA,
} from './expectedLife';

/** Lives of several candidates for one place, and what a year of each costs. */
export interface LifeOfLot {
  readonly lotId: string;
  readonly life: LifeForecast;
  /** Its early end and its middle, as forecast, or as such cells surely last shorter in this shop; null: nothing is forecast. */
  readonly range: { readonly p10Months: number; readonly p50Months: number; readonly asHere: boolean } | null;
  /** Minor units for a year of that middle; null where nothing is forecast. */
  readonly minorPerYear: number | null;
}

/** What a year costs; null where price or life is no number. */
function yearly(priceMinor: number, months: number): number | null {
  const minor = priceMinor / (months / 12);
  return priceMinor >= 0 && minor < Infinity ? minor : null;
}

function rangeOf(life: LifeForecast, here: ShopLifeAdvice | null): LifeOfLot['range'] {
  if (life.verdict === 'no forecast' || !isForecast(life)) return null;
  const shorter = here?.verdict === 'shorter' ? here.corrected : null;
  const { p10Months, p50Months } = shorter ?? life;
  return { p10Months, p50Months, asHere: shorter !== null };
}

/**
 * Candidates side by side, the cheapest year first. `lives` in the order of `lots`, and `here` what this shop's cells say of
 * each: where they surely last shorter that counts, where longer it does not make them cheaper.
 */
export function compareLives(
  lots: readonly { readonly id: string; readonly priceMinor: number }[],
  lives: readonly LifeForecast[],
  here: readonly (ShopLifeAdvice | null)[],
): readonly LifeOfLot[] {
  return lots
    .flatMap((lot, index): LifeOfLot[] => {
      const life = lives[index];
      if (!life) return [];
      const range = rangeOf(life, here[index] ?? null);
      return [{ lotId: lot.id, life, range, minorPerYear: range && yearly(lot.priceMinor, range.p50Months) }];
    })
    .sort((a, b) => (a.minorPerYear ?? Infinity) - (b.minorPerYear ?? Infinity));
}

export interface FittedQuestion {
  readonly cell: CellType | null;
  /** What its voltages say: spent or falling, good, or not judged. */
  readonly rest: 'good' | 'falling' | 'spent' | 'not judged';
  readonly loaded: 'good' | 'falling' | 'spent' | 'not judged';
  /** Whether it leaked, however little. */
  readonly leaked: boolean;
  /** The life of a fresh one here. */
  readonly life: LifeForecast;
  /** When it was fitted, a calendar day; null: nobody knows. */
  readonly fittedOn: string | null;
  readonly today: string;
}

export type FittedAdvice = Judged<'leave' | 'change now' | 'recall by'> & {
  /** The day to come back by; null where it is changed now. */
  readonly recallOn: string | null;
};

/** Less left than this and it is changed now: the watch is open, and a spent cell leaks. */
const CHANGE_UNDER_MONTHS = 6;
/** Of a life nobody knows the start of, how much is counted on. */
const COUNTED_ON = 0.1;

/**
 * A cell of unknown age that is in the watch: leave it, change it now, or leave it and call the owner back by a day.
 * Leaked, spent or falling under load is changed. With the day it was fitted the rest of its early end (P10) counts;
 * without it, it may stand anywhere in its life, and a tenth of the median is counted on. Silver oxide keeps its voltage
 * until nearly the end, so that a good voltage proves little. Days as year-month-day. Source: bench practice.
 */
export function judgeFitted(question: FittedQuestion): FittedAdvice {
  const { cell, rest, loaded, leaked, life, fittedOn, today } = question;
  const flat =
    cell?.chemistry === 'silver-oxide'
      ? ['Silver oxide keeps its voltage almost to the end, so a good voltage proves little.']
      : [];
  const now = (reason: string): FittedAdvice => ({
    verdict: 'change now',
    recallOn: null,
    reasons: [reason],
    working: [],
  });
  if (leaked) return now('It has begun to leak. Take it out, whatever the reading.');
  if (rest === 'spent' || loaded === 'spent') return now('The cell is spent. Left inside, it leaks.');
  if (loaded === 'falling') return now('Its voltage drops under load. It is near its end.');
  if (rest === 'falling') return now('Its voltage at rest is low. It is near its end.');
  const unknown =
    life.verdict === 'no forecast'
      ? (life.reasons[0] ?? '')
      : !isForecast(life)
        ? 'its forecast is not a number.'
        : (noMoments([
            ['The day it was fitted', fittedOn],
            ['Today', today],
          ])[0] ??
          (fittedOn !== null && fittedOn > today
            ? `it cannot be fitted on ${dayInWords(fittedOn)}, a day in the future.`
            : null));
  if (unknown !== null || life.verdict === 'no forecast') {
    return {
      verdict: 'recall by',
      recallOn: addMonths(today, CHANGE_UNDER_MONTHS),
      reasons: [`Its life is not known: ${unknown ?? ''}`, ...flat],
      working: [],
    };
  }
  const elapsed = fittedOn === null ? null : yearsBetween(fittedOn, today) * 12;
  const left = elapsed === null ? life.p50Months * COUNTED_ON : life.p10Months - elapsed;
  const working = [
    elapsed === null
      ? {
          what: 'possible remaining life',
          rule: 'at any point of its life; one tenth of the median is assumed',
          figures: `${figure(COUNTED_ON)} × ${figure(life.p50Months, 1)} = ${figure(left, 1)} months`,
          source: 'uniform over its life; ours',
        }
      : {
          what: 'remaining life to its early end',
          rule: 'P10 of a fresh one − months since it was fitted',
          figures: `${figure(life.p10Months, 1)} − ${figure(elapsed, 1)} = ${figure(left, 1)} months`,
          source: 'life forecast',
        },
  ];
  if (elapsed !== null && left < CHANGE_UNDER_MONTHS)
    return {
      verdict: 'change now',
      recallOn: null,
      reasons: [
        left <= 0
          ? `Fitted ${figure(elapsed, 0)} months ago, it is past its early end.`
          : `It has about ${figure(left, 0)} months to its early end, and the watch is open now.`,
        ...flat,
      ],
      working,
    };
  const recallOn = addMonths(today, Math.max(1, Math.floor(left)));
  return {
    verdict: elapsed === null ? 'recall by' : 'leave',
    recallOn,
    reasons: [
      elapsed === null
        ? 'It is not known when it was fitted, so it may be at any point of its life.'
        : `Fitted ${figure(elapsed, 0)} months ago, it has about ${figure(left, 0)} months to its early end.`,
      ...flat,
    ],
    working,
  };
}

/** Months a life must gain before a service is worth naming for the cell's sake. */
const WORTH_NAMING_MONTHS = 3;

export type ServiceGain = Judged<'nothing to gain' | 'a service gains' | 'cannot say'> & {
  readonly gainsMonths: number;
};

/**
 * What a service would gain where the measured current makes the life short: the life at the typical current against
 * the life at the measured one, mAh and µA in, months out. Source: charge balance.
 */
export function serviceGain(
  input: Pick<LifeInput, 'capacityMinMAh' | 'capacityMaxMAh' | 'chemistry' | 'yearsSinceMade'> & {
    readonly functions: readonly FunctionUse[];
  },
  measuredUA: number,
  typicalUA: number,
): ServiceGain {
  const capacity = (input.capacityMinMAh + input.capacityMaxMAh) / 2;
  const at = (baseUA: number): number =>
    monthsOfLife(
      capacity,
      averageCurrentUA(baseUA, input.functions),
      input.chemistry,
      input.yearsSinceMade ?? 0,
    );
  const wrong = [measuredUA, typicalUA].flatMap((baseUA) => unusable({ ...input, baseUA }) ?? []);
  if (wrong.length > 0)
    return { verdict: 'cannot say', gainsMonths: 0, reasons: [...new Set(wrong)], working: [] };
  const [now, then] = [at(measuredUA), at(typicalUA)];
  const gainsMonths = Math.max(0, then - now);
  const gains = gainsMonths >= WORTH_NAMING_MONTHS;
  return {
    verdict: gains ? 'a service gains' : 'nothing to gain',
    gainsMonths,
    reasons: [
      gains
        ? `At ${figure(measuredUA)} µA a cell lasts about ${figure(now, 0)} months; serviced, at ${figure(typicalUA)} µA, about ${figure(then, 0)}.`
        : `At ${figure(measuredUA)} µA the current is normal.`,
    ],
    working: [
      {
        what: 'gain from a service',
        rule: 'life at the typical current − life at the measured one',
        figures: `${figure(then, 1)} − ${figure(now, 1)} = ${figure(gainsMonths, 1)} months`,
        source: 'charge balance, month of 730.5 h',
      },
    ],
  };
}
