import {
  chargingPlan,
  GENERAL_FACTOR,
  GENERAL_LIGHT_TIMES,
  GENERAL_RESERVE_DAYS,
  type ChargeState,
  type ChargingPlan,
  type LightHours,
  lightThere,
  type LightThere,
  type StepsSeen,
} from '../../craft/charging';
import { type Calibre, reserveWith } from '../../craft/movements';
import { type Policy, WEEKDAYS } from '../../craft/policy';
import type { LightPlaceTool } from '../../craft/tools';
import type { JobContext, JobState } from '../../logbook';
import type { Lit } from './litWords';

/** The book's charging times are good to this factor where it says nothing better. */
const USUAL_FACTOR = 1.5;

/** When a place gives light, day by day. */
function hoursOf(
  { lit, litFrom, litTo, litAgainFrom, litAgainTo }: LightPlaceTool,
  { hours }: Pick<Policy, 'hours'>,
): LightHours {
  if (lit === 'while the shop is open') return hours;
  const every =
    lit === 'day and night'
      ? { from: '00:00', to: '00:00' }
      : [
          { from: litFrom ?? '00:00', to: litTo ?? '00:00' },
          ...(litAgainFrom !== null && litAgainTo !== null ? [{ from: litAgainFrom, to: litAgainTo }] : []),
        ];
  return Object.fromEntries(WEEKDAYS.map((day) => [day, every])) as LightHours;
}

/** Under which light a watch is to lie, how, and what it shows of its charge. */
export interface ChargeAsked {
  readonly placeId: string;
  readonly distanceMm: number | null;
  readonly roomC: number;
  readonly shows: ChargeState | null;
  readonly percent: number | null;
  readonly fromUtc: string;
  readonly seen: readonly StepsSeen[];
}

/** The light on a watch, and when it will be charged there. */
export interface ChargeHere {
  readonly place: LightPlaceTool;
  readonly there: LightThere;
  /** Null where the light is refused or too hot, or what it shows is not said. */
  readonly plan: ChargingPlan | null;
}

/** When a movement will be charged under one of this shop's lights; null where the shop has no such place. */
export function chargeHere(
  { lightTimes, dayIs, goodToFactor, charge }: Calibre,
  asked: ChargeAsked & { readonly kitCode?: string | null },
  { catalogue, policy, shop }: Pick<JobContext, 'catalogue' | 'policy' | 'shop'>,
): ChargeHere | null {
  const place = catalogue.lightPlaces.find(({ id }) => id === asked.placeId);
  if (!place) return null;
  const there = lightThere(place, asked.distanceMm, asked.roomC);
  const start = asked.percent ?? asked.shows;
  // What it would come to where it must not lie is nobody's plan.
  if (there.lux === null || there.verdict === 'too hot' || start === null)
    return { place, there, plan: null };
  return {
    place,
    there,
    plan: chargingPlan({
      book: {
        times: lightTimes,
        dayIs,
        reserveDays: charge ? reserveWith(charge, asked.kitCode ?? null) : 0,
      },
      factor95: goodToFactor ?? USUAL_FACTOR,
      lux: there.lux,
      hours: hoursOf(place, policy),
      zone: shop.zone,
      fromUtc: asked.fromUtc,
      start,
      handBackShare: policy.handBackChargePercent / 100,
      seen: asked.seen,
    }),
  };
}

/** When a flat watch could be handed back from one light place. */
export interface PlaceOffer {
  readonly place: LightPlaceTool;
  readonly verdict: ChargingPlan['verdict'];
  /** Likely, and at the latest in 95 of 100; null: never, or not known. */
  readonly readyUtc: string | null;
  readonly readyLatestUtc: string | null;
}

/** A room as it usually is: for the light alone, as its warmth is asked for before a watch is laid down. */
const USUAL_ROOM_C = 20;

/** The light places of this shop for a movement that is flat, where each was measured; the soonest first. */
export function placesFor(
  calibre: Calibre,
  context: Pick<JobContext, 'catalogue' | 'policy' | 'shop' | 'nowUtc'>,
): readonly PlaceOffer[] {
  return context.catalogue.lightPlaces
    .map((place): PlaceOffer => {
      const plan = chargeHere(
        calibre,
        {
          placeId: place.id,
          distanceMm: null,
          roomC: USUAL_ROOM_C,
          shows: 'flat',
          percent: null,
          fromUtc: context.nowUtc,
          seen: [],
        },
        context,
      )?.plan;
      const ready = plan?.marks.find(({ mark }) => mark === 'hand back');
      return {
        place,
        verdict: plan?.verdict ?? 'not known',
        readyUtc: ready?.likelyUtc ?? null,
        readyLatestUtc: ready?.latestUtc ?? null,
      };
    })
    .sort((a, b) => (a.readyUtc ?? '9').localeCompare(b.readyUtc ?? '9'));
}

/**
 * By when a flat watch is charged to what it is handed back with, under the light of this shop that does it soonest, at the
 * late end of its plan; null where no light here does it, or it is charged by its rotor. A movement nobody knows, or of which
 * the book has no times, goes by general figures. UTC.
 */
export function chargedHereBy(
  calibre: Calibre | null,
  context: Pick<JobContext, 'catalogue' | 'policy' | 'shop' | 'nowUtc'>,
): string | null {
  if (calibre?.charge?.by === 'rotor') return null;
  const own = calibre !== null && calibre.lightTimes.length > 0 ? placesFor(calibre, context) : [];
  const known = own.flatMap(({ readyLatestUtc }) => readyLatestUtc ?? []);
  const ready =
    known.length > 0
      ? known
      : context.catalogue.lightPlaces.flatMap((place) => {
          const { lux, verdict } = lightThere(place, null, USUAL_ROOM_C);
          if (lux === null || verdict === 'too hot') return [];
          const { marks } = chargingPlan({
            book: { times: GENERAL_LIGHT_TIMES, dayIs: null, reserveDays: GENERAL_RESERVE_DAYS },
            factor95: GENERAL_FACTOR,
            lux,
            hours: hoursOf(place, context.policy),
            zone: context.shop.zone,
            fromUtc: context.nowUtc,
            start: 'flat',
            handBackShare: context.policy.handBackChargePercent / 100,
            seen: [],
          });
          return marks.find(({ mark }) => mark === 'hand back')?.latestUtc ?? [];
        });
  return [...ready].sort()[0] ?? null;
}

/** How the watch of a job charges where it lies now; null where it lies under no light, or the movement is not identified. */
export function chargeUnderLight(
  { facts, calibre }: Pick<JobState, 'facts' | 'calibre'>,
  context: Pick<JobContext, 'catalogue' | 'policy' | 'shop'>,
): ChargeHere | null {
  const lies = facts.underLight;
  if (lies === null || calibre === null) return null;
  return chargeHere(
    calibre,
    {
      ...lies.put.payload,
      kitCode: facts.accumulator?.payload.kitCode ?? null,
      fromUtc: lies.put.occurredAt,
      seen: lies.seen.map(({ occurredAt, payload }) => ({
        atUtc: occurredAt,
        stepsNormally: payload.stepsNormally,
      })),
    },
    context,
  );
}

/** The watch of a job under its light; null where it lies under none. */
export function litOf(
  state: Pick<JobState, 'facts' | 'calibre'>,
  context: Pick<JobContext, 'catalogue' | 'policy' | 'shop'>,
): Lit | null {
  const lies = state.facts.underLight;
  if (lies === null) return null;
  const here = chargeUnderLight(state, context);
  const ready = here?.plan?.marks.find(({ mark }) => mark === 'hand back');
  const plan = here?.plan ?? null;
  return {
    entryId: lies.put.id,
    placeId: lies.put.payload.placeId,
    placeName: lies.put.payload.placeName,
    placeHolds: here?.place.watches ?? null,
    sinceUtc: lies.put.occurredAt,
    stepsNormally: lies.seen.at(-1)?.payload.stepsNormally ?? null,
    readyUtc: ready?.likelyUtc ?? null,
    readyLatestUtc: ready?.latestUtc ?? null,
    lookAgainUtc: plan?.lookAgainUtc ?? [],
    amiss:
      state.calibre === null
        ? 'the movement is not identified'
        : here === null
          ? 'that light place was removed from the tools'
          : here.there.verdict === 'too hot'
            ? 'too hot there'
            : (plan?.contradiction ?? (plan === null || plan.verdict === 'charges' ? null : plan.verdict)),
  };
}
