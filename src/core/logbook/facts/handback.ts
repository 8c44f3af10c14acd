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
  /** What is charged, where it is not what service and estimate add up to. */
  'handback.price': { readonly priceMinor: number; readonly reason: string };
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
  'handback.price': {
    words: ({ priceMinor, reason }) => `charged ${(priceMinor / 100).toFixed(2)}: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.price = entry),
  },
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
