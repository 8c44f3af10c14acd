import { hoursAt } from '../../craft/charging';
import { figure, memoizeByValue } from '../../craft/judgement';
import { expectedLife, judgeShopLife, type LifeForecast, type ShopLifeAdvice } from '../../craft/life';
import { type Calibre, type Charge, reserveWith } from '../../craft/movements';
import type { Lot } from '../../craft/stock';
import { addMonths, dayInWords, localDay } from '../../craft/time';
import { judgeAccumulator } from '../charging';
import { supplyOf } from '../supply';
import type { JobContext, JobState, WellState } from '../../logbook';
import { fittedAdviceOf } from './leftIn';
import { lifeQuestion } from './lifeQuestion';

/** Lots by whose their cells are and how old. */
export type DatedLots = readonly Pick<Lot, 'id' | 'supplier' | 'madeOn' | 'bestBefore'>[];
/** Lots with what their cells did in this shop, too. */
export type LotsOfCells = readonly (DatedLots[number] & Pick<Lot, 'code' | 'lasts'>)[];

type Forecast = Extract<LifeForecast, { verdict: 'forecast' }>;

/** What this shop's own cells say of a forecast for a lot of them; null where nothing is followed. */
export function shopLifeOf(
  life: LifeForecast,
  lot: Pick<Lot, 'code' | 'supplier' | 'lasts'> | null,
): ShopLifeAdvice | null {
  if (lot === null || lot.lasts === null || lot.lasts.fitted === 0) return null;
  return judgeShopLife(lot.lasts, life, [lot.code, lot.supplier].filter(Boolean).join(' of '));
}

/** Months to the next visit: before the early end, or before what this shop's cells say where they surely last shorter. */
function monthsToVisit(life: Forecast, here: ShopLifeAdvice | null): number {
  return here?.nextVisitMonths ?? life.nextVisitMonths;
}

/** By when a watch should come back whose cell goes in on a day, and why then. */
export function visitWords(life: Forecast, here: ShopLifeAdvice | null, day: string): string {
  const months = monthsToVisit(life, here);
  if (months < 1) return 'It may not last a month. Do not fit it without telling the owner.';
  const end =
    months < life.nextVisitMonths
      ? 'the early end, from the life of these cells in this shop'
      : 'the early end';
  return `Next visit by ${dayInWords(addMonths(day, months))}: before ${end}.`;
}

/** The lot the cell fitted in a well came from; null where it is none of this shop's. */
function lotFitted<L extends DatedLots[number]>({ fitted }: WellState, lots: readonly L[]): L | null {
  return (fitted && lots.find((each) => each.id === fitted.payload.lotId)) ?? null;
}

/** The life forecast of the cell fitted in a well, from its lot's age and the measured or book current. */
export function fittedLife(
  state: JobState,
  well: WellState,
  lots: DatedLots,
  context: JobContext,
): LifeForecast {
  const refused = (reason: string): LifeForecast => ({
    verdict: 'no forecast',
    reasons: [reason],
    working: [],
  });
  const fitted = well.fitted;
  if (well.putBack) return refused('The old cell was put back, and its age is not known.');
  if (!fitted) {
    const asked = state.progress.find(({ stage }) => stage === 'cell')?.status !== 'not needed';
    return refused(asked ? 'No cell is fitted yet.' : 'The cell was not changed, and its age is not known.');
  }
  if (fitted.payload.ownersOwn) return refused('The owner brought the cell, and its age is not known.');
  const question = lifeQuestion(
    state,
    well,
    fitted.payload.cellCode,
    lotFitted(well, lots),
    localDay(fitted.occurredAt, context.shop.zone),
    context.catalogue,
  );
  return typeof question === 'string' ? refused(question) : forecastOnce(question);
}

/** A forecast for a question asked before is not drawn again: the same question gives the same. */
const forecastOnce = memoizeByValue(expectedLife, 256).ask;

export interface NextVisit {
  readonly onDay: string | null;
  readonly words: string;
  readonly forecasts: readonly WellForecast[];
}

interface WellForecast {
  readonly well: string;
  readonly life: LifeForecast;
  /** What this shop's own cells of that type and supplier say of it; null where nothing is followed. */
  readonly here: ShopLifeAdvice | null;
}

/** When the watch should come back: before the earliest early end of its cells, as forecast or as they last in this shop. */
export function nextVisit(state: JobState, lots: LotsOfCells, context: JobContext): NextVisit {
  if (state.facts.decision !== null)
    return { onDay: null, words: 'No further visit is planned here.', forecasts: [] };
  const charge = state.calibre?.charge ?? null;
  if (charge !== null) return visitOfCharged(state, charge, context);
  if (state.facts.accumulator !== null || supplyOf(state, context.catalogue).verdict === 'rechargeable')
    return {
      onDay: null,
      words: `This watch charges itself, and how long it runs when full is not known here${state.facts.accumulator === null ? '' : '; a new accumulator is nearly empty at first'}. Give it light, or wear it, every day for the first weeks. Come back if it stops, or if the hand soon steps unevenly again after a full charge.`,
      forecasts: [],
    };
  const today = localDay(context.nowUtc, context.shop.zone);
  const forecasts = state.wells.map((well): WellForecast => {
    const life = fittedLife(state, well, lots, context);
    return { well: well.name, life, here: shopLifeOf(life, lotFitted(well, lots)) };
  });
  const days = state.wells.map((well, index) => dayFor(state, well, forecasts[index], today, context));
  const open = days.find(({ onDay }) => onDay === null);
  if (open || days.length === 0)
    return {
      onDay: null,
      words: open?.words ?? 'The next visit cannot be calculated.',
      forecasts,
    };
  const [soonest] = [...days].sort((a, b) => (a.onDay ?? '').localeCompare(b.onDay ?? ''));
  const onDay = soonest?.onDay ?? today;
  return {
    onDay,
    words: [
      `Come back by ${dayInWords(onDay)}, or sooner if the watch stops. A spent cell left inside may leak.`,
      ...days.flatMap(({ leftIn }) => leftIn ?? []),
    ].join(' '),
    forecasts,
  };
}

/**
 * What an owner is told of a watch that charges itself: how, how long it runs, and when it asks for a bench again. Of one that was
 * found not to hold its charge, and goes out so, nothing of the book's is promised.
 */
function visitOfCharged(state: JobState, charge: Charge, context: JobContext): NextVisit {
  const { facts, calibre } = state;
  const { shop } = context;
  const { accumulator } = facts;
  const reserveDays = reserveWith(charge, accumulator?.payload.kitCode ?? null);
  const renewedOn = accumulator && localDay(accumulator.occurredAt, shop.zone);
  const recheck =
    renewedOn !== null && accumulator?.payload.way === 'old tab transferred'
      ? addMonths(renewedOn, RECHECK_MONTHS)
      : null;
  const judged = judgeAccumulator(state, context);
  if (judged?.verdict === 'renew' || judged?.verdict === 'clean')
    return {
      onDay: null,
      words: `This watch charges itself by ${charge.by === 'light' ? 'light' : 'being worn'}, and how long it runs is not known. ${judged.reasons[0] ?? ''} It was not repaired. Do not rely on it, and please come back.`,
      forecasts: [],
    };
  const emptyStill =
    judged?.verdict === 'charge'
      ? ` The watch is not fully charged yet. ${charge.by === 'light' ? 'Keep it in bright light' : 'Wear it'} every day for the first weeks.`
      : '';
  const due =
    renewedOn !== null && charge.lastsYears !== null
      ? ` A new accumulator is due about ${addMonths(renewedOn, Math.round(charge.lastsYears * 12)).slice(0, 4)}.`
      : '';
  return {
    onDay: recheck,
    words: [
      `This watch charges itself by ${charge.by === 'light' ? `light: ${daylightFor(calibre?.lightTimes ?? [], reserveDays)}` : 'being worn'}. Fully charged, it runs ${figure(reserveDays, 0)} days.${emptyStill}`,
      `${due} Come back if the hand steps unevenly again soon after a full charge.`.trim(),
      ...(recheck === null
        ? []
        : [
            `The old contact tab was kept. Please come back by ${dayInWords(recheck)}, so that we can measure its contact again.`,
          ]),
    ].join(' '),
    forecasts: [],
  };
}

/** A transferred tab is looked at again after so long. Ours, from bench practice. */
const RECHECK_MONTHS = 3;

/** By a window, away from the sun itself, lux. Ours. */
const BY_A_WINDOW_LUX = 5000;

/** How much daylight a week keeps a watch going that is worn under a sleeve; where the book is silent, that it wants some. */
function daylightFor(times: Calibre['lightTimes'], reserveDays: number): string {
  const { hours } = hoursAt(times, 'fullH', BY_A_WINDOW_LUX);
  return hours === null
    ? 'give it daylight every week'
    : `about ${figure(Math.max(0.5, (hours * 7) / reserveDays), 1)} hours a week by a window keep it going, and more time charges it fully. Never put it on a radiator or behind hot glass`;
}

interface WellDay {
  readonly onDay: string | null;
  /** Why there is no day. */
  readonly words: string;
  /** What else the owner is told of it: of a cell that stayed in, and what a date rests on. */
  readonly leftIn?: string;
}

/** By when the cell of one well asks for the next visit: of the one fitted its forecast, of one left in by the life it may have left. */
function dayFor(
  state: JobState,
  well: WellState,
  forecast: Pick<WellForecast, 'life' | 'here'> | undefined,
  today: string,
  { shop, catalogue }: JobContext,
): WellDay {
  const refused = (reason: string): WellDay => ({
    onDay: null,
    words: `The next visit cannot be calculated. ${reason}`.trim(),
  });
  const life = forecast?.life;
  if (well.fitted !== null && life?.verdict === 'forecast') {
    const months = monthsToVisit(life, forecast?.here ?? null);
    if (months < 1)
      return {
        onDay: null,
        words: 'This cell may not last a month. The movement draws too much current and needs a service.',
      };
    const fittedOn = localDay(well.fitted.occurredAt, shop.zone);
    return {
      onDay: addMonths(fittedOn, months),
      words: '',
      // What a date rests on is said where it is not this watch’s own current.
      ...(life.estimated === null ? {} : { leftIn: life.estimated }),
    };
  }
  // By the same judgement as at the bench: of a cell left in, or put back, by the life it may have left.
  const advice = well.fitted === null ? fittedAdviceOf(state, well, catalogue, today) : null;
  if (advice === null) return refused(life?.verdict === 'no forecast' ? (life.reasons[0] ?? '') : '');
  const [reason = ''] = advice.reasons;
  const which = `The cell ${well.putBack === null ? 'left in' : 'put back'}${state.wells.length > 1 ? `${well.putBack === null ? '' : ' in'} ${well.name}` : ''}`;
  return advice.recallOn === null
    ? { onDay: null, words: `${which} should be changed now. ${reason}` }
    : { onDay: advice.recallOn, words: '', leftIn: `${which}: ${reason}` };
}
