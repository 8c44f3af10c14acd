import type { Entry, JobState } from '../../logbook';
import type { Book } from '../../craft/book';
import { engravedCase } from '../../craft/movements';
import { type Look, LOOK_NAMES, type Seen } from '../../craft/identify';
/** One piece of evidence of a job, and where it comes from. */
export interface JobEvidence {
  readonly look: Look;
  /** Null: it does not count, for the reason `without`. */
  readonly seen: Seen | null;
  /** Another stage recorded it and a hand left it out, or nobody can see it. */
  readonly without: 'left out' | 'cannot be seen' | null;
  /** What another stage recorded, or what was recorded for this. */
  readonly from: 'here' | 'arrival' | 'the engraving' | 'the cell found' | 'the print inside';
  /** The entry that holds it, where it is of this stage. */
  readonly entryId: string | null;
}

/** What another stage tells, with the entry it rests on. */
type Derived = JobEvidence & { readonly restsOn: Entry | null };

function derived(state: JobState, book: Book): Derived[] {
  const { facts, wells, caseType } = state;
  const text = facts.engraving?.payload.text ?? null;
  const at = (
    look: Look,
    value: string | number,
    from: JobEvidence['from'],
    restsOn: Entry | null,
    entryId: string | null = null,
  ): Derived => ({
    look,
    seen: { look, value, withinMm: 0 },
    without: null,
    from,
    restsOn,
    entryId,
  });
  const found = wells[0]?.found ?? null;
  const engraved = text === null || caseType !== null ? null : engravedCase(text, book);
  const cell = wells[0]?.foundCell ?? null;
  const prints = facts.prints.map(({ payload }) => payload.text).join(' ');
  return [
    ...(text === null ? [] : [at('engraving', text, 'here', facts.engraving, facts.engraving?.id ?? null)]),
    ...(caseType !== null
      ? [at('caseCode', caseType.code, 'arrival', facts.watch)]
      : engraved
        ? [at('caseCode', engraved.code, 'the engraving', facts.engraving)]
        : []),
    ...(cell !== null && cell.diameterMm !== null && cell.heightMm !== null
      ? [
          at('cellDiameterMm', cell.diameterMm, 'the cell found', found),
          at('cellHeightMm', cell.heightMm, 'the cell found', found),
        ]
      : []),
    ...(prints === '' ? [] : [at('print', prints, 'the print inside', facts.prints.at(-1) ?? null)]),
  ];
}

/**
 * Everything a job knows that tells which movement is in the watch, by look: what was recorded for it, and what other
 * stages recorded (case, cell found, print inside), unless it was left out by hand. What nobody could see, and was seen
 * since, counts.
 */
export function evidenceOfJob(state: JobState, book: Book): readonly JobEvidence[] {
  const elsewhere = new Map(derived(state, book).map((each) => [each.look, each]));
  const place = new Map(state.activeEntries.map((entry, index) => [entry.id, index]));
  const placeOf = (entry: Entry | null | undefined): number => (entry ? (place.get(entry.id) ?? -1) : -1);
  const own = new Map(
    [...state.facts.evidence.values()].flatMap((entry): [Look, JobEvidence][] => {
      const { look, value, withinMm } = entry.payload;
      const seenElsewhere = elsewhere.get(look);
      if (value === null && seenElsewhere && placeOf(seenElsewhere.restsOn) > placeOf(entry)) return [];
      return [
        [
          look,
          {
            look,
            seen: value === null ? null : { look, value, withinMm },
            without: value !== null ? null : seenElsewhere ? 'left out' : 'cannot be seen',
            from: 'here',
            entryId: entry.id,
          },
        ],
      ];
    }),
  );
  return LOOK_NAMES.flatMap((look) => own.get(look) ?? elsewhere.get(look) ?? []);
}

/** The movement lies under its hatch or in its module and is not seen. */
export function movementHidden({ facts }: Pick<JobState, 'facts'>): boolean {
  return facts.back?.payload.kind === 'battery hatch';
}
