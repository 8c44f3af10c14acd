import {
  JOB_FILE_FORMAT,
  JOB_FILE_VERSION,
  type JobFile,
  kindDefinition,
  VISIT_FILE_FORMAT,
} from '../../contract';
import type { Store } from '../store/store';
import type { Dossier } from './dossier';

/** A whole job as one JSON document: everything needed to read it anywhere, and to take it in at another counter. */
export async function jobFile(store: Store, dossier: Dossier): Promise<JobFile> {
  const { resource, state, context, statement } = dossier;
  const { received } = state.facts;
  const files = await Promise.all(
    resource.attachments.map(async (attachment) => ({
      attachment,
      base64: (await store.attachments.readWhole(attachment.hash))?.toString('base64') ?? null,
    })),
  );
  const named = new Set(resource.entries.flatMap(({ attachments }) => attachments));
  const known = new Set(resource.attachments.map(({ hash }) => hash));
  const people = new Set(resource.entries.map((entry) => entry.technicianId));
  return {
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
    attachments: files.flatMap(({ attachment, base64 }) =>
      base64 === null ? [] : [{ ...attachment, base64 }],
    ),
    filesMissing: [
      ...files.flatMap(({ attachment, base64 }) =>
        base64 === null ? [{ hash: attachment.hash, name: attachment.name }] : [],
      ),
      ...[...named].filter((hash) => !known.has(hash)).map((hash) => ({ hash, name: '' })),
    ],
    unreadable: resource.unreadable,
  };
}

/** Every job of a visit in one document. */
export async function visitFile(store: Store, dossiers: readonly Dossier[]) {
  return {
    format: VISIT_FILE_FORMAT,
    formatVersion: JOB_FILE_VERSION,
    jobs: await Promise.all(dossiers.map((dossier) => jobFile(store, dossier))),
  };
}
