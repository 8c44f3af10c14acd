import {
  asBackKind,
  type CaseType,
  type MeasuredBack,
  NOTHING_MEASURED,
  clockWords,
  differsFromBook,
  onlyOfKind,
  strikes,
  turnClock,
  turnedBack,
  workedFrom,
} from '../../craft/cases';
import {
  chooseOpener,
  type OpenerChoice,
  openingPlan,
  type OpeningPlan,
  opens,
  type PlanPart,
  type PlanStep,
  pryQuestion,
} from '../../craft/opening';
import type { Calibre } from '../../craft/movements';
import { crownOf, type JobFacts, type JobState, type Payloads } from '../../logbook';
import type { Schools } from '../../craft/policy';
import type { ShopTools } from '../../craft/tools';
import type { WatchHistory } from '../watches';
/** How a watch is opened, as far as its job, the book and earlier visits tell. */
export interface Opening {
  readonly back: MeasuredBack;
  /** Whether anybody said what kind of back it is: the bench, the book, or an earlier visit. */
  readonly kindKnown: boolean;
  readonly opener: OpenerChoice;
  readonly plan: OpeningPlan;
  /** As seen from the dial. */
  readonly crownClock: number | null;
}

/** What is known of a back before it is measured here: as it was last time, else as the book has it. */
export function expectedBack(
  caseType: Pick<CaseType, 'back' | 'backKind' | 'lipClock' | 'lipSeenFrom'> | null,
  lastTime: MeasuredBack | null = null,
): MeasuredBack {
  return (
    lastTime ?? {
      ...(caseType?.back ?? NOTHING_MEASURED),
      kind: asBackKind(caseType?.backKind) ?? 'snap-on',
      chordMm: null,
      lipClock: caseType?.lipClock ?? null,
      bracelet: null,
      pusherClocks: [],
      seenFrom: caseType?.lipSeenFrom ?? 'behind',
    }
  );
}

/**
 * What was measured here, and for what was not, the book or the last visit: as long as it is the same kind of back and
 * nothing measured contradicts them. Then nothing of theirs can be relied on.
 */
function withExpected(own: TypedBack, asExpected: MeasuredBack): MeasuredBack {
  // The book's lip is turned to the side this back was seen from, before one stands beside the other.
  const expected = turnedBack(asExpected, own.seenFrom);
  const kind = own.kind ?? expected.kind;
  const measured = { ...expected, ...known(own), kind };
  const stands =
    kind === expected.kind &&
    differsFromBook(measured, {
      backKind: expected.kind,
      lipClock: expected.lipClock,
      lipSeenFrom: expected.seenFrom,
      back: expected,
    }).length === 0;
  return stands
    ? measured
    : {
        ...NOTHING_MEASURED,
        chordMm: null,
        lipClock: null,
        pusherClocks: [],
        bracelet: expected.bracelet,
        seenFrom: expected.seenFrom,
        ...known(own),
        kind,
      };
}

/** What of a back somebody measured or picked. */
function known(own: TypedBack): Partial<MeasuredBack> {
  return Object.fromEntries(
    Object.entries(own).filter(
      ([, value]) => value !== null && !(Array.isArray(value) && value.length === 0),
    ),
  );
}

/** Where its crown stands, seen from the dial: as it was noted here, else as the book has its case. */
export function crownClockOf({ facts, caseType }: Pick<JobState, 'facts' | 'caseType'>): number | null {
  return facts.watch?.payload.crownClock ?? caseType?.crownClock ?? null;
}

/** How the last opening is repeated; a place that lies at crown, pushers or lugs is not. */
function lastSetting(
  last: NonNullable<WatchHistory['lastOpening']>,
  question: ReturnType<typeof pryQuestion>,
): string {
  const clock = last.spotClock === null ? null : turnClock(last.spotClock, last.seenFrom, question.from);
  const struck = clock === null ? null : strikes(clock, question);
  const where =
    clock === null
      ? ''
      : struck === null
        ? `at ${clockWords(clock, question.from)}`
        : `but not at the place of last time, which is at ${struck}`;
  return [last.setting, where].filter(Boolean).join(', ');
}

/** A back while it is measured: what was not picked yet is null. */
export type TypedBack = Omit<MeasuredBack, 'kind'> & {
  readonly kind: MeasuredBack['kind'] | null;
};

interface OpeningQuestion {
  readonly state: Pick<JobState, 'facts' | 'caseType' | 'calibre'>;
  readonly history: WatchHistory | null;
  readonly tools: ShopTools;
  readonly schools: Schools;
  /** What is typed and not yet recorded, and whether the kind of back was chosen there. */
  readonly typed: { readonly back: TypedBack; readonly kindChosen: boolean } | null;
}

/** The larger measure of a movement; null where none is known. */
const longest = ({ widthMm, lengthMm }: Calibre): number | null =>
  widthMm === null && lengthMm === null ? null : Math.max(widthMm ?? 0, lengthMm ?? 0);

/** Nobody said how it opens: no tool is named, and nothing is set out in order. */
const KIND_FIRST: OpenerChoice = {
  verdict: 'not yet known',
  opener: 'Not yet known',
  toolIds: [],
  settings: [],
  jaws: null,
  spot: null,
  spinOff: null,
  wanted: ['kind'],
  toBuy: null,
  reasons: ['The kind of back is not recorded yet. Look at the rim and the back, and choose it.'],
  working: [],
};
const LOOK_FIRST: OpeningPlan = {
  steps: [
    {
      id: 'clean',
      what: 'Clean the rim',
      how: 'Clean the outside and the seam with a dry cloth. Then look how the back opens and choose its kind. The steps for that kind then appear here.',
      caution: null,
      off: [],
    },
  ],
  stops: true,
};

/** Notes of earlier visits that stand with the first step. */
const NOTES_SHOWN = 3;

/**
 * The back as it is typed just now, recorded, or expected; what opens it, and in which order. Once the watch is open its
 * kind is the one on record. Never throws: what is missing is in the verdict.
 */
export function openingOf({ state, history, tools, schools, typed }: OpeningQuestion): Opening {
  const { facts, caseType, calibre } = state;
  const opened = facts.back?.payload.kind;
  const lastBack = history?.measured ?? null;
  const expected = expectedBack(caseType, lastBack);
  const own = typed?.back ?? facts.measured?.payload ?? null;
  const seen = own === null ? expected : withExpected(own, expected);
  const back = onlyOfKind({ ...seen, kind: opened ?? seen.kind });
  const crownClock = crownClockOf(state);
  const around = { back, crownClock, noCrown: crownOf(state) === 'no crown' };
  const kindKnown =
    facts.measured !== null ||
    typed?.kindChosen === true ||
    opened !== undefined ||
    caseType !== null ||
    lastBack !== null;
  if (!kindKnown) return { back, kindKnown, opener: KIND_FIRST, plan: LOOK_FIRST, crownClock };
  const opener = chooseOpener({ ...around, tools });
  const last = history?.lastOpening;
  const plan = openingPlan({
    back,
    opener,
    tools,
    schools,
    keepsFilm: facts.marks.some(({ payload }) => payload.film === 'keep'),
    functions: calibre?.functions ?? [],
    movementMm: calibre ? longest(calibre) : null,
    innerCovers: facts.seals?.payload.innerCover ?? 0,
    lastTime: last
      ? {
          openedWith: last.openedWith,
          setting: lastSetting(last, pryQuestion(around)),
          notes: history.notes.slice(0, NOTES_SHOWN).map(({ text }) => text),
        }
      : null,
  });
  return {
    back,
    kindKnown,
    opener,
    plan,
    crownClock,
  };
}

/** A setting as it is written down: to hundredths of a millimetre. */
const written = (value: number | null | undefined): number | null =>
  typeof value === 'number' ? Number(value.toFixed(2)) : null;

/** What the lamp would open it with, as the fact to be recorded. */
export function asAdvised({ back, opener, kindKnown }: Pick<Opening, 'back' | 'opener' | 'kindKnown'>): Omit<
  Payloads['open.back'],
  'protection' | 'went' | 'kind'
> & {
  readonly kind: Payloads['open.back']['kind'] | null;
} {
  const uses = opens(opener);
  // A ball takes the place of a wrench that would tip: then no jaw is set.
  const found = opener.jaws?.found;
  const seenFrom = workedFrom(back.kind);
  const choice = uses && found && opener.toolIds.includes(found.wrench.id) ? found.choice : null;
  return {
    // What nobody saw is not filled in.
    kind: kindKnown ? back.kind : null,
    openedWith: kindKnown && (uses || opener.verdict === 'not yet known') ? opener.opener : '',
    toolIds: uses ? opener.toolIds : [],
    separationMm: written(choice?.separationMm),
    rearMm: written(choice?.rearDistanceMm),
    spotClock: opener.spot?.clock ?? null,
    lipClock: turnedBack(back, seenFrom).lipClock,
    seenFrom,
  };
}

/** What comes off at these steps and is not on the tray yet, ready to be laid there. */
export function partsComingOff(
  steps: readonly PlanStep[],
  facts: Pick<Readonly<JobFacts>, 'parts'>,
): readonly (PlanPart & { readonly step: string })[] {
  const laid = new Set([...facts.parts.values()].map(({ off }) => off.payload.step));
  return steps
    .filter(({ id }) => !laid.has(id))
    .flatMap(({ id, off }) => off.map((part) => ({ ...part, step: id })));
}
