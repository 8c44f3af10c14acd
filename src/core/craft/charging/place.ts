import { figure, type Judged, invalidFigures } from '../judgement';
import { MOST_LUX } from './light';

/** A light place of the shop, as it was measured. */
export interface LightPlace {
  /** Illuminance where it was measured, lux, and how far from the lamp, mm; null: daylight, which no distance changes. */
  readonly lux: number;
  readonly measuredAtMm: number | null;
  /** How much warmer than the room a case was there after twenty minutes, K; null: not measured. */
  readonly caseRiseK: number | null;
}

/** No case is warmed beyond this: heat harms accumulator, oil and seals. Source: bench practice. */
export const MOST_CASE_C = 45;
/** A lamp is not set nearer or farther than this, mm. */
const DISTANCE = { from: 10, to: 3000 };
/** No light warms a case by more, K. */
const MOST_RISE_K = 80;

/** A light is as it was measured within this share of it: what is left is the meter's, and the day's. Ours. */
const SAME_LIGHT = 0.2;

/**
 * What a light place reads now against what is entered for it: the change in percent, and whether what is planned under it is
 * still true. Lamps age and get dusty; daylight is another every hour, so there a change says little.
 */
export function lightNow(
  { lux, measuredAtMm }: Pick<LightPlace, 'lux' | 'measuredAtMm'>,
  nowLux: number,
): Judged<'as entered' | 'changed' | 'not known'> & { readonly changePercent: number | null } {
  if (!(nowLux >= 0 && nowLux <= MOST_LUX && lux > 0 && lux <= MOST_LUX))
    return {
      verdict: 'not known',
      changePercent: null,
      reasons: [`Light: 0 to ${figure(MOST_LUX, 0)} lx.`],
      working: [],
    };
  const change = nowLux / lux - 1;
  const base = {
    changePercent: change * 100,
    working: [
      {
        what: 'change of the light',
        rule: 'measured now ÷ entered − 1',
        figures: `${figure(nowLux, 0)} ÷ ${figure(lux, 0)} − 1 = ${figure(change * 100, 0)} %`,
      },
    ],
  };
  if (Math.abs(change) <= SAME_LIGHT) return { ...base, verdict: 'as entered', reasons: [] };
  return {
    ...base,
    verdict: 'changed',
    reasons: [
      `${figure(nowLux, 0)} lx now, but ${figure(lux, 0)} lx are entered.`,
      measuredAtMm === null
        ? 'Daylight changes with hour and season. Enter the value of a usual day.'
        : 'Forecasts use the value entered. Measure at the same distance and enter the new value.',
    ],
  };
}

export type LightThere = Judged<'stands' | 'too hot' | 'heat not known' | 'refused'> & {
  readonly lux: number | null;
  /** What the case comes to, °C; null where its rise was not measured. */
  readonly caseC: number | null;
  /** The nearest that keeps the case cool enough, mm, rounded up; null where nobody knows or no distance does. */
  readonly nearestMm: number | null;
};

/**
 * The light on a watch so far from a lamp, and what it warms the case to: both go with the square of the distance, from what
 * was measured. A distance is rounded up, never down. `distanceMm` null: where it was measured. `roomC`: the room as it was
 * read. Source: inverse square law.
 *
 * @example
 * lightThere({ lux: 8000, measuredAtMm: 100, caseRiseK: 8 }, 200, 20) // { lux: 2000, caseC: 22 }
 */
export function lightThere(place: LightPlace, distanceMm: number | null, roomC: number): LightThere {
  const none = { lux: null, caseC: null, nearestMm: null, working: [] };
  const refused = (reason: string): LightThere => ({ ...none, verdict: 'refused', reasons: [reason] });
  const { lux, measuredAtMm, caseRiseK } = place;
  if (!(lux > 0 && lux <= MOST_LUX)) return refused(`Light: over 0 to ${MOST_LUX.toLocaleString('en')} lx.`);
  if (!(roomC >= -10 && roomC <= 50)) return refused('The room: −10 to 50 °C.');
  const at = distanceMm ?? measuredAtMm;
  if (measuredAtMm !== null && !(at !== null && at >= DISTANCE.from && at <= DISTANCE.to))
    return refused(`Distance: ${DISTANCE.from} to ${DISTANCE.to} mm.`);
  const share = measuredAtMm === null || at === null ? 1 : (measuredAtMm / at) ** 2;
  const luxThere = lux * share;
  if (luxThere > MOST_LUX)
    return refused(
      `This close it would be ${figure(luxThere, 0)} lx, brighter than the sun. Measure the light there.`,
    );
  const wrong = invalidFigures([
    {
      path: 'measuredAtMm',
      what: 'Distance of the measurement',
      value: measuredAtMm,
      unit: 'mm',
      from: DISTANCE.from,
      to: DISTANCE.to,
    },
    {
      path: 'caseRiseK',
      what: 'Case warming',
      value: caseRiseK,
      unit: 'K',
      from: 0,
      to: MOST_RISE_K,
    },
  ]);
  if (wrong.length > 0) return refused(wrong.map(({ reason }) => reason).join(' '));
  const caseC = caseRiseK === null ? null : roomC + caseRiseK * share;
  const nearestMm =
    caseRiseK === null || measuredAtMm === null || roomC >= MOST_CASE_C
      ? null
      : Math.max(
          DISTANCE.from,
          Math.ceil(measuredAtMm * Math.sqrt(Math.max(0, caseRiseK) / (MOST_CASE_C - roomC))),
        );
  const working = [
    {
      what: 'light on the watch',
      rule: 'lux × (distance measured ÷ distance)²; the case’s rise over the room likewise',
      figures: `${figure(lux, 0)} lx${measuredAtMm === null ? '' : ` at ${measuredAtMm} mm → ${figure(luxThere, 0)} lx at ${at} mm`}${caseC === null ? '' : `; case ${figure(caseC, 1)} °C in a room of ${figure(roomC, 1)} °C`}`,
      source: 'inverse square law',
    },
  ];
  const base = { lux: luxThere, caseC, nearestMm, working };
  if (caseC === null)
    return {
      ...base,
      verdict: 'heat not known',
      reasons: ['The case temperature here is not measured. Read it after 20 minutes.'],
    };
  if (caseC > MOST_CASE_C)
    return {
      ...base,
      verdict: 'too hot',
      reasons: [
        `The case would reach ${figure(caseC, 0)} °C, above the limit of ${MOST_CASE_C} °C. Heat harms accumulator, oil and seals.`,
        nearestMm === null || nearestMm > DISTANCE.to
          ? 'No distance is cool enough.'
          : `At ${nearestMm} mm or more it stays cool enough.`,
      ],
    };
  return { ...base, verdict: 'stands', reasons: [] };
}
