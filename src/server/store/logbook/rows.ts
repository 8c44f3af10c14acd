import { deepEqual } from 'fast-equals';
import { z } from 'zod';
import {
  ENTRY_KINDS,
  type FOLLOWS,
  type NewEntry,
  readStored,
  type UnreadableEntry,
} from '../../../contract';
import type { Entry, EntryKind } from '../../../core/logbook';
import { parsedJson } from '../../json';

export interface EntryRow {
  sequence: number;
  id: string;
  jobId: string;
  kind: string;
  payloadVersion: number;
  payload: string;
  occurredAt: string;
  recordedAt: string;
  counter: string | null;
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

const ids = z.array(z.string());

const isKind = (kind: string): kind is EntryKind => (ENTRY_KINDS as readonly string[]).includes(kind);

export type ReadRow =
  | { readonly verdict: 'read'; readonly entry: Entry }
  | { readonly verdict: 'unreadable'; readonly line: UnreadableEntry };

/** A stored row as an entry of today, an older payload raised to the current version; or a line that says why not. */
export function readRow(row: EntryRow): ReadRow {
  const { payloadVersion, payload: text, supersedes, attachments, ...rest } = row;
  const { id, sequence, kind, occurredAt, recordedAt, technicianId } = row;
  const unreadable = (reason: string): ReadRow => ({
    verdict: 'unreadable',
    line: { id, sequence, kind, occurredAt, recordedAt, technicianId, reason },
  });
  const reading = readStored(kind, payloadVersion, parsedJson(text));
  if (reading.verdict === 'unreadable') return unreadable(reading.reason);
  const corrects = ids.safeParse(parsedJson(supersedes));
  const files = ids.safeParse(parsedJson(attachments));
  if (!isKind(kind) || !corrects.success || !files.success)
    return unreadable('what it corrects or brings along cannot be read');
  // The kind's own schema has read the payload, which a kind known only now does not tell the compiler.
  const entry = {
    ...rest,
    payload: reading.payload,
    supersedes: corrects.data,
    attachments: files.data,
  } as unknown as Entry;
  return { verdict: 'read', entry };
}

/** An entry as it is offered to a job: without the server's part. */
export function offeredTo(jobId: string, { payloadVersion: _, ...entry }: NewEntry): Entry {
  return { ...entry, jobId, sequence: null, recordedAt: null, counter: null };
}

/** Whether an entry sent again is the one on record, but for what the server added. */
export function sameBody(a: Entry, b: Entry): boolean {
  const withoutRecord = (entry: Entry) => ({ ...entry, sequence: null, recordedAt: null, counter: null });
  return deepEqual(withoutRecord(a), withoutRecord(b));
}

/** The lots that entries name. */
export function lotsNamedIn(entries: readonly Entry[]): readonly string[] {
  return entries.flatMap(({ payload }) =>
    'lotId' in payload && payload.lotId !== null ? [payload.lotId] : [],
  );
}
