import fc from 'fast-check';
import { linesOf, NoLine, readRecording, recordedLine } from './line';

async function* piecesOf(bytes: Uint8Array, cuts: readonly number[]): AsyncGenerator<Uint8Array> {
  const places = [...new Set([0, ...cuts.map((cut) => cut % (bytes.length + 1)), bytes.length])].sort(
    (a, b) => a - b,
  );
  for (const [i, from] of places.entries()) yield await Promise.resolve(bytes.subarray(from, places[i + 1]));
}

const textsOf = async (bytes: Uint8Array, cuts: readonly number[] = []): Promise<string[]> => {
  const texts: string[] = [];
  for await (const { text } of linesOf(piecesOf(bytes, cuts))) texts.push(text);
  return texts;
};
const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('what comes over a line', () => {
  it('is read line by line, however it is cut and whichever way its lines end', async () => {
    const lines = fc.array(fc.constantFrom('1.552 V DC', '+1.04E-06 A', '12,5 µA', '1.8 kΩ', 'OL'), {
      maxLength: 12,
    });
    await fc.assert(
      fc.asyncProperty(
        lines,
        fc.constantFrom('\r\n', '\n', '\r'),
        fc.array(fc.nat(400), { maxLength: 30 }),
        async (sent, end, cuts) => {
          const bytes = utf8(sent.map((line) => line + end).join(''));
          expect(await textsOf(bytes, cuts)).toEqual(sent);
        },
      ),
    );
  });

  it('gives no line that never ended: what is missing may change what it means', async () => {
    expect(await textsOf(utf8('1.552 V DC\r\n0.312 V'))).toEqual(['1.552 V DC']);
  });

  it('says of the first line that it may have begun earlier, and of the rest that they are whole', async () => {
    const heard = [];
    for await (const line of linesOf(piecesOf(utf8('52 V\r\n1.552 V\r\n1.553 V\r\n'), [2]))) heard.push(line);
    expect(heard).toEqual([
      { text: '52 V', whole: false },
      { text: '1.552 V', whole: true },
      { text: '1.553 V', whole: true },
    ]);
  });

  it('is understood where µ comes as one byte, as older meters send it', async () => {
    expect(await textsOf(Uint8Array.from([...utf8('1.04 '), 0xb5, ...utf8('A\r\n')]))).toEqual(['1.04 µA']);
  });

  it('that is no text is given up on with what to do', async () => {
    await expect(textsOf(new Uint8Array(5000).fill(0x55))).rejects.toThrow(NoLine);
  });
});

describe('a recording', () => {
  const pieces = readRecording('{"afterMs":40,"text":"a\\r"}\n{"afterMs":40,"text":"\\nb\\r\\n"}\n');
  it('plays what came, faster where wanted, and stops at once when nobody listens', async () => {
    const texts: string[] = [];
    for await (const { text } of linesOf(recordedLine(pieces, 40, new AbortController().signal).bytes()))
      texts.push(text);
    expect(texts).toEqual(['a', 'b']);
    const stopped = new AbortController();
    const heard: Uint8Array[] = [];
    const playing = (async () => {
      for await (const piece of recordedLine(pieces, 0.001, stopped.signal).bytes()) heard.push(piece);
    })();
    stopped.abort();
    await playing;
    expect(heard).toEqual([]);
  });
});
