import type { JobResource } from '../../contract';
import { handback, type Handback } from '../../core/advice/handback';
import { elsewhereWords, foldJob, type JobContext, type JobState, type Statement } from '../../core/logbook';
import { notFound } from '../problem';
import type { Store } from '../store/store';

/** A job with everything its papers need. */
export interface Dossier {
  readonly resource: JobResource;
  readonly state: JobState;
  readonly context: JobContext;
  readonly handback: Handback;
  /** The statement as signed, or as it would be signed now. */
  readonly statement: Statement;
  readonly signedBy: {
    readonly initials: string;
    readonly name: string;
    readonly atUtc: string;
    /** Where, if not here. */
    readonly where: string | null;
  } | null;
}

/** Reads a job and works out what its papers say. Once signed they say what was signed, whatever came after. */
export function dossierOf(store: Store, jobId: string): Dossier {
  const resource = store.logbook.job(jobId);
  if (!resource) throw notFound('such job');
  const context = store.context();
  const state = foldJob(resource.entries, context);
  const result = handback(state, resource.lots, context);
  const signature = state.signature.state === 'unsigned' ? null : state.signature.entry;
  return {
    resource,
    state,
    context,
    handback: result,
    statement: signature?.payload.statement ?? result.statement,
    signedBy: signature && {
      initials: signature.payload.initials,
      name: store.shops.technician(signature.technicianId)?.name ?? signature.payload.initials,
      atUtc: signature.occurredAt,
      where: elsewhereWords(signature),
    },
  };
}
