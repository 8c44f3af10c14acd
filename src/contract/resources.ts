import type { Lit } from '../core/advice/charging';
import type { RunningWatch } from '../core/advice/proving';
import { z } from 'zod';
import type { Lot } from '../core/craft/stock';
import type { RecordChange, Catalogue } from '../core/craft/book';
import type { Entry, LooseCell, LyingOpen, OwnerRevision, Payloads, StageStatus } from '../core/logbook';
import type { Policy, Shop, StageId } from '../core/craft/policy';
import type { Attachment } from './devices';
import { newEntry } from './entries/entries';
import { id, optionalText, text } from './fields';
export const customer = z.strictObject({
  id,
  name: text({ words: 'Name', max: 80, example: 'Maren Oystrand' }),
  phone: optionalText({ words: 'Phone', max: 40, example: '0555 0142' }),
  email: z.union([
    z.literal(''),
    z.email({ error: 'E-mail: an address, e.g. maren@quay.example, or nothing.' }).max(120),
  ]),
});
export type Customer = z.infer<typeof customer>;

const seenRevisions = z.array(id).max(20, 'At most 20 at once.');

/** An owner's details put right: in the place of the revisions its writer saw. */
export const ownerRevision = z.strictObject({
  ...customer.shape,
  supersedes: seenRevisions,
  technicianId: id,
});
export type NewOwnerRevision = z.infer<typeof ownerRevision>;

export const newTechnician = z.strictObject({
  id,
  name: text({ words: 'Name', max: 60, example: 'Edda Vinterhal' }),
  initials: text({ words: 'Initials', max: 4, example: 'EV' }),
});
export type Technician = z.infer<typeof newTechnician>;

/** Taking in a watch: the job, its customer and watch, and the facts of arrival, in one piece. */
export const newJob = z.strictObject({
  id,
  visitId: id,
  watchId: id,
  customer,
  /** The revisions of a known owner's details that were seen; where it says none, those that stand. */
  customerSeen: seenRevisions.optional(),
  /** The earlier job it comes back about. */
  followsJobId: id.nullable().default(null),
  entries: z.array(newEntry).min(1, 'A job starts with at least one entry.').max(40),
});
export type NewJob = z.input<typeof newJob>;

export interface StageSummary {
  readonly stage: StageId;
  readonly status: StageStatus;
}

/** One envelope of the rack. */
export interface JobSummary {
  readonly id: string;
  readonly ticket: string;
  readonly customerName: string;
  readonly watch: string;
  readonly movement: string | null;
  readonly service: string | null;
  readonly promisedAt: string | null;
  readonly waitsFor: string;
  readonly current: StageId | null;
  readonly stages: readonly StageSummary[];
  readonly conflict: boolean;
  readonly signedBy: string | null;
  readonly collected: boolean;
  readonly receivedAt: string;
  /** Cells taken out of this watch that lie loose. */
  readonly looseCells: readonly LooseCell[];
  /** Since when its watch lies open, and the serial inside its back; null while it is closed. */
  readonly lyingOpen: LyingOpen | null;
  /** What runs to be read again. */
  readonly running: readonly RunningWatch[];
  /** Under which light it lies, and when it will be ready; null: under none. */
  readonly lit: Lit | null;
  /** When the parts it waits for are expected; null where it waits for none or nobody knows. */
  readonly partsExpectedOn: string | null;
}

export const FOLLOWS = ['interim closing', 'comeback'] as const;

/** Another job this one is tied to. */
export interface LinkedJob {
  readonly jobId: string;
  readonly ticket: string;
  readonly watch: string;
}

/** An entry of the log that this version of the program cannot read, and why. It stands; nothing is worked out from it. */
export interface UnreadableEntry {
  readonly id: string;
  readonly sequence: number;
  readonly kind: string;
  readonly occurredAt: string;
  readonly recordedAt: string;
  readonly technicianId: string;
  readonly reason: string;
}

export interface JobResource {
  readonly job: {
    readonly id: string;
    readonly ticket: string;
    readonly visitId: string;
    readonly watchId: string;
    /** The ticket it had at the counter it came from as a file. */
    readonly cameAs: string | null;
    readonly follows: (LinkedJob & { readonly why: (typeof FOLLOWS)[number] }) | null;
    readonly followedBy: readonly (LinkedJob & { readonly why: (typeof FOLLOWS)[number] })[];
    /** The other watches of the same visit. */
    readonly sameVisit: readonly LinkedJob[];
  };
  readonly customer: Customer | null;
  readonly entries: readonly Entry[];
  readonly unreadable: readonly UnreadableEntry[];
  /** The files its entries name. */
  readonly attachments: readonly Attachment[];
  /** The lots its entries name, used up or not. */
  readonly lots: readonly Lot[];
}

export interface ShopResource {
  readonly shop: Shop;
  readonly policy: Policy;
  readonly technicians: readonly Technician[];
  readonly catalogueRevision: number;
  readonly nowUtc: string;
  readonly demo: boolean;
}

export type CatalogueResource = Catalogue;

/** Before what changed in the book since a revision that somebody holds. */
export interface BookHead {
  readonly revision: number;
  /** By which this revision is known again: another book may have one of the same number. */
  readonly mark: string;
  /** What they hold and may keep; 0: nothing, all the records follow. */
  readonly since: number;
}

/** What changed in the book, line by line: the head, each change, and last how many they were, which shows that none is missing. */
export type BookLine = BookHead | RecordChange | { readonly count: number };

/** An owner to be reminded that the next visit of a watch comes up. */
export interface Reminder {
  readonly jobId: string;
  readonly ticket: string;
  readonly watchId: string;
  readonly watch: string;
  /** The day on its record. */
  readonly dueOn: string;
  readonly customerName: string;
  readonly phone: string;
  readonly email: string;
  /** The ticket of a later job that came in a file: another counter saw the watch since. */
  readonly seenElsewhere: string | null;
}

/** One owner, with every job of theirs, the newest first. */
export interface CustomerResource {
  readonly customer: Customer;
  /** When the person was erased; then name, phone and e-mail are empty. */
  readonly erasedAt: string | null;
  /** Their details as each hand wrote them, in order; none of a person who was erased. */
  readonly revisions: readonly OwnerRevision[];
  readonly jobs: readonly JobSummary[];
  /** Each watch they brought, as it was described last. */
  readonly watches: readonly KnownWatch[];
}

export interface KnownWatch {
  readonly watchId: string;
  /** The last job it was here for. */
  readonly jobId: string;
  readonly ticket: string;
  readonly watch: Payloads['arrive.watch'];
}

/** One watch with every visit, the newest first. */
export interface WatchResource {
  readonly watchId: string;
  readonly visits: readonly {
    readonly jobId: string;
    readonly ticket: string;
    readonly receivedAt: string;
    readonly entries: readonly Entry[];
    readonly unreadable: readonly UnreadableEntry[];
  }[];
  /** What the files named in the visits are. */
  readonly attachments: readonly Attachment[];
}

export const eraseCustomer = z.strictObject({ technicianId: id });

export interface FindResult {
  readonly jobs: readonly JobSummary[];
  readonly customers: readonly Customer[];
}

/** How often each tool of the shop opened a watch, and how often one was wanted that it has not. */
export interface ToolsServed {
  readonly served: readonly { readonly toolId: string; readonly jobs: number; readonly lastAtUtc: string }[];
  /** Watches referred for want of an opener in the last twelve months. */
  readonly wantedInYear: number;
}

/** What this shop knows of a calibre from its own jobs. */
export interface CalibreHistory {
  readonly jobs: number;
  readonly leaked: number;
  readonly firstAtUtc: string | null;
  readonly lastAtUtc: string | null;
  /** Oldest first. */
  readonly readings: readonly {
    readonly atUtc: string;
    readonly currentUA: number | null;
    readonly rateSPerDay: number | null;
  }[];
  /** What was found, the commonest first. */
  readonly causes: readonly { readonly cause: string; readonly jobs: number }[];
  /** The newest first. */
  readonly latest: readonly {
    readonly jobId: string;
    readonly ticket: string;
    readonly atUtc: string;
    readonly revision: string | null;
  }[];
}

/** What the live stream says when something was written. */
export interface LiveNews {
  readonly jobId: string | null;
  readonly what: 'entry' | 'job' | 'stock' | 'shop' | 'devices';
}

/** Writes that were acknowledged, and that the database did not hold when the server started. */
export interface KeptWrites {
  readonly name: string;
  readonly fromUtc: string;
  readonly untilUtc: string;
  readonly writes: number;
}

/** What became of kept writes: each is on record now, or stays kept with the reason. */
export interface KeptTakenIn {
  readonly recorded: number;
  /** On record already. */
  readonly heldBefore: number;
  readonly refused: readonly { readonly atUtc: string; readonly what: string; readonly reason: string }[];
}

/** How large a saved job or visit will be, and how large a file another counter takes. */
export interface SavedSize {
  readonly bytes: number;
  readonly mostElsewhereBytes: number;
  readonly isTakenElsewhere: boolean;
}
