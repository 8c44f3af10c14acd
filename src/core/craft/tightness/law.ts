import { invalidLengths } from '../judgement';
/** One bar in pascal. */
const PA_PER_BAR = 1e5;
/** Specific gas constant of dry air, J/(kg·K). */
const AIR_J_PER_KG_K = 287.05;
const KELVIN_AT_0_C = 273.15;
const KG_PER_UG = 1e-9;
const SECONDS_A_MINUTE = 60;
const M3_PER_CM3 = 1e-6;

/** Air may pass at this, µg/min, at 2 bar above outside air, into a watch called water resistant. Source: ISO 22810. */
export const LIMIT_UG_PER_MIN = 50;
/** The overpressure the limit is told at, bar. */
export const LIMIT_AT_BAR = 2;
/** The air outside, bar absolute: what a watch that was closed at the bench holds. */
export const AMBIENT_BAR = 1;
export const ROOM_C = 23;

/** A case as the law of its leak sees it. */
export interface LeakCase {
  /** The free volume in the case, cm³. */
  readonly volumeCm3: number;
  readonly temperatureC: number;
}

/** What a flow of air in µg/min is for each unit of a leak constant, 1/(bar·s), between two pressures, bar absolute. */
function flowPerConstant(
  { volumeCm3, temperatureC }: LeakCase,
  outsideBar: number,
  insideBar: number,
): number {
  const kgPerBarS = (volumeCm3 * M3_PER_CM3 * PA_PER_BAR) / (AIR_J_PER_KG_K * (temperatureC + KELVIN_AT_0_C));
  return (kgPerBarS * (outsideBar ** 2 - insideBar ** 2) * SECONDS_A_MINUTE) / KG_PER_UG;
}

/**
 * The air a leak lets in, µg/min, at `overBar` above outside air; under vacuum what it lets out, negative. Viscous
 * flow: V·10⁵·k·(p_o² − p_i²)/(R·T). Source: laminar flow of a gas through a narrow way.
 *
 * @example
 * massFlow(4.167e-4, { volumeCm3: 1.5, temperatureC: 23 }, 2) // 353
 */
export function massFlow(constantPerBarS: number, of: LeakCase, overBar: number): number {
  return constantPerBarS * flowPerConstant(of, AMBIENT_BAR + overBar, AMBIENT_BAR);
}

/**
 * The leak constant, 1/(bar·s), at which a case lets through what the limit allows. Source: ISO 22810.
 *
 * @example
 * 1 / (4 * limitConstant({ volumeCm3: 1.5, temperatureC: 23 })) // 4235
 */
export function limitConstant(of: LeakCase): number {
  return LIMIT_UG_PER_MIN / flowPerConstant(of, AMBIENT_BAR + LIMIT_AT_BAR, AMBIENT_BAR);
}

/**
 * The pressure inside after `seconds` under `outsideBar`, both absolute: r = (p_o − p_i)/(p_o + p_i) falls as
 * exp(−2·k·p_o·t). Source: solution of dp_i/dt = k·(p_o² − p_i²).
 *
 * @example
 * (3 - insideAfter(1, 3, 4.167e-4, 300)) / 2 // 0.573
 */
export function insideAfter(
  insideBar: number,
  outsideBar: number,
  constantPerBarS: number,
  seconds: number,
): number {
  // Into a vacuum nothing comes back.
  if (outsideBar <= 0) return insideBar / (1 + constantPerBarS * insideBar * seconds);
  const ratio =
    ((outsideBar - insideBar) / (outsideBar + insideBar)) *
    Math.exp(-2 * constantPerBarS * outsideBar * seconds);
  return (outsideBar * (1 - ratio)) / (1 + ratio);
}

/** A free volume, cm³, with the factor that 95 of 100 lie within, either way. */
export interface FreeVolume {
  readonly cm3: number;
  readonly factor: number;
  readonly how: 'measured' | 'from the case’s size' | 'guessed';
}

/** A case that nobody measured: of usual size, and hardly known. */
const ANY_CASE: FreeVolume = { cm3: 1.3, factor: 2.2, how: 'guessed' };
/** The share of a case that is air. Source: bench practice. */
const FREE_SHARE = 0.2;
/** What is taken from a case’s size is good to this factor. */
export const GUESS_FACTOR = 1.5;
const MM3_PER_CM3 = 1000;

/** A case holds at least and at most such a share of its outer size as air. */
const LEAST_SHARE = 0.03;
const MOST_SHARE = 0.7;
/** No case holds more air, cm³. */
const MOST_CM3 = 50;

/** Why a free volume cannot be that of a case of this size; null where it can, or nothing is known of the size. cm³, mm. */
export function volumeContradiction(
  freeCm3: number | null,
  diameterMm: number | null,
  thicknessMm: number | null,
): string | null {
  if (freeCm3 === null || diameterMm === null || thicknessMm === null) return null;
  const outerCm3 = ((Math.PI / 4) * diameterMm ** 2 * thicknessMm) / MM3_PER_CM3;
  const lengths = invalidLengths([
    ['diameterMm', 'The case across', diameterMm],
    ['thicknessMm', 'The case, its thickness', thicknessMm],
  ])[0];
  if (lengths) return lengths.reason;
  if (!(freeCm3 > 0 && freeCm3 < MOST_CM3)) return `Free volume: over 0, ${MOST_CM3} cm³ at most.`;
  return freeCm3 < LEAST_SHARE * outerCm3 || freeCm3 > MOST_SHARE * outerCm3
    ? `Free volume: ${freeCm3} cm³ in a case of ${outerCm3.toFixed(1)} cm³ outside cannot be; between ${(LEAST_SHARE * outerCm3).toFixed(1)} and ${(MOST_SHARE * outerCm3).toFixed(1)}.`
    : null;
}

/**
 * The free volume of a case: as measured, within what it was measured to; else a fifth of π/4·D²·thickness, good to a
 * factor of 1.5; else that of any case, hardly known. mm, cm³, percent. Source: bench practice.
 *
 * @example
 * freeVolume({ measuredCm3: null, withinPercent: null, diameterMm: 38, thicknessMm: 9 }).cm3 // 2.04
 */
export function freeVolume({
  measuredCm3,
  withinPercent,
  diameterMm,
  thicknessMm,
}: {
  readonly measuredCm3: number | null;
  readonly withinPercent: number | null;
  readonly diameterMm: number | null;
  readonly thicknessMm: number | null;
}): FreeVolume {
  // Looked at as a measure: what is none, or no case has, was not measured.
  if (measuredCm3 !== null && measuredCm3 > 0 && measuredCm3 < MOST_CM3)
    return {
      cm3: measuredCm3,
      factor:
        1 + (withinPercent !== null && withinPercent >= 0 && withinPercent <= 100 ? withinPercent : 10) / 100,
      how: 'measured',
    };
  if (
    diameterMm === null ||
    thicknessMm === null ||
    !(diameterMm > 0 && diameterMm < 150 && thicknessMm > 0 && thicknessMm < 150)
  )
    return ANY_CASE;
  return {
    cm3: (FREE_SHARE * (Math.PI / 4) * diameterMm ** 2 * thicknessMm) / MM3_PER_CM3,
    factor: GUESS_FACTOR,
    how: 'from the case’s size',
  };
}
