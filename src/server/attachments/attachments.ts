import { createHash, randomUUID } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { Transform, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Attachment } from '../../contract';
import type { Clock } from '../store/clock';
import type { Db } from '../store/database';
import { piecesOf, StoppedComing, TooLarge } from '../offLoop/bodies';
import { cleanFilm } from './films';
import { type FileKind, kindOf } from './kinds';
import { cleanPicture, isBarePicture, makeThumb } from './pictures';

export const MOST_BYTES = 50 * 1024 * 1024;
/** A sender is heard out up to this, though nothing of it is kept. */
const MOST_HEARD_BYTES = 4 * MOST_BYTES;
/** Enough of a file's beginning to tell its type. */
const HEAD_BYTES = 4100;
/** What nothing names after so long will be named by nobody, ms. */
const STRAY_AFTER_MS = 3_600_000;

export type AttachmentKept =
  | { readonly outcome: 'kept'; readonly attachment: Attachment }
  | { readonly outcome: 'too large' }
  | { readonly outcome: 'empty' }
  | { readonly outcome: 'cut off' | 'stopped coming' }
  | {
      readonly outcome: 'cannot be cleaned' | 'cannot be read' | 'too many pixels';
      readonly contentType: string;
      readonly what: 'picture' | 'film';
    };

/** What a file is called, and whether it comes under the hash that another counter's entries name. */
interface FileClaims {
  readonly name: string;
  readonly fromAnotherCounter?: boolean;
}

/** What a look through the folder found. */
export interface FolderLook {
  /** Uploads that broke off, swept. */
  readonly brokenOff: readonly string[];
  /** Files that no record names, swept. */
  readonly unnamed: readonly string[];
  /** Records whose file is gone. */
  readonly gone: readonly string[];
  /** Records whose file has another length than it was kept with. */
  readonly damaged: readonly string[];
}

/** Files on disk by their content: a file is whole and on disk before anything may name it. */
export interface AttachmentStore {
  /** The path of a picture's small picture, made where it is not there yet; null where it is no picture. */
  thumb(hash: string): Promise<string | null>;
  /** The file as it is known, or undefined. */
  find(hash: string): Attachment | undefined;
  pathOf(hash: string): string;
  /** Whether a file lies there and is what it was when it was kept. */
  isWhole(hash: string): Promise<boolean>;
  /**
   * Puts a file on disk as it streams, where nothing names it yet; nothing is left of one that is too large or breaks
   * off. One that lies there damaged is replaced. Pictures lose what they tell of place and camera; one from another
   * counter comes under the hash its entries name, and is not taken where it tells any.
   */
  place(source: Readable, claims: FileClaims): Promise<AttachmentKept>;
  /** Removes a file that was placed, where nothing names it and nobody else is placing it: what it belongs to was refused. */
  unplace(hash: string): void;
  /** Makes a file that was placed known, in the transaction of who calls. */
  enter(attachment: Attachment, technicianId: string): void;
  /** Places a file and makes it known. */
  keep(source: Readable, claims: FileClaims & { readonly technicianId: string }): Promise<AttachmentKept>;
  /** A place on this disk for bytes on their way, swept after an hour. */
  wayIn(): string;
  /** Takes the names off files: a name may hold a person's. */
  forgetNames(hashes: Iterable<string>): void;
  /** Looks for files without a record, records without a file and uploads that broke off; sweeps what is safe to. */
  tidy(): Promise<FolderLook>;
  /** Which folder lies at the path of the files: another one where it was moved or copied. Null: none. */
  folderIdentity(): string | null;
  /** Whether a file can be written; throws what the file system says where it cannot. */
  tryWrite(): Promise<void>;
}

/** Puts a file's or a folder's content on disk. */
async function sync(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

async function hashOf(path: string): Promise<string | null> {
  const hash = createHash('sha256');
  try {
    await pipeline(
      createReadStream(path),
      new Writable({
        write(chunk: Buffer, _encoding, done) {
          hash.update(chunk);
          done();
        },
      }),
    );
    return hash.digest('hex');
  } catch {
    return null;
  }
}

type Arrived =
  | { readonly outcome: 'whole'; readonly hash: string; readonly bytes: number; readonly is: FileKind }
  | { readonly outcome: 'too large' | 'empty' | 'cut off' | 'stopped coming' };

/** Writes a stream to a path, and tells what came. */
async function arrive(source: Readable, path: string): Promise<Arrived> {
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
  const file = createWriteStream(path);
  let failed: Error | null = null;
  file.on('error', (error) => (failed = error));
  try {
    await pipeline(piecesOf(source), measure, file);
  } catch (error) {
    // What the disk refuses is no fault of the sender's.
    if (error === failed) throw error;
    if (error instanceof StoppedComing) return { outcome: 'stopped coming' };
    if (!(error instanceof TooLarge)) return { outcome: 'cut off' };
    source.destroy();
    return { outcome: 'too large' };
  }
  if (bytes === 0 || bytes > MOST_BYTES) return { outcome: bytes === 0 ? 'empty' : 'too large' };
  // The type is what the content says, never what the name or the browser claims.
  return { outcome: 'whole', hash: hash.digest('hex'), bytes, is: kindOf(Buffer.concat(head)) };
}

type Freed =
  | { readonly outcome: 'as it was' | 'cleaned'; readonly contentType: string }
  | { readonly outcome: 'cannot be cleaned' | 'cannot be read' | 'too many pixels' };

/**
 * Takes off a file on disk what tells where it was made. One from another counter stays byte for byte, as its entries name
 * it so: it is not taken where there is anything to take off.
 */
async function freed(path: string, is: FileKind, asItIs: boolean): Promise<Freed> {
  const { contentType } = is;
  switch (is.kind) {
    case 'other':
      return { outcome: 'as it was', contentType };
    case 'not taken':
      return { outcome: 'cannot be cleaned' };
    case 'film': {
      const outcome = await cleanFilm(path, { write: !asItIs });
      if (outcome === 'cannot be cleaned' || outcome === 'cannot be read') return { outcome };
      return asItIs && outcome === 'cleaned' ? { outcome: 'cannot be read' } : { outcome, contentType };
    }
    case 'picture':
      if (!asItIs) return cleanPicture(path, contentType);
      return (await isBarePicture(path, contentType))
        ? { outcome: 'as it was', contentType }
        : { outcome: 'cannot be read' };
  }
}

/** Removes files of a folder that are old and that nothing names; gives their names. */
async function sweep(of: string, isNamed: (file: string) => boolean): Promise<string[]> {
  const swept: string[] = [];
  for (const file of await readdir(of)) {
    const path = join(of, file);
    // Looked at and removed in one step: nothing can come to name it in between.
    const lies = statSync(path, { throwIfNoEntry: false });
    if (!lies?.isFile() || Date.now() - lies.mtimeMs < STRAY_AFTER_MS || isNamed(file)) continue;
    rmSync(path, { force: true });
    swept.push(file);
  }
  return swept;
}

interface Folders {
  readonly folder: string;
  readonly arriving: string;
  readonly thumbs: string;
  readonly pathOf: (hash: string) => string;
}

/** Takes away what nothing names, and tells what is entered and is gone or damaged. */
async function tidied(
  { folder, arriving, thumbs, pathOf }: Folders,
  isKnown: (hash: string) => boolean,
  entered: readonly Pick<Attachment, 'hash' | 'bytes'>[],
): Promise<Awaited<ReturnType<AttachmentStore['tidy']>>> {
  const brokenOff = await sweep(arriving, () => false);
  const unnamed: string[] = [];
  for (const part of await readdir(folder))
    if (/^[0-9a-f]{2}$/.test(part))
      unnamed.push(...(await sweep(join(folder, part), (hash) => isKnown(hash))));
  await sweep(thumbs, (file) => isKnown(file.replace(/\.webp(\.new)?$/, '')));
  const gone: string[] = [];
  const damaged: string[] = [];
  for (const { hash, bytes } of entered) {
    const size = await stat(pathOf(hash)).then(
      (lies) => lies.size,
      () => null,
    );
    if (size === null) gone.push(hash);
    else if (size !== bytes) damaged.push(hash);
  }
  return { brokenOff, unnamed, gone, damaged };
}

async function tryWriting(path: string): Promise<void> {
  const handle = await open(path, 'w');
  try {
    await handle.writeFile('health');
    await handle.sync();
  } finally {
    await handle.close();
    await rm(path, { force: true });
  }
}

/** How a file that arrives comes to its place under its hash; until it is entered it is only placed. */
function placing(
  {
    folder,
    pathOf,
    thumbPath,
    wayIn,
  }: Folders & { readonly thumbPath: (hash: string) => string; readonly wayIn: () => string },
  knownBy: (hash: string) => Attachment | undefined,
): {
  readonly place: AttachmentStore['place'];
  /** One that is about to be entered fewer; gives how many are left. */
  readonly release: (hash: string) => number;
} {
  /** Files placed and not entered yet, each with how many are about to. */
  const placed = new Map<string, number>();

  /** Moves what arrived to its place; what lies there already stays, if it is known and still what it was. */
  const settle = async (path: string, hash: string): Promise<void> => {
    const target = pathOf(hash);
    if (knownBy(hash) && (await hashOf(target)) === hash) {
      await rm(path, { force: true });
      return;
    }
    await sync(path);
    mkdirSync(join(folder, hash.slice(0, 2)), { recursive: true });
    // In one step with what the sweep looks at: it never takes away what has just been placed.
    renameSync(path, target);
    rmSync(thumbPath(hash), { force: true });
    await sync(join(folder, hash.slice(0, 2)));
  };

  const placeAt = async (path: string, source: Readable, claims: FileClaims): Promise<AttachmentKept> => {
    const arrived = await arrive(source, path);
    if (arrived.outcome !== 'whole') return arrived;
    const { is } = arrived;
    const known = knownBy(arrived.hash);
    // What is known is one that was kept: it comes again as it is.
    const taken = known
      ? { outcome: 'as it was' as const, contentType: known.contentType }
      : await freed(path, is, claims.fromAnotherCounter === true);
    if (!('contentType' in taken)) {
      const isFilm = is.kind === 'film' || (is.kind === 'not taken' && is.what === 'film');
      return { ...taken, contentType: is.contentType, what: isFilm ? 'film' : 'picture' };
    }
    const isAnew = taken.outcome === 'cleaned';
    const { contentType } = taken;
    const attachment: Attachment = {
      hash: isAnew ? ((await hashOf(path)) ?? arrived.hash) : arrived.hash,
      name: claims.name,
      contentType,
      bytes: isAnew ? (await stat(path)).size : arrived.bytes,
    };
    placed.set(attachment.hash, (placed.get(attachment.hash) ?? 0) + 1);
    await settle(path, attachment.hash);
    if (contentType.startsWith('image/'))
      await makeThumb(pathOf(attachment.hash), thumbPath(attachment.hash));
    return { outcome: 'kept', attachment };
  };

  const place = async (source: Readable, claims: FileClaims): Promise<AttachmentKept> => {
    const path = wayIn();
    try {
      return await placeAt(path, source, claims);
    } finally {
      await rm(path, { force: true });
    }
  };
  const release = (hash: string): number => {
    const left = Math.max(0, (placed.get(hash) ?? 0) - 1);
    if (left === 0) placed.delete(hash);
    else placed.set(hash, left);
    return left;
  };
  return { place, release };
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
  const all = db.prepare<[], { hash: string; bytes: number }>('SELECT hash, bytes FROM attachment');
  const insert = db.prepare<Attachment & { technicianId: string; recordedAt: string }>(
    `INSERT INTO attachment (hash, name, content_type, bytes, technician_id, recorded_at)
     VALUES (@hash, @name, @contentType, @bytes, @technicianId, @recordedAt) ON CONFLICT (hash) DO NOTHING`,
  );
  const forgetName = db.prepare<[string]>("UPDATE attachment SET name = 'file' WHERE hash = ?");
  const pathOf = (hash: string): string => join(folder, hash.slice(0, 2), hash);
  const thumbPath = (hash: string): string => join(thumbs, `${hash}.webp`);
  const wayIn = (): string => join(arriving, randomUUID());
  const folders: Folders = { folder, arriving, thumbs, pathOf };

  const { place, release } = placing({ ...folders, thumbPath, wayIn }, (hash) => byHash.get(hash));
  const enter = (attachment: Attachment, technicianId: string): void => {
    insert.run({ ...attachment, technicianId, recordedAt: clock.nowUtc() });
    release(attachment.hash);
  };

  return {
    async thumb(hash) {
      const attachment = byHash.get(hash);
      if (!attachment?.contentType.startsWith('image/')) return null;
      const path = thumbPath(hash);
      return existsSync(path) || (await makeThumb(pathOf(hash), path)) ? path : null;
    },
    find: (hash) => byHash.get(hash),
    pathOf,
    isWhole: async (hash) => (await hashOf(pathOf(hash))) === hash,
    place,
    unplace(hash) {
      if (release(hash) > 0 || byHash.get(hash)) return;
      rmSync(pathOf(hash), { force: true });
      rmSync(thumbPath(hash), { force: true });
    },
    enter,
    async keep(source, claims) {
      const placed = await place(source, claims);
      if (placed.outcome !== 'kept') return placed;
      enter(placed.attachment, claims.technicianId);
      return { outcome: 'kept', attachment: byHash.get(placed.attachment.hash) ?? placed.attachment };
    },
    wayIn,
    forgetNames(hashes) {
      for (const hash of hashes) forgetName.run(hash);
    },
    tidy: () => tidied(folders, (hash) => byHash.get(hash) !== undefined, all.all()),
    folderIdentity() {
      const found = statSync(folder, { throwIfNoEntry: false });
      return found ? `${found.dev}:${found.ino}` : null;
    },
    tryWrite: () => tryWriting(wayIn()),
  };
}
