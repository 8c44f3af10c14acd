import { figure, type Judged, type WorkingLine } from '../judgement';
import type { Wrench } from '../tools';
import { notchAngles } from '../cases';
/** A jaw narrower than this share of its notch skids. */
const JAW_LEAST = 0.6;
/** A pin thinner than this share of its hole tears it out. */
const PIN_LEAST = 0.8;
/** Neither jaw nor pin goes in without this play. */
const MOST = 0.98;
/** The front pair stands best at this angle from the rear jaw: each jaw then bears a third. */
const RULE_DEG = 120;
const SOURCE = 'geometry of the pitch circle; bench practice for bite and play';

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

export interface JawAlternative {
  readonly words: string;
  /** Why it is worse than what was chosen. */
  readonly why: string;
}

interface Found {
  readonly wrench: Wrench;
  /** Width of the jaw, or diameter of the pin. */
  readonly jawMm: number;
  /** Its share of the notch. */
  readonly bite: number;
  readonly choice: JawChoice;
}

export type JawSetting = Judged<'set' | 'tips' | 'nothing fits'> & {
  readonly found: Found | null;
  readonly others: readonly JawAlternative[];
  /** Each notch's angle, radians clockwise from 12 o'clock seen from behind. */
  readonly anglesRad: readonly number[];
  /** What a wrench would have to reach and bite, where none does. */
  readonly wanted: string | null;
};

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
function twoJawChoices(angles: readonly number[], pitchMm: number, even: boolean): JawChoice[] {
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
function threeJawChoices(
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
const ROUNDING = 1e-9;

/** Nearest to the rule first, then the least mirror error, then the lowest notch. */
function nearer(a: JawChoice, b: JawChoice): number {
  const rule = a.fromRuleDeg - b.fromRuleDeg;
  if (Math.abs(rule) > ROUNDING) return rule;
  const mirror = a.mirrorErrorMm - b.mirrorErrorMm;
  if (Math.abs(mirror) > ROUNDING) return mirror;
  return (a.notches[0] ?? 0) - (b.notches[0] ?? 0);
}

function reaches(wrench: Wrench, choice: JawChoice): boolean {
  if (wrench.jaws !== choice.jaws) return false;
  const front = choice.separationMm >= wrench.travelMinMm && choice.separationMm <= wrench.travelMaxMm;
  if (choice.rearDistanceMm === null) return front;
  return (
    front &&
    wrench.rearMinMm !== null &&
    wrench.rearMaxMm !== null &&
    choice.rearDistanceMm >= wrench.rearMinMm &&
    choice.rearDistanceMm <= wrench.rearMaxMm
  );
}

/** The jaws or pins of a wrench that enter and bite, the widest first. */
function biting(wrench: Wrench, { widthMm, of }: JawQuestion): readonly number[] {
  const [own, least] = of === 'holes' ? [wrench.pinDiametersMm, PIN_LEAST] : [wrench.jawWidthsMm, JAW_LEAST];
  return own
    .filter((each) => each >= least * widthMm - ROUNDING && each <= MOST * widthMm + ROUNDING)
    .sort((a, b) => b - a);
}

/**
 * Whether three jaws hold the centre between them: with the front pair under 90° from the rear jaw all three push
 * from one half of the circle, and their forces do not add up to a pure turn.
 */
function holdsCentre(choice: JawChoice): boolean {
  return choice.jaws === 2 || choice.spreadDeg >= 90 - ROUNDING;
}

/** Whether the jaws can stand so: within the play of jaw in notch, measured along the pitch circle. */
function stands(choice: JawChoice, playMm: number): boolean {
  return choice.mirrorErrorMm <= playMm + ROUNDING;
}

/** Notches as a hand counts them: the first is 1. */
const notchWords = (choice: JawChoice): string =>
  choice.jaws === 3
    ? `rear jaw in ${(choice.notches[0] ?? 0) + 1}, front pair in ${(choice.notches[1] ?? 0) + 1} and ${(choice.notches[2] ?? 0) + 1}`
    : `jaws in ${(choice.notches[0] ?? 0) + 1} and ${(choice.notches[1] ?? 0) + 1}`;

const settingWords = (choice: JawChoice): string =>
  choice.rearDistanceMm === null
    ? `${figure(choice.separationMm)} mm apart`
    : `front ${figure(choice.separationMm)} mm, rear ${figure(choice.rearDistanceMm)} mm`;

/**
 * How a wrench of this shop is set for a back with notches or round holes: which notches, how far apart the jaws, how
 * far the rear jaw, and why the other ways are worse. Three jaws, a rear one on the handle's axis and two mirrored
 * front jaws, go before two, because they cannot tip; the front pair as near 120° from the rear jaw as the notches
 * allow. Two jaws want opposite notches: off centre they tip and slip. Of several wrenches that reach and bite, the one
 * with the smallest travel. Lengths in mm between jaw centres; a jaw is 60–98 % of its notch, a pin 80–98 % of its hole;
 * uneven notches may be off by half the play. `count` ≥ 2 and measures that do not contradict each other are assumed
 * (`contradictions`). Source: geometry of the pitch circle; bench practice.
 */
export function jawSetting(question: JawQuestion): JawSetting {
  const { count, pitchMm, widthMm, clocks, of, wrenches } = question;
  const anglesRad = notchAngles(count, clocks);
  const even = clocks.length === 0;
  const threes = threeJawChoices(anglesRad, pitchMm, widthMm, even).sort(nearer);
  const twos = twoJawChoices(anglesRad, pitchMm, even).sort(nearer);
  const least = of === 'holes' ? PIN_LEAST : JAW_LEAST;
  const jaw = of === 'holes' ? 'pin' : 'jaw';
  const notch = of === 'holes' ? 'hole' : 'notch';

  const bites = new Map(wrenches.map((wrench) => [wrench.id, biting(wrench, question)]));
  const bySize = [...wrenches].sort((a, b) => a.travelMaxMm - b.travelMaxMm);
  const take = (choices: readonly JawChoice[], evenIfOff: boolean): Found | null => {
    for (const choice of choices) {
      if (!holdsCentre(choice)) continue;
      for (const wrench of bySize) {
        if (!reaches(wrench, choice)) continue;
        // A narrower jaw has more play: where the notches are uneven the widest that still stands.
        const jawMm = (bites.get(wrench.id) ?? []).find(
          (each) => evenIfOff || stands(choice, (widthMm - each) / 2),
        );
        if (jawMm !== undefined) return { wrench, jawMm, bite: jawMm / widthMm, choice };
      }
    }
    return null;
  };
  const centred = take(threes, false) ?? take(twos, false);
  // Off centre only where nothing holds the centre, and then only the pair nearest to it.
  const found = centred ?? take(twos.slice(0, 1), true);

  const bestThree = threes.find(holdsCentre);
  const aim = found?.choice ?? bestThree ?? twos[0];
  const wantedJaw = `${jaw}s ${figure(least * widthMm)} to ${figure(MOST * widthMm)} mm wide`;
  const wanted =
    found || !aim
      ? null
      : aim.rearDistanceMm === null
        ? `a two-jaw wrench that opens to ${figure(aim.separationMm)} mm, ${wantedJaw}`
        : `a three-jaw wrench that reaches ${figure(aim.separationMm)} mm in front and ${figure(aim.rearDistanceMm)} mm to the rear jaw, ${wantedJaw}`;

  return {
    verdict: centred ? 'set' : found ? 'tips' : 'nothing fits',
    found,
    anglesRad,
    wanted,
    others: alternatives({ question, found, threes, twos, bySize, bites }),
    reasons: found
      ? [
          `${found.choice.jaws === 3 ? 'Rear jaw in' : 'Jaws in'} ${notchWords(found.choice).replace(/^(rear jaw|jaws) in /, '')}, counted clockwise from behind.`,
          `The ${jaw} of ${figure(found.jawMm)} mm fills ${figure(found.bite * 100, 0)} % of the ${notch}.`,
          ...(centred
            ? []
            : [
                `The jaws run ${figure(found.choice.offCentreMm)} mm past the centre: the wrench tips and slips. A friction ball first; else only with weight on it.`,
              ]),
        ]
      : [`No wrench of this shop reaches and bites. Wanted: ${wanted ?? 'another way'}.`],
    working: working(question, found?.choice ?? aim ?? null, found),
  };
}

function alternatives(given: {
  readonly question: JawQuestion;
  readonly found: Found | null;
  readonly threes: readonly JawChoice[];
  readonly twos: readonly JawChoice[];
  readonly bySize: readonly Wrench[];
  readonly bites: ReadonlyMap<string, readonly number[]>;
}): JawAlternative[] {
  const { question, found, threes, twos, bySize, bites } = given;
  const out: JawAlternative[] = [];
  const chosen = found?.choice ?? null;
  const playMm = found ? (question.widthMm - found.jawMm) / 2 : (question.widthMm * (1 - JAW_LEAST)) / 2;
  const seen = new Set<string>();
  for (const choice of [...threes, ...twos.slice(0, 1)]) {
    const key = `${choice.jaws} ${choice.spreadDeg.toFixed(3)} ${choice.mirrorErrorMm.toFixed(3)}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (
      chosen &&
      choice.jaws === chosen.jaws &&
      Math.abs(choice.spreadDeg - chosen.spreadDeg) < 1e-6 &&
      Math.abs(choice.mirrorErrorMm - chosen.mirrorErrorMm) < 1e-6
    )
      continue;
    const words = `${notchWords(choice)}: ${settingWords(choice)}`;
    if (!holdsCentre(choice))
      out.push({
        words,
        why: `All three jaws push from one half of the circle, at ${figure(choice.spreadDeg, 0)}°: it tips.`,
      });
    else if (!stands(choice, playMm))
      out.push({
        words,
        why:
          choice.jaws === 2
            ? `${figure(choice.offCentreMm)} mm off centre: tips and slips.`
            : `Each front jaw would stand ${figure(choice.mirrorErrorMm)} mm off its ${question.of === 'holes' ? 'hole' : 'notch'}, more than the play of ${figure(playMm)} mm.`,
      });
    else if (!bySize.some((wrench) => (bites.get(wrench.id) ?? []).length > 0 && reaches(wrench, choice)))
      out.push({ words, why: 'No wrench that bites reaches it.' });
    else if (choice.jaws === 2) out.push({ words, why: 'Two jaws can tip where three cannot.' });
    else
      out.push({
        words,
        why: `${figure(choice.spreadDeg, 0)}° from the rear jaw, farther from 120° than ${figure(chosen?.spreadDeg ?? 0, 0)}°.`,
      });
  }
  const MOST_TOLD = 4;
  const told = out.slice(0, MOST_TOLD);
  for (const wrench of bySize) {
    if (wrench === found?.wrench) continue;
    const bitesHere = (bites.get(wrench.id) ?? []).length > 0;
    const target =
      chosen?.jaws === wrench.jaws ? chosen : wrench.jaws === 3 ? threes.find(holdsCentre) : twos[0];
    const why = !bitesHere
      ? biteWhy(wrench, question)
      : !target || !reaches(wrench, target)
        ? reachWhy(wrench, target ?? null)
        : chosen && wrench.jaws !== chosen.jaws
          ? 'It reaches with two jaws, which can tip.'
          : 'It reaches too, but its travel is longer: less control.';
    told.push({ words: wrench.name, why });
  }
  return told;
}

function biteWhy(wrench: Wrench, { widthMm, of }: JawQuestion): string {
  const own = of === 'holes' ? wrench.pinDiametersMm : wrench.jawWidthsMm;
  const [one, notch, least] = of === 'holes' ? ['pin', 'hole', PIN_LEAST] : ['jaw', 'notch', JAW_LEAST];
  if (own.length === 0) return `It has no ${one}s.`;
  const nearest = own.reduce((best, each) =>
    Math.abs(each / widthMm - 0.85) < Math.abs(best / widthMm - 0.85) ? each : best,
  );
  return nearest > MOST * widthMm
    ? `Its ${one} of ${figure(nearest)} mm does not enter a ${notch} of ${figure(widthMm)} mm.`
    : `Its ${one} of ${figure(nearest)} mm fills ${figure((nearest / widthMm) * 100, 0)} % of the ${notch}; ${figure(least * 100, 0)} % at least.`;
}

function reachWhy(wrench: Wrench, target: JawChoice | null): string {
  if (target === null) return 'There is nothing for its jaws to stand in.';
  const { separationMm, rearDistanceMm } = target;
  if (separationMm < wrench.travelMinMm || separationMm > wrench.travelMaxMm)
    return `${figure(separationMm)} mm is ${separationMm > wrench.travelMaxMm ? 'over' : 'under'} its travel of ${figure(wrench.travelMinMm)} to ${figure(wrench.travelMaxMm)} mm.`;
  return `Its rear jaw does not reach ${figure(rearDistanceMm ?? 0)} mm (${figure(wrench.rearMinMm ?? 0)} to ${figure(wrench.rearMaxMm ?? 0)} mm).`;
}

function working(question: JawQuestion, choice: JawChoice | null, found: Found | null): WorkingLine[] {
  if (!choice) return [];
  const { pitchMm, widthMm, count, clocks, of } = question;
  const D = figure(pitchMm);
  const angle = figure(choice.spreadDeg, 1);
  return [
    ...(choice.rearDistanceMm === null
      ? [
          {
            what: 'jaws apart',
            rule: 'D · sin(angle between the notches / 2); off centre by D/2 · cos(angle / 2)',
            figures: `${D} · sin(${angle}°/2) = ${figure(choice.separationMm)} mm; off centre ${figure(choice.offCentreMm)} mm`,
            source: SOURCE,
          },
        ]
      : [
          {
            what: 'front pair apart',
            rule:
              clocks.length > 0
                ? 'D · sin φ, φ the mean angle from the rear jaw'
                : 'D · sin(2πk/n), k·360°/n nearest 120°',
            figures: `n = ${count}, φ = ${angle}°: ${D} · sin ${angle}° = ${figure(choice.separationMm)} mm`,
            source: SOURCE,
          },
          {
            what: 'rear jaw to the line through the front pair',
            rule: 'D/2 · (1 − cos φ)',
            figures: `${figure(pitchMm / 2)} · (1 − cos ${angle}°) = ${figure(choice.rearDistanceMm)} mm`,
            source: SOURCE,
          },
        ]),
    ...(found
      ? [
          {
            what: 'bite',
            rule: of === 'holes' ? 'pin 80–98 % of its hole' : 'jaw 60–98 % of its notch',
            figures: `${figure(found.jawMm)} ÷ ${figure(widthMm)} = ${figure(found.bite * 100, 0)} %`,
            source: SOURCE,
          },
          {
            what: 'off the middle of the notch',
            rule: 'mirror error along the pitch circle, at most half the play',
            figures: `${figure(choice.mirrorErrorMm)} mm of ${figure((widthMm - found.jawMm) / 2)} mm`,
            source: SOURCE,
          },
        ]
      : []),
  ];
}

/** A setting as recorded, against the travel of the tool: which contradicts which, or null. */
export function overTravel(
  wrench: Wrench,
  setting: { readonly separationMm: number | null; readonly rearMm: number | null },
): { readonly path: 'separationMm' | 'rearMm'; readonly reason: string } | null {
  const { separationMm, rearMm } = setting;
  if (separationMm !== null && (separationMm < wrench.travelMinMm || separationMm > wrench.travelMaxMm))
    return {
      path: 'separationMm',
      reason: `${figure(separationMm)} mm is outside the travel of ${wrench.name}, ${figure(wrench.travelMinMm)} to ${figure(wrench.travelMaxMm)} mm: measure again, or name the tool used.`,
    };
  if (rearMm === null) return null;
  if (wrench.rearMinMm === null || wrench.rearMaxMm === null)
    return { path: 'rearMm', reason: `${wrench.name} has two jaws and no rear jaw to set.` };
  return rearMm < wrench.rearMinMm || rearMm > wrench.rearMaxMm
    ? {
        path: 'rearMm',
        reason: `${figure(rearMm)} mm is outside the travel of the rear jaw of ${wrench.name}, ${figure(wrench.rearMinMm)} to ${figure(wrench.rearMaxMm)} mm.`,
      }
    : null;
}
