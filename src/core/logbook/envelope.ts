/**
 * One recorded fact of a kind, with what it carries. Never changed: a later entry supersedes or withdraws it.
 */
export interface Envelope<K extends string, P> {
  readonly id: string;
  readonly jobId: string;
  readonly kind: K;
  readonly payload: P;
  /** When it happened at the bench, UTC. */
  readonly occurredAt: string;
  /** The server's order; null while it still waits in the browser. */
  readonly sequence: number | null;
  readonly recordedAt: string | null;
  /** The other counter it was recorded at, where it came in a file; null for what was recorded here. */
  readonly counter: string | null;
  readonly technicianId: string;
  readonly bench: string;
  /** Which cell it concerns where the movement has several. */
  readonly well: string | null;
  readonly supersedes: readonly string[];
  readonly withdraws: string | null;
  /** Files that belong to it, by the SHA-256 of their bytes. */
  readonly attachments: readonly string[];
}

/** The id of the entry that stands in the place of another: itself, or the last correction of it. */
export type StandsFor = (entryId: string) => string;

/** What the program must know of a kind to fold it, name it and order it after a signature. */
export interface FactKind<K extends string, P, F> {
  /** The fact in a few words, for the history, the undo and the waiting list. */
  readonly words: (payload: P) => string;
  /** Whether the fact, recorded after the signature, reopens the job. */
  readonly afterSigning: 'reopens' | 'keeps';
  /** Puts the fact into the job's facts; `standsFor` gives what stands now for an entry it names. */
  readonly fold: (facts: F, entry: Envelope<K, P>, standsFor: StandsFor) => void;
}

/** What later stages ask of the closing: whether there is one. */
export interface Closing {
  readonly closed: object | null;
}

/** The kinds of one stage: what each carries (`P`), and the facts they are folded into (`F`). */
export type FactKinds<P, F> = { readonly [K in keyof P & string]: FactKind<K, P[K], F> };

/** The well an entry concerns, where the movement has only one. */
export const MAIN_WELL = 'main';

/** The well an entry concerns. */
export function wellOf(entry: { readonly well: string | null }): string {
  return entry.well ?? MAIN_WELL;
}

/** How an entry names a well: not at all where there is one. The other way round than `wellOf`. */
export function wellKey({ name }: { readonly name: string }): string | null {
  return name === MAIN_WELL ? null : name;
}
