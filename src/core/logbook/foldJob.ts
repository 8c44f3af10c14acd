import type { Book } from '../catalogue';
import type { CellWanted } from '../cells';
import { MAIN_WELL, type Entry, type EntryOf, type JobFacts, type StandsFor } from './entry';
import { foldEntry, reopens } from './kinds';
import { type Policy, type Shop, type StageId } from '../policy';
import { asRevision, type Calibre, type CaseType, type Well } from '../movements';
import { stageProgress, type StageProgress } from './progress';

/** What a job is judged against. */
export interface JobContext {
  readonly catalogue: Book;
  readonly policy: Policy;
  readonly shop: Shop;
  readonly nowUtc: string;
}

/** Two or more corrections that name the same entry; all stay until someone settles it. */
export interface Conflict {
  readonly target: Entry;
  readonly rivals: readonly Entry[];
}

export type Signature =
  | { readonly state: 'unsigned' }
  | { readonly state: 'signed'; readonly entry: EntryOf<'handback.signed'> }
  | { readonly state: 'reopened'; readonly entry: EntryOf<'handback.signed'>; readonly by: readonly Entry[] };

export interface WellState {
  readonly name: string;
  /** The book's well, where the movement is in the book. */
  readonly well: Well | null;
  readonly wanted: CellWanted | null;
  readonly found: EntryOf<'cell.found'> | null;
  readonly fitted: EntryOf<'cell.fitted'> | null;
  readonly putBack: EntryOf<'cell.put-back'> | null;
  readonly oldSettled: EntryOf<'cell.old-settled'> | null;
  readonly measured: EntryOf<'cell.well-measured'> | null;
}

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
  readonly progress: readonly StageProgress[];
  readonly current: StageId | null;
  readonly signature: Signature;
  readonly lastSequence: number;
}

function emptyFacts(): JobFacts {
  return {
    received: null,
    watch: null,
    complaint: null,
    cellHistory: null,
    wear: null,
    originality: null,
    marks: [],
    service: null,
    estimate: null,
    agreements: [],
    decision: null,
    ready: null,
    partsRequest: null,
    partsArrived: null,
    promise: null,
    consent: null,
    back: null,
    asFound: null,
    techniques: [],
    prints: [],
    seals: null,
    measured: null,
    stepsDone: new Map(),
    photoMarks: [],
    insideSerial: null,
    together: [],
    paired: null,
    now: null,
    parts: new Map(),
    engraving: null,
    evidence: new Map(),
    movement: null,
    readings: new Map(),
    pulses: null,
    looked: null,
    leakages: [],
    diagnosis: null,
    cellsFound: new Map(),
    cellsFitted: new Map(),
    putBack: new Map(),
    accumulator: null,
    charges: [],
    oldSettled: new Map(),
    wellsMeasured: new Map(),
    usage: null,
    cellsOut: new Map(),
    dropped: new Map(),
    fittingDone: new Map(),
    gasket: null,
    otherSeals: null,
    closed: null,
    tests: [],
    runs: null,
    timeSet: null,
    functions: null,
    outside: null,
    runBegan: null,
    runEnded: null,
    price: null,
    signed: null,
    collected: null,
    skips: new Map(),
  };
}

/** Server order; entries still waiting in the browser come after, as they were made. */
function inSequence(entries: readonly Entry[]): Entry[] {
  return entries
    .map((entry, index) => ({ entry, index }))
    .sort(
      (a, b) =>
        (a.entry.sequence ?? Number.MAX_SAFE_INTEGER) - (b.entry.sequence ?? Number.MAX_SAFE_INTEGER) ||
        a.index - b.index,
    )
    .map(({ entry }) => entry);
}

interface Settled {
  readonly standing: Entry[];
  readonly replaced: Map<string, Entry[]>;
  readonly conflicts: Conflict[];
}

/**
 * Which entries stand. An entry falls when a later entry supersedes or withdraws it; only withdrawing a correction brings
 * back what it corrected, correcting it once more does not. Corrections of one entry that stand beside each other are a
 * conflict, and all of them stand.
 */
export function settleEntries(ordered: readonly Entry[]): Settled {
  const at = new Map(ordered.map((entry, index) => [entry.id, index]));
  const rivals = new Map<string, Entry[]>();
  ordered.forEach((entry, index) => {
    for (const target of [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])]) {
      // Only what came before can be corrected: a reference forward or to itself counts for nothing.
      if ((at.get(target) ?? Infinity) < index) rivals.set(target, [...(rivals.get(target) ?? []), entry]);
    }
  });
  // From the last entry back: what came later is settled by then.
  const withdrawn = new Set<string>();
  /** What stands in the place of an entry that fell: of a correction corrected again the last. */
  const replaced = new Map<string, Entry[]>();
  const conflicts: Conflict[] = [];
  for (const target of [...ordered].reverse()) {
    const counting = (rivals.get(target.id) ?? []).filter((rival) => !withdrawn.has(rival.id));
    if (counting.length === 0) continue;
    if (counting.some((rival) => rival.withdraws === target.id)) withdrawn.add(target.id);
    const inItsPlace = [...new Set(counting.flatMap((rival) => replaced.get(rival.id) ?? [rival]))];
    replaced.set(target.id, inItsPlace);
    // A conflict further down the chain is told there, once.
    if (counting.length > 1 && inItsPlace.length > 1) conflicts.unshift({ target, rivals: inItsPlace });
  }
  // In server order, so that what an entry corrects has its place before the entry does.
  const places = new Map<string, number>();
  ordered.forEach((entry, index) => {
    const corrected = entry.supersedes.flatMap((target) => places.get(target) ?? []);
    places.set(entry.id, Math.min(index, ...corrected));
  });
  const standing = ordered
    .filter((entry) => !replaced.has(entry.id))
    .map((entry) => ({ entry, place: places.get(entry.id) ?? 0, index: at.get(entry.id) ?? 0 }))
    .sort((a, b) => a.place - b.place || a.index - b.index)
    .map(({ entry }) => entry);
  return { standing, replaced, conflicts };
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
    return {
      name: key,
      well,
      wanted: calibre && well ? catalogue.wanted(calibre, well) : null,
      found: facts.cellsFound.get(key) ?? null,
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
  const facts = emptyFacts();
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
  const progress = stageProgress({ facts, wells, conflicts, signature }, context.policy);
  return {
    facts,
    standing,
    replaced,
    standsFor,
    conflicts,
    calibre,
    caseType,
    wells,
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
