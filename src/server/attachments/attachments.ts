import { createHash, randomUUID } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  closeSync,
} from 'node:fs';
import { readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { filetypemime } from 'magic-bytes.js';
import type { Attachment } from '../../contract';
import type { Clock } from '../store/clock';
import type { Db } from '../store/database';
import { cleanPicture, makeThumb } from './pictures';

export const MOST_BYTES = 50 * 1024 * 1024;
/** A sender is heard out up to this, though nothing of it is kept. */
const MOST_HEARD_BYTES = 4 * MOST_BYTES;
/** Enough of a file's beginning to tell its type. */
const HEAD_BYTES = 4100;

export type AttachmentKept =
  | { readonly outcome: 'kept'; readonly attachment: Attachment }
  | { readonly outcome: 'too large' }
  | { readonly outcome: 'empty' }
  | { readonly outcome: 'cut off' }
  | { readonly outcome: 'cannot be cleaned' | 'cannot be read'; readonly contentType: string };

class TooLarge extends Error {}

/** Who sends a file, and what it is called. */
interface ToldOfFile {
  readonly name: string;
  readonly technicianId: string;
  readonly fromAnotherCounter?: boolean;
}

/** Files on disk by their content: a file is whole and on disk before anything may name it. */
export interface AttachmentStore {
  /** The path of a picture's small picture, made where it is not there yet; null where it is no picture. */
  thumb(hash: string): Promise<string | null>;
  /** The file as it is known, or undefined. */
  find(hash: string): Attachment | undefined;
  pathOf(hash: string): string;
  read(hash: string): Readable;
  /**
   * Takes a file in as it streams; nothing is left of one that is too large or breaks off. Pictures lose what they
   * tell of place and camera, unless the file comes from another counter under the hash its entries name.
   */
  keep(source: Readable, told: ToldOfFile): Promise<AttachmentKept>;
  /** Takes the names off files: a name may hold a person's. */
  forgetNames(hashes: Iterable<string>): void;
  /** Removes what was left by uploads that a crash cut off. */
  tidy(): Promise<void>;
}

export function attachmentStore(db: Db, clock: Clock, dataDir: string): AttachmentStore {
  const folder = join(dataDir, 'attachments');
  const arriving = join(folder, 'arriving');
  const thumbs = join(folder, 'thumbs');
  mkdirSync(arriving, { recursive: true });
  mkdirSync(thumbs, { recursive: true });
  const byHash = db.prepare<[string], Attachment>(
    'SELECT hash, name, content_type AS contentType, bytes FROM attachment WHERE hash = ?',
  );
  const insert = db.prepare<Attachment & { technicianId: string; recordedAt: string }>(
    `INSERT INTO attachment (hash, name, content_type, bytes, technician_id, recorded_at)
     VALUES (@hash, @name, @contentType, @bytes, @technicianId, @recordedAt) ON CONFLICT (hash) DO NOTHING`,
  );
  const forgetName = db.prepare<[string]>("UPDATE attachment SET name = 'file' WHERE hash = ?");
  const pathOf = (hash: string): string => join(folder, hash.slice(0, 2), hash);

  const thumbPath = (hash: string): string => join(thumbs, `${hash}.webp`);

  return {
    async thumb(hash) {
      const attachment = byHash.get(hash);
      if (!attachment?.contentType.startsWith('image/')) return null;
      const path = thumbPath(hash);
      return existsSync(path) || (await makeThumb(pathOf(hash), path)) ? path : null;
    },
    find: (hash) => byHash.get(hash),
    pathOf,
    read: (hash) => createReadStream(pathOf(hash)),
    async keep(source, told) {
      const path = join(arriving, randomUUID());
      const hash = createHash('sha256');
      const head: Buffer[] = [];
      let bytes = 0;
      const measure = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          if (bytes < HEAD_BYTES) head.push(chunk);
          bytes += chunk.length;
          hash.update(chunk);
          // Read on and thrown away, so that a sender that did not say its length still hears why; but not for ever.
          if (bytes <= MOST_BYTES) done(null, chunk);
          else done(bytes > MOST_HEARD_BYTES ? new TooLarge() : null);
        },
      });
      try {
        await pipeline(source, measure, createWriteStream(path));
      } catch (error) {
        await rm(path, { force: true });
        return { outcome: error instanceof TooLarge ? 'too large' : 'cut off' };
      }
      if (bytes === 0 || bytes > MOST_BYTES) {
        await rm(path, { force: true });
        return { outcome: bytes === 0 ? 'empty' : 'too large' };
      }
      // The type is what the content says, never what the name or the browser claims.
      const [type] = filetypemime(Buffer.concat(head));
      const contentType = type ?? 'application/octet-stream';
      const cleaned = told.fromAnotherCounter ? 'as it was' : await cleanPicture(path, contentType);
      if (cleaned === 'cannot be cleaned' || cleaned === 'cannot be read') {
        await rm(path, { force: true });
        return { outcome: cleaned, contentType };
      }
      const fresh = cleaned === 'cleaned' ? await readFile(path) : null;
      const attachment: Attachment = {
        hash: fresh ? createHash('sha256').update(fresh).digest('hex') : hash.digest('hex'),
        name: told.name,
        contentType,
        bytes: fresh?.length ?? bytes,
      };
      const target = pathOf(attachment.hash);
      if (existsSync(target)) await rm(path, { force: true });
      else {
        mkdirSync(join(folder, attachment.hash.slice(0, 2)), { recursive: true });
        sync(path);
        await rename(path, target);
        sync(join(folder, attachment.hash.slice(0, 2)));
      }
      if (contentType.startsWith('image/')) await makeThumb(target, thumbPath(attachment.hash));
      insert.run({ ...attachment, technicianId: told.technicianId, recordedAt: clock.nowUtc() });
      return { outcome: 'kept', attachment: byHash.get(attachment.hash) ?? attachment };
    },
    forgetNames(hashes) {
      for (const hash of hashes) forgetName.run(hash);
    },
    async tidy() {
      for (const file of await readdir(arriving)) {
        const { mtimeMs } = await stat(join(arriving, file));
        if (Date.now() - mtimeMs > 3_600_000) await rm(join(arriving, file), { force: true });
      }
    },
  };
}

/** Puts a file's or a folder's content on disk. */
function sync(path: string): void {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}
