import { Readable } from 'node:stream';
import { gzipSync } from 'node:zlib';
import type { Problem } from '../contract';
import { Counter, technicianId } from '../testing/counter';
import { MOST_DEPTH, MOST_VALUES, piecesOf, shapeOf, StoppedComing } from './offLoop/bodies';

let counter: Counter;
beforeAll(async () => {
  counter = await Counter.open();
});
afterAll(() => counter.close());

/** Packed before anything is sent: it takes seconds, and a connection left idle meanwhile would be closed. */
const BOMB = new Uint8Array(gzipSync(Buffer.alloc(300 * 1024 * 1024, 0x61)));

type Body = string | Uint8Array<ArrayBuffer>;
async function send(path: string, type: string, body: Body, headers: Record<string, string> = {}) {
  const response = await fetch(counter.url + path, {
    method: 'POST',
    headers: { 'content-type': type, ...headers },
    body,
  });
  return { status: response.status, problem: (await response.json()) as Problem };
}
const packed = (text: string): Uint8Array<ArrayBuffer> => new Uint8Array(gzipSync(text));
const TABLE = `/api/catalogue/tables/makers?technicianId=${technicianId}&dryRun=yes`;
const deep = (levels: number): string => `${'{"a":'.repeat(levels)}1${'}'.repeat(levels)}`;

describe('too much at once is refused as too large, in words', () => {
  const cases: readonly (readonly [string, () => ReturnType<typeof send>, string])[] = [
    [
      'JSON that unpacks to more than it may have',
      () =>
        send('/api/jobs', 'application/json', packed(JSON.stringify({ words: 'x'.repeat(2_000_000) })), {
          'content-encoding': 'gzip',
        }),
      'over 1 MB',
    ],
    [
      'JSON nested too deep',
      () => send('/api/jobs', 'application/json', deep(MOST_DEPTH + 1)),
      'nested deeper',
    ],
    [
      'JSON of too many values',
      () =>
        send('/api/jobs', 'application/json', JSON.stringify({ entries: Array(MOST_VALUES + 1).fill(1) })),
      `at most ${MOST_VALUES}`,
    ],
    [
      'a table of too many lines',
      () => send(TABLE, 'text/csv', `id,name,sign\n${'a,b,\n'.repeat(100_001)}`),
      'at most 100000',
    ],
    [
      'a table that unpacks to more than it may have',
      () =>
        send(TABLE, 'text/csv', packed(`id,name,sign\n${'a'.repeat(21 * 1024 * 1024)}`), {
          'content-encoding': 'gzip',
        }),
      'The limit is 20 MB, measured after unpacking',
    ],
    [
      'a job file nested too deep',
      () => send('/api/jobs/import', 'application/octet-stream', deep(10_000)),
      'nested deeper',
    ],
  ];
  it.each(cases)('%s', async (_, sent, words) => {
    const { status, problem } = await sent();
    expect([status, problem.detail]).toEqual([413, expect.stringContaining(words)]);
    expect(problem.whatToDo).not.toBe('');
    expect((await counter.get('/api/health')).status).toBe(200);
  });

  it('a job file of over 200 MB, before it has come', async () => {
    const { request } = await import('node:http');
    const status = await new Promise<number | undefined>((resolve, reject) => {
      const asked = request(`${counter.url}/api/jobs/import`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream', 'content-length': 300 * 1024 * 1024 },
      });
      asked.on('response', (response) => {
        resolve(response.statusCode);
        asked.destroy();
      });
      asked.on('error', reject);
      asked.write('{');
    });
    expect(status).toBe(413);
  });
});

describe('what comes in another way than it should', () => {
  it('JSON in another encoding than UTF-8, in which depth and count could not be told', async () => {
    const body = new Uint8Array(Buffer.from(JSON.stringify({ id: 'x' }), 'utf16le'));
    const { status, problem } = await send('/api/jobs', 'application/json; charset=utf-16le', body);
    expect([status, problem.detail]).toEqual([415, expect.stringContaining('UTF-8')]);
  });

  it.each(['toString', 'constructor', '__proto__', 'zebra'])('a packing called %s', async (packing) => {
    for (const [path, type] of [
      [TABLE, 'text/csv'],
      ['/api/jobs/import', 'application/octet-stream'],
      ['/api/jobs', 'application/json'],
    ] as const)
      expect((await send(path, type, '{}', { 'content-encoding': packing })).status).toBe(415);
  });

  it('a packed table of 300 MB: heard out and answered, without hanging up', async () => {
    const { status, problem } = await send(TABLE, 'text/csv', BOMB, { 'content-encoding': 'gzip' });
    expect([status, problem.detail]).toEqual([
      413,
      expect.stringContaining('The limit is 20 MB, measured after unpacking'),
    ]);
  });

  it('pieces that stop coming are given up, and what reads them may stop without hanging up', async () => {
    const quiet = new Readable({ read: () => undefined });
    quiet.push('a');
    const heard: string[] = [];
    const listening = (async () => {
      for await (const piece of piecesOf(quiet, { stalledAfterMs: 50 })) heard.push(piece.toString());
    })();
    await expect(listening).rejects.toBeInstanceOf(StoppedComing);
    expect([heard, quiet.destroyed]).toEqual([['a'], false]);
    const endless = Readable.from(
      (function* () {
        for (;;) yield Buffer.from('x');
      })(),
    );
    const slow = (async () => {
      for await (const _ of piecesOf(endless, { longestMs: 100 }))
        await new Promise((on) => setTimeout(on, 5));
    })();
    await expect(slow).rejects.toBeInstanceOf(StoppedComing);
  });
});

describe('wrong places', () => {
  it('of a body are named up to the first two hundred, with how many there are', async () => {
    const lines = Array.from({ length: 200 }, () => ({ line: {} }));
    const { status, problem } = await send('/api/deliveries', 'application/json', JSON.stringify({ lines }));
    expect([status, problem.fields?.length]).toEqual([400, 200]);
    expect(problem.fieldsFound).toBeGreaterThanOrEqual(400);
    expect(problem.detail.length).toBeLessThan(4000);
  });

  it('of a table are named up to the first two hundred, with how many there are', async () => {
    const lines = Array.from({ length: 450 }, (_, index) => `bulk-${index},,no such sign`);
    const response = await fetch(counter.url + TABLE, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: ['id,name,sign', ...lines].join('\n'),
    });
    const said = (await response.text()).trim().split('\n').at(-1) ?? '';
    const { report } = JSON.parse(said) as {
      report: { errors: unknown[]; errorsFound: number; linesWrong: number };
    };
    expect(report.errors).toHaveLength(200);
    expect(report.linesWrong).toBe(450);
    expect(report.errorsFound).toBeGreaterThanOrEqual(450);
  });
});

describe('the shape of a JSON text', () => {
  it.each([
    ['1', 0, 1],
    ['[1,2,[3,{"a":4}]]', 3, 4],
    ['{"a":"[[[,,,\\"[["}', 1, 1],
    ['"\\\\"', 0, 1],
  ])('%s', (json, depth, values) => {
    expect(shapeOf(new TextEncoder().encode(json))).toEqual({ depth, values });
  });
});
