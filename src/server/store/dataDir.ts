import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import Database from 'better-sqlite3';
import { isForeignLog, logIndexOf, logOf } from './databaseLog';

/** Why a data folder must not be opened, and the way back, in plain words. */
export class DataDirRefused extends Error {}

/** What a server holds as long as it has a folder open. */
export const LOCK_FILE = 'in-use.db';

/** The file of the shop's database in a data folder. */
export const databaseOf = (dataDir: string): string => join(dataDir, 'wax-lantern.db');

const codeOf = (error: unknown): string =>
  error instanceof Error && 'code' in error ? String(error.code) : '';

const COPY_BACK = 'Put back the last copy of the whole data folder, or point WAX_DATA at the right one.';

/** Whether files were kept in a folder: then a shop was there. */
function hasFiles(dataDir: string): boolean {
  const folder = join(dataDir, 'attachments');
  return existsSync(folder) && readdirSync(folder).length > 0;
}

/**
 * Takes a data folder for one server, until the process ends however it ends: the system lets go of the lock then.
 * Throws `FolderRefused` where another holds it or it cannot be written.
 */
export function lockDataDir(dataDir: string): () => void {
  try {
    mkdirSync(dataDir, { recursive: true });
    const lock = new Database(join(dataDir, LOCK_FILE), { timeout: 0 });
    lock.pragma('journal_mode = MEMORY');
    lock.exec('BEGIN EXCLUSIVE');
    return () => void lock.close();
  } catch (error) {
    if (codeOf(error).startsWith('SQLITE_BUSY'))
      throw new DataDirRefused(
        `Another server has the folder ${dataDir} open. Use that one, or end it before starting this one.`,
      );
    throw new DataDirRefused(
      `The folder ${dataDir} cannot be written to (${codeOf(error)}). Give the server the right to write there, or point WAX_DATA elsewhere.`,
    );
  }
}

/** How a copy is put back, so that nothing of the database it replaces reaches it. */
export const HOW_TO_PUT_BACK =
  'To restore a copy: stop the server, move wax-lantern.db-wal and wax-lantern.db-shm to another folder, replace wax-lantern.db with the copy, and start the server.';

/**
 * Looks at a data folder before anything is changed in it. Throws `FolderRefused` where its database is gone or empty
 * while files or a log are there, is none, is damaged, is open elsewhere, or has the log of another one beside it.
 */
export function checkDataDir(dataDir: string): void {
  const file = databaseOf(dataDir);
  const hasLog = (statSync(logOf(file), { throwIfNoEntry: false })?.size ?? 0) > 0;
  if (!existsSync(file) || statSync(file).size === 0) {
    if (hasFiles(dataDir) || hasLog)
      throw new DataDirRefused(
        `The database ${file} is ${existsSync(file) ? 'empty' : 'gone'}, and ${hasLog ? 'its log lies' : 'files of a shop lie'} beside it. ${COPY_BACK}`,
      );
    return;
  }
  if (isForeignLog(file))
    throw new DataDirRefused(
      `The log ${logOf(file)} belongs to another database than the one beside it. Opening them together would damage the database. If you restored a copy, move ${basename(logOf(file))} and ${basename(logIndexOf(file))} to another folder and start again. If not, put the database that the log belongs to back in its place. Do not delete the log: it holds the latest records.`,
    );
  try {
    const db = new Database(file, { timeout: 5000 });
    // Nobody else may have it open, whatever became of the lock file.
    db.pragma('locking_mode = EXCLUSIVE');
    const found = db.pragma('quick_check(1)', { simple: true });
    db.close();
    if (found === 'ok') return;
    throw new DataDirRefused(`The database ${file} is damaged: ${String(found)}. ${COPY_BACK}`);
  } catch (error) {
    if (error instanceof DataDirRefused) throw error;
    if (codeOf(error).startsWith('SQLITE_BUSY'))
      throw new DataDirRefused(
        `Another server or program has the database ${file} open. Use that server, or end the program before starting this one.`,
      );
    if (codeOf(error) === 'SQLITE_NOTADB')
      throw new DataDirRefused(`${file} is not a database. ${COPY_BACK}`);
    if (codeOf(error).startsWith('SQLITE_CORRUPT'))
      throw new DataDirRefused(`The database ${file} is damaged. ${COPY_BACK}`);
    throw new DataDirRefused(
      `The database ${file} cannot be opened (${codeOf(error)}). Look whether the server may read and write it.`,
    );
  }
}
