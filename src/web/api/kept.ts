import { type NewEntry, upcastNewEntry, readStored } from '../../contract';
import { entryInWords } from '../../core/logbook';
import type { WaitingEntry } from './browserStore';

/** An entry kept by an older page as today's has it; one of a newer page, or of none, needs a person and holds up nobody. */
export function asOfToday(kept: WaitingEntry): WaitingEntry {
  const { entry } = kept;
  const reading = readStored(entry.kind, entry.payloadVersion, entry.payload);
  return reading.verdict === 'read'
    ? { ...kept, entry: upcastNewEntry(entry) as NewEntry }
    : {
        ...kept,
        refused: {
          type: '/problems/unreadable-here',
          title: 'Unreadable entry',
          status: 422,
          detail: `This page cannot read an entry stored in this browser: ${reading.reason}.`,
          whatToDo:
            'Reload the page to get the newest version. If that does not help, record the fact again and discard this entry.',
        },
      };
}

/** Whether a record has the shape of a waiting entry, so far that its entry can be looked at. */
function isWaiting(record: unknown): record is WaitingEntry {
  if (typeof record !== 'object' || record === null || !('entry' in record) || !('jobId' in record))
    return false;
  const { entry, jobId } = record;
  return typeof jobId === 'string' && typeof entry === 'object' && entry !== null && 'kind' in entry;
}

/**
 * A kept record as today's page has it, whatever it is: one that is no entry, or whose reading fails, is set aside by itself,
 * for a person to discard.
 */
export function asKept(id: string, record: unknown): WaitingEntry {
  try {
    if (isWaiting(record)) return asOfToday(record);
  } catch {
    // It is told like one that is no entry.
  }
  return {
    id,
    order: 0,
    jobId: '',
    entry: { id, kind: 'unreadable', payloadVersion: 0, payload: null } as unknown as NewEntry,
    refused: {
      type: '/problems/unreadable-here',
      title: 'Unreadable entry',
      status: 422,
      detail: 'A record that waits in this browser is damaged and cannot be read.',
      whatToDo:
        'Check the logbook for your last record. If it is missing, record it again. Then discard this one.',
    },
  };
}

/** A waiting entry in words, whatever page left it. */
export function waitingInWords({ entry }: WaitingEntry): string {
  return isReadable(entry) ? entryInWords(entry) : `an entry of the kind ${entry.kind}`;
}

/** Whether this page can read an entry that waits. */
export function isReadable({ kind, payloadVersion, payload }: NewEntry): boolean {
  return readStored(kind, payloadVersion, payload).verdict === 'read';
}
