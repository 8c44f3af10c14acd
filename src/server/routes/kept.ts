import { request as send } from 'node:http';
import { type Request, Router } from 'express';
import { z } from 'zod';
import { type KeptTakenIn, newEntry, type Problem, upcastNewEntry } from '../../contract';
import { entryInWords } from '../../core/logbook';
import { parsedJson } from '../json';
import { notFound } from '../problem';
import type { Acknowledged } from '../store/acknowledged';
import type { Store } from '../store/store';

interface Answer {
  readonly status: number;
  readonly body: unknown;
}

/** Sends a write through the door it came by, as whoever asks for it: it is judged as any other. */
function sendAgain({ method, path, body }: Acknowledged, { headers, socket }: Request): Promise<Answer> {
  const text = JSON.stringify(body ?? {});
  return new Promise((resolve, reject) => {
    const { cookie, authorization, host } = headers;
    const sent = send(
      {
        host: socket.localAddress,
        port: socket.localPort,
        method,
        path,
        headers: {
          host,
          'content-type': 'application/json',
          'content-length': Buffer.byteLength(text),
          ...(cookie === undefined ? {} : { cookie }),
          ...(authorization === undefined ? {} : { authorization }),
        },
      },
      (answer) => {
        const pieces: Buffer[] = [];
        answer.on('data', (piece: Buffer) => pieces.push(piece));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 500,
            body: parsedJson(Buffer.concat(pieces).toString('utf8')),
          }),
        );
        answer.on('error', reject);
      },
    );
    sent.on('error', reject);
    sent.end(text);
  });
}

/** What else is recorded, by the address it came to. */
const RECORDED: readonly (readonly [of: RegExp, words: string])[] = [
  [/^\/api\/jobs$/, 'a watch taken in'],
  [/^\/api\/(lots|orders|deliveries|collections|day)/, 'a record of the stock'],
  [/^\/api\/customers/, 'an owner’s details'],
  [/^\/api\/catalogue/, 'a record of the book'],
  [/^\/api\/policy/, 'the policy'],
  [/^\/api\/technicians/, 'a technician'],
  [/^\/api\/attachments/, 'a picture or file'],
];

const ofUpload = z.object({ technicianId: z.uuid() });

/** Writes that the database lacks though they were acknowledged: a copy was put back, or it was taken away. */
export function keptRoutes(store: Store): Router {
  const router = Router();

  /** Makes a file known again that still lies in the folder. */
  const enterAgain = async (write: Acknowledged & { readonly file: object }): Promise<Answer> => {
    const { file, path } = write;
    const { technicianId } = ofUpload.parse(Object.fromEntries(new URL(path, 'http://here').searchParams));
    if (store.attachments.find(file.hash)) return { status: 200, body: null };
    if (!store.shops.technician(technicianId) || !(await store.attachments.isWhole(file.hash)))
      return { status: 422, body: { detail: `The file “${file.name}” is missing from the data folder.` } };
    store.attachments.enter(file, technicianId);
    return { status: 201, body: null };
  };

  /** What a write recorded, in words. */
  const inWords = ({ path, body }: Acknowledged): string => {
    const jobId = /^\/api\/jobs\/([^/]+)\/entries$/.exec(path)?.[1];
    if (jobId === undefined) return RECORDED.find(([of]) => of.test(path))?.[1] ?? 'another record';
    const ticket = store.logbook.job(jobId)?.job.ticket ?? 'a job that is not here';
    const entry = newEntry.safeParse(upcastNewEntry(body));
    return `${ticket}: ${entry.success ? entryInWords(entry.data) : 'a record that cannot be read'}`;
  };

  router.get('/kept', (_request, response) => {
    response.json(store.acknowledged.kept());
  });

  router.post('/kept/:name/take-in', async (request, response) => {
    const writes = store.acknowledged.read(request.params.name);
    if (writes === null) throw notFound('such file of kept writes');
    let recorded = 0;
    let heldBefore = 0;
    const refused: { readonly write: Acknowledged; readonly reason: string }[] = [];
    for (const write of writes) {
      const { file } = write;
      const { status, body } = await (file ? enterAgain({ ...write, file }) : sendAgain(write, request));
      if (status === 201) recorded += 1;
      else if (status === 200) heldBefore += 1;
      else refused.push({ write, reason: (body as Partial<Problem> | undefined)?.detail ?? String(status) });
    }
    // What was refused stays in the file: nothing that was acknowledged is ever thrown away unseen.
    store.acknowledged.replace(
      request.params.name,
      refused.map(({ write }) => write),
    );
    store.publish({ jobId: null, what: 'job' });
    const taken: KeptTakenIn = {
      recorded,
      heldBefore,
      refused: refused.map(({ write, reason }) => ({ atUtc: write.atUtc, what: inWords(write), reason })),
    };
    response.json(taken);
  });

  /** Nobody can use what was refused any more: it is offered no longer, and its file stays in the folder. */
  router.post('/kept/:name/discard', (request, response) => {
    if (!store.acknowledged.discard(request.params.name)) throw notFound('such file of kept writes');
    response.json({});
  });

  return router;
}
