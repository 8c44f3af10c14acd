import type { Service } from '../../policy';
import type { FactKinds } from '../entry';

export const COMPLAINTS = [
  'stopped',
  'loses time',
  'hand steps in twos or fours',
  'display fading',
  'light or alarm fails first',
  'fog under the crystal',
] as const;
export type Complaint = (typeof COMPLAINTS)[number];

/** The risks an owner is told of before a watch is opened, each in words a customer understands. */
export const RISKS = {
  'old parts': 'Old parts may fail when the watch is opened.',
  'water resistance': 'Water resistance is not promised unless it is tested.',
  'marks on the back': 'A tight back may take a mark from opening.',
} as const;
export type Risk = keyof typeof RISKS;

export interface ArrivePayloads {
  'arrive.received': { readonly customerId: string; readonly watchId: string; readonly visitId: string };
  'arrive.watch': {
    readonly maker: string;
    readonly reference: string;
    readonly serial: string;
    readonly engraved: string;
    readonly ratingBar: number | null;
    readonly crownClock: number | null;
  };
  'arrive.complaint': { readonly picked: readonly Complaint[]; readonly words: string };
  'arrive.service': { readonly service: Service; readonly priceMinor: number };
  'arrive.promise': { readonly promisedAt: string };
  'arrive.consent': { readonly risks: readonly Risk[]; readonly given: boolean };
}

export const arriveFacts: FactKinds<ArrivePayloads> = {
  'arrive.received': {
    words: () => 'taken in',
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.received = entry),
  },
  'arrive.watch': {
    words: (watch) => `the watch: ${[watch.maker, watch.reference].filter(Boolean).join(' ') || 'unmarked'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.watch = entry),
  },
  'arrive.complaint': {
    words: (complaint) => `complaint: ${[...complaint.picked, complaint.words].filter(Boolean).join(', ')}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.complaint = entry),
  },
  'arrive.service': {
    words: ({ service }) => `service: ${service}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.service = entry),
  },
  'arrive.promise': {
    words: () => 'promised time',
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.promise = entry),
  },
  'arrive.consent': {
    words: ({ given }) => (given ? 'consent given' : 'consent not given'),
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.consent = entry),
  },
};
