import { figure, type Judged, invalidLengths, type WorkingLine } from '../judgement';
import { freeDepthMm, type Groove, grooveContradictions, type GrooveProblem } from './groove';
import { stretchLimits } from './fitGasket';

/** An old ring as the caliper has it, out of its groove. */
export interface WornQuestion {
  /** As it was pressed between case and back. */
  readonly heightMm: number;
  /** Across, from wall to wall; never less than the height. */
  readonly widthMm: number;
  /** Its shape when it was new; null: nobody said. A flat ring is not worked back as a round one. */
  readonly profile: 'round' | 'flat' | null;
  readonly groove: Groove;
  /** The section it had when it was new, where the book or its bag says so. */
  readonly sectionOfTypeMm: number | null;
}

export type WornVerdict =
  'springy' | 'renew' | 'no seal left' | 'never squeezed' | 'swollen' | 'cannot say' | 'measures disagree';

export interface WornRing extends Judged<WornVerdict> {
  /** The original section before it was pressed flat, at its present length: the least it can have been. 0: it cannot be told. */
  readonly sectionMm: number;
  /** The most it can have been: drawn out on its wall it thins. */
  readonly sectionToMm: number;
  /** How much of the squeeze it has kept for good, as a share; null where nothing can be said. */
  readonly set: { readonly share: number; readonly from: number; readonly to: number } | null;
  /** The inside diameter it can have had when new, the likely part of it, and all of it. */
  readonly insideMm: readonly [from: number, to: number];
  readonly insideLikelyMm: readonly [from: number, to: number];
}

/** How well a caliper measures soft rubber, ± mm. */
export const ON_RUBBER_MM = 0.05;
/** Over this the ring is renewed, over that it did not seal any more. Source: bench practice. */
const RENEW_OVER = 0.4;
const NOTHING_OVER = 0.8;
/** How well the set is known when height and width are. */
const SET_WITHIN = 0.14;
/** So near to the depth of its groove a height is the same, as a caliper has it on rubber, mm. */
const TOO_NEAR_MM = 0.04;
/** A ring squeezed less than this when new tells nothing by what has stayed of it. */
const LEAST_SQUEEZE = 0.1;
/** What rounding leaves of a limit that is met exactly. */
const EPSILON = 1e-9;
/** A ring stretched by 5 % is so much thinner than it was: √1.05. */
const THICKER_BY = 0.025;
/** How much over its own section a ring is taken for swollen, mm: what a section is out by anyway. */
const SWOLLEN_OVER_MM = 0.03;

/** What a hand measured wrongly of an old ring; empty where it can be. */
export function wornContradictions({
  heightMm,
  widthMm,
}: Pick<WornQuestion, 'heightMm' | 'widthMm'>): readonly GrooveProblem[] {
  const lengths = invalidLengths<GrooveProblem['path']>([
    ['heightMm', 'Ring height', heightMm],
    ['widthMm', 'Ring width', widthMm],
  ]);
  if (lengths.length > 0) return lengths;
  return widthMm < heightMm
    ? [
        {
          path: 'widthMm',
          reason: `The ring is ${figure(heightMm)} mm high and ${figure(widthMm)} mm wide. A pressed ring is wider than it is high. Did you swap the two?`,
        },
      ]
    : [];
}

const clip = (value: number): number => Math.min(1, Math.max(0, value));
const percentOf = (share: number): string => `${figure(share * 100, 0)} %`;

/** Whether an old ring may go back, by what it was and what is left of it. */
function judgeWorn(
  { heightMm: h, profile, sectionOfTypeMm }: Pick<WornQuestion, 'heightMm' | 'profile' | 'sectionOfTypeMm'>,
  { sectionMm, free, set }: Pick<WornRing, 'sectionMm' | 'set'> & { readonly free: number },
): [WornVerdict, ...string[]] {
  const was = `It was ${figure(sectionMm)} mm thick when new${profile === 'flat' ? '' : ' or slightly more'}`;
  const leaves = `the groove leaves ${figure(free)} mm`;
  if (sectionOfTypeMm !== null && h > sectionOfTypeMm + SWOLLEN_OVER_MM)
    return [
      'swollen',
      `It is ${figure(h)} mm high, and its kind is ${figure(sectionOfTypeMm)} mm thick when new: swollen, as by mineral oil. Renew it, and clean the groove.`,
    ];
  // Whatever else the measures say: half the readings of a ring that is dead fall under its groove.
  if (Math.abs(h - free) <= TOO_NEAR_MM + EPSILON)
    return [
      'renew',
      `It is ${figure(h)} mm high, and ${leaves}. It is no higher than its groove is deep, so it no longer presses.`,
    ];
  if (h < free)
    return sectionMm > 0 && sectionMm < free - TOO_NEAR_MM
      ? [
          'never squeezed',
          `${was}, and ${leaves}, so the back never touched it. The ring or the depth is wrong.`,
        ]
      : [
          'measures disagree',
          `It is ${figure(h)} mm high, flatter than the ${figure(free)} mm the groove leaves. The groove cannot have pressed it that far. A measurement is wrong, or the ring belongs to another groove. Measure again.`,
        ];
  if (profile === null)
    return [
      'cannot say',
      'Whether the ring is round or flat is not recorded, so its wear cannot be worked out. Record the profile, or renew the ring.',
    ];
  if (profile === 'flat' && sectionOfTypeMm === null)
    return [
      'cannot say',
      `The thickness of this flat ring when new is not known, so its wear cannot be worked out; ${leaves}. Renew it.`,
    ];
  if (set === null)
    return [
      'cannot say',
      `${was}, and ${leaves}, so it was squeezed too little to show how much spring is left. Renew it, or measure again.`,
    ];
  const range = `${percentOf(set.share)} of its squeeze is permanent, from ${percentOf(set.from)} to ${percentOf(set.to)}`;
  if (set.share > NOTHING_OVER)
    return ['no seal left', `${range}: over ${percentOf(NOTHING_OVER)} it did not seal any more.`];
  if (set.to > NOTHING_OVER)
    return ['renew', `${range}: over ${percentOf(RENEW_OVER)}, and it may not have sealed any more.`];
  if (set.to > RENEW_OVER)
    return [
      'renew',
      set.share > RENEW_OVER
        ? `${range}: over ${percentOf(RENEW_OVER)}.`
        : `${range}: it may be over ${percentOf(RENEW_OVER)}, so it counts as worn.`,
    ];
  return ['springy', `${range}: under ${percentOf(RENEW_OVER)} even at the worst.`];
}

/** The area of a section pressed flat, mm²: a rectangle with round ends. */
function areaOf(h: number, b: number): number {
  return h * (b - h) + (Math.PI * h ** 2) / 4;
}

function sectionWorking(h: number, b: number, sectionMm: number): WorkingLine {
  return {
    what: 'original section',
    rule: '√(4A / π), A = h(b − h) + πh² / 4',
    figures: `h ${figure(h)}, b ${figure(b)}: A ${figure(areaOf(h, b), 3)} mm², ${figure(sectionMm, 3)} mm, up to ${figure(sectionMm * (1 + THICKER_BY), 3)} mm if it was stretched`,
    source: 'volume of rubber is constant',
  };
}

function setWorking(
  h: number,
  {
    sectionMm,
    free,
    set,
  }: { readonly sectionMm: number; readonly free: number; readonly set: NonNullable<WornRing['set']> },
): WorkingLine {
  return {
    what: 'permanent set',
    rule: '(section − height) / (section − free depth)',
    figures: `(${figure(sectionMm, 3)} − ${figure(h)}) / (${figure(sectionMm, 3)} − ${figure(free)}) = ${percentOf(set.share)}, within ${percentOf(set.from)} to ${percentOf(set.to)}`,
    source: 'compression set as in ISO 815; over 40 % renew, over 80 % it sealed nothing',
  };
}

/**
 * What an old round ring was when it was new, and how much of its spring is gone. Its section has kept its area: a
 * rectangle with round ends, h(b − h) + πh²/4, gives back the circle it was; permanent set is the lost height over the
 * squeeze it had. The worse end of its range decides. A dead ring lies exactly as high as its groove: within 0.04 mm of it
 * nothing presses any more, whatever else was measured. One that was squeezed under 10 % when new, or is flat and of a
 * thickness nobody knows, cannot be judged so. Lengths in millimetres. Source: volume of rubber is constant; compression set
 * as in ISO 815, read at the bench.
 *
 * @example
 * wornRing({
 *   heightMm: 0.6,
 *   widthMm: 0.77,
 *   profile: 'round',
 *   groove: { innerMm: 31, outerMm: 32.9, depthMm: 0.55, stepMm: 0, seat: 'inner wall', depthWithinMm: 0.01 },
 *   sectionOfTypeMm: null,
 * }).sectionMm // 0.70
 */
export function wornRing({
  heightMm: h,
  widthMm: b,
  profile,
  groove,
  sectionOfTypeMm,
}: WornQuestion): WornRing {
  const wrong = [
    ...(profile === 'flat' ? [] : wornContradictions({ heightMm: h, widthMm: b })),
    ...invalidLengths([
      ['heightMm', 'Ring height', h],
      ['widthMm', 'Ring width', b],
    ]).filter(() => profile === 'flat'),
    ...grooveContradictions(groove),
    ...invalidLengths([['sectionMm', 'The section of its kind', sectionOfTypeMm]]),
  ];
  if (wrong.length > 0)
    return {
      verdict: 'cannot say',
      reasons: wrong.map(({ reason }) => reason),
      working: [],
      sectionMm: 0,
      sectionToMm: 0,
      set: null,
      insideMm: [0, 0],
      insideLikelyMm: [0, 0],
    };
  const free = freeDepthMm(groove);
  // Of a flat ring only its kind tells how thick it was.
  const sectionMm =
    profile === 'flat'
      ? (sectionOfTypeMm ?? 0)
      : profile === null
        ? 0
        : Math.sqrt((4 * areaOf(h, b)) / Math.PI);
  const [least, most] = stretchLimits(groove).good.map((each) => each / 100) as [number, number];
  const [farLeast, farMost] = stretchLimits(groove).borderline.map((each) => each / 100) as [number, number];
  const base =
    groove.seat === 'inner wall'
      ? groove.innerMm
      : groove.outerMm - 2 * (profile === 'round' ? sectionMm : b);
  const share = (sectionMm - h) / (sectionMm - free);
  const set =
    sectionMm * (1 - LEAST_SQUEEZE) >= free && sectionMm - free > TOO_NEAR_MM && h - free > TOO_NEAR_MM
      ? { share: clip(share), from: clip(share - SET_WITHIN), to: clip(share + SET_WITHIN) }
      : null;
  const insideWorking = {
    what: 'original inside diameter',
    rule:
      groove.seat === 'inner wall'
        ? 'groove inside / (1 + stretch)'
        : '(groove outside − 2 × section) / (1 + stretch)',
    figures: `${figure(base / (1 + most), 1)} to ${figure(base / (1 + least), 1)} mm at ${figure(least * 100)} to ${figure(most * 100)} % stretch; ${figure(base / (1 + farMost), 1)} to ${figure(base / (1 + farLeast), 1)} mm at most`,
    source: 'ISO 3601 practice',
  };
  const [verdict, ...reasons] = judgeWorn(
    { heightMm: h, profile, sectionOfTypeMm },
    { sectionMm, free, set },
  );
  return {
    verdict,
    reasons,
    working: [
      ...(profile === 'round' ? [sectionWorking(h, b, sectionMm)] : []),
      ...(set === null ? [] : [setWorking(h, { sectionMm, free, set })]),
      insideWorking,
    ],
    sectionMm,
    sectionToMm: profile === 'flat' ? sectionMm : sectionMm * (1 + THICKER_BY),
    set,
    insideMm: [base / (1 + farMost), base / (1 + farLeast)],
    insideLikelyMm: [base / (1 + most), base / (1 + least)],
  };
}

/** Stretch that most rings in a groove have, for which of two near sections it was. */
const USUAL_STRETCH = 0.03;

/**
 * The sections of an assortment that the caliper cannot exclude for a worn ring, the most likely first: from its section
 * less what is measured wrongly on rubber, to as much more of what it was if it was stretched. Millimetres.
 */
export function sectionsLeft(
  sections: readonly number[],
  { sectionMm }: Pick<WornRing, 'sectionMm'>,
): readonly number[] {
  const likely = sectionMm * Math.sqrt(1 + USUAL_STRETCH);
  const least = sectionMm - ON_RUBBER_MM;
  const most = (sectionMm + ON_RUBBER_MM) * (1 + THICKER_BY);
  return [...new Set(sections)]
    .filter((each) => each >= least - 1e-9 && each <= most + 1e-9)
    .sort((a, b) => Math.abs(a - likely) - Math.abs(b - likely));
}
