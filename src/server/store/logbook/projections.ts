import { deepEqual } from 'fast-equals';
import type { Customer, JobSummary } from '../../../contract';
import { waitsFor } from '../../../core/advice/dayplan';
import { litOf } from '../../../core/advice/charging';
import { runningOf } from '../../../core/advice/proving';
import { findable } from '../../../core/craft/find';
import {
  awaitedParts,
  elsewhereWords,
  isOnRack,
  type EntryOf,
  type JobContext,
  type JobState,
  looseCells,
  lyingOpen,
  watchName,
} from '../../../core/logbook';
import type { LogbookParts } from './parts';
import type { JobRow } from './rows';
import type { WrittenSummary } from './tables';

/** Who signed, and where, if not here. */
function signerOf(entry: EntryOf<'handback.signed'>): string {
  return [entry.payload.initials, elsewhereWords(entry)].filter(Boolean).join(' ');
}

/** A job as its envelope in the rack tells it. */
function summaryOf(job: JobRow, state: JobState, customer: Customer | null, now: JobContext): JobSummary {
  const { facts } = state;
  const watch = facts.watch?.payload;
  return {
    id: job.id,
    ticket: job.ticket,
    customerName: customer?.name ?? '',
    watch: watchName(watch),
    movement: facts.movement?.payload.code ?? null,
    service: facts.service?.payload.service ?? null,
    promisedAt: facts.promise?.payload.promisedAt ?? null,
    waitsFor: waitsFor(state),
    current: state.current,
    stages: state.progress.map(({ stage, status }) => ({ stage, status })),
    conflict: state.conflicts.length > 0,
    signedBy: state.signature.state === 'signed' ? signerOf(state.signature.entry) : null,
    collected: facts.collected !== null,
    receivedAt: job.createdAt,
    looseCells: looseCells(state),
    lyingOpen: lyingOpen(facts),
    running: facts.watched || facts.proving ? runningOf(state, now.catalogue) : [],
    lit: facts.underLight ? litOf(state, now) : null,
    partsExpectedOn: awaitedParts(facts)?.payload.expectedOn ?? null,
  };
}

/** The words a job is found by. */
function searchText(job: JobRow, { facts }: JobState, customer: Customer | null): string {
  const watch = facts.watch?.payload;
  return [
    job.ticket,
    job.cameAs,
    customer?.name,
    customer?.phone.replaceAll(' ', ''),
    watch?.maker,
    watch?.reference,
    watch?.serial,
    watch?.engraved,
    facts.engraving?.payload.text,
    facts.movement?.payload.code,
    ...[...facts.cellsFitted.values()].map((fitted) => fitted.payload.cellCode),
    facts.accumulator?.payload.kitCode,
  ]
    .filter(Boolean)
    .join(' ');
}

/**
 * Inside a write: works out anew all that is kept beside a job, from the job as it stands now. `before`: as it stood
 * before one more entry; what that left as it was is not written again.
 */
export function updateProjections(
  parts: LogbookParts,
  job: JobRow,
  state: JobState,
  before: JobState | null = null,
): void {
  const { summaries, finder, movements, cells, leaks, people } = parts;
  const now = parts.contextNow();
  const { facts } = state;
  const customer = people.customerOfJob(job.id);
  const summary = summaryOf(job, state, customer, now);
  const written = summaries.written(job.id);
  const wanted: WrittenSummary = {
    onRack: isOnRack(state) ? 1 : 0,
    promisedAt: summary.promisedAt,
    search: searchText(job, state, customer),
    summary: JSON.stringify(summary),
    basis: parts.basisOf(now),
  };
  if (written?.search !== wanted.search) finder.remember(job.number, findable(wanted.search));
  if (!deepEqual(written, wanted)) summaries.write(job.id, wanted);
  const { back, decision } = facts;
  if (before === null || before.facts.back !== back || before.facts.decision !== decision)
    summaries.noteTools(
      job.id,
      back?.payload.toolIds ?? [],
      back?.occurredAt ?? '',
      decision?.payload.reason === 'no suitable opener' ? decision.occurredAt : null,
    );
  movements.update(job.id, state);
  cells.update(job, state, before);
  // Most jobs are never tested: nothing is looked up for them.
  if (facts.tests.length > 0 || before === null || before.facts.tests.length > 0) leaks.update(job.id, state);
  parts.visits.update(job, state);
  updateLives(parts, job, state, now);
}

/** Inside a write: what the job tells of the life of its watch's cells. */
function updateLives({ lives, stock }: LogbookParts, job: JobRow, state: JobState, now: JobContext): void {
  const fitted = [...state.facts.cellsFitted.values()].flatMap(({ payload }) => payload.lotId ?? []);
  lives.update(job, state, stock.datesOfLots(fitted), now);
}

/** Inside a write: the same for every job of an owner whose name or number changed. */
export function updateProjectionsOfOwner(parts: LogbookParts, customerId: string): void {
  for (const job of parts.jobs.ofCustomer(customerId))
    updateProjections(parts, job, parts.fold(parts.entries.of(job.id)));
}
