import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { askDevice, faultWords } from './devices';
import { failedInWords, getJson, postJson, Refused, sendFile, sendLines, ServerAway } from './http';

let server: Server;
let url: string;
let answer: (request: IncomingMessage, response: ServerResponse) => void;
beforeAll(async () => {
  server = createServer((request, response) => answer(request, response));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

const problem = (status: number, detail: string) => (_: IncomingMessage, response: ServerResponse) => {
  response.writeHead(status, { 'content-type': 'application/problem+json' });
  response.end(JSON.stringify({ type: '/problems/x', title: 'No', status, detail, whatToDo: 'Try so.' }));
};

const bodyOf = async (request: IncomingMessage): Promise<string> => {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
};

describe('an answer line by line', () => {
  it('is heard as it comes, however it is cut on the way', async () => {
    const whole = Buffer.from('{"n":1}\n{"n":2,"words":"½‴ × µ"}\n\n{"n":3}\n');
    for (let cut = 1; cut < whole.length; cut += 5) {
      answer = (_, response) => {
        response.writeHead(200);
        response.write(whole.subarray(0, cut));
        setTimeout(() => response.end(whole.subarray(cut)), 1);
      };
      const heard: { n: number; words?: string }[] = [];
      await sendLines<{ n: number }>(url, new Blob(['x']), 'text/csv', (line) => heard.push(line));
      expect(heard).toEqual([{ n: 1 }, { n: 2, words: '½‴ × µ' }, { n: 3 }]);
    }
  });

  it('carries the body and its type to the server', async () => {
    let got = '';
    let type: string | undefined = '';
    answer = (request, response) =>
      void bodyOf(request).then((body) => {
        got = body;
        type = request.headers['content-type'];
        response.end('{"done":true}\n');
      });
    await sendLines(url, new Blob(['a,b\n1,2\n']), 'text/csv', () => undefined);
    expect([got, type]).toEqual(['a,b\n1,2\n', 'text/csv']);
  });
});

describe('what the server says no to', () => {
  it.each([
    [400, Refused],
    [409, Refused],
    [413, Refused],
    [422, Refused],
    [401, ServerAway],
    [408, ServerAway],
    [429, ServerAway],
    // It is there, and failed at this one.
    [500, Refused],
    [502, ServerAway],
    [503, ServerAway],
  ])('%s is %p, in its own words', async (status, kind) => {
    answer = problem(status, `because of ${status}`);
    for (const call of [
      () => getJson(url),
      () => postJson(url, {}),
      () => sendFile(url, new Blob(['x'])),
      () => sendLines(url, new Blob(['x']), 'text/plain', () => undefined),
    ]) {
      const error = await call().then(
        () => null,
        (caught: unknown) => caught,
      );
      expect(error).toBeInstanceOf(kind);
      expect((error as Error).message).toContain(`because of ${status}`);
    }
  });

  it('is still said where the answer is no problem document', async () => {
    answer = (_, response) => response.writeHead(404).end('nothing here');
    await expect(getJson(url)).rejects.toThrow('The server answered 404.');
    answer = (_, response) => response.writeHead(502).end('<html>');
    await expect(getJson(url)).rejects.toThrow(ServerAway);
  });

  it('is that it is away where nothing answers', async () => {
    await expect(getJson('http://127.0.0.1:1/')).rejects.toThrow(ServerAway);
  });
});

describe('asking a device', () => {
  const real = globalThis.fetch;
  beforeEach(() => {
    // The page’s own addresses are relative; here they lead to the server of the test.
    globalThis.fetch = (input, init) => real(`${url}${input as string}`, init);
  });
  afterEach(() => {
    globalThis.fetch = real;
  });

  it('hears each thing it says and gives the last', async () => {
    answer = (_, response) => {
      response.write('{"says":"sample","sample":{"atS":0,"deflectionUm":12}}\n');
      response.end('{"says":"trace","startUm":12,"endUm":11.9,"seconds":60}\n');
    };
    const heard: string[] = [];
    const last = await askDevice('leak-tester', { ask: 'trace', pressureBar: 3, seconds: 60 }, (says) =>
      heard.push(says.says),
    );
    expect(heard).toEqual(['sample', 'trace']);
    expect(last).toMatchObject({ says: 'trace', endUm: 11.9 });
    expect(faultWords(last)).toBeNull();
  });

  it('takes a refusal and a server that is away for faults, in words', async () => {
    answer = problem(422, 'The technician named is not on the list.');
    expect(faultWords(await askDevice('caliper', { ask: 'length' }))).toBe(
      'The technician named is not on the list. Try so.',
    );
    answer = problem(500, 'broken');
    expect(faultWords(await askDevice('caliper', { ask: 'length' }))).toBe('broken Try so.');
    answer = problem(503, 'broken');
    expect(faultWords(await askDevice('caliper', { ask: 'length' }))).toContain('The server is away');
    answer = (_, response) => response.destroy();
    expect(faultWords(await askDevice('caliper', { ask: 'length' }))).toContain('The server is away');
  });
});

describe('why something was not done, in words', () => {
  const failed = async (reply: typeof answer): Promise<string> => {
    answer = reply;
    const error = await postJson(url, {}).catch((reason: unknown) => reason);
    return failedInWords(error, 'nothing was booked.');
  };

  it.each([
    [
      'the disk is full',
      problem(503, 'The disk of the server is full.'),
      'The disk of the server is full. Try so.',
    ],
    ['it asks for its key', problem(401, 'It asks for its key.'), 'It asks for its key. Try so.'],
    ['it refuses', problem(422, 'Not so.'), 'Not so. Try so.'],
    [
      'something in between answers',
      (_: IncomingMessage, response: ServerResponse) => response.writeHead(502).end('Bad gateway'),
      'The server is away: nothing was booked.',
    ],
    [
      'nothing answers',
      (request: IncomingMessage) => request.socket.destroy(),
      'The server is away: nothing was booked.',
    ],
  ])('%s', async (_, reply, words) => {
    expect(await failed(reply)).toBe(words);
  });
});
