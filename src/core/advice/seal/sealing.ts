import type { Book } from '../../craft/book';
import { backs, closingSchool, panelLayers, turnClock, workedFrom } from '../../craft/cases';
import {
  closingPlan,
  type ClosingStep,
  fitDies,
  type FitOfDies,
  NO_PRESS_MEASURES,
  type PressMeasures,
} from '../../craft/closing';
import {
  bestRings,
  type FitOfRing,
  fitGasket,
  isAsAdvised,
  type LikeliestRings,
  likeliestRings,
  measuredRingContradictions,
  type GasketFinding,
  readRingCode,
  renewOrReuse,
  type RingAdvice,
  type RingSize,
  type RingWanted,
  ringWanted,
  sectionsLeft,
  USUALLY_WITHIN_MM,
  type WornRing,
  wornRing,
} from '../../craft/gaskets';
import { isSeamRing, type Part, wantsNoting } from '../../craft/parts';
import { wayTaken } from '../../craft/policy';
import { type Lot, setAside } from '../../craft/stock';
import { localDay, yearsBetween } from '../../craft/time';
import { type JobContext, type JobFacts, type JobState, type Payloads, activeRing } from '../../logbook';
import { chargesItself } from '../charging';
import { type LotsOfCells, nextVisit } from '../life';
import { crownClockOf, type Opening } from '../opening';

/** The groove of a job, with how well the sections of its rings are known. */
type MeasuredGroove = Payloads['seal.groove'];

/** What is said of the old ring while it is typed, or as it is recorded. */
export interface RingSaidSoFar {
  readonly findings: readonly GasketFinding[];
  readonly ageYears: number | null;
  readonly meetsWater: boolean | null;
}

/** How long the watch stays shut: until its cells, as fitted, ask for the next visit. Null: nobody can say yet. */
export function staysClosedYears(state: JobState, lots: LotsOfCells, context: JobContext): number | null {
  const { onDay } = nextVisit(state, lots, context);
  return onDay === null
    ? null
    : Math.max(0, yearsBetween(localDay(context.nowUtc, context.shop.zone), onDay));
}

/** The section the book has for the ring of this case; null where it has none. */
function typeSectionMm(
  { caseType }: Pick<JobState, 'caseType'>,
  book: Pick<Book, 'gasketsOf'>,
): number | null {
  if (caseType === null) return null;
  const [ofCase] = book.gasketsOf(caseType.code);
  return (ofCase ?? readRingCode(caseType.gasket ?? ''))?.sectionMm ?? null;
}

/** The old ring as it was measured, in its groove; null until both are. */
export function wornOf(
  state: Pick<JobState, 'facts' | 'caseType'>,
  book: Pick<Book, 'gasketsOf'>,
): WornRing | null {
  const { groove, oldRing } = state.facts;
  const { heightMm, widthMm, profile } = oldRing?.payload ?? { heightMm: null, widthMm: null };
  return groove && heightMm !== null && widthMm !== null
    ? wornRing({
        heightMm,
        widthMm,
        profile: profile === 'round' || profile === 'flat' ? profile : null,
        groove: groove.payload,
        sectionOfTypeMm: typeSectionMm(state, book),
      })
    : null;
}

/** Which whole rings of book and stock the old one can have been, from what the caliper has of it; null while it has nothing. */
export function oldRingCanBe(
  { facts: { oldRing } }: Pick<JobState, 'facts'>,
  assortment: readonly RingToHave[],
): LikeliestRings<RingToHave> | null {
  if (oldRing === null) return null;
  const { profile, ...measured } = oldRing.payload;
  return likeliestRings(
    { ...measured, profile: profile === 'round' || profile === 'flat' ? profile : null },
    assortment,
  );
}

/** Renew or reuse the ring of this watch: what is said of it, what was measured, its rating, its water, how long it stays shut. */
export function gasketAdvice(
  state: JobState,
  said: RingSaidSoFar,
  closedYears: number | null,
  { policy, catalogue }: Pick<JobContext, 'policy' | 'catalogue'>,
): RingAdvice {
  const { facts, caseType } = state;
  return renewOrReuse({
    ...said,
    ratingBar: facts.watch?.payload.ratingBar ?? caseType?.ratingBar ?? null,
    staysClosedYears: closedYears,
    chargesItself: chargesItself(state),
    worn: wornOf(state, catalogue),
    rule: policy.schools.gasket,
    unknownAge: policy.schools.ringOfUnknownAge,
  });
}

/** A ring that may be had: of the book, of the stock, or of both. */
export interface RingToHave {
  readonly code: string;
  readonly size: RingSize;
  /** How many lie in the stock. */
  readonly left: number;
  /** Where the book has it, too. */
  readonly caseCodes: readonly string[];
}

const roundRing = (
  { insideMm, sectionMm }: Pick<RingSize, 'insideMm' | 'sectionMm'>,
  sectionWithinMm: number = USUALLY_WITHIN_MM,
): RingSize => ({ profile: 'round', insideMm, sectionMm, widthMm: null, sectionWithinMm });

/** A size however its bag is written: `30.5x0.7` lies beside `30.5 × 0.70`. */
const sizeKey = ({ insideMm, sectionMm }: Pick<RingSize, 'insideMm' | 'sectionMm'>): string =>
  `${insideMm} × ${sectionMm}`;

/**
 * Every round ring of book and stock, and the flat ones whose width is entered. A shaped one goes by its case alone; what
 * was set aside, or is past its date on this day, is not to be had.
 */
export function assortmentOf(
  book: Pick<Book, 'gaskets'>,
  lots: readonly Pick<Lot, 'item' | 'code' | 'balance' | 'quarantined' | 'bestBefore'>[],
  day: string,
): readonly RingToHave[] {
  const inStock = new Map<string, { readonly code: string; readonly size: RingSize; left: number }>();
  for (const lot of lots) {
    const { item, code, balance } = lot;
    const read = item === 'gasket' ? readRingCode(code) : null;
    if (read === null) continue;
    const known = inStock.get(sizeKey(read)) ?? { code, size: roundRing(read), left: 0 };
    known.left += setAside(lot, day) === null ? Math.max(0, balance) : 0;
    inStock.set(sizeKey(read), known);
  }
  const inBook = new Set(book.gaskets.map(sizeKey));
  return [
    ...book.gaskets
      .filter(({ profile, widthMm }) => profile === 'round' || (profile === 'flat' && widthMm !== null))
      .map((ring) => ({
        code: ring.code,
        size:
          ring.profile === 'flat'
            ? { ...roundRing(ring), profile: ring.profile, widthMm: ring.widthMm }
            : roundRing(ring),
        left: inStock.get(sizeKey(ring))?.left ?? 0,
        caseCodes: ring.caseCodes,
      })),
    ...[...inStock]
      .filter(([key]) => !inBook.has(key))
      .map(([, { code, size, left }]) => ({ code, size, left, caseCodes: [] })),
  ];
}

export interface RingChoice {
  readonly groove: MeasuredGroove;
  /** The best few that lie in the stock and are not out of the question, and where none of them fits, of the book. */
  readonly best: readonly { readonly ring: RingToHave; readonly fit: FitOfRing }[];
  /** What to order; null where no round ring can be good in it. */
  readonly wanted: RingWanted | null;
  readonly worn: WornRing | null;
  /** Sections of the assortment that the worn ring can have had, the most likely first. */
  readonly sections: readonly number[];
}

/** So many are shown. */
const SHOWN = 4;

/** Which ring for this groove: of what the stock has, else of what the book knows. */
export function chooseRing(
  groove: MeasuredGroove,
  assortment: readonly RingToHave[],
  worn: WornRing | null,
): RingChoice {
  const { sectionWithinMm } = groove;
  const rings = assortment.map((ring) => ({ ...ring, size: { ...ring.size, sectionWithinMm } }));
  const best = (some: readonly RingToHave[]) =>
    bestRings(some, groove, SHOWN).filter(({ fit }) => fit.verdict !== 'no');
  const inStock = best(rings.filter(({ left }) => left > 0));
  const fits = inStock.some(({ fit }) => fit.verdict === 'fits');
  const ofBook = fits ? [] : best(rings.filter(({ left }) => left === 0));
  // One that fits and has to be ordered stands before one of the stock that is doubtful.
  const ofAll = [...inStock, ...ofBook];
  return {
    groove,
    best: [
      ...ofAll.filter(({ fit }) => fit.verdict === 'fits'),
      ...ofAll.filter(({ fit }) => fit.verdict !== 'fits'),
    ].slice(0, SHOWN),
    wanted: ringWanted(groove),
    worn,
    sections:
      worn === null
        ? []
        : sectionsLeft(
            rings.map(({ size }) => size.sectionMm),
            worn,
          ),
  };
}

type RingDone = Pick<Payloads['seal.gasket'], 'state' | 'size' | 'profile' | 'lotId'>;

/** The size of a ring that goes by its figures: round, as far as anybody saw. Null for any other, and where no figures stand. */
const roundSizeOf = ({ size, profile }: Pick<RingDone, 'size' | 'profile'>) =>
  profile === 'round' || profile === 'not seen' ? readRingCode(size) : null;

/**
 * What contradicts the groove in a ring whose size somebody typed; empty where nothing does, where it came from the
 * stock (then it simply does not fit), and where it does not go by its figures.
 */
export function typedSizeContradictions(
  ring: Pick<RingDone, 'size' | 'profile' | 'lotId'>,
  groove: MeasuredGroove | null,
): readonly string[] {
  const typed = ring.lotId === null ? roundSizeOf(ring) : null;
  return typed === null || groove === null
    ? []
    : measuredRingContradictions(roundRing(typed), groove).map(({ reason }) => reason);
}

/** How a ring of this size lies in a groove; null where the groove is not known, or the ring does not go by its figures. */
export function fitOfSize(
  ring: Pick<RingDone, 'size' | 'profile'>,
  groove: MeasuredGroove | null,
): FitOfRing | null {
  const read = roundSizeOf(ring);
  return read && groove ? fitGasket(roundRing(read, groove.sectionWithinMm), groove) : null;
}

/** How the ring recorded lies in the groove recorded; null where that cannot be said. */
export function fittedRing({ facts }: Pick<JobState, 'facts'>): FitOfRing | null {
  const ring = activeRing(facts);
  return ring && fitOfSize(ring.payload, facts.groove?.payload ?? null);
}

/** Why what was done to a ring wants a reason in words; null where it is as advised, and fits as far as anybody measured. */
export function reasonWanted(
  done: Pick<RingDone, 'state' | 'size' | 'profile'>,
  advice: RingAdvice,
  groove: MeasuredGroove | null,
  caseType: JobState['caseType'],
): string | null {
  if (done.state === 'none there')
    return caseType?.gasket
      ? `The book lists a ring of ${caseType.gasket} for this case. Enter the reason why there is none.`
      : null;
  if (!isAsAdvised(done.state, advice)) return 'This differs from the advice. Enter the reason.';
  return fitOfSize(done, groove)?.verdict === 'no'
    ? 'A ring of this size does not fit the groove. Enter the reason.'
    : null;
}

/** What the press goes by: as measured for it, and where that is silent as the back was measured or the book has it. */
export function pressMeasuresOf({ facts, caseType }: Pick<JobState, 'facts' | 'caseType'>): PressMeasures {
  const own = facts.press?.payload ?? NO_PRESS_MEASURES;
  const back = facts.measured?.payload ?? caseType?.back ?? null;
  return {
    ...own,
    backMm: own.backMm ?? back?.diameterMm ?? null,
    caseMm: own.caseMm ?? back?.caseMm ?? null,
  };
}

/** Which dies press this watch; null where its kind of back is not pressed, or nobody said yet what kind it is. */
export function diesOf(
  state: Pick<JobState, 'facts' | 'caseType'>,
  tools: Parameters<typeof fitDies>[0]['tools'],
  { back, kindKnown }: Pick<Opening, 'back' | 'kindKnown'>,
): FitOfDies | null {
  const { kind } = back;
  if (!kindKnown) return null;
  if (kind !== 'snap-on' && kind !== 'opens from the front') return null;
  return fitDies({
    pressed: kind === 'snap-on' ? 'back' : 'bezel',
    measures: pressMeasuresOf(state),
    tools,
  });
}

/**
 * What is known to lie over the cell and beneath the back, the innermost first, of which nobody noted that it came off: it has
 * to be in place, whether a guide was ticked or not.
 */
function knownInside(
  { facts, calibre }: Pick<JobState, 'facts' | 'calibre'>,
  back: Opening['back'],
): readonly Part[] {
  const noted = new Set([...facts.parts.values()].map(({ off }) => off.payload.part));
  const above: readonly Part[] = facts.above?.payload.above ?? calibre?.aboveCell ?? [];
  const covered = back.dustCover !== null || (facts.seals?.payload.innerCover ?? 0) > 0;
  return [...[...above].reverse(), ...(covered ? (['inner cover'] as const) : [])].filter(
    (part) => !noted.has(part),
  );
}

/** The order of work that shuts this watch, from what came off it and how it opened. */
export function closingOf(
  state: JobState,
  { back }: Pick<Opening, 'back'>,
  dies: FitOfDies | null,
  { policy }: Pick<JobContext, 'policy'>,
): readonly ClosingStep[] {
  const { facts, calibre } = state;
  const { schools } = policy;
  const { kind } = back;
  const from = workedFrom(kind);
  const crown = crownClockOf(state);
  const school = closingSchool(kind);
  const parts = [...facts.parts.values()]
    .filter(({ settled }) => settled?.payload.outcome !== 'lost')
    .reverse();
  const lid = parts.find(({ off }) =>
    (['back', 'plate', 'bezel', 'hatch', 'panel'] as const).some((each) => each === off.payload.part),
  );
  return closingPlan({
    kind,
    wayBack: parts.map(({ off }) => ({
      id: off.id,
      part: off.payload.part,
      position: off.payload.position,
      count: off.payload.count,
    })),
    lipClock: back.lipClock === null ? null : turnClock(back.lipClock, back.seenFrom, from),
    lipSeenFrom: from,
    crownClock: crown === null ? null : turnClock(crown, 'the dial', from),
    backNoted: lid && !wantsNoting(lid.off.payload) ? lid.off.payload.position || null : null,
    screwCount: back.screwCount,
    hatchOpens: back.hatchOpens,
    panelLayers: panelLayers(back),
    inside: knownInside(state, back),
    coverSealed:
      (facts.seals?.payload.innerCover ?? 0) > 0 ||
      [...facts.parts.values()].some(({ off }) => off.payload.part === 'gasket' && !isSeamRing(off.payload)),
    insulators: calibre?.insulators ?? [],
    way: school ? wayTaken(schools, school).way : (backs[kind].closes[0] ?? null),
    grease: schools.grease === 'either' ? 'pad, or fingers and wipe' : schools.grease,
    ring: activeRing(facts)?.payload.state ?? null,
    greased: activeRing(facts)?.payload.greased ?? null,
    dies,
  });
}

/** Whether a step of closing is done: its parts are accounted for, or, where it has none, it was ticked. */
export function isClosingStepDone(
  { id, partIds }: ClosingStep,
  { parts, closingDone }: Pick<Readonly<JobFacts>, 'parts' | 'closingDone'>,
): boolean {
  return partIds.length > 0
    ? partIds.every((part) => (parts.get(part)?.settled ?? null) !== null)
    : closingDone.has(id);
}
