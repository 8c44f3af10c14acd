import { figure, type Judged, invalidLengths } from '../judgement';
import type { GrooveProblem, RingSize } from './groove';
import { wornContradictions } from './wornRing';

/** An old ring lying free, as far as a caliper has it; null where that was not measured. Millimetres. */
export interface CaliperedRing {
  readonly insideMm: number | null;
  readonly outsideMm: number | null;
  /** As it was pressed between case and back, and across from wall to wall. */
  readonly heightMm: number | null;
  readonly widthMm: number | null;
  /** Its shape when it was new; null: nobody said. */
  readonly profile: 'round' | 'flat' | null;
}

/** A ring it may have been when new, and how likely that is among those that may be had. */
export interface LikelyRing<R> {
  readonly ring: R;
  readonly probability: number;
}

export interface LikeliestRings<R> extends Judged<'likeliest' | 'none near' | 'cannot say'> {
  readonly rings: readonly LikelyRing<R>[];
}

/** How well a caliper has soft rubber, one standard deviation, mm: across its section, and across the whole ring. */
const SECTION_SD_MM = 0.025;
const ACROSS_SD_MM = 0.06;
/** A ring that lay drawn out stays longer by up to this share, most by little. Ours, from bench practice. */
const STAYS_LONGER = [0, 0.005, 0.01, 0.015, 0.02, 0.025, 0.03, 0.035, 0.04, 0.045, 0.05] as const;
const USUALLY_LONGER = 0.015;
/** One pressed for years stays wider than it is high by up to this share of its section. Ours. */
const STAYS_WIDER = [0, 0.06, 0.12, 0.18, 0.24, 0.3] as const;
/** A ring that fits worse than by chance of one in so many is none of them: half the square of its deviations. */
const NOT_NEAR = 12;

const off = (measured: number, expected: number, sd: number): number => ((measured - expected) / sd) ** 2 / 2;

/** The circle a section pressed flat was, from its height and width; its area is kept. */
function roundOf(heightMm: number, widthMm: number): number {
  const flat = Math.max(0, widthMm - heightMm) * heightMm;
  return Math.sqrt((4 * (flat + (Math.PI * heightMm ** 2) / 4)) / Math.PI);
}

/** How far off what was measured is for one ring, at one lengthening and widening: half the sum of squares. */
function deviation(seen: CaliperedRing, ring: RingSize, longer: number, wider: number): number {
  const thinner = 1 / Math.sqrt(1 + longer);
  const lies = ring.sectionMm * thinner;
  const isFlat = ring.profile === 'flat';
  // What is pressed flat gains in width what it loses in height.
  const width = isFlat ? (ring.widthMm ?? ring.sectionMm) * thinner * (1 + wider / 2) : lies * (1 + wider);
  const inside = ring.insideMm * (1 + longer);
  let sum = 0;
  if (seen.insideMm !== null) sum += off(seen.insideMm, inside, ACROSS_SD_MM);
  if (seen.outsideMm !== null) sum += off(seen.outsideMm, inside + 2 * (seen.widthMm ?? width), ACROSS_SD_MM);
  if (seen.heightMm !== null && seen.widthMm !== null) {
    if (isFlat) {
      const area = lies * (ring.widthMm ?? ring.sectionMm) * thinner;
      sum += off(Math.sqrt(seen.heightMm * seen.widthMm), Math.sqrt(area), SECTION_SD_MM);
      // It never rises above what it was.
      sum += seen.heightMm > lies ? off(seen.heightMm, lies, SECTION_SD_MM) : 0;
      sum +=
        seen.widthMm < width / (1 + wider / 2)
          ? off(seen.widthMm, width / (1 + wider / 2), SECTION_SD_MM)
          : 0;
    } else sum += off(roundOf(seen.heightMm, seen.widthMm), lies, SECTION_SD_MM);
  } else if (seen.heightMm !== null) {
    // The height alone has lost what nobody knows: never more than a third.
    const least = lies * (2 / 3);
    if (seen.heightMm > lies) sum += off(seen.heightMm, lies, SECTION_SD_MM);
    if (seen.heightMm < least) sum += off(seen.heightMm, least, SECTION_SD_MM);
  } else if (seen.widthMm !== null) sum += off(seen.widthMm, width, SECTION_SD_MM);
  return sum;
}

function wronglyMeasured(seen: CaliperedRing): readonly string[] {
  return [
    ...invalidLengths([
      ['insideMm', 'Ring inside diameter', seen.insideMm],
      ['outsideMm', 'Ring outside diameter', seen.outsideMm],
      ['heightMm', 'Ring height', seen.heightMm],
      ['widthMm', 'Ring width', seen.widthMm],
    ]),
    ...(seen.insideMm !== null && seen.outsideMm !== null && seen.outsideMm <= seen.insideMm
      ? [
          {
            reason:
              'The outside diameter of the ring must be larger than the inside diameter. Did you swap the two?',
          },
        ]
      : []),
  ].map(({ reason }) => reason);
}

/** How well a ring fits what was seen, averaged over how an old one may have changed; null where none comes near. */
function weightOf(seen: CaliperedRing, size: RingSize): number | null {
  let [weight, nearest] = [0, Infinity];
  for (const longer of STAYS_LONGER)
    for (const wider of STAYS_WIDER) {
      const far = deviation(seen, size, longer, wider);
      nearest = Math.min(nearest, far);
      weight += Math.exp(-far - longer / USUALLY_LONGER);
    }
  return nearest < NOT_NEAR && weight > 0 ? weight : null;
}

/**
 * Which whole rings of an assortment an old one can have been when new, the likeliest first, from the caliper alone: its
 * inside, its outside, or height and width of its section; its groove is not needed. A ring that lay drawn out stays a
 * little longer and thinner, one that was pressed a little wider: both are averaged over what they may be (Bayes’ rule,
 * every ring alike likely before). Rings of another shape than was seen are left out. Millimetres. Source: volume of rubber
 * is constant; the spreads are ours, from bench practice.
 */
export function likeliestRings<R extends { readonly size: RingSize }>(
  seen: CaliperedRing,
  rings: readonly R[],
  most = 3,
): LikeliestRings<R> {
  const measured = (['insideMm', 'outsideMm', 'heightMm', 'widthMm'] as const).filter(
    (name) => seen[name] !== null,
  );
  const wrong = wronglyMeasured(seen);
  const nothing = (verdict: 'none near' | 'cannot say', reasons: readonly string[]): LikeliestRings<R> => ({
    verdict,
    rings: [],
    reasons,
    working: [],
  });
  if (wrong.length > 0) return nothing('cannot say', wrong);
  if (measured.length === 0)
    return nothing('cannot say', [
      'The ring has not been measured. Measure its inside diameter, its outside diameter, or its height and width.',
    ]);
  const sound = rings.filter(
    ({ size }) =>
      invalidLengths([
        ['insideMm', 'Ring inside diameter', size.insideMm],
        ['sectionMm', 'Ring section', size.sectionMm],
        ['widthMm', 'Ring width', size.widthMm],
      ]).length === 0,
  );
  const leftOut =
    sound.length < rings.length
      ? [`${rings.length - sound.length} of the rings have an impossible size in the book and were left out.`]
      : [];
  if (sound.length === 0 && leftOut.length > 0) return nothing('cannot say', leftOut);
  const weighed = sound
    .filter(({ size }) => seen.profile === null || size.profile === seen.profile)
    .flatMap((ring) => {
      const weight = weightOf(seen, ring.size);
      return weight === null ? [] : [{ ring, weight }];
    })
    .sort((a, b) => b.weight - a.weight);
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  if (weighed.length === 0)
    return nothing('none near', [...leftOut, 'No ring in the book or in stock is close to this size.']);
  return {
    verdict: 'likeliest',
    rings: weighed.slice(0, most).map(({ ring, weight }) => ({ ring, probability: weight / total })),
    reasons: [
      ...leftOut,
      ...(measured.length === 1 || (seen.insideMm === null && seen.outsideMm === null)
        ? ['Measure the inside diameter as well: many ring sizes share this section.']
        : []),
    ],
    working: [
      {
        what: 'original ring size',
        rule: `inside and outside ± ${figure(2 * ACROSS_SD_MM)} mm, section ± ${figure(2 * SECTION_SD_MM)} mm on rubber; up to ${figure((STAYS_LONGER.at(-1) ?? 0) * 100)} % longer than when new`,
        figures: `${measured.map((name) => `${name.replace('Mm', '')} ${figure(seen[name] ?? 0)} mm`).join(', ')}; ${weighed.length} of ${rings.length} rings are close`,
        source: 'Bayes’ rule; volume of rubber is constant',
      },
    ],
  };
}

/** What a hand measured wrongly of an old ring, or left out; empty where something can be said of it. */
export function oldRingContradictions({
  insideMm,
  outsideMm,
  heightMm,
  widthMm,
  profile,
}: Omit<CaliperedRing, 'profile'> & { readonly profile: string }): readonly GrooveProblem[] {
  if ([insideMm, outsideMm, heightMm, widthMm].every((each) => each === null))
    return [
      {
        path: 'heightMm',
        reason:
          'Enter at least one measurement of the ring: height and width, inside diameter or outside diameter.',
      },
    ];
  return [
    ...(heightMm !== null && widthMm !== null && profile !== 'flat'
      ? wornContradictions({ heightMm, widthMm })
      : []),
    ...(insideMm !== null && outsideMm !== null && outsideMm <= insideMm
      ? [
          {
            path: 'outsideMm' as const,
            reason: `The ring is ${figure(outsideMm)} mm outside and ${figure(insideMm)} mm inside. Did you swap the two?`,
          },
        ]
      : []),
  ];
}
