import { figure } from '../judgement';
import type { Wrench } from '../tools';

/** A jaw narrower than this share of its notch skids. */
const JAW_LEAST = 0.6;

/** A pin thinner than this share of its hole tears it out. */
const PIN_LEAST = 0.8;

/** Neither jaw nor pin goes in without this play. */
export const MOST = 0.98;

/** One way of standing jaws in notches. */
export interface JawChoice {
  readonly jaws: 2 | 3;
  /** Which notches, counted from 0: the rear jaw's first, then the front pair; or the two across. */
  readonly notches: readonly number[];
  /** Between the centres of the front pair, or of the two jaws. */
  readonly separationMm: number;
  /** From the rear jaw to the line through the front pair; null with two jaws. */
  readonly rearDistanceMm: number | null;
  /** How far the line of two jaws runs past the centre; 0 for three. */
  readonly offCentreMm: number;
  /** Mean angle of the front pair from the rear jaw; of two jaws from each other. */
  readonly spreadDeg: number;
  /** How far the spread is from the rule: 120° for three jaws, 180° for two. */
  readonly fromRuleDeg: number;
  /** What each front jaw stands off the middle of its notch, along the pitch circle. */
  readonly mirrorErrorMm: number;
}

export interface JawQuestion {
  readonly count: number;
  readonly pitchMm: number;
  /** Of a notch, or a hole's diameter. */
  readonly widthMm: number;
  /** Clock positions of uneven notches; empty where they are even. */
  readonly clocks: readonly number[];
  readonly of: 'notches' | 'holes';
  readonly wrenches: readonly Wrench[];
}
const TURN = 2 * Math.PI;
const degrees = (radians: number): number => (radians * 180) / Math.PI;

/**
 * Every way of standing two jaws in notches, each with its spread and how far it runs past the centre. Where the notches
 * are even one of the two stands in the first: the others are the same turned round.
 */
export function twoJawChoices(angles: readonly number[], pitchMm: number, even: boolean): JawChoice[] {
  const choices: JawChoice[] = [];
  for (let a = 0; a < (even ? 1 : angles.length); a += 1) {
    for (let b = a + 1; b < angles.length; b += 1) {
      const apart = ((angles[b] ?? 0) - (angles[a] ?? 0) + TURN) % TURN;
      const between = Math.min(apart, TURN - apart);
      choices.push({
        jaws: 2,
        notches: [a, b],
        separationMm: pitchMm * Math.sin(between / 2),
        rearDistanceMm: null,
        offCentreMm: Math.abs((pitchMm / 2) * Math.cos(between / 2)),
        spreadDeg: degrees(between),
        fromRuleDeg: 180 - degrees(between),
        // Each of the two gives half of what is missing to a straight line.
        mirrorErrorMm: ((Math.PI - between) / 2) * (pitchMm / 2),
      });
    }
  }
  return choices;
}

/**
 * Every way of standing a rear jaw and two front jaws mirrored about its axis; a pair that stands a whole notch off is
 * none. Where the notches are even the rear jaw stands in the first: the others are the same turned round.
 */
export function threeJawChoices(
  angles: readonly number[],
  pitchMm: number,
  widthMm: number,
  even: boolean,
): JawChoice[] {
  const choices: JawChoice[] = [];
  (even ? angles.slice(0, 1) : angles).forEach((rear, at) => {
    const others = angles
      .map((angle, index) => ({ index, from: (angle - rear + TURN) % TURN }))
      .filter(({ index }) => index !== at);
    for (const right of others) {
      if (right.from >= Math.PI) continue;
      for (const left of others) {
        if (left.from <= Math.PI) continue;
        const mirrorErrorMm = (Math.abs(right.from - (TURN - left.from)) / 2) * (pitchMm / 2);
        if (mirrorErrorMm > widthMm) continue;
        const spread = (right.from + (TURN - left.from)) / 2;
        choices.push({
          jaws: 3,
          notches: [at, right.index, left.index],
          separationMm: pitchMm * Math.sin(spread),
          rearDistanceMm: (pitchMm / 2) * (1 - Math.cos(spread)),
          offCentreMm: 0,
          spreadDeg: degrees(spread),
          fromRuleDeg: Math.abs(degrees(spread) - RULE_DEG),
          mirrorErrorMm,
        });
      }
    }
  });
  return choices;
}

/** Two figures closer than this are the same. */
export const ROUNDING = 1e-9;

/** Nearest to the rule first, then the least mirror error, then the lowest notch. */
export function nearer(a: JawChoice, b: JawChoice): number {
  const rule = a.fromRuleDeg - b.fromRuleDeg;
  if (Math.abs(rule) > ROUNDING) return rule;
  const mirror = a.mirrorErrorMm - b.mirrorErrorMm;
  if (Math.abs(mirror) > ROUNDING) return mirror;
  return (a.notches[0] ?? 0) - (b.notches[0] ?? 0);
}

/** A jaw is set no more exactly than this, mm: at its very limit it still fits. */
const TRAVEL_MM = 0.01;

/** Whether jaws can be set so: within their travel, its limits included. Of what is no number: no. */
export function isWithin(valueMm: number, fromMm: number, toMm: number): boolean {
  return valueMm >= fromMm - TRAVEL_MM - ROUNDING && valueMm <= toMm + TRAVEL_MM + ROUNDING;
}

export function reaches(wrench: Wrench, choice: JawChoice): boolean {
  if (wrench.jaws !== choice.jaws) return false;
  const front = isWithin(choice.separationMm, wrench.travelMinMm, wrench.travelMaxMm);
  if (choice.rearDistanceMm === null) return front;
  return (
    front &&
    wrench.rearMinMm !== null &&
    wrench.rearMaxMm !== null &&
    isWithin(choice.rearDistanceMm, wrench.rearMinMm, wrench.rearMaxMm)
  );
}

/** The jaws or pins of a wrench that enter and bite, the widest first. */
export function biting(wrench: Wrench, question: JawQuestion): readonly number[] {
  return ownOf(wrench, question)
    .filter((each) => each >= leastMm(question) - ROUNDING && each <= MOST * question.widthMm + ROUNDING)
    .sort((a, b) => b - a);
}

/** What a wrench has for notches or for holes. */
export function ownOf(wrench: Wrench, { of }: JawQuestion): readonly number[] {
  return of === 'holes' ? wrench.pinDiametersMm : wrench.jawWidthsMm;
}

/** What stands in what, as it is called. */
export function namesOf({ of }: JawQuestion): { readonly jaw: string; readonly notch: string } {
  return of === 'holes' ? { jaw: 'pin', notch: 'hole' } : { jaw: 'jaw', notch: 'notch' };
}

/**
 * Whether three jaws hold the centre between them: with the front pair under 90° from the rear jaw all three push
 * from one half of the circle, and their forces do not add up to a pure turn.
 */
export function holdsCentre(choice: JawChoice): boolean {
  return choice.jaws === 2 || choice.spreadDeg >= 90 - ROUNDING;
}

/** Whether jaws of a width can stand so: within their play in the notch, measured along the pitch circle. */
export function stands(choice: JawChoice, jawMm: number, { widthMm }: JawQuestion): boolean {
  return choice.mirrorErrorMm <= (widthMm - jawMm) / 2 + ROUNDING;
}

/** The narrowest jaw or pin that does not skid or tear, mm. */
export function leastMm({ of, widthMm }: JawQuestion): number {
  return (of === 'holes' ? PIN_LEAST : JAW_LEAST) * widthMm;
}

/** The widest jaw or pin that goes in and stands so, mm. */
export function mostMm(choice: JawChoice, { widthMm }: JawQuestion): number {
  return Math.min(MOST * widthMm, widthMm - 2 * choice.mirrorErrorMm);
}

/** Whether jaws or pins of some width hold the centre so. */
export function canHold(choice: JawChoice, question: JawQuestion): boolean {
  return holdsCentre(choice) && stands(choice, leastMm(question), question);
}

/** Notches as a hand counts them: the first is 1. */
export function notchWords({ notches }: JawChoice): string {
  const [first, second, third] = notches.map((each) => each + 1);
  return third === undefined
    ? `jaws in ${first} and ${second}`
    : `rear jaw in ${first}, front pair in ${second} and ${third}`;
}

export const settingWords = (choice: JawChoice): string =>
  choice.rearDistanceMm === null
    ? `${figure(choice.separationMm)} mm apart`
    : `front ${figure(choice.separationMm)} mm, rear ${figure(choice.rearDistanceMm)} mm`;

/** The front pair stands best at this angle from the rear jaw: each jaw then bears a third. */
const RULE_DEG = 120;
