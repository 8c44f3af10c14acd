import { createWriteStream } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';

/** Nothing that is sent here is nested deeper than a handful. */
export const MOST_DEPTH = 40;
/** Nor has a body that is read whole nearly so many values. */
export const MOST_VALUES = 20_000;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COMMA = 0x2c;
const OPEN = [0x5b, 0x7b] as const;
const CLOSE = [0x5d, 0x7d] as const;

/** How a JSON text is built, told before it is parsed, in one pass over its bytes: how deep, and how many commas. */
export function shapeOf(json: Uint8Array): { readonly depth: number; readonly values: number } {
  let depth = 0;
  let deepest = 0;
  let values = 1;
  let quoted = false;
  for (let at = 0; at < json.length; at += 1) {
    const byte = json[at];
    if (quoted) {
      if (byte === BACKSLASH) at += 1;
      else if (byte === QUOTE) quoted = false;
    } else if (byte === QUOTE) quoted = true;
    else if (byte === COMMA) values += 1;
    else if (byte === OPEN[0] || byte === OPEN[1]) {
      depth += 1;
      if (depth > deepest) deepest = depth;
    } else if (byte === CLOSE[0] || byte === CLOSE[1]) depth -= 1;
  }
  return { depth: deepest, values };
}

export type BodyTaken =
  | { readonly outcome: 'taken'; readonly bytes: number }
  | { readonly outcome: 'too large' | 'cut off' | 'stopped coming' | 'unknown packing' | 'badly packed' };

const UNPACK = { gzip: createGunzip, deflate: createInflate, br: createBrotliDecompress } as const;

/** A sender that sends nothing for so long is given up, ms; so is one that takes longer than this for all of it. */
export const STALLED_AFTER_MS = 30_000;
export const LONGEST_MS = 3_600_000;

/** More came, or unpacked, than is taken. */
export class TooLarge extends Error {}
/** A sender that went quiet, or that would never end. */
export class StoppedComing extends Error {}

/** The pieces of what is sent, as long as they keep coming. What reads them may stop without hanging up on the sender. */
export async function* piecesOf(
  source: Readable,
  { stalledAfterMs = STALLED_AFTER_MS, longestMs = LONGEST_MS } = {},
): AsyncGenerator<Buffer> {
  const until = performance.now() + longestMs;
  const pieces = source.iterator({ destroyOnReturn: false }) as AsyncIterator<Buffer>;
  for (;;) {
    if (performance.now() >= until) throw new StoppedComing();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const quiet = new Promise<never>((_, reject) => {
      timer = setTimeout(
        () => reject(new StoppedComing()),
        Math.min(stalledAfterMs, Math.max(0, until - performance.now())),
      );
    });
    try {
      const next = await Promise.race([pieces.next(), quiet]);
      if (next.done) return;
      yield next.value;
    } finally {
      clearTimeout(timer);
    }
  }
}

/** Writes the body of a request to a path as it streams, unpacked; its size counts unpacked, too. */
export async function takeBody(
  request: IncomingMessage,
  path: string,
  mostBytes: number,
): Promise<BodyTaken> {
  const packing = request.headers['content-encoding'] ?? 'identity';
  if (packing !== 'identity' && !Object.hasOwn(UNPACK, packing)) return { outcome: 'unknown packing' };
  if (Number(request.headers['content-length'] ?? 0) > mostBytes) return { outcome: 'too large' };
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      // What is sent as it is is heard out a while, so that a sender that did not say its length still hears why.
      if (bytes <= mostBytes) done(null, chunk);
      else done(packing !== 'identity' || bytes > 2 * mostBytes ? new TooLarge() : null);
    },
  });
  const file = createWriteStream(path);
  let failed: Error | null = null;
  file.on('error', (error) => (failed = error));
  try {
    const sent = piecesOf(request);
    if (packing === 'identity') await pipeline(sent, measure, file);
    else await pipeline(sent, UNPACK[packing as keyof typeof UNPACK](), measure, file);
  } catch (error) {
    if (error === failed) throw error;
    if (error instanceof TooLarge) {
      // The rest of what is packed is small, and read past; of the other kind there may be no end.
      if (packing === 'identity') request.destroy();
      else request.resume();
      return { outcome: 'too large' };
    }
    if (error instanceof StoppedComing) return { outcome: 'stopped coming' };
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    if (/^(Z_|ERR__?BROTLI|ERR_)/.test(code) && !request.errored && code !== 'ERR_STREAM_PREMATURE_CLOSE') {
      request.resume();
      return { outcome: 'badly packed' };
    }
    return { outcome: 'cut off' };
  }
  return bytes > mostBytes ? { outcome: 'too large' } : { outcome: 'taken', bytes };
}
