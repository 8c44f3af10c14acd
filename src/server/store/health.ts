import type { AttachmentStore, FolderLook } from '../attachments/attachments';
import type { Clock } from './clock';
import { type Db, inTransaction } from './database';

/** So long an answer serves, ms: who asks often does not wear out the disk. */
const FRESH_MS = 1000;

/** Whether the shop can be written to, and what the last look through its files found. */
export interface Health {
  /** Writes to database and files; throws what they say where that fails. */
  readonly tryWrite: () => Promise<void>;
  /** Looks through the files now, and sweeps what is safe to. */
  readonly lookThroughFiles: () => Promise<FolderLook>;
  /** The last look, with its time; null before the first. */
  readonly lastLook: () => (FolderLook & { readonly atUtc: string }) | null;
}

export function healthOf(db: Db, clock: Clock, files: AttachmentStore): Health {
  const write = db.prepare<[string]>(
    'INSERT INTO health (only, written_at) VALUES (1, ?) ON CONFLICT (only) DO UPDATE SET written_at = excluded.written_at',
  );
  const writeRow = inTransaction(db, () => void write.run(clock.nowUtc()));
  let tried: { readonly atMs: number; readonly outcome: Promise<void> } | null = null;
  let look: (FolderLook & { readonly atUtc: string }) | null = null;
  return {
    tryWrite() {
      if (tried === null || Date.now() - tried.atMs > FRESH_MS)
        tried = { atMs: Date.now(), outcome: files.tryWrite().then(writeRow) };
      return tried.outcome;
    },
    async lookThroughFiles() {
      const found = await files.tidy();
      look = { ...found, atUtc: clock.nowUtc() };
      return found;
    },
    lastLook: () => look,
  };
}
