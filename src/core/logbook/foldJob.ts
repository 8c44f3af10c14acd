import type { Book } from '../craft/book';
import { asRevision, type Calibre, type Well } from '../craft/movements';
import type { CaseType } from '../craft/cases';
import { asMarked } from '../craft/cells';
import type { Requirement, StageId } from '../craft/policy';
import { type Entry, foldEntry, type JobFacts, noFacts, reopens } from './entry';
import { MAIN_WELL, type StandsFor } from './envelope';
import { requiredOf, stageProgress, type StageProgress } from './progress';
import { inSequence, resolveCorrections } from './corrections';
import type { Conflict, JobContext, Signature, WellState } from './state';
export interface JobState {
  readonly facts: Readonly<JobFacts>;
  /** Entries that stand, in the order they count: a correction stands in the place of what it corrects. */
  readonly activeEntries: readonly Entry[];
  /** Every entry by id, with what became of it. */
  readonly replaced: ReadonlyMap<string, readonly Entry[]>;
  /** What stands now for an entry that was corrected. */
  readonly standsFor: StandsFor;
  readonly conflicts: readonly Conflict[];
  readonly calibre: Calibre | null;
  readonly caseType: CaseType | null;
  readonly wells: readonly WellState[];
  /** What is asked for as the job stands, whether recorded or not. */
  readonly required: readonly Requirement[];
  readonly progress: readonly StageProgress[];
  readonly current: StageId | null;
  readonly signature: Signature;
  readonly lastSequence: number;
}

function signatureOf(facts: JobFacts, ordered: readonly Entry[]): Signature {
  const signed = facts.signed;
  if (!signed) return { state: 'unsigned' };
  const position = ordered.findIndex((entry) => entry.id === signed.id);
  const later = ordered.slice(position + 1).filter(reopens);
  return later.length > 0
    ? { state: 'reopened', entry: signed, by: later }
    : { state: 'signed', entry: signed };
}

/** The facts of one place for a cell; `before`: also those recorded before the places were told apart. */
function wellOfJob(
  facts: JobFacts,
  catalogue: Book,
  calibre: Calibre | null,
  name: string,
  well: Well | null,
  before = false,
): WellState {
  const at = <T>(recorded: ReadonlyMap<string, T>): T | null =>
    recorded.get(name) ?? (before ? recorded.get(MAIN_WELL) : undefined) ?? null;
  const found = at(facts.cellsFound);
  const marking = found?.payload.marking ?? null;
  const foundReading = marking === null ? null : catalogue.readMarking(marking);
  return {
    name,
    well,
    wanted: calibre && well ? catalogue.wanted(calibre, well) : null,
    found,
    foundReading,
    foundCell: foundReading && asMarked(foundReading, catalogue.cellTable),
    fitted: at(facts.cellsFitted),
    putBack: at(facts.putBack),
    oldSettled: at(facts.oldSettled),
    measured: at(facts.wellsMeasured),
  };
}

function wellsOf(facts: JobFacts, calibre: Calibre | null, catalogue: Book): WellState[] {
  const inBook = calibre?.wells ?? [];
  const [only] = inBook;
  if (only && inBook.length === 1) return [wellOfJob(facts, catalogue, calibre, MAIN_WELL, only)];
  if (inBook.length > 1) return inBook.map((well) => wellOfJob(facts, catalogue, calibre, well.name, well));
  // A movement whose places for cells nobody has entered yet has one, like any other, unless somebody saw two.
  const { places } = facts;
  return places === null
    ? [wellOfJob(facts, catalogue, calibre, MAIN_WELL, null)]
    : [
        wellOfJob(facts, catalogue, calibre, places.payload.first, null, true),
        wellOfJob(facts, catalogue, calibre, places.payload.second, null),
      ];
}

/**
 * The state of a job: its entries folded in server sequence and judged against catalogue and policy. Pure; the
 * same entries give the same state in the browser and on the server.
 */
export function foldJob(entries: readonly Entry[], context: JobContext): JobState {
  const ordered = inSequence(entries);
  const { activeEntries, replaced, conflicts } = resolveCorrections(ordered);
  const facts = noFacts();
  // Where corrections disagree the first of them, as long as the conflict is open.
  const standsFor: StandsFor = (id) =>
    replaced.get(id)?.find(({ withdraws }) => withdraws === null)?.id ?? id;
  for (const entry of activeEntries) foldEntry(facts, entry, standsFor);
  const { movement } = facts;
  const inBook = context.catalogue.calibre(movement?.payload.calibreId ?? null);
  const calibre = inBook && asRevision(inBook, movement?.payload.revision ?? null);
  const caseType = context.catalogue.caseTypeOfReference(facts.watch?.payload.reference ?? '');
  const wells = wellsOf(facts, calibre, context.catalogue);
  const signature = signatureOf(facts, ordered);
  const required = requiredOf({ facts }, context.policy);
  const progress = stageProgress(
    { facts, activeEntries, wells, conflicts, signature, calibre, caseType },
    required,
    context.policy,
  );
  return {
    facts,
    activeEntries,
    replaced,
    standsFor,
    conflicts,
    calibre,
    caseType,
    wells,
    required,
    progress,
    current: progress.find((stage) => stage.status === 'current')?.stage ?? null,
    signature,
    lastSequence: ordered.reduce((last, entry) => Math.max(last, entry.sequence ?? 0), 0),
  };
}

/** The entries that one entry stands in the place of, oldest first: what it corrected, and what that had corrected. */
export function replacedBy(
  entries: readonly Entry[],
  { replaced }: Pick<JobState, 'replaced'>,
  id: string,
): readonly Entry[] {
  return entries.filter((entry) => replaced.get(entry.id)?.some((later) => later.id === id) ?? false);
}

/** This technician's last standing entry of the job, which an undo offers to withdraw. Signatures are not undone. */
export function undoable(state: JobState, technicianId: string): Entry | null {
  const own = state.activeEntries.filter(
    (entry) =>
      entry.technicianId === technicianId &&
      entry.kind !== 'handback.signed' &&
      entry.kind !== 'logbook.withdrawn' &&
      entry.kind !== 'arrive.received',
  );
  return own.reduce<Entry | null>(
    (last, entry) =>
      last === null ||
      (entry.sequence ?? Number.MAX_SAFE_INTEGER) >= (last.sequence ?? Number.MAX_SAFE_INTEGER)
        ? entry
        : last,
    null,
  );
}
