import type { Problem } from '../../contract';
import { takeAhead } from './ahead';
import { NEWS_MARK, noteReading } from './asOf';

/** A request the server answered: with a refusal, or that it failed at this one, which says nothing of the next. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** Whether the server is there and knows no such thing. */
export function isNotFound(error: unknown): boolean {
  return error instanceof Refused && error.problem.status === 404;
}

/** What the server says, and what to do; null where it said nothing. */
export function saidInWords(error: unknown): string | null {
  if (error instanceof Refused) return inWords(error.problem);
  return error instanceof ServerAway ? error.says : null;
}

/** The server could not be reached, or could not do its work just now: worth trying again. */
export class ServerAway extends Error {
  constructor(
    message: string,
    /** Where it is there and says why not, what it says: its disk is full, it asks for its key. */
    readonly says: string | null = null,
  ) {
    super(message);
  }
}

/** Why something was not done, in words: what the server says, or that it is away and what that means. */
export function failedInWords(error: unknown, awayMeans: string): string {
  return saidInWords(error) ?? `The server is away: ${awayMeans}`;
}

const inWords = ({ detail, whatToDo }: Problem): string => [detail, whatToDo].filter(Boolean).join(' ');

const TIMEOUT_MS = 10_000;
/** Answers that say nothing of what was sent, only that it is not the time: key wanted, too slow, too many. */
const LATER: readonly number[] = [401, 408, 429];

/** What a refusal says of itself, in the form the server gives it; null where something else answered. */
async function problemIn(response: Response): Promise<Problem | null> {
  try {
    const said: unknown = await response.json();
    // What reads it comes with the pages: the first screen has nothing to be refused.
    const { problem } = await import('../../contract');
    return problem.safeParse(said).data ?? null;
  } catch {
    return null;
  }
}

async function request(
  path: string,
  init: RequestInit,
  timeoutMs: number | null = TIMEOUT_MS,
  ahead?: Promise<Response>,
): Promise<Response> {
  let response: Response;
  try {
    response = await (ahead ??
      fetch(path, {
        ...init,
        ...(timeoutMs === null ? {} : { signal: AbortSignal.timeout(timeoutMs) }),
      }));
  } catch (error) {
    throw new ServerAway(error instanceof Error ? error.message : 'no answer');
  }
  if (response.ok) return response;
  const body = await problemIn(response);
  // In words of its own it is there, and failed at this one; a bare 5xx comes from what stands in between.
  const failedHere = response.status === 500 && body !== null;
  if ((response.status >= 500 && !failedHere) || LATER.includes(response.status))
    throw body === null
      ? new ServerAway(`answer ${response.status}`)
      : new ServerAway(body.detail, inWords(body));
  throw new Refused(
    body ?? {
      type: 'about:blank',
      title: 'Refused',
      status: response.status,
      detail: `The server answered ${response.status}.`,
    },
  );
}

/** Reads a resource, and notes how much the server had told by then; of a reading that failed it is not known. */
async function readNoted<T>(
  path: string,
  accept: string,
  timeoutMs: number | null,
  read: (response: Response) => Promise<T>,
): Promise<T> {
  let mark: string | null = null;
  try {
    const response = await request(path, { headers: { accept } }, timeoutMs, takeAhead(path));
    const answer = await read(response);
    mark = response.headers.get(NEWS_MARK);
    return answer;
  } finally {
    noteReading(mark);
  }
}

/** Reads a resource. Throws `Refused` or `ServerAway`. */
export function getJson<T>(path: string): Promise<T> {
  return readNoted(path, 'application/json', TIMEOUT_MS, (response) => response.json() as Promise<T>);
}

/** Lets the page draw and hear keys before it goes on. */
export function breathe(): Promise<void> {
  // A timer would wait four milliseconds each time.
  const { port1, port2 } = new MessageChannel();
  return new Promise((resolve) => {
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}

/** The page is not kept busy longer at a time, ms. */
const BUSY_MS = 12;

/** Hears an answer line by line (NDJSON); between the lines of a long one the page goes on. */
async function hearLines<T>(response: Response, onLine: (line: T) => void): Promise<void> {
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  if (!reader) return;
  let [rest, since] = ['', performance.now()];
  for (;;) {
    const { done, value = '' } = await reader.read();
    rest += value;
    const lines = rest.split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) {
      if (line !== '') onLine(JSON.parse(line) as T);
      if (performance.now() - since < BUSY_MS) continue;
      await breathe();
      since = performance.now();
    }
    if (done) return;
  }
}

/** Reads a resource line by line, however long it is. Throws `Refused` or `ServerAway`. */
export function getLines<T>(path: string, onLine: (line: T) => void): Promise<void> {
  return readNoted(path, 'application/x-ndjson', null, (response) =>
    hearLines(response, onLine).catch((error: unknown) => {
      throw new ServerAway(error instanceof Error ? error.message : 'the answer ended early');
    }),
  );
}

/**
 * Sends a file and hears the answer line by line (NDJSON) as the server works. No time limit: a large file takes
 * its time, and says how far it is. Throws `Refused` or `ServerAway`.
 */
export async function sendLines<T>(
  path: string,
  body: Blob,
  type: string,
  onLine: (line: T) => void,
  signal: AbortSignal | null = null,
): Promise<void> {
  const response = await request(
    path,
    { method: 'POST', headers: { 'content-type': type }, body, signal },
    null,
  );
  await hearLines(response, onLine);
}

/** Sends a file as it is, however long it takes. Throws `Refused` or `ServerAway`. */
export async function sendFile<T>(path: string, file: Blob): Promise<T> {
  const response = await request(
    path,
    { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file },
    null,
  );
  return (await response.json()) as T;
}

/** Writes a resource. Throws `Refused` or `ServerAway`. */
export async function postJson<T>(path: string, body: unknown): Promise<T> {
  const response = await request(path, {
    method: 'POST',
    // A browser holds six connections to a server: what is recorded goes before what many windows read again.
    priority: 'high',
    headers: { 'content-type': 'application/json', accept: 'application/json' },
    body: JSON.stringify(body),
  });
  return (await response.json()) as T;
}
