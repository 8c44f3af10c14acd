import { open, rename, rm } from 'node:fs/promises';
import type { Metadata, Sharp } from 'sharp';
import { isBare } from './bare';

/** More than any camera makes; a file of a few kilobytes can claim more than the memory holds. */
export const MOST_MEGAPIXELS = 120;
const MOST_PIXELS = MOST_MEGAPIXELS * 1_000_000;

const THUMB_PX = 360;

/** Loaded with the first picture: that takes half a second, and a server that starts needs none. */
let loaded: ReturnType<typeof load> | null = null;
async function load() {
  const { default: sharp } = await import('sharp');
  sharp.concurrency(1);
  sharp.cache(false);
  return sharp;
}

type SharpLibrary = Awaited<ReturnType<typeof load>>;

// One picture at a time, on one thread: whoever asks for anything else is answered meanwhile.
let last: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: (sharp: SharpLibrary) => Promise<T>): Promise<T> {
  const next = async (): Promise<T> => work(await (loaded ??= load()));
  const mine = last.then(next, next);
  last = mine.catch(() => undefined);
  return mine;
}

/** How each kind of picture is written anew, near enough to lossless that nobody sees it. */
const WRITTEN: Readonly<Record<string, { readonly as: string; readonly write: (picture: Sharp) => Sharp }>> =
  {
    'image/jpeg': { as: 'image/jpeg', write: (picture) => picture.jpeg({ quality: 93 }) },
    'image/png': { as: 'image/png', write: (picture) => picture.png() },
    'image/webp': { as: 'image/webp', write: (picture) => picture.webp({ quality: 93 }) },
    'image/tiff': { as: 'image/tiff', write: (picture) => picture.tiff({ compression: 'lzw' }) },
    'image/gif': { as: 'image/gif', write: (picture) => picture.gif() },
    // Writing this kind takes a minute a picture.
    'image/avif': {
      as: 'image/jpeg',
      write: (picture) => picture.flatten().jpeg({ quality: 93, chromaSubsampling: '4:4:4' }),
    },
  };

/** Marks of a picture as its sensor gave it, in the directory of a TIFF: what is shown of it is a small copy. */
const RAW_TAGS = [0x014a, 0x828d, 0x828e, 0xc612];
const TIFF_ENTRY_BYTES = 12;

export type Cleaned =
  | { readonly outcome: 'cleaned'; readonly contentType: string }
  | { readonly outcome: 'cannot be cleaned' | 'cannot be read' | 'too many pixels' };

/** Whether a file that begins like a TIFF is the raw picture of a camera. Source: TIFF 6.0, DNG. */
async function isRaw(path: string): Promise<boolean> {
  const file = await open(path, 'r');
  try {
    const head = Buffer.alloc(12);
    await file.read(head, 0, head.length, 0);
    if (head.toString('latin1', 8, 10) === 'CR') return true;
    const little = head.toString('latin1', 0, 2) === 'II';
    const read16 = (bytes: Buffer, at: number) => (little ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
    const at = little ? head.readUInt32LE(4) : head.readUInt32BE(4);
    const count = Buffer.alloc(2);
    await file.read(count, 0, 2, at);
    const entries = Buffer.alloc(read16(count, 0) * TIFF_ENTRY_BYTES);
    await file.read(entries, 0, entries.length, at + 2);
    for (let entry = 0; entry < entries.length; entry += TIFF_ENTRY_BYTES)
      if (RAW_TAGS.includes(read16(entries, entry))) return true;
    return false;
  } finally {
    await file.close();
  }
}

/** Kinds whose pages are all kept. */
const OF_PAGES: readonly string[] = ['image/gif', 'image/webp', 'image/tiff'];

/** A picture as it is written anew: turned as its camera held it, its depth kept, its colours those of every screen. */
function anew(
  sharp: SharpLibrary,
  path: string,
  contentType: string,
  { pages = 1, depth, channels }: Metadata,
): Sharp {
  const several = pages > 1;
  const read = sharp(path, { limitInputPixels: MOST_PIXELS, ...(several ? { pages: -1 } : {}) });
  const turned = several ? read : read.autoOrient();
  const isDeep = depth === 'ushort' && ['image/png', 'image/tiff'].includes(contentType);
  return isDeep ? turned.toColourspace(channels < 3 ? 'grey16' : 'rgb16') : turned;
}

async function cleanNow(sharp: SharpLibrary, path: string, contentType: string): Promise<Cleaned> {
  const written = WRITTEN[contentType];
  if (!written) return { outcome: 'cannot be cleaned' };
  const fresh = `${path}.clean`;
  try {
    if (contentType === 'image/tiff' && (await isRaw(path))) return { outcome: 'cannot be cleaned' };
    const looked = await sharp(path, { limitInputPixels: false }).metadata();
    const { width, height, pages = 1 } = looked;
    if (width * height * (OF_PAGES.includes(contentType) ? pages : 1) > MOST_PIXELS)
      return { outcome: 'too many pixels' };
    await written.write(anew(sharp, path, contentType, looked)).toFile(fresh);
    await rename(fresh, path);
    return { outcome: 'cleaned', contentType: written.as };
  } catch {
    await rm(fresh, { force: true });
    return { outcome: 'cannot be read' };
  }
}

/**
 * Takes everything off a picture on disk that is not the picture: it is decoded and written anew, whatever stands in it.
 * A kind that cannot be written anew here is not taken, since nobody could say what it tells.
 */
export function cleanPicture(path: string, contentType: string): Promise<Cleaned> {
  return inTurn((sharp) => cleanNow(sharp, path, contentType));
}

/** Whether a picture on disk could be kept byte for byte: it can be read, and holds nothing but its pixels. */
export async function isBarePicture(path: string, contentType: string): Promise<boolean> {
  if (!(await isBare(path, contentType))) return false;
  return inTurn(async (sharp) => {
    try {
      await sharp(path, { limitInputPixels: MOST_PIXELS }).stats();
      return true;
    } catch {
      return false;
    }
  });
}

/** A small picture of a picture; false where it is none that can be read. */
export function makeThumb(from: string, to: string): Promise<boolean> {
  return inTurn(async (sharp) => {
    try {
      await sharp(from, { limitInputPixels: MOST_PIXELS })
        .autoOrient()
        .resize(THUMB_PX, THUMB_PX, { fit: 'inside', withoutEnlargement: true })
        .webp({ quality: 80 })
        .toFile(`${to}.new`);
      await rename(`${to}.new`, to);
      return true;
    } catch {
      await rm(`${to}.new`, { force: true });
      return false;
    }
  });
}
