import { type NewEntry, raiseNewEntry, readStored } from '../../contract';
import { entryInWords } from '../../core/logbook';
import type { WaitingEntry } from './browserStore';

/** An entry kept by an older page as today's has it; one of a newer page, or of none, needs a person and holds up nobody. */
export function asOfToday(kept: WaitingEntry): WaitingEntry {
  const { entry } = kept;
  const reading = readStored(entry.kind, entry.payloadVersion, entry.payload);
  return reading.verdict === 'read'
    ? { ...kept, entry: raiseNewEntry(entry) as NewEntry }
    : {
        ...kept,
        refused: {
          type: '/problems/unreadable-here',
          title: 'Not readable here',
          status: 422,
          detail: `An entry that waits in this browser cannot be read by this page: ${reading.reason}.`,
          whatToDo:
            'Load the page again to get the newest one. If it stays so, record the fact anew and let this one go.',
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
