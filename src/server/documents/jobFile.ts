import { createReadStream } from 'node:fs';
import {
  type Attachment,
  JOB_FILE_FORMAT,
  JOB_FILE_VERSION,
  type JobFile,
  kindDefinition,
  MOST_JOB_FILE_BYTES,
  type SavedSize,
  VISIT_FILE_FORMAT,
} from '../../contract';
import type { Store } from '../store/store';
import type { Dossier } from './dossier';

/** A whole job but for the content of its files, and which of them are whole. */
async function bareJob(store: Store, dossier: Dossier) {
  const { resource, state, context, statement } = dossier;
  const { received } = state.facts;
  const named = new Set(resource.entries.flatMap(({ attachments }) => attachments));
  const known = new Map(resource.attachments.map((attachment) => [attachment.hash, attachment]));
  const whole: Attachment[] = [];
  for (const attachment of known.values())
    if (await store.attachments.isWhole(attachment.hash)) whole.push(attachment);
  const people = new Set(resource.entries.map((entry) => entry.technicianId));
  const job: Omit<JobFile, 'attachments'> = {
    format: JOB_FILE_FORMAT,
    formatVersion: JOB_FILE_VERSION,
    exportedAt: context.nowUtc,
    shop: context.shop,
    job: {
      id: resource.job.id,
      ticket: resource.job.ticket,
      visitId: resource.job.visitId,
      watchId: resource.job.watchId,
      receivedAt: received?.occurredAt ?? context.nowUtc,
      follows: resource.job.follows && {
        jobId: resource.job.follows.jobId,
        why: resource.job.follows.why,
      },
    },
    customerId: received?.payload.customerId ?? resource.customer?.id ?? resource.job.id,
    customer: resource.customer,
    technicians: store.shops.technicians().filter((person) => people.has(person.id)),
    entries: resource.entries.map((entry) => ({
      ...entry,
      payloadVersion: kindDefinition(entry.kind).version,
    })),
    statement,
    book: {
      catalogueRevision: context.catalogue.revision,
      policyRevision: context.policy.revision,
      calibre: state.calibre,
      maker: context.catalogue.maker(state.calibre?.makerId ?? null),
    },
    filesMissing: [...named]
      .filter((hash) => !whole.some((each) => each.hash === hash))
      .map((hash) => ({ hash, name: known.get(hash)?.name ?? '' })),
    unreadable: resource.unreadable,
  };
  return { job, whole };
}

/** A file's bytes in base64, a piece at a time. */
async function* base64Of(path: string): AsyncGenerator<string> {
  let rest = Buffer.alloc(0);
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) {
    const bytes = Buffer.concat([rest, chunk]);
    // Three bytes make four letters: what is over waits for the next piece.
    const end = bytes.length - (bytes.length % 3);
    yield bytes.toString('base64', 0, end);
    rest = bytes.subarray(end);
  }
  yield rest.toString('base64');
}

/**
 * A whole job as one JSON document, a piece at a time, however large its files: everything needed to read it anywhere,
 * and to take it in at another counter. A file that is gone or damaged is named as missing.
 */
export async function* jobFile(store: Store, dossier: Dossier): AsyncGenerator<string> {
  const { job, whole } = await bareJob(store, dossier);
  yield `${JSON.stringify(job).slice(0, -1)},"attachments":[`;
  for (const [index, attachment] of whole.entries()) {
    yield `${index === 0 ? '' : ','}${JSON.stringify(attachment).slice(0, -1)},"base64":"`;
    yield* base64Of(store.attachments.pathOf(attachment.hash));
    yield '"}';
  }
  yield ']}';
}

/** A job without its files, at most. */
const BARE_JOB_BYTES = 1_000_000;
const inBase64 = (bytes: number): number => Math.ceil(bytes / 3) * 4;

/** How large a file of these jobs will be, and whether another counter takes one of that size. */
export function savedSize(dossiers: readonly Dossier[]): SavedSize {
  const bytes = dossiers
    .flatMap(({ resource }) => resource.attachments)
    .reduce((sum, file) => sum + inBase64(file.bytes), dossiers.length * BARE_JOB_BYTES);
  return {
    bytes,
    mostElsewhereBytes: MOST_JOB_FILE_BYTES,
    isTakenElsewhere: bytes <= MOST_JOB_FILE_BYTES,
  };
}

/** Every job of a visit in one document, a piece at a time. */
export async function* visitFile(store: Store, dossiers: readonly Dossier[]): AsyncGenerator<string> {
  const head = { format: VISIT_FILE_FORMAT, formatVersion: JOB_FILE_VERSION };
  yield `${JSON.stringify(head).slice(0, -1)},"jobs":[`;
  for (const [index, dossier] of dossiers.entries()) {
    if (index > 0) yield ',';
    yield* jobFile(store, dossier);
  }
  yield ']}';
}
