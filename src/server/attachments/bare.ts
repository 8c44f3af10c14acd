import { readFile } from 'node:fs/promises';
import { inflateSync } from 'node:zlib';

/** The identity of a colour profile stands at this place of it. */
const PROFILE_MARK = { at: 36, words: 'acsp' } as const;
const isProfile = (bytes: Buffer): boolean =>
  bytes.toString('latin1', PROFILE_MARK.at, PROFILE_MARK.at + PROFILE_MARK.words.length) ===
  PROFILE_MARK.words;

/** Segments of a JPEG that hold the picture itself. */
const JPEG_PICTURE = [0xc0, 0xc1, 0xc2, 0xc4, 0xda, 0xdb, 0xdd];
const JPEG_PROFILE_HEAD_BYTES = 14;
const JFIF_BYTES = 16;

/** Whether a JPEG is made of its picture alone, up to its last byte. */
function isBareJpeg(bytes: Buffer): boolean {
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return false;
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xd9) return at + 2 === bytes.length;
    const size = bytes.readUInt16BE(at + 2);
    const segment = bytes.subarray(at + 4, at + 2 + size);
    const isJfif = marker === 0xe0 && size === JFIF_BYTES && segment.toString('latin1', 0, 5) === 'JFIF\0';
    const isAdobe = marker === 0xee && size === 14 && segment.toString('latin1', 0, 5) === 'Adobe';
    const isColour =
      marker === 0xe2 &&
      segment.toString('latin1', 0, 12) === 'ICC_PROFILE\0' &&
      (segment[12] !== 1 || isProfile(segment.subarray(JPEG_PROFILE_HEAD_BYTES)));
    if (!JPEG_PICTURE.includes(marker) && !isJfif && !isAdobe && !isColour) return false;
    at += 2 + size;
    if (marker !== 0xda) continue;
    // The pixels: up to the next marker that is none of theirs.
    while (at + 1 < bytes.length) {
      const next = bytes[at + 1] ?? 0;
      if (bytes[at] === 0xff && next !== 0 && !(next >= 0xd0 && next <= 0xd7)) break;
      at += 1;
    }
  }
  return at + 2 === bytes.length && bytes[at] === 0xff && bytes[at + 1] === 0xd9;
}

const PNG_PICTURE = [
  'IHDR',
  'PLTE',
  'IDAT',
  'IEND',
  'tRNS',
  'cHRM',
  'gAMA',
  'sRGB',
  'sBIT',
  'bKGD',
  'pHYs',
  'acTL',
  'fcTL',
  'fdAT',
];

/** Whether what is packed ends with the last byte there is. */
function isPackedWhole(bytes: Buffer): boolean {
  try {
    const { engine } = inflateSync(bytes, { info: true }) as unknown as { engine: { bytesWritten: number } };
    return engine.bytesWritten === bytes.length;
  } catch {
    return false;
  }
}

/** Whether a PNG is made of its picture alone, up to its last byte. */
function isBarePng(bytes: Buffer): boolean {
  const pixels: Buffer[] = [];
  let at = 8;
  while (at + 12 <= bytes.length) {
    const size = bytes.readUInt32BE(at);
    const type = bytes.toString('latin1', at + 4, at + 8);
    const content = bytes.subarray(at + 8, at + 8 + size);
    if (!PNG_PICTURE.includes(type)) return false;
    if (type === 'IDAT') pixels.push(content);
    at += 12 + size;
    if (type === 'IEND') return at === bytes.length && size === 0 && isPackedWhole(Buffer.concat(pixels));
  }
  return false;
}

const WEBP_PICTURE = ['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP'];

/** Whether a WebP is made of its picture alone, up to its last byte. */
function isBareWebp(bytes: Buffer): boolean {
  if (bytes.readUInt32LE(4) + 8 !== bytes.length) return false;
  let at = 12;
  while (at + 8 <= bytes.length) {
    const type = bytes.toString('latin1', at, at + 4);
    const size = bytes.readUInt32LE(at + 4);
    if (!WEBP_PICTURE.includes(type)) return false;
    if (type === 'ICCP' && !isProfile(bytes.subarray(at + 8))) return false;
    at += 8 + size + (size % 2);
  }
  return at === bytes.length;
}

/** Where the blocks of a GIF after a place end. */
function afterBlocks(bytes: Buffer, from: number): number {
  let at = from;
  while (at < bytes.length && bytes[at] !== 0) at += (bytes[at] ?? 0) + 1;
  return at + 1;
}
const coloursIn = (packed: number): number => (packed & 0x80 ? 3 * 2 ** ((packed & 7) + 1) : 0);

/** Whether a GIF is made of its pictures alone, up to its last byte: no comment, text or data of a program. */
function isBareGif(bytes: Buffer): boolean {
  let at = 13 + coloursIn(bytes[10] ?? 0);
  while (at < bytes.length) {
    const block = bytes[at];
    if (block === 0x3b) return at + 1 === bytes.length;
    if (block === 0x2c) at = afterBlocks(bytes, at + 10 + coloursIn(bytes[at + 9] ?? 0) + 1);
    else if (block === 0x21) {
      const label = bytes[at + 1];
      const repeats = label === 0xff && bytes.toString('latin1', at + 3, at + 14) === 'NETSCAPE2.0';
      if (label !== 0xf9 && !repeats) return false;
      at = afterBlocks(bytes, at + 2);
    } else return false;
  }
  return false;
}

/** Fields of a TIFF that describe its pixels in numbers. */
const TIFF_PICTURE = [
  254, 256, 257, 258, 259, 262, 266, 273, 274, 277, 278, 279, 282, 283, 284, 296, 297, 317, 320, 322, 323,
  324, 325, 338, 339,
];
const TIFF_SIZES: Readonly<Record<number, number>> = { 1: 1, 3: 2, 4: 4, 5: 8 };
const TIFF_PLACES = { 273: 279, 324: 325 } as const;
/** Between two parts of a TIFF so many bytes may be left, so that the next begins at an even place. */
const TIFF_PADDING = 1;

/** Whether a TIFF is made of its pages alone: no field but numbers on pixels, and no byte that belongs to none of them. */
function isBareTiff(bytes: Buffer): boolean {
  const little = bytes.toString('latin1', 0, 2) === 'II';
  const u16 = (at: number): number => (little ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
  const u32 = (at: number): number => (little ? bytes.readUInt32LE(at) : bytes.readUInt32BE(at));
  if (u16(2) !== 42) return false;
  const used: [number, number][] = [[0, 8]];
  for (let at = u32(4), pages = 0; at !== 0; pages += 1) {
    if (pages > 1000) return false;
    const count = u16(at);
    used.push([at, at + 2 + count * 12 + 4]);
    const values = new Map<number, number[]>();
    for (let entry = at + 2; entry < at + 2 + count * 12; entry += 12) {
      const [tag, type, length] = [u16(entry), u16(entry + 2), u32(entry + 4)];
      const size = TIFF_SIZES[type];
      if (!TIFF_PICTURE.includes(tag) || size === undefined) return false;
      const where = size * length <= 4 ? entry + 8 : u32(entry + 8);
      if (size * length > 4) used.push([where, where + size * length]);
      values.set(
        tag,
        Array.from({ length }, (_, each) =>
          type === 1
            ? (bytes[where + each] ?? 0)
            : type === 3
              ? u16(where + each * 2)
              : u32(where + each * size),
        ),
      );
    }
    for (const [places, lengths] of Object.entries(TIFF_PLACES))
      values.get(Number(places))?.forEach((from, each) => {
        used.push([from, from + (values.get(lengths)?.[each] ?? 0)]);
      });
    at = u32(at + 2 + count * 12);
  }
  let covered = 0;
  for (const [from, to] of used.sort(([a], [b]) => a - b)) {
    if (from - covered > TIFF_PADDING) return false;
    covered = Math.max(covered, to);
  }
  return covered + TIFF_PADDING >= bytes.length;
}

const BARE: Readonly<Record<string, (bytes: Buffer) => boolean>> = {
  'image/jpeg': isBareJpeg,
  'image/png': isBarePng,
  'image/webp': isBareWebp,
  'image/gif': isBareGif,
  'image/tiff': isBareTiff,
};

/**
 * Whether a picture on disk holds its pixels and nothing else, as one that was written here: looked at byte by byte, since a
 * place can stand wherever a format leaves room. False for kinds of which that cannot be told. Source: the published formats.
 */
export async function isBare(path: string, contentType: string): Promise<boolean> {
  const look = BARE[contentType];
  if (!look) return false;
  try {
    return look(await readFile(path));
  } catch {
    return false;
  }
}
