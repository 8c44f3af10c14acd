import { contradictions, notchAngles } from '../cases';
import { capital, figure, type Judged, type WorkingLine } from '../judgement';
import type { Wrench } from '../tools';
import {
  MOST,
  ROUNDING,
  biting,
  canHold,
  holdsCentre,
  isWithin,
  leastMm,
  mostMm,
  namesOf,
  nearer,
  notchWords,
  ownOf,
  reaches,
  settingWords,
  stands,
  threeJawChoices,
  twoJawChoices,
  type JawChoice,
  type JawQuestion,
} from './jawChoices';

/** Of jaws that do not bite the one nearest to this is told. */
const BEST_BITE = 0.85;

const SOURCE = 'geometry of the pitch circle; bench practice for bite and play';

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

export type JawSetting = Judged<'set' | 'tips' | 'nothing fits' | 'cannot say'> & {
  readonly found: Found | null;
  readonly others: readonly JawAlternative[];
  /** Each notch's angle, radians clockwise from 12 o'clock seen from behind. */
  readonly anglesRad: readonly number[];
  /** What a wrench would have to reach and bite, where none does. */
  readonly wanted: string | null;
};

/**
 * How a wrench of this shop is set for a back with notches or round holes: which notches, how far apart the jaws, how
 * far the rear jaw, and why the other ways are worse. Three jaws, a rear one on the handle's axis and two mirrored
 * front jaws, go before two, because they cannot tip; the front pair as near 120° from the rear jaw as the notches
 * allow. Two jaws want opposite notches: off centre they tip and slip. Of several wrenches that reach and bite, the one
 * whose jaws fill the notches best; among equals the one with the smallest travel. Lengths in mm between jaw centres; a jaw is 60–98 % of its notch, a pin 80–98 % of its hole;
 * uneven notches may be off by half the play, jaws stand within 0.01 mm of their travel. Measures that cannot be, alone or
 * beside each other, are named: *cannot say*. Source: geometry of the pitch circle; bench practice.
 *
 * @example
 * jawSetting({
 *   count: 6,
 *   pitchMm: 31,
 *   widthMm: 2,
 *   clocks: [],
 *   of: 'notches',
 *   wrenches: [
 *     { id: 'w', name: 'wrench', jaws: 3, travelMinMm: 10, travelMaxMm: 40, rearMinMm: 10, rearMaxMm: 40, jawWidthsMm: [1.6], pinDiametersMm: [] },
 *   ],
 * }).found.choice // { separationMm: 26.85, rearDistanceMm: 23.25 }
 */
export function jawSetting(question: JawQuestion): JawSetting {
  const { count, pitchMm, widthMm, clocks, wrenches } = question;
  const wrong = contradictions({
    kind: question.of === 'holes' ? 'screwed, round holes' : 'screwed, notched',
    notchCount: count,
    pitchMm,
    notchWidthMm: widthMm,
    notchClocks: clocks,
  });
  if (wrong.length > 0)
    return {
      verdict: 'cannot say',
      reasons: wrong.map(({ reason }) => reason),
      found: null,
      others: [],
      anglesRad: [],
      wanted: null,
      working: [],
    };
  const anglesRad = notchAngles(count, clocks);
  const even = clocks.length === 0;
  const ways: Ways = {
    threes: threeJawChoices(anglesRad, pitchMm, widthMm, even).sort(nearer),
    twos: twoJawChoices(anglesRad, pitchMm, even).sort(nearer),
  };
  const bySize: readonly Biting[] = [...wrenches]
    .sort((a, b) => a.travelMaxMm - b.travelMaxMm)
    .map((wrench) => ({ wrench, bites: biting(wrench, question) }));
  const take = (choices: readonly JawChoice[], evenIfOff: boolean): Found | null => {
    for (const choice of choices) {
      if (!holdsCentre(choice)) continue;
      let best: Found | null = null;
      for (const { wrench, bites } of bySize) {
        if (!reaches(wrench, choice)) continue;
        // A narrower jaw has more play: where the notches are uneven the widest that still stands.
        const jawMm = bites.find((each) => evenIfOff || stands(choice, each, question));
        // Of jaws that fill the notch alike the wrench of the smallest travel, which comes first.
        if (jawMm !== undefined && jawMm > (best?.jawMm ?? 0) + ROUNDING)
          best = { wrench, jawMm, bite: jawMm / widthMm, choice };
      }
      if (best !== null) return best;
    }
    return null;
  };
  const centred = take(ways.threes, false) ?? take(ways.twos, false);
  // Off centre only where nothing holds the centre, and then only the pair nearest to it.
  const found = centred ?? take(ways.twos.slice(0, 1), true);
  const aim = ways.threes.find((choice) => canHold(choice, question)) ?? ways.twos[0] ?? null;
  const wanted = found || !aim ? null : wantedWords(aim, question);
  return {
    verdict: centred ? 'set' : found ? 'tips' : 'nothing fits',
    found,
    anglesRad,
    wanted,
    others: [
      ...waysNotTaken(question, ways, found, bySize),
      ...wrenchesNotTaken(question, ways, found, centred !== null, bySize),
    ],
    reasons: found
      ? foundReasons(found, centred !== null, question)
      : [`No wrench of this shop fits. Needed: ${wanted ?? 'another way'}.`],
    working: working(question, found?.choice ?? aim, found),
  };
}

/** The ways of standing jaws in these notches, the nearest to the rule first. */
interface Ways {
  readonly threes: readonly JawChoice[];
  readonly twos: readonly JawChoice[];
}

/** A wrench with its jaws or pins that enter and bite, the widest first. */
interface Biting {
  readonly wrench: Wrench;
  readonly bites: readonly number[];
}

/** What a wrench would have to reach and bite; only what could stand there is asked for. */
function wantedWords(aim: JawChoice, question: JawQuestion): string {
  const most = aim.jaws === 3 ? mostMm(aim, question) : MOST * question.widthMm;
  const bite = `${namesOf(question).jaw}s ${figure(leastMm(question))} to ${figure(most)} mm wide`;
  return aim.rearDistanceMm === null
    ? `a two-jaw wrench that opens to ${figure(aim.separationMm)} mm, ${bite}`
    : `a three-jaw wrench that reaches ${figure(aim.separationMm)} mm in front and ${figure(aim.rearDistanceMm)} mm to the rear jaw, ${bite}`;
}

function foundReasons({ choice, jawMm, bite }: Found, centred: boolean, question: JawQuestion): string[] {
  const { jaw, notch } = namesOf(question);
  return [
    `${capital(notchWords(choice))}, counted clockwise from behind.`,
    `The ${jaw} of ${figure(jawMm)} mm fills ${figure(bite * 100, 0)} % of the ${notch}.`,
    ...(centred
      ? []
      : [
          `The jaws run ${figure(choice.offCentreMm)} mm past the centre, so the wrench tips and slips. Use a friction ball first, otherwise press down hard.`,
        ]),
  ];
}

const MOST_WAYS_TOLD = 4;

/** The other ways of standing jaws, each with why it is worse; turned round, one way is told once. */
function waysNotTaken(
  question: JawQuestion,
  { threes, twos }: Ways,
  found: Found | null,
  wrenches: readonly Biting[],
): readonly JawAlternative[] {
  const keyOf = ({ jaws, spreadDeg, mirrorErrorMm }: JawChoice): string =>
    `${jaws} ${spreadDeg.toFixed(3)} ${mirrorErrorMm.toFixed(3)}`;
  const named = new Set(found ? [keyOf(found.choice)] : []);
  const once = [...threes, ...twos.slice(0, 1)].filter((choice) => {
    const key = keyOf(choice);
    return !named.has(key) && named.add(key);
  });
  return once.slice(0, MOST_WAYS_TOLD).map((choice) => ({
    words: `${notchWords(choice)}: ${settingWords(choice)}`,
    why: wayWhy(choice, question, found, wrenches),
  }));
}

function wayWhy(
  choice: JawChoice,
  question: JawQuestion,
  found: Found | null,
  wrenches: readonly Biting[],
): string {
  const { jaw, notch } = namesOf(question);
  if (!holdsCentre(choice))
    return `All three jaws are in one half of the circle, at ${figure(choice.spreadDeg, 0)}°, so the wrench tips.`;
  if (!canHold(choice, question))
    return choice.jaws === 2
      ? `${figure(choice.offCentreMm)} mm off centre: it tips and slips.`
      : `Each front jaw would be ${figure(choice.mirrorErrorMm)} mm off its ${notch}, more than the play of ${figure((question.widthMm - leastMm(question)) / 2)} mm.`;
  const reaching = wrenches.filter(({ wrench, bites }) => bites.length > 0 && reaches(wrench, choice));
  if (reaching.length === 0) return 'No wrench with jaws of the right width can be set to this distance.';
  if (!reaching.some(({ bites }) => bites.some((each) => stands(choice, each, question))))
    return `It needs a ${jaw} of at most ${figure(mostMm(choice, question))} mm, because the ${question.of} are uneven.`;
  if (choice.jaws === 2) return 'A wrench with two jaws can tip. One with three jaws cannot.';
  return `${figure(choice.spreadDeg, 0)}° from the rear jaw, no nearer to 120° than ${figure(found?.choice.spreadDeg ?? choice.spreadDeg, 0)}°.`;
}

/** The other wrenches of the shop, each with why it was not taken. */
function wrenchesNotTaken(
  question: JawQuestion,
  { threes, twos }: Ways,
  found: Found | null,
  centred: boolean,
  wrenches: readonly Biting[],
): readonly JawAlternative[] {
  return wrenches
    .filter(({ wrench }) => wrench !== found?.wrench)
    .map((other) => {
      const { jaws } = other.wrench;
      const best = jaws === 3 ? threes.find((choice) => canHold(choice, question)) : twos[0];
      const target = (found?.choice.jaws === jaws ? found.choice : best) ?? null;
      return { words: other.wrench.name, why: wrenchWhy(other, question, target, found, centred) };
    });
}

function wrenchWhy(
  { wrench, bites }: Biting,
  question: JawQuestion,
  target: JawChoice | null,
  found: Found | null,
  centred: boolean,
): string {
  if (bites.length === 0) return biteWhy(wrench, question);
  if (target === null || !reaches(wrench, target)) return reachWhy(wrench, target);
  const { jaw } = namesOf(question);
  const goesIn = bites.some((each) => stands(target, each, question));
  if (!goesIn && (centred || wrench.jaws === 3))
    return `Its ${jaw}s are too wide for these uneven ${question.of}. At most ${figure(mostMm(target, question))} mm fits.`;
  if (found?.choice.jaws === 3 && wrench.jaws === 2)
    return 'This wrench fits with two jaws only. Two jaws can tip.';
  const own = bites.find((each) => !centred || stands(target, each, question));
  if (found && own !== undefined && own < found.jawMm - ROUNDING)
    return `It also fits, but its ${jaw} of ${figure(own)} mm fills ${figure((own / question.widthMm) * 100, 0)} % of the ${namesOf(question).notch}, not ${figure(found.bite * 100, 0)} %.`;
  return wrench.travelMaxMm > (found?.wrench.travelMaxMm ?? wrench.travelMaxMm)
    ? 'This wrench also fits, but its jaws open wider than this back needs. A smaller wrench is easier to control.'
    : 'This wrench fits equally well.';
}

function biteWhy(wrench: Wrench, question: JawQuestion): string {
  const { widthMm } = question;
  const { jaw, notch } = namesOf(question);
  const [first, ...rest] = ownOf(wrench, question);
  if (first === undefined) return `It has no ${jaw}s.`;
  const off = (mm: number): number => Math.abs(mm / widthMm - BEST_BITE);
  const nearest = rest.reduce((best, each) => (off(each) < off(best) ? each : best), first);
  return nearest > MOST * widthMm
    ? `Its ${jaw} of ${figure(nearest)} mm does not enter a ${notch} of ${figure(widthMm)} mm.`
    : `Its ${jaw} of ${figure(nearest)} mm fills ${figure((nearest / widthMm) * 100, 0)} % of the ${notch}; ${figure((leastMm(question) / widthMm) * 100, 0)} % at least.`;
}

function reachWhy(wrench: Wrench, target: JawChoice | null): string {
  if (target === null) return 'There is nothing for its jaws to grip.';
  const { separationMm, rearDistanceMm } = target;
  if (!isWithin(separationMm, wrench.travelMinMm, wrench.travelMaxMm))
    return `${figure(separationMm)} mm is ${separationMm > wrench.travelMaxMm ? 'over' : 'under'} its travel of ${figure(wrench.travelMinMm)} to ${figure(wrench.travelMaxMm)} mm.`;
  return `Its rear jaw does not reach ${figure(rearDistanceMm ?? 0)} mm (${figure(wrench.rearMinMm ?? 0)} to ${figure(wrench.rearMaxMm ?? 0)} mm).`;
}

function working(question: JawQuestion, choice: JawChoice | null, found: Found | null): WorkingLine[] {
  if (choice === null) return [];
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
            what: 'distance from the middle of the notch',
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
  if (separationMm !== null && !isWithin(separationMm, wrench.travelMinMm, wrench.travelMaxMm))
    return {
      path: 'separationMm',
      reason: `${figure(separationMm)} mm is outside the travel of ${wrench.name}, ${figure(wrench.travelMinMm)} to ${figure(wrench.travelMaxMm)} mm: measure again, or enter the tool that was used.`,
    };
  if (rearMm === null) return null;
  if (wrench.rearMinMm === null || wrench.rearMaxMm === null)
    return { path: 'rearMm', reason: `${wrench.name} has two jaws and no rear jaw to set.` };
  return !isWithin(rearMm, wrench.rearMinMm, wrench.rearMaxMm)
    ? {
        path: 'rearMm',
        reason: `${figure(rearMm)} mm is outside the travel of the rear jaw of ${wrench.name}, ${figure(wrench.rearMinMm)} to ${figure(wrench.rearMaxMm)} mm.`,
      }
    : null;
}
