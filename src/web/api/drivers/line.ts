/** What comes over a serial line, and what goes out over it. */
export interface Line {
  /** The bytes as they come. Ends once it is closed or unplugged. */
  readonly bytes: () => AsyncGenerator<Uint8Array>;
  readonly write: (text: string) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** A line that could not be opened, with what to do. */
export class NoLine extends Error {
  constructor(
    message: string,
    readonly whatToDo: string,
  ) {
    super(message);
  }
}

/** A line of text longer than this is none: something else hangs on the port, or its speed is set wrongly. */
const LONGEST_LINE = 4096;

export interface TextLine {
  readonly text: string;
  /** Whether it was heard from its beginning: one may begin to listen in the middle of a line. */
  readonly whole: boolean;
}

/** Bytes as the text they stand for: UTF-8 where they are that, else one letter a byte, as older meters send µ. */
function textOf(bytes: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(
      Uint8Array.from(bytes, (letter) => letter.charCodeAt(0)),
    );
  } catch {
    return bytes;
  }
}

/**
 * The lines of text in what comes over a line, however it is cut into pieces; empty ones are left out, and so is one that
 * never ended: what is missing from it may change what it means. Throws `NoLine` where no line ends in four thousand bytes.
 */
export async function* linesOf(pieces: AsyncIterable<Uint8Array>): AsyncGenerator<TextLine> {
  let [rest, whole, returned] = ['', false, false];
  for await (const piece of pieces) {
    let came = '';
    for (const byte of piece) came += String.fromCharCode(byte);
    if (came === '') continue;
    // The return that ended the last piece was half of a line’s end.
    if (returned && came.startsWith('\n')) came = came.slice(1);
    returned = came.endsWith('\r');
    const lines = (rest + came).split(/\r\n|\n|\r/);
    rest = lines.pop() ?? '';
    for (const line of lines) {
      if (line.trim() !== '') yield { text: textOf(line), whole };
      whole = true;
    }
    if (rest.length > LONGEST_LINE)
      throw new NoLine(
        'The device sends data that is not readable text.',
        'On the devices page, set the baud rate that the device uses. Then try again.',
      );
  }
}

interface Piece {
  readonly afterMs: number;
  readonly text: string;
}

/** A recording of what came over a line, a JSON object a line: how long it took to come, ms, and what came. */
export function readRecording(text: string): Piece[] {
  return text
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as Piece);
}

const wait = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const over = (): void => {
      clearTimeout(timer);
      signal.removeEventListener('abort', over);
      resolve();
    };
    const timer = setTimeout(over, signal.aborted ? 0 : ms);
    signal.addEventListener('abort', over, { once: true });
  });

/** Plays a recording as a line: the stand-in for a device on one. It takes no notice of what is written to it. */
export function recordedLine(pieces: readonly Piece[], faster: number, signal: AbortSignal): Line {
  return {
    async *bytes() {
      const encoder = new TextEncoder();
      for (const { afterMs, text } of pieces) {
        await wait(afterMs / faster, signal);
        if (signal.aborted) return;
        yield encoder.encode(text);
      }
    },
    write: () => Promise.resolve(),
    close: () => Promise.resolve(),
  };
}
