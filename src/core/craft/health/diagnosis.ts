import type { Judged } from '../judgement';
import type { PricedItem } from '../policy';
import type { Observable, Fault } from './faults';
import type { Remedy } from './remedies';

/** What is known of a watch that does not run as it should. */
export interface FaultQuestion {
  /** Each thing looked at or measured, by how it came out. */
  readonly observed: ReadonlyMap<Observable, string>;
  /** A fresh cell is in, so the cell is not what ails it. */
  readonly freshCell: boolean;
  /** The cell was changed lately, by whomever: what goes wrong at a change is likelier. */
  readonly changedLately: boolean;
  readonly charges: boolean;
  /** What shows low supply, by the book; null where it shows nothing of the kind. */
  readonly lowSupplySignal: string | null;
  /** Whether it asks for a reset after a change; null where nobody knows. */
  readonly hasReset: boolean | null;
  readonly hasHands: boolean;
  /** Seconds between two steps by the book; null where it has none, or nobody knows. */
  readonly stepIntervalS: number | null;
  /** How long somebody watched for a step. */
  readonly watchedSeconds: number | null;
  readonly originalMatters: boolean;
  readonly priceOf: (item: PricedItem) => number | null;
}

export interface FaultEvidence {
  readonly words: string;
  /** For it above 0, against it below: log₂ of how much likelier with this fault than without. */
  readonly bits: number;
}

export interface FaultChance {
  readonly fault: Fault;
  /** Its own chance; two faults can hold together, so these need not make one. */
  readonly probability: number;
  readonly evidence: readonly FaultEvidence[];
}

export interface NextTest {
  readonly observable: Observable;
  readonly words: string;
  readonly effort: number;
  readonly between: readonly [string, string];
  /** What each outcome would speak for. */
  readonly outcomes: readonly TestOutcome[];
  /** How long it must be watched before it can be said to stand still, s. */
  readonly watchS: number;
}

export interface TestOutcome {
  readonly observable: Observable;
  readonly outcome: string;
  readonly shows: string;
  readonly speaksFor: string;
}

export interface PricedRemedy extends Remedy {
  readonly for: Fault;
  /** Null where the price list has no line for it; 0 where the service covers it. */
  readonly priceMinor: number | null;
}

export type Diagnosis = Judged<'found' | 'nothing wrong' | 'wait longer' | 'cannot tell yet'> & {
  readonly causes: readonly Fault[];
  readonly ranked: readonly FaultChance[];
  readonly soundProbability: number;
  readonly nextTest: NextTest | null;
  readonly remedies: readonly PricedRemedy[];
};
