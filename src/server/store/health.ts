import type { AttachmentStore, FolderLook } from '../attachments/attachments';
import type { Clock } from './clock';
import { type Db, inTransaction } from './database';

/** So long an answer serves, ms: who asks often does not wear out the disk. */
const FRESH_MS = 1000;

/** So long a look through the files serves, ms. */
const LOOK_FRESH_MS = 60_000;

/** Whether the shop can be written to, and what the last look through its files found. */
export interface Health {
  /** Writes to database and files; throws what they say where that fails. */
  readonly tryWrite: () => Promise<void>;
  /** Looks through the files now, and sweeps what is safe to. */
  readonly lookThroughFiles: () => Promise<FolderLook>;
  /** The last look, with its time; null before the first. */
  readonly lastLook: () => (FolderLook & { readonly atUtc: string }) | null;
}

export function healthOf(db: Db, clock: Clock, files: AttachmentStore, checkDatabase: () => void): Health {
  const write = db.prepare<[string]>(
    'INSERT INTO health (only, written_at) VALUES (1, ?) ON CONFLICT (only) DO UPDATE SET written_at = excluded.written_at',
  );
  const writeRow = inTransaction(db, () => void write.run(clock.nowUtc()));
  let tried: { readonly atMs: number; readonly outcome: Promise<void> } | null = null;
  let look: (FolderLook & { readonly atUtc: string }) | null = null;
  let looked: { readonly atMs: number; readonly folder: string | null } | null = null;
  const lookThroughFiles = async (): Promise<FolderLook> => {
    looked = { atMs: performance.now(), folder: files.folderIdentity() };
    const found = await files.tidy();
    look = { ...found, atUtc: clock.nowUtc() };
    return found;
  };
  return {
    async tryWrite() {
      checkDatabase();
      // By a clock that nobody sets back: an answer would serve until it has caught up.
      const nowMs = performance.now();
      if (tried === null || nowMs - tried.atMs > FRESH_MS)
        tried = { atMs: nowMs, outcome: files.tryWrite().then(writeRow) };
      await tried.outcome;
      // Another folder in its place is looked through before anything is said of it, else what was seen serves a while.
      if (looked !== null && looked.folder !== files.folderIdentity()) await lookThroughFiles();
      else if (looked !== null && nowMs - looked.atMs > LOOK_FRESH_MS)
        void lookThroughFiles().catch(() => undefined);
    },
    lookThroughFiles,
    lastLook: () => look,
  };
}
