import { figure, type Judged, invalidFigures, invalidLengths } from '../judgement';
import {
  freeDepthMm,
  type Groove,
  grooveContradictions,
  grooveWidthMm,
  type RingSize,
  USUALLY_WITHIN_MM,
} from './groove';

export const ZONES = ['good', 'borderline', 'no'] as const;
export type Zone = (typeof ZONES)[number];

/** A measure of how a ring lies, in percent: as reckoned, and within its tolerances. */
export interface Share {
  readonly percent: number;
  readonly fromPercent: number;
  readonly toPercent: number;
  /** The worse of its ends decides whether a ring may be said to fit. */
  readonly zone: Zone;
  readonly worstZone: Zone;
}

export interface FitOfRing extends Judged<'fits' | 'borderline' | 'no' | 'cannot say'> {
  readonly stretch: Share;
  readonly squeeze: Share;
  readonly fill: Share;
  /** The section as fitted, stretched, mm. */
  readonly lyingMm: number;
  /** How far the nearest limit of good is, from 1 (in the middle) through 0 (on it) to below (outside). */
  readonly margin: number;
}

interface Limits {
  readonly good: readonly [from: number, to: number];
  readonly borderline: readonly [from: number, to: number];
  /** What is best within good. */
  readonly best: number;
}

/** Source: usual static-seal practice (ISO 3601 series). */
export const LIMITS = {
  'stretch on the inner wall': { good: [1, 5], borderline: [0, 6], best: 3 },
  'stretch on the outer wall': { good: [-3, 0], borderline: [-5, 1], best: -1.5 },
  squeeze: { good: [15, 30], borderline: [10, 35], best: 22.5 },
  fill: { good: [0, 85], borderline: [0, 95], best: 70 },
} as const satisfies Record<string, Limits>;

/** A section thinner than this needs a better measurement than the usual one. */
const THIN_MM = 0.5;
const THIN_WITHIN_MM = 0.01;
/** A caliper that tells no better tells nothing of a ring, mm. */
const WORST_KNOWN_MM = 1;

/** What rounding leaves of a limit that is met exactly. */
const EPSILON = 1e-9;

function zoneOf(value: number, { good, borderline }: Limits): Zone {
  const within = ([from, to]: readonly [number, number]): boolean =>
    value >= from - EPSILON && value <= to + EPSILON;
  return within(good) ? 'good' : within(borderline) ? 'borderline' : 'no';
}

const worse = (a: Zone, b: Zone): Zone => (ZONES.indexOf(a) > ZONES.indexOf(b) ? a : b);

function share(percent: number, aroundPercent: number, limits: Limits): Share {
  const fromPercent = percent - aroundPercent;
  const toPercent = percent + aroundPercent;
  return {
    percent,
    fromPercent,
    toPercent,
    zone: zoneOf(percent, limits),
    worstZone: worse(zoneOf(fromPercent, limits), zoneOf(toPercent, limits)),
  };
}

function marginOf(percent: number, { good: [from, to], best }: Limits): number {
  return percent <= best
    ? best === from
      ? 1
      : (percent - from) / (best - from)
    : (to - percent) / (to - best);
}

/** How far a ring is drawn out, or pushed in where negative, when it lies on its wall: a share of its own length. */
function stretchOf(
  { insideMm, sectionMm, widthMm, profile }: RingSize,
  { innerMm, outerMm, seat }: Groove,
): number {
  const across = profile === 'flat' ? (widthMm ?? sectionMm) : sectionMm;
  return seat === 'inner wall'
    ? (innerMm - insideMm) / insideMm
    : (outerMm - 2 * across - insideMm) / insideMm;
}

export const stretchLimits = ({ seat }: Pick<Groove, 'seat'>): Limits => LIMITS[`stretch on the ${seat}`];

/** The figures alone, for a whole assortment at once. */
interface Lie {
  readonly stretch: number;
  readonly lyingMm: number;
  readonly acrossMm: number;
  readonly squeeze: number;
  readonly fill: number;
  readonly margin: number;
}

/** Stretch, squeeze and fill as shares, and how far from the limits. */
function lieOf(ring: RingSize, groove: Groove): Lie {
  const stretch = stretchOf(ring, groove);
  const thinner = 1 / Math.sqrt(Math.max(1 + stretch, 0.01));
  const lyingMm = ring.sectionMm * thinner;
  const acrossMm = ring.profile === 'flat' ? (ring.widthMm ?? ring.sectionMm) * thinner : lyingMm;
  const free = freeDepthMm(groove);
  const squeeze = (lyingMm - free) / lyingMm;
  const area = ring.profile === 'flat' ? acrossMm * lyingMm : (Math.PI * lyingMm ** 2) / 4;
  const fill = area / (grooveWidthMm(groove) * free);
  const margin = Math.min(
    marginOf(stretch * 100, stretchLimits(groove)),
    marginOf(squeeze * 100, LIMITS.squeeze),
    Math.min(1, (LIMITS.fill.good[1] - fill * 100) / (LIMITS.fill.good[1] - LIMITS.fill.best)),
  );
  return { stretch, lyingMm, acrossMm, squeeze, fill, margin };
}

const ofPercent = ({ percent, fromPercent, toPercent }: Share): string =>
  `${figure(percent, 1)} % (${figure(fromPercent, 1)} to ${figure(toPercent, 1)})`;

/** Why a measure is not good, in words; empty where it is. */
function faults(
  { stretch, squeeze, fill }: Pick<FitOfRing, 'stretch' | 'squeeze' | 'fill'>,
  groove: Groove,
): string[] {
  const [least, most] = stretchLimits(groove).good;
  const inner = groove.seat === 'inner wall';
  const how = (zone: Zone): string => (zone === 'no' ? '' : ', just about');
  return [
    ...(stretch.zone === 'good'
      ? []
      : [
          stretch.percent < least
            ? `${inner ? 'Too large: it is slack' : 'Too large: it buckles'}, stretch ${figure(stretch.percent, 1)} %, allowed ${figure(least)} to ${figure(most)} %${how(stretch.zone)}.`
            : `Too small: stretched ${figure(stretch.percent, 1)} %, allowed ${figure(least)} to ${figure(most)} %${how(stretch.zone)}.`,
        ]),
    ...(squeeze.zone === 'good'
      ? []
      : [
          squeeze.percent < LIMITS.squeeze.good[0]
            ? `Too thin: squeezed ${figure(squeeze.percent, 1)} %, at least ${LIMITS.squeeze.good[0]} % needed${how(squeeze.zone)}.`
            : `Too thick: squeezed ${figure(squeeze.percent, 1)} %, at most ${LIMITS.squeeze.good[1]} % allowed${how(squeeze.zone)}.`,
        ]),
    ...(fill.zone === 'good'
      ? []
      : [
          `It fills ${figure(fill.percent, 1)} % of the groove, at most ${LIMITS.fill.good[1]} %: rubber needs room${how(fill.zone)}.`,
        ]),
  ];
}

/** Whether a ring is out of the question by one measure as reckoned. */
function isOut(ring: RingSize, groove: Groove, { stretch, squeeze, fill, lyingMm }: Lie): boolean {
  const out = (share: number, { borderline: [from, to] }: Limits): boolean =>
    !(share * 100 >= from - EPSILON && share * 100 <= to + EPSILON);
  const across = ring.profile === 'flat' ? (ring.widthMm ?? lyingMm) : ring.sectionMm;
  return (
    across > grooveWidthMm(groove) ||
    out(stretch, stretchLimits(groove)) ||
    out(squeeze, LIMITS.squeeze) ||
    out(fill, LIMITS.fill)
  );
}

/** What is said of a ring by its figures alone. */
interface JudgedLie extends Lie {
  readonly verdict: FitOfRing['verdict'];
  readonly measured: Pick<FitOfRing, 'stretch' | 'squeeze' | 'fill'>;
  readonly acrossFreeMm: number;
  readonly worst: Zone;
}

function judgeLie(ring: RingSize, groove: Groove): JudgedLie {
  const lie = lieOf(ring, groove);
  const { stretch: s, lyingMm, acrossMm, squeeze: q, fill: f } = lie;
  const free = freeDepthMm(groove);
  const { sectionWithinMm } = ring;
  const { depthWithinMm } = groove;
  // q = 1 − depth / section: what each of the two leaves open.
  const squeezeAround = Math.hypot((free / lyingMm ** 2) * sectionWithinMm, depthWithinMm / lyingMm);
  const powerOfSection = ring.profile === 'flat' ? 1 : 2;
  const fillAround = f * Math.hypot((powerOfSection * sectionWithinMm) / lyingMm, depthWithinMm / free);
  const measured = {
    stretch: share(s * 100, 0, stretchLimits(groove)),
    squeeze: share(q * 100, squeezeAround * 100, LIMITS.squeeze),
    fill: share(f * 100, fillAround * 100, LIMITS.fill),
  };
  const acrossFreeMm = ring.profile === 'flat' ? (ring.widthMm ?? acrossMm) : ring.sectionMm;
  const worst = [measured.stretch, measured.squeeze, measured.fill].map(({ zone }) => zone).reduce(worse);
  const endsStand = [measured.squeeze, measured.fill].every(({ worstZone }) => worstZone !== 'no');
  const coarse =
    ring.sectionMm < THIN_MM && Math.max(sectionWithinMm, depthWithinMm) > USUALLY_WITHIN_MM - EPSILON;
  const verdict =
    acrossFreeMm > grooveWidthMm(groove) || worst === 'no'
      ? 'no'
      : coarse
        ? 'cannot say'
        : worst === 'good' && endsStand
          ? 'fits'
          : 'borderline';
  return { ...lie, verdict, measured, acrossFreeMm, worst };
}

const NO_SHARE: Share = { percent: 0, fromPercent: 0, toPercent: 0, zone: 'no', worstZone: 'no' };
/** Of measures that cannot be: nothing was reckoned. */
const NOT_TO_BE_SAID = {
  verdict: 'cannot say',
  working: [],
  stretch: NO_SHARE,
  squeeze: NO_SHARE,
  fill: NO_SHARE,
  lyingMm: 0,
  margin: 0,
} as const;

/**
 * Does this ring seal in this groove? Stretch from the diameters; the section thins as it is drawn out, since rubber keeps
 * its volume; squeeze against the free depth; fill of the groove's cross-section. *Fits* needs every measure good as
 * reckoned and squeeze and fill at least borderline at both ends of their tolerances (root of squares of section and
 * depth); *borderline* has nothing outside; else *no*. A section under 0.5 mm known no better than ± 0.03 mm can never be
 * said to fit: *cannot say*; nor can anything of measures that cannot be, which are named. Lengths in millimetres. Source: usual static-seal practice (ISO 3601 series).
 *
 * @example
 * fitGasket(
 *   { profile: 'round', insideMm: 30.5, sectionMm: 0.7, widthMm: null, sectionWithinMm: 0.01 },
 *   { innerMm: 31, outerMm: 32.9, depthMm: 0.55, stepMm: 0, seat: 'inner wall', depthWithinMm: 0.01 },
 * ) // { stretch: { percent: 1.64 }, lyingMm: 0.694, squeeze: { percent: 20.8 }, fill: { percent: 72.5 } }
 */
export function fitGasket(ring: RingSize, groove: Groove): FitOfRing {
  const wrong = [
    ...grooveContradictions(groove),
    ...invalidLengths([
      ['insideMm', 'Ring inside diameter', ring.insideMm],
      ['sectionMm', 'Ring section', ring.sectionMm],
      ['widthMm', 'Ring width', ring.widthMm],
    ]),
    ...invalidFigures(
      [ring.sectionWithinMm, groove.depthWithinMm].map((value) => ({
        path: 'sectionMm',
        what: 'Tolerance of section or depth',
        value,
        unit: 'mm',
        from: 0,
        to: WORST_KNOWN_MM,
      })),
    ),
  ];
  if (wrong.length > 0) return { ...NOT_TO_BE_SAID, reasons: wrong.map(({ reason }) => reason) };
  const { verdict, measured, acrossFreeMm, worst, lyingMm, margin } = judgeLie(ring, groove);
  const { stretch, squeeze, fill } = measured;
  const free = freeDepthMm(groove);
  const gap = grooveWidthMm(groove);
  const { sectionWithinMm } = ring;
  const { depthWithinMm } = groove;
  const tooWide = acrossFreeMm > gap;
  const reasons = [
    ...(tooWide ? [`It is ${figure(acrossFreeMm)} mm wide, the groove ${figure(gap)} mm.`] : []),
    ...faults(measured, groove),
    ...(verdict === 'cannot say'
      ? [
          `A section under ${THIN_MM} mm needs a better measurement than ± ${USUALLY_WITHIN_MM} mm: at ± ${figure(Math.max(sectionWithinMm, depthWithinMm))} squeeze may be anywhere from ${figure(squeeze.fromPercent)} to ${figure(squeeze.toPercent)} %. Measure section and depth to ± ${THIN_WITHIN_MM} mm.`,
        ]
      : []),
    ...(verdict === 'borderline' && worst === 'good'
      ? [
          `The measured values are good, but within ± ${figure(Math.max(sectionWithinMm, depthWithinMm))} mm ${squeeze.worstZone === 'no' ? `squeeze may be ${figure(squeeze.fromPercent, 1)} to ${figure(squeeze.toPercent, 1)} %` : `fill may be up to ${figure(fill.toPercent, 1)} %`}. Measure section and depth more precisely.`,
        ]
      : []),
  ];
  return {
    verdict,
    reasons:
      reasons.length > 0
        ? reasons
        : [
            `Stretch ${figure(stretch.percent, 1)} %, squeeze ${figure(squeeze.percent, 1)} %, fill ${figure(fill.percent, 1)} %: good, also at both ends of the tolerance.`,
          ],
    working: [
      {
        what: 'stretch',
        rule:
          groove.seat === 'inner wall'
            ? '(groove inside − ring inside) / ring inside'
            : '(groove outside − 2 × section − ring inside) / ring inside',
        figures: `${groove.seat === 'inner wall' ? `(${figure(groove.innerMm)} − ${figure(ring.insideMm)})` : `(${figure(groove.outerMm)} − 2 × ${figure(ring.widthMm ?? ring.sectionMm)} − ${figure(ring.insideMm)})`} / ${figure(ring.insideMm)} = ${figure(stretch.percent, 2)} %`,
        source: 'ISO 3601 practice',
      },
      {
        what: 'squeeze',
        rule: '(fitted section − free depth) / fitted section; fitted section = section / √(1 + stretch)',
        figures: `section ${figure(lyingMm, 3)} mm, depth ${figure(groove.depthMm)} − ${figure(groove.stepMm)} = ${figure(free)} mm: ${ofPercent(squeeze)}`,
        source: 'ISO 3601 practice; volume of rubber is constant',
      },
      {
        what: 'fill',
        rule:
          ring.profile === 'flat'
            ? 'width × thickness / (groove width × free depth)'
            : '(π × section² / 4) / (groove width × free depth)',
        figures: `groove ${figure(gap)} × ${figure(free)} mm: ${ofPercent(fill)}`,
        source: 'ISO 3601 practice',
      },
    ],
    ...measured,
    lyingMm,
    margin,
  };
}

const RANK = { fits: 0, borderline: 1, 'cannot say': 2, no: 3 } as const;

/** A ring that may be had, with how it would lie. */
export interface Ranked<R> {
  readonly ring: R;
  readonly fit: FitOfRing;
}

/** A ring of the assortment, and its size. */
export interface Offered {
  readonly size: RingSize;
}

/**
 * The best few rings of an assortment for a groove: those that fit, then the borderline ones, each with the larger margin
 * first; then those nearest to it. The whole assortment is judged: one in the middle of one measure may be out in another,
 * and one nearer to the limits be the only one that fits. Order of equals: as given.
 */
export function bestRings<R extends Offered>(
  rings: readonly R[],
  groove: Groove,
  most = 5,
): readonly Ranked<R>[] {
  /** The best so far, in order: an assortment is long, and what is shown of it short. */
  const best: { readonly ring: R; readonly rank: number; readonly margin: number }[] = [];
  const [least, longest] = stretchLimits(groove).borderline;
  for (const ring of rings) {
    // Where better ones are found, one of another diameter is passed over at once: most of an assortment are.
    const percent = stretchOf(ring.size, groove) * 100;
    if (
      (best[most - 1]?.rank ?? RANK.no) < RANK.no &&
      !(percent >= least - EPSILON && percent <= longest + EPSILON)
    )
      continue;
    const lie = lieOf(ring.size, groove);
    const { margin } = lie;
    // Most of an assortment are far out: no more is worked out of them.
    const rank = RANK[isOut(ring.size, groove, lie) ? 'no' : judgeLie(ring.size, groove).verdict];
    const comesAfter = (other: (typeof best)[number]): boolean =>
      other.rank < rank || (other.rank === rank && !(margin > other.margin));
    const last = best.at(-1);
    if (best.length >= most && last && comesAfter(last)) continue;
    const at = best.findIndex((other) => !comesAfter(other));
    best.splice(at < 0 ? best.length : at, 0, { ring, rank, margin });
    if (best.length > most) best.pop();
  }
  return best.map(({ ring }) => ({ ring, fit: fitGasket(ring.size, groove) }));
}

/**
 * What to order for a groove: the best round ring, and the sizes between which it is good. Any diameter between the two ends
 * is good with any section between the two ends, the ends included.
 */
export interface RingWanted {
  readonly insideMm: number;
  readonly sectionMm: number;
  readonly insideFromMm: number;
  readonly insideToMm: number;
  readonly sectionFromMm: number;
  readonly sectionToMm: number;
}

/** Step in which sections are tried, mm. */
const SECTION_STEP_MM = 0.01;
/** In which inside diameters and sections are sold and named, mm. */
const INSIDE_SOLD_MM = 0.1;

/**
 * The round ring a groove wants, with the range in which it is good; null where no round ring can be good in it: too
 * narrow, or one of its measures is wrong. Sections in hundredths, diameters in tenths of a millimetre, as rings are named.
 */
export function ringWanted(groove: Groove): RingWanted | null {
  if (grooveContradictions(groove).length > 0) return null;
  const best = stretchLimits(groove).best / 100;
  const insideAt = (stretch: number, sectionMm: number): number =>
    groove.seat === 'inner wall'
      ? groove.innerMm / (1 + stretch)
      : (groove.outerMm - 2 * sectionMm) / (1 + stretch);
  const marginAt = (insideTenths: number, sectionHundredths: number): number => {
    const [insideMm, sectionMm] = [insideTenths * INSIDE_SOLD_MM, sectionHundredths * SECTION_STEP_MM];
    return insideMm > 0 && sectionMm > 0 && sectionMm <= grooveWidthMm(groove)
      ? lieOf({ profile: 'round', insideMm, sectionMm, widthMm: null, sectionWithinMm: 0 }, groove).margin
      : -Infinity;
  };
  const sections = Math.ceil(grooveWidthMm(groove) / SECTION_STEP_MM);
  const named = Array.from({ length: sections }, (_, step) => step + 1)
    .map((section) => {
      const inside = Math.round(insideAt(best, section * SECTION_STEP_MM) / INSIDE_SOLD_MM);
      return { section, inside, margin: marginAt(inside, section) };
    })
    .filter(({ margin }) => margin >= 0);
  const [first, ...more] = named;
  if (first === undefined) return null;
  const { section, inside } = more.reduce((a, b) => (b.margin > a.margin ? b : a), first);
  /** The last step from a middle on, up or down, at which all of it is good. */
  const end = (from: number, by: 1 | -1, isGood: (at: number) => boolean): number => {
    let at = from;
    while (isGood(at + by)) at += by;
    return at;
  };
  const isGoodInside = (at: number): boolean => marginAt(at, section) >= 0;
  const [insideFrom, insideTo] = [end(inside, -1, isGoodInside), end(inside, 1, isGoodInside)];
  const isGoodSection = (at: number): boolean =>
    [insideFrom, inside, insideTo].every((each) => marginAt(each, at) >= 0);
  const tenths = (at: number): number => Number((at * INSIDE_SOLD_MM).toFixed(1));
  const hundredths = (at: number): number => Number((at * SECTION_STEP_MM).toFixed(2));
  return {
    insideMm: tenths(inside),
    sectionMm: hundredths(section),
    insideFromMm: tenths(insideFrom),
    insideToMm: tenths(insideTo),
    sectionFromMm: hundredths(end(section, -1, isGoodSection)),
    sectionToMm: hundredths(end(section, 1, isGoodSection)),
  };
}
