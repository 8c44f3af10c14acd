import { closeSync, existsSync, openSync, readSync } from 'node:fs';

/** Where the format of SQLite keeps the number a program gives a database: in its first page, big-endian. */
const VERSION_AT = 60;
/** A write-ahead log: its own heading, then frames, each with the number of its page first. */
const LOG_HEADING_BYTES = 32;
const FRAME_HEADING_BYTES = 24;

export const logOf = (database: string): string => `${database}-wal`;
export const logIndexOf = (database: string): string => `${database}-shm`;

/** A number of a file at a place; null where the file ends before it or is not there. */
function numberAt(file: string, position: number): number | null {
  if (!existsSync(file)) return null;
  const handle = openSync(file, 'r');
  try {
    const bytes = Buffer.alloc(4);
    return readSync(handle, bytes, 0, 4, position) === 4 ? bytes.readInt32BE() : null;
  } finally {
    closeSync(handle);
  }
}

/**
 * Whether the write-ahead log beside a database was written for another one, so that replaying it would ruin both. Each log
 * begins with the number of the database raised by one (`guardDatabase`), and that reaches the database with the log's
 * last page: so the numbers are equal or follow each other. A log that does not begin so comes from an earlier program, and
 * nothing can be told of it. Only for a database that this process has not open: closing the file drops its locks.
 */
export function isForeignLog(database: string): boolean {
  const log = logOf(database);
  if (numberAt(log, LOG_HEADING_BYTES) !== 1) return false;
  const logged = numberAt(log, LOG_HEADING_BYTES + FRAME_HEADING_BYTES + VERSION_AT);
  const own = numberAt(database, VERSION_AT);
  if (logged === null || own === null) return false;
  return own !== logged && own !== logged - 1;
}
