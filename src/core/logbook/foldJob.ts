import type { Book } from '../craft/book';
import { readCellMarking } from '../craft/cells';
import { asRevision, type Calibre, type Well } from '../craft/movements';
import type { CaseType } from '../craft/cases';
import type { Requirement, StageId } from '../craft/policy';
import { type Entry, foldEntry, type JobFacts, noFacts, reopens } from './entry';
import { MAIN_WELL, type StandsFor } from './envelope';
import { requiredOf, stageProgress, type StageProgress } from './progress';
import { inSequence, settleEntries } from './settle';
import type { Conflict, JobContext, Signature, WellState } from './state';
export interface JobState {
  readonly facts: Readonly<JobFacts>;
  /** Entries that stand, in the order they count: a correction stands in the place of what it corrects. */
  readonly standing: readonly Entry[];
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

function wellsOf(facts: JobFacts, calibre: Calibre | null, catalogue: Book): WellState[] {
  const single = (calibre?.wells.length ?? 1) <= 1;
  const state = (name: string, well: Well | null): WellState => {
    const key = single ? MAIN_WELL : name;
    const found = facts.cellsFound.get(key) ?? null;
    const marking = found?.payload.marking ?? null;
    const foundReading = marking === null ? null : readCellMarking(marking, catalogue.cellTable);
    return {
      name: key,
      well,
      wanted: calibre && well ? catalogue.wanted(calibre, well) : null,
      found,
      foundReading,
      foundCell: foundReading?.verdict === 'read' ? foundReading.cell : null,
      fitted: facts.cellsFitted.get(key) ?? null,
      putBack: facts.putBack.get(key) ?? null,
      oldSettled: facts.oldSettled.get(key) ?? null,
      measured: facts.wellsMeasured.get(key) ?? null,
    };
  };
  // A calibre whose places for cells nobody has entered yet has one, like any movement.
  return calibre && calibre.wells.length > 0
    ? calibre.wells.map((well) => state(well.name, well))
    : [state(MAIN_WELL, null)];
}

/**
 * The state of a job: its entries folded in server sequence and judged against catalogue and policy. Pure; the
 * same entries give the same state in the browser and on the server.
 */
export function foldJob(entries: readonly Entry[], context: JobContext): JobState {
  const ordered = inSequence(entries);
  const { standing, replaced, conflicts } = settleEntries(ordered);
  const facts = noFacts();
  // Where corrections disagree the first of them, as long as the conflict is open.
  const standsFor: StandsFor = (id) =>
    replaced.get(id)?.find(({ withdraws }) => withdraws === null)?.id ?? id;
  for (const entry of standing) foldEntry(facts, entry, standsFor);
  const { movement } = facts;
  const inBook = context.catalogue.calibre(movement?.payload.calibreId ?? null);
  const calibre = inBook && asRevision(inBook, movement?.payload.revision ?? null);
  const caseType = context.catalogue.caseTypeOfReference(facts.watch?.payload.reference ?? '');
  const wells = wellsOf(facts, calibre, context.catalogue);
  const signature = signatureOf(facts, ordered);
  const required = requiredOf({ facts }, context.policy);
  const progress = stageProgress(
    { facts, wells, conflicts, signature, calibre, caseType },
    required,
    context.policy,
  );
  return {
    facts,
    standing,
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

/** This technician's last standing entry of the job, which an undo offers to withdraw. Signatures are not undone. */
export function undoable(state: JobState, technicianId: string): Entry | null {
  const own = state.standing.filter(
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
