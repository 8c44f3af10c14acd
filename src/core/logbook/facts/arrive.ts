import { clockWords, type CrownKind, type View } from '../../craft/cases';
import { amount } from '../../craft/money';
import { countOf } from '../../craft/parts';
import type { PriceLine, Service } from '../../craft/policy';
import { dayInWords } from '../../craft/time';
import type { Envelope, FactKinds } from '../envelope';

export const COMPLAINTS = [
  'stopped',
  'loses time',
  'hand steps in twos or fours',
  'display fading',
  'low-cell sign shows',
  'light or alarm fails first',
  'fog under the crystal',
  'does not hold its charge',
] as const;
export type Complaint = (typeof COMPLAINTS)[number];

/** The risks an owner is told of before a watch is opened, each in words a customer understands. */
export const RISKS = {
  'old parts': 'Old parts may fail when the watch is opened.',
  'water resistance': 'Water resistance is not promised unless it is tested.',
  'marks on the back': 'A tight back may be marked when it is opened.',
  settings: 'Alarms and times stored in a digital watch are lost when its cell is changed.',
} as const;
export type Risk = keyof typeof RISKS;

export const CHANGED_BY = ['this shop', 'another shop', 'the maker', 'the owner', 'nobody knows'] as const;
export const WEAR = [
  'every day',
  'now and then',
  'kept in a drawer',
  'hand washing and rain',
  'swimming',
  'diving',
  'knocks and vibration',
] as const;
export type Wear = (typeof WEAR)[number];
/** Wear that brings a watch into water. */
const IN_WATER: readonly Wear[] = ['hand washing and rain', 'swimming', 'diving'];

/** Whether worn so it will meet water. */
export function meetsWater(uses: readonly Wear[]): boolean {
  return uses.some((use) => IN_WATER.includes(use));
}

export const MARK_VIEWS = ['front', 'back', 'side'] as const;
export type MarkView = (typeof MARK_VIEWS)[number];
export const MARK_KINDS = [
  'scratch',
  'dent',
  'chipped coating',
  'cracked crystal',
  'stiff crown',
  'pusher stuck',
  'bar or pin missing',
  'original film',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

export const AGREED_HOW = ['at the counter', 'by phone', 'by message', 'by e-mail'] as const;
export const REFER_REASONS = [
  'no suitable opener',
  'certified diving watch',
  'under the maker’s warranty',
  'the maker changes the cell free of charge',
  'luminous paint to be left to a specialist',
  'not possible at this bench',
  'owner’s decision',
] as const;
export const AVAILABILITY = ['available', 'not available', 'not needed', 'not known yet'] as const;
type Availability = (typeof AVAILABILITY)[number];

export interface ArrivePayloads {
  'arrive.received': { readonly customerId: string; readonly watchId: string; readonly visitId: string };
  'arrive.watch': {
    readonly maker: string;
    readonly reference: string;
    readonly serial: string;
    readonly engraved: string;
    readonly ratingBar: number | null;
    /** Seen from the dial. */
    readonly crownClock: number | null;
  };
  /** What kind of crown it has: one that screws down floods the case where it is left up. */
  'arrive.crown': { readonly crown: CrownKind };
  'arrive.complaint': { readonly picked: readonly Complaint[]; readonly words: string };
  'arrive.cell-history': {
    readonly changedBy: (typeof CHANGED_BY)[number];
    /** `2023` or `2023-05`; null where nobody knows. */
    readonly changedOn: string | null;
  };
  /** When it stopped: `2023`, `2023-05` or `2023-05-14`; null where the owner does not know. */
  'arrive.stopped': { readonly stoppedOn: string | null };
  'arrive.wear': { readonly uses: readonly Wear[]; readonly words: string };
  'arrive.originality': { readonly matters: boolean; readonly words: string };
  'arrive.mark': {
    readonly view: MarkView;
    readonly kind: MarkKind;
    /** As seen in that view; null for the middle. */
    readonly clock: number | null;
    /** The owner's word on original film. */
    readonly film: 'keep' | 'remove' | null;
    readonly note: string;
  };
  'arrive.service': { readonly service: Service; readonly priceMinor: number };
  /** What may come on top of the service, from the price list. */
  'arrive.estimate': { readonly lines: readonly PriceLine[] };
  'arrive.agreement': {
    readonly what: string;
    /** The whole job may cost so much; null where only the work was agreed. */
    readonly upToMinor: number | null;
    readonly by: string;
    readonly how: (typeof AGREED_HOW)[number];
  };
  'arrive.promise': { readonly promisedAt: string };
  'arrive.consent': { readonly risks: readonly Risk[]; readonly given: boolean };
  'arrive.decision': {
    readonly decision: 'referred' | 'declined';
    readonly reason: (typeof REFER_REASONS)[number];
    readonly to: string;
    readonly told: string;
  };
  'arrive.ready': {
    readonly cell: Availability;
    readonly seal: Availability;
    readonly closingTool: Availability;
    readonly parts: Availability;
    /** Opened all the same: it may have to be closed interim. */
    readonly riskAccepted: boolean;
  };
  'arrive.parts-request': {
    readonly lines: readonly { readonly what: string; readonly count: number }[];
    readonly supplier: string;
    readonly expectedOn: string | null;
  };
  'arrive.parts-arrived': { readonly note: string };
}

type Fact<K extends keyof ArrivePayloads> = Envelope<K, ArrivePayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface ArriveFacts {
  received: Fact<'arrive.received'> | null;
  watch: Fact<'arrive.watch'> | null;
  crown: Fact<'arrive.crown'> | null;
  complaint: Fact<'arrive.complaint'> | null;
  cellHistory: Fact<'arrive.cell-history'> | null;
  stopped: Fact<'arrive.stopped'> | null;
  wear: Fact<'arrive.wear'> | null;
  originality: Fact<'arrive.originality'> | null;
  marks: Fact<'arrive.mark'>[];
  service: Fact<'arrive.service'> | null;
  estimate: Fact<'arrive.estimate'> | null;
  agreements: Fact<'arrive.agreement'>[];
  decision: Fact<'arrive.decision'> | null;
  ready: Fact<'arrive.ready'> | null;
  partsRequest: Fact<'arrive.parts-request'> | null;
  partsArrived: Fact<'arrive.parts-arrived'> | null;
  promise: Fact<'arrive.promise'> | null;
  consent: Fact<'arrive.consent'> | null;
}

export const noArriveFacts = (): ArriveFacts => ({
  received: null,
  watch: null,
  crown: null,
  complaint: null,
  cellHistory: null,
  stopped: null,
  wear: null,
  originality: null,
  marks: [],
  service: null,
  estimate: null,
  agreements: [],
  decision: null,
  ready: null,
  partsRequest: null,
  partsArrived: null,
  promise: null,
  consent: null,
});

export const arriveKinds: FactKinds<ArrivePayloads, ArriveFacts> = {
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
  'arrive.crown': {
    words: ({ crown }) => (crown === 'no crown' ? 'no crown' : `crown ${crown}`),
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.crown = entry),
  },
  'arrive.complaint': {
    words: (complaint) => `complaint: ${[...complaint.picked, complaint.words].filter(Boolean).join(', ')}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.complaint = entry),
  },
  'arrive.cell-history': {
    words: ({ changedBy, changedOn }) =>
      `cell changed last by ${changedBy}${changedOn === null ? '' : `, ${dayInWords(changedOn)}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.cellHistory = entry),
  },
  'arrive.stopped': {
    words: ({ stoppedOn }) =>
      stoppedOn === null ? 'stopped, since when is not known' : `stopped since ${dayInWords(stoppedOn)}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.stopped = entry),
  },
  'arrive.wear': {
    words: ({ uses, words }) => `worn: ${[...uses, words].filter(Boolean).join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.wear = entry),
  },
  'arrive.originality': {
    words: ({ matters, words }) =>
      `originality ${matters ? 'matters: clean and repair before replacing' : 'does not matter'}${words && `, ${words}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.originality = entry),
  },
  'arrive.mark': {
    words: ({ view, kind, clock, film, note }) =>
      `mark on the ${view}: ${kind}${markPlace(view, clock)}${film === null ? '' : `, ${film} it`}${note && `, ${note}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.marks.push(entry),
  },
  'arrive.service': {
    words: ({ service }) => `service: ${service}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.service = entry),
  },
  'arrive.estimate': {
    words: ({ lines }) => `estimate for extra work: ${lines.map(({ what }) => what).join(', ') || 'nothing'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.estimate = entry),
  },
  'arrive.agreement': {
    words: ({ what, upToMinor, by, how }) =>
      `agreed with ${by} ${how}: ${what}${upToMinor === null ? '' : `, up to ${amount(upToMinor)}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.agreements.push(entry),
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
  'arrive.decision': {
    words: ({ decision, reason, to }) => `${decision}${to && ` to ${to}`}: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.decision = entry),
  },
  'arrive.ready': {
    words: (ready) => {
      const missing = notAvailable(ready);
      return missing.length === 0 ? 'ready to open' : `not available: ${missing.join(', ')}`;
    },
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.ready = entry),
  },
  'arrive.parts-request': {
    words: ({ lines, expectedOn }) =>
      `parts requested: ${lines.map(({ what, count }) => countOf(what, count)).join(', ')}${expectedOn === null ? '' : `, expected ${dayInWords(expectedOn)}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => {
      facts.partsRequest = entry;
      // A request made after an arrival waits for its own.
      facts.partsArrived = null;
    },
  },
  'arrive.parts-arrived': {
    words: ({ note }) => `parts arrived${note && `: ${note}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.partsArrived = entry),
  },
};

/** Along its side a case has the hours of its dial. */
const SEEN_FROM: Readonly<Record<MarkView, View>> = { front: 'the dial', back: 'behind', side: 'the dial' };

/** Where a mark is, e.g. ` at 4 o’clock, seen from behind`; empty in the middle. */
export function markPlace(view: MarkView, clock: number | null): string {
  return clock === null ? '' : ` at ${clockWords(clock, SEEN_FROM[view])}`;
}

/** What a watch would have to wait for, in words. */
export function notAvailable(
  ready: Pick<ArrivePayloads['arrive.ready'], 'cell' | 'seal' | 'closingTool' | 'parts'>,
): string[] {
  const named = { cell: 'cell', seal: 'seal', closingTool: 'closing tool', parts: 'parts' } as const;
  return (Object.keys(named) as (keyof typeof named)[])
    .filter((each) => ready[each] === 'not available')
    .map((each) => named[each]);
}
