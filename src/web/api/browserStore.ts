import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { NewEntry, Problem } from '../../contract';

/** An entry that waits in the browser for the server. */
export interface WaitingEntry {
  readonly id: string;
  readonly order: number;
  readonly jobId: string;
  readonly entry: NewEntry;
  /** Set when the server refused it: then it needs a person. */
  readonly refused: Problem | null;
}

interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingEntry };
  seen: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

/** The browser's own small database: entries that wait, and resources as last seen. */
export function browserStore(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('wax-lantern', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'id' });
      db.createObjectStore('seen');
    },
  });
  return opened;
}
