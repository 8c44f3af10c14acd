import { createWriteStream } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { Transform } from 'node:stream';
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
  | { readonly outcome: 'too large' | 'cut off' | 'unknown packing' | 'badly packed' };

const UNPACK = { gzip: createGunzip, deflate: createInflate, br: createBrotliDecompress } as const;

class TooLarge extends Error {}

/** Writes the body of a request to a path as it streams, unpacked; its size counts unpacked, too. */
export async function takeBody(
  request: IncomingMessage,
  path: string,
  mostBytes: number,
): Promise<BodyTaken> {
  const packing = request.headers['content-encoding'] ?? 'identity';
  if (packing !== 'identity' && !(packing in UNPACK)) return { outcome: 'unknown packing' };
  if (packing === 'identity' && Number(request.headers['content-length'] ?? 0) > mostBytes)
    return { outcome: 'too large' };
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      // Heard out a while, so that a sender that did not say its length still hears why; but not for ever.
      if (bytes <= mostBytes) done(null, chunk);
      else done(bytes > 2 * mostBytes ? new TooLarge() : null);
    },
  });
  const file = createWriteStream(path);
  let failed: Error | null = null;
  file.on('error', (error) => (failed = error));
  try {
    if (packing === 'identity') await pipeline(request, measure, file);
    else await pipeline(request, UNPACK[packing as keyof typeof UNPACK](), measure, file);
  } catch (error) {
    if (error === failed) throw error;
    if (error instanceof TooLarge) return { outcome: 'too large' };
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    return { outcome: /^(Z_|ERR__?BROTLI|ERR_)/.test(code) && !request.errored ? 'badly packed' : 'cut off' };
  }
  return bytes > mostBytes ? { outcome: 'too large' } : { outcome: 'taken', bytes };
}
