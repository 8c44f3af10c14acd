import { readFile } from 'node:fs/promises';
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
    attachments: await Promise.all(
      resource.attachments.map(async (attachment) => ({
        ...attachment,
        base64: await readFile(store.attachments.pathOf(attachment.hash), 'base64'),
      })),
    ),
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
