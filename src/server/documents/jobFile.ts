import type { Dossier } from './dossier';

/** A whole job as one JSON document: its entries, and the book records they name, so that it reads anywhere. */
export function jobFile({ resource, state, context, statement }: Dossier) {
  return {
    format: 'wax-lantern-job',
    formatVersion: 1,
    exportedAt: context.nowUtc,
    shop: context.shop,
    job: resource.job,
    customer: resource.customer,
    entries: resource.entries,
    statement,
    book: {
      catalogueRevision: context.catalogue.revision,
      policyRevision: context.policy.revision,
      calibre: state.calibre,
      maker: context.catalogue.maker(state.calibre?.makerId ?? null),
    },
  };
}
