import { hoursAt } from '../../craft/charging';
import { figure } from '../../craft/judgement';
import { expectedLife, type LifeForecast } from '../../craft/life';
import { type Calibre, reserveWith } from '../../craft/movements';
import type { Lot } from '../../craft/stock';
import { addMonths, dayInWords, localDay } from '../../craft/time';
import type { JobContext, JobState, WellState } from '../../logbook';
import { fittedAdviceOf } from './leftIn';
import { lifeQuestion } from './lifeQuestion';

/** The life forecast of the cell fitted in a well, from its lot's age and the measured or book current. */
export function fittedLife(
  state: JobState,
  well: WellState,
  lots: readonly Pick<Lot, 'id' | 'madeOn' | 'bestBefore'>[],
  context: JobContext,
): LifeForecast {
  const refused = (reason: string): LifeForecast => ({
    verdict: 'no forecast',
    reasons: [reason],
    working: [],
  });
  const fitted = well.fitted;
  if (well.putBack) return refused('The cell that was in the watch went in again, and its age is not known.');
  if (!fitted) {
    const asked = state.progress.find(({ stage }) => stage === 'cell')?.status !== 'not needed';
    return refused(asked ? 'No cell is fitted yet.' : 'The cell was not changed, and its age is not known.');
  }
  if (fitted.payload.ownersOwn) return refused('The owner brought the cell, and its age is not known.');
  const question = lifeQuestion(
    state,
    well,
    fitted.payload.cellCode,
    lots.find((each) => each.id === fitted.payload.lotId) ?? null,
    localDay(fitted.occurredAt, context.shop.zone),
    context.catalogue,
  );
  return typeof question === 'string' ? refused(question) : expectedLife(question);
}

export interface NextVisit {
  readonly onDay: string | null;
  readonly words: string;
  readonly forecasts: readonly { readonly well: string; readonly life: LifeForecast }[];
}

/** When the watch should come back: before the earliest early end of its cells. */
export function nextVisit(
  state: JobState,
  lots: readonly Pick<Lot, 'id' | 'madeOn' | 'bestBefore'>[],
  context: JobContext,
): NextVisit {
  const charge = state.calibre?.charge ?? null;
  if (charge !== null) {
    const reserveDays = reserveWith(charge, state.facts.accumulator?.payload.kitCode ?? null);
    const renewed = state.facts.accumulator;
    const recheck =
      renewed?.payload.way === 'old tab transferred'
        ? addMonths(localDay(renewed.occurredAt, context.shop.zone), RECHECK_MONTHS)
        : null;
    return {
      onDay: recheck,
      words: `This watch charges itself by ${charge.by === 'light' ? `light: ${daylightFor(state.calibre?.lightTimes ?? [], reserveDays)}` : 'being worn'}. Full it runs ${figure(reserveDays, 0)} days. Come back if its low-supply steps return soon after a full charge.${recheck === null ? '' : ` The old tab was transferred: come by on ${dayInWords(recheck)}, and its contact is measured again.`}`,
      forecasts: [],
    };
  }
  if (state.facts.decision !== null)
    return { onDay: null, words: 'No further visit is planned here.', forecasts: [] };
  const today = localDay(context.nowUtc, context.shop.zone);
  const forecasts = state.wells.map((well) => ({
    well: well.name,
    life: fittedLife(state, well, lots, context),
  }));
  const days = state.wells.map((well, index) => dayFor(state, well, forecasts[index]?.life, today, context));
  const open = days.find(({ onDay }) => onDay === null);
  if (open || days.length === 0)
    return {
      onDay: null,
      words: open?.words ?? 'The next visit cannot be worked out.',
      forecasts,
    };
  const [soonest] = [...days].sort((a, b) => (a.onDay ?? '').localeCompare(b.onDay ?? ''));
  const onDay = soonest?.onDay ?? today;
  return {
    onDay,
    words: [
      `Come back by ${dayInWords(onDay)}, or sooner if it stops: a spent cell left inside may leak.`,
      ...days.flatMap(({ leftIn }) => leftIn ?? []),
    ].join(' '),
    forecasts,
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
    : `about ${figure(Math.max(0.5, (hours * 7) / reserveDays), 1)} hours a week by a window keep it going, more to fill it; never on a radiator or behind hot glass`;
}

interface WellDay {
  readonly onDay: string | null;
  /** Why there is no day. */
  readonly words: string;
  /** Of a cell that stayed in while another was changed. */
  readonly leftIn?: string;
}

/** By when the cell of one well asks for the next visit: of the one fitted its forecast, of one left in what it may have left. */
function dayFor(
  state: JobState,
  well: WellState,
  life: LifeForecast | undefined,
  today: string,
  { shop, catalogue }: JobContext,
): WellDay {
  const refused = (reason: string): WellDay => ({
    onDay: null,
    words: `The next visit cannot be worked out. ${reason}`.trim(),
  });
  if (well.fitted !== null && life?.verdict === 'forecast') {
    if (life.nextVisitMonths < 1)
      return {
        onDay: null,
        words: 'This cell may not last a month: the movement draws too much and wants a service.',
      };
    const fittedOn = localDay(well.fitted.occurredAt, shop.zone);
    return { onDay: addMonths(fittedOn, life.nextVisitMonths), words: '' };
  }
  const changed = state.wells.some(({ fitted }) => fitted !== null);
  const advice = changed && well.fitted === null ? fittedAdviceOf(state, well, catalogue, today) : null;
  if (advice === null) return refused(life?.verdict === 'no forecast' ? (life.reasons[0] ?? '') : '');
  const [reason = ''] = advice.reasons;
  return advice.recallOn === null
    ? { onDay: null, words: `The cell left in ${well.name} wants changing now. ${reason}` }
    : { onDay: advice.recallOn, words: '', leftIn: `The cell left in ${well.name}: ${reason}` };
}
