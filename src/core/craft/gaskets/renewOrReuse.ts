import { figure, type Judged, invalidFigures } from '../judgement';
import type { WornRing, WornVerdict } from './wornRing';

export const GASKET_FINDINGS = [
  'nicked',
  'cracked',
  'flattened',
  'never squeezed',
  'hard',
  'swollen',
  'dry',
  'in pieces',
  'painted over',
  'in mineral grease',
  'missing',
] as const;
export type GasketFinding = (typeof GASKET_FINDINGS)[number];

/** Findings that a little grease does not mend. */
const DEFECTS: readonly GasketFinding[] = GASKET_FINDINGS.filter((finding) => finding !== 'dry');

/** What may have been done to the ring of the seam. */
export const RING_STATES = ['renewed', 'reused', 'left in place', 'none there'] as const;
export type RingState = (typeof RING_STATES)[number];

export interface GasketQuestion {
  readonly findings: readonly GasketFinding[];
  /** Null when nobody knows. */
  readonly ageYears: number | null;
  readonly ratingBar: number | null;
  /** Null when the owner was not asked. */
  readonly meetsWater: boolean | null;
  /** Until its cell, as fitted, asks for the next visit; null: nobody can say yet. */
  readonly staysClosedYears: number | null;
  /** A watch that charges itself is not opened again for many years. */
  readonly chargesItself: boolean;
  /** What the old ring says of itself, measured; null where it was not. */
  readonly worn: Pick<WornRing, 'verdict' | 'reasons'> | null;
  readonly rule: 'renew at every opening' | 'inspect and decide';
  /** What this shop does with a ring of which nobody knows the age. */
  readonly unknownAge: 'look at it' | 'renew';
}

/** What is advised of a ring: `look at it` leaves it to what the ring itself shows. */
export type RingAdvice = Judged<'renew' | 'reuse' | 'look at it'>;

/** What a ring of unknown age is looked at for. */
const ITS_SIGNS =
  'Reuse it if it is supple, round and whole. Renew it if it is hard, flattened, cracked, nicked or sticky. Measuring its height and width shows how much spring is left.';

/** What a measured ring says that is a reason to renew it: also that it cannot be said how worn it is. */
const WORN_OUT: readonly WornVerdict[] = [
  'renew',
  'no seal left',
  'never squeezed',
  'swollen',
  'cannot say',
  'measures disagree',
];

/** A ring older than this, or staying closed longer than this, is renewed. */
export const GASKET_YEARS = 3;
/** From this rating on, the ring is renewed at every opening. */
const RENEW_FROM_BAR = 5;

/** No ring is older, no watch shut longer, years; and none is rated for more, bar. */
const MOST_YEARS = 100;
const MOST_BAR = 1000;

/**
 * Renew the gasket, or inspect, grease and reuse it? Under the rule *inspect and decide*: renew when rated
 * 5 bar or more or it will meet water, on any defect, worn flat as measured, over three years, when it will stay closed
 * longer than three years, or when it charges itself. Every reason that holds is named. A ring of which nobody knows the age
 * and nothing else speaks against is looked at, or renewed, by the shop's policy. Source: bench practice, shop policy.
 */
export function renewOrReuse(question: GasketQuestion): RingAdvice {
  const { findings, meetsWater, chargesItself, worn, rule, unknownAge } = question;
  // What is no number nobody knows, and what nobody knows speaks for a new ring.
  const sound = (value: number | null, most: number): number | null =>
    value !== null && value >= 0 && value <= most ? value : null;
  const ageYears = sound(question.ageYears, MOST_YEARS);
  const staysClosedYears = sound(question.staysClosedYears, MOST_YEARS);
  const { ratingBar: given } = question;
  const ratingBar = sound(given, MOST_BAR) ?? (given === null ? null : MOST_BAR);
  const defects = findings.filter((finding) => DEFECTS.includes(finding));
  const reasons = [
    ...invalidFigures([
      {
        path: 'ageYears',
        what: 'The age of the ring',
        value: question.ageYears,
        unit: 'years',
        from: 0,
        to: MOST_YEARS,
      },
      {
        path: 'staysClosedYears',
        what: 'How long it stays closed',
        value: question.staysClosedYears,
        unit: 'years',
        from: 0,
        to: MOST_YEARS,
      },
      { path: 'ratingBar', what: 'The rating of the case', value: given, unit: 'bar', from: 0, to: MOST_BAR },
    ]).map(({ reason }) => reason),
    ...(rule === 'renew at every opening' ? ['The shop renews at every opening.'] : []),
    ...(defects.length > 0 ? [`The ring is ${defects.join(' and ')}.`] : []),
    ...(findings.includes('in mineral grease')
      ? ['Mineral grease swells rubber. Clean it out of the groove before you fit the new ring.']
      : []),
    ...(worn !== null && WORN_OUT.includes(worn.verdict) ? worn.reasons : []),
    ...(ratingBar !== null && ratingBar === given && ratingBar >= RENEW_FROM_BAR
      ? [`The case is rated ${figure(ratingBar)} bar.`]
      : []),
    ...(meetsWater === true ? ['The watch will get wet.'] : []),
    ...(ageYears === null && (unknownAge === 'renew' || question.ageYears !== null)
      ? ['The age of the ring is not known.']
      : []),
    ...(ageYears !== null && ageYears > GASKET_YEARS
      ? [`It is ${figure(ageYears, 1)} years old, more than ${GASKET_YEARS}.`]
      : []),
    ...(staysClosedYears !== null && staysClosedYears > GASKET_YEARS
      ? [`It will stay closed for ${figure(staysClosedYears, 1)} years, more than ${GASKET_YEARS}.`]
      : []),
    ...(chargesItself ? ['It charges itself and is not opened again for many years.'] : []),
  ];
  const working = [
    {
      what: 'renew or reuse',
      rule: `renew from ${RENEW_FROM_BAR} bar, near water, on a defect, worn flat; over ${GASKET_YEARS} years, closed longer than ${GASKET_YEARS} years, or charging itself; of unknown age: ${unknownAge}`,
      figures: `findings ${findings.join(', ') || 'none'}; age ${ageYears === null ? 'unknown' : `${figure(ageYears, 1)} years`}; rating ${ratingBar === null ? 'none' : `${figure(ratingBar)} bar`}`,
      source: 'shop policy',
    },
  ];
  if (reasons.length > 0) return { verdict: 'renew', reasons, working };
  if (ageYears === null && worn?.verdict !== 'springy')
    return { verdict: 'look at it', reasons: ['The age of the ring is not known.', ITS_SIGNS], working };
  const young = ageYears === null ? 'Sound, springy as measured' : 'Sound, young';
  const asked =
    meetsWater === false ? ' and not needed to keep water out' : '; whether it will get wet is not recorded';
  return {
    verdict: 'reuse',
    reasons: [
      findings.includes('dry')
        ? `${young}, but dry${asked}. Add a trace of silicone grease and wipe off the surplus.`
        : `${young}${asked}. Add a trace of silicone grease and wipe off the surplus.`,
    ],
    working,
  };
}

/** From this rating on a watch is made for diving, and tested by those licensed to certify it. */
const LICENSED_FROM_BAR = 20;

/** Whether a watch of this rating is referred to those licensed to certify it. */
export function isForLicensed(ratingBar: number): boolean {
  // What is no rating is not the shop's to certify.
  return !(ratingBar < LICENSED_FROM_BAR);
}

/** What is said of a ring, as it may be recorded. */
export interface RingSaid {
  readonly state: RingState;
  readonly findings: readonly GasketFinding[];
  readonly greased: boolean;
}

/** What contradicts itself in what is said of a ring, both named; empty where nothing does. */
export function ringContradictions({ state, findings, greased }: RingSaid): readonly string[] {
  const missing = findings.includes('missing');
  if (state === 'none there')
    return [
      ...(findings.length > 0
        ? [
            `You recorded that there is no ring, and also that the ring is ${findings.join(', ')}. Both cannot be true. Correct the wrong one.`,
          ]
        : []),
      ...(greased
        ? [
            'You recorded that there is no ring, and also that it was greased. Both cannot be true. Correct the wrong one.',
          ]
        : []),
    ];
  return [
    ...(missing && state !== 'renewed'
      ? [`The ring is recorded as missing and as ${state}. Both cannot be true. Correct the wrong one.`]
      : []),
    ...(missing && findings.length > 1
      ? [
          `The ring is recorded as missing and as ${findings.filter((each) => each !== 'missing').join(', ')}. Both cannot be true. Correct the wrong one.`,
        ]
      : []),
    ...(greased && state === 'left in place'
      ? ['The ring is recorded as left in place and as greased. Both cannot be true. Correct the wrong one.']
      : []),
  ];
}

/**
 * Whether what was done to a ring is what is advised: a new one where one is due, and only there. One to be looked at may be
 * renewed or reused as it looked; left where it lies nobody looked at it. Where there is no ring nothing is advised.
 */
export function isAsAdvised(done: RingState, { verdict }: Pick<RingAdvice, 'verdict'>): boolean {
  if (done === 'none there') return true;
  if (verdict === 'look at it') return done !== 'left in place';
  return (done === 'renewed') === (verdict === 'renew');
}
