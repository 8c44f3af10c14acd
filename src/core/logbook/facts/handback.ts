import { amount } from '../../craft/money';
import type { Envelope, FactKinds } from '../envelope';
import type { AGREED_HOW } from './arrive';

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
  /** The owner was told that the next visit comes up. */
  'handback.reminded': { readonly how: (typeof AGREED_HOW)[number]; readonly words: string };
}

type Fact<K extends keyof HandbackPayloads> = Envelope<K, HandbackPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface HandbackFacts {
  price: Fact<'handback.price'> | null;
  signed: Fact<'handback.signed'> | null;
  collected: Fact<'handback.collected'> | null;
  reminded: Fact<'handback.reminded'> | null;
}

export const noHandbackFacts = (): HandbackFacts => ({
  price: null,
  signed: null,
  collected: null,
  reminded: null,
});

export const handbackKinds: FactKinds<HandbackPayloads, HandbackFacts> = {
  'handback.price': {
    words: ({ priceMinor, reason }) => `charged ${amount(priceMinor)}: ${reason}`,
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
  'handback.reminded': {
    words: ({ how, words }) => `reminded of the next visit ${how}${words && `: ${words}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.reminded = entry),
  },
};
