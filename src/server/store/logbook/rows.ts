import { deepEqual } from 'fast-equals';
import { type FOLLOWS, kindDefinition, type NewEntry, raisePayload } from '../../../contract';
import type { Entry, EntryKind } from '../../../core/logbook';

export interface EntryRow {
  sequence: number;
  id: string;
  jobId: string;
  kind: EntryKind;
  payloadVersion: number;
  payload: string;
  occurredAt: string;
  recordedAt: string;
  technicianId: string;
  bench: string;
  well: string | null;
  supersedes: string;
  withdraws: string | null;
  attachments: string;
}

export interface JobRow {
  id: string;
  number: number;
  ticket: string;
  visitId: string;
  watchId: string;
  createdAt: string;
  followsJobId: string | null;
  followsWhy: (typeof FOLLOWS)[number] | null;
  /** The ticket it had at the counter it came from. */
  cameAs: string | null;
}

/** A stored row as an entry of today: an older payload is raised to the current version. */
export function toEntry(row: EntryRow): Entry {
  const definition = kindDefinition(row.kind);
  const stored: unknown = JSON.parse(row.payload);
  const { payloadVersion, ...rest } = row;
  return {
    ...rest,
    payload:
      payloadVersion === definition.version ? stored : raisePayload(definition, payloadVersion, stored),
    supersedes: JSON.parse(row.supersedes) as string[],
    attachments: JSON.parse(row.attachments) as string[],
  } as Entry;
}

/** An entry as it is offered to a job: without the server's part. */
export function offeredTo(jobId: string, { payloadVersion: _, ...told }: NewEntry): Entry {
  return { ...told, jobId, sequence: null, recordedAt: null };
}

/** Whether an entry sent again is the one on record, but for what the server added. */
export function sameBody(a: Entry, b: Entry): boolean {
  return deepEqual({ ...a, sequence: null, recordedAt: null }, { ...b, sequence: null, recordedAt: null });
}

/** The lots that entries name. */
export function lotsNamedIn(entries: readonly Entry[]): readonly string[] {
  return entries.flatMap(({ payload }) =>
    'lotId' in payload && payload.lotId !== null ? [payload.lotId] : [],
  );
}
