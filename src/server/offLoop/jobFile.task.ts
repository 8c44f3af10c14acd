import { createHash, randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type JobFromFile, type Problem, readJobFile } from '../../contract';
import { parsedJson } from '../json';
import { MOST_DEPTH, shapeOf } from './bodies';

export interface JobFileTask {
  readonly path: string;
  /** Where the files of the job are put, for whoever asked to place them. */
  readonly folder: string;
}

/** A job as it was read, its files on disk beside it. */
export type JobReadOffLoop = Omit<JobFromFile, 'attachments'> & {
  readonly attachments: readonly { readonly hash: string; readonly name: string; readonly path: string }[];
};

export type JobFileSays =
  | { readonly verdict: 'read'; readonly jobs: readonly JobReadOffLoop[] }
  | { readonly verdict: 'foreign'; readonly reason: string }
  | { readonly verdict: 'too deep' }
  | {
      readonly verdict: 'damaged';
      readonly fields: NonNullable<Problem['fields']>;
      readonly found: number;
    };

/** The files of a job, put on disk where they are what their names say; or which of them are not. */
function unpack(job: JobFromFile, folder: string) {
  const wrong: { path: string; message: string }[] = [];
  const attachments = job.attachments.map(({ hash, name, base64 }) => {
    const content = Buffer.from(base64, 'base64');
    const path = join(folder, randomUUID());
    if (content.length === 0) wrong.push({ path: 'attachments', message: `“${name}” is empty.` });
    else if (createHash('sha256').update(content).digest('hex') !== hash)
      wrong.push({ path: 'attachments', message: `“${name}” has changed since it was stored.` });
    else if (wrong.length === 0) writeFileSync(path, content);
    return { hash, name, path };
  });
  return { wrong, job: { ...job, attachments } };
}

/** Reads a job or a visit from a file on disk, and puts the files that stand in it beside it. */
export function readJobFileAt({ path, folder }: JobFileTask): JobFileSays {
  const bytes = readFileSync(path);
  if (shapeOf(bytes).depth > MOST_DEPTH) return { verdict: 'too deep' };
  const reading = readJobFile(parsedJson(bytes.toString('utf8')));
  if (reading.verdict !== 'read') return reading;
  const unpacked = reading.jobs.map((job) => unpack(job, folder));
  const wrong = unpacked.flatMap((each) => each.wrong);
  return wrong.length > 0
    ? { verdict: 'damaged', fields: wrong, found: wrong.length }
    : { verdict: 'read', jobs: unpacked.map(({ job }) => job) };
}
