import { open, type FileHandle } from 'node:fs/promises';

export type CleanedFilm = 'as it was' | 'cleaned' | 'cannot be cleaned' | 'cannot be read';

/** Boxes that hold picture, sound and how they are played. Every other one is emptied. */
const KEPT: Readonly<Record<string, readonly string[]>> = {
  file: ['ftyp', 'moov', 'mdat'],
  moov: ['mvhd', 'trak', 'iods'],
  trak: ['tkhd', 'edts', 'mdia'],
  edts: ['elst'],
  mdia: ['mdhd', 'hdlr', 'minf'],
  minf: ['vmhd', 'smhd', 'hdlr', 'dinf', 'stbl'],
  dinf: ['dref'],
  stbl: ['stsd', 'stts', 'ctts', 'stsc', 'stsz', 'stz2', 'stco', 'co64', 'stss', 'sdtp', 'cslg'],
  stsd: [],
  visual: ['avcC', 'hvcC', 'av1C', 'vpcC', 'esds', 'colr', 'pasp', 'btrt', 'fiel', 'clap'],
  sound: ['esds', 'wave', 'chan', 'dac3', 'dec3', 'dOps', 'alac', 'btrt', 'srat', 'dfLa'],
};
const CONTAINERS = ['moov', 'trak', 'edts', 'mdia', 'minf', 'dinf', 'stbl'];
/** A film that is written as it is recorded keeps no table of what lies where. */
const IN_PIECES = ['moof', 'mvex', 'cmov'];
/** No film names so many brands that it compares with. */
const MOST_BRANDS_BYTES = 128;
const MOST_INDEX_BYTES = 32 * 1024 * 1024;
const HEADING_BYTES = 8;
const LONG_HEADING_BYTES = 16;
/** Of a sample entry: before the boxes that describe its coding. */
const VISUAL_ENTRY_BYTES = 86;
const SOUND_ENTRY_BYTES = [36, 52, 72] as const;
/** Of a visual sample entry: the name of what wrote it. */
const CODER_NAME = { at: 50, bytes: 32 } as const;

interface Box {
  readonly type: string;
  readonly at: number;
  /** Where its content begins. */
  readonly body: number;
  readonly end: number;
}
interface Range {
  readonly from: number;
  readonly to: number;
}

class Unreadable extends Error {}

/** The boxes of a stretch of the index, which is held in memory. */
function boxesIn(index: Buffer, from: number, to: number): Box[] {
  const boxes: Box[] = [];
  let at = from;
  while (at + HEADING_BYTES <= to) {
    const short = index.readUInt32BE(at);
    const long = short === 1;
    const size = long ? Number(index.readBigUInt64BE(at + HEADING_BYTES)) : short === 0 ? to - at : short;
    const body = at + (long ? LONG_HEADING_BYTES : HEADING_BYTES);
    if (at + size > to || at + size < body) throw new Unreadable();
    boxes.push({ type: index.toString('latin1', at + 4, at + 8), at, body, end: at + size });
    at += size;
  }
  return boxes;
}

/** Makes a box one that players pass over, with nothing in it. */
function empty(index: Buffer, { at, body, end }: Box): void {
  index.write('free', at + 4, 'latin1');
  index.fill(0, body, end);
}

const child = (index: Buffer, of: Box | undefined, type: string): Box | undefined =>
  of && boxesIn(index, of.body, of.end).find((box) => box.type === type);

/** Where the samples of a track lie in the file. Source: ISO/IEC 14496-12. */
function samplesOf(index: Buffer, track: Box): Range[] {
  const table = child(index, child(index, child(index, track, 'mdia'), 'minf'), 'stbl');
  const [sizes, chunks, runs] = [
    child(index, table, 'stsz'),
    child(index, table, 'stco') ?? child(index, table, 'co64'),
    child(index, table, 'stsc'),
  ];
  if (!sizes || !chunks || !runs) throw new Unreadable();
  const same = index.readUInt32BE(sizes.body + 4);
  const count = index.readUInt32BE(sizes.body + 8);
  const sizeOf = (sample: number): number =>
    same === 0 ? index.readUInt32BE(sizes.body + 12 + sample * 4) : same;
  const offsets = index.readUInt32BE(chunks.body + 4);
  const offsetOf = (chunk: number): number =>
    chunks.type === 'stco'
      ? index.readUInt32BE(chunks.body + 8 + chunk * 4)
      : Number(index.readBigUInt64BE(chunks.body + 8 + chunk * 8));
  const entries = index.readUInt32BE(runs.body + 4);
  const ranges: Range[] = [];
  let sample = 0;
  for (let entry = 0; entry < entries; entry += 1) {
    const first = index.readUInt32BE(runs.body + 8 + entry * 12) - 1;
    const perChunk = index.readUInt32BE(runs.body + 12 + entry * 12);
    const next = entry + 1 < entries ? index.readUInt32BE(runs.body + 8 + (entry + 1) * 12) - 1 : offsets;
    for (let chunk = first; chunk < next && sample < count; chunk += 1) {
      const from = offsetOf(chunk);
      let to = from;
      for (let each = 0; each < perChunk && sample < count; each += 1) to += sizeOf(sample++);
      ranges.push({ from, to });
    }
  }
  return ranges;
}

const handlerOf = (index: Buffer, track: Box): string => {
  const handler = child(index, child(index, track, 'mdia'), 'hdlr');
  return handler ? index.toString('latin1', handler.body + 8, handler.body + 12) : '';
};

/** How a track is coded: names of programs and unknown boxes are emptied. */
function cleanCodings(index: Buffer, description: Box, handler: string): void {
  for (const entry of boxesIn(index, description.body + 8, description.end)) {
    const isVisual = handler === 'vide';
    if (isVisual) index.fill(0, entry.at + CODER_NAME.at, entry.at + CODER_NAME.at + CODER_NAME.bytes);
    // Before a coding stand reserved bytes, where nothing belongs.
    index.fill(0, entry.body, entry.body + 6);
    const version = isVisual ? 0 : index.readUInt16BE(entry.at + 16);
    const heading = isVisual ? VISUAL_ENTRY_BYTES : (SOUND_ENTRY_BYTES[version] ?? SOUND_ENTRY_BYTES[0]);
    const from = entry.at + heading;
    if (from > entry.end) throw new Unreadable();
    const kept = KEPT[isVisual ? 'visual' : 'sound'] ?? [];
    for (const box of boxesIn(index, from, entry.end)) if (!kept.includes(box.type)) empty(index, box);
    const rest = boxesIn(index, from, entry.end).at(-1)?.end ?? from;
    index.fill(0, rest, entry.end);
  }
}

function cleanBoxes(index: Buffer, parent: Box, handler: string): void {
  const kept = KEPT[parent.type] ?? [];
  let rest = parent.body;
  for (const box of boxesIn(index, parent.body, parent.end)) {
    rest = box.end;
    if (IN_PIECES.includes(box.type)) throw new Unreadable();
    if (!kept.includes(box.type)) {
      empty(index, box);
      continue;
    }
    const own = box.type === 'trak' ? handlerOf(index, box) : handler;
    if (box.type === 'trak' && own !== 'vide' && own !== 'soun') empty(index, box);
    else if (CONTAINERS.includes(box.type)) cleanBoxes(index, box, own);
    else if (box.type === 'hdlr') index.fill(0, box.body + 12, box.end);
    else if (box.type === 'stsd') cleanCodings(index, box, handler);
    else if (box.type === 'dref')
      for (const source of boxesIn(index, box.body + 8, box.end)) index.fill(0, source.body + 4, source.end);
  }
  index.fill(0, rest, parent.end);
}

const ZEROS = Buffer.alloc(1024 * 1024);

async function fillZero(file: FileHandle, { from, to }: Range): Promise<void> {
  for (let at = from; at < to; at += ZEROS.length)
    await file.write(ZEROS, 0, Math.min(ZEROS.length, to - at), at);
}

/** Whether a stretch of a file holds nothing but zeros. */
async function isZero(file: FileHandle, { from, to }: Range): Promise<boolean> {
  const piece = Buffer.alloc(ZEROS.length);
  for (let at = from; at < to; at += piece.length) {
    const bytes = Math.min(piece.length, to - at);
    await file.read(piece, 0, bytes, at);
    if (!piece.subarray(0, bytes).equals(ZEROS.subarray(0, bytes))) return false;
  }
  return true;
}

/** The boxes a file is made of, and what follows the last of them. */
async function topBoxes(
  file: FileHandle,
  bytes: number,
): Promise<{ readonly boxes: Box[]; readonly end: number }> {
  const heading = Buffer.alloc(LONG_HEADING_BYTES);
  const boxes: Box[] = [];
  let at = 0;
  while (at + HEADING_BYTES <= bytes) {
    heading.fill(0);
    await file.read(heading, 0, LONG_HEADING_BYTES, at);
    const short = heading.readUInt32BE(0);
    const size = short === 1 ? Number(heading.readBigUInt64BE(8)) : short === 0 ? bytes - at : short;
    const body = at + (short === 1 ? LONG_HEADING_BYTES : HEADING_BYTES);
    const type = heading.toString('latin1', 4, 8);
    // What is no box is what somebody hung on behind.
    if (at + size > bytes || at + size < body || !/^[\x20-\x7e\xa9]{4}$/.test(type)) break;
    boxes.push({ type, at, body, end: at + size });
    at += size;
  }
  return { boxes, end: at };
}

/** What of a stretch no range covers. */
function gapsIn({ from, to }: Range, ranges: readonly Range[]): Range[] {
  const gaps: Range[] = [];
  let at = from;
  for (const range of [...ranges].sort((a, b) => a.from - b.from)) {
    if (range.to <= at || range.from >= to) continue;
    if (range.from > at) gaps.push({ from: at, to: Math.min(range.from, to) });
    at = Math.max(at, range.to);
  }
  return at < to ? [...gaps, { from: at, to }] : gaps;
}

async function cleanOpen(file: FileHandle, write: boolean): Promise<CleanedFilm> {
  const { size } = await file.stat();
  const { boxes, end } = await topBoxes(file, size);
  const films = boxes.filter(({ type }) => type === 'moov');
  const [film] = films;
  if (boxes.some(({ type }) => IN_PIECES.includes(type)) || films.length !== 1 || !film)
    return 'cannot be cleaned';
  if (film.end - film.at > MOST_INDEX_BYTES) return 'cannot be cleaned';
  if (boxes.some(({ type, at, end: to }) => type === 'ftyp' && to - at > MOST_BRANDS_BYTES))
    return 'cannot be cleaned';
  const index = Buffer.alloc(film.end - film.at);
  await file.read(index, 0, index.length, film.at);
  const before = Buffer.from(index);
  const [whole] = boxesIn(index, 0, index.length);
  if (!whole) throw new Unreadable();
  const kept = boxesIn(index, whole.body, whole.end)
    .filter(({ type }) => type === 'trak')
    .filter((track) => ['vide', 'soun'].includes(handlerOf(index, track)))
    .flatMap((track) => samplesOf(index, track));
  if (kept.length === 0) throw new Unreadable();
  cleanBoxes(index, whole, '');
  // Whatever is neither index, nor picture or sound that it names, is emptied.
  const zeroed = boxes.flatMap((box): Range[] => {
    if (box.type === 'moov' || box.type === 'ftyp') return [];
    return box.type === 'mdat'
      ? gapsIn({ from: box.body, to: box.end }, kept)
      : [{ from: box.body, to: box.end }];
  });
  zeroed.push({ from: end, to: size });
  const left = [];
  for (const range of zeroed) if (!(await isZero(file, range))) left.push(range);
  if (left.length === 0 && before.equals(index)) return 'as it was';
  if (!write) return 'cleaned';
  for (const range of left) await fillZero(file, range);
  await file.write(index, 0, index.length, film.at);
  for (const { type, at } of boxes)
    if (!['ftyp', 'moov', 'mdat'].includes(type)) await file.write('free', at + 4, 'latin1');
  return 'cleaned';
}

/**
 * Takes off a film on disk (MP4, QuickTime) everything beside picture and sound: places, camera, tracks of positions, and what
 * lies between. Picture and sound stay where they are, byte for byte. `write`: false only tells whether there is any.
 */
export async function cleanFilm(path: string, { write }: { readonly write: boolean }): Promise<CleanedFilm> {
  const file = await open(path, 'r+');
  try {
    return await cleanOpen(file, write);
  } catch (error) {
    if (error instanceof Unreadable || error instanceof RangeError) return 'cannot be read';
    throw error;
  } finally {
    await file.close();
  }
}
