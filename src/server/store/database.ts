import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { here } from '../here';
import { databaseOf, DataDirRefused } from './dataDir';
import { type Guard, guardDatabase } from './guard';

export type Db = Database.Database;

const MIGRATIONS = here(import.meta.url, 'migrations');

export interface Migration {
  readonly number: number;
  readonly name: string;
  readonly sql: string;
}

/** The numbered SQL files in order: 001_logbook.sql and on. */
export function readMigrations(folder: string = MIGRATIONS): Migration[] {
  return readdirSync(folder)
    .filter((file) => /^\d{3}_.+\.sql$/.test(file))
    .sort()
    .map((file) => ({
      number: Number(file.slice(0, 3)),
      name: file,
      sql: readFileSync(join(folder, file), 'utf8'),
    }));
}

/** Who watches over a database that is open as the shop's. */
const GUARDS = new WeakMap<Db, Guard>();

export const guardOf = (db: Db): Guard | undefined => GUARDS.get(db);

/**
 * A write as one immediate transaction: all of it or nothing, and never resting on what somebody else changes meanwhile.
 * Within another write it is part of that one. Throws `DatabaseLost` where the open database is not the one at its path.
 */
export function inTransaction<A extends unknown[], R>(db: Db, write: (...given: A) => R): (...given: A) => R {
  const transaction = db.transaction(write);
  return (...given) => {
    if (db.inTransaction) return transaction.immediate(...given);
    const guard = guardOf(db);
    guard?.checkUnlessJust();
    const written = transaction.immediate(...given);
    // What a copy was put over in that moment is not acknowledged.
    guard?.check();
    guard?.tend();
    return written;
  };
}

/** Applies what is missing, each migration in its own transaction. Gives the names applied. */
export function migrate(db: Db, migrations: readonly Migration[] = readMigrations()): string[] {
  db.exec('CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL) STRICT');
  const done = new Set(db.prepare<[], number>('SELECT number FROM migration').pluck().all());
  const newest = Math.max(0, ...done);
  if (newest > (migrations.at(-1)?.number ?? 0)) {
    throw new DataDirRefused(
      `The database was written by a newer program (migration ${newest}). Start the newer program, or point WAX_DATA at another folder.`,
    );
  }
  const missing = migrations.filter((migration) => !done.has(migration.number));
  for (const migration of missing) {
    inTransaction(db, () => {
      db.exec(migration.sql);
      db.prepare('INSERT INTO migration (number, name) VALUES (?, ?)').run(migration.number, migration.name);
    })();
  }
  return missing.map((migration) => migration.name);
}

/** So long a lock of another program is waited for, ms: everybody else waits as long. */
const LOCKED_FOR_MS = 100;

/** Opens a database so that what was committed is on disk: write-ahead log, full sync, foreign keys. */
export function openConnection(file: string): Db {
  const db = new Database(file, { timeout: LOCKED_FOR_MS });
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  // What is erased is overwritten, not only unlinked.
  db.pragma('secure_delete = ON');
  return db;
}

/** The shop's database in its data folder, brought up to date. */
export function openDatabase(dataDir: string): Db {
  mkdirSync(dataDir, { recursive: true });
  const db = openConnection(databaseOf(dataDir));
  migrate(db);
  GUARDS.set(db, guardDatabase(db));
  return db;
}

/** Leaves nothing of what was erased in the log. Not within a write. */
export function emptyLog(db: Db): void {
  guardOf(db)?.empty();
}

/** Closes a database, by its guard where it has one. */
export function closeDatabase(db: Db): void {
  const guard = guardOf(db);
  if (guard) guard.close();
  else db.close();
}
