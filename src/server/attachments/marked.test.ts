import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { cleanFilm } from './films';
import { isBare } from './bare';
import { kindOf } from './kinds';
import { cleanPicture, isBarePicture } from './pictures';

/** Planted wherever a format leaves room: it must be nowhere afterwards. */
const MARKER = 'PIER-9-61.2015N-6.7531W';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wax-marked-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const put = (bytes: Buffer): string => {
  const path = join(folder, `file-${Math.random()}`);
  writeFileSync(path, bytes);
  return path;
};

// Rough as a photograph, so that nothing is lost by it being plain.
const raw = Buffer.from(Array.from({ length: 64 * 48 * 3 }, (_, at) => (at * 7919) % 251));
const picture = () => sharp(raw, { raw: { width: 64, height: 48, channels: 3 } });
const exif = {
  IFD0: { ImageDescription: MARKER },
  IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '61/1 12/1 5/1' },
};

const jpegSegment = (marker: number, text: string): Buffer => {
  const body = Buffer.from(text, 'latin1');
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
};
const afterStart = (jpeg: Buffer, segment: Buffer): Buffer =>
  Buffer.concat([jpeg.subarray(0, 2), segment, jpeg.subarray(2)]);

function crc(bytes: Buffer): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit += 1) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
}
function pngChunk(type: string, body: Buffer): Buffer {
  const named = Buffer.concat([Buffer.from(type, 'latin1'), body]);
  const sized = Buffer.alloc(4);
  sized.writeUInt32BE(body.length);
  const checked = Buffer.alloc(4);
  checked.writeUInt32BE(crc(named));
  return Buffer.concat([sized, named, checked]);
}
/** A chunk put before the last or the first of a kind. */
function inPng(png: Buffer, before: 'IDAT' | 'IEND', chunk: Buffer): Buffer {
  const at = png.indexOf(before) - 4;
  return Buffer.concat([png.subarray(0, at), chunk, png.subarray(at)]);
}
const gifBlock = (label: number, text: string): Buffer =>
  Buffer.concat([Buffer.from([0x21, label, text.length]), Buffer.from(text, 'latin1'), Buffer.from([0])]);
const inGif = (gif: Buffer, block: Buffer): Buffer =>
  Buffer.concat([gif.subarray(0, gif.length - 1), block, Buffer.from([0x3b])]);
const inWebp = (webp: Buffer, type: string, text: string): Buffer => {
  const body = Buffer.from(text.length % 2 ? `${text} ` : text, 'latin1');
  const chunk = Buffer.concat([Buffer.from(type, 'latin1'), Buffer.alloc(4), body]);
  chunk.writeUInt32LE(body.length, 4);
  const whole = Buffer.concat([webp, chunk]);
  whole.writeUInt32LE(whole.length - 8, 4);
  return whole;
};
const withText = (text: string): Buffer => Buffer.from(`Comment\0${text}`, 'latin1');

const PLANTED: readonly [string, string, () => Promise<Buffer>][] = [
  ['EXIF of a JPEG', 'image/jpeg', () => picture().jpeg().withExif(exif).toBuffer()],
  [
    'a comment of a JPEG',
    'image/jpeg',
    async () => afterStart(await picture().jpeg().toBuffer(), jpegSegment(0xfe, MARKER)),
  ],
  [
    'a segment of a program in a JPEG',
    'image/jpeg',
    async () => afterStart(await picture().jpeg().toBuffer(), jpegSegment(0xe9, MARKER)),
  ],
  [
    'the small picture of a JFIF',
    'image/jpeg',
    async () => afterStart(await picture().jpeg().toBuffer(), jpegSegment(0xe0, `JFXX\0\x10${MARKER}`)),
  ],
  [
    'a picture behind a JPEG',
    'image/jpeg',
    async () =>
      Buffer.concat([await picture().jpeg().toBuffer(), await picture().jpeg().withExif(exif).toBuffer()]),
  ],
  [
    'a film behind a JPEG',
    'image/jpeg',
    async () => Buffer.concat([await picture().jpeg().toBuffer(), film().file]),
  ],
  [
    'XMP of a JPEG',
    'image/jpeg',
    async () =>
      afterStart(
        await picture().jpeg().toBuffer(),
        jpegSegment(0xe1, `http://ns.adobe.com/xap/1.0/\0<x>${MARKER}</x>`),
      ),
  ],
  ['EXIF of a PNG', 'image/png', () => picture().png().withExif(exif).toBuffer()],
  [
    'text before the pixels of a PNG',
    'image/png',
    async () => inPng(await picture().png().toBuffer(), 'IDAT', pngChunk('tEXt', withText(MARKER))),
  ],
  [
    'text after the pixels of a PNG',
    'image/png',
    async () => inPng(await picture().png().toBuffer(), 'IEND', pngChunk('tEXt', withText(MARKER))),
  ],
  [
    'a private chunk of a PNG',
    'image/png',
    async () => inPng(await picture().png().toBuffer(), 'IEND', pngChunk('plCe', Buffer.from(MARKER))),
  ],
  [
    'packed text of a PNG',
    'image/png',
    async () =>
      inPng(
        await picture().png().toBuffer(),
        'IEND',
        pngChunk('zTXt', Buffer.concat([Buffer.from('Comment\0\0'), deflateSync(MARKER)])),
      ),
  ],
  [
    'what follows a PNG',
    'image/png',
    async () => Buffer.concat([await picture().png().toBuffer(), Buffer.from(MARKER)]),
  ],
  [
    'pixels of a PNG that end too late',
    'image/png',
    async () => inPng(await picture().png().toBuffer(), 'IEND', pngChunk('IDAT', Buffer.from(MARKER))),
  ],
  [
    'a comment of a GIF',
    'image/gif',
    async () => inGif(await picture().gif().toBuffer(), gifBlock(0xfe, MARKER)),
  ],
  [
    'text of a GIF',
    'image/gif',
    async () => inGif(await picture().gif().toBuffer(), gifBlock(0xff, `XMP DataXMP${MARKER}`)),
  ],
  [
    'what follows a GIF',
    'image/gif',
    async () => Buffer.concat([await picture().gif().toBuffer(), Buffer.from(MARKER)]),
  ],
  ['EXIF of a WebP', 'image/webp', () => picture().webp().withExif(exif).toBuffer()],
  ['a chunk of a WebP', 'image/webp', async () => inWebp(await picture().webp().toBuffer(), 'plCe', MARKER)],
  [
    'what follows a WebP',
    'image/webp',
    async () => Buffer.concat([await picture().webp().toBuffer(), Buffer.from(MARKER)]),
  ],
  ['EXIF of a TIFF', 'image/tiff', () => picture().tiff().withExif(exif).toBuffer()],
  [
    'what follows a TIFF',
    'image/tiff',
    async () => Buffer.concat([await picture().tiff().toBuffer(), Buffer.from(MARKER)]),
  ],
  ['EXIF of an AVIF', 'image/avif', () => picture().avif({ effort: 0 }).withExif(exif).toBuffer()],
];

describe('a marker planted in a picture', () => {
  it.each(PLANTED)('in %s is not in what is kept, and the picture is', async (_, contentType, make) => {
    const bytes = await make();
    const path = put(bytes);
    expect(kindOf(bytes.subarray(0, 4100))).toEqual({ kind: 'picture', contentType });
    expect(await isBare(path, contentType)).toBe(false);
    const cleaned = await cleanPicture(path, contentType);
    const kept = readFileSync(path);
    // What cannot be read, since its pixels do not end, is not kept at all.
    if (cleaned.outcome === 'cannot be read') return;
    expect(cleaned.outcome).toBe('cleaned');
    expect(kept.includes(MARKER)).toBe(false);
    expect(kept.includes('GPS')).toBe(false);
    const { width, height, exif: left, xmp } = await sharp(kept).metadata();
    expect([width, height, left, xmp]).toEqual([64, 48, undefined, undefined]);
    const before = await sharp(bytes).removeAlpha().raw().toBuffer();
    const after = await sharp(kept).removeAlpha().raw().toBuffer();
    const apart =
      before.reduce((sum, value, at) => sum + Math.abs(value - (after[at] ?? 0)), 0) / before.length;
    expect(apart).toBeLessThan(contentType === 'image/avif' ? 12 : 6);
  });

  it.each(['jpeg', 'png', 'webp', 'gif', 'tiff'] as const)(
    'a %s as it is written here is known to hold its pixels alone, and another counter takes it',
    async (format) => {
      const path = put(await picture().toFormat(format).toBuffer());
      expect((await cleanPicture(path, `image/${format}`)).outcome).toBe('cleaned');
      expect(await isBarePicture(path, `image/${format}`)).toBe(true);
    },
  );

  it('all pages are kept, and the depth', async () => {
    const frame = (level: number) => Buffer.alloc(16 * 16 * 3, level);
    const pages = await sharp(Buffer.concat([frame(10), frame(120), frame(230)]), {
      raw: { width: 16, height: 48, channels: 3, pageHeight: 16 },
    })
      .gif({ delay: [100, 100, 100] })
      .toBuffer();
    const [gif, tiff] = [put(pages), put(await sharp(pages, { pages: -1 }).tiff().toBuffer())];
    await cleanPicture(gif, 'image/gif');
    await cleanPicture(tiff, 'image/tiff');
    expect((await sharp(gif).metadata()).pages).toBe(3);
    expect((await sharp(tiff).metadata()).pages).toBe(3);
    const deep = put(
      await sharp(new Uint16Array(16 * 16 * 3).fill(40_000), { raw: { width: 16, height: 16, channels: 3 } })
        .toColourspace('rgb16')
        .png()
        .toBuffer(),
    );
    expect((await sharp(deep).metadata()).depth).toBe('ushort');
    await cleanPicture(deep, 'image/png');
    expect((await sharp(deep).metadata()).depth).toBe('ushort');
  });
});

const text = (words: string): Buffer => Buffer.from(words, 'latin1');
const not = (...parts: (string | number[])[]): Buffer =>
  Buffer.concat([
    ...parts.map((part) => (typeof part === 'string' ? text(part) : Buffer.from(part))),
    Buffer.alloc(64),
    text(MARKER),
  ]);

describe('what cannot be freed of its place', () => {
  it.each([
    ['HEIF by its brand', not([0, 0, 0, 24], 'ftypheic', [0, 0, 0, 0], 'mif1heic'), 'picture'],
    [
      'HEIF by a brand beside the first',
      not([0, 0, 0, 28], 'ftypisom', [0, 0, 0, 0], 'mp42mif1heix'),
      'picture',
    ],
    ['a burst of HEIF', not([0, 0, 0, 24], 'ftypmsf1', [0, 0, 0, 0], 'hevcmsf1'), 'picture'],
    ['a raw picture in that container', not([0, 0, 0, 24], 'ftypcrx ', [0, 0, 0, 1], 'crx isom'), 'picture'],
    ['JPEG 2000', not([0, 0, 0, 12], 'jP  \r\n\x87\n'), 'picture'],
    ['a bare stream of JPEG 2000', not([0xff, 0x4f, 0xff, 0x51]), 'picture'],
    ['JPEG XL', not([0, 0, 0, 12], 'JXL \r\n\x87\n'), 'picture'],
    ['a bitmap', not('BM', [0, 0, 0, 0]), 'picture'],
    ['a raw picture of its own', not('FUJIFILMCCD-RAW'), 'picture'],
    ['a drawing', not('<?xml version="1.0"?><svg xmlns="x">'), 'picture'],
    ['a film of many kinds', not([0x1a, 0x45, 0xdf, 0xa3]), 'film'],
    ['an older film', not('RIFF', [0, 0, 0, 0], 'AVI LIST'), 'film'],
  ] as const)('%s is told as such by its bytes', (_, bytes, what) => {
    expect(kindOf(bytes)).toMatchObject({ kind: 'not taken', what });
  });

  it.each([
    'BM 4471 came back wet',
    'ARRIVED 17 March',
    'GIF8 is no note',
    'not free of charge',
    'the wide one',
    '.RMF',
  ])('a note that begins like one, “%s”, is a note', (words) => {
    expect(kindOf(text(`${words}: strap loose, crystal scratched`))).toMatchObject({ kind: 'other' });
  });

  it('the raw picture of a camera is not kept as its small copy', async () => {
    const tiff = await picture().tiff({ compression: 'none' }).toBuffer();
    const at = tiff.readUInt32LE(4);
    // One of its fields becomes the version of a digital negative.
    tiff.writeUInt16LE(0xc612, at + 2);
    expect((await cleanPicture(put(tiff), 'image/tiff')).outcome).toBe('cannot be cleaned');
  });

  it('a small file of very many pixels is refused before they are unpacked', async () => {
    const header = Buffer.alloc(13);
    header.writeUInt32BE(16_384, 0);
    header.writeUInt32BE(16_384, 4);
    header.set([8, 2, 0, 0, 0], 8);
    const png = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      pngChunk('IHDR', header),
      pngChunk('IDAT', deflateSync(Buffer.alloc(16_384 * 3))),
      pngChunk('IEND', Buffer.alloc(0)),
    ]);
    expect((await cleanPicture(put(png), 'image/png')).outcome).toBe('too many pixels');
  });
});

const u32 = (...values: number[]): Buffer => {
  const bytes = Buffer.alloc(values.length * 4);
  values.forEach((value, at) => bytes.writeUInt32BE(value >>> 0, at * 4));
  return bytes;
};
const box = (type: string, ...content: (Buffer | string)[]): Buffer => {
  const body = Buffer.concat(content.map((each) => (typeof each === 'string' ? text(each) : each)));
  return Buffer.concat([u32(body.length + 8), text(type), body]);
};

const FRAME = Buffer.from('frame of the film as it was coded, byte for byte');
const POSITIONS = `positions ${MARKER}`;

/** A film by hand: one track of pictures, one of positions, and a marker wherever there is room. */
function film(): { readonly file: Buffer; readonly frameAt: number } {
  const track = (handler: string, at: number, size: number): Buffer =>
    box(
      'trak',
      box('tkhd', Buffer.alloc(84)),
      box('udta', box('\xa9xyz', MARKER)),
      box('meta', MARKER),
      box(
        'mdia',
        box('mdhd', Buffer.alloc(24)),
        box('hdlr', u32(0, 0), text(handler), u32(0, 0, 0), MARKER, '\0'),
        box(
          'minf',
          box('vmhd', Buffer.alloc(12)),
          box('dinf', box('dref', u32(0, 1), box('url ', u32(1), MARKER))),
          box(
            'stbl',
            box(
              'stsd',
              u32(0, 1),
              handler === 'vide'
                ? box(
                    'avc1',
                    Buffer.alloc(42),
                    MARKER.padEnd(36).slice(0, 32),
                    Buffer.alloc(4),
                    box('avcC', Buffer.alloc(8)),
                    box('uuid', MARKER),
                  )
                : box('mebx', Buffer.alloc(8), MARKER),
            ),
            box('stts', u32(0, 1, 1, 1)),
            box('stsc', u32(0, 1, 1, 1, 1)),
            box('stsz', u32(0, 0, 1, size)),
            box('stco', u32(0, 1, at)),
            box('sgpd', MARKER),
          ),
        ),
      ),
    );
  const head = box('ftyp', 'mp42', u32(0), 'mp42isom');
  const free = box('free', MARKER);
  const before = Buffer.concat([head, free, box('uuid', MARKER)]);
  const data = box('mdat', `gap ${MARKER} `, FRAME, POSITIONS, ` tail ${MARKER}`);
  const frameAt = before.length + 8 + `gap ${MARKER} `.length;
  const moov = box(
    'moov',
    box('mvhd', Buffer.alloc(100)),
    track('vide', frameAt, FRAME.length),
    track('meta', frameAt + FRAME.length, POSITIONS.length),
    box('udta', box('\xa9xyz', MARKER), box('meta', MARKER)),
    box('meta', MARKER),
  );
  return { file: Buffer.concat([before, data, moov, box('meta', MARKER), text(MARKER)]), frameAt };
}

describe('a marker planted in a film', () => {
  it('is nowhere afterwards; picture and index are where they were', async () => {
    const { file, frameAt } = film();
    expect(kindOf(file.subarray(0, 4100))).toEqual({ kind: 'film', contentType: 'video/mp4' });
    const path = put(file);
    expect(await cleanFilm(path, { write: false })).toBe('cleaned');
    expect(readFileSync(path).equals(file)).toBe(true);
    expect(await cleanFilm(path, { write: true })).toBe('cleaned');
    const kept = readFileSync(path);
    expect(kept.includes(MARKER)).toBe(false);
    expect(kept.includes(MARKER.slice(0, 12))).toBe(false);
    expect(statSync(path).size).toBe(file.length);
    expect(kept.subarray(frameAt, frameAt + FRAME.length).equals(FRAME)).toBe(true);
    for (const type of ['mvhd', 'tkhd', 'avcC', 'stco']) expect(kept.includes(type)).toBe(true);
    expect(await cleanFilm(path, { write: true })).toBe('as it was');
  });

  it.each([
    ['recorded in pieces', Buffer.concat([box('moof', MARKER), film().file]), 'cannot be cleaned'],
    [
      'whose index is packed',
      Buffer.concat([box('ftyp', 'mp42', u32(0)), box('moov', box('cmov', MARKER))]),
      'cannot be read',
    ],
    [
      'without an index',
      Buffer.concat([box('ftyp', 'mp42', u32(0)), box('mdat', MARKER)]),
      'cannot be cleaned',
    ],
    ['that breaks off', film().file.subarray(0, film().file.length - 400), 'cannot be cleaned'],
    [
      'of brands without end',
      Buffer.concat([box('ftyp', 'mp42', u32(0), MARKER.repeat(20)), film().file.subarray(24)]),
      'cannot be cleaned',
    ],
  ])('of a film %s: it is refused', async (_, bytes, outcome) => {
    expect(await cleanFilm(put(bytes), { write: true })).toBe(outcome);
  });
});
