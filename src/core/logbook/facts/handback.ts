import type { FactKinds } from '../entry';

/** The record as it was given to the customer. Stored with the signature and never worked out again. */
export interface Statement {
  readonly found: readonly string[];
  readonly done: readonly string[];
  readonly fitted: readonly string[];
  readonly tested: readonly string[];
  readonly notDone: readonly string[];
  readonly water: string;
  /** A calendar day, or null where nothing can be forecast. */
  readonly nextVisitOn: string | null;
  readonly nextVisit: string;
  readonly warranty: string;
  readonly priceMinor: number;
}

export interface HandbackPayloads {
  'handback.signed': {
    readonly initials: string;
    readonly catalogueRevision: number;
    readonly policyRevision: number;
    /** The last entry the signer had seen. */
    readonly restsOnSequence: number;
    readonly statement: Statement;
  };
  'handback.collected': { readonly by: string; readonly paidMinor: number };
}

export const handbackFacts: FactKinds<HandbackPayloads> = {
  'handback.signed': {
    words: ({ initials }) => `signed ${initials}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.signed = entry),
  },
  'handback.collected': {
    words: ({ by }) => `collected by ${by}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.collected = entry),
  },
};
