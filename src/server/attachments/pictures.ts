import { rename, rm } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';

/** How each kind of picture is written anew, near enough to lossless that nobody sees it. */
const WRITTEN: Readonly<Record<string, (picture: Sharp) => Sharp>> = {
  'image/jpeg': (picture) => picture.jpeg({ quality: 93 }),
  'image/png': (picture) => picture.png(),
  'image/webp': (picture) => picture.webp({ quality: 93 }),
  'image/tiff': (picture) => picture.tiff({ compression: 'lzw' }),
  'image/gif': (picture) => picture.gif(),
};
/** Kinds that hold no data beside the picture. */
const BARE: readonly string[] = ['image/bmp', 'image/x-icon'];

const THUMB_PX = 360;

export type Cleaned = 'as it was' | 'cleaned' | 'cannot be cleaned' | 'cannot be read';

/**
 * Takes place and camera data off a picture on disk: whatever stands beside the picture itself goes, and it is turned
 * as its camera held it. A picture that holds nothing of the kind stays byte for byte. A kind that cannot be written
 * anew here is not taken, since nobody could say what it tells.
 */
export async function cleanPicture(path: string, contentType: string): Promise<Cleaned> {
  if (!contentType.startsWith('image/') || BARE.includes(contentType)) return 'as it was';
  const write = WRITTEN[contentType];
  if (!write) return 'cannot be cleaned';
  const fresh = `${path}.clean`;
  try {
    const picture = sharp(path, { animated: contentType === 'image/gif' });
    const { exif, xmp, iptc, comments } = await picture.metadata();
    if (!exif && !xmp && !iptc && (comments ?? []).length === 0) return 'as it was';
    await write(picture.autoOrient().keepIccProfile()).toFile(fresh);
    await rename(fresh, path);
    return 'cleaned';
  } catch {
    await rm(fresh, { force: true });
    return 'cannot be read';
  }
}

/** Whether a picture on disk could be kept byte for byte: it can be read, and tells nothing of place and camera. */
export async function isBarePicture(path: string, contentType: string): Promise<boolean> {
  if (!contentType.startsWith('image/') || BARE.includes(contentType)) return true;
  try {
    const picture = sharp(path, { animated: contentType === 'image/gif' });
    const { exif, xmp, iptc, comments } = await picture.metadata();
    await picture.stats();
    return !exif && !xmp && !iptc && (comments ?? []).length === 0;
  } catch {
    return false;
  }
}

/** A small picture of a picture; false where it is none that can be read. */
export async function makeThumb(from: string, to: string): Promise<boolean> {
  try {
    await sharp(from)
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
}
