import { figure, type Judged } from '../judgement';
import { clockDistance, clockWords, turnClock, type View } from './clock';
import type { BackKind } from './kinds';

/** Which side lies up while a back of this kind is opened. */
export function workedFrom(kind: BackKind): View {
  return kind === 'opens from the front' ? 'the dial' : 'behind';
}

export interface PryQuestion {
  /** The side the hand works on: the answer is seen from there. */
  readonly from: View;
  /** As seen from the dial; null where nobody noted it. */
  readonly crownClock: number | null;
  /** Somebody saw that the watch has no crown. */
  readonly noCrown: boolean;
  readonly lipClock: number | null;
  readonly pusherClocks: readonly number[];
  /** The side lip and pushers were seen from. */
  readonly seenFrom: View;
}

export type PrySpot = Judged<
  'at the lip' | 'chosen spot' | 'look again' | 'not yet known' | 'no clear spot'
> & {
  readonly clock: number | null;
  readonly from: View;
};

/** The same from both sides. */
const LUGS_CLOCK = [1, 5, 7, 11];
/** A blade is as wide as half an hour of a usual case, and slips along the rim: so far it keeps away, in hours. */
const CLEAR_HOURS = { crown: 1, pusher: 1, lug: 0.5 } as const;
/** Where nobody noted the crown, it may stand anywhere here, seen from the dial. */
const USUAL_CROWN_CLOCKS = [2, 3, 4];

interface InTheWay {
  readonly what: string;
  readonly isLug: boolean;
  readonly clock: number;
  readonly clearHours: number;
}

function inTheWay({ from, crownClock, noCrown, pusherClocks, seenFrom }: PryQuestion): readonly InTheWay[] {
  const crowns = noCrown ? [] : crownClock === null ? USUAL_CROWN_CLOCKS : [crownClock];
  return [
    ...crowns.map((clock) => ({
      what: crownClock === null ? 'a crown at an unrecorded position' : 'the crown',
      isLug: false,
      clock: turnClock(clock, 'the dial', from),
      clearHours: CLEAR_HOURS.crown,
    })),
    ...pusherClocks.map((clock) => ({
      what: 'a pusher',
      isLug: false,
      clock: turnClock(clock, seenFrom, from),
      clearHours: CLEAR_HOURS.pusher,
    })),
    ...LUGS_CLOCK.map((clock) => ({ what: 'a lug', isLug: true, clock, clearHours: CLEAR_HOURS.lug })),
  ];
}

/** Whether one of these is not a clock position: above 0 and up to 12. */
const isOffFace = (clocks: readonly (number | null)[]): boolean =>
  clocks.some((clock) => clock !== null && !(clock > 0 && clock <= 12));

/** A tool goes in at a lip so near to where it was noted, in hours. */
const AT_LIP_HOURS = 0.5;

/**
 * What a tool at this place, seen from the side worked on, would slip onto; null where nothing is near, and all are places. At
 * the lip itself a lug beside it is none: it is the way the blade goes that misses it.
 */
export function strikes(clock: number, question: PryQuestion): string | null {
  const { lipClock, seenFrom, from } = question;
  if (isOffFace([clock, question.crownClock, ...question.pusherClocks])) return 'an invalid clock position';
  const atLip =
    lipClock !== null && clockDistance(clock, turnClock(lipClock, seenFrom, from)) <= AT_LIP_HOURS + 1e-9;
  const near = inTheWay(question).find(
    (each) => !(atLip && each.isLug) && clockDistance(clock, each.clock) < each.clearHours - 1e-9,
  );
  return near ? `${near.what} at ${figure(near.clock, 1)}` : null;
}

/** How far to either side a blade at a lip is turned away, in hours. */
const BESIDE_HOURS = [-2, -1.5, -1, 1, 1.5, 2] as const;

/** The lug a lip lies beside, and towards which hour the blade’s handle stands so that it slips onto nothing; null: none is near. */
function besideLug(
  clock: number,
  question: PryQuestion,
): { readonly lug: number; readonly towards: number } | null {
  const obstacles = inTheWay(question);
  const lug = obstacles.find((each) => each.isLug && clockDistance(clock, each.clock) < each.clearHours);
  if (!lug) return null;
  const clear = (at: number): number =>
    Math.min(...obstacles.map((each) => clockDistance(at, each.clock) / each.clearHours));
  const onFace = (hours: number): number => ((hours % 12) + 12) % 12 || 12;
  const sides = BESIDE_HOURS.map((by) => onFace(clock + by));
  const towards = sides.reduce((best, at) => (clear(at) > clear(best) + 1e-9 ? at : best));
  return { lug: lug.clock, towards };
}

/** What is said of a lip that was noted: the knife goes in there unless it would strike something. */
function atLip(lipClock: number, question: PryQuestion): PrySpot {
  const { from, crownClock, noCrown, seenFrom } = question;
  const clock = turnClock(lipClock, seenFrom, from);
  const struck = strikes(clock, question);
  const beside = besideLug(clock, question);
  const turned = clockWords(lipClock, seenFrom);
  const working = [
    {
      what: 'side',
      rule: 'seen from the other side a place at k is at 12 − k',
      figures: `${turned} → ${clockWords(clock, from)}`,
    },
  ];
  return struck === null
    ? {
        verdict: 'at the lip',
        clock,
        from,
        reasons: [
          `The rim has a lip at ${clockWords(clock, from)}.`,
          ...(beside === null
            ? []
            : [
                `There is a lug beside it. Insert the knife from the side of ${clockWords(beside.towards, from)}, so that a slip hits neither lug nor crown.`,
              ]),
          ...(crownClock === null && !noCrown
            ? ['Check that the crown is not next to it. Its position is not recorded.']
            : []),
        ],
        working,
      }
    : {
        verdict: 'look again',
        clock: null,
        from,
        reasons: [
          `A lip at ${clockWords(clock, from)} would lead the knife onto ${struck}. Look again, and check the side it was seen from.`,
        ],
        working,
      };
}

/**
 * Where a knife goes in, as a clock position above 0 up to 12 seen from the side worked on: the lip where there is one,
 * otherwise the half hour farthest from crown, pushers and lugs. Never at crown or pusher: a lip noted there is to be looked
 * at again, most likely it was seen from the other side. Beside a lug a lip is real, since lugs are the same from either
 * side: then it is said which way the blade goes. `not yet known` without a lip while nobody noted the crown; an
 * unnoted crown counts at 2, 3 and 4 seen from the dial for what is asked of a lip. Never throws. Source: bench practice.
 */
export function prySpot(question: PryQuestion): PrySpot {
  const { from, crownClock, noCrown, lipClock, pusherClocks } = question;
  if (isOffFace([crownClock, lipClock, ...pusherClocks]))
    return {
      verdict: 'not yet known',
      clock: null,
      from,
      reasons: [
        'A place of crown, lip or pusher is not a clock position. Enter a value above 0 and up to 12.',
      ],
      working: [],
    };
  if (lipClock !== null) return atLip(lipClock, question);
  if (crownClock === null && !noCrown)
    return {
      verdict: 'not yet known',
      clock: null,
      from,
      reasons: ['Record the position of the crown. Without it no place for the knife is safe.'],
      working: [],
    };
  const obstacles = inTheWay(question);
  const halves = Array.from({ length: 24 }, (_, index) => (index + 1) / 2);
  const clear = (clock: number): number =>
    Math.min(...obstacles.map((each) => clockDistance(clock, each.clock) / each.clearHours));
  const fromCrown = (clock: number): number =>
    crownClock === null ? 0 : clockDistance(clock, turnClock(crownClock, 'the dial', from));
  const best = halves
    .filter((clock) => strikes(clock, question) === null)
    .sort((a, b) => clear(b) - clear(a) || fromCrown(b) - fromCrown(a) || b - a)[0];
  const working = [
    {
      what: 'spot',
      rule: `the half hour farthest from crown, pushers and lugs; never within ${CLEAR_HOURS.crown} h of a crown or pusher, ${CLEAR_HOURS.lug} h of a lug`,
      figures: `seen from ${from}: ${obstacles.map((each) => `${each.what} ${figure(each.clock, 1)}`).join(', ')} → ${best === undefined ? 'none' : `${figure(best, 1)} o’clock`}`,
    },
  ];
  return best === undefined
    ? {
        verdict: 'no clear spot',
        clock: null,
        from,
        reasons: [
          'Crown, pushers and lugs leave no place for a knife. Take the strap off and look for a lip or nick.',
        ],
        working,
      }
    : {
        verdict: 'chosen spot',
        clock: best,
        from,
        reasons: [
          `No lip: ${clockWords(best, from)} is farthest from crown, pushers and lugs. Record it for the next visit.`,
        ],
        working,
      };
}
