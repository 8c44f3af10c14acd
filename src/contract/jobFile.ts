import { z } from 'zod';
import type { Entry, Statement } from '../core/logbook';
import type { Shop } from '../core/craft/policy';
import { newEntry, type NewEntry, upcastNewEntry } from './entries/entries';
import { fileHash, id, instant, text } from './fields';
import { fieldsOf, MOST_NAMED, type Problem } from './problems';
import {
  customer,
  type Customer,
  FOLLOWS,
  newTechnician,
  type Technician,
  type UnreadableEntry,
} from './resources';

/** A job or a visit with its photographs and films, as it is taken in. */
export const MOST_JOB_FILE_BYTES = 200 * 1024 * 1024;

export const JOB_FILE_FORMAT = 'wax-lantern-job';
export const VISIT_FILE_FORMAT = 'wax-lantern-visit';
/** Version 2 carries the people, the files and the links of a job, so that it arrives whole elsewhere. */
export const JOB_FILE_VERSION = 2;

const counterName = text({ words: 'Counter', max: 80, example: 'Saltmarsh Road' });

const fileOfJob = z.looseObject({
  format: z.literal(JOB_FILE_FORMAT),
  formatVersion: z.literal(JOB_FILE_VERSION),
  job: z.looseObject({
    id,
    ticket: text({ words: 'Ticket', max: 20, example: 'T0001-8' }),
    visitId: id,
    watchId: id,
    receivedAt: instant,
    follows: z.looseObject({ jobId: id, why: z.enum(FOLLOWS) }).nullable(),
  }),
  // Files of an older program name the shop, too.
  shop: z.looseObject({ name: counterName }),
  customerId: id,
  customer: customer.nullable(),
  technicians: z.array(newTechnician).min(1, 'Technicians: those who wrote the entries.').max(200),
  entries: z
    .array(z.looseObject({ recordedAt: instant, counter: counterName.nullable().default(null) }))
    .min(1, 'Entries: at least one.')
    .max(5000),
  attachments: z
    .array(
      z.strictObject({
        hash: fileHash,
        name: z.string().max(120),
        contentType: z.string().max(120),
        bytes: z.int().min(1),
        base64: z.base64({ error: 'A file stands in base64.' }),
      }),
    )
    .max(500),
  // Files of an older program know of none.
  filesMissing: z
    .array(z.looseObject({ hash: fileHash }))
    .max(500)
    .default([]),
  unreadable: z.array(z.looseObject({ id })).max(5000).default([]),
});

/** A job as it stands in a file: everything that makes it, and nothing of the shop it was made in. */
export interface JobFile {
  readonly format: typeof JOB_FILE_FORMAT;
  readonly formatVersion: typeof JOB_FILE_VERSION;
  readonly exportedAt: string;
  readonly shop: Shop;
  readonly job: {
    readonly id: string;
    readonly ticket: string;
    readonly visitId: string;
    readonly watchId: string;
    readonly receivedAt: string;
    readonly follows: { readonly jobId: string; readonly why: (typeof FOLLOWS)[number] } | null;
  };
  readonly customerId: string;
  readonly customer: Customer | null;
  readonly technicians: readonly Technician[];
  readonly entries: readonly (Entry & { readonly payloadVersion: number })[];
  readonly statement: Statement;
  readonly book: object;
  readonly attachments: readonly {
    readonly hash: string;
    readonly name: string;
    readonly contentType: string;
    readonly bytes: number;
    readonly base64: string;
  }[];
  /** Files its entries name that were gone where it was saved, or no longer what they were. */
  readonly filesMissing: readonly { readonly hash: string; readonly name: string }[];
  /** Entries the program that saved it could not read: told, not carried. */
  readonly unreadable: readonly UnreadableEntry[];
}

/** What is taken from a file: entries of today, each with when it was put on record. */
export type JobFromFile = Pick<JobFile, 'job' | 'customerId' | 'customer' | 'technicians' | 'attachments'> & {
  readonly entries: readonly {
    readonly entry: NewEntry;
    readonly recordedAt: string;
    /** The counter that recorded it: the one that saved the file, or one it came from to that. */
    readonly counter: string;
  }[];
  /** Entries the program that saved it could not read, by id. */
  readonly unreadable: readonly string[];
};

export type FileReading =
  | { readonly verdict: 'read'; readonly jobs: readonly JobFromFile[] }
  | { readonly verdict: 'foreign'; readonly reason: string }
  | {
      readonly verdict: 'damaged';
      /** The first places. */
      readonly fields: NonNullable<Problem['fields']>;
      readonly found: number;
    };

const anyFile = z.looseObject({ format: z.string(), formatVersion: z.unknown() });

function readJob(value: unknown, at: string): JobFromFile | NonNullable<Problem['fields']> {
  const parsed = fileOfJob.safeParse(value);
  const under = (path: string): string => (at === '' ? path : `${at}.${path}`);
  if (!parsed.success)
    return fieldsOf(parsed.error).map(({ path, message }) => ({ path: under(path), message }));
  const {
    job,
    shop,
    customerId,
    customer: owner,
    technicians,
    attachments,
    filesMissing,
    unreadable,
  } = parsed.data;
  const wrong: NonNullable<Problem['fields']> = [];
  const entries = parsed.data.entries.flatMap((stored, index) => {
    const { recordedAt, counter, sequence: _, jobId: __, ...rest } = stored;
    const entry = newEntry.safeParse(upcastNewEntry(rest));
    if (!entry.success) {
      wrong.push(
        ...fieldsOf(entry.error).map(({ path, message }) => ({
          path: under(`entries.${index}.${path}`),
          message,
        })),
      );
      return [];
    }
    return [{ entry: entry.data, recordedAt, counter: counter ?? shop.name }];
  });
  const known = new Set(technicians.map((person) => person.id));
  const held = new Set([...attachments, ...filesMissing].map((file) => file.hash));
  if (wrong.length === 0) {
    entries.forEach(({ entry }, index) => {
      if (!known.has(entry.technicianId))
        wrong.push({
          path: under(`entries.${index}.technicianId`),
          message: 'Nobody in the file has this id.',
        });
      if (entry.attachments.some((hash) => !held.has(hash)))
        wrong.push({
          path: under(`entries.${index}.attachments`),
          message: 'A file it names is not in here.',
        });
    });
  }
  return wrong.length > 0
    ? wrong
    : {
        job: { ...job, follows: job.follows && { jobId: job.follows.jobId, why: job.follows.why } },
        customerId,
        customer: owner,
        technicians,
        attachments,
        entries,
        unreadable: unreadable.map((line) => line.id),
      };
}

/** What is taken in at once is one write, and nobody waits for it long. */
const MOST_JOBS = 60;
const MOST_ENTRIES = 10_000;

function damagedBy(message: string): FileReading {
  return { verdict: 'damaged', fields: [{ path: 'jobs', message }], found: 1 };
}

/** Reads a job or a visit from a file, or says in words why it is not one, or where it is damaged. */
export function readJobFile(value: unknown): FileReading {
  const shape = anyFile.safeParse(value);
  if (!shape.success || ![JOB_FILE_FORMAT, VISIT_FILE_FORMAT].includes(shape.data.format)) {
    return { verdict: 'foreign', reason: 'This is not a job or visit from a Wax Lantern counter.' };
  }
  if (shape.data.formatVersion !== JOB_FILE_VERSION) {
    return {
      verdict: 'foreign',
      reason: `The file is of version ${JSON.stringify(shape.data.formatVersion)}; this program reads version ${JOB_FILE_VERSION}.`,
    };
  }
  const parts =
    shape.data.format === JOB_FILE_FORMAT
      ? [{ at: '', value: shape.data as unknown }]
      : (Array.isArray(shape.data.jobs) ? (shape.data.jobs as unknown[]) : [null]).map((each, index) => ({
          at: `jobs.${index}`,
          value: each,
        }));
  if (parts.length > MOST_JOBS)
    return damagedBy(`A visit holds at most ${MOST_JOBS} jobs; here are ${parts.length}.`);
  const read = parts.map((part) => readJob(part.value, part.at));
  const wrong = read.flatMap((each) => (Array.isArray(each) ? each : []));
  const entries = read.reduce((sum, each) => sum + (Array.isArray(each) ? 0 : each.entries.length), 0);
  if (entries > MOST_ENTRIES)
    return damagedBy(`A file holds at most ${MOST_ENTRIES} entries; here are ${entries}.`);
  return wrong.length > 0
    ? { verdict: 'damaged', fields: wrong.slice(0, MOST_NAMED), found: wrong.length }
    : { verdict: 'read', jobs: read as readonly JobFromFile[] };
}

/** What came of an import. */
export interface JobImported {
  readonly jobId: string;
  readonly ticket: string;
  readonly cameAs: string;
  readonly outcome: 'new here' | 'entries added' | 'here already';
  readonly entriesAdded: number;
}
