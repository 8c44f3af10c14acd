import { randomInt } from 'node:crypto';
import { type BigIntStats, mkdirSync, renameSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type Database from 'better-sqlite3';
import { logIndexOf, logOf } from './databaseLog';

/** How the file at the path of the database stands to the one that is open. */
export type DatabasePresence = 'ours' | 'gone' | 'replaced';

/** The database at its path is no longer the one that is open: nothing is written to either. */
export class DatabaseLost extends Error {
  constructor(readonly presence: Exclude<DatabasePresence, 'ours'>) {
    super(`The database is ${presence}.`);
  }
}

export interface Guard {
  /** Throws `DatabaseLost` where file or log at the path are not the open ones, or somebody else wrote to the file. */
  check(): void;
  /** The same, where no check was made a moment ago: before a write, which is checked again afterwards. */
  checkUnlessJust(): void;
  /** After a write and its check: moves what the log holds into the database from time to time. */
  tend(): void;
  /** Moves all of it, and leaves nothing of it on the disk: what was erased stands in the log, too. */
  empty(): void;
  /** Ends the connection. Of a database that was replaced nothing is moved into the file that took its place. */
  close(): void;
}

/** Where a data folder keeps what was recorded and is not in its database. */
export const keptIn = (dataDir: string): string => join(dataDir, 'kept');

/** After so many writes the log is moved into the database and written over from its beginning: growing costs time. */
const WRITES_PER_LOG = 100;
/** A log that grew beyond this gives its place on the disk back. */
const MOST_LOG_BYTES = 16 * 1024 * 1024;
/** A request is checked as it comes and written within this, ms. */
const JUST_MS = 50;
const HIGHEST_VERSION = 2 ** 30;

const found = (file: string): BigIntStats | undefined =>
  statSync(file, { bigint: true, throwIfNoEntry: false });

const identityOf = (stats: BigIntStats | undefined): string | null =>
  stats ? `${stats.dev}:${stats.ino}` : null;
const identity = (file: string): string | null => identityOf(found(file));

/** What tells whether anybody wrote to a file: in write-ahead mode only `checkpoint` writes to a database. */
const footprint = (file: string): string | null => {
  const stats = found(file);
  return stats ? `${stats.dev}:${stats.ino}:${stats.size}:${stats.mtimeNs}` : null;
};

/**
 * Watches over an open database: whether a copy was put in its place or it was taken away, which SQLite does not notice.
 * Moves the log into the database itself, so that any other change of the file is somebody else's; and begins each log with
 * the number of the database raised by one, so that a log left beside another database is known (`isForeignLog`).
 */
export function guardDatabase(db: Database.Database): Guard {
  const file = db.name;
  let seen: string | null = null;
  let log: string | null = null;
  let logBytes = 0;
  let writes = 0;
  let checkedAtMs = Number.NEGATIVE_INFINITY;
  let isReplaced = false;

  const version = (): number => db.pragma('user_version', { simple: true }) as number;
  const checkpoint = (how: 'RESTART' | 'TRUNCATE'): void => {
    const [moved] = db.pragma(`wal_checkpoint(${how})`) as [{ busy: number }];
    // Another program reads: the log grows on until it has done.
    if (moved.busy === 0) db.pragma(`user_version = ${version() + 1}`);
    seen = footprint(file);
    log = identity(logOf(file));
    writes = 0;
  };

  /** The log of a database that was replaced would be replayed over what took its place: it is kept elsewhere. */
  const setLogAside = (): void => {
    if (log === null || identity(logOf(file)) !== log) return;
    const folder = keptIn(dirname(file));
    mkdirSync(folder, { recursive: true });
    const stamp = new Date().toISOString().replaceAll(':', '-');
    for (const each of [logOf(file), logIndexOf(file)])
      if (identity(each) !== null) renameSync(each, join(folder, `${stamp}-${basename(each)}`));
  };

  db.pragma('wal_autocheckpoint = 0');
  // A new database gets a number no other has; it is in the file itself before the first log begins.
  if (version() === 0) db.pragma(`user_version = ${randomInt(1, HIGHEST_VERSION)}`);
  checkpoint('TRUNCATE');

  const check = (): void => {
    if (isReplaced) throw new DatabaseLost('replaced');
    const now = footprint(file);
    // Taken away and put back as it was, it is ours again.
    const logNow = found(logOf(file));
    if (now === seen && identityOf(logNow) === log) {
      logBytes = Number(logNow?.size ?? 0);
      checkedAtMs = performance.now();
      return;
    }
    if (now === null || now === seen) throw new DatabaseLost('gone');
    isReplaced = true;
    setLogAside();
    throw new DatabaseLost('replaced');
  };

  return {
    check,
    checkUnlessJust() {
      if (performance.now() - checkedAtMs > JUST_MS) check();
    },
    tend() {
      writes += 1;
      if (writes >= WRITES_PER_LOG) checkpoint(logBytes > MOST_LOG_BYTES ? 'TRUNCATE' : 'RESTART');
    },
    empty() {
      check();
      checkpoint('TRUNCATE');
    },
    close() {
      try {
        check();
      } catch (error) {
        // Closing would move the log into what took its place. The process ends soon, and the system closes what is open.
        if (error instanceof DatabaseLost && error.presence === 'replaced') return;
      }
      db.close();
    },
  };
}
