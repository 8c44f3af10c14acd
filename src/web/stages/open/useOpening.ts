import { useMemo } from 'react';
import {
  BACK_KINDS,
  type BackKind,
  chooseOpener,
  type MeasuredBack,
  measuresOf,
  NOTHING_MEASURED,
  type OpenerChoice,
  openingPlan,
  type OpeningPlan,
} from '../../../core/backs';
import type { Payloads } from '../../../core/logbook';
import { type OpenJob, useJob } from '../../job/JobContext';

export interface Opening {
  readonly back: MeasuredBack;
  /** Whether anybody said what kind of back it is: the bench, the book, or an earlier visit. */
  readonly kindKnown: boolean;
  readonly opener: OpenerChoice;
  readonly plan: OpeningPlan;
  readonly crownClock: number | null;
}

function knownBack(kind: string | undefined): BackKind | null {
  return BACK_KINDS.find((each) => each === kind) ?? null;
}

/** What is known of the back before it is measured here: as it was last time, else as the book has it. */
export function expectedBack({ state, earlier }: Pick<OpenJob, 'state' | 'earlier'>): MeasuredBack {
  const { caseType } = state;
  const last = earlier?.history.measured;
  if (last) return last;
  return {
    ...NOTHING_MEASURED,
    ...(caseType?.back ?? {}),
    kind: knownBack(caseType?.backKind) ?? 'snap-on',
    chordMm: null,
    lipClock: caseType?.lipClock ?? null,
    bracelet: 'strap on spring bars',
    pusherClocks: [],
  };
}

/** A back without the measures that another kind would have: a notch count says nothing of a snap-on. */
function ofKind(back: MeasuredBack): MeasuredBack {
  const kept = measuresOf(back.kind);
  const rest = Object.fromEntries(Object.entries(back).filter(([field]) => kept.includes(field as never)));
  return {
    ...NOTHING_MEASURED,
    chordMm: null,
    lipClock: null,
    pusherClocks: [],
    ...rest,
    kind: back.kind,
    bracelet: back.bracelet,
  };
}

type Opened = Payloads['open.back'];

const toHundredths = (value: number | null | undefined): number | null =>
  typeof value === 'number' ? Number(value.toFixed(2)) : null;

/** What the lamp would have opened it with, as a fact to be recorded. */
export function asAdvised({ back, opener }: Opening): Omit<Opened, 'protection' | 'went'> {
  const uses = opener.verdict === 'opens with' || opener.verdict === 'with care';
  // A ball takes the place of a wrench that would tip: then no jaw is set.
  const found = opener.jaws?.found;
  const choice = uses && found && opener.toolIds.includes(found.wrench.id) ? found.choice : null;
  return {
    kind: back.kind,
    openedWith: uses || opener.verdict === 'not yet known' ? opener.opener : '',
    toolIds: uses ? opener.toolIds : [],
    separationMm: toHundredths(choice?.separationMm),
    rearMm: toHundredths(choice?.rearDistanceMm),
    spotClock: opener.spot?.clock ?? null,
    lipClock: back.lipClock,
  };
}

/** The back as it is typed just now, recorded, or expected, and what the lamp makes of it. */
export function useOpening(): Opening {
  const job = useJob();
  const { state, draft, book, context, earlier } = job;
  const { facts, caseType, calibre } = state;
  const typed = draft.back;
  return useMemo(() => {
    const told = typed ? (JSON.parse(typed) as { back: MeasuredBack; chosen: boolean }) : null;
    // What is half typed is no figure yet.
    const figures = (list: readonly (number | null)[]): number[] =>
      list.filter((each): each is number => each !== null);
    const known = told
      ? {
          ...told.back,
          notchClocks: figures(told.back.notchClocks),
          pusherClocks: figures(told.back.pusherClocks),
        }
      : (facts.measured?.payload ?? null);
    const expected = expectedBack({ state, earlier });
    const opened = facts.back?.payload.kind;
    const back = ofKind({ ...(known ?? expected), ...(opened ? { kind: opened } : {}) });
    const crownClock = facts.watch?.payload.crownClock ?? caseType?.crownClock ?? null;
    const opener = chooseOpener({ back, tools: book, crownClock });
    const last = earlier?.history.lastOpening;
    const plan = openingPlan({
      back,
      opener,
      tools: book,
      schools: context.policy.schools,
      keepsFilm: facts.marks.some(({ payload }) => payload.film === 'keep'),
      functions: calibre?.functions ?? [],
      innerCovers: facts.seals?.payload.innerCover ?? 0,
      lastTime: last
        ? {
            openedWith: last.openedWith,
            setting: [last.setting, ...(last.spotClock === null ? [] : [`at ${last.spotClock} o’clock`])]
              .filter(Boolean)
              .join(', '),
            notes: earlier.history.notes.slice(0, 3).map(({ text }) => text),
          }
        : null,
    });
    return {
      back,
      kindKnown:
        facts.measured !== null ||
        told?.chosen === true ||
        opened !== undefined ||
        caseType !== null ||
        Boolean(earlier?.history.measured),
      opener,
      plan,
      crownClock,
    };
  }, [typed, state, facts, caseType, calibre, book, context.policy.schools, earlier]);
}
