import { createWriteStream } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';

/** Nothing that is sent here is nested deeper than a handful. */
export const MOST_DEPTH = 40;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const OPENS: readonly number[] = [0x5b, 0x7b];
const CLOSES: readonly number[] = [0x5d, 0x7d];

/** Whether a JSON text is nested deeper than anything sent here; asked before it is parsed, in one pass over its bytes. */
export function isTooDeep(json: Uint8Array): boolean {
  let depth = 0;
  let quoted = false;
  for (let at = 0; at < json.length; at += 1) {
    const byte = json[at] ?? 0;
    if (quoted) {
      if (byte === BACKSLASH) at += 1;
      else if (byte === QUOTE) quoted = false;
    } else if (byte === QUOTE) quoted = true;
    else if (OPENS.includes(byte)) {
      depth += 1;
      if (depth > MOST_DEPTH) return true;
    } else if (CLOSES.includes(byte)) depth -= 1;
  }
  return false;
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
