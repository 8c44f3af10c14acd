import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { dirname } from 'node:path';
import { type Request, Router } from 'express';
import { type Attachment, MOST_JOB_FILE_BYTES } from '../../contract';
import { takeBody } from '../offLoop/bodies';
import type { JobFileTask, JobReadOffLoop } from '../offLoop/jobFile.task';
import { offLoop } from '../offLoop/offLoop';
import { damaged, notKept, notTaken, tooDeep, unreadable } from '../problem';
import type { JobInHand } from '../store/logbook/fromFile';
import type { Store } from '../store/store';

/** The jobs of a file, its own files on disk beside it. */
async function readOffLoop(task: JobFileTask): Promise<readonly JobReadOffLoop[]> {
  for await (const says of offLoop('jobFile', task)) {
    switch (says.verdict) {
      case 'read':
        return says.jobs;
      case 'foreign':
        throw unreadable(says.reason, 'Choose a file that was saved as “Whole job (JSON)”.');
      case 'too deep':
        throw tooDeep();
      case 'damaged':
        throw damaged(says.fields, says.found);
    }
  }
  throw new Error('The file was not read to its end.');
}

/** Puts the files of a job where they are kept; no row names them before the job itself is taken in. */
async function placed(
  store: Store,
  { attachments, ...job }: JobReadOffLoop,
  onPlaced: (hash: string) => void,
): Promise<JobInHand> {
  const files: Attachment[] = [];
  for (const { name, path } of attachments) {
    const kept = await store.attachments.place(createReadStream(path), { name, fromAnotherCounter: true });
    if (kept.outcome !== 'kept')
      throw damaged([
        { path: 'attachments', message: `“${name}” cannot be added: it ${WHY_NOT[kept.outcome]}.` },
      ]);
    onPlaced(kept.attachment.hash);
    files.push(kept.attachment);
  }
  return { ...job, files };
}

const WHY_NOT = {
  'too large': 'has over 50 MB',
  empty: 'is empty',
  'cut off': 'broke off',
  'stopped coming': 'broke off',
  'cannot be read': 'is damaged, or holds data besides picture and sound',
  'cannot be cleaned': 'is of a type from which the place it was taken cannot be removed',
  'too many pixels': 'has too many pixels',
} as const;

/** Jobs made at another counter: people, files and entries of all of them together, or nothing. */
export function jobImportRoutes(store: Store): Router {
  const router = Router();

  const takeIn = async (request: Request, path: string, swept: string[]) => {
    const body = await takeBody(request, path, MOST_JOB_FILE_BYTES);
    if (body.outcome !== 'taken') throw notTaken(body.outcome, { most: '200 MB' });
    if (body.bytes === 0) throw unreadable('No file came.', 'Send the job file as application/octet-stream.');
    const read = await readOffLoop({ path, folder: dirname(path) });
    swept.push(...read.flatMap(({ attachments }) => attachments.map((file) => file.path)));
    const inHand: JobInHand[] = [];
    const placedHere: string[] = [];
    let isTaken = false;
    try {
      for (const job of read) inHand.push(await placed(store, job, (hash) => placedHere.push(hash)));
      const taken = store.logbook.takeFromFile(inHand);
      isTaken = Array.isArray(taken);
      return taken;
    } finally {
      // What was refused leaves nothing behind.
      if (!isTaken) for (const hash of placedHere) store.attachments.unplace(hash);
    }
  };

  router.post('/jobs/import', async (request, response) => {
    if (request.headers['content-type'] !== 'application/octet-stream')
      throw unreadable('No file came.', 'Send the job file as application/octet-stream.');
    const path = store.attachments.wayIn();
    const swept = [path];
    try {
      const imported = await takeIn(request, path, swept);
      if (!Array.isArray(imported)) throw notKept(imported);
      for (const { jobId } of imported) store.publish({ jobId, what: 'job' });
      store.publish({ jobId: null, what: 'stock' });
      response.status(201).json(imported);
    } finally {
      for (const each of swept) await rm(each, { force: true });
    }
  });

  return router;
}
